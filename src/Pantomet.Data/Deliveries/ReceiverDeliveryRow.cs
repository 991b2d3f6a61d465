namespace Pantomet.Data.Deliveries;

/// <summary>Where handing a job's files to a receiver stands.</summary>
public enum ReceiverDeliveryState
{
    /// <summary>It waits for its turn or is under way.</summary>
    Waiting,

    /// <summary>All files were handed over; some may have been refused.</summary>
    Done,

    /// <summary>Somebody stopped it.</summary>
    Stopped,

    /// <summary>The receiver cannot be reached, or takes nothing.</summary>
    Failed,
}

/// <summary>The last time that a job's files were handed to a receiver.</summary>
public sealed class ReceiverDeliveryRow
{
    /// <summary>Identity.</summary>
    public Guid Id { get; set; }

    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>The receiver.</summary>
    public Guid ReceiverId { get; set; }

    /// <summary>Where it stands.</summary>
    public ReceiverDeliveryState State { get; set; }

    /// <summary>Why it ended before all was handed over: a sentence.</summary>
    public string? Trouble { get; set; }

    /// <summary>When it was asked for, UTC.</summary>
    public DateTime AskedAt { get; set; }

    /// <summary>When it ended, UTC; null while it waits.</summary>
    public DateTime? EndedAt { get; set; }
}

/// <summary>What became of a file at a receiver.</summary>
public enum ReceiverFileState
{
    /// <summary>The receiver accepted the file.</summary>
    Accepted,

    /// <summary>The receiver refused the file.</summary>
    Refused,

    /// <summary>The file could not be delivered.</summary>
    NotDelivered,
}

/// <summary>A file as it was handed to a receiver last.</summary>
public sealed class ReceiverFileRow
{
    /// <summary>The receiver.</summary>
    public Guid ReceiverId { get; set; }

    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>Its path, as in the bundle.</summary>
    public required string Path { get; set; }

    /// <summary>The picture.</summary>
    public Guid PictureId { get; set; }

    /// <summary>The slot's address.</summary>
    public required string Slot { get; set; }

    /// <summary>SHA-256 of what was handed over.</summary>
    public required string ContentHash { get; set; }

    /// <summary>Its weight.</summary>
    public long Bytes { get; set; }

    /// <summary>What became of it.</summary>
    public ReceiverFileState State { get; set; }

    /// <summary>What the receiver said, as a list of sentences in JSON.</summary>
    public required string Said { get; set; }

    /// <summary>What the receiver shows of it, as a list in JSON.</summary>
    public required string Shown { get; set; }

    /// <summary>The hash of what the receiver had taken before under this path; null where it had nothing.</summary>
    public string? HeldHash { get; set; }

    /// <summary>When the receiver said it, UTC.</summary>
    public DateTime At { get; set; }
}

namespace Pantomet.Data.Jobs;

/// <summary>What was handed over at one time. It stays as it was; the next one is another.</summary>
public sealed class DeliveryRow
{
    /// <summary>Identity.</summary>
    public Guid Id { get; set; }

    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>Counts the deliveries of a job from 1.</summary>
    public int Number { get; set; }

    /// <summary>How: "zip", "folder" or "sent".</summary>
    public required string Kind { get; set; }

    /// <summary>When all of it was sent or written, UTC.</summary>
    public DateTime At { get; set; }
}

/// <summary>One file as it was handed over.</summary>
public sealed class DeliveredFileRow
{
    /// <summary>Identity.</summary>
    public int Id { get; set; }

    /// <summary>The delivery.</summary>
    public Guid DeliveryId { get; set; }

    /// <summary>Path in the bundle.</summary>
    public required string Path { get; set; }

    /// <summary>The destination's key.</summary>
    public required string Destination { get; set; }

    /// <summary>The slot's key.</summary>
    public required string Slot { get; set; }

    /// <summary>SHA-256 of the file; null where it was not kept.</summary>
    public string? ContentHash { get; set; }

    /// <summary>The file's figures as JSON.</summary>
    public required string File { get; set; }
}

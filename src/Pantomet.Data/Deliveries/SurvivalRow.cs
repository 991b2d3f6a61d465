namespace Pantomet.Data.Deliveries;

/// <summary>What was tried with a file to see which one a receiver shows best.</summary>
public sealed class SurvivalRow
{
    /// <summary>Identity.</summary>
    public Guid Id { get; set; }

    /// <summary>The receiver.</summary>
    public Guid ReceiverId { get; set; }

    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>The file's path, as in the bundle.</summary>
    public required string Path { get; set; }

    /// <summary>SHA-256 of the file as it was.</summary>
    public required string ContentHash { get; set; }

    /// <summary>Where it stands.</summary>
    public ReceiverDeliveryState State { get; set; }

    /// <summary>Why it ended before all was known: a sentence.</summary>
    public string? Trouble { get; set; }

    /// <summary>What was tried, as a list in JSON.</summary>
    public required string Tried { get; set; }

    /// <summary>When it was asked for, UTC.</summary>
    public DateTime AskedAt { get; set; }
}

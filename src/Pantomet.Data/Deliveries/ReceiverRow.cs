namespace Pantomet.Data.Deliveries;

/// <summary>A place that files are handed to.</summary>
public sealed class ReceiverRow
{
    /// <summary>Identity.</summary>
    public Guid Id { get; set; }

    /// <summary>What is to be known of it, as JSON, without what is secret.</summary>
    public required string Rule { get; set; }

    /// <summary>Its password, token or key, sealed with the data folder's own keys; null where it has none.</summary>
    public string? Secret { get; set; }

    /// <summary>When it was added, UTC.</summary>
    public DateTime AddedAt { get; set; }
}

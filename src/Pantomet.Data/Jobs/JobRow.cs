namespace Pantomet.Data.Jobs;

/// <summary>Whether a job's files are being made.</summary>
public enum RunState
{
    /// <summary>What is missing is made in the background.</summary>
    Running,

    /// <summary>What is under way is finished, nothing new is begun.</summary>
    Paused,

    /// <summary>What was under way was given up.</summary>
    Stopped,
}

/// <summary>One job as it is stored.</summary>
public sealed class JobRow
{
    /// <summary>Identity in addresses.</summary>
    public Guid Id { get; set; }

    /// <summary>The job itself as JSON: pictures, slots and every decision.</summary>
    public required string Text { get; set; }

    /// <summary>When it was made, UTC.</summary>
    public DateTime CreatedAt { get; set; }

    /// <summary>When it was put aside, UTC; null while it is at work.</summary>
    public DateTime? ArchivedAt { get; set; }

    /// <summary>Whether its files are being made.</summary>
    public RunState Run { get; set; }
}

/// <summary>One file as a job handed it over last.</summary>
public sealed class DeliveryRow
{
    /// <summary>Identity.</summary>
    public int Id { get; set; }

    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>When it was handed over, UTC.</summary>
    public DateTime At { get; set; }

    /// <summary>Path in the bundle.</summary>
    public required string Path { get; set; }

    /// <summary>The destination's key.</summary>
    public required string Destination { get; set; }

    /// <summary>The slot's key.</summary>
    public required string Slot { get; set; }

    /// <summary>The file's figures as JSON.</summary>
    public required string File { get; set; }
}

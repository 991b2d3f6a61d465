namespace Pantomet.Data.Pages;

/// <summary>Where a page check stands.</summary>
public enum PageCheckState
{
    /// <summary>Its files are still coming.</summary>
    Receiving,

    /// <summary>It waits for its turn, or is under way.</summary>
    Waiting,

    /// <summary>It is measured.</summary>
    Done,

    /// <summary>It could not be; why is told.</summary>
    Failed,

    /// <summary>Somebody stopped it.</summary>
    Stopped,
}

/// <summary>A page that is measured in a browser. Its files and what came of it lie in a folder under its id.</summary>
public sealed class PageCheckRow
{
    /// <summary>Identity in addresses, and the name of its folder.</summary>
    public Guid Id { get; set; }

    /// <summary>What people call it: the name of what was dropped, or the address.</summary>
    public required string Name { get; set; }

    /// <summary>The address; null for a page that lies in files.</summary>
    public string? Address { get; set; }

    /// <summary>Other hosts that may be read, with commas.</summary>
    public required string Allowed { get; set; }

    /// <summary>The widths of screens, with commas.</summary>
    public required string Viewports { get; set; }

    /// <summary>The densities of screens, with commas.</summary>
    public required string Densities { get; set; }

    /// <summary>Where it stands.</summary>
    public PageCheckState State { get; set; }

    /// <summary>Why it could not be measured: a sentence.</summary>
    public string? Trouble { get; set; }

    /// <summary>How many pictures it has; null until it is measured.</summary>
    public int? Images { get; set; }

    /// <summary>What a screen loads of them in the mean, in bytes; null until it is measured.</summary>
    public long? Mean { get; set; }

    /// <summary>What would be enough, in bytes; null until it is measured.</summary>
    public long? Possible { get; set; }

    /// <summary>When it was asked for, UTC.</summary>
    public DateTime AddedAt { get; set; }
}

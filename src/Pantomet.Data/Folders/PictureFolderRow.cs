namespace Pantomet.Data.Folders;

/// <summary>Where a folder of pictures stands.</summary>
public enum PictureFolderState
{
    /// <summary>Its files are still coming.</summary>
    Receiving,

    /// <summary>It is scanned, or waits for that.</summary>
    Scanning,

    /// <summary>It was scanned; nothing is under way.</summary>
    Ready,

    /// <summary>Some of its pictures are made for a preview, or wait for that.</summary>
    Previewing,

    /// <summary>It is optimised, or waits for that.</summary>
    Optimising,

    /// <summary>It is held, and can go on.</summary>
    Paused,

    /// <summary>Originals are restored, or wait for that.</summary>
    Restoring,
}

/// <summary>A folder of pictures of the server's machine that is optimised. Its lists and originals lie in a folder under its id.</summary>
public sealed class PictureFolderRow
{
    /// <summary>Identity in addresses, and the name of its folder.</summary>
    public Guid Id { get; set; }

    /// <summary>What people call it: the allowed folder's name and the way from there, or the name of what was dropped.</summary>
    public required string Name { get; set; }

    /// <summary>True where its files were sent, and lie with its lists.</summary>
    public bool IsSent { get; set; }

    /// <summary>The whole path of the folder.</summary>
    public required string Folder { get; set; }

    /// <summary>What its pictures are lightened to, as JSON.</summary>
    public required string Rule { get; set; }

    /// <summary>Where it stands.</summary>
    public PictureFolderState State { get; set; }

    /// <summary>Which originals are restored, as JSON; null for all.</summary>
    public string? Paths { get; set; }

    /// <summary>What went wrong with what was done last: a sentence.</summary>
    public string? Trouble { get; set; }

    /// <summary>True once all of it was optimised by its rule.</summary>
    public bool Mended { get; set; }

    /// <summary>When it was added, UTC.</summary>
    public DateTime AddedAt { get; set; }

    /// <summary>When what waits was asked for, UTC.</summary>
    public DateTime AskedAt { get; set; }
}

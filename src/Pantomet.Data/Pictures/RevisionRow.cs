namespace Pantomet.Data.Pictures;

/// <summary>One original that a picture has or had.</summary>
public sealed class RevisionRow
{
    /// <summary>The picture.</summary>
    public Guid PictureId { get; set; }

    /// <summary>1 for the first.</summary>
    public int Number { get; set; }

    /// <summary>SHA-256 of the original.</summary>
    public required string ContentHash { get; set; }

    /// <summary>The file name as it arrived.</summary>
    public required string Name { get; set; }

    /// <summary>When it was added, UTC.</summary>
    public DateTime AddedAt { get; set; }

    /// <summary>What was read from it, as JSON.</summary>
    public required string Facts { get; set; }
}

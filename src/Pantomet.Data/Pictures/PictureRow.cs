using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;

namespace Pantomet.Data.Pictures;

/// <summary>One picture of those that stand side by side.</summary>
/// <param name="Id">The picture.</param>
/// <param name="Name">Its name when they were put together, for the day when it is gone.</param>
public sealed record PartOfPair(Guid Id, string Name);

/// <summary>One entry of the library: an original and its facts. Pictures side by side have no original and follow their parts.</summary>
public sealed class PictureRow
{
    /// <summary>Identity in addresses.</summary>
    public Guid Id { get; set; }

    /// <summary>The file name as it arrived.</summary>
    public required string Name { get; set; }

    /// <summary>SHA-256 of the original, lower-case hexadecimal: also its name in the folder of originals.</summary>
    public required string ContentHash { get; set; }

    /// <summary>When it was added, UTC.</summary>
    public DateTime AddedAt { get; set; }

    /// <summary>File type by content.</summary>
    public PictureFormat Format { get; set; }

    /// <summary>Weight in bytes.</summary>
    public long Bytes { get; set; }

    /// <summary>Pixels across, as displayed.</summary>
    public int Width { get; set; }

    /// <summary>Pixels down, as displayed.</summary>
    public int Height { get; set; }

    /// <summary>True when there is an alpha channel.</summary>
    public bool HasAlpha { get; set; }

    /// <summary>Frames or pages.</summary>
    public int Frames { get; set; }

    /// <summary>Orientation tag, 1 to 8.</summary>
    public int Orientation { get; set; }

    /// <summary>Name of the embedded colour profile.</summary>
    public string? Profile { get; set; }

    /// <summary>RGB, grey or CMYK.</summary>
    public required string Colours { get; set; }

    /// <summary>Bits for each channel.</summary>
    public int Bits { get; set; }

    /// <summary>Resolution tag, pixels per inch.</summary>
    public double? Ppi { get; set; }

    /// <summary>True when the file tells where it was taken.</summary>
    public bool HasLocation { get; set; }

    /// <summary>The quality a JPEG was written at.</summary>
    public int? JpegQuality { get; set; }

    /// <summary>Photograph or flat graphic.</summary>
    public PictureKind? Kind { get; set; }

    /// <summary>How much fine bright detail a reduction of stored values would darken; null for those of before it was measured.</summary>
    public double? LightLoss { get; set; }

    /// <summary>The keep box the picture suggests.</summary>
    public Suggestion? Suggestion { get; set; }

    /// <summary>False while it still has to be looked at for a subject; its files wait for that.</summary>
    public bool SubjectSought { get; set; } = true;

    /// <summary>Which revision of its original this is, from 1.</summary>
    public int Revision { get; set; } = 1;

    /// <summary>The pictures that it lays side by side, from left to right; null for a picture with an original of its own.</summary>
    public IReadOnlyList<PartOfPair>? Parts { get; set; }

    /// <summary>When it was removed, UTC; it can be restored until the grace period is over. Null while it is in the library.</summary>
    public DateTime? RemovedAt { get; set; }

    /// <summary>How many days were seen to pass since it was removed: a clock that jumps counts as one.</summary>
    public int RemovedDays { get; set; }

    /// <summary>The facts as the core knows them.</summary>
    public PictureFacts Facts =>
        new()
        {
            Size = new PixelSize(Width, Height),
            Format = Format,
            Bytes = Bytes,
            HasAlpha = HasAlpha,
            Frames = Frames,
            Orientation = Orientation,
            Profile = Profile,
            Colours = Colours,
            Bits = Bits,
            Ppi = Ppi,
            HasLocation = HasLocation,
            JpegQuality = JpegQuality,
            Kind = Kind,
            LightLoss = LightLoss,
            Suggestion = Suggestion,
            SubjectSought = SubjectSought,
        };

    /// <summary>A new entry from what was read.</summary>
    public static PictureRow From(string name, string contentHash, DateTime addedAt, PictureFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        var row = new PictureRow
        {
            Id = Guid.CreateVersion7(),
            Name = name,
            ContentHash = contentHash,
            AddedAt = addedAt,
            Colours = facts.Colours,
        };
        row.Take(name, contentHash, facts);
        return row;
    }

    /// <summary>Takes over another original.</summary>
    public void Take(string name, string contentHash, PictureFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        (Name, ContentHash, Format, Bytes) = (name, contentHash, facts.Format, facts.Bytes);
        (Width, Height, HasAlpha, Frames, Orientation) = (
            facts.Size.Width,
            facts.Size.Height,
            facts.HasAlpha,
            facts.Frames,
            facts.Orientation
        );
        (Profile, Colours, Bits, Ppi, HasLocation) = (facts.Profile, facts.Colours, facts.Bits, facts.Ppi, facts.HasLocation);
        (JpegQuality, Kind, LightLoss) = (facts.JpegQuality, facts.Kind, facts.LightLoss);
        (Suggestion, SubjectSought) = (facts.Suggestion, facts.SubjectSought);
    }
}

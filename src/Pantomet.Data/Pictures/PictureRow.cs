using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;

namespace Pantomet.Data.Pictures;

/// <summary>One entry of the library: an original and its facts.</summary>
public sealed class PictureRow
{
    /// <summary>Identity in addresses.</summary>
    public Guid Id { get; set; }

    /// <summary>The file name as it arrived.</summary>
    public required string Name { get; set; }

    /// <summary>SHA-256 of the original, lower-case hexadecimal: also its name in the folder of originals.</summary>
    public required string ContentHash { get; set; }

    /// <summary>When it was read in, UTC.</summary>
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

    /// <summary>Density label, pixels for an inch.</summary>
    public double? Ppi { get; set; }

    /// <summary>True when the file tells where it was taken.</summary>
    public bool HasLocation { get; set; }

    /// <summary>The quality a JPEG was written at.</summary>
    public int? JpegQuality { get; set; }

    /// <summary>Photograph or flat graphic.</summary>
    public PictureKind? Kind { get; set; }

    /// <summary>The keep box the picture suggests.</summary>
    public Suggestion? Suggestion { get; set; }

    /// <summary>The facts as the core knows them.</summary>
    public PictureFacts Facts => new()
    {
        Size = new PixelSize(Width, Height), Format = Format, Bytes = Bytes, HasAlpha = HasAlpha, Frames = Frames, Orientation = Orientation,
        Profile = Profile, Colours = Colours, Bits = Bits, Ppi = Ppi, HasLocation = HasLocation,
        JpegQuality = JpegQuality, Kind = Kind, Suggestion = Suggestion,
    };

    /// <summary>A new entry from what was read.</summary>
    public static PictureRow From(string name, string contentHash, DateTime addedAt, PictureFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return new()
        {
            Id = Guid.CreateVersion7(), Name = name, ContentHash = contentHash, AddedAt = addedAt, Format = facts.Format, Bytes = facts.Bytes,
            Width = facts.Size.Width, Height = facts.Size.Height, HasAlpha = facts.HasAlpha, Frames = facts.Frames, Orientation = facts.Orientation,
            Profile = facts.Profile, Colours = facts.Colours, Bits = facts.Bits, Ppi = facts.Ppi, HasLocation = facts.HasLocation,
            JpegQuality = facts.JpegQuality, Kind = facts.Kind, Suggestion = facts.Suggestion,
        };
    }
}

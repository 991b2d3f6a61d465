using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;

namespace Pantomet.Core.Facts;

/// <summary>What was read from an original.</summary>
public sealed record PictureFacts
{
    /// <summary>Pixel size as displayed: after the orientation tag.</summary>
    public required PixelSize Size { get; init; }

    /// <summary>File type, told by content.</summary>
    public required PictureFormat Format { get; init; }

    /// <summary>Weight in bytes.</summary>
    public required long Bytes { get; init; }

    /// <summary>True when there is an alpha channel.</summary>
    public bool HasAlpha { get; init; }

    /// <summary>Frames or pages; 1 for a still picture.</summary>
    public int Frames { get; init; } = 1;

    /// <summary>The orientation tag (TIFF 6.0 / EXIF, 1 to 8); 1 means upright.</summary>
    public int Orientation { get; init; } = 1;

    /// <summary>The colour profile's description, or null when none is embedded.</summary>
    public string? Profile { get; init; }

    /// <summary>How the colours are stored: RGB, grey, CMYK.</summary>
    public string Colours { get; init; } = "RGB";

    /// <summary>Bits for each channel: 8 or 16.</summary>
    public int Bits { get; init; } = 8;

    /// <summary>The resolution tag in pixels for an inch, or null. A label: it changes no pixel.</summary>
    public double? Ppi { get; init; }

    /// <summary>True when the file tells where it was taken.</summary>
    public bool HasLocation { get; init; }

    /// <summary>The quality a JPEG was written at, 1 to 100, estimated from its tables; null for other types.</summary>
    public int? JpegQuality { get; init; }

    /// <summary>Photograph or flat graphic, by content; null where only the header was read.</summary>
    public PictureKind? Kind { get; init; }

    /// <summary>
    /// How much fine bright detail a reduction of stored values would darken, in 255ths (<see cref="Light.LossOf"/>); null where only the
    /// header was read.
    /// </summary>
    public double? LightLoss { get; init; }

    /// <summary>True for a photograph that loses so much that it is reduced in light.</summary>
    public bool NeedsLight => Kind == PictureKind.Photograph && Colours != "CMYK" && LightLoss >= Light.Plain;

    /// <summary>The keep box that the picture itself suggests; null where there is none or only the header was read.</summary>
    public Suggestion? Suggestion { get; init; }

    /// <summary>True once the whole picture was looked at for a subject; until then no suggestion says nothing.</summary>
    public bool SubjectSought { get; init; }
}

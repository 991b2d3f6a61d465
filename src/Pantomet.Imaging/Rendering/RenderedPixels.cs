using NetVips;
using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;

namespace Pantomet.Imaging.Rendering;

/// <summary>A variant's pixels before encoding: 8-bit sRGB, with or without alpha, held in memory; the frames of a moving one below each
/// other.</summary>
public sealed class RenderedPixels : IDisposable
{
    internal RenderedPixels(Image image, int frames = 1, Dressed? dressed = null, IReadOnlyList<ExtendedSide>? extended = null) =>
        (Image, Frames, Dressed, Extended) = (image, frames, dressed, extended ?? []);

    /// <summary>The size in pixels, of one frame.</summary>
    public PixelSize Size => new(Image.Width, Image.Height / Frames);

    /// <summary>How many frames there are: 1 for a still picture.</summary>
    public int Frames { get; }

    /// <summary>True when it moves.</summary>
    public bool Moves => Frames > 1;

    /// <summary>True when there is an alpha channel.</summary>
    public bool HasAlpha => Image.HasAlpha();

    internal Image Image { get; }

    /// <summary>What became of the slot's dress; null where it has none.</summary>
    public Dressed? Dressed { get; }

    /// <summary>Where the canvas was extended, and how; nowhere as a rule.</summary>
    public IReadOnlyList<ExtendedSide> Extended { get; }

    /// <summary>The same pixels for somebody else: both are freed on their own.</summary>
    public RenderedPixels Shared() => new(Image.Copy(), Frames, Dressed, Extended);

    /// <summary>Frees the pixels.</summary>
    public void Dispose() => Image.Dispose();
}

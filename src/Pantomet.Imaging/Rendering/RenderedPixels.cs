using NetVips;
using Pantomet.Core.Geometry;

namespace Pantomet.Imaging.Rendering;

/// <summary>A variant's pixels before encoding: 8-bit sRGB, with or without alpha, held in memory.</summary>
public sealed class RenderedPixels : IDisposable
{
    internal RenderedPixels(Image image) => Image = image;

    /// <summary>The size in pixels.</summary>
    public PixelSize Size => new(Image.Width, Image.Height);

    /// <summary>True when there is an alpha channel.</summary>
    public bool HasAlpha => Image.HasAlpha();

    internal Image Image { get; }

    /// <summary>Frees the pixels.</summary>
    public void Dispose() => Image.Dispose();
}

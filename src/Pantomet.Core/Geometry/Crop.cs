namespace Pantomet.Core.Geometry;

/// <summary>A rectangle in whole pixels of the picture as displayed: what is really cut out.</summary>
/// <param name="Left">Left edge, inclusive.</param>
/// <param name="Top">Top edge, inclusive.</param>
/// <param name="Right">Right edge, exclusive.</param>
/// <param name="Bottom">Bottom edge, exclusive.</param>
public readonly record struct Crop(int Left, int Top, int Right, int Bottom)
{
    /// <summary>Pixels across.</summary>
    public int Width => Right - Left;

    /// <summary>Pixels down.</summary>
    public int Height => Bottom - Top;

    /// <summary>The size of the crop.</summary>
    public PixelSize Size => new(Width, Height);

    /// <summary>The whole picture.</summary>
    public static Crop All(PixelSize picture) => new(0, 0, picture.Width, picture.Height);
}

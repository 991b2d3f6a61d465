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

    /// <summary>The same crop moved by whole pixels so that it holds a region, where it is large enough for it.</summary>
    /// <param name="keep">What is to be held; inside the picture.</param>
    /// <param name="picture">The picture, which the crop does not leave.</param>
    public Crop Holding(Region keep, PixelSize picture)
    {
        var across = Shift(Left, Right, (int)Math.Floor(keep.X + Hair), (int)Math.Ceiling(keep.Right - Hair), picture.Width);
        var down = Shift(Top, Bottom, (int)Math.Floor(keep.Y + Hair), (int)Math.Ceiling(keep.Bottom - Hair), picture.Height);
        return new(Left + across, Top + down, Right + across, Bottom + down);
    }

    // Fractions written with a few digits land a hair beside the pixel they mean.
    private const double Hair = 1e-3;

    private static int Shift(int from, int to, int keepFrom, int keepTo, int most) =>
        keepTo - keepFrom > to - from ? 0
        : from > keepFrom ? Math.Max(keepFrom - from, -from)
        : to < keepTo ? Math.Min(keepTo - to, most - to)
        : 0;
}

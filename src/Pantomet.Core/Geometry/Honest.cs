namespace Pantomet.Core.Geometry;

/// <summary>Sizes that never enlarge.</summary>
public static class Honest
{
    /// <summary>The largest size of a shape that fits in <paramref name="box"/>, its missing side rounded half up.</summary>
    public static PixelSize Largest(Ratio shape, PixelSize box)
    {
        var height = shape.HeightFor(box.Width);
        if (height <= box.Height)
        {
            return new(box.Width, height);
        }

        return new(Math.Min(box.Width, shape.WidthFor(box.Height)), box.Height);
    }
}

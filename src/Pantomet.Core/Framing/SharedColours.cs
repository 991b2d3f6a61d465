using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>How much of its colours a part of a picture has in common with the rest. Cloth, wood and sand are the same all over.</summary>
internal static class SharedColours
{
    // Eight levels of red, green and blue each: neighbouring shades of one thing fall together.
    private const int Shift = 5;
    private const int Levels = 8;

    /// <summary>The intersection of both histograms (after M. Swain and D. Ballard, "Color indexing", 1991): 0 nothing in common to 1 the same.</summary>
    /// <param name="part">The part.</param>
    /// <param name="picture">The picture.</param>
    public static double Of(Frame part, Thumb picture)
    {
        var (inside, outside) = (new double[Levels * Levels * Levels], new double[Levels * Levels * Levels]);
        for (var y = 0; y < picture.Height; y++)
        {
            for (var x = 0; x < picture.Width; x++)
            {
                var colour =
                    ((((picture.At(x, y, 0) >> Shift) * Levels) + (picture.At(x, y, 1) >> Shift)) * Levels)
                    + (picture.At(x, y, 2) >> Shift);
                (part.Holds((x + 0.5) / picture.Width, (y + 0.5) / picture.Height) ? inside : outside)[colour]++;
            }
        }

        var (many, few) = (Math.Max(1, inside.Sum()), Math.Max(1, outside.Sum()));
        return inside.Zip(outside, (one, other) => Math.Min(one / many, other / few)).Sum();
    }
}

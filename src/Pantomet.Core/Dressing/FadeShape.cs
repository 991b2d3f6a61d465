using Pantomet.Core.Geometry;

namespace Pantomet.Core.Dressing;

/// <summary>
/// How much of a fade each column or row takes: all of it over an area and from there on to one side, and softly less towards the other, by the
/// curve 3t² - 2t³.
/// </summary>
public sealed class FadeShape
{
    private readonly double[] _parts;

    private FadeShape(double[] parts, bool across) => (_parts, Across, Mean) = (parts, across, parts.Average());

    /// <summary>True where it changes from column to column, false from row to row.</summary>
    public bool Across { get; }

    /// <summary>The mean over the picture, 0 to 1: what it takes, against a fade over all.</summary>
    public double Mean { get; }

    /// <summary>The share of the amount at a column or row, 0 to 1.</summary>
    public double At(int place) => _parts[place];

    /// <summary>All of it everywhere.</summary>
    public static FadeShape All(PixelSize size) => new([.. Enumerable.Repeat(1.0, size.Width)], true);

    /// <summary>Of the four sides the one where it takes least.</summary>
    /// <param name="size">The picture.</param>
    /// <param name="area">What is faded in full.</param>
    public static FadeShape Least(PixelSize size, Crop area) =>
        new[]
        {
            new FadeShape(Falling(size.Width, area.Right), true),
            new FadeShape([.. Falling(size.Width, size.Width - area.Left).Reverse()], true),
            new FadeShape(Falling(size.Height, area.Bottom), false),
            new FadeShape([.. Falling(size.Height, size.Height - area.Top).Reverse()], false),
        }.MinBy(shape => shape.Mean)!;

    // In full up to an end, then down to nothing at the far side.
    private static double[] Falling(int length, int end) =>
        [
            .. Enumerable
                .Range(0, length)
                .Select(i =>
                {
                    var t = i < end ? 1 : 1 - ((i + 0.5 - end) / (length - end));
                    return t * t * (3 - (2 * t));
                }),
        ];
}

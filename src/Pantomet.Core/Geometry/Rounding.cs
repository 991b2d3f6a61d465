namespace Pantomet.Core.Geometry;

/// <summary>The one way a missing side is rounded: the exact quotient, half up, at least 1 (common practice).</summary>
public static class Rounding
{
    /// <summary>The longest side any rule or file may have, in pixels: the most a JPEG can hold (ITU-T T.81, 16-bit line counts).</summary>
    public const int LongestSide = 65_535;

    /// <summary>Rounds half up to a whole pixel count, at least 1.</summary>
    public static int ToPixels(decimal exact) => (int)Math.Clamp(Math.Round(exact, MidpointRounding.AwayFromZero), 1, int.MaxValue);

    /// <summary>Rounds half up to a whole pixel count, at least 1. A hair of floating-point error is forgiven.</summary>
    public static int ToPixels(double exact) => ToPixels(Math.Round((decimal)Math.Clamp(exact, 0, int.MaxValue), 6));

    /// <summary>
    /// The quotient <paramref name="a"/> · <paramref name="b"/> / <paramref name="c"/>, exactly, rounded half up, at least 1.
    /// </summary>
    public static int Proportion(decimal a, decimal b, decimal c) => ToPixels(a * b / c);
}

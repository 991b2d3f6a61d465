using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Dressing;

/// <summary>
/// How well an ink stands out from a ground: relative luminance and contrast ratio as the Web Content Accessibility Guidelines 2.2 define them
/// (W3C Recommendation, 5 October 2023, "relative luminance", "contrast ratio").
/// </summary>
public static class Contrast
{
    /// <summary>What text needs (success criterion 1.4.3).</summary>
    public const double OfText = 4.5;

    /// <summary>What large text needs (1.4.3): from 18 point on, or 14 point bold.</summary>
    public const double OfLargeText = 3;

    /// <summary>The highest there is: black and white.</summary>
    public const double Most = 21;

    private const double Flare = 0.05;

    /// <summary>The share of each channel in luminance: red, green, blue.</summary>
    internal static ReadOnlySpan<double> Shares => [0.2126, 0.7152, 0.0722];

    /// <summary>The relative luminance of a colour, 0 for black to 1 for white.</summary>
    public static double LuminanceOf(Rgb colour)
    {
        var light = Light.OfValues;
        return ((Shares[0] * light[colour.Red]) + (Shares[1] * light[colour.Green]) + (Shares[2] * light[colour.Blue])) / 255;
    }

    /// <summary>The ratio of two relative luminances, 1 to 21, whichever is the lighter.</summary>
    public static double Between(double one, double other) => (Math.Max(one, other) + Flare) / (Math.Min(one, other) + Flare);

    /// <summary>The ratio of two colours, 1 to 21.</summary>
    public static double Between(Rgb one, Rgb other) => Between(LuminanceOf(one), LuminanceOf(other));

    /// <summary>What text of a size needs: 3 from 24 CSS px on, or from 18.7 where it is bold, else 4.5.</summary>
    /// <param name="size">CSS px.</param>
    /// <param name="weight">100 to 900; bold from 700 on.</param>
    public static double NeededAt(double size, int weight) => size >= 24 || (size >= 18.7 && weight >= 700) ? OfLargeText : OfText;

    /// <summary>The luminances that reach a ratio with an ink: all up to the first, and all from the second on.</summary>
    internal static (double Dark, double Light) Reaching(double ink, double ratio) =>
        (((ink + Flare) / ratio) - Flare, ((ink + Flare) * ratio) - Flare);
}

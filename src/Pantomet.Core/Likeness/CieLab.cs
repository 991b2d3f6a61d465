using Pantomet.Core.Pixels;

namespace Pantomet.Core.Likeness;

/// <summary>A colour in CIELAB under the white of sRGB (ISO/CIE 11664-4; IEC 61966-2-1), and how far apart two are seen (CIEDE2000).</summary>
/// <param name="L">Lightness, 0 to 100.</param>
/// <param name="A">Green to red.</param>
/// <param name="B">Blue to yellow.</param>
public readonly record struct CieLab(double L, double A, double B)
{
    // The light of a stored value in steps fine enough for means: sixteen for each of 255.
    private const int Steps = 16;

    private static readonly double[] Lights =
    [
        .. Enumerable.Range(0, (255 * Steps) + 1).Select(step => Light.OfStored((double)step / Steps / 255)),
    ];

    /// <summary>Of a mean colour of sRGB.</summary>
    /// <param name="red">0 to 255; what lies beyond is cut.</param>
    /// <param name="green">0 to 255.</param>
    /// <param name="blue">0 to 255.</param>
    public static CieLab Of(double red, double green, double blue)
    {
        var (r, g, b) = (LightOf(red), LightOf(green), LightOf(blue));
        var x = Curved(((0.4124 * r) + (0.3576 * g) + (0.1805 * b)) / 0.9505);
        var y = Curved((0.2126 * r) + (0.7152 * g) + (0.0722 * b));
        var z = Curved(((0.0193 * r) + (0.1192 * g) + (0.9505 * b)) / 1.089);
        return new((116 * y) - 16, 500 * (x - y), 200 * (y - z));
    }

    /// <summary>
    /// How far apart two colours are seen: ISO/CIE 11664-6, computed as in G. Sharma, W. Wu, E. Dalal, "The CIEDE2000 Color-Difference
    /// Formula: Implementation Notes, Supplementary Test Data, and Mathematical Observations", Color Research and Application 30 (1), 2005.
    /// About 1 is seen when both are held side by side (common practice).
    /// </summary>
    /// <param name="other">The other colour.</param>
    public double To(CieLab other)
    {
        var middle = (Chroma(A, B) + Chroma(other.A, other.B)) / 2;
        var stretch = 1 + (0.5 * (1 - Math.Sqrt(Seventh(middle))));
        var (one, two) = (Polar(stretch * A, B), Polar(stretch * other.A, other.B));
        var grey = one.Chroma * two.Chroma == 0;
        var turn = grey ? 0 : Turned(two.Hue - one.Hue);
        var (lighter, stronger) = (other.L - L, two.Chroma - one.Chroma);
        var hue = 2 * Math.Sqrt(one.Chroma * two.Chroma) * Math.Sin(Radians(turn / 2));
        var (lightness, chroma) = ((L + other.L) / 2, (one.Chroma + two.Chroma) / 2);
        var direction = grey ? one.Hue + two.Hue : Between(one.Hue, two.Hue);
        var uneven =
            1
            - (0.17 * Math.Cos(Radians(direction - 30)))
            + (0.24 * Math.Cos(Radians(2 * direction)))
            + (0.32 * Math.Cos(Radians((3 * direction) + 6)))
            - (0.20 * Math.Cos(Radians((4 * direction) - 63)));
        var blueness = 30 * Math.Exp(-Math.Pow((direction - 275) / 25, 2));
        var rotation = -Math.Sin(Radians(2 * blueness)) * 2 * Math.Sqrt(Seventh(chroma));
        var far = Math.Pow(lightness - 50, 2);
        var l = lighter / (1 + (0.015 * far / Math.Sqrt(20 + far)));
        var c = stronger / (1 + (0.045 * chroma));
        var h = hue / (1 + (0.015 * chroma * uneven));
        return Math.Sqrt(Math.Max(0, (l * l) + (c * c) + (h * h) + (rotation * c * h)));
    }

    private static double Seventh(double chroma)
    {
        var power = Math.Pow(chroma, 7);
        return power / (power + 6103515625.0); // 25 to the seventh
    }

    private static double Chroma(double a, double b) => Math.Sqrt((a * a) + (b * b));

    private static (double Chroma, double Hue) Polar(double a, double b)
    {
        var degrees = Math.Atan2(b, a) * 180 / Math.PI;
        return (Chroma(a, b), degrees < 0 ? degrees + 360 : degrees);
    }

    private static double Turned(double degrees) =>
        degrees > 180 ? degrees - 360
        : degrees < -180 ? degrees + 360
        : degrees;

    private static double Between(double one, double two)
    {
        var sum = one + two;
        return Math.Abs(one - two) <= 180 ? sum / 2
            : sum < 360 ? (sum + 360) / 2
            : (sum - 360) / 2;
    }

    private static double Radians(double degrees) => degrees * Math.PI / 180;

    private static double LightOf(double stored) => Lights[(int)((Math.Clamp(stored, 0, 255) * Steps) + 0.5)];

    private static double Curved(double light) => light > 216.0 / 24389 ? Math.Cbrt(light) : ((24389.0 / 27 * light) + 16) / 116;
}

using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Dressing;

/// <summary>
/// A colour in Oklab, where equal distances look about equally far apart (B. Ottosson, "A perceptual color space for image processing", 2020;
/// W3C, CSS Color Module Level 4, "Oklab").
/// </summary>
/// <param name="L">Lightness, 0 to 1.</param>
/// <param name="A">Green to red.</param>
/// <param name="B">Blue to yellow.</param>
public readonly record struct OkLab(double L, double A, double B)
{
    /// <summary>Of a colour of sRGB.</summary>
    public static OkLab Of(Rgb colour)
    {
        var light = Light.OfValues;
        var (red, green, blue) = (light[colour.Red] / 255.0, light[colour.Green] / 255.0, light[colour.Blue] / 255.0);
        var l = Math.Cbrt((0.4122214708 * red) + (0.5363325363 * green) + (0.0514459929 * blue));
        var m = Math.Cbrt((0.2119034982 * red) + (0.6806995451 * green) + (0.1073969566 * blue));
        var s = Math.Cbrt((0.0883024619 * red) + (0.2817188376 * green) + (0.6299787005 * blue));
        return new(
            (0.2104542553 * l) + (0.7936177850 * m) - (0.0040720468 * s),
            (1.9779984951 * l) - (2.4285922050 * m) + (0.4505937099 * s),
            (0.0259040371 * l) + (0.7827717662 * m) - (0.8086757660 * s)
        );
    }

    /// <summary>The nearest colour of sRGB; what lies beyond it is cut channel by channel.</summary>
    public Rgb ToRgb()
    {
        var l = Cube(L + (0.3963377774 * A) + (0.2158037573 * B));
        var m = Cube(L - (0.1055613458 * A) - (0.0638541728 * B));
        var s = Cube(L - (0.0894841775 * A) - (1.2914855480 * B));
        return new(
            Light.ToValue((float)(255 * ((4.0767416621 * l) - (3.3077115913 * m) + (0.2309699292 * s)))),
            Light.ToValue((float)(255 * ((-1.2684380046 * l) + (2.6097574011 * m) - (0.3413193965 * s)))),
            Light.ToValue((float)(255 * ((-0.0041960863 * l) - (0.7034186147 * m) + (1.7076147010 * s))))
        );
    }

    /// <summary>How far apart two colours are; 0.02 is about what an eye just tells (CSS Color 4's figure for gamut mapping).</summary>
    public double To(OkLab other) => Math.Sqrt(Squared(L - other.L) + Squared(A - other.A) + Squared(B - other.B));

    private static double Squared(double value) => value * value;

    private static double Cube(double value) => value * value * value;
}

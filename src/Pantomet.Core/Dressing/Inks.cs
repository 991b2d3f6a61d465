using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Dressing;

/// <summary>An ink that could be taken.</summary>
/// <param name="Ink">The colour.</param>
/// <param name="Ratio">The contrast of the worst hundredth without any fade.</param>
/// <param name="To">What the picture would be faded to for it.</param>
/// <param name="Fade">The fade that makes it readable.</param>
public sealed record InkOffer(Rgb Ink, double Ratio, Rgb To, Faded Fade);

/// <summary>Inks out of the picture itself: its leading colours, made lighter or darker as far as is needed to read them.</summary>
public static class Inks
{
    private const int SampleOf = 4096;

    // A fade is sought for each ink: fewer are enough to put them in order.
    private const int FadeSampleOf = 1024;

    private const double Step = 0.03;

    // Lightness in Oklab: nearly black and nearly white, and where a colour is still seen as one.
    private const double Darkest = 0.08;
    private const double Lightest = 0.99;
    private const double DarkColour = 0.3;
    private const double LightColour = 0.9;

    private const double Apart = 0.06;

    private static readonly Rgb Black = new(0, 0, 0);

    private static readonly Rgb[] Plain = [Rgb.White, new(17, 17, 17)];

    /// <summary>What can be offered, the one that needs least fade first; of those the one that stands out most.</summary>
    /// <param name="pixels">The picture: three channels of sRGB, or four with coverage.</param>
    /// <param name="area">What is written on.</param>
    /// <param name="wanted">The contrast that is wanted.</param>
    /// <param name="to">What the picture may be faded to; null takes white under dark inks and black under light ones.</param>
    public static IReadOnlyList<InkOffer> Offered(PixelRows pixels, Crop area, double wanted, Rgb? to)
    {
        var luminances = Luminances(PixelSample.Of(pixels, area, SampleOf));
        double Reached(Rgb ink) => WorstHundredth(luminances, Contrast.LuminanceOf(ink));

        // As far as is needed and no farther; to an end where even that is not enough.
        Rgb Moved(OkLab colour, double step, double darkest, double lightest)
        {
            var moved = colour;
            while (Reached(moved.ToRgb()) < wanted && moved.L + step > darkest && moved.L + step < lightest)
            {
                // The lighter or darker, the less of a hue there can be.
                moved = new(moved.L + step, moved.A * 0.95, moved.B * 0.95);
            }

            return moved.ToRgb();
        }

        // Told apart before a fade is sought for each: that is what takes time.
        var inks = LeadingColours
            .InPicture(pixels)
            .Select(leading => OkLab.Of(leading.Colour))
            .SelectMany(colour =>
                // To the very end, and only so far that the colour is still one: a fade can do the rest.
                new[]
                {
                    Moved(colour, Step, Darkest, Lightest),
                    Moved(colour, -Step, Darkest, Lightest),
                    Moved(colour, Step, DarkColour, LightColour),
                    Moved(colour, -Step, DarkColour, LightColour),
                }
            )
            .Concat(Plain)
            .Select(ink => (Ink: ink, Ratio: Reached(ink)))
            .OrderByDescending(one => one.Ratio)
            .Aggregate(new List<(Rgb Ink, double Ratio)>(), WithoutAlike);
        var ground = PixelSample.Of(pixels, area, FadeSampleOf);
        var all = Crop.All(new(ground.Width, ground.Height));
        return
        [
            .. inks.Select(one =>
                {
                    var veil = to ?? (Contrast.LuminanceOf(one.Ink) > 0.18 ? Black : Rgb.White);
                    return new InkOffer(one.Ink, one.Ratio, veil, FadeSolver.Solve(ground, all, new(veil, one.Ink, wanted)));
                })
                .OrderBy(offer => offer.Fade.Reached ? offer.Fade.Level : FadeSolver.Whole + 1)
                .ThenByDescending(offer => offer.Ratio),
        ];
    }

    // Coverage is taken as laid on white, as contrast is measured.
    private static double[] Luminances(PixelRows pixels)
    {
        var values = pixels.Values.Span;
        var all = new double[pixels.Width * pixels.Height];
        for (var i = 0; i < all.Length; i++)
        {
            var pixel = values.Slice(i * pixels.Bands, pixels.Bands);
            var cover = pixels.Bands == 4 ? pixel[3] : (byte)255;
            byte Laid(byte value) => FadeSolver.Mixed(255, value, cover);
            all[i] = Contrast.LuminanceOf(new(Laid(pixel[0]), Laid(pixel[1]), Laid(pixel[2])));
        }

        Array.Sort(all);
        return all;
    }

    // The largest ratio that all but a hundredth reach. Those that do not lie between two luminances around the ink's, ever wider apart.
    private static double WorstHundredth(double[] sorted, double ink)
    {
        var most = sorted.Length / FadeSolver.Hundredth;
        var (low, high) = (1.0, 21.0);
        while (high - low > 1e-4)
        {
            var ratio = (low + high) / 2;
            var (dark, light) = Contrast.Reaching(ink, ratio);
            (low, high) = Below(sorted, light) - Below(sorted, dark) <= most ? (ratio, high) : (low, ratio);
        }

        return low;
    }

    // How many lie below a value.
    private static int Below(double[] sorted, double value)
    {
        var at = Array.BinarySearch(sorted, value);
        return at >= 0 ? at : ~at;
    }

    // Of inks that look alike the first is enough.
    private static List<(Rgb Ink, double Ratio)> WithoutAlike(List<(Rgb Ink, double Ratio)> kept, (Rgb Ink, double Ratio) next)
    {
        var colour = OkLab.Of(next.Ink);
        if (kept.TrueForAll(one => OkLab.Of(one.Ink).To(colour) >= Apart))
        {
            kept.Add(next);
        }

        return kept;
    }
}

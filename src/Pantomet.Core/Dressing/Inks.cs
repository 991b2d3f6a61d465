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

    private const double Step = 0.03;

    private static readonly Rgb Black = new(0, 0, 0);

    private static readonly Rgb[] Plain = [Rgb.White, new(17, 17, 17)];

    /// <summary>What can be offered, the one that needs least fade first; of those the one that stands out most.</summary>
    /// <param name="pixels">The picture: three channels of sRGB, or four with coverage.</param>
    /// <param name="area">What is written on.</param>
    /// <param name="wanted">The contrast that is wanted.</param>
    /// <param name="to">What the picture may be faded to; null takes white under dark inks and black under light ones.</param>
    public static IReadOnlyList<InkOffer> Offered(PixelRows pixels, Crop area, double wanted, Rgb? to)
    {
        var ground = Ground.Sampled(pixels, area, SampleOf);
        var all = Crop.All(new(ground.Width, ground.Height));
        var whole = Ground.Sampled(pixels, Crop.All(new(pixels.Width, pixels.Height)), SampleOf);
        double Reached(Rgb ink) => FadeSolver.RatioAt(ground, all, new(ink, ink, wanted), 0);

        // As far as is needed and no farther; to the end where even that is not enough.
        Rgb Moved(OkLab colour, double step)
        {
            var moved = colour;
            while (Reached(moved.ToRgb()) < wanted && moved.L + step is > 0.08 and < 0.99)
            {
                // The lighter or darker, the less of a hue there can be.
                moved = new(moved.L + step, moved.A * 0.95, moved.B * 0.95);
            }

            return moved.ToRgb();
        }

        return
        [
            .. LeadingColours
                .Of(whole)
                .Select(leading => OkLab.Of(leading.Colour))
                .SelectMany(colour => new[] { Moved(colour, Step), Moved(colour, -Step) })
                .Concat(Plain)
                .Distinct()
                .Select(ink =>
                {
                    var veil = to ?? (Contrast.LuminanceOf(ink) > 0.18 ? Black : Rgb.White);
                    return new InkOffer(ink, Reached(ink), veil, FadeSolver.Solve(ground, all, new(veil, ink, wanted)));
                })
                .OrderBy(offer => offer.Fade.Reached ? offer.Fade.Level : FadeSolver.Whole + 1)
                .ThenByDescending(offer => offer.Ratio),
        ];
    }
}

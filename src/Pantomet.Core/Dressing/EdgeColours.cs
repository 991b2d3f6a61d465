using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Dressing;

/// <summary>One side of a picture's edge.</summary>
/// <param name="Colour">Its mean colour.</param>
/// <param name="Spread">How far off the mean nearly all of it stays (19 of 20 pixels), as distance in Oklab.</param>
public readonly record struct EdgeSide(Rgb Colour, double Spread)
{
    /// <summary>Up to here a page that goes on in the mean colour shows no seam that catches the eye.</summary>
    public const double EvenUpTo = 0.03;

    /// <summary>True when it can be continued in one colour.</summary>
    public bool IsEven => Spread <= EvenUpTo;
}

/// <summary>The colours along the four sides of a picture, and whether a page can continue them.</summary>
/// <param name="Left">The left side.</param>
/// <param name="Top">The upper side.</param>
/// <param name="Right">The right side.</param>
/// <param name="Bottom">The lower side.</param>
public sealed record EdgeColours(EdgeSide Left, EdgeSide Top, EdgeSide Right, EdgeSide Bottom)
{
    /// <summary>The one colour that a page can go on in on all sides; null where no one does.</summary>
    public Rgb? Continued
    {
        get
        {
            EdgeSide[] sides = [Left, Top, Right, Bottom];
            if (sides.Any(side => !side.IsEven))
            {
                return null;
            }

            var all = sides.Select(side => OkLab.Of(side.Colour)).ToList();
            var mean = new OkLab(all.Average(one => one.L), all.Average(one => one.A), all.Average(one => one.B));
            return all.All(one => one.To(mean) <= EdgeSide.EvenUpTo) ? mean.ToRgb() : null;
        }
    }

    // How much of a side belongs to its edge.
    private const int Part = 50;

    // Of a side so many pixels are looked at, evenly chosen.
    private const int SampleOf = 4096;

    /// <summary>Measures them.</summary>
    /// <param name="pixels">Three channels of sRGB, or four, of which coverage is left out.</param>
    public static EdgeColours Of(PixelRows pixels)
    {
        var (across, down) = (Math.Max(1, pixels.Width / Part), Math.Max(1, pixels.Height / Part));
        return new(
            Side(pixels, 0, 0, across, pixels.Height),
            Side(pixels, 0, 0, pixels.Width, down),
            Side(pixels, pixels.Width - across, 0, pixels.Width, pixels.Height),
            Side(pixels, 0, pixels.Height - down, pixels.Width, pixels.Height)
        );
    }

    private static EdgeSide Side(PixelRows pixels, int left, int top, int right, int bottom)
    {
        var sampled = PixelSample.Of(pixels, new(left, top, right, bottom), SampleOf);
        var colours = new List<OkLab>(sampled.Width);
        for (var i = 0; i < sampled.Width; i++)
        {
            var pixel = sampled.Values.Span.Slice(i * pixels.Bands, 3);
            colours.Add(OkLab.Of(new(pixel[0], pixel[1], pixel[2])));
        }

        var mean = new OkLab(colours.Average(one => one.L), colours.Average(one => one.A), colours.Average(one => one.B));
        var off = colours.Select(one => one.To(mean)).Order().ToArray();
        return new(mean.ToRgb(), off[(int)(0.95 * (off.Length - 1))]);
    }
}

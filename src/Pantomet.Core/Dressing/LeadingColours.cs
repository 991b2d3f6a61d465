using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Dressing;

/// <summary>A colour that leads in a picture.</summary>
/// <param name="Colour">The colour.</param>
/// <param name="Share">The share of the pixels that are nearest to it, 0 to 1.</param>
public readonly record struct LeadingColour(Rgb Colour, double Share);

/// <summary>
/// The few colours that a picture is made of: means of clusters (Lloyd, "Least squares quantization in PCM", 1982) in a space where distances
/// look alike, begun with colours as far from each other as there are, so that a small bright thing counts beside a large ground.
/// </summary>
public static class LeadingColours
{
    /// <summary>How many are found at most.</summary>
    public const int Most = 6;

    // Closer than this they would look like one.
    private const double Apart = 0.07;

    // What takes less of the picture leads nothing.
    private const double LeastShare = 0.004;

    private const int Rounds = 12;

    // Red, green and blue in so many steps: colours of one box count as one.
    private const int Bits = 4;

    // Enough to tell which colours lead.
    private const int SampleOf = 4096;

    /// <summary>Those of a whole picture, of which a few thousand pixels are looked at.</summary>
    public static IReadOnlyList<LeadingColour> InPicture(PixelRows pixels) =>
        Of(PixelSample.Of(pixels, Geometry.Crop.All(new(pixels.Width, pixels.Height)), SampleOf));

    /// <summary>Finds them, the one that most pixels are nearest to first.</summary>
    /// <param name="pixels">Three channels of sRGB, or four with coverage; a few thousand pixels are enough.</param>
    public static IReadOnlyList<LeadingColour> Of(PixelRows pixels)
    {
        var points = Points(pixels);
        if (points.Count == 0)
        {
            return [];
        }

        var all = points.Sum(point => point.Count);
        var centres = Begin(points, all);
        var nearest = new int[points.Count];
        for (var round = 0; round < Rounds; round++)
        {
            var sums = new (double L, double A, double B, long Count)[centres.Count];
            for (var i = 0; i < points.Count; i++)
            {
                var (colour, count) = points[i];
                var at = nearest[i] = Nearest(centres, colour);
                sums[at] = (
                    sums[at].L + (colour.L * count),
                    sums[at].A + (colour.A * count),
                    sums[at].B + (colour.B * count),
                    sums[at].Count + count
                );
            }

            for (var i = 0; i < centres.Count; i++)
            {
                var (l, a, b, count) = sums[i];
                centres[i] = count == 0 ? centres[i] : new(l / count, a / count, b / count);
            }
        }

        var shares = new double[centres.Count];
        for (var i = 0; i < points.Count; i++)
        {
            shares[nearest[i]] += points[i].Count / (double)all;
        }

        return
        [
            .. centres
                .Select((centre, i) => new LeadingColour(centre.ToRgb(), shares[i]))
                .Where(one => one.Share >= LeastShare)
                .OrderByDescending(one => one.Share),
        ];
    }

    // Boxes of colours with the mean colour in each and how many pixels it has; what is mostly transparent is not seen.
    private static List<(OkLab Colour, long Count)> Points(PixelRows pixels)
    {
        const int boxes = 1 << (3 * Bits);
        var (sums, counts) = (new long[boxes * 3], new long[boxes]);
        var values = pixels.Values.Span;
        for (var at = 0; at < values.Length; at += pixels.Bands)
        {
            if (pixels.Bands == 4 && values[at + 3] < 128)
            {
                continue;
            }

            const int cut = 8 - Bits;
            var box = (values[at] >> cut << (2 * Bits)) | (values[at + 1] >> cut << Bits) | (values[at + 2] >> cut);
            counts[box]++;
            for (var band = 0; band < 3; band++)
            {
                sums[(3 * box) + band] += values[at + band];
            }
        }

        byte Mean(int box, int band) => (byte)((sums[(3 * box) + band] + (counts[box] / 2)) / counts[box]);
        return
        [
            .. Enumerable
                .Range(0, boxes)
                .Where(box => counts[box] > 0)
                .Select(box => (OkLab.Of(new(Mean(box, 0), Mean(box, 1), Mean(box, 2))), counts[box])),
        ];
    }

    // The commonest first, then always what is farthest from all that were taken; of what few pixels have, only what is plainly apart.
    private static List<OkLab> Begin(List<(OkLab Colour, long Count)> points, long all)
    {
        var centres = new List<OkLab> { points.MaxBy(point => point.Count).Colour };
        while (centres.Count < Most)
        {
            var next = points.MaxBy(point =>
                point.Colour.To(centres[Nearest(centres, point.Colour)]) * Math.Min(1, Math.Sqrt(point.Count / (all * LeastShare)))
            );
            if (next.Colour.To(centres[Nearest(centres, next.Colour)]) < Apart)
            {
                break;
            }

            centres.Add(next.Colour);
        }

        return centres;
    }

    private static int Nearest(List<OkLab> centres, OkLab colour)
    {
        var (nearest, least) = (0, double.MaxValue);
        for (var i = 0; i < centres.Count; i++)
        {
            var far = centres[i].To(colour);
            (nearest, least) = far < least ? (i, far) : (nearest, least);
        }

        return nearest;
    }
}

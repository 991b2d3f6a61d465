using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>
/// Turns what a network says of a picture into a suggestion: the region that speaks most for a subject, others nearly as strong, a box that
/// is drawn tight on the picture's own colours, and how sure that is. Its figures were chosen on the photographs of docs/subjects.md.
/// </summary>
public static class ObjectFinder
{
    /// <summary>Below this confidence a picture has no subject: a texture, a view without anything in it.</summary>
    public const double LeastConfidence = 0.55;

    // From this one on, most of the content lies where the regions are; below it, around the centre of mass of all that stands out.
    private const double HalfSeen = 0.2;

    // How many standard deviations above the mean a cell belongs to a subject.
    private const double Level = 0.9;

    // What stands so high is the heart of a subject, for frames that cannot hold all of it.
    private const double CoreLevel = 1.6;

    // Where nothing is more unlike the border than the first, there is only texture; from the second on it says nothing more.
    private const double Alike = 0.6;
    private const double Unlike = 0.95;

    // A region with at least this share of the strongest one's weight is a subject of its own.
    private const double Further = 0.3;

    // A region that stands two deviations above the rest, and is all there is, is certain.
    private const double Certain = 2;

    // Inside and outside of its box a subject shares up to 0.84 of its colours (docs/subjects.md), cloth and wood 0.88 and more.
    private const double SameColours = 0.86;

    // By judgement: steps between neighbours of up to so many 255ths are a gradient's, and so few larger ones are dust.
    private const int SmoothStep = 6;
    private const double SmoothShare = 0.002;

    /// <summary>What the network suggests: a subject, or where most of the content lies; null when one place is like the other.</summary>
    /// <param name="picture">The picture, upright and opaque, a few hundred pixels on its longest side.</param>
    /// <param name="network">The network.</param>
    public static Suggestion? Find(Thumb picture, IObjectMaps network)
    {
        ArgumentNullException.ThrowIfNull(picture);
        ArgumentNullException.ThrowIfNull(network);
        if (IsSmooth(picture))
        {
            return null;
        }

        var evidence = Evidence.Of(network.Of(picture));
        var mean = evidence.Values.Average();
        var deviation = Math.Sqrt(evidence.Values.Average(value => (value - mean) * (double)(value - mean)));
        if (deviation < 1e-6)
        {
            return null;
        }

        IReadOnlyList<Patch> Above(double level) =>
            Patches.Of(
                Array.ConvertAll(evidence.Values, value => value > mean + (level * deviation)),
                evidence.Width,
                evidence.Height,
                cell => evidence.Values[cell] - mean
            );
        var regions = Above(Level);
        if (regions.Count == 0)
        {
            return null;
        }

        var kept = regions.Where(region => region.Weight > Further * regions[0].Weight).ToList();
        var boxes = kept.ConvertAll(region => Of(region.Box, evidence));
        var found = boxes.Aggregate((one, other) => one.With(other));
        var alone = kept.Sum(region => region.Weight) / regions.Sum(region => region.Weight);
        var apart = Math.Clamp((evidence.Apart - Alike) / (Unlike - Alike), 0, 1);
        var confidence = Math.Clamp(Standing(boxes, evidence) / deviation * alone / Certain, 0, 1) * apart;
        if (confidence < LeastConfidence)
        {
            return confidence >= HalfSeen ? new(found, SuggestionKind.Content) : Content(evidence, mean);
        }

        var tight = SubjectEdges.Tighten(found, picture, cells => Scores(evidence.On(cells.Width, cells.Height), mean, deviation));
        if (SharedColours.Of(tight, picture) >= SameColours)
        {
            return Content(evidence, mean);
        }

        return new(tight, SuggestionKind.Object)
        {
            Confidence = Math.Round(confidence, 3),
            Strongest =
                kept.Count > 1 ? boxes[0]
                : Above(CoreLevel) is [var core, ..] ? Of(core.Box, evidence)
                : null,
        };
    }

    // A sky or a gradient: nothing in it has an edge, whatever a network that has to see objects answers.
    private static bool IsSmooth(Thumb picture)
    {
        var small = picture.Reduced(Thumb.LongSide);
        var steps = new int[256];
        for (var y = 0; y < small.Height - 1; y++)
        {
            for (var x = 0; x < small.Width - 1; x++)
            {
                var most = 0;
                for (var band = 0; band < 3; band++)
                {
                    var here = small.At(x, y, band);
                    most = Math.Max(most, Math.Max(Math.Abs(here - small.At(x + 1, y, band)), Math.Abs(here - small.At(x, y + 1, band))));
                }

                steps[most]++;
            }
        }

        var edges = steps.Skip(SmoothStep + 1).Sum();
        return edges <= SmoothShare * (small.Width - 1) * (small.Height - 1);
    }

    // Around the centre of mass of what stands above the mean.
    private static Suggestion Content(Evidence evidence, float mean)
    {
        double mass = 0,
            x = 0,
            y = 0;
        for (var i = 0; i < evidence.Values.Length; i++)
        {
            var weight = Math.Max(0, evidence.Values[i] - mean);
            mass += weight;
            x += weight * ((i % evidence.Width) + 0.5) / evidence.Width;
            y += weight * ((i / evidence.Width) + 0.5) / evidence.Height;
        }

        const double around = 0.05;
        var (across, down) = (x / mass, y / mass);
        return new(Frame.Within(across - around, down - around, across + around, down + around), SuggestionKind.Content);
    }

    // How much more the boxes speak for a subject than the rest of the picture.
    private static double Standing(List<Frame> boxes, Evidence evidence)
    {
        double inside = 0,
            outside = 0;
        var (many, few) = (0, 0);
        for (var i = 0; i < evidence.Values.Length; i++)
        {
            var (x, y) = (((i % evidence.Width) + 0.5) / evidence.Width, ((i / evidence.Width) + 0.5) / evidence.Height);
            if (boxes.Exists(box => box.Holds(x, y)))
            {
                inside += evidence.Values[i];
                many++;
            }
            else
            {
                outside += evidence.Values[i];
                few++;
            }
        }

        return few == 0 ? 0 : (inside / Math.Max(1, many)) - (outside / few);
    }

    // In standard deviations above the level from which a cell belongs to a subject.
    private static double[] Scores(Evidence evidence, float mean, double deviation) =>
        Array.ConvertAll(evidence.Values, value => ((value - mean) / deviation) - Level);

    private static Frame Of(Crop box, Evidence evidence) =>
        Frame.Within(
            (double)box.Left / evidence.Width,
            (double)box.Top / evidence.Height,
            (double)box.Right / evidence.Width,
            (double)box.Bottom / evidence.Height
        );
}

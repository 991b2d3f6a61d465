using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>
/// Draws a box tight: what the network says of each cell and how the colours inside differ from those outside are weighed together, and each
/// side of the box moves to where the subject ends.
/// </summary>
internal static class SubjectEdges
{
    // Chosen on the photographs of docs/subjects.md; see there.
    private const int LongSide = 80;
    private const double NetworkSays = 2;
    private const double ColourSays = 1.5;
    private const double Member = 0.6;
    private const double Looked = 0.25;
    private const double LeastLooked = 0.06;
    private const double MostGrown = 0.12;
    private const double MostShrunk = 0.2;
    private const double Thin = 0.02;
    private const double PartOfIt = 0.15;
    private const int Levels = 10;

    /// <summary>The box, moved.</summary>
    /// <param name="box">Where the network sees a subject.</param>
    /// <param name="picture">The picture.</param>
    /// <param name="network">What it says of each cell of a grid: above 0 for a subject.</param>
    public static Frame Tighten(Frame box, Thumb picture, Func<(int Width, int Height), double[]> network)
    {
        var small = picture.Reduced(LongSide);
        var (width, height) = (small.Width, small.Height);
        var cells = width * height;
        var (near, core) = (Part(Around(box), width, height), Part(Inner(box), width, height));
        var inside = Part(box, width, height);
        var says = network((width, height));
        var member = new double[cells];
        for (var i = 0; i < cells; i++)
        {
            member[i] = near[i] ? Likely(NetworkSays * says[i]) * (inside[i] ? 1 : 0.5) : 0;
        }

        var colours = ColourOdds(small, member);
        for (var i = 0; i < cells; i++)
        {
            member[i] = near[i] ? Likely((NetworkSays * says[i]) + (ColourSays * colours[i])) : 0;
        }

        var patches = Patches
            .Of(Array.ConvertAll(member, value => value > Member), width, height, cell => member[cell])
            .Where(patch => patch.Cells.Any(cell => core[cell]))
            .ToList();
        if (patches.Count == 0)
        {
            return box;
        }

        var (across, down) = (new double[width], new double[height]);
        foreach (var cell in patches.Where(patch => patch.Weight > PartOfIt * patches[0].Weight).SelectMany(patch => patch.Cells))
        {
            across[cell % width]++;
            down[cell / width]++;
        }

        var (left, right) = Ends(across);
        var (top, bottom) = Ends(down);
        return Frame.Within(
            box.Left - Moved(box.Left - left),
            box.Top - Moved(box.Top - top),
            box.Right + Moved(right - box.Right),
            box.Bottom + Moved(bottom - box.Bottom)
        );
    }

    private static double Moved(double outwards) => Math.Clamp(outwards, -MostShrunk, MostGrown);

    private static double Likely(double odds) => 1 / (1 + Math.Exp(-odds));

    // The part of the picture that is looked at: the box with some of its surroundings.
    private static Frame Around(Frame box)
    {
        var across = Math.Max(Looked * (box.Right - box.Left), LeastLooked);
        var down = Math.Max(Looked * (box.Bottom - box.Top), LeastLooked);
        return Frame.Within(box.Left - across, box.Top - down, box.Right + across, box.Bottom + down);
    }

    private static Frame Inner(Frame box)
    {
        var (across, down) = (0.1 * (box.Right - box.Left), 0.1 * (box.Bottom - box.Top));
        return Frame.Within(box.Left + across, box.Top + down, box.Right - across, box.Bottom - down);
    }

    private static bool[] Part(Frame part, int width, int height)
    {
        var cells = new bool[width * height];
        for (var i = 0; i < cells.Length; i++)
        {
            cells[i] = part.Holds(((i % width) + 0.5) / width, ((i / width) + 0.5) / height);
        }

        return cells;
    }

    // From the first to the last line that is not thin against the thickest, as fractions.
    private static (double First, double Last) Ends(double[] lines)
    {
        var least = Thin * lines.Max();
        return (
            (double)Array.FindIndex(lines, line => line > least) / lines.Length,
            (double)(Array.FindLastIndex(lines, line => line > least) + 1) / lines.Length
        );
    }

    // For each cell the logarithm of how much more common its colour is among members than among the rest.
    private static double[] ColourOdds(Thumb picture, double[] member)
    {
        const double doubt = 0.5;
        var colours = Colours(picture);
        var (mine, others) = (new double[Levels * 4 * Levels * Levels], new double[Levels * 4 * Levels * Levels]);
        double all = 0;
        for (var i = 0; i < member.Length; i++)
        {
            Spread(mine, colours[i], member[i]);
            Spread(others, colours[i], 1 - member[i]);
            all += member[i];
        }

        var (share, rest) = (member.Length / Math.Max(all, 1e-6), member.Length / Math.Max(member.Length - all, 1e-6));
        return Array.ConvertAll(colours, at => Math.Log(((mine[Place(at)] * share) + doubt) / ((others[Place(at)] * rest) + doubt)));
    }

    // Half of it counts at the colour itself, a quarter at each neighbour's, along each axis.
    private static void Spread(double[] counts, (int Light, int Blue, int Red) at, double weight)
    {
        for (var light = -1; light <= 1; light++)
        {
            for (var blue = -1; blue <= 1; blue++)
            {
                for (var red = -1; red <= 1; red++)
                {
                    var (l, b, r) = (at.Light + light, at.Blue + blue, at.Red + red);
                    if (l is >= 0 and < Levels && b is >= 0 and < 2 * Levels && r is >= 0 and < 2 * Levels)
                    {
                        counts[Place((l, b, r))] += weight / ((1 << Math.Abs(light)) * (1 << Math.Abs(blue)) * (1 << Math.Abs(red)) * 8);
                    }
                }
            }
        }
    }

    private static int Place((int Light, int Blue, int Red) at) => (((at.Light * 2 * Levels) + at.Blue) * 2 * Levels) + at.Red;

    // Lightness and two colour differences (weights of ITU-R BT.601), the differences twice as fine.
    private static (int Light, int Blue, int Red)[] Colours(Thumb picture)
    {
        var colours = new (int, int, int)[picture.Width * picture.Height];
        for (var i = 0; i < colours.Length; i++)
        {
            var at = i * picture.Bands;
            var (red, green, blue) = (picture.Pixels[at] / 255.0, picture.Pixels[at + 1] / 255.0, picture.Pixels[at + 2] / 255.0);
            var light = (0.3 * red) + (0.59 * green) + (0.11 * blue);
            colours[i] = (
                Level(light, Levels),
                Level((0.9 * (blue - light)) + 0.5, 2 * Levels),
                Level((0.9 * (red - light)) + 0.5, 2 * Levels)
            );
        }

        return colours;
    }

    private static int Level(double value, int levels) => Math.Clamp((int)(value * levels), 0, levels - 1);
}

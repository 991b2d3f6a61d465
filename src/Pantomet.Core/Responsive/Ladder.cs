using Pantomet.Core.Geometry;

namespace Pantomet.Core.Responsive;

/// <summary>
/// Finds the widths of a ladder. A candidate c wastes 1 - (n/c)² of its pixels on a visitor who needs n; a visitor takes the narrowest
/// candidate that is wide enough, else the widest.
/// </summary>
/// <remarks>
/// From the widest need down, each candidate stands as low as the waste allows: the widest need that the ones above do not serve must be
/// served by a candidate at least as wide, and none of those reaches further down than the need itself. So no other ladder has fewer.
/// </remarks>
public static class Ladder
{
    /// <summary>The most files one ladder has.</summary>
    public const int Most = 60;

    private const double Hair = 1e-9;

    /// <summary>The fewest widths at which nobody wastes more than agreed, ascending.</summary>
    /// <param name="needs">What is needed.</param>
    /// <param name="waste">The share of pixels that may be wasted, 0 up to but not 1.</param>
    /// <param name="honest">The widest that the picture has pixels for; needs beyond it are served by it.</param>
    public static IReadOnlyList<int> Within(Needs needs, decimal waste, int honest)
    {
        ArgumentNullException.ThrowIfNull(needs);
        var widths = Down(needs, (double)(1 - waste), honest, int.MaxValue, out _);
        widths.Reverse();
        return widths;
    }

    /// <summary>The widths with the smallest worst waste for an agreed number of files, ascending; fewer where fewer waste nothing.</summary>
    /// <param name="needs">What is needed.</param>
    /// <param name="files">How many, at least 1.</param>
    /// <param name="honest">The widest that the picture has pixels for.</param>
    public static IReadOnlyList<int> OfCount(Needs needs, int files, int honest)
    {
        ArgumentNullException.ThrowIfNull(needs);
        ArgumentOutOfRangeException.ThrowIfLessThan(files, 1);
        // The kept share is searched between one that is possible and one that is not; each try moves its end to the next share at which
        // anything changes, so the last one is the best there is.
        var best = Down(needs, 0, honest, files, out _);
        var (low, high) = (Kept(needs, best), 1.0);
        var next = Math.Pow((double)needs.Least / Math.Max(1, Math.Min(honest, needs.Largest)), 2.0 / files);
        while (low < high)
        {
            var kept = next > low && next < high ? next : high;
            var widths = Down(needs, kept, honest, files, out var changes);
            if (changes is { } below)
            {
                high = Math.Min(kept, below);
            }
            else
            {
                (best, low) = (widths, Math.Max(Math.Min(1, kept), Kept(needs, widths)));
            }

            next = high - low < Hair ? high : (low + high) / 2;
        }

        best.Reverse();
        return best;
    }

    /// <summary>The waste of the visitor who wastes most, 0 to 1.</summary>
    /// <param name="needs">What is needed.</param>
    /// <param name="widths">The ladder, ascending.</param>
    public static double WorstWaste(Needs needs, IReadOnlyList<int> widths)
    {
        ArgumentNullException.ThrowIfNull(needs);
        ArgumentNullException.ThrowIfNull(widths);
        return 1 - Kept(needs, [.. widths.Reverse()]);
    }

    /// <summary>The width that a browser takes for a visitor: the narrowest that is wide enough, else the widest.</summary>
    /// <param name="widths">The ladder, ascending, at least one.</param>
    /// <param name="need">What the visitor needs, in pixels.</param>
    public static int Taken(IReadOnlyList<int> widths, int need)
    {
        ArgumentNullException.ThrowIfNull(widths);
        foreach (var width in widths)
        {
            if (width >= need)
            {
                return width;
            }
        }

        return widths[^1];
    }

    /// <summary>Viewports as ranges over which a browser takes one and the same width of a ladder; ascending within each part of sizes.</summary>
    /// <param name="sizes">How wide the picture is shown.</param>
    /// <param name="viewports">The viewports at which it is.</param>
    /// <param name="density">The density of the screen.</param>
    /// <param name="widths">The ladder, ascending, at least one.</param>
    public static IReadOnlyList<(int From, int To)> Stretches(
        Sizes sizes,
        ViewportRanges viewports,
        Density density,
        IReadOnlyList<int> widths
    )
    {
        ArgumentNullException.ThrowIfNull(sizes);
        ArgumentNullException.ThrowIfNull(viewports);
        var stretches = new List<(int, int)>();
        foreach (var part in sizes.Parts)
        {
            foreach (var (first, last) in part.Holds.And(viewports).Parts)
            {
                // What is needed grows or falls evenly here, so those who take the same stand together.
                for (var from = first; from <= last; )
                {
                    var (to, beyond) = (from, last + 1);
                    while (beyond - to > 1)
                    {
                        var middle = (to + beyond) / 2;
                        (to, beyond) = At(middle) == At(from) ? (middle, beyond) : (to, middle);
                    }

                    stretches.Add((from, to));
                    from = to + 1;
                }
            }

            int At(int viewport) => Taken(widths, Needs.Of(part.Width.At(viewport), density));
        }

        return stretches;
    }

    /// <summary>The share of a file's pixels that a visitor has no use for, 0 to 1.</summary>
    /// <param name="taken">The file's width.</param>
    /// <param name="need">What the visitor needs.</param>
    public static double Waste(int taken, int need) => need >= taken ? 0 : 1 - Square((double)need / taken);

    // Widths from the widest down. Where more are wanted than there may be, "changes" is the largest kept share below this one at which
    // another width would be chosen somewhere.
    private static List<int> Down(Needs needs, double kept, int honest, int most, out double? changes)
    {
        changes = null;
        var widths = new List<int>();
        var width = Math.Min(needs.Largest, honest);
        var closest = 0.0;
        while (width > 0)
        {
            if (widths.Count == most)
            {
                changes = closest;
                break;
            }

            widths.Add(width);
            var next = needs.AtMost(Unserved(width, kept)) ?? 0;
            closest = Math.Max(closest, Square((double)next / width));
            width = next;
        }

        return widths;
    }

    // The widest whole width that a candidate serves no more.
    private static int Unserved(int width, double kept)
    {
        var least = kept * Square((double)width) * (1 - Hair);
        var below = (int)Math.Floor(width * Math.Sqrt(kept));
        while (Square((double)below) >= least && below >= 0)
        {
            below--;
        }

        while (Square((double)below + 1) < least)
        {
            below++;
        }

        return Math.Min(below, width - 1);
    }

    // The smallest share of a file's pixels that a visitor uses; widths descending.
    private static double Kept(Needs needs, List<int> widths)
    {
        var least = 1.0;
        for (var i = 0; i < widths.Count; i++)
        {
            var from = i + 1 < widths.Count ? widths[i + 1] + 1 : 1;
            if (needs.AtLeast(from) is { } need && need < widths[i])
            {
                least = Math.Min(least, Square((double)need / widths[i]));
            }
        }

        return least;
    }

    private static double Square(double value) => value * value;
}

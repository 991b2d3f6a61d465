using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>Marked cells that touch, at a side or a corner.</summary>
/// <param name="Weight">The sum of its cells' weights.</param>
/// <param name="Box">The box around it, in cells.</param>
/// <param name="Cells">Its cells, as places in the grid row by row.</param>
internal sealed record Patch(double Weight, Crop Box, IReadOnlyList<int> Cells);

/// <summary>Joins marked cells into patches.</summary>
internal static class Patches
{
    /// <summary>A patch smaller than this share of the largest is dust.</summary>
    private const double Dust = 0.03;

    /// <summary>The box around all patches that count, or null when nothing is marked.</summary>
    public static Crop? Around(bool[] mask, int width, int height)
    {
        var found = Of(mask, width, height, _ => 1);
        var kept = found.Where(patch => patch.Weight >= Math.Max(2, found[0].Weight * Dust)).Select(patch => patch.Box).ToList();
        return kept.Count == 0
            ? null
            : new(kept.Min(box => box.Left), kept.Min(box => box.Top), kept.Max(box => box.Right), kept.Max(box => box.Bottom));
    }

    /// <summary>The patches, the weightiest first.</summary>
    /// <param name="mask">What is marked, row by row.</param>
    /// <param name="width">Cells across.</param>
    /// <param name="height">Cells down.</param>
    /// <param name="weight">What a cell weighs.</param>
    public static IReadOnlyList<Patch> Of(bool[] mask, int width, int height, Func<int, double> weight)
    {
        var found = new List<Patch>();
        var seen = new bool[mask.Length];
        for (var start = 0; start < mask.Length; start++)
        {
            if (mask[start] && !seen[start])
            {
                found.Add(From(start, mask, seen, width, height, weight));
            }
        }

        return [.. found.OrderByDescending(patch => patch.Weight)];
    }

    private static Patch From(int start, bool[] mask, bool[] seen, int width, int height, Func<int, double> weight)
    {
        var cells = new List<int>();
        double sum = 0;
        var (left, top, right, bottom) = (width, height, 0, 0);
        var open = new Stack<int>([start]);
        seen[start] = true;
        while (open.TryPop(out var at))
        {
            cells.Add(at);
            sum += weight(at);
            var (x, y) = (at % width, at / width);
            (left, top, right, bottom) = (Math.Min(left, x), Math.Min(top, y), Math.Max(right, x + 1), Math.Max(bottom, y + 1));
            for (var ny = Math.Max(0, y - 1); ny <= Math.Min(height - 1, y + 1); ny++)
            {
                for (var nx = Math.Max(0, x - 1); nx <= Math.Min(width - 1, x + 1); nx++)
                {
                    var next = (ny * width) + nx;
                    if (mask[next] && !seen[next])
                    {
                        seen[next] = true;
                        open.Push(next);
                    }
                }
            }
        }

        return new(sum, new(left, top, right, bottom), cells);
    }
}

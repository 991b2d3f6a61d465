using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>Joins marked pixels into patches.</summary>
internal static class Patches
{
    /// <summary>A patch smaller than this share of the largest is dust.</summary>
    private const double Dust = 0.03;

    /// <summary>The box around all patches that count, or null when nothing is marked.</summary>
    public static Crop? Around(bool[] mask, int width, int height)
    {
        var found = new List<(int Area, Crop Box)>();
        var open = new Stack<int>();
        var seen = new bool[mask.Length];
        for (var start = 0; start < mask.Length; start++)
        {
            if (!mask[start] || seen[start])
            {
                continue;
            }

            var area = 0;
            var (left, top, right, bottom) = (width, height, 0, 0);
            open.Push(start);
            seen[start] = true;
            while (open.TryPop(out var at))
            {
                var (x, y) = (at % width, at / width);
                area++;
                (left, top, right, bottom) = (Math.Min(left, x), Math.Min(top, y), Math.Max(right, x + 1), Math.Max(bottom, y + 1));
                foreach (var (nx, ny) in ((int, int)[])[(x - 1, y), (x + 1, y), (x, y - 1), (x, y + 1)])
                {
                    if (nx < 0 || ny < 0 || nx >= width || ny >= height)
                    {
                        continue;
                    }

                    var next = (ny * width) + nx;
                    if (mask[next] && !seen[next])
                    {
                        seen[next] = true;
                        open.Push(next);
                    }
                }
            }

            found.Add((area, new(left, top, right, bottom)));
        }

        if (found.Count == 0)
        {
            return null;
        }

        var largest = found.Max(patch => patch.Area);
        var kept = found.Where(patch => patch.Area >= Math.Max(2, largest * Dust)).Select(patch => patch.Box).ToList();
        return kept.Count == 0
            ? null
            : new(kept.Min(box => box.Left), kept.Min(box => box.Top), kept.Max(box => box.Right), kept.Max(box => box.Bottom));
    }
}

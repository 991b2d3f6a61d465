using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>
/// Suggests a keep box where nobody set one, if the picture has a plain backdrop: by trimming it. Other pictures are looked at by
/// <see cref="ObjectFinder"/>.
/// </summary>
public static class Suggester
{
    /// <summary>How far a pixel may be from the backdrop and still belong to it, 0 to 255.</summary>
    private const double BackdropSlack = 22;

    /// <summary>How far the backdrop may change from pixel to pixel: shadows and sweeps are soft, a subject has an edge.</summary>
    private const int SoftStep = 8;

    /// <summary>How far a soft shadow may lead away from the backdrop.</summary>
    private const double DeepestShadow = 100;

    /// <summary>How much of what is left over must be as far from the backdrop: noise and weave leave specks that are not.</summary>
    private const double StandingOut = 0.03;

    /// <summary>How much of the border must be backdrop; the rest may be a subject that leaves the picture.</summary>
    private const double BorderShare = 0.8;

    /// <summary>
    /// From this confidence on a backdrop is plain beyond doubt. Below it, something else than the subject may be what leaves the picture: a
    /// branch, a shadow; a network is asked then.
    /// </summary>
    public const double Clean = 0.97;

    /// <summary>The suggestion, or null when the backdrop is not plain or nothing stands before it.</summary>
    public static Suggestion? Suggest(Thumb thumb)
    {
        ArgumentNullException.ThrowIfNull(thumb);
        if (Math.Min(thumb.Width, thumb.Height) < 8)
        {
            return null;
        }

        return Backdrop(thumb) is var (mask, plain) ? Box(mask, thumb, plain) : null;
    }

    private static Suggestion? Box(bool[] mask, Thumb thumb, double plain)
    {
        const double mostShare = 0.97;
        if (Patches.Around(mask, thumb.Width, thumb.Height) is not { } tight)
        {
            return null;
        }

        // The small copy is soft at edges: a little air, so that nothing is shaved off.
        const int air = 2;
        var box = new Crop(
            Math.Max(0, tight.Left - air),
            Math.Max(0, tight.Top - air),
            Math.Min(thumb.Width, tight.Right + air),
            Math.Min(thumb.Height, tight.Bottom + air)
        );

        var share = (double)box.Width * box.Height / (thumb.Width * thumb.Height);
        return
            share is > 0.001
            && share < mostShare
            && Frame.TryCreate(
                (double)box.Left / thumb.Width,
                (double)box.Top / thumb.Height,
                (double)box.Right / thumb.Width,
                (double)box.Bottom / thumb.Height,
                out var frame,
                out _
            )
            ? new(frame, SuggestionKind.PlainBackdrop) { Confidence = Math.Round(plain, 3) }
            : null;
    }

    // What is not backdrop and how much of the border is, or null when the border is not plain.
    private static (bool[] Mask, double Plain)? Backdrop(Thumb thumb)
    {
        var mask = new bool[thumb.Width * thumb.Height];
        if (thumb.HasAlpha && AlphaMask(thumb, mask))
        {
            return (mask, 1);
        }

        var border = Border(thumb).ToList();
        var planes = new[]
        {
            BackdropPlane.Fit(thumb, border, 0),
            BackdropPlane.Fit(thumb, border, 1),
            BackdropPlane.Fit(thumb, border, 2),
        };
        double Distance(int x, int y) => Enumerable.Range(0, 3).Max(band => Math.Abs(thumb.At(x, y, band) - planes[band].At(x, y)));
        var plain = (double)border.Count(at => Distance(at.X, at.Y) <= BackdropSlack) / border.Count;
        if (plain < BorderShare)
        {
            return null;
        }

        Array.Fill(mask, true);
        var open = new Stack<(int X, int Y)>(border.Where(at => Distance(at.X, at.Y) <= BackdropSlack));
        while (open.TryPop(out var at))
        {
            if (!mask[(at.Y * thumb.Width) + at.X])
            {
                continue;
            }

            mask[(at.Y * thumb.Width) + at.X] = false;
            foreach (var (x, y) in ((int, int)[])[(at.X - 1, at.Y), (at.X + 1, at.Y), (at.X, at.Y - 1), (at.X, at.Y + 1)])
            {
                if (
                    x >= 0
                    && y >= 0
                    && x < thumb.Width
                    && y < thumb.Height
                    && mask[(y * thumb.Width) + x]
                    && Step(thumb, at, (x, y)) <= SoftStep
                    && Distance(x, y) <= DeepestShadow
                )
                {
                    open.Push((x, y));
                }
            }
        }

        var (left, standing) = (0, 0);
        for (var i = 0; i < mask.Length; i++)
        {
            left += mask[i] ? 1 : 0;
            standing += mask[i] && Distance(i % thumb.Width, i / thumb.Width) > BackdropSlack ? 1 : 0;
        }

        return standing >= StandingOut * left ? (mask, plain) : null;
    }

    private static int Step(Thumb thumb, (int X, int Y) a, (int X, int Y) b) =>
        Math.Max(
            Math.Abs(thumb.At(a.X, a.Y, 0) - thumb.At(b.X, b.Y, 0)),
            Math.Max(Math.Abs(thumb.At(a.X, a.Y, 1) - thumb.At(b.X, b.Y, 1)), Math.Abs(thumb.At(a.X, a.Y, 2) - thumb.At(b.X, b.Y, 2)))
        );

    private static bool AlphaMask(Thumb thumb, bool[] mask)
    {
        const byte seen = 24;
        var clear = 0;
        for (var i = 0; i < mask.Length; i++)
        {
            mask[i] = thumb.Pixels[(i * thumb.Bands) + 3] >= seen;
            clear += mask[i] ? 0 : 1;
        }

        return clear > mask.Length / 50;
    }

    private static IEnumerable<(int X, int Y)> Border(Thumb thumb)
    {
        for (var x = 0; x < thumb.Width; x++)
        {
            yield return (x, 0);
            yield return (x, 1);
            yield return (x, thumb.Height - 2);
            yield return (x, thumb.Height - 1);
        }

        for (var y = 2; y < thumb.Height - 2; y++)
        {
            yield return (0, y);
            yield return (1, y);
            yield return (thumb.Width - 2, y);
            yield return (thumb.Width - 1, y);
        }
    }
}

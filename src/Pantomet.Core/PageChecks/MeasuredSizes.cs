using System.Globalization;

namespace Pantomet.Core.PageChecks;

/// <summary>Works out a <c>sizes</c> attribute from widths that were measured.</summary>
/// <remarks>
/// Layouts are fixed, or follow the window by a part of it less a margin. Measured points are put together from the narrowest up as long as
/// one such line holds them; where two lines meet between their points, the page is taken to change there, else just below the next point.
/// </remarks>
public static class MeasuredSizes
{
    // Layout rounds to parts of a pixel.
    private const double Near = 0.75;

    // Columns take these parts of a window.
    private static readonly double[] Parts = [1, 0.75, 2.0 / 3, 0.5, 1.0 / 3, 0.25, 0.2, 1.0 / 6];

    /// <summary>The attribute.</summary>
    /// <param name="points">Viewports and the widths at which the picture is shown there, in CSS pixels; at least one.</param>
    public static string Of(IEnumerable<(int Viewport, double Width)> points)
    {
        ArgumentNullException.ThrowIfNull(points);
        var all = points.OrderBy(point => point.Viewport).ToList();
        ArgumentOutOfRangeException.ThrowIfZero(all.Count, nameof(points));
        var pieces = new List<(Line Line, int First, int Last)>();
        for (var from = 0; from < all.Count; )
        {
            var to = from;
            var line = Alone(all[from], isFixed: pieces.Count > 0 || all.Count == 1);
            while (to + 1 < all.Count && Through(all[from..(to + 2)]) is { } longer)
            {
                (line, to) = (longer, to + 1);
            }

            pieces.Add((line, all[from].Viewport, all[to].Viewport));
            from = to + 1;
        }

        return string.Join(
            ", ",
            pieces.Select(
                (piece, i) => i + 1 == pieces.Count ? piece.Line.ToString() : $"(max-width: {End(piece, pieces[i + 1])}px) {piece.Line}"
            )
        );
    }

    // The last viewport of a piece: where the next one's line takes over.
    private static int End((Line Line, int First, int Last) piece, (Line Line, int First, int Last) next)
    {
        var steeper = piece.Line.Share - next.Line.Share;
        var meet = steeper == 0 ? 0 : (next.Line.Pixels - piece.Line.Pixels) / steeper;
        return meet > piece.Last && meet < next.First ? (int)Math.Ceiling(meet) : next.First - 1;
    }

    // One point says nothing of how the width goes on. Where there is a line before it, the width is taken to stay; else a picture that
    // takes most of the window is taken to follow it but for a margin, another one to follow it as a part.
    private static Line Alone((int Viewport, double Width) point, bool isFixed) =>
        isFixed ? new(0, point.Width)
        : point.Width >= point.Viewport * 0.6 ? new(1, point.Width - point.Viewport)
        : new(point.Width / point.Viewport, 0);

    private static Line? Through(List<(int Viewport, double Width)> points)
    {
        var (first, last) = (points[0], points[^1]);
        var slope = (last.Width - first.Width) / (last.Viewport - first.Viewport);
        var tolerance = Near / (last.Viewport - first.Viewport);
        double? share =
            Math.Abs(slope) <= tolerance
                ? 0
                : Parts.Where(part => Math.Abs(part - slope) <= tolerance).Select(part => (double?)part).FirstOrDefault();
        // Three points on a line are one, whatever part of the window it is.
        share ??= points.Count > 2 && slope is > 0 and <= 1 ? slope : null;
        if (share is not { } known)
        {
            return null;
        }

        var line = new Line(known, first.Width - (known * first.Viewport));
        return points.TrueForAll(point => Math.Abs(line.At(point.Viewport) - point.Width) <= Near) ? line : null;
    }

    private readonly record struct Line(double Share, double Pixels)
    {
        public double At(int viewport) => (Share * viewport) + Pixels;

        public override string ToString()
        {
            var (share, pixels) = (Text(Share * 100), Text(Math.Abs(Pixels)));
            return Share == 0 ? $"{Text(Pixels)}px"
                : pixels == "0" ? $"{share}vw"
                : $"calc({share}vw {(Pixels < 0 ? '-' : '+')} {pixels}px)";
        }

        private static string Text(double value) => Math.Round(value, 3).ToString("0.###", CultureInfo.InvariantCulture);
    }
}

using Pantomet.Core.Geometry;

namespace Pantomet.Core.Dressing;

/// <summary>A corner of a slot.</summary>
public enum Corner
{
    /// <summary>Below at the right.</summary>
    BottomRight,

    /// <summary>Below at the left.</summary>
    BottomLeft,

    /// <summary>Above at the right.</summary>
    TopRight,

    /// <summary>Above at the left.</summary>
    TopLeft,
}

/// <summary>The logo that is laid into a corner.</summary>
public sealed record MakersMark
{
    /// <summary>The most that a mark's file weighs, in bytes: a drawing or a small picture, not a photograph.</summary>
    public const int MostBytes = 2_000_000;

    /// <summary>The file of its dark form, or of its only one: an SVG or PNG that lies beside the rules file.</summary>
    public required string File { get; init; }

    /// <summary>The file of its light form, for dark grounds; null where there is one form.</summary>
    public string? OnDark { get; init; }

    /// <summary>Where it goes as long as it covers nothing there that must stay whole.</summary>
    public Corner At { get; init; }

    /// <summary>Its width as a share of the slot's width, greater than 0, at most 1.</summary>
    public double Share { get; init; } = 0.12;

    /// <summary>How far it stays off both edges, as a share of the slot's width, 0 to 0.5.</summary>
    public double Margin { get; init; } = 0.03;

    /// <summary>How much of it is seen, greater than 0, at most 1.</summary>
    public double Opacity { get; init; } = 1;

    /// <summary>Why it cannot be laid, as a sentence; null where it can.</summary>
    public string? Fault { get; init; }

    /// <summary>The files it needs.</summary>
    public IEnumerable<string> Files => OnDark is null ? [File] : [File, OnDark];
}

/// <summary>A part of a file that a mark should leave free.</summary>
/// <param name="Box">In pixels of the file.</param>
/// <param name="Suggested">True where nobody confirmed yet that it must stay whole.</param>
public readonly record struct KeptBox(Crop Box, bool Suggested);

/// <summary>Where a mark lies in a file.</summary>
/// <param name="Box">In pixels of the file.</param>
/// <param name="At">The corner.</param>
/// <param name="Covers">The share of the kept box that it covers, 0 to 1.</param>
public readonly record struct MarkPlace(Crop Box, Corner At, double Covers)
{
    /// <summary>
    /// Finds the corner: the one that is asked for where the mark covers nothing there, else the next that is free (first along the same edge,
    /// then above or below, then across); where none is, the one asked for.
    /// </summary>
    /// <param name="mark">The rule.</param>
    /// <param name="form">The size of its form, which gives its shape.</param>
    /// <param name="file">The file's size.</param>
    /// <param name="taken">Boxes that are to stay free, above all first.</param>
    public static MarkPlace Of(MakersMark mark, PixelSize form, PixelSize file, IReadOnlyList<Crop> taken)
    {
        ArgumentNullException.ThrowIfNull(mark);
        ArgumentNullException.ThrowIfNull(taken);
        var margin = (int)Math.Round(mark.Margin * file.Width, MidpointRounding.AwayFromZero);
        var most = new PixelSize(
            Math.Max(1, Math.Min(Rounding.ToPixels(mark.Share * file.Width), file.Width - (2 * margin))),
            Math.Max(1, file.Height - (2 * margin))
        );
        // As wide as it is asked for; a flat strip may leave no room for its height.
        var shape = Ratio.Of(form);
        var size =
            new PixelSize(most.Width, Math.Max(1, shape.HeightFor(most.Width))) is var wide && wide.Height <= most.Height
                ? wide
                : new(Math.Clamp(shape.WidthFor(most.Height), 1, most.Width), most.Height);
        var at = mark.At;
        foreach (var free in Enumerable.Range(0, taken.Count + 1).Select(left => taken.Take(taken.Count - left)))
        {
            // Where no corner is free of all, the less important boxes may be covered.
            var found = InOrder(mark.At).Where(corner => free.All(box => Shared(BoxAt(corner, size, margin, file), box) == 0)).ToList();
            if (found.Count > 0)
            {
                at = found[0];
                break;
            }
        }

        var place = BoxAt(at, size, margin, file);
        return new(place, at, taken.Count == 0 ? 0 : ShareOf(taken[0], place));
    }

    /// <summary>The share of a box that the mark covers, 0 to 1.</summary>
    public double ShareOf(Crop box) => ShareOf(box, Box);

    private static double ShareOf(Crop box, Crop mark) => (double)Shared(mark, box) / box.Size.Area;

    private static Corner[] InOrder(Corner asked)
    {
        var (right, bottom) = (asked is Corner.BottomRight or Corner.TopRight, asked is Corner.BottomRight or Corner.BottomLeft);
        return [asked, Named(!right, bottom), Named(right, !bottom), Named(!right, !bottom)];
    }

    private static Corner Named(bool right, bool bottom) =>
        (right, bottom) switch
        {
            (true, true) => Corner.BottomRight,
            (false, true) => Corner.BottomLeft,
            (true, false) => Corner.TopRight,
            _ => Corner.TopLeft,
        };

    private static Crop BoxAt(Corner corner, PixelSize size, int margin, PixelSize file)
    {
        var left = corner is Corner.BottomRight or Corner.TopRight ? file.Width - margin - size.Width : margin;
        var top = corner is Corner.BottomRight or Corner.BottomLeft ? file.Height - margin - size.Height : margin;
        // Margins that leave no room keep it inside all the same.
        (left, top) = (Math.Clamp(left, 0, file.Width - size.Width), Math.Clamp(top, 0, file.Height - size.Height));
        return new(left, top, left + size.Width, top + size.Height);
    }

    private static long Shared(Crop one, Crop other) =>
        (long)Math.Max(0, Math.Min(one.Right, other.Right) - Math.Max(one.Left, other.Left))
        * Math.Max(0, Math.Min(one.Bottom, other.Bottom) - Math.Max(one.Top, other.Top));
}

using NetVips;
using Pantomet.Core.Likeness;
using Pantomet.Core.PageChecks;

namespace Pantomet.PageChecks.Rewriting;

/// <summary>Compares two pictures of a page: the whole of them, and each place on them.</summary>
internal static class PageLikeness
{
    // Long pages are compared in strips, each with what the windows at its edge reach over.
    private const int Strip = 1024;

    // Of a difference so many times as much is drawn: what can hardly be seen is to be seen.
    private const double Drawn = 6;

    // Photographs of 7 to 13 megapixels that a browser reduced to places of 185 to 1920 px had 1.4 to 2.8 times as much detail when they came
    // at their size, and were 0.91 to 0.99 alike at half of it; another picture is 0.4 to 0.5 alike there, one that is moved has no more
    // detail.
    private const double Sharper = 1.2;

    private const double AlikeAtHalf = 0.9;

    // How much of the page stays behind the difference.
    private const double Behind = 0.35;

    /// <summary>Compares two, and draws where they differ.</summary>
    /// <param name="before">A PNG of the page as it was.</param>
    /// <param name="after">A PNG of the page as it is.</param>
    /// <param name="places">The places of pictures on the first one.</param>
    /// <param name="altered">Which of them need not look the same.</param>
    /// <param name="difference">Where the difference is put, a PNG.</param>
    /// <returns>
    /// The mean structural similarity of the whole, and of what is left when altered and blurred places are left out, null where no window
    /// fits; and how alike each place is.
    /// </returns>
    public static (double? Whole, double? Others, IReadOnlyList<PlaceLikeness> Places) Compare(
        string before,
        string after,
        IReadOnlyList<PageBox> places,
        IReadOnlySet<int> altered,
        string difference
    )
    {
        // Read as bytes: the library remembers what a path held, and a page is looked at more than once.
        using var one = Image.NewFromBuffer(File.ReadAllBytes(before));
        using var other = Image.NewFromBuffer(File.ReadAllBytes(after));
        var (width, height) = (Math.Min(one.Width, other.Width), Math.Min(one.Height, other.Height));
        using var x = Solid(one.Crop(0, 0, width, height));
        using var y = Solid(other.Crop(0, 0, width, height));
        Draw(x, y, difference);
        IReadOnlyList<PlaceLikeness> each = [.. places.Select(place => Place(x, y, place))];
        var left = places.Where((_, i) => altered.Contains(i) || each[i].WasBlurred).Select(Inside).ToList();
        var (whole, rest) = Whole(x, y, left);
        return (whole, rest, each);
    }

    private static (double? Whole, double? Others) Whole(Image x, Image y, List<Area> left)
    {
        var (all, total, count, rest) = (0.0, 0.0, 0L, 0L);
        const int Over = StructuralSimilarity.Window - 1;
        for (var top = 0; top + Over < x.Height; top += Strip)
        {
            var rows = Math.Min(Strip + Over, x.Height - top);
            var from = top;
            StructuralSimilarity.Compare(
                Grey(x, new(0, top, x.Width, top + rows)),
                Grey(y, new(0, top, x.Width, top + rows)),
                (row, first, luminance, structure) =>
                {
                    var here = left.FindAll(area => area.Top <= from + row && from + row < area.Bottom);
                    for (var i = 0; i < luminance.Length; i++)
                    {
                        var value = luminance[i] * structure[i];
                        (all, count) = (all + value, count + 1);
                        if (!here.Exists(area => area.Left <= first + i && first + i < area.Right))
                        {
                            (total, rest) = (total + value, rest + 1);
                        }
                    }
                }
            );
        }

        return (count == 0 ? null : all / count, rest == 0 ? null : total / rest);
    }

    // A browser that reduces a large file to a small place does so quickly, and blurs it. What is alike at half the size, where only its
    // finest detail is gone, and has more of that detail than before, was blurred before.
    private static PlaceLikeness Place(Image x, Image y, PageBox place)
    {
        var area = Inside(place).Within(x.Width, x.Height);
        if (area.Right - area.Left < StructuralSimilarity.Window || area.Bottom - area.Top < StructuralSimilarity.Window)
        {
            return new(null, false);
        }

        var (before, after) = (Grey(x, area), Grey(y, area));
        var similarity = StructuralSimilarity.Mean(before, after);
        var blurred =
            similarity < RewrittenPage.Same
            && Detail(after) > Detail(before) * Sharper
            && StructuralSimilarity.Mean(before.Halved(), after.Halved()) >= AlikeAtHalf;
        return new(similarity, blurred);
    }

    // How much neighbouring values differ, in the mean of their squares.
    private static double Detail(Plane plane)
    {
        var sum = 0.0;
        for (var y = 0; y + 1 < plane.Height; y++)
        {
            var row = plane.Row(y);
            var below = plane.Row(y + 1);
            for (var x = 0; x + 1 < plane.Width; x++)
            {
                var (across, down) = (row[x + 1] - row[x], below[x] - row[x]);
                sum += (across * across) + (down * down);
            }
        }

        return sum / Math.Max(1, (plane.Width - 1) * (plane.Height - 1));
    }

    private static Area Inside(PageBox box) =>
        new((int)Math.Ceiling(box.X), (int)Math.Ceiling(box.Y), (int)Math.Floor(box.X + box.Width), (int)Math.Floor(box.Y + box.Height));

    // The page in pale grey, and where it differs as strongly as it does.
    private static void Draw(Image x, Image y, string path)
    {
        using var apart = (x - y).Abs();
        using var most =
            apart.Bands == 1 ? apart.Copy() : apart.ExtractBand(0).Bandrank([apart.ExtractBand(1), apart.ExtractBand(2)], index: 2);
        using var drawnShare = most * (Drawn / 255);
        using var share = (drawnShare > 1).Ifthenelse(1, drawnShare);
        using var grey = (y.Colourspace(Enums.Interpretation.Bw) * Behind) + (255 * (1 - Behind));
        // Red is left where the page gives way.
        using var red = (grey * (1 - share)) + (share * 214);
        using var rest = grey * (1 - share);
        using var drawn = red.Bandjoin(rest, rest).Cast(Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Srgb);
        drawn.Pngsave(path, compression: 3);
    }

    private static Image Solid(Image page)
    {
        using var image = page;
        return (image.HasAlpha() ? image.Flatten() : image).CopyMemory();
    }

    private static Plane Grey(Image image, Area area)
    {
        var (width, height) = (area.Right - area.Left, area.Bottom - area.Top);
        using var part = image.Crop(area.Left, area.Top, width, height);
        return Plane.LumaOf(part.WriteToMemory<byte>(), width, height, part.Bands);
    }

    private readonly record struct Area(int Left, int Top, int Right, int Bottom)
    {
        public Area Within(int width, int height) =>
            new(Math.Clamp(Left, 0, width), Math.Clamp(Top, 0, height), Math.Clamp(Right, 0, width), Math.Clamp(Bottom, 0, height));
    }
}

/// <summary>How alike a place of a page is in two pictures of it.</summary>
/// <param name="Similarity">The mean structural similarity within it; null where no window fits.</param>
/// <param name="WasBlurred">True where it shows the same, and more of its finest detail.</param>
internal readonly record struct PlaceLikeness(double? Similarity, bool WasBlurred);

using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.PageChecks;

/// <summary>Finds what is wrong with a picture of a page.</summary>
public static class PageFaults
{
    /// <summary>Two scales that differ by more than this share squash a picture.</summary>
    public const double Squash = 0.01;

    // The trade's words for "no picture of a page weighs more" (common practice).
    private const long Heaviest = 1_000_000;

    // A file may have a little more than is needed: nobody cuts a file for each pixel. The share of its pixels, as for a library put right.
    private const double Slack = Mending.MendRule.UsualShare;

    // Drawn a twentieth larger nobody sees it (from memory).
    private const double Blurred = 1.05;

    // Screens that need at most half of the pixels of another deserve a file of their own, where the picture is no icon.
    private const double FarLess = 0.5;
    private const double Icon = 100;

    // A file that weighs twice what the same pixels do at the same look.
    private const double Twice = 2;

    // Layout rounds sides to whole pixels here and there; that squashes nothing.
    private const double RoundedSide = 0.5;

    private static readonly PictureFormat[] Old =
    [
        PictureFormat.Jpeg,
        PictureFormat.Png,
        PictureFormat.Gif,
        PictureFormat.Bmp,
        PictureFormat.Tiff,
    ];

    /// <summary>The faults of a picture, in the order in which they are told.</summary>
    /// <param name="image">The picture at its place.</param>
    /// <param name="possible">What was made for its places.</param>
    /// <param name="first">True where it is the picture that counts for the first view on some screen.</param>
    public static IReadOnlyList<PageFault> Of(PageImage image, IReadOnlyList<PossibleFile> possible, bool first)
    {
        ArgumentNullException.ThrowIfNull(image);
        ArgumentNullException.ThrowIfNull(possible);
        return image.File.Trouble is { } trouble
                ? [new(PageFaultCode.Missing, $"{trouble} Put the file there, or mend the address."), .. OfMarkup(image, first)]
            : image.Shown.Any(one => one.Image.Broken)
                ? [new(PageFaultCode.Missing, "What was loaded is no picture that the browser can show."), .. OfMarkup(image, first)]
            : [.. OfFile(image, possible), .. OfPlace(image), .. OfMarkup(image, first)];
    }

    private static IEnumerable<PageFault> OfFile(PageImage image, IReadOnlyList<PossibleFile> possible)
    {
        if (image.Natural is not { } natural)
        {
            yield break;
        }

        var shown = image.Shown.Where(one => !one.Placing.Shown.IsEmpty).ToList();
        if (shown.Count == 0)
        {
            yield return new(
                PageFaultCode.TooLarge,
                $"It is loaded and never shown: {Figures.Weight(image.File.Bytes)} for nothing. Load it only where it is seen."
            );
            yield break;
        }

        var largest = possible is [var widest, ..] ? widest : null;
        // What is squashed needs its longer scale, and what is cut only its part.
        var enough = PossiblePlace.Of(image)[0].Size;
        if (shown.Min(one => one.Waste(natural)) > Slack && enough.Area < natural.Area * (1 - Slack))
        {
            yield return new(
                PageFaultCode.TooLarge,
                $"It has {Figures.Size(natural)}; for its largest place {Figures.Size(enough)} are enough."
                    + Instead(image, largest?.Same ?? largest?.Lightest)
            );
        }

        if (Heavy(image, natural, largest?.Same) is { } heavy)
        {
            yield return heavy;
        }

        if (
            image.File.Format is { } format
            && Old.Contains(format)
            && largest is { Lightest: { } lighter }
            && !Old.Contains(lighter.Format)
            && lighter.Bytes <= Math.Min(image.File.Bytes, largest.Same?.Bytes ?? image.File.Bytes) * (1 - Slack)
        )
        {
            var beside = largest.Same is { } same ? $", {Figures.Weight(same.Bytes)} as {format.Label()}" : "";
            yield return new(
                PageFaultCode.OldType,
                $"{lighter.Format.Label()} looks the same and weighs {Figures.Weight(lighter.Bytes)}{beside}. Offer it in a picture element."
            );
        }

        if (OneSize(image, shown, natural, possible) is { } one)
        {
            yield return one;
        }
    }

    private static PageFault? Heavy(PageImage image, PixelSize natural, MadeFile? same)
    {
        var bytes = image.File.Bytes;
        var now = bytes / (double)natural.Area;
        return same is not null && now > same.Bytes / (double)same.Size.Area * Twice
                ? new(
                    PageFaultCode.Heavy,
                    $"At its pixels it weighs {Figures.Number(now / (same.Bytes / (double)same.Size.Area), 1)} times what looks the same. "
                        + "Encode it anew."
                )
            : bytes > Heaviest
                ? new(PageFaultCode.Heavy, $"It weighs {Figures.Weight(bytes)}: no picture of a page should weigh more than 1 MB.")
            : null;
    }

    private static PageFault? OneSize(PageImage image, List<ShownImage> shown, PixelSize natural, IReadOnlyList<PossibleFile> possible)
    {
        var (least, most) = (shown.MinBy(one => one.Needed.Area)!, shown.MaxBy(one => one.Needed.Area)!);
        if (
            shown.Any(one => one.Image.Choice || one.Image.Sprite)
            || most.Placing.Shown.Width < Icon
            || least.Needed.Area > Math.Min(natural.Area, most.Needed.Area) * FarLess
        )
        {
            return null;
        }

        var serves = possible.FirstOrDefault(one => one.Place.Screens.Contains(least.Screen));
        return new(
            PageFaultCode.OneSize,
            $"Every screen loads the same file; one of {Screen(least.Screen)} needs only {Size(least.Needed)}."
                + $"{Instead(image, serves?.Lightest)} Offer widths in srcset."
        );
    }

    private static IEnumerable<PageFault> OfPlace(PageImage image)
    {
        if (image.Natural is not { } natural)
        {
            yield break;
        }

        var shown = image.Shown.Where(one => !one.Placing.Shown.IsEmpty).ToList();
        if (shown.MaxBy(one => one.Enlarged(natural)) is { } widest && widest.Enlarged(natural) > Blurred)
        {
            yield return new(
                PageFaultCode.Enlarged,
                $"On a screen of {Screen(widest.Screen)} it is drawn {Figures.Number(widest.Enlarged(natural))} times as large as it is, and "
                    + $"looks soft: it has {Figures.Size(natural)}, {Size(widest.Needed)} are needed. Take a larger original."
            );
        }

        if (shown.FirstOrDefault(one => IsSquashed(one.Placing, natural)) is { } squashed)
        {
            var (across, down) = squashed.Placing.Scales(natural);
            yield return new(
                PageFaultCode.Squashed,
                $"On a screen of {Screen(squashed.Screen)} it is {Figures.Percent(Math.Abs(1 - (across / down)))} "
                    + $"{(across < down ? "narrower" : "wider")} than it should be. Let one side follow the other, or cut it with object-fit: cover."
            );
        }
    }

    private static IEnumerable<PageFault> OfMarkup(PageImage image, bool first)
    {
        if (image.Kind != ImageKind.Img)
        {
            yield break;
        }

        if (image.Shown.Any(one => !one.Image.Reserved))
        {
            yield return new(
                PageFaultCode.NoSize,
                "No room is kept for it, so the page jumps when it comes. Give it width and height"
                    + $"{(image.Natural is { } size ? $": {size.Width} and {size.Height}" : "")}."
            );
        }

        if (image.Shown.Any(one => !one.Image.HasWords))
        {
            yield return new(
                PageFaultCode.NoAlt,
                "Nothing says what it shows to those who cannot see it. Give it alt, an empty one where it only decorates."
            );
        }

        var shown = image.Shown.Where(one => !one.Placing.Shown.IsEmpty).ToList();
        if (shown.FirstOrDefault(one => one.Image.Lazy && (first || IsSeenFirst(one))) is { } late)
        {
            yield return new(
                PageFaultCode.LazyFirst,
                $"It is seen at once on a screen of {Screen(late.Screen)}, and is loaded late. Take loading=\"lazy\" away."
            );
        }

        if (shown.Count > 0 && shown.All(one => !one.Image.Lazy && one.Image.Place.Y >= one.Screen.Height))
        {
            yield return new(
                PageFaultCode.EagerBelow,
                "Nobody sees it before scrolling, and it is loaded at once. Give it loading=\"lazy\"."
            );
        }
    }

    /// <summary>True where the two scales differ by more than a hundredth and more than layout rounds.</summary>
    public static bool IsSquashed(Placing placing, PixelSize natural)
    {
        ArgumentNullException.ThrowIfNull(placing);
        var (across, down) = placing.Scales(natural);
        return Math.Abs(1 - (across / down)) > Squash && Math.Abs(placing.Drawn.Height - (natural.Height * across)) > RoundedSide;
    }

    // Half of it or more.
    private static bool IsSeenFirst(ShownImage one) =>
        one.Image.Place is { Width: > 0, Height: > 0 } place && place.AreaWithin(one.Screen) >= place.Width * place.Height / 2;

    private static string Instead(PageImage image, MadeFile? made) =>
        made is null || made.Bytes >= image.File.Bytes
            ? ""
            : $" As {made.Format.Label()} of {Figures.Size(made.Size)} it weighs {Figures.Weight(made.Bytes)} instead of "
                + $"{Figures.Weight(image.File.Bytes)}.";

    private static string Screen(Screen screen) => $"{Figures.Count(screen.Viewport)} px at {Figures.Number(screen.Density)}x";

    private static string Size(CssSize size) =>
        Figures.Size(new(Math.Max(1, Rounding.ToPixels(size.Width)), Math.Max(1, Rounding.ToPixels(size.Height))));
}

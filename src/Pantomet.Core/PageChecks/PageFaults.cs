using Pantomet.Core.Css;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;

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
                ? [new(PageFaultCode.Missing, PageTexts.PutTheFileThereOrCorrect(trouble)), .. OfMarkup(image, first)]
            : image.Shown.Any(one => one.Image.Broken)
                ? [new(PageFaultCode.Missing, PageTexts.TheLoadedFileIsNotA), .. OfMarkup(image, first)]
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
            yield return new(PageFaultCode.TooLarge, PageTexts.ThePictureIsLoadedButNever(Figures.Weight(image.File.Bytes)));
            yield break;
        }

        var largest = possible is [var widest, ..] ? widest : null;
        // What is squashed needs its longer scale, and what is cut only its part.
        var enough = PossiblePlace.Of(image)[0].Size;
        if (shown.Min(one => one.Waste(natural)) > Slack && enough.Area < natural.Area * (1 - Slack))
        {
            yield return new(
                PageFaultCode.TooLarge,
                PageTexts.ThePictureHasAreEnoughFor(Figures.Size(natural), Figures.Size(enough))
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
                PageTexts.LooksTheSameAndWeighsOffer(lighter.Format.Label(), Figures.Weight(lighter.Bytes), beside)
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
                    PageTexts.TheFileWeighsTimesAsMuch(Figures.Number(now / (same.Bytes / (double)same.Size.Area), 1))
                )
            : bytes > Heaviest ? new(PageFaultCode.Heavy, PageTexts.ThePictureWeighsAPictureOn(Figures.Weight(bytes)))
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
            PageTexts.EveryScreenLoadsTheSameFile(Screen(least.Screen), Size(least.Needed), Instead(image, serves?.Lightest))
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
                PageTexts.OnAScreenOfThePicture(
                    Screen(widest.Screen),
                    Figures.Number(widest.Enlarged(natural)),
                    Figures.Size(natural),
                    Size(widest.Needed)
                )
            );
        }

        if (shown.FirstOrDefault(one => IsSquashed(one.Placing, natural)) is { } squashed)
        {
            var (across, down) = squashed.Placing.Scales(natural);
            yield return new(
                PageFaultCode.Squashed,
                PageTexts.OnAScreenOfThePicture2(
                    Screen(squashed.Screen),
                    Figures.Percent(Math.Abs(1 - (across / down))),
                    (across < down ? "narrower" : "wider")
                )
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
                PageTexts.NoSpaceIsReservedForThe((image.Natural is { } size ? $": {size.Width} and {size.Height}" : ""))
            );
        }

        if (image.Shown.Any(one => !one.Image.HasWords))
        {
            yield return new(PageFaultCode.NoAlt, PageTexts.ThePictureHasNoAlternativeText);
        }

        var shown = image.Shown.Where(one => !one.Placing.Shown.IsEmpty).ToList();
        if (shown.FirstOrDefault(one => one.Image.Lazy && (first || IsSeenFirst(one))) is { } late)
        {
            yield return new(PageFaultCode.LazyFirst, PageTexts.ThePictureIsVisibleAtOnce(Screen(late.Screen)));
        }

        if (shown.Count > 0 && shown.All(one => !one.Image.Lazy && one.Image.Place.Y >= one.Screen.Height))
        {
            yield return new(PageFaultCode.EagerBelow, PageTexts.ThePictureIsVisibleOnlyAfter);
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
            : PageTexts.AsOfItWouldWeighInstead(
                made.Format.Label(),
                Figures.Size(made.Size),
                Figures.Weight(made.Bytes),
                Figures.Weight(image.File.Bytes)
            );

    private static string Screen(Screen screen) => PageTexts.PxAtX(Figures.Count(screen.Viewport), Figures.Number(screen.Density));

    private static string Size(CssSize size) =>
        Figures.Size(new(Math.Max(1, Rounding.ToPixels(size.Width)), Math.Max(1, Rounding.ToPixels(size.Height))));
}

namespace Pantomet.Core.PageChecks;

/// <summary>How alike a picture's place is before and after the page was rewritten, on one screen.</summary>
/// <param name="Viewport">The screen's width in CSS pixels.</param>
/// <param name="Similarity">The mean structural similarity within its place, at most 1; null where it is smaller than the window.</param>
/// <param name="WasBlurred">True where the browser blurred it before: it shows the same, and more of its finest detail.</param>
/// <param name="Stayed">True where it lies where it lay, within a pixel.</param>
public sealed record RewrittenView(int Viewport, double? Similarity, bool WasBlurred, bool Stayed)
{
    /// <summary>How much it does for the page's looking other than before: what it lacks of likeness, times its area.</summary>
    public double Share => WasBlurred ? 0 : (1 - (Similarity ?? 1)) * Area;

    /// <summary>How large it is there, in CSS pixels squared.</summary>
    public double Area { get; init; }
}

/// <summary>A picture of a rewritten page.</summary>
/// <param name="Where">The selector that found its element.</param>
/// <param name="Kind">How the page holds it.</param>
/// <param name="Address">The address that it had.</param>
/// <param name="Left">Why it was not replaced: a sentence; null where it was.</param>
/// <param name="Altered">True where it was squashed or enlarged before, and need not look the same.</param>
/// <param name="Looks">How alike it is, screen by screen.</param>
public sealed record RewrittenImage(
    string Where,
    ImageKind Kind,
    string Address,
    string? Left,
    bool Altered,
    IReadOnlyList<RewrittenView> Looks
);

/// <summary>A rewritten page on one screen.</summary>
/// <param name="Viewport">The screen's width in CSS pixels.</param>
/// <param name="Density">Its density.</param>
/// <param name="Before">All that the page loaded, in bytes.</param>
/// <param name="After">All that it loads now.</param>
/// <param name="Height">How long it is now, in CSS pixels.</param>
/// <param name="HeightBefore">How long it was.</param>
/// <param name="Similarity">
/// The mean structural similarity of the page, leaving out what was squashed, enlarged or blurred before; null where no picture was taken.
/// </param>
/// <param name="Whole">The same with nothing left out.</param>
public sealed record RewrittenScreen(
    int Viewport,
    double Density,
    long Before,
    long After,
    double Height,
    double HeightBefore,
    double? Similarity,
    double? Whole
);

/// <summary>A rewritten page: its pictures replaced by files that fit, and compared with what it was.</summary>
/// <param name="Screens">Each screen.</param>
/// <param name="Images">Each picture that a file was to stand for.</param>
/// <param name="Notes">What could not be seen or done, a sentence each.</param>
public sealed record RewrittenPage(
    IReadOnlyList<RewrittenScreen> Screens,
    IReadOnlyList<RewrittenImage> Images,
    IReadOnlyList<string> Notes
)
{
    /// <summary>A page looks the same from here on.</summary>
    public const double Same = 0.98;

    /// <summary>Below this a picture plainly shows something else.</summary>
    public const double Other = 0.8;

    /// <summary>
    /// The pictures that must be held otherwise: those that moved or show something else, and on each screen on which the page looks other
    /// than before the one that does most of it.
    /// </summary>
    /// <param name="images">The pictures as they are now.</param>
    /// <param name="screens">The screens of which a picture was taken.</param>
    /// <returns>Their places in the list.</returns>
    public static IReadOnlySet<int> ToChange(IReadOnlyList<RewrittenImage> images, IReadOnlyList<RewrittenScreen> screens)
    {
        ArgumentNullException.ThrowIfNull(images);
        ArgumentNullException.ThrowIfNull(screens);
        var change = new HashSet<int>();
        var open = images.Select((image, i) => (Image: image, At: i)).Where(one => one.Image.Left is null).ToList();
        foreach (var (image, at) in open)
        {
            if (image.Looks.Any(look => !look.Stayed || (!image.Altered && !look.WasBlurred && look.Similarity < Other)))
            {
                change.Add(at);
            }
        }

        foreach (var screen in screens.Where(screen => screen.Similarity < Same))
        {
            var worst = open.Where(one => !one.Image.Altered)
                .Select(one => (one.At, Share: one.Image.Looks.FirstOrDefault(look => look.Viewport == screen.Viewport)?.Share ?? 0))
                .Where(one => one.Share > 0)
                .OrderByDescending(one => one.Share)
                .ToList();
            // One that is changed already may be the cause.
            if (worst.Count > 0 && !worst.Exists(one => change.Contains(one.At)))
            {
                change.Add(worst[0].At);
            }
        }

        return change;
    }
}

using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Unicode;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.PageChecks;

/// <summary>A picture at its place on one screen, as it is reported.</summary>
/// <param name="Viewport">The screen's width in CSS pixels.</param>
/// <param name="Density">Its density.</param>
/// <param name="Css">The shown size in CSS pixels: across, down.</param>
/// <param name="Needed">The pixels that it needs: across, down.</param>
/// <param name="Waste">The share of the file's pixels that are of no use there, 0 to 1.</param>
/// <param name="Box">Left, top, width, height on the page in CSS pixels.</param>
/// <param name="Part">The part of the picture that is seen: left, top, right, bottom as fractions.</param>
public sealed record ReportedPlace(
    int Viewport,
    double Density,
    IReadOnlyList<double> Css,
    IReadOnlyList<int> Needed,
    double Waste,
    IReadOnlyList<double> Box,
    IReadOnlyList<double> Part
);

/// <summary>A file that was made for a place of a page, as it is reported.</summary>
/// <param name="Width">Pixels across.</param>
/// <param name="Height">Pixels down.</param>
/// <param name="Format">Its type.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Likeness">How much it looks like the same pixels uncompressed, 0 to 1; null where it was not measured.</param>
/// <param name="Screens">The screens that it serves: viewport and density.</param>
/// <param name="Part">The part of the picture: left, top, right, bottom as fractions.</param>
/// <param name="Path">Where it lies in the folder that is kept; null where none is.</param>
public sealed record ReportedPossible(
    int Width,
    int Height,
    string Format,
    long Bytes,
    double? Likeness,
    IReadOnlyList<Screen> Screens,
    IReadOnlyList<double> Part,
    string? Path
);

/// <summary>A picture of a page, as it is reported.</summary>
public sealed record ReportedImage
{
    /// <summary>Its address: a path within the page's own files, or a whole address.</summary>
    public required string Address { get; init; }

    /// <summary>A selector that finds its element.</summary>
    public required string Where { get; init; }

    /// <summary>How the page holds it.</summary>
    public required ImageKind Kind { get; init; }

    /// <summary>Its pixels as displayed: across, down; null where they are not known.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.Never)]
    public IReadOnlyList<int>? Natural { get; init; }

    /// <summary>Its weight.</summary>
    public required long Bytes { get; init; }

    /// <summary>jpeg, png ...; null where it is no picture that can be read.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.Never)]
    public string? Format { get; init; }

    /// <summary>How it was shown.</summary>
    public required IReadOnlyList<ReportedPlace> Shown { get; init; }

    /// <summary>What the screen that needs most would load: the weight of the file made for it; null where none was made.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.Never)]
    public long? Possible { get; init; }

    /// <summary>What was made for its places.</summary>
    public required IReadOnlyList<ReportedPossible> Files { get; init; }

    /// <summary>What one visit would load less, over all screens in the mean.</summary>
    public required long Gain { get; init; }

    /// <summary>Where what was loaded lies in the folder that is kept; null where none is.</summary>
    public string? Path { get; init; }

    /// <summary>What is wrong.</summary>
    public required IReadOnlyList<PageFault> Faults { get; init; }
}

/// <summary>What a page weighs on one screen.</summary>
/// <param name="Viewport">Its width in CSS pixels.</param>
/// <param name="Density">Its density.</param>
/// <param name="Bytes">The weight of its pictures.</param>
/// <param name="Possible">What they could weigh.</param>
/// <param name="Other">The weight of everything else that it loads.</param>
/// <param name="Seconds">The time to load it at the stated rate, in seconds.</param>
/// <param name="SecondsPossible">The same with the files that were made.</param>
/// <param name="Height">How long the page is, in CSS pixels.</param>
/// <param name="First">The picture that counts for the first view: its selector; null where there is none.</param>
public sealed record ReportedScreen(
    int Viewport,
    double Density,
    long Bytes,
    long Possible,
    long Other,
    double Seconds,
    double SecondsPossible,
    double Height,
    string? First
);

/// <summary>Sums over a page.</summary>
/// <param name="Images">How many pictures it has.</param>
/// <param name="Bytes">The weight of all files that some screen loads, each once.</param>
/// <param name="Possible">What the screens would load instead, in the mean of them, and <paramref name="Mean"/> now.</param>
/// <param name="Mean">What a screen loads now, in the mean.</param>
/// <param name="Waste">What a screen loads for nothing, in the mean: <paramref name="Mean"/> less <paramref name="Possible"/>.</param>
/// <param name="Rate">The rate at which times are told, in megabits a second.</param>
/// <param name="SecondsMeasuring">How long the browser took.</param>
/// <param name="Seconds">How long all took, with the files that were made.</param>
/// <param name="Screens">Each screen.</param>
public sealed record PageTotals(
    int Images,
    long Bytes,
    long Possible,
    long Mean,
    long Waste,
    double Rate,
    double SecondsMeasuring,
    double Seconds,
    IReadOnlyList<ReportedScreen> Screens
);

/// <summary>A page measured in a browser: what it loads against what it shows; <c>"schema": "pantomet-page/1"</c>.</summary>
/// <param name="Page">The page as it was given.</param>
/// <param name="Images">Its pictures; the one that gains most first.</param>
/// <param name="Totals">Sums.</param>
/// <param name="Notes">What could not be seen, a sentence each.</param>
public sealed record PageReport(string Page, IReadOnlyList<ReportedImage> Images, PageTotals Totals, IReadOnlyList<string> Notes)
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.Create(UnicodeRanges.All),
    };

    /// <summary>The report's schema.</summary>
    [JsonPropertyOrder(-1)]
    public string Schema { get; } = "pantomet-page/1";

    /// <summary>Puts a report together.</summary>
    /// <param name="visit">What was seen.</param>
    /// <param name="possible">What was made for each picture, in their order.</param>
    /// <param name="rate">Megabits a second.</param>
    /// <param name="took">How long all took.</param>
    public static PageReport Of(PageVisit visit, IReadOnlyList<IReadOnlyList<PossibleFile>> possible, double rate, TimeSpan took)
    {
        ArgumentNullException.ThrowIfNull(visit);
        ArgumentNullException.ThrowIfNull(possible);
        var firsts = visit.Screens.ToDictionary(screen => screen.Screen, screen => First(visit.Images, screen.Screen));
        var images = visit.Images.Select((image, i) => Reported(visit, image, possible[i], firsts.ContainsValue(image.Where))).ToList();
        var screens = visit.Screens.Select(screen => Told(screen, visit, possible, firsts[screen.Screen], rate)).ToList();
        var mean = Mean(screens.Select(screen => screen.Bytes));
        var less = Mean(screens.Select(screen => screen.Possible));
        return new(
            visit.Page,
            [.. images.OrderByDescending(image => image.Gain).ThenBy(image => image.Address, StringComparer.Ordinal)],
            new(
                images.Select(image => (image.Where, image.Kind)).Distinct().Count(),
                visit.Images.DistinctBy(image => image.Address).Sum(image => image.File.Bytes),
                less,
                mean,
                mean - less,
                rate,
                Math.Round(visit.Took.TotalSeconds, 3),
                Math.Round(took.TotalSeconds, 3),
                screens
            ),
            visit.Notes
        );
    }

    /// <summary>As JSON.</summary>
    public string ToJson() => JsonSerializer.Serialize(this, Options);

    /// <summary>Reads one back.</summary>
    /// <exception cref="JsonException">The text is none.</exception>
    public static PageReport FromJson(string text) =>
        JsonSerializer.Deserialize<PageReport>(text, Options) ?? throw new JsonException("no report");

    private static ReportedImage Reported(PageVisit visit, PageImage image, IReadOnlyList<PossibleFile> possible, bool first) =>
        new()
        {
            Address = visit.NameOf(image.Address),
            Where = image.Where,
            Kind = image.Kind,
            Natural = image.File.Size is { } size ? [size.Width, size.Height] : null,
            Bytes = image.File.Bytes,
            Format = image.File.Format?.Word(),
            Shown = [.. image.Shown.Select(one => Place(one, image.Natural))],
            Possible = possible is [var largest, ..] ? largest.BytesBeside(image.File.Bytes) : null,
            Files =
            [
                .. possible
                    .Where(one => one.Lightest is not null)
                    .Select(one => new ReportedPossible(
                        one.Lightest!.Size.Width,
                        one.Lightest.Size.Height,
                        one.Lightest.Format.Word(),
                        one.Lightest.Bytes,
                        one.Lightest.Likeness is { } likeness ? Math.Round(likeness, 5) : null,
                        one.Place.Screens,
                        Fractions(one.Place.Part),
                        one.Path
                    )),
            ],
            Gain = Mean(visit.Screens.Select(screen => Loaded(image, screen.Screen) - WouldLoad(image, possible, screen.Screen))),
            Path = image.File.Path,
            Faults = PageFaults.Of(image, possible, first),
        };

    private static ReportedPlace Place(ShownImage one, PixelSize? natural) =>
        new(
            one.Screen.Viewport,
            one.Screen.Density,
            [Math.Round(one.Placing.Shown.Width, 2), Math.Round(one.Placing.Shown.Height, 2)],
            [Whole(one.Needed.Width), Whole(one.Needed.Height)],
            natural is { } size ? Math.Round(one.Waste(size), 4) : 0,
            [
                .. new[] { one.Image.Place.X, one.Image.Place.Y, one.Image.Place.Width, one.Image.Place.Height }.Select(side =>
                    Math.Round(side, 2)
                ),
            ],
            Fractions(one.Placing.Part)
        );

    private static IReadOnlyList<double> Fractions(Frame part) =>
        [.. new[] { part.Left, part.Top, part.Right, part.Bottom }.Select(edge => Math.Round(edge, 5))];

    private static ReportedScreen Told(
        VisitedScreen screen,
        PageVisit visit,
        IReadOnlyList<IReadOnlyList<PossibleFile>> possible,
        string? first,
        double rate
    )
    {
        // A file in several places is loaded once, and as large as the largest of them needs it.
        var files = visit.Images.Select((image, i) => (image, i)).GroupBy(one => one.image.Address).ToList();
        var bytes = files.Sum(file => file.Max(one => Loaded(one.image, screen.Screen)));
        var less = files.Sum(file => file.Max(one => WouldLoad(one.image, possible[one.i], screen.Screen)));
        return new(
            screen.Screen.Viewport,
            screen.Screen.Density,
            bytes,
            less,
            screen.OtherBytes,
            Seconds(bytes + screen.OtherBytes, rate),
            Seconds(less + screen.OtherBytes, rate),
            Math.Round(screen.Height, 2),
            first
        );
    }

    private static long Loaded(PageImage image, Screen screen) => image.Shown.Any(one => one.Screen == screen) ? image.File.Bytes : 0;

    private static long WouldLoad(PageImage image, IReadOnlyList<PossibleFile> possible, Screen screen) =>
        image.Shown.FirstOrDefault(one => one.Screen == screen) is not { } shown ? 0
        : image.File.Trouble is null && shown.Placing.Shown.IsEmpty ? 0
        : possible.FirstOrDefault(one => one.Place.Screens.Contains(screen))?.BytesBeside(image.File.Bytes) ?? image.File.Bytes;

    // The picture that takes most of what a screen shows before anybody scrolls.
    private static string? First(IReadOnlyList<PageImage> images, Screen screen) =>
        images
            .SelectMany(image =>
                image.Shown.Where(one => one.Screen == screen).Select(one => (image.Where, Area: one.Image.Place.AreaWithin(screen)))
            )
            .Where(one => one.Area > 0)
            .OrderByDescending(one => one.Area)
            .Select(one => one.Where)
            .FirstOrDefault();

    private static int Whole(double side) => side > 0 ? Rounding.ToPixels(side) : 0;

    private static double Seconds(long bytes, double rate) => Math.Round(bytes * 8 / (rate * 1e6), 3);

    private static long Mean(IEnumerable<long> values) => (long)Math.Round(values.DefaultIfEmpty().Average());
}

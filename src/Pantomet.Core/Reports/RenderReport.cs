using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Unicode;
using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Reports;

/// <summary>One file that was to be read.</summary>
public sealed record ReportedSource
{
    /// <summary>The path as it was given.</summary>
    public required string File { get; init; }

    /// <summary>Pixels across, as displayed; absent when it cannot be read.</summary>
    public int? Width { get; init; }

    /// <summary>Pixels down, as displayed.</summary>
    public int? Height { get; init; }

    /// <summary>jpeg, png ...</summary>
    public string? Format { get; init; }

    /// <summary>Weight in bytes.</summary>
    public long? Bytes { get; init; }

    /// <summary>True when there is an alpha channel.</summary>
    public bool? Alpha { get; init; }

    /// <summary>Frames or pages.</summary>
    public int? Frames { get; init; }

    /// <summary>The colour profile's name; absent when there is none.</summary>
    public string? Profile { get; init; }

    /// <summary>The resolution tag in pixels for an inch.</summary>
    public double? Ppi { get; init; }

    /// <summary>The quality a JPEG was written at, estimated from its tables.</summary>
    public int? JpegQuality { get; init; }

    /// <summary>photograph or flatGraphic, by content.</summary>
    public PictureKind? Kind { get; init; }

    /// <summary>True where the picture is reduced in light; left out otherwise.</summary>
    public bool? InLight { get; init; }

    /// <summary>The suggested keep box: left, top, right, bottom as fractions of the picture as displayed.</summary>
    public IReadOnlyList<double>? Suggestion { get; init; }

    /// <summary>
    /// The faces that were found, each left, top, right, bottom as fractions of the picture as displayed; null where it was not read.
    /// </summary>
    public IReadOnlyList<IReadOnlyList<double>>? Faces { get; init; }

    /// <summary>What the picture shows, for those who cannot see it, where a person wrote it.</summary>
    public string? Alternative { get; init; }

    /// <summary>Why it cannot be read: a sentence.</summary>
    public string? Error { get; init; }

    /// <summary>What is told of a picture that could be read.</summary>
    /// <param name="file">The path or name that it is reported under.</param>
    /// <param name="facts">Its facts.</param>
    public static ReportedSource Of(string file, PictureFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return new()
        {
            File = file,
            Width = facts.Size.Width,
            Height = facts.Size.Height,
            Format = facts.Format.Word(),
            Bytes = facts.Bytes,
            Alpha = facts.HasAlpha,
            Frames = facts.Frames,
            Profile = facts.Profile,
            Ppi = facts.Ppi,
            JpegQuality = facts.JpegQuality,
            Kind = facts.Kind,
            InLight = facts.NeedsLight ? true : null,
            Suggestion = facts.Suggestion is { Kind: not SuggestionKind.Content, Box: var box } ? Edges(box) : null,
            Faces = [.. (facts.Suggestion?.Faces ?? []).Select(Edges)],
        };
    }

    private static double[] Edges(Frame box) => [.. new[] { box.Left, box.Top, box.Right, box.Bottom }.Select(edge => Math.Round(edge, 4))];
}

/// <summary>The figures of a file that is delivered.</summary>
/// <param name="Path">Where it lies, relative to the output folder.</param>
/// <param name="Size">Its pixel size.</param>
/// <param name="Format">Its type.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Quality">1 to 100; null where the type has none.</param>
/// <param name="Likeness">0 to 1; null where it was not measured.</param>
/// <param name="WorstPlace">Where it differs most.</param>
/// <param name="Dressed">What became of the slot's dress; null where it has none.</param>
public sealed record ReportedFile(
    string Path,
    PixelSize Size,
    PictureFormat Format,
    long Bytes,
    int? Quality,
    double? Likeness,
    Crop? WorstPlace,
    Dressed? Dressed = null
);

/// <summary>What became of a slot's dress on one file.</summary>
public sealed record ReportedDress
{
    /// <summary>The amount of the fade, 0 to 1; absent without one.</summary>
    public double? Fade { get; init; }

    /// <summary>The ink, like <c>#a1b2c3</c>; absent where there is none.</summary>
    public string? Ink { get; init; }

    /// <summary>The contrast of the worst hundredth of the pixels; absent where there is no ink.</summary>
    public double? Contrast { get; init; }

    /// <summary>Where the title stands: left, top, right, bottom in pixels of the file; absent without one.</summary>
    public IReadOnlyList<int>? TitleBox { get; init; }

    /// <summary>Where the mark lies: left, top, right, bottom in pixels of the file; absent without one.</summary>
    public IReadOnlyList<int>? MarkBox { get; init; }

    /// <summary>The corner in which the mark lies; absent without one.</summary>
    public string? MarkAt { get; init; }

    /// <summary>What is told of a dress; null where there is none.</summary>
    public static ReportedDress? Of(Dressed? dressed) =>
        dressed is null
            ? null
            : new()
            {
                Fade = dressed.Fade is { } fade ? Math.Round(fade, 4) : null,
                Ink = dressed.Ink?.ToString(),
                TitleBox = Four(dressed.TitleBox),
                MarkBox = Four(dressed.MarkBox),
                MarkAt = dressed.MarkAt is { } corner ? DressReader.Word(corner) : null,
                // Cut, not rounded: 4.497 does not reach 4.5.
                Contrast = dressed.Contrast is { } contrast ? Math.Floor(contrast * 100) / 100 : null,
            };

    private static IReadOnlyList<int>? Four(Crop? box) => box is { } one ? [one.Left, one.Top, one.Right, one.Bottom] : null;
}

/// <summary>One picture of a pair.</summary>
/// <param name="Source">Its path as it was given.</param>
/// <param name="Frame">Left, top, right, bottom in its pixels as displayed; absent when no file was made.</param>
/// <param name="Place">Where it lies in the file; absent when no file was made.</param>
public sealed record ReportedPart(string Source, IReadOnlyList<int>? Frame, IReadOnlyList<int>? Place)
{
    /// <summary>What is told of one.</summary>
    public static ReportedPart Of(string source, PlacedPart part) => new(source, Four(part.Crop), Four(part.Place));

    private static int[] Four(Crop box) => [box.Left, box.Top, box.Right, box.Bottom];
}

/// <summary>One variant: made or not.</summary>
public sealed record ReportedVariant
{
    /// <summary>The source's path as it was given.</summary>
    public required string Source { get; init; }

    /// <summary>The destination's key.</summary>
    public required string Destination { get; init; }

    /// <summary>The slot's key.</summary>
    public required string Slot { get; init; }

    /// <summary>The density asked for; absent on a ladder.</summary>
    public decimal? Density { get; init; }

    /// <summary>The width on its ladder, such as <c>800w</c>; absent where the slot asks for densities.</summary>
    public string? Descriptor { get; init; }

    /// <summary>Where it lies, relative to the output folder; absent when none was made.</summary>
    public string? File { get; init; }

    /// <summary>Pixels across.</summary>
    public int? Width { get; init; }

    /// <summary>Pixels down.</summary>
    public int? Height { get; init; }

    /// <summary>jpeg, png ...</summary>
    public string? Format { get; init; }

    /// <summary>Weight in bytes.</summary>
    public long? Bytes { get; init; }

    /// <summary>1 to 100; null where the type has none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.Never)]
    public int? Quality { get; init; }

    /// <summary>0 to 1; null where it was not measured.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.Never)]
    public double? Likeness { get; init; }

    /// <summary>Where the file differs most from the same pixels uncompressed: left, top, right, bottom in pixels of the file.</summary>
    public IReadOnlyList<int>? WorstPlace { get; init; }

    /// <summary>Left, top, right, bottom in source pixels as displayed.</summary>
    public IReadOnlyList<int>? Frame { get; init; }

    /// <summary>The pictures of a pair from left to right; absent for a single one.</summary>
    public IReadOnlyList<ReportedPart>? Parts { get; init; }

    /// <summary>What became of the slot's dress; absent where it has none.</summary>
    public ReportedDress? Dress { get; init; }

    /// <summary>How many encodes of the whole picture it took.</summary>
    public int Encodes { get; init; }

    /// <summary>How many encodes of samples of it; null where that is not known any more.</summary>
    public int? Trials { get; init; }

    /// <summary>meets, concedes, breaks or skipped.</summary>
    public required Verdict Verdict { get; init; }

    /// <summary>Why.</summary>
    public required IReadOnlyList<Reason> Reasons { get; init; }

    /// <summary>What is told of one variant.</summary>
    /// <param name="source">What its picture is reported under.</param>
    /// <param name="destination">The destination's key.</param>
    /// <param name="slot">The slot's key.</param>
    /// <param name="descriptor">The density asked for, or the width of the ladder.</param>
    /// <param name="crop">The part of the picture.</param>
    /// <param name="file">The file; null when none is delivered.</param>
    /// <param name="encodes">How many trial encodes it took.</param>
    /// <param name="verdict">The verdict.</param>
    /// <param name="reasons">Why.</param>
    public static ReportedVariant Of(
        string source,
        string destination,
        string slot,
        Descriptor descriptor,
        Crop crop,
        ReportedFile? file,
        int encodes,
        Verdict verdict,
        IReadOnlyList<Reason> reasons
    ) =>
        new()
        {
            Source = source,
            Destination = destination,
            Slot = slot,
            Density = descriptor.Density?.Value,
            Descriptor = descriptor.Width is null ? null : descriptor.ToString(),
            File = file?.Path,
            Width = file?.Size.Width,
            Height = file?.Size.Height,
            Format = file?.Format.Word(),
            Bytes = file?.Bytes,
            Quality = file?.Quality,
            Likeness = file?.Likeness is { } likeness ? Math.Round(likeness, 5) : null,
            WorstPlace = file?.WorstPlace is { } worst ? [worst.Left, worst.Top, worst.Right, worst.Bottom] : null,
            Frame = [crop.Left, crop.Top, crop.Right, crop.Bottom],
            Dress = ReportedDress.Of(file?.Dressed),
            Encodes = encodes,
            Verdict = verdict,
            Reasons = reasons,
        };
}

/// <summary>Sums.</summary>
/// <param name="SourceBytes">Weight of all sources that could be read.</param>
/// <param name="VariantBytes">Weight of all variants made.</param>
/// <param name="Files">How many files were made.</param>
/// <param name="Seconds">How long the run took.</param>
public sealed record ReportTotals(long SourceBytes, long VariantBytes, int Files, double Seconds);

/// <summary>What a run made of which sources, <c>"schema": "pantomet-report/1"</c>.</summary>
/// <param name="Sources">One for each file given.</param>
/// <param name="Variants">One for each picture, slot and density.</param>
/// <param name="Totals">Sums.</param>
public sealed record RenderReport(IReadOnlyList<ReportedSource> Sources, IReadOnlyList<ReportedVariant> Variants, ReportTotals Totals)
{
    /// <summary>Letters of all languages are written as they are.</summary>
    internal static readonly JavaScriptEncoder Encoder = JavaScriptEncoder.Create(UnicodeRanges.All);

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        Encoder = Encoder,
    };

    /// <summary>One for each source and slot or group, where markup was asked for; absent otherwise.</summary>
    [JsonPropertyOrder(1)]
    public IReadOnlyList<ReportedMarkup>? Markup { get; init; }

    /// <summary>One for each page with images to replace, where a site was built; absent otherwise.</summary>
    [JsonPropertyOrder(2)]
    public IReadOnlyList<ReportedPage>? Pages { get; init; }

    /// <summary>Which share of a batch it is of; absent for the whole.</summary>
    [JsonPropertyOrder(3)]
    public ReportedShare? Share { get; init; }

    /// <summary>The report's schema.</summary>
    [JsonPropertyOrder(-1)]
    public string Schema { get; } = "pantomet-report/1";

    /// <summary>A report with its sums.</summary>
    /// <param name="sources">One for each file given.</param>
    /// <param name="variants">One for each picture, slot and density.</param>
    /// <param name="took">How long the run took.</param>
    public static RenderReport Of(IReadOnlyList<ReportedSource> sources, IReadOnlyList<ReportedVariant> variants, TimeSpan took)
    {
        ArgumentNullException.ThrowIfNull(sources);
        ArgumentNullException.ThrowIfNull(variants);
        var delivered = variants.Where(variant => variant.File is not null).ToList();
        return new(
            sources,
            variants,
            new(
                sources.Sum(source => source.Bytes ?? 0),
                delivered.Sum(variant => variant.Bytes ?? 0),
                delivered.Count,
                Math.Round(took.TotalSeconds, 3)
            )
        );
    }

    /// <summary>As JSON.</summary>
    public string ToJson() => JsonSerializer.Serialize(this, Options);
}

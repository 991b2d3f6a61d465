using System.Text.Json.Serialization;
using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Making;

namespace Pantomet.Imaging.Hosting;

/// <summary>A piece of imaging work that can be handed to another process.</summary>
/// <param name="Path">The original.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "work")]
[JsonDerivedType(typeof(ReadRequest), "read")]
[JsonDerivedType(typeof(PreviewRequest), "preview")]
[JsonDerivedType(typeof(VariantRequest), "variant")]
[JsonDerivedType(typeof(CurveRequest), "curve")]
[JsonDerivedType(typeof(DressRequest), "dress")]
[JsonDerivedType(typeof(FontRequest), "font")]
[JsonDerivedType(typeof(DetectSubjectRequest), "look")]
[JsonDerivedType(typeof(CompareRequest), "compare")]
[JsonDerivedType(typeof(SketchRequest), "sketch")]
public abstract record ImagingRequest(string Path)
{
    /// <summary>How many threads it may use.</summary>
    public int Threads { get; init; } = 1;

    /// <summary>The folder of the logos and fonts that rules name; null where there is none.</summary>
    public string? SideFiles { get; init; }

    /// <summary>The pictures that stand side by side, from left to right, the first of them also as the path; null for a single one.</summary>
    public IReadOnlyList<TurnedOriginal>? Pair { get; init; }
}

/// <summary>An original and how it is turned.</summary>
/// <param name="Path">The original.</param>
/// <param name="Turn">How it is turned.</param>
public sealed record TurnedOriginal(string Path, Turn Turn);

/// <summary>Read the facts and check the whole file.</summary>
/// <param name="Path">The original.</param>
public sealed record ReadRequest(string Path) : ImagingRequest(Path);

/// <summary>Try a font: some of its own characters are drawn.</summary>
/// <param name="Path">The font.</param>
public sealed record FontRequest(string Path) : ImagingRequest(Path);

/// <summary>Make a small copy for the screen.</summary>
/// <param name="Path">The original.</param>
/// <param name="Side">Its longest side in pixels.</param>
/// <param name="Output">Where to write it.</param>
/// <param name="Turn">How it is turned.</param>
/// <param name="Format">Its type, where it is known: a drawing gets a limited time.</param>
public sealed record PreviewRequest(string Path, int Side, string Output, Turn Turn = default, PictureFormat? Format = null)
    : ImagingRequest(Path);

/// <summary>Look for the subject of a picture without a plain backdrop.</summary>
/// <param name="Path">The original, or a small copy of it that lies upright.</param>
/// <param name="Facts">Its facts.</param>
public sealed record DetectSubjectRequest(string Path, PictureFacts Facts) : ImagingRequest(Path);

/// <summary>Read a picture as a sketch.</summary>
/// <param name="Path">A small copy that lies upright.</param>
public sealed record SketchRequest(string Path) : ImagingRequest(Path);

/// <summary>Compare a file that somebody else made with the pixels it was made from.</summary>
/// <param name="Path">The file.</param>
/// <param name="Reference">The pixels, as PNG; of the same size.</param>
public sealed record CompareRequest(string Path, string Reference) : ImagingRequest(Path);

/// <summary>Lay a slot's dress over the pixels of one variant, for a look before anything is decided.</summary>
/// <param name="Path">The original.</param>
/// <param name="Facts">Its facts, with the size of the turned picture.</param>
/// <param name="Turn">How it is turned.</param>
/// <param name="Rules">A rules file with the one slot.</param>
/// <param name="Plan">Part of the picture and pixel size.</param>
/// <param name="Output">Where to write the pixels, as PNG.</param>
/// <param name="Colours">True to find the colours that lead, the edge's, and inks.</param>
public sealed record DressRequest(string Path, PictureFacts Facts, Turn Turn, string Rules, VariantPlan Plan, string Output, bool Colours)
    : ImagingRequest(Path)
{
    /// <summary>What must be seen, as fractions of the file: no first place for words lies over it.</summary>
    public IReadOnlyList<Frame> Keep { get; init; } = [];
}

/// <summary>What came of a dress that was drawn over for a look.</summary>
/// <param name="Size">The size of the pixels.</param>
/// <param name="Dressed">What became of it; null where nothing was drawn over.</param>
/// <param name="Colours">The colours, where they were asked for.</param>
public sealed record DressPreview(PixelSize Size, Dressed? Dressed, DressColours? Colours);

/// <summary>The colours of a variant before anything is drawn over it.</summary>
/// <param name="Leading">Those that lead.</param>
/// <param name="Edge">Those of its edges.</param>
/// <param name="Inks">Inks for what is written on it, the one that needs least fade first.</param>
/// <param name="Calm">Where words are placed at first: where the picture is calm and shows nothing that must be seen.</param>
public sealed record DressColours(IReadOnlyList<LeadingColour> Leading, EdgeColours Edge, IReadOnlyList<InkOffer> Inks, Frame Calm);

/// <summary>Make one variant, or the pixels it is compared with.</summary>
/// <param name="Path">The original.</param>
/// <param name="Facts">Its facts, with the size of the turned picture.</param>
/// <param name="Turn">How it is turned.</param>
/// <param name="Rules">A rules file with the one slot.</param>
/// <param name="Plan">Part of the picture and pixel size.</param>
/// <param name="Format">A type chosen by hand.</param>
/// <param name="Quality">A quality chosen by hand.</param>
/// <param name="Output">Where to write the file.</param>
/// <param name="Small">Where to write a small copy of the file for the screen; null for none.</param>
/// <param name="Size">The size of the file where it had to shrink to meet its weight; only for the reference.</param>
/// <param name="Reference">True for the pixels without loss, as PNG.</param>
public sealed record VariantRequest(
    string Path,
    PictureFacts Facts,
    Turn Turn,
    string Rules,
    VariantPlan Plan,
    PictureFormat? Format,
    int? Quality,
    string Output,
    string? Small = null,
    PixelSize? Size = null,
    bool Reference = false
) : ImagingRequest(Path);

/// <summary>Weigh one variant at several qualities, keeping no file.</summary>
/// <param name="Path">The original.</param>
/// <param name="Facts">Its facts, with the size of the turned picture.</param>
/// <param name="Turn">How it is turned.</param>
/// <param name="Rules">A rules file with the one slot.</param>
/// <param name="Plan">Part of the picture and pixel size.</param>
/// <param name="Format">The type.</param>
/// <param name="Qualities">The qualities, each 1 to 100.</param>
public sealed record CurveRequest(
    string Path,
    PictureFacts Facts,
    Turn Turn,
    string Rules,
    VariantPlan Plan,
    PictureFormat Format,
    IReadOnlyList<int> Qualities
) : ImagingRequest(Path);

/// <summary>One quality weighed.</summary>
/// <param name="Quality">1 to 100; null for a type without.</param>
/// <param name="Bytes">The file's weight.</param>
/// <param name="Likeness">Its likeness, 0 to 1.</param>
public sealed record CurvePoint(int? Quality, long Bytes, double Likeness);

/// <summary>What came of an order.</summary>
public sealed record ImagingResponse
{
    /// <summary>Facts, after reading or looking.</summary>
    public PictureFacts? Facts { get; init; }

    /// <summary>The variant, after making one.</summary>
    public VariantResponse? Variant { get; init; }

    /// <summary>What is told meanwhile: the file is found and the rest of the outcome follows.</summary>
    public WeighedFile? Weighed { get; init; }

    /// <summary>The dress, after looking at one.</summary>
    public DressPreview? Dress { get; init; }

    /// <summary>The points, after weighing a curve.</summary>
    public IReadOnlyList<CurvePoint>? Curve { get; init; }

    /// <summary>How alike two files are, after comparing them: 0 to 1.</summary>
    public double? Likeness { get; init; }

    /// <summary>The mean colours of a picture's cells, after sketching it.</summary>
    public byte[]? Sketch { get; init; }

    /// <summary>A sentence, when it could not be done.</summary>
    public string? Refusal { get; init; }

    /// <summary>What kind of failure it was, when it could not be done.</summary>
    public ImagingFailure? Failure { get; init; }

    /// <summary>True when the process ends after this line and takes no other order.</summary>
    public bool Ends { get; init; }

    /// <summary>An outcome that could not be.</summary>
    public static ImagingResponse Failed(ImagingFailure failure, string sentence) => new() { Refusal = sentence, Failure = failure };
}

/// <summary>Why an order could not be carried out.</summary>
public enum ImagingFailure
{
    /// <summary>The picture cannot be read or drawn; another try comes to the same.</summary>
    Refused,

    /// <summary>The process ended under it.</summary>
    Crashed,

    /// <summary>It took longer than an order may.</summary>
    TimedOut,

    /// <summary>It took more memory than an order may.</summary>
    TooLarge,

    /// <summary>A file could not be read or written.</summary>
    Disk,

    /// <summary>Something that nobody foresaw.</summary>
    Unforeseen,
}

/// <summary>A variant that was made; its file lies where the order said.</summary>
/// <param name="HasFile">True when there is a file.</param>
/// <param name="Format">Its type.</param>
/// <param name="Size">Its pixel size.</param>
/// <param name="Quality">1 to 100, null where there is none.</param>
/// <param name="Likeness">0 to 1.</param>
/// <param name="WorstTile">Where it differs most.</param>
/// <param name="Encodes">Trial encodes.</param>
/// <param name="Verdict">The verdict.</param>
/// <param name="Reasons">Why.</param>
/// <param name="Dressed">What became of the slot's dress; null where it has none.</param>
public sealed record VariantResponse(
    bool HasFile,
    PictureFormat? Format,
    PixelSize Size,
    int? Quality,
    double? Likeness,
    Crop? WorstTile,
    int Encodes,
    Verdict Verdict,
    IReadOnlyList<Reason> Reasons,
    Dressed? Dressed = null
)
{
    /// <summary>What stands in for it until it is there, as a data address.</summary>
    public string? Placeholder { get; init; }

    /// <summary>The colour that continues its edge; null where something shows through.</summary>
    public Rgb? Edge { get; init; }
}

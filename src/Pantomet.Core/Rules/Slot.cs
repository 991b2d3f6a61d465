using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Naming;
using Pantomet.Core.Responsive;
using Pantomet.Core.Weight;

namespace Pantomet.Core.Rules;

/// <summary>How a picture takes its place in a slot.</summary>
public enum Fit
{
    /// <summary>Cut to the slot's shape.</summary>
    Crop,

    /// <summary>The whole picture inside the slot's box, no margins.</summary>
    Whole,

    /// <summary>The whole picture on a background, the box exact.</summary>
    Mat,
}

/// <summary>What to do with a framing that has too few pixels.</summary>
public enum WhenTooSmall
{
    /// <summary>Deliver the largest honest size.</summary>
    Cap,

    /// <summary>Leave the variant out.</summary>
    Skip,

    /// <summary>Count it as a broken limit.</summary>
    Break,
}

/// <summary>How firmly a reduced picture is sharpened for screens.</summary>
public enum Sharpening
{
    /// <summary>Not at all.</summary>
    Off,

    /// <summary>Enough to undo the softness of the reduction.</summary>
    Mild,

    /// <summary>Visibly crisp.</summary>
    Firm,
}

/// <summary>The background of margins and of what was transparent.</summary>
/// <param name="Colour">Red, green, blue; null means the picture's own edge colour.</param>
public sealed record Background(Rgb? Colour)
{
    /// <summary>The colour of the picture's edge.</summary>
    public static readonly Background Edge = new((Rgb?)null);
}

/// <summary>A colour in sRGB.</summary>
/// <param name="Red">0 to 255.</param>
/// <param name="Green">0 to 255.</param>
/// <param name="Blue">0 to 255.</param>
public readonly record struct Rgb(byte Red, byte Green, byte Blue)
{
    /// <summary>White.</summary>
    public static readonly Rgb White = new(255, 255, 255);

    /// <summary>Reads a colour that is written like <c>#a1b2c3</c>.</summary>
    public static bool TryParse(string? text, out Rgb colour)
    {
        var read = text is { Length: 7 } && text[0] == '#' && text.Skip(1).All(char.IsAsciiHexDigit);
        colour = read ? new(Convert.ToByte(text![1..3], 16), Convert.ToByte(text[3..5], 16), Convert.ToByte(text[5..7], 16)) : default;
        return read;
    }

    /// <inheritdoc/>
    public override string ToString() => $"#{Red:x2}{Green:x2}{Blue:x2}";
}

/// <summary>The hard rules of a slot.</summary>
public sealed record Limits
{
    /// <summary>No limit at all.</summary>
    public static readonly Limits None = new();

    /// <summary>The most a file may weigh.</summary>
    public ByteCount? MaxBytes { get; init; }

    /// <summary>The widest a file may be, in pixels.</summary>
    public int? MaxWidth { get; init; }

    /// <summary>The tallest a file may be, in pixels.</summary>
    public int? MaxHeight { get; init; }

    /// <summary>The narrowest a file may be, in pixels.</summary>
    public int? MinWidth { get; init; }

    /// <summary>The lowest a file may be, in pixels.</summary>
    public int? MinHeight { get; init; }
}

/// <summary>What becomes of the original's colour profile.</summary>
public enum ProfileRule
{
    /// <summary>Colours are converted to sRGB (IEC 61966-2-1) and the profile is dropped.</summary>
    Srgb,

    /// <summary>Colours and profile stay as they are.</summary>
    Keep,
}

/// <summary>What becomes of the original's tags.</summary>
public enum MetadataRule
{
    /// <summary>All are dropped.</summary>
    Drop,

    /// <summary>The lines that say whose work it is are kept, nothing else.</summary>
    Copyright,

    /// <summary>All are kept but the location.</summary>
    Keep,
}

/// <summary>What is wanted within the limits.</summary>
public sealed record Aims
{
    /// <summary>Nothing in particular.</summary>
    public static readonly Aims None = new();

    /// <summary>The weight band wanted.</summary>
    public WeightBand? Band { get; init; }

    /// <summary>The qualities wanted; null where the slot says nothing.</summary>
    public QualityRange? Quality { get; init; }

    /// <summary>How much the file must look like the same pixels uncompressed, 0 to 1.</summary>
    public double? Likeness { get; init; }

    /// <summary>True when a quality below the floor may be taken to meet a weight. Where no quality is asked for, it may.</summary>
    public bool BelowFloor { get; init; }
}

/// <summary>A file type that a slot takes.</summary>
/// <param name="Format">The type; null leaves it to the picture's content.</param>
public readonly record struct SlotType(PictureFormat? Format)
{
    /// <summary>Chosen by content.</summary>
    public static readonly SlotType Auto = new(null);

    /// <inheritdoc/>
    public override string ToString() => Format is { } format ? format.Word() : "auto";
}

/// <summary>One place within a destination.</summary>
public sealed record Slot
{
    /// <summary>Short name in addresses, unique in its destination.</summary>
    public required string Key { get; init; }

    /// <summary>Name for people.</summary>
    public required string Name { get; init; }

    /// <summary>The size rule.</summary>
    public required SizeRule Size { get; init; }

    /// <summary>How the picture takes its place.</summary>
    public Fit Fit { get; init; } = Fit.Crop;

    /// <summary>The densities asked for, ascending, at least one.</summary>
    public IReadOnlyList<Density> Densities { get; init; } = [Density.One];

    /// <summary>The ladder of widths that stands instead of <see cref="Densities"/>; null where there is none.</summary>
    public ResponsiveRule? Responsive { get; init; }

    /// <summary>
    /// What the slot is shown at as a whole: density 1, or on a ladder the width at which it is shown widest.
    /// </summary>
    public Descriptor AtDensityOne => Responsive is { } responsive ? Descriptor.Wide(Math.Max(1, responsive.WidestShown)) : Density.One;

    /// <summary>What its files are told apart by, for a picture with pixels enough: its densities, or the widths of its ladder.</summary>
    public IReadOnlyList<Descriptor> Descriptors =>
        Responsive is { } responsive
            ? [.. responsive.Widths().Select(Descriptor.Wide)]
            : [.. Densities.Select(density => Descriptor.Of(density))];

    /// <summary>
    /// The name of the slots of its destination that become one picture on the page, each at its screen widths; null for a slot of its own.
    /// </summary>
    public string? Group { get; init; }

    /// <summary>When this slot of its group is the one that is shown; null for the last, which is shown otherwise.</summary>
    public MediaCondition? Media { get; init; }

    /// <summary>The viewports at which the slot is shown: those of its condition that no slot of the group before it takes.</summary>
    public ViewportRanges ShownAt { get; init; } = ViewportRanges.All;

    /// <summary>Files up to this weight are given as data in the markup; null gives all as addresses.</summary>
    public ByteCount? Inline { get; init; }

    /// <summary>True where the page begins with this slot's picture: it is loaded at once, before others.</summary>
    public bool First { get; init; }

    /// <summary>Where the frame goes when neither marks nor a subject say anything; null for the middle.</summary>
    public FocusPoint? Toward { get; init; }

    /// <summary>True where the canvas is extended to hold keep boxes that no frame inside the picture holds.</summary>
    public bool Extend { get; init; }

    /// <summary>File types in order of preference, at least one.</summary>
    public IReadOnlyList<SlotType> Types { get; init; } = [new(PictureFormat.Jpeg)];

    /// <summary>True to make one file for each type instead of the first that does.</summary>
    public bool Each { get; init; }

    /// <summary>The types that are named, in order, each once.</summary>
    public IReadOnlyList<PictureFormat> Formats => [.. Types.Select(type => type.Format).OfType<PictureFormat>().Distinct()];

    /// <summary>
    /// True where the content chooses: the lightest that looks the same, of the types named beside, or of all where none is. Where each
    /// named type is made there is nothing to choose.
    /// </summary>
    public bool ByContent => Types.Contains(SlotType.Auto) && (!Each || Formats.Count == 0);

    /// <summary>Hard rules.</summary>
    public Limits Limits { get; init; } = Limits.None;

    /// <summary>What is wanted within the limits.</summary>
    public Aims Aims { get; init; } = Aims.None;

    /// <summary>The part of the slot that nothing covers, as fractions of the slot.</summary>
    public Frame Clear { get; init; } = Frame.Whole;

    /// <summary>The shapes in which the place shows the file again, cut from its middle.</summary>
    public IReadOnlyList<Ratio> ShownAs { get; init; } = [];

    /// <summary>
    /// The part of the clear area that all of <see cref="ShownAs"/> show: of a slot of ratio r, a shape s cut from the middle shows min(1, s /
    /// r) of the width and min(1, r / s) of the height. Null where nothing is common to them.
    /// </summary>
    public Frame? Common => ShownAs.Count == 0 || FrameShape is not { } shape ? Clear : Shown(shape.Value);

    /// <summary>What a frame has to hold its subject in.</summary>
    public Frame Uncovered => Common ?? Clear;

    private Frame? Shown(double ratio)
    {
        var across = (1 - ShownAs.Min(shown => Math.Min(1, shown.Value / ratio))) / 2;
        var down = (1 - ShownAs.Min(shown => Math.Min(1, ratio / shown.Value))) / 2;
        return Frame.TryCreate(
            Math.Max(Clear.Left, across),
            Math.Max(Clear.Top, down),
            Math.Min(Clear.Right, 1 - across),
            Math.Min(Clear.Bottom, 1 - down),
            out var common,
            out _
        )
            ? common
            : null;
    }

    /// <summary>The share of the clear area's tighter side that the subject takes, 0 to 1; null takes the widest frame.</summary>
    public double? SubjectShare { get; init; }

    /// <summary>What to do when the framing has too few pixels.</summary>
    public WhenTooSmall WhenTooSmall { get; init; } = WhenTooSmall.Cap;

    /// <summary>The background; null where the slot says nothing (white wherever one is needed).</summary>
    public Background? Background { get; init; }

    /// <summary>The resolution tag to write; null where the slot says nothing.</summary>
    public double? Ppi { get; init; }

    /// <summary>Sharpening after reduction.</summary>
    public Sharpening Sharpen { get; init; } = Sharpening.Mild;

    /// <summary>What becomes of the colour profile.</summary>
    public ProfileRule Profile { get; init; } = ProfileRule.Srgb;

    /// <summary>What becomes of the tags.</summary>
    public MetadataRule Metadata { get; init; } = MetadataRule.Drop;

    /// <summary>True to let kept tags tell where the picture was taken.</summary>
    public bool Location { get; init; }

    /// <summary>True to keep all frames of a moving picture where the type can hold them.</summary>
    public bool AllFrames { get; init; }

    /// <summary>Several pictures side by side; null for a slot of single ones.</summary>
    public PairRule? Pair { get; init; }

    /// <summary>What is put over every picture of the slot.</summary>
    public Dress Dress { get; init; } = Dress.None;

    /// <summary>
    /// How wide it is shown in CSS px, whatever picture it gets; on a ladder where it is shown widest. Null where that depends on the
    /// picture.
    /// </summary>
    public int? SetWidth =>
        Responsive is { } ladder ? Math.Max(1, ladder.WidestShown)
        : Fit == Fit.Whole && Size is SizeRule.Exact ? null
        : Size switch
        {
            SizeRule.Exact exact => exact.Size.Width,
            SizeRule.ShapeWithSide side => side.Asked(new(1, 1), Density.One).Width,
            SizeRule.SideAlone { Side: Side.Width, Pixels: var width } => width,
            _ => null,
        };

    /// <summary>The same slot for one picture: what goes over it has that picture's words.</summary>
    /// <param name="title">The picture's own title; null where nobody gave it one.</param>
    public Slot For(string? title) => Dress.Title is null ? this : this with { Dress = Dress.For(title) };

    /// <summary>The same slot with other names for the files that lie beside its rules.</summary>
    /// <param name="named">Gives a file's name.</param>
    /// <param name="fault">Says why a file cannot be used; null where it can.</param>
    public Slot WithFiles(Func<string, string> named, Func<string, string?> fault) =>
        Dress.Files.Any() ? this with { Dress = Dress.WithFiles(named, fault) } : this;

    /// <summary>The pattern of file names.</summary>
    public NamePattern NamePattern { get; init; } = NamePattern.Usual;

    /// <summary>The shape a framing must have here: null where the whole picture is shown or the framing is free.</summary>
    public Ratio? FrameShape => Fit == Fit.Crop ? Size.Shape : null;
}

/// <summary>Pictures side by side at one height.</summary>
/// <param name="Count">How many, 2 to 4.</param>
/// <param name="Gap">What lies between two of them, in CSS px of the slot.</param>
/// <param name="Background">The colour of the gaps.</param>
public sealed record PairRule(int Count, double Gap, Rgb Background)
{
    /// <summary>The fewest that stand side by side.</summary>
    public const int Fewest = 2;

    /// <summary>The most that stand side by side.</summary>
    public const int Most = 4;
}

/// <summary>Where pictures go: a site, a store, a marketplace, a social network, a newsletter.</summary>
/// <param name="Key">Short name in addresses and folders, unique in the book.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Slots">Its places, at least one.</param>
public sealed record Destination(string Key, string Name, IReadOnlyList<Slot> Slots);

/// <summary>All destinations of a rules file.</summary>
/// <param name="Destinations">At least one.</param>
public sealed record RuleBook(IReadOnlyList<Destination> Destinations)
{
    /// <summary>The most saved styles that are kept.</summary>
    public const int MostDressings = 100;

    /// <summary>Dressings that were given a name, to be put on any slot; in the order in which they were.</summary>
    public IReadOnlyList<NamedDress> Dressings { get; init; } = [];
}

/// <summary>A dress that was given a name.</summary>
/// <param name="Name">1 to 80 characters, unique in its book.</param>
/// <param name="Dress">What is drawn over.</param>
public sealed record NamedDress(string Name, Dress Dress);

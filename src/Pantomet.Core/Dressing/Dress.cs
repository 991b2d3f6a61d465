using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Dressing;

/// <summary>What is done to the pixels of every picture of a slot once they are cut, before they are written.</summary>
public sealed record Dress
{
    /// <summary>Nothing.</summary>
    public static readonly Dress None = new();

    /// <summary>A colour mixed in, so that something can be written over the picture.</summary>
    public Fade? Fade { get; init; }

    /// <summary>Words over the picture.</summary>
    public Title? Title { get; init; }

    /// <summary>The logo in a corner.</summary>
    public MakersMark? Mark { get; init; }

    /// <summary>The files that have to lie beside the rules for it.</summary>
    public IEnumerable<string> Files =>
        [.. Mark?.Files ?? [], .. Title is { HasFontFile: true } title ? [title.Font] : Array.Empty<string>()];

    /// <summary>The same with other names for its files.</summary>
    /// <param name="named">Gives a file's name.</param>
    /// <param name="fault">Says why a file cannot be used; null where it can.</param>
    public Dress WithFiles(Func<string, string> named, Func<string, string?> fault)
    {
        ArgumentNullException.ThrowIfNull(named);
        ArgumentNullException.ThrowIfNull(fault);
        return this with
        {
            Mark = Mark is { } mark
                ? mark with
                {
                    File = named(mark.File),
                    OnDark = mark.OnDark is { } light ? named(light) : null,
                    Fault = mark.Files.Select(fault).FirstOrDefault(sentence => sentence is not null),
                }
                : null,
            Title = Title is { HasFontFile: true } title ? title with { Font = named(title.Font), FontFault = fault(title.Font) } : Title,
        };
    }

    /// <summary>The same with the words that a picture has for it; without a title where it has none.</summary>
    /// <param name="words">The picture's own title; null where nobody gave it one.</param>
    public Dress For(string? words)
    {
        if (Title is not { } title)
        {
            return this;
        }

        var text = title.Text.Replace(Title.OwnWords, words ?? "", StringComparison.Ordinal).Trim();
        return this with { Title = text.Length == 0 ? null : title with { Text = text } };
    }
}

/// <summary>Where the lines of a title begin or end.</summary>
public enum TextAlign
{
    /// <summary>At the left; at the right where the text runs from right to left.</summary>
    Left,

    /// <summary>In the middle.</summary>
    Centre,

    /// <summary>At the right; at the left where the text runs from right to left.</summary>
    Right,
}

/// <summary>Words that are drawn into the picture.</summary>
public sealed record Title
{
    /// <summary>Stands for the picture's own title.</summary>
    public const string OwnWords = "{title}";

    /// <summary>The most characters that a title has.</summary>
    public const int LongestText = 300;

    /// <summary>The text, with <see cref="OwnWords"/> where the picture's own title goes.</summary>
    public string Text { get; init; } = OwnWords;

    /// <summary>The name of the font's family, or of a font's file that lies beside the rules file.</summary>
    public string Font { get; init; } = "Archivo";

    /// <summary>Why its font cannot be used, as a sentence; null where it can, or is not known to be wrong.</summary>
    public string? FontFault { get; init; }

    /// <summary>True where the font is a file of its own.</summary>
    public bool HasFontFile =>
        Font.EndsWith(".ttf", StringComparison.OrdinalIgnoreCase) || Font.EndsWith(".otf", StringComparison.OrdinalIgnoreCase);

    /// <summary>100 to 900; the nearest that the family has is taken.</summary>
    public int Weight { get; init; } = 600;

    /// <summary>The height of the letters' square, in CSS px of the slot.</summary>
    public required double Size { get; init; }

    /// <summary>The colour; null takes the one that needs least fade.</summary>
    public Rgb? Ink { get; init; }

    /// <summary>Where it may stand, as fractions of the slot: across as it is aligned, down in the middle.</summary>
    public Frame Area { get; init; } = Frame.Whole;

    /// <summary>Where its lines begin or end in the area.</summary>
    public TextAlign Align { get; init; }

    /// <summary>The contrast it must reach, 1 to 21; null takes what text of its size needs.</summary>
    public double? Contrast { get; init; }

    /// <summary>True where the picture may be faded for it.</summary>
    public bool Fade { get; init; }

    /// <summary>The contrast it must reach.</summary>
    public double Wanted => Contrast ?? Dressing.Contrast.NeededAt(Size, Weight);
}

/// <summary>How far a fade reaches.</summary>
public enum FadeReach
{
    /// <summary>Over all of the slot alike.</summary>
    All,

    /// <summary>
    /// Over the area and on to the nearest side in full, from there softly to nothing: towards the side where that takes least.
    /// </summary>
    Side,
}

/// <summary>A picture mixed with one colour, by an amount or by as much as an ink needs.</summary>
public sealed record Fade
{
    /// <summary>The colour.</summary>
    public required Rgb To { get; init; }

    /// <summary>The amount, 0 to 1; null solves it.</summary>
    public double? Amount { get; init; }

    /// <summary>What will be written over it; null where an amount is given.</summary>
    public Rgb? Ink { get; init; }

    /// <summary>The contrast that the ink must reach, 1 to 21.</summary>
    public double Contrast { get; init; } = Dressing.Contrast.OfText;

    /// <summary>Where it is written, as fractions of the slot.</summary>
    public Frame Area { get; init; } = Frame.Whole;

    /// <summary>How far it reaches.</summary>
    public FadeReach Reach { get; init; }

    /// <summary>What it has to reach; null where an amount is given.</summary>
    public FadeGoal? Goal => Amount is null && Ink is { } ink ? new(To, ink, Contrast) : null;
}

/// <summary>What became of a dress on one file.</summary>
public sealed record Dressed
{
    /// <summary>The amount of the fade, 0 to 1; null without one.</summary>
    public double? Fade { get; init; }

    /// <summary>The text colour; null where there is no text.</summary>
    public Rgb? Ink { get; init; }

    /// <summary>The contrast that the worst hundredth of the pixels reaches; null where there is no ink.</summary>
    public double? Contrast { get; init; }

    /// <summary>The contrast that was wanted.</summary>
    public double? Wanted { get; init; }

    /// <summary>Where the title stands, in pixels of the file; null without one.</summary>
    public Crop? TitleBox { get; init; }

    /// <summary>The size of the title's letters in CSS px, where the one asked for does not fit: the largest that does.</summary>
    public double? Fits { get; init; }

    /// <summary>The size that was asked for, in CSS px.</summary>
    public double? AskedSize { get; init; }

    /// <summary>Characters of the title that the font does not have.</summary>
    public string? Lacking { get; init; }

    /// <summary>Why the font that was asked for is not taken, as a sentence.</summary>
    public string? MissingFont { get; init; }

    /// <summary>Where the mark lies; null without one.</summary>
    public Crop? MarkBox { get; init; }

    /// <summary>The corner in which the mark lies.</summary>
    public Corner? MarkAt { get; init; }

    /// <summary>The share of what must stay whole that the mark covers, where no corner is free of it and somebody said that it must.</summary>
    public double? MarkCovers { get; init; }

    /// <summary>Why the mark is missing, as a sentence.</summary>
    public string? MarkFault { get; init; }

    /// <summary>Where it is reached last, in pixels of the file; null where nothing had to be faded.</summary>
    public Crop? Last { get; init; }

    /// <summary>True where what was wanted is reached.</summary>
    public bool Reached => Contrast is not { } contrast || Wanted is not { } wanted || contrast >= wanted;
}

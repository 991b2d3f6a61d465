using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Likeness;

/// <summary>What people read instead of the number.</summary>
public enum LikenessWord
{
    /// <summary>Nothing to be seen at 100 %.</summary>
    NoDifference,

    /// <summary>Only to be found by switching between both.</summary>
    HardToSee,

    /// <summary>To be seen when both lie side by side.</summary>
    Slight,

    /// <summary>To be seen without a comparison.</summary>
    Visible,

    /// <summary>Blocks, smears or bands that anybody notices.</summary>
    Rough,
}

/// <summary>How much a file looks like the same pixels uncompressed.</summary>
/// <param name="Score">0 to 1; 1 means equal.</param>
/// <param name="WorstScore">The score of the worst tile.</param>
/// <param name="WorstTile">Where it lies, in pixels of the file.</param>
public readonly record struct Likeness(double Score, double WorstScore, Crop WorstTile)
{
    /// <summary>The lower borders of the words, best first; calibrated against another metric in docs/likeness.md.</summary>
    public static readonly IReadOnlyList<(LikenessWord Word, double Least)> Borders =
    [
        (LikenessWord.NoDifference, 0.998),
        (LikenessWord.HardToSee, 0.995),
        (LikenessWord.Slight, 0.985),
        (LikenessWord.Visible, 0.96),
        (LikenessWord.Rough, 0),
    ];

    /// <summary>The word for the score.</summary>
    public LikenessWord Word => WordFor(Score);

    /// <summary>The word for a score.</summary>
    public static LikenessWord WordFor(double score) =>
        Borders.First(border => score >= border.Least || border.Word == LikenessWord.Rough).Word;

    /// <summary>The word as people read it.</summary>
    public static string Words(LikenessWord word) =>
        word switch
        {
            LikenessWord.NoDifference => ReasonTexts.NoDifferenceAt,
            LikenessWord.HardToSee => ReasonTexts.HardToSee,
            LikenessWord.Slight => ReasonTexts.SlightDifference,
            LikenessWord.Visible => ReasonTexts.VisibleDifference,
            _ => "rough",
        };
}

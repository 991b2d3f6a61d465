using Pantomet.Core;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Responsive;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;

namespace Pantomet.Application.Destinations;

/// <summary>A destination as the client sees it.</summary>
/// <param name="Key">Short name in addresses.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Slots">Its places.</param>
public sealed record DestinationView(string Key, string Name, IReadOnlyList<SlotView> Slots)
{
    /// <summary>The view of a destination.</summary>
    public static DestinationView Of(Destination destination, IReadOnlySet<string> retired)
    {
        ArgumentNullException.ThrowIfNull(destination);
        return new(
            destination.Key,
            destination.Name,
            [.. destination.Slots.Select(slot => SlotView.Of(slot, retired.Contains($"{destination.Key}/{slot.Key}")))]
        );
    }
}

/// <summary>The viewports from one to another, both included.</summary>
/// <param name="From">The narrowest, in CSS pixels.</param>
/// <param name="To">The widest.</param>
public sealed record ViewportSpan(int From, int To);

/// <summary>The rule of responsive widths as the client sees it.</summary>
/// <param name="Sizes">How wide the picture is shown, as the page says it.</param>
/// <param name="From">The narrowest viewport that is served, in CSS pixels.</param>
/// <param name="To">The widest viewport that is served.</param>
/// <param name="Waste">The share of pixels that may be wasted; null where a number of files is agreed.</param>
/// <param name="Files">The number of files that is agreed; null where a waste is.</param>
public sealed record ResponsiveRuleView(string Sizes, int From, int To, decimal? Waste, int? Files)
{
    internal static ResponsiveRuleView Of(ResponsiveRule rule) => new(rule.Sizes.Text, rule.From, rule.To, rule.Waste, rule.Files);
}

/// <summary>A slot as the client sees it.</summary>
/// <param name="Key">Short name in addresses.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Size">The size rule in words: "2500 px wide, 5:4".</param>
/// <param name="Fit">How the picture takes its place.</param>
/// <param name="Ratio">Width divided by height that a frame must have; null where it is free.</param>
/// <param name="RatioText">The same as written.</param>
/// <param name="Shape">Width divided by height of the slot itself, if it has a shape: for drawing it.</param>
/// <param name="Densities">The densities asked for; on a ladder those of the screens it serves.</param>
/// <param name="Descriptors">What its files are told apart by: densities, or the widths of its ladder for a picture with pixels enough.</param>
/// <param name="Responsive">The rule of its ladder; null where it has none.</param>
/// <param name="Group">The slots that become one picture on the page with it.</param>
/// <param name="Media">When it is the one of its group that is shown; null for the last.</param>
/// <param name="ShownAt">The viewports at which a slot of a group is shown; empty for a slot of its own.</param>
/// <param name="Extend">True where the canvas is extended to hold keep boxes that no frame holds.</param>
/// <param name="Pair">How many pictures stand side by side there; null where a single one does.</param>
/// <param name="Dress">What is drawn over every picture, as the value of <c>dress</c> in a rules file; null for nothing.</param>
/// <param name="SetWidth">How wide it is shown in CSS px, whatever picture it gets; null where that depends on the picture.</param>
/// <param name="Toward">Where the frame goes when nothing else says it: across and down, 0 to 1.</param>
/// <param name="Inline">Files up to this weight are given as data in the markup.</param>
/// <param name="Types">File types in order of preference.</param>
/// <param name="MaxBytes">The weight limit.</param>
/// <param name="Width">Pixels across at density 1 for a picture of 3:2: for drawing it to scale.</param>
/// <param name="Height">Pixels down at density 1 for a picture of 3:2.</param>
/// <param name="ShapeKey">Slots with the same key have one shape: their frames move together.</param>
/// <param name="Clear">The clear area, what is shown in other shapes too: left, top, right, bottom as fractions of the slot.</param>
/// <param name="SubjectShare">The share of the clear area's tighter side that the subject takes; null takes the widest frame.</param>
/// <param name="LikenessAim">The likeness that is wanted.</param>
/// <param name="BandLeast">The least weight that is wanted.</param>
/// <param name="BandMost">The most weight that is wanted.</param>
/// <param name="Retired">True when it is no longer offered.</param>
/// <param name="QualityFloor">The lowest quality that is found automatically.</param>
/// <param name="QualityCeiling">The highest quality that is found automatically.</param>
public sealed record SlotView(
    string Key,
    string Name,
    string Size,
    Fit Fit,
    double? Ratio,
    string? RatioText,
    double? Shape,
    IReadOnlyList<decimal> Densities,
    IReadOnlyList<string> Descriptors,
    ResponsiveRuleView? Responsive,
    string? Group,
    string? Media,
    IReadOnlyList<ViewportSpan> ShownAt,
    bool Extend,
    int? Pair,
    string? Dress,
    int? SetWidth,
    FocusPoint? Toward,
    long? Inline,
    IReadOnlyList<string> Types,
    long? MaxBytes,
    int Width,
    int Height,
    string ShapeKey,
    IReadOnlyList<double> Clear,
    double? SubjectShare,
    double? LikenessAim,
    long? BandLeast,
    long? BandMost,
    bool Retired,
    int QualityFloor,
    int QualityCeiling
)
{
    private static readonly PixelSize Usual = new(6000, 4000);

    /// <summary>The view of a slot.</summary>
    public static SlotView Of(Slot slot, bool retired = false)
    {
        ArgumentNullException.ThrowIfNull(slot);
        var quality =
            slot.Aims.Quality
            ?? new Core.Weight.QualityRange(Core.Weight.QualityRange.Unusable, Core.Weight.QualityRange.Comfortable.Ceiling);
        var drawn = VariantPlanner.Plan(Usual, slot, slot.AtDensityOne).Asked;
        return new(
            slot.Key,
            slot.Name,
            slot.Responsive is null ? SizeInWords(slot.Size)
                : slot.FrameShape is { } ladder ? RuleTexts.AnyWidth(Simple(ladder))
                : RuleTexts.AnyWidth2,
            slot.Fit,
            slot.FrameShape?.Value,
            slot.FrameShape is { } shape ? Simple(shape) : null,
            slot.Size.Shape?.Value ?? (slot.Size is SizeRule.Within within ? Core.Geometry.Ratio.Of(within.Box).Value : null),
            [.. (slot.Responsive?.Densities ?? slot.Densities).Select(density => density.Value)],
            [.. slot.Descriptors.Select(descriptor => descriptor.ToString())],
            slot.Responsive is { } responsive ? ResponsiveRuleView.Of(responsive) : null,
            slot.Group,
            slot.Media?.Text,
            slot.Group is null ? [] : [.. slot.ShownAt.Parts.Select(part => new ViewportSpan(part.From, part.To))],
            slot.Extend,
            slot.Pair?.Count,
            slot.Dress == Core.Dressing.Dress.None ? null : RulesWriter.Write(slot.Dress),
            slot.SetWidth,
            slot.Toward,
            slot.Inline?.Bytes,
            [.. slot.Types.Select(type => type.ToString())],
            slot.Limits.MaxBytes?.Bytes,
            drawn.Width,
            drawn.Height,
            Core.Jobs.Shapes.KeyOf(slot),
            [slot.Uncovered.Left, slot.Uncovered.Top, slot.Uncovered.Right, slot.Uncovered.Bottom],
            slot.SubjectShare,
            slot.Aims.Likeness,
            slot.Aims.Band?.Least.Bytes,
            slot.Aims.Band?.Most.Bytes,
            retired,
            quality.Floor,
            quality.Ceiling
        );
    }

    // 1500:750 reads better as 2:1, but 851:315 stays what it is.
    private static string Simple(Ratio ratio)
    {
        if (decimal.Truncate(ratio.Across) != ratio.Across || decimal.Truncate(ratio.Down) != ratio.Down)
        {
            return ratio.Text;
        }

        var (a, b) = ((long)ratio.Across, (long)ratio.Down);
        while (b != 0)
        {
            (a, b) = (b, a % b);
        }

        return ratio.Across / a <= 20 ? $"{ratio.Across / a:0}:{ratio.Down / a:0}" : ratio.Text;
    }

    private static string SizeInWords(SizeRule rule) =>
        rule switch
        {
            SizeRule.Exact exact => Figures.Size(exact.Size),
            SizeRule.ShapeWithSide side => $"{SideInWords(side.Side, side.Pixels)}, {side.Ratio}",
            SizeRule.ShapeAlone alone => RuleTexts.AllPixels(alone.Ratio),
            SizeRule.SideAlone side => SideInWords(side.Side, side.Pixels),
            SizeRule.Within within => $"within {Figures.Size(within.Box)}",
            SizeRule.Share share => RuleTexts.OfTheFrame(Figures.Number((double)share.Part * 100, 1)),
            SizeRule.MaxPixels most => RuleTexts.AtMostPixels(Figures.Count(most.Most)),
            _ => "",
        };

    private static string SideInWords(Side side, int pixels) =>
        side switch
        {
            Side.Width => RuleTexts.PxWide(Figures.Count(pixels)),
            Side.Height => RuleTexts.PxHigh(Figures.Count(pixels)),
            Side.LongSide => RuleTexts.PxOnTheLongestSide(Figures.Count(pixels)),
            _ => RuleTexts.PxOnTheShortestSide(Figures.Count(pixels)),
        };
}

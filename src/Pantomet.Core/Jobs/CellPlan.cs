using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Jobs;

/// <summary>One file that is wanted: a plan, and type and quality where they are not found automatically.</summary>
/// <param name="Plan">Part of the picture and pixel size.</param>
/// <param name="Format">The type; null leaves it to the slot.</param>
/// <param name="Quality">The quality; null finds it.</param>
public sealed record Wish(VariantPlan Plan, PictureFormat? Format, int? Quality)
{
    /// <summary>The files that one plan comes to: one, or one of each type where the slot takes all of its types.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="choice">Type and quality chosen by hand.</param>
    public static IReadOnlyList<Wish> AllOf(VariantPlan plan, Slot slot, Choice? choice = null)
    {
        ArgumentNullException.ThrowIfNull(slot);
        var format = choice?.Format is { } word ? Enum.Parse<PictureFormat>(word, ignoreCase: true) : (PictureFormat?)null;
        return slot.Each && format is null && !slot.ByContent
            ? [.. slot.Formats.Select(type => new Wish(plan, type, choice?.Quality))]
            : [new(plan, format, choice?.Quality)];
    }
}

/// <summary>How one picture stands in one slot: its frame and the files that are wanted.</summary>
/// <param name="Frame">The frame, of the turned picture.</param>
/// <param name="Solved">Where it came from and what it gave up.</param>
/// <param name="Wishes">The files, by density or width; empty when the cell is skipped.</param>
/// <param name="Asked">The size that the slot asks for at density 1, in CSS pixels.</param>
/// <param name="Skipped">True when the picture does not go there.</param>
public sealed record CellPlan(Frame Frame, SolvedFrame Solved, IReadOnlyList<Wish> Wishes, PixelSize Asked, bool Skipped)
{
    /// <summary>Plans a cell.</summary>
    /// <param name="facts">The picture's facts, not turned.</param>
    /// <param name="decisions">What was decided about it.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="place">The slot in the job.</param>
    public static CellPlan Of(PictureFacts facts, Decisions decisions, Slot slot, JobSlot place)
    {
        ArgumentNullException.ThrowIfNull(facts);
        ArgumentNullException.ThrowIfNull(decisions);
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(place);
        var cell = decisions.For(place.Address);
        var size = decisions.Turn.SizeOf(facts.Size);
        var hand =
            cell.Loose ? cell.Frame
            : decisions.Framings.TryGetValue(Shapes.KeyOf(slot), out var shared) ? shared
            : (Frame?)null;
        var subject = SubjectOf(facts, decisions);
        var solved = VariantPlanner.Framed(size, slot, hand, subject);
        var choice = cell.Choice ?? place.Choice;
        var wishes = cell.Skip ? [] : VariantPlanner.PlanAll(size, slot, hand, subject).SelectMany(plan => Wish.AllOf(plan, slot, choice));
        return new(
            FrameOf(solved.Region, size),
            solved,
            [.. wishes],
            VariantPlanner.Plan(size, slot, slot.AtDensityOne, hand, subject).Asked,
            cell.Skip
        );
    }

    /// <summary>What the frames of a picture are there to show.</summary>
    public static Subject SubjectOf(PictureFacts facts, Decisions decisions)
    {
        ArgumentNullException.ThrowIfNull(facts);
        ArgumentNullException.ThrowIfNull(decisions);
        return Subject.Of(decisions.Keep, decisions.Focus, decisions.NoSuggestion ? null : SuggestionOf(facts, decisions.Turn));
    }

    /// <summary>The picture's suggestion as it lies after the turn.</summary>
    public static Suggestion? SuggestionOf(PictureFacts facts, Turn turn)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return facts.Suggestion is { } suggestion && turn.Of(suggestion.Box, facts.Size) is { } box
            ? suggestion with
            {
                Box = box,
                Strongest = suggestion.Strongest is { } strongest ? turn.Of(strongest, facts.Size) : null,
            }
            : null;
    }

    private static Frame FrameOf(Region region, PixelSize size) =>
        Frame.TryCreate(
            Math.Clamp(region.X / size.Width, 0, 1),
            Math.Clamp(region.Y / size.Height, 0, 1),
            Math.Clamp(region.Right / size.Width, 0, 1),
            Math.Clamp(region.Bottom / size.Height, 0, 1),
            out var frame,
            out _
        )
            ? frame
            : Frame.Whole;
}

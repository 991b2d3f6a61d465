using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Jobs;

/// <summary>One file that is wanted: a plan, and type and quality where they are not found automatically.</summary>
/// <param name="Plan">Part of the picture and pixel size.</param>
/// <param name="Format">The type; null leaves it to the slot.</param>
/// <param name="Quality">The quality; null finds it.</param>
public sealed record FileRequest(VariantPlan Plan, PictureFormat? Format, int? Quality)
{
    /// <summary>The files that one plan comes to: one, or one of each type where the slot takes all of its types.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="choice">Type and quality chosen by hand.</param>
    public static IReadOnlyList<FileRequest> AllOf(VariantPlan plan, Slot slot, Choice? choice = null)
    {
        ArgumentNullException.ThrowIfNull(slot);
        var format = choice?.Format is { } word ? Enum.Parse<PictureFormat>(word, ignoreCase: true) : (PictureFormat?)null;
        return slot.Each && format is null && !slot.ByContent
            ? [.. slot.Formats.Select(type => new FileRequest(plan, type, choice?.Quality))]
            : [new(plan, format, choice?.Quality)];
    }
}

/// <summary>How one picture stands in one slot: its frame and the files that are wanted.</summary>
/// <param name="Frame">The frame, of the turned picture.</param>
/// <param name="Solved">Where it came from and what it gave up.</param>
/// <param name="Requests">The files, by density or width; empty when the cell is skipped.</param>
/// <param name="Asked">The size that the slot asks for at density 1, in CSS pixels.</param>
/// <param name="Skipped">True when the picture does not go there: it was left out, or the place takes another number of them.</param>
public sealed record CellPlan(Frame Frame, SolvedFrame Solved, IReadOnlyList<FileRequest> Requests, PixelSize Asked, bool Skipped)
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
            cell.Unlinked ? cell.Frame
            : decisions.Framings.TryGetValue(Shapes.KeyOf(slot), out var shared) ? shared
            : (Frame?)null;
        var subject = SubjectOf(facts, decisions);
        var solved = VariantPlanner.Framed(size, slot, hand, subject);
        var choice = cell.Choice ?? place.Choice;
        var requests = cell.Skip
            ? []
            : VariantPlanner.PlanAll(size, slot, hand, subject).SelectMany(plan => FileRequest.AllOf(plan, slot, choice));
        return new(
            solved.Region.On(size),
            solved,
            [.. requests],
            VariantPlanner.Plan(size, slot, slot.AtDensityOne, hand, subject).Asked,
            cell.Skip || slot.Pair is not null
        );
    }

    /// <summary>Plans a cell of pictures side by side. They go only where a slot takes as many.</summary>
    /// <param name="parts">The facts of each, not turned, and what was decided about it, from left to right.</param>
    /// <param name="decisions">What was decided about the pair.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="place">The slot in the job.</param>
    /// <remarks>Each part is framed by its own marks; by its own frame where it was unlinked in this slot.</remarks>
    public static CellPlan OfPair(
        IReadOnlyList<(PictureFacts Facts, Decisions Decisions)> parts,
        Decisions decisions,
        Slot slot,
        JobSlot place
    )
    {
        ArgumentNullException.ThrowIfNull(parts);
        ArgumentNullException.ThrowIfNull(decisions);
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(place);
        if (slot.Pair is not { } rule || rule.Count != parts.Count)
        {
            return WithoutFile(
                Besides(parts),
                decisions,
                slot,
                place,
                Verdict.Skipped,
                new(ReasonCodes.Pair, GoesElsewhere(slot, parts.Count))
            );
        }

        var cell = decisions.For(place.Address);
        var choice = cell.Choice ?? place.Choice;
        var plans = PairPlanner.PlanAll(
            [
                .. parts.Select(part => new PairPart(
                    part.Decisions.Turn.SizeOf(part.Facts.Size),
                    SubjectOf(part.Facts, part.Decisions),
                    part.Decisions.For(place.Address) is { Unlinked: true, Frame: { } frame } ? frame : null
                )),
            ],
            slot
        );
        var size = Besides(parts);
        var solved = FrameSolver.Solve(size, Ratio.Of(plans[0].Asked), null, default);
        return new(
            solved.Region.On(size),
            solved,
            cell.Skip ? [] : [.. plans.SelectMany(plan => FileRequest.AllOf(plan, slot, choice))],
            plans[0].Asked,
            cell.Skip
        );
    }

    /// <summary>The cell of a pair that lacks a part: nothing is made of it.</summary>
    /// <param name="size">The pair's size.</param>
    /// <param name="decisions">What was decided about the pair.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="place">The slot in the job.</param>
    /// <param name="lacks">What it lacks, as a sentence.</param>
    public static CellPlan OfBrokenPair(PixelSize size, Decisions decisions, Slot slot, JobSlot place, string lacks)
    {
        ArgumentNullException.ThrowIfNull(decisions);
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(place);
        return slot.Pair is null
            ? WithoutFile(size, decisions, slot, place, Verdict.Skipped, new(ReasonCodes.Pair, GoesElsewhere(slot, 2)))
            : WithoutFile(size, decisions, slot, place, Verdict.Breaks, new(ReasonCodes.PairPart, lacks));
    }

    private static PixelSize Besides(IReadOnlyList<(PictureFacts Facts, Decisions Decisions)> parts) =>
        PairPlanner.Beside([.. parts.Select(part => part.Decisions.Turn.SizeOf(part.Facts.Size))]);

    private static string GoesElsewhere(Slot slot, int count) =>
        slot.Pair is { } rule ? JobTexts.ThisSlotCombinesPicturesTheseAre(rule.Count, count) : JobTexts.ThisSlotTakesASinglePicture;

    private static CellPlan WithoutFile(PixelSize size, Decisions decisions, Slot slot, JobSlot place, Verdict verdict, Reason why)
    {
        var solved = VariantPlanner.Framed(size, slot);
        var plan = VariantPlanner.Plan(size, slot, slot.AtDensityOne) with { Verdict = verdict, Reasons = [why], Kept = [] };
        var left = decisions.For(place.Address).Skip;
        return new(solved.Region.On(size), solved, left ? [] : [new(plan, null, null)], plan.Asked, left || verdict == Verdict.Skipped);
    }

    /// <summary>What the frames of a picture are there to show.</summary>
    public static Subject SubjectOf(PictureFacts facts, Decisions decisions)
    {
        ArgumentNullException.ThrowIfNull(facts);
        ArgumentNullException.ThrowIfNull(decisions);
        return Subject.Of(decisions.Keep, decisions.Focus, decisions.SuggestionRejected ? null : SuggestionOf(facts, decisions.Turn));
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
                Faces = suggestion.Faces?.Select(face => turn.Of(face, facts.Size)).OfType<Frame>().ToList(),
            }
            : null;
    }
}

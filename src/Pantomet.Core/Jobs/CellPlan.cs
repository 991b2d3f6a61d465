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
public sealed record Wish(VariantPlan Plan, PictureFormat? Format, int? Quality);

/// <summary>How one picture stands in one slot: its frame and the files that are wanted.</summary>
/// <param name="Frame">The frame, of the turned picture.</param>
/// <param name="Solved">Where it came from and what it gave up.</param>
/// <param name="Wishes">The files, by density; empty when the cell is skipped.</param>
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
        var wishes = cell.Skip
            ? []
            : slot.Densities.SelectMany(density => WishesOf(VariantPlanner.Plan(size, slot, density, hand, subject), slot, choice));
        return new(
            FrameOf(solved.Region, size),
            solved,
            [.. wishes],
            VariantPlanner.Plan(size, slot, Density.One, hand, subject).Asked,
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
        return facts.Suggestion is { } suggestion && turn.Of(suggestion.Box, facts.Size) is { } box ? new(box, suggestion.Kind) : null;
    }

    private static IEnumerable<Wish> WishesOf(VariantPlan plan, Slot slot, Choice? choice)
    {
        var format = choice?.Format is { } word ? Enum.Parse<PictureFormat>(word, ignoreCase: true) : (PictureFormat?)null;
        return slot.Each && format is null
            ? slot.Types.Select(type => new Wish(plan, type.Format, choice?.Quality))
            : [new(plan, format, choice?.Quality)];
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

/// <summary>What a file and its framing come to together.</summary>
public static class Judgement
{
    private static readonly HashSet<string> Quiet =
    [
        ReasonCodes.Flattened,
        ReasonCodes.FirstFrame,
        ReasonCodes.OriginalQuality,
        ReasonCodes.Profile,
    ];

    /// <summary>The graver of two verdicts: breaks, then skipped, then concedes.</summary>
    public static Verdict Graver(Verdict one, Verdict other) => Rank(one) >= Rank(other) ? one : other;

    // A frame that shows nearly all of the picture shows the subject whatever it is; by judgement.
    private const double ShowsEnough = 0.6;

    /// <summary>
    /// The reasons that want a look: all but the remarks, and a suggestion only where it was found in a busy scene and decides what is cut
    /// away.
    /// </summary>
    /// <param name="reasons">All reasons.</param>
    /// <param name="suggested">How the suggestion that frames it was found.</param>
    /// <param name="frame">The frame.</param>
    /// <param name="accepted">What was found good before.</param>
    public static IReadOnlyList<string> WantsALook(
        IEnumerable<Reason> reasons,
        SuggestionKind? suggested,
        Frame frame,
        IReadOnlyList<string> accepted
    ) =>
        [
            .. reasons
                .Select(reason => reason.Code)
                .Distinct()
                .Where(code =>
                    !Quiet.Contains(code)
                    && !accepted.Contains(code)
                    && (code != ReasonCodes.Suggested || (suggested == SuggestionKind.EyeCatching && Shown(frame) < ShowsEnough))
                ),
        ];

    private static double Shown(Frame frame) => (frame.Right - frame.Left) * (frame.Bottom - frame.Top);

    private static int Rank(Verdict verdict) =>
        verdict switch
        {
            Verdict.Breaks => 3,
            Verdict.Skipped => 2,
            Verdict.Concedes => 1,
            _ => 0,
        };
}

using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;

namespace Pantomet.Core.Verdicts;

/// <summary>What a file and its framing come to together.</summary>
public static class Judgement
{
    private static readonly HashSet<string> Quiet =
    [
        ReasonCodes.Flattened,
        ReasonCodes.FirstFrame,
        ReasonCodes.OriginalQuality,
        ReasonCodes.FullColour,
        ReasonCodes.Profile,
    ];

    /// <summary>The graver of two verdicts: breaks, then skipped, then concedes.</summary>
    public static Verdict Graver(Verdict one, Verdict other) => Rank(one) >= Rank(other) ? one : other;

    /// <summary>
    /// What a plan and the file that was made for it come to together: the graver verdict, and the reasons of both in order.
    /// </summary>
    /// <param name="plan">The plan.</param>
    /// <param name="file">The verdict on the file alone.</param>
    /// <param name="reasons">The reasons for it.</param>
    public static (Verdict Verdict, IReadOnlyList<Reason> Reasons) Of(VariantPlan plan, Verdict file, IReadOnlyList<Reason> reasons)
    {
        ArgumentNullException.ThrowIfNull(plan);
        ArgumentNullException.ThrowIfNull(reasons);
        var all =
            reasons.Count == 0 ? plan.Reasons
            : plan.Reasons.Count == 0 ? reasons
            : [.. plan.Reasons, .. reasons];
        return (Graver(plan.Verdict, file), ReasonCodes.InOrder(all));
    }

    /// <summary>
    /// The reasons that are to review: all but the remarks, and a suggestion only where it is in doubt or much of it is cut away.
    /// </summary>
    /// <param name="reasons">All reasons.</param>
    /// <param name="suggested">The suggestion that frames it; null where none does.</param>
    /// <param name="frame">The frame.</param>
    /// <param name="accepted">What was found good before.</param>
    public static IReadOnlyList<string> ToReview(
        IEnumerable<Reason> reasons,
        Suggestion? suggested,
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
                    && (code != ReasonCodes.Suggested || suggested?.NeedsNoReview(frame) == false)
                ),
        ];

    private static int Rank(Verdict verdict) =>
        verdict switch
        {
            Verdict.Breaks => 3,
            Verdict.Skipped => 2,
            Verdict.Concedes => 1,
            _ => 0,
        };
}

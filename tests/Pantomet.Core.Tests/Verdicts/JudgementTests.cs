using Pantomet.Core.Geometry;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Tests.Verdicts;

/// <summary>What a plan and a file come to together, and what a person should see of it.</summary>
public sealed class JudgementTests
{
    private static readonly Verdict[] Order = [Verdict.Meets, Verdict.Concedes, Verdict.Skipped, Verdict.Breaks];

    [Fact]
    public void The_graver_verdict_counts_whichever_comes_first()
    {
        for (var one = 0; one < Order.Length; one++)
        {
            for (var other = 0; other < Order.Length; other++)
            {
                Assert.Equal(Order[Math.Max(one, other)], Judgement.Graver(Order[one], Order[other]));
            }
        }
    }

    [Fact]
    public void What_was_given_up_is_read_before_what_is_only_worth_knowing()
    {
        Reason[] reasons =
        [
            new(ReasonCodes.Suggested, "a"),
            new(ReasonCodes.TooSmall, "b"),
            new(ReasonCodes.Flattened, "c"),
            new(ReasonCodes.LowQuality, "d"),
        ];
        Assert.Equal(["b", "d", "a", "c"], ReasonCodes.InOrder(reasons).Select(reason => reason.Message));
        // Nothing is lost or doubled, in whatever order they come.
        var random = new Random(3);
        for (var i = 0; i < 50; i++)
        {
            random.Shuffle(reasons);
            Assert.Equal(reasons.ToHashSet(), ReasonCodes.InOrder(reasons).ToHashSet());
            Assert.Equal(reasons.Length, ReasonCodes.InOrder(reasons).Count);
        }
    }

    [Fact]
    public void Remarks_and_accepted_reasons_are_not_to_review()
    {
        Reason[] reasons =
        [
            new(ReasonCodes.TooSmall, ""),
            new(ReasonCodes.Flattened, ""),
            new(ReasonCodes.Profile, ""),
            new(ReasonCodes.KeepCut, ""),
            new(ReasonCodes.TooSmall, "of another file"),
        ];
        Assert.Equal([ReasonCodes.TooSmall, ReasonCodes.KeepCut], Judgement.ToReview(reasons, null, Frame.Whole, []));
        Assert.Equal([ReasonCodes.KeepCut], Judgement.ToReview(reasons, null, Frame.Whole, [ReasonCodes.TooSmall]));
        Assert.Empty(Judgement.ToReview([], null, Frame.Whole, []));
    }

    [Fact]
    public void A_suggestion_that_frames_nothing_is_not_to_review() =>
        Assert.Empty(Judgement.ToReview([new(ReasonCodes.Suggested, "")], null, Frame.Whole, []));

    [Fact]
    public void Every_code_is_written_in_small_letters_and_hyphens_and_stands_once()
    {
        Assert.True(ReasonCodes.All.Count > 30);
        Assert.All(ReasonCodes.All, code => Assert.Matches("^[a-z]+(-[a-z]+)*$", code));
        Assert.Contains(ReasonCodes.TooSmall, ReasonCodes.All.Where(ReasonCodes.IsOfPlan));
        Assert.DoesNotContain(ReasonCodes.OverWeight, ReasonCodes.All.Where(ReasonCodes.IsOfPlan));
    }
}

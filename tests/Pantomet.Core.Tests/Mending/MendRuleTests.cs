using Pantomet.Core.Facts;
using Pantomet.Core.Mending;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Tests.Mending;

/// <summary>What a picture of a library is lightened to, and when it is left alone.</summary>
public sealed class MendRuleTests
{
    private static readonly PictureFacts Facts = new()
    {
        Size = new(3000, 2000),
        Format = PictureFormat.Jpeg,
        Bytes = 1_000_000,
        Frames = 1,
    };

    [Fact]
    public void It_keeps_its_type_and_shape_and_is_never_enlarged()
    {
        var slot = new MendRule { MaxSide = 1500 }.SlotFor(Facts);
        Assert.Equal(new(1500, 1000), VariantPlanner.PlanAll(Facts.Size, slot)[0].Size);
        Assert.Equal([PictureFormat.Jpeg], slot.Formats);
        foreach (var rule in (MendRule[])[new(), new() { MaxSide = 9000 }])
        {
            slot = rule.SlotFor(Facts);
            var plan = VariantPlanner.PlanAll(Facts.Size, slot)[0];
            Assert.Equal((Facts.Size, Verdict.Meets), (plan.Size, plan.Verdict));
            // Pixels that stay are not sharpened once more.
            Assert.Equal(Sharpening.Off, slot.Sharpen);
        }
    }

    [Theory]
    [InlineData(900_000L, 0.999, null)]
    [InlineData(900_001L, 0.999, ReasonCodes.LightEnough)]
    [InlineData(100_000L, 0.9949, ReasonCodes.Likeness)]
    [InlineData(100_000L, 0.995, null)]
    [InlineData(null, null, ReasonCodes.Unreadable)]
    public void A_file_takes_its_place_when_it_is_lighter_by_the_share_and_alike_enough(long? bytes, double? likeness, string? code) =>
        Assert.Equal(code, new MendRule().NotTaken(1_000_000, bytes, likeness)?.Code);

    [Theory]
    [InlineData(500_000L, 0.96, null)]
    [InlineData(500_000L, 0.949, ReasonCodes.Likeness)]
    // Within the limit at last, though it saves little; the last resort saves enough, though it is still beyond.
    [InlineData(990_000L, 0.99, null, 995_000L)]
    [InlineData(600_000L, 0.95, null)]
    [InlineData(950_000L, 0.95, ReasonCodes.LightEnough)]
    public void Where_only_a_limit_is_asked_for_it_rules(long bytes, double likeness, string? code, long limit = 500_000) =>
        Assert.Equal(
            code,
            new MendRule { MaxBytes = new(limit) }
                .NotTaken(1_000_000, bytes, likeness)
                ?.Code
        );

    [Fact]
    public void What_is_within_the_limit_already_and_whoever_asks_for_a_likeness_get_that()
    {
        Assert.Equal(
            ReasonCodes.Likeness,
            new MendRule { MaxBytes = new(500_000) }
                .NotTaken(400_000, 100_000, 0.994)
                ?.Code
        );
        var asked = new MendRule { MaxBytes = new(500_000), Likeness = 0.98 };
        Assert.Equal(ReasonCodes.Likeness, asked.NotTaken(1_000_000, 400_000, 0.979)?.Code);
        Assert.Null(asked.LastResortFor(Facts, 400_000, 0.9));
        Assert.Null(asked.OverLimit(600_000));
    }

    [Fact]
    public void Below_the_least_likeness_the_limit_gives_way_and_says_so()
    {
        var rule = new MendRule { MaxBytes = new(500_000) };
        Assert.Null(rule.LastResortFor(Facts, 490_000, 0.95));
        foreach (
            var last in (Slot?[])
                [rule.LastResortFor(Facts, 490_000, 0.94), rule.LastResortFor(Facts, 510_000, 0.97), rule.LastResortFor(Facts, null, null)]
        )
        {
            Assert.Equal(MendRule.LeastLikeness, last!.Aims.Likeness);
            Assert.Null(last.Limits.MaxBytes);
        }

        Assert.Equal(ReasonCodes.OverWeight, rule.OverLimit(510_000)!.Code);
        Assert.Null(rule.OverLimit(500_000));
    }

    [Fact]
    public void What_moves_or_is_of_another_type_is_left_alone()
    {
        Assert.Null(MendRule.Beforehand(Facts));
        Assert.Equal(ReasonCodes.FirstFrame, MendRule.Beforehand(Facts with { Frames = 2 })!.Code);
        Assert.Equal(ReasonCodes.OtherType, MendRule.Beforehand(Facts with { Format = PictureFormat.Svg })!.Code);
    }
}

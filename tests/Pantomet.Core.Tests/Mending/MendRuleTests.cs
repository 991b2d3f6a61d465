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

    [Fact]
    public void What_moves_or_is_of_another_type_is_left_alone()
    {
        Assert.Null(MendRule.Beforehand(Facts));
        Assert.Equal(ReasonCodes.FirstFrame, MendRule.Beforehand(Facts with { Frames = 2 })!.Code);
        Assert.Equal(ReasonCodes.OtherType, MendRule.Beforehand(Facts with { Format = PictureFormat.Svg })!.Code);
    }
}

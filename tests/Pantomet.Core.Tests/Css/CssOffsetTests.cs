using Pantomet.Core.Css;

namespace Pantomet.Core.Tests.Css;

/// <summary>Computed lengths as browsers give them (CSS Values and Units Level 4, 10).</summary>
public sealed class CssOffsetTests
{
    [Theory]
    [InlineData("40px", 0, 40)]
    [InlineData("0", 0, 0)]
    [InlineData("50%", 0.5, 0)]
    [InlineData("-12.5%", -0.125, 0)]
    [InlineData("calc(100% - 10px)", 1, -10)]
    [InlineData("calc(-10px + 25%)", 0.25, -10)]
    [InlineData("calc( 1e2px )", 0, 100)]
    [InlineData("calc(10% + 5px - 20%)", -0.1, 5)]
    public void A_sum_of_a_share_and_a_length_is_read(string text, double share, double pixels)
    {
        Assert.True(CssOffset.TryParse(text, out var offset));
        Assert.Equal((share, pixels), (Math.Round(offset.Share, 9), Math.Round(offset.Pixels, 9)));
        Assert.Equal((share * 800) + pixels, offset.Of(800), 6);
    }

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData("auto")]
    [InlineData("5em")]
    [InlineData("50% 50%")]
    [InlineData("calc(50%")]
    [InlineData("calc(50% * 2)")]
    [InlineData("/* without an end")]
    public void What_is_no_computed_length_is_not(string? text) => Assert.False(CssOffset.TryParse(text, out _));

    [Theory]
    [InlineData("10% calc(100% - (2px + 3px)) 4px", "10%", "calc(100% - (2px + 3px))")]
    [InlineData("auto", "auto", null)]
    [InlineData("  1px\t2px ", "1px", "2px")]
    [InlineData("calc(1px", "calc(1px", null)]
    [InlineData(null, null, null)]
    public void What_stands_in_brackets_is_one_word(string? text, string? first, string? second) =>
        Assert.Equal((first, second), CssOffset.Words(text));

    [Fact]
    public void Where_one_word_stands_the_other_is_in_the_middle()
    {
        var (across, down) = CssOffset.Pair("10px");
        Assert.Equal((new CssOffset(0, 10), CssOffset.Middle), (across, down));
    }
}

using Pantomet.Core.Responsive;

namespace Pantomet.Core.Tests.Responsive;

public class SizesTests
{
    [Theory]
    [InlineData("100vw", 1000, 1000)]
    [InlineData("(min-width: 60em) 655px, 100vw", 959, 959)]
    [InlineData("(min-width: 60em) 655px, 100vw", 960, 655)]
    [InlineData("(max-width: 599.98px) 100vw, 50vw", 599, 599)]
    [InlineData("(max-width: 599.98px) 100vw, 50vw", 600, 300)]
    [InlineData("(600px <= width < 900px) 300px, 10px", 899, 300)]
    [InlineData("(600px <= width < 900px) 300px, 10px", 900, 10)]
    [InlineData("(width > 600px) 300px, 10px", 600, 10)]
    [InlineData("(900px > width) 300px, 10px", 899, 300)]
    [InlineData("not (min-width: 600px) 300px, 10px", 599, 300)]
    [InlineData("((min-width: 400px) and (max-width: 500px)) 300px, 10px", 450, 300)]
    [InlineData("(max-width: 400px) or (min-width: 900px) 300px, 10px", 900, 300)]
    [InlineData("calc(50vw - 2em)", 1000, 468)]
    [InlineData("calc((100vw - 4 * 1rem) / 3)", 1000, 312)]
    [InlineData("calc(2 * (10px + 1vw))", 1000, 40)]
    [InlineData("CALC( 100vw/*all*/ - 10PX )", 1000, 990)]
    public void A_width_is_what_the_standard_makes_of_it(string text, int viewport, double width)
    {
        Assert.True(Sizes.TryParse(text, out var sizes, out _));
        Assert.Equal(width, sizes!.WidthAt(viewport), 9);
    }

    [Theory]
    [InlineData("", "a length is needed, at the end")]
    [InlineData("50%", "percentages are not allowed in sizes")]
    [InlineData("655", "a length needs its unit")]
    [InlineData("655pt", "\"pt\" is not a supported unit")]
    [InlineData("auto", "\"auto\" is not supported")]
    [InlineData("(min-width: 600px) 50vw", "the last width must have no condition")]
    [InlineData("50vw, 100vw", "a width without a condition must be the last one")]
    [InlineData("(min-width: 600px) and (max-width: 500px) 50vw, 1px", "is never true")]
    [InlineData("(min-width: 600px) 50vw, (min-width: 700px) 9px, 1px", "this width is never used")]
    [InlineData("(orientation: landscape) 50vw, 1px", "\"orientation\" cannot be calculated")]
    [InlineData("(min-width: 50vw) 50vw, 1px", "cannot use vw")]
    [InlineData("calc(100vw -32px)", "+ and - need a space on both sides")]
    [InlineData("calc(100vw - 32)", "a number and a length cannot be added")]
    [InlineData("calc(100vw * 2px)", "a length cannot be multiplied by a length")]
    [InlineData("calc(100vw / 0)", "nothing can be divided by 0")]
    [InlineData("calc(3 * 2)", "calc() gives a number here")]
    [InlineData("min(100vw, 655px)", "\"min\" is not a supported length")]
    [InlineData("calc(100vw - 1px", "\")\" is missing")]
    [InlineData("100vw /* open", "a comment has no end")]
    public void What_the_standard_does_not_know_is_said_with_its_place(string text, string says)
    {
        Assert.False(Sizes.TryParse(text, out _, out var error));
        Assert.Contains(says, error, StringComparison.Ordinal);
    }

    [Fact]
    public void Brackets_without_end_are_refused()
    {
        Assert.False(Sizes.TryParse($"calc({new string('(', 500)}1px{new string(')', 501)}", out _, out var error));
        Assert.Contains("nested brackets", error, StringComparison.Ordinal);
        Assert.False(Sizes.TryParse(new string('1', 5000), out _, out error));
        Assert.Contains("2000 characters", error, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("(min-width: 600px)", 600, true)]
    [InlineData("screen and (min-width: 600px)", 599, false)]
    [InlineData("only screen and (max-width: 20em), (min-width: 900px)", 900, true)]
    [InlineData("all", 1, true)]
    public void A_media_list_holds_where_one_of_it_does(string text, int viewport, bool holds)
    {
        Assert.True(MediaCondition.TryParse(text, out var condition, out _));
        Assert.Equal(holds, condition!.Holds.Contains(viewport));
    }

    [Theory]
    [InlineData("print", "\"print\" is not a media type")]
    [InlineData("min-width: 600px", "write a condition like (min-width: 600px)")]
    [InlineData("(min-width: 600px) and (max-width: 900px) or (width: 3px)", "use brackets")]
    [InlineData("(min-width: 600px) x", "a comma or the end is needed here")]
    [InlineData("(400px < width > 300px)", "both signs of a range must point the same way")]
    public void A_media_condition_that_cannot_be_foretold_is_refused(string text, string says)
    {
        Assert.False(MediaCondition.TryParse(text, out _, out var error));
        Assert.Contains(says, error, StringComparison.Ordinal);
    }
}

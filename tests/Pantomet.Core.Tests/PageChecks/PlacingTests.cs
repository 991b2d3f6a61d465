using CsCheck;
using Pantomet.Core.Css;
using Pantomet.Core.PageChecks;

namespace Pantomet.Core.Tests.PageChecks;

/// <summary>How pictures lie in their places, as CSS says.</summary>
public sealed class PlacingTests
{
    private static readonly CssSize Box = new(300, 100);
    private static readonly CssSize Wide = new(800, 400);

    private static readonly Gen<CssSize> Sizes = Gen.Select(
        Gen.Double[1, 4000],
        Gen.Double[1, 4000],
        (width, height) => new CssSize(width, height)
    );

    [Theory]
    [InlineData("fill", 300, 100)]
    [InlineData("cover", 300, 150)]
    [InlineData("contain", 200, 100)]
    [InlineData("none", 800, 400)]
    [InlineData("scale-down", 200, 100)]
    public void An_image_is_drawn_as_its_fit_says_and_shown_in_its_content_box(string fit, double width, double height)
    {
        var placing = Placing.OfImage(Box, Wide, fit, "50% 50%");
        Assert.Equal((Box, new CssSize(width, height)), (placing.Shown, placing.Drawn));
    }

    [Theory]
    [InlineData("50% 50%", 0.25 / 1.5, 1 - (0.25 / 1.5))]
    [InlineData("50% 0%", 0, 1 / 1.5)]
    [InlineData("0px 100%", 0.5 / 1.5, 1)]
    [InlineData("50% -10px", 10 / 150.0, 110 / 150.0)]
    [InlineData("50% calc(100% - 10px)", 60 / 150.0, 1)]
    [InlineData("50% calc(-20px + 100%)", 70 / 150.0, 1)]
    public void What_is_cut_off_follows_the_position(string position, double top, double bottom)
    {
        var part = Placing.OfImage(Box, Wide, "cover", position).Part;
        Assert.Equal((0, 1), (part.Left, part.Right));
        Assert.Equal(top, part.Top, 6);
        Assert.Equal(bottom, part.Bottom, 6);
    }

    [Theory]
    [InlineData("auto", 300, 100, 800, 400)]
    [InlineData("cover", 300, 100, 300, 150)]
    [InlineData("contain", 200, 100, 200, 100)]
    [InlineData("100px", 100, 50, 100, 50)]
    [InlineData("50%", 150, 75, 150, 75)]
    [InlineData("auto 60px", 120, 60, 120, 60)]
    [InlineData("100% 100%", 300, 100, 300, 100)]
    [InlineData("calc(100% - 100px) 40px", 200, 40, 200, 40)]
    public void A_background_is_shown_at_its_painted_area(string size, double width, double height, double drawnWidth, double drawnHeight)
    {
        var placing = Placing.OfBackground(Box, Wide, size, "0% 0%");
        Assert.Equal((new CssSize(width, height), new CssSize(drawnWidth, drawnHeight)), (placing.Shown, placing.Drawn));
    }

    [Fact]
    public void What_covers_is_never_squashed_and_shows_a_part_of_the_shape_of_its_box()
    {
        Gen.Select(Sizes, Sizes, Gen.Double[0, 100], Gen.Double[0, 100])
            .Sample(
                (box, natural, across, down) =>
                {
                    var position = FormattableString.Invariant($"{across}% {down}%");
                    foreach (
                        var placing in (Placing[])
                            [Placing.OfImage(box, natural, "cover", position), Placing.OfBackground(box, natural, "cover", position)]
                    )
                    {
                        var part = placing.Part;
                        var shape = (part.Right - part.Left) * natural.Width / ((part.Bottom - part.Top) * natural.Height);
                        Assert.Equal(1, shape / (box.Width / box.Height), 0.02);
                        Assert.Equal(placing.Drawn.Width / natural.Width, placing.Drawn.Height / natural.Height, 9);
                    }
                }
            );
    }

    [Fact]
    public void A_stretched_place_is_stretched_and_shows_the_same_part()
    {
        var placing = Placing.OfImage(Box, Wide, "cover", "50% 50%");
        var twice = placing.Stretched(new(2, 3));
        Assert.Equal((new CssSize(600, 300), new CssSize(600, 450), placing.Part), (twice.Shown, twice.Drawn, twice.Part));
    }

    [Theory]
    [InlineData("auto")]
    [InlineData("")]
    [InlineData(null)]
    [InlineData("12em")]
    [InlineData("calc(")]
    public void What_is_no_computed_length_is_none(string? text) => Assert.False(CssOffset.TryParse(text, out _));
}

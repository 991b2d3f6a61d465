using Pantomet.Core.Geometry;

namespace Pantomet.Core.Tests.Geometry;

/// <summary>Check values from common practice.</summary>
public class SizeRuleTests
{
    private static readonly PixelSize Large = new(9000, 9000);

    [Fact]
    public void A_640_by_480_picture_at_width_150_is_113_high() =>
        Assert.Equal(new(150, 113), new SizeRule.SideAlone(Side.Width, 150).Asked(new(640, 480), Density.One));

    [Fact]
    public void A_4928_by_3059_picture_at_width_2000_is_1241_high() =>
        Assert.Equal(new(2000, 1241), new SizeRule.SideAlone(Side.Width, 2000).Asked(new(4928, 3059), Density.One));

    [Fact]
    public void A_3_2_picture_at_width_2048_is_1365_high() =>
        Assert.Equal(new(2048, 1365), new SizeRule.ShapeWithSide(Shape("3:2"), Side.Width, 2048).Asked(Large, Density.One));

    [Fact]
    public void A_5_4_listing_at_longest_side_2500_is_2500_by_2000() =>
        Assert.Equal(new(2500, 2000), new SizeRule.ShapeWithSide(Shape("5:4"), Side.LongSide, 2500).Asked(Large, Density.One));

    [Fact]
    public void A_5_4_listing_at_shortest_side_2000_is_2500_by_2000() =>
        Assert.Equal(new(2500, 2000), new SizeRule.ShapeWithSide(Shape("5:4"), Side.ShortSide, 2000).Asked(Large, Density.One));

    [Fact]
    public void A_4_5_listing_at_longest_side_2500_is_2000_by_2500() =>
        Assert.Equal(new(2000, 2500), new SizeRule.ShapeWithSide(Shape("4:5"), Side.LongSide, 2500).Asked(Large, Density.One));

    [Fact]
    public void A_2_1_opening_picture_at_1500_is_750_high() =>
        Assert.Equal(new(1500, 750), new SizeRule.ShapeWithSide(Shape("2:1"), Side.Width, 1500).Asked(Large, Density.One));

    [Fact]
    public void A_column_of_800_css_pixels_at_2x_is_1600_wide() =>
        Assert.Equal(1600, new SizeRule.SideAlone(Side.Width, 800).Asked(new(4000, 3000), new(2)).Width);

    [Fact]
    public void A_column_of_655_css_pixels_at_1_5x_rounds_half_up_to_983() =>
        Assert.Equal(983, new SizeRule.SideAlone(Side.Width, 655).Asked(new(4000, 3000), new(1.5m)).Width);

    [Fact]
    public void The_longest_side_of_a_portrait_is_its_height() =>
        Assert.Equal(new(400, 600), new SizeRule.SideAlone(Side.LongSide, 600).Asked(new(2000, 3000), Density.One));

    [Fact]
    public void The_shortest_side_of_a_portrait_is_its_width() =>
        Assert.Equal(new(250, 375), new SizeRule.SideAlone(Side.ShortSide, 250).Asked(new(2000, 3000), Density.One));

    [Fact]
    public void A_share_takes_that_part_of_each_side() =>
        Assert.Equal(new(1000, 750), new SizeRule.Share(0.25m).Asked(new(4000, 3000), Density.One));

    [Fact]
    public void Within_a_box_the_tighter_side_decides() =>
        Assert.Equal(new(1024, 576), new SizeRule.Within(new(1024, 1024)).Asked(new(4352, 2448), Density.One));

    [Fact]
    public void A_picture_that_lies_within_the_box_keeps_its_size() =>
        Assert.Equal(new(640, 480), new SizeRule.Within(new(1024, 1024)).Asked(new(640, 480), Density.One));

    [Theory]
    [InlineData(4000, 3000, 1_000_000)]
    [InlineData(3000, 4000, 999_999)]
    [InlineData(5000, 37, 12_345)]
    public void At_most_n_pixels_is_never_exceeded_and_nearly_used(int width, int height, long most)
    {
        var size = new SizeRule.MaxPixels(most).Asked(new(width, height), Density.One);
        Assert.True(size.Area <= most, $"{size} has {size.Area} pixels");
        Assert.True(new PixelSize(size.Width + 2, size.Height + 2).Area > most, $"{size} leaves room");
    }

    [Fact]
    public void A_ratio_of_zero_is_refused() => Assert.False(Ratio.TryParse("0:4", out _, out _));

    [Theory]
    [InlineData("5:4", 1.25)]
    [InlineData("1.91:1", 1.91)]
    [InlineData("1.5", 1.5)]
    public void Ratios_are_read_as_written(string text, double value) => Assert.Equal(value, Shape(text).Value, 12);

    [Theory]
    [InlineData("5/4")]
    [InlineData("a:b")]
    [InlineData("-1:2")]
    [InlineData("1:2:3")]
    [InlineData("1000:1")]
    [InlineData("")]
    public void Nonsense_is_no_ratio(string text)
    {
        Assert.False(Ratio.TryParse(text, out _, out var error));
        Assert.NotEmpty(error!);
    }

    private static Ratio Shape(string text) =>
        Ratio.TryParse(text, out var ratio, out var error) ? ratio : throw new ArgumentException(error);
}

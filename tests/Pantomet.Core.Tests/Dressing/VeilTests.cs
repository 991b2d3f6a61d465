using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Dressing;

public class VeilTests
{
    [Theory]
    [InlineData(0, 0, 30, 100, true, 0, 99)]
    [InlineData(70, 10, 100, 90, true, 99, 0)]
    [InlineData(10, 0, 90, 20, false, 0, 99)]
    [InlineData(10, 85, 90, 100, false, 99, 0)]
    public void A_soft_fade_goes_to_the_side_where_it_takes_least(
        int left,
        int top,
        int right,
        int bottom,
        bool across,
        int full,
        int nothing
    )
    {
        var area = new Crop(left, top, right, bottom);
        var shape = FadeShape.Least(new(100, 100), area);
        Assert.Equal(across, shape.Across);
        Assert.Equal(1, shape.At(full));
        Assert.InRange(shape.At(nothing), 0, 0.01);
        // All of the area takes it in full, and nothing leaps.
        var (from, to) = across ? (left, right) : (top, bottom);
        Assert.All(Enumerable.Range(from, to - from), place => Assert.Equal(1, shape.At(place)));
        Assert.All(Enumerable.Range(0, 99), place => Assert.InRange(shape.At(place + 1) - shape.At(place), -0.03, 0.03));
        Assert.InRange(shape.Mean, 0.3, 0.7);
        Assert.Equal(1, FadeShape.All(new(100, 100)).Mean);
    }

    [Fact]
    public void A_veil_mixes_stored_values_and_leaves_what_is_transparent()
    {
        byte[] values = [10, 20, 30, 40, 200, 100, 0, 255];
        Veil.Lay(values, new(2, 1), 4, new(255, 0, 100), 51, FadeShape.All(new(2, 1)));
        Assert.Equal([59, 16, 44, 40, 211, 80, 20, 255], values);
        Veil.Lay(values, new(2, 1), 4, Rgb.White, 255, FadeShape.All(new(2, 1)));
        Assert.Equal([255, 255, 255, 40, 255, 255, 255, 255], values);
    }

    [Fact]
    public void An_even_edge_is_told_from_one_that_would_show_a_seam()
    {
        // Sky above, a gravelly shore below; the sides go from one to the other.
        var values = new byte[3 * 100 * 100];
        for (var i = 0; i < 100 * 100; i++)
        {
            var (y, x) = Math.DivRem(i, 100);
            var colour = y < 50 ? new Rgb(120, 160, 200) : new Rgb((byte)(80 + (x * 7 % 90)), 70, 60);
            (values[3 * i], values[(3 * i) + 1], values[(3 * i) + 2]) = (colour.Red, colour.Green, colour.Blue);
        }

        var edges = EdgeColours.Of(new PixelRows(values, 100, 100, 3));
        Assert.Equal(new Rgb(120, 160, 200), edges.Top.Colour);
        Assert.True(edges.Top.IsEven);
        Assert.False(edges.Bottom.IsEven);
        Assert.False(edges.Left.IsEven);
    }
}

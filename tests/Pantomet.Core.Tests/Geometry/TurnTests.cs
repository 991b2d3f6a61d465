using CsCheck;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.Tests.Geometry;

public class TurnTests
{
    private static readonly Gen<(PixelSize Size, Turn Turn)> Turned =
        from width in Gen.Int[20, 4000]
        from height in Gen.Int[20, 4000]
        from quarters in Gen.Int[0, 3]
        from degrees in Gen.Double[-Turn.MostDegrees, Turn.MostDegrees]
        select (new PixelSize(width, height), new Turn(quarters, degrees));

    [Theory]
    [InlineData(0, 600, 400)]
    [InlineData(1, 400, 600)]
    [InlineData(2, 600, 400)]
    [InlineData(3, 400, 600)]
    public void Quarter_turns_lose_nothing(int quarters, int width, int height) =>
        Assert.Equal(new PixelSize(width, height), new Turn(quarters, 0).SizeOf(new(600, 400)));

    [Fact]
    public void The_rectangle_that_is_left_stays_inside_the_turned_picture() =>
        Turned.Sample(one =>
        {
            var (upright, left) = (one.Turn.Upright(one.Size), one.Turn.SizeOf(one.Size));
            var (sin, cos) = (Math.Sin(one.Turn.Degrees * Math.PI / 180), Math.Cos(one.Turn.Degrees * Math.PI / 180));
            foreach (var (x, y) in new[] { (-0.5, -0.5), (0.5, -0.5), (-0.5, 0.5), (0.5, 0.5) })
            {
                // A corner of what is left, turned back, must lie in the picture; whole pixels round down.
                var (dx, dy) = (x * (left.Width - 1), y * (left.Height - 1));
                Assert.True(Math.Abs((dx * cos) + (dy * sin)) <= (upright.Width / 2.0) + 1);
                Assert.True(Math.Abs((-dx * sin) + (dy * cos)) <= (upright.Height / 2.0) + 1);
            }
        });

    [Fact]
    public void No_rectangle_inside_is_larger() =>
        Turned.Sample(
            one =>
            {
                var (upright, left) = (one.Turn.Upright(one.Size), one.Turn.SizeOf(one.Size));
                var (sin, cos) = (Math.Abs(Math.Sin(one.Turn.Degrees * Math.PI / 180)), Math.Cos(one.Turn.Degrees * Math.PI / 180));
                // By brute force: for each width the height that the two pairs of sides allow.
                var best = Enumerable
                    .Range(1, 2000)
                    .Select(i => i * (upright.Width + (double)upright.Height) / 2000)
                    .Max(width =>
                    {
                        var height = Math.Min(
                            sin == 0 ? (width <= upright.Width ? upright.Height : 0) : (upright.Width - (width * cos)) / sin,
                            (upright.Height - (width * sin)) / cos
                        );
                        return height <= 0 ? 0 : width * height;
                    });
                Assert.True(left.Area >= (best * 0.995) - left.Width - left.Height - 1);
            },
            iter: 200
        );

    [Fact]
    public void The_middle_stays_the_middle_and_a_small_box_keeps_its_size() =>
        Turned.Sample(one =>
        {
            Assert.True(Frame.TryCreate(0.45, 0.45, 0.55, 0.55, out var box, out _));
            var turned = Assert.NotNull(one.Turn.Of(box, one.Size));
            Assert.Equal(0.5, (turned.Left + turned.Right) / 2, 6);
            Assert.Equal(0.5, (turned.Top + turned.Bottom) / 2, 6);
        });

    [Fact]
    public void A_box_goes_round_with_the_picture()
    {
        Assert.True(Frame.TryCreate(0.1, 0.2, 0.3, 0.6, out var box, out _));
        var turned = Assert.NotNull(new Turn(1, 0).Of(box, new(600, 400)));
        Assert.Equal(
            (0.4, 0.1, 0.8, 0.3),
            (Math.Round(turned.Left, 9), Math.Round(turned.Top, 9), Math.Round(turned.Right, 9), Math.Round(turned.Bottom, 9))
        );
    }

    [Fact]
    public void What_is_written_is_read_again() =>
        Turned.Sample(one =>
        {
            var turn = one.Turn with { Degrees = Math.Round(one.Turn.Degrees, 3) };
            Assert.True(Turn.TryParse(turn.ToString(), out var read));
            Assert.Equal(turn, read);
        });

    [Theory]
    [InlineData("4q0")]
    [InlineData("0q16")]
    [InlineData("q")]
    [InlineData("1")]
    [InlineData(null)]
    public void What_is_no_turn_is_refused(string? text) => Assert.False(Turn.TryParse(text, out _));
}

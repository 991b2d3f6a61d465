using CsCheck;
using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Dressing;

public class FadeSolverTests
{
    private static readonly Gen<Rgb> Colours = Gen.Select(Gen.Byte, Gen.Byte, Gen.Byte, (red, green, blue) => new Rgb(red, green, blue));

    private static readonly Gen<Rgb> Grounds = Gen.OneOf(Gen.Const(Rgb.White), Gen.Const(new Rgb(0, 0, 0)), Colours);

    [Fact]
    public void No_smaller_amount_reaches_the_contrast() =>
        Gen.Select(Gen.Int[1, 15], Gen.Int[1, 10], Gen.Byte.Array[450], Grounds, Grounds, Gen.Int[11, 120])
            .Sample(
                (width, height, noise, to, ink, tenths) =>
                {
                    var pixels = new PixelRows(noise.AsMemory(0, width * height * 3), width, height, 3);
                    var goal = new FadeGoal(to, ink, tenths / 10.0);
                    var found = FadeSolver.Solve(pixels, Crop.All(new(width, height)), goal);
                    int First(double ratio) =>
                        Enumerable.Range(0, 256).Where(level => Worst(pixels, goal, level) >= ratio).Append(256).First();
                    // The last digits of two ways to count may differ.
                    Assert.InRange(found.Reached ? found.Level : 256, First(goal.Ratio - 1e-4), First(goal.Ratio + 1e-4));
                    Assert.InRange(Worst(pixels, goal, found.Level) - found.Ratio, -1e-4, 0.0011);
                },
                iter: 120
            );

    [Fact]
    public void Of_many_pixels_it_is_exact_too()
    {
        // Bright lamps on a dark slope, more than are sampled.
        var (width, height) = (900, 400);
        var values = new byte[width * height * 3];
        for (var i = 0; i < width * height; i++)
        {
            var value = (byte)((i % width / 4) + (i % 97 == 0 ? 30 : 0));
            values.AsSpan(3 * i, 3).Fill(value);
        }

        var pixels = new PixelRows(values, width, height, 3);
        foreach (var threads in new[] { 1, 2 })
        {
            var goal = new FadeGoal(new(20, 10, 0), Rgb.White, 4.5);
            var area = new Crop(100, 50, 850, 390);
            var found = FadeSolver.Solve(pixels, area, goal, threads);
            Assert.InRange(FadeSolver.RatioAt(pixels, area, goal, found.Level), 4.499, 21);
            Assert.InRange(FadeSolver.RatioAt(pixels, area, goal, found.Level - 1), 1, 4.5);
            // The slope rises to the right.
            Assert.InRange(found.Last!.Value.Left, 800, 850);
        }
    }

    [Fact]
    public void What_no_amount_reaches_says_the_most_there_is()
    {
        var pixels = new PixelRows(Enumerable.Repeat((byte)120, 300).ToArray(), 10, 10, 3);
        var found = FadeSolver.Solve(pixels, new(0, 0, 10, 10), new(new(200, 200, 200), Rgb.White, 4.5));
        Assert.False(found.Reached);
        Assert.Equal(0, found.Level);
        Assert.Equal(Contrast.Between(new(120, 120, 120), Rgb.White), found.Ratio, 0.002);
    }

    [Fact]
    public void What_can_be_read_is_left_as_it_is_and_what_shows_through_lies_on_white()
    {
        var dark = new PixelRows(new byte[400], 10, 10, 4);
        var all = new Crop(0, 0, 10, 10);
        Assert.Equal(new Faded(0, 21, true, null), FadeSolver.Solve(dark, all, new(Rgb.White, new(0, 0, 0), 4.5)));
        Assert.Equal(0, FadeSolver.Solve(new(new byte[300], 10, 10, 3), all, new(new(0, 0, 0), Rgb.White, 7)).Level);
    }

    [Theory]
    [InlineData(3, 0, 0, 11, 5)]
    [InlineData(3, 2, 2, 2, 5)]
    [InlineData(1, 0, 0, 5, 5)]
    public void An_area_outside_and_pixels_without_colours_are_refused(int bands, int left, int top, int right, int bottom) =>
        Assert.Throws<ArgumentException>(() =>
            FadeSolver.Solve(new(new byte[100 * bands], 10, 10, bands), new(left, top, right, bottom), new(Rgb.White, default, 3))
        );

    [Fact]
    public void The_leading_colours_are_those_a_person_would_name()
    {
        // Two thirds sea, a third sand, and a small red buoy.
        var values = new byte[3 * 60 * 60];
        for (var i = 0; i < 3600; i++)
        {
            var (y, x) = Math.DivRem(i, 60);
            var colour =
                x is > 10 and < 16 && y is > 20 and < 26 ? new Rgb(200, 30, 30)
                : y < 40 ? new Rgb(30, (byte)(90 + (x % 5)), 140)
                : new Rgb(220, 200, (byte)(160 + (x % 4)));
            (values[3 * i], values[(3 * i) + 1], values[(3 * i) + 2]) = (colour.Red, colour.Green, colour.Blue);
        }

        var leading = LeadingColours.Of(new(values, 60, 60, 3));
        Assert.Equal(3, leading.Count);
        Assert.InRange(OkLab.Of(leading[0].Colour).To(OkLab.Of(new(30, 92, 140))), 0, 0.01);
        Assert.InRange(OkLab.Of(leading[1].Colour).To(OkLab.Of(new(220, 200, 161))), 0, 0.01);
        Assert.InRange(OkLab.Of(leading[2].Colour).To(OkLab.Of(new(200, 30, 30))), 0, 0.01);
        Assert.Equal(1, leading.Sum(one => one.Share), 1e-9);
        Assert.Empty(LeadingColours.Of(new(new byte[400], 10, 10, 4)));
    }

    // The contrast of the worst hundredth, by formulas of the test's own.
    private static double Worst(PixelRows pixels, FadeGoal goal, int level)
    {
        static double Linear(double value) => value <= 0.04045 ? value / 12.92 : Math.Pow((value + 0.055) / 1.055, 2.4);
        static double Luminance(double red, double green, double blue) =>
            (0.2126 * Linear(red / 255)) + (0.7152 * Linear(green / 255)) + (0.0722 * Linear(blue / 255));
        double Mixed(byte value, byte to) => Math.Round(value + ((to - value) * level / 255.0), MidpointRounding.AwayFromZero);
        var ink = Luminance(goal.Ink.Red, goal.Ink.Green, goal.Ink.Blue);
        var values = pixels.Values.ToArray();
        var ratios = values
            .Chunk(3)
            .Select(pixel => Luminance(Mixed(pixel[0], goal.To.Red), Mixed(pixel[1], goal.To.Green), Mixed(pixel[2], goal.To.Blue)))
            .Select(luminance => (Math.Max(luminance, ink) + 0.05) / (Math.Min(luminance, ink) + 0.05))
            .Order()
            .ToArray();
        return ratios[ratios.Length / 100];
    }
}

using Pantomet.Core.Pixels;

namespace Pantomet.Core.Tests.Pixels;

public sealed class ReductionTests
{
    [Theory]
    [InlineData(600, 0, 600, 100)]
    [InlineData(600, 0.4, 599.7, 133)]
    [InlineData(1000, 10.25, 731.5, 311)]
    [InlineData(500, 3, 498, 495)]
    public void A_pixel_lies_where_the_exact_reduction_has_it(int source, double left, double right, int size)
    {
        // A ramp has at each place the value of the place: a shift of the result is a difference of its values.
        var values = Enumerable.Range(0, source * 4).Select(i => (byte)Math.Round((i % source + 0.5) * 255 / source)).ToArray();
        var result = Reduction.Reduce(new(values, source, 4, 1), new(left, 0, right, 4), size, 1, alpha: false);
        var shifts = Enumerable
            .Range(6, size - 12)
            .Select(i =>
                (result[i] - ((left + ((i + 0.5) * (right - left) / size)) * 255 / source)) * source / 255 * size / (right - left)
            );
        // A step of 1/255 is far more than a pixel here; the mean over all of them is not.
        Assert.InRange(Math.Abs(shifts.Average()), 0, 0.05);
    }

    [Fact]
    public void An_even_colour_stays_what_it_is_whatever_the_scale()
    {
        var random = new Random(4);
        for (var i = 0; i < 200; i++)
        {
            var (width, height, bands) = (random.Next(1, 90), random.Next(1, 90), random.Next(1, 5));
            var colour = Enumerable.Range(0, bands).Select(_ => (byte)random.Next(256)).ToArray();
            var values = Enumerable.Range(0, width * height).SelectMany(_ => colour).ToArray();
            var left = random.NextDouble() * width * 0.5;
            var top = random.NextDouble() * height * 0.5;
            var frame = new PixelBox(
                left,
                top,
                left + ((width - left) * (0.3 + (0.7 * random.NextDouble()))),
                top + ((height - top) * (0.3 + (0.7 * random.NextDouble())))
            );
            var (across, down) = (random.Next(1, 60), random.Next(1, 60));
            var result = Reduction.Reduce(new(values, width, height, bands), frame, across, down, alpha: false);
            Assert.Equal(across * down * bands, result.Length);
            for (var at = 0; at < result.Length; at++)
            {
                Assert.Equal(colour[at % bands], result[at]);
            }
        }
    }

    [Fact]
    public void Nothing_outside_the_frame_is_mixed_in()
    {
        // White between two black fields; the frame shows the white alone.
        var values = Enumerable.Range(0, 60 * 20).Select(i => (byte)(i % 60 is >= 20 and < 40 ? 255 : 0)).ToArray();
        Assert.All(Reduction.Reduce(new(values, 60, 20, 1), new(20, 0, 40, 20), 7, 7, alpha: false), value => Assert.Equal(255, value));
    }

    [Fact]
    public void What_is_transparent_colours_nothing_beside_it()
    {
        // Red that is seen beside green that is not: reduced, it is red, more and less covered.
        var values = Enumerable.Range(0, 40 * 8).SelectMany(i => i % 40 < 20 ? new byte[] { 200, 0, 0, 255 } : [0, 200, 0, 0]).ToArray();
        var result = Reduction.Reduce(new(values, 40, 8, 4), new(0, 0, 40, 8), 9, 2, alpha: true);
        for (var at = 0; at < result.Length; at += 4)
        {
            if (result[at + 3] > 3)
            {
                Assert.InRange(result[at], 197, 203);
                Assert.Equal(0, result[at + 1]);
            }
        }

        Assert.Equal(255, result[3]);
        Assert.Equal(0, result[^1]);
    }

    [Fact]
    public void What_is_not_reduced_is_the_same()
    {
        var values = new byte[31 * 17 * 3];
        new Random(9).NextBytes(values);
        Assert.Equal(values, Reduction.Reduce(new(values, 31, 17, 3), new(0, 0, 31, 17), 31, 17, alpha: false));
    }

    [Fact]
    public void A_frame_outside_of_the_pixels_is_refused()
    {
        var rows = new PixelRows(new byte[100], 10, 10, 1);
        Assert.Throws<ArgumentException>(() => Reduction.Reduce(rows, new(10, 0, 12, 4), 2, 2, alpha: false));
        Assert.Throws<ArgumentException>(() => Reduction.Reduce(rows, new(4, 4, 4, 8), 2, 2, alpha: false));
    }
}

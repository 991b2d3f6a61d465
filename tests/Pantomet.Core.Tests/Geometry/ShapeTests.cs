using Pantomet.Core.Geometry;

namespace Pantomet.Core.Tests.Geometry;

/// <summary>Ratios, frames, densities and crops: what is read, what is refused, and what holds for all of them.</summary>
public sealed class ShapeTests
{
    [Theory]
    [InlineData("5:4", 1.25, "5:4")]
    [InlineData(" 16 : 9 ", 16.0 / 9, "16:9")]
    [InlineData("1.91:1", 1.91, "1.91:1")]
    [InlineData("1.5", 1.5, "1.5:1")]
    [InlineData("100", 100, "100:1")]
    [InlineData("1:100", 0.01, "1:100")]
    public void A_ratio_is_read_and_kept_as_it_was_written(string text, double value, string written)
    {
        Assert.True(Ratio.TryParse(text, out var ratio, out var error), error);
        Assert.Equal(value, ratio.Value, 9);
        Assert.Equal(written, ratio.ToString());
    }

    [Theory]
    [InlineData("")]
    [InlineData("5:4:3")]
    [InlineData("5:")]
    [InlineData("a:b")]
    [InlineData("0:1")]
    [InlineData("-5:4")]
    [InlineData("101:1")]
    [InlineData("1:101")]
    [InlineData("0.00000001:1")]
    [InlineData("99999999999:1")]
    public void What_is_no_ratio_is_refused_with_a_sentence(string text)
    {
        Assert.False(Ratio.TryParse(text, out _, out var error));
        Assert.NotEmpty(error!);
    }

    [Theory]
    [InlineData("16:9", 1600, 900)]
    [InlineData("3:2", 1000, 667)]
    [InlineData("5:4", 2500, 2000)]
    [InlineData("1.91:1", 1200, 628)]
    [InlineData("1:100", 3, 300)]
    [InlineData("100:1", 40, 1)]
    public void The_missing_side_is_the_quotient_rounded_half_up_and_at_least_a_pixel(string text, int width, int height) =>
        Assert.Equal(height, Shape(text).HeightFor(width));

    [Fact]
    public void A_longer_or_a_shorter_side_gives_the_other_one()
    {
        Assert.Equal(new PixelSize(2500, 2000), Shape("5:4").ForLongSide(2500));
        Assert.Equal(new PixelSize(2000, 2500), Shape("4:5").ForLongSide(2500));
        Assert.Equal(new PixelSize(2500, 2000), Shape("5:4").ForShortSide(2000));
        Assert.Equal(new PixelSize(2000, 2500), Shape("4:5").ForShortSide(2000));
        Assert.Equal(new PixelSize(700, 700), Shape("1:1").ForLongSide(700));
    }

    [Fact]
    public void The_largest_size_of_a_shape_fits_in_its_box_and_touches_it()
    {
        var random = new Random(5);
        for (var i = 0; i < 2000; i++)
        {
            var box = new PixelSize(random.Next(1, 5000), random.Next(1, 5000));
            var shape = Ratio.Of(new(random.Next(1, 60), random.Next(1, 60)));
            var largest = Honest.Largest(shape, box);
            Assert.True(largest.Width >= 1 && largest.Height >= 1 && largest.Width <= box.Width && largest.Height <= box.Height);
            Assert.True(largest.Width == box.Width || largest.Height == box.Height, $"{shape} in {box.Width} x {box.Height}");
        }
    }

    [Theory]
    [InlineData(0, 0, 1, 1, true)]
    [InlineData(0.2, 0.3, 0.2001, 0.9, true)]
    [InlineData(0.2, 0.3, 0.2, 0.9, false)]
    [InlineData(0.5, 0.3, 0.2, 0.9, false)]
    [InlineData(-0.1, 0, 1, 1, false)]
    [InlineData(0, 0, 1.1, 1, false)]
    [InlineData(0, double.NaN, 1, 1, false)]
    [InlineData(0, 0, double.PositiveInfinity, 1, false)]
    public void A_frame_lies_in_the_picture_and_has_a_width_and_a_height(double left, double top, double right, double bottom, bool isOne)
    {
        Assert.Equal(isOne, Frame.TryCreate(left, top, right, bottom, out _, out var error));
        Assert.Equal(isOne, error is null);
    }

    [Fact]
    public void What_two_frames_share_is_alike_both_ways_and_lies_in_both_and_in_what_holds_both()
    {
        var random = new Random(9);
        for (var i = 0; i < 500; i++)
        {
            var (a, b) = (Some(random), Some(random));
            Assert.Equal(a.Shared(b), b.Shared(a), 12);
            Assert.True(a.Shared(b) <= Math.Min(a.Area, b.Area) + 1e-12);
            var both = a.With(b);
            Assert.Equal(a.Area, both.Shared(a), 12);
            Assert.Equal(b.Area, both.Shared(b), 12);
            Assert.Equal(a.Area, a.Shared(a), 12);
        }
    }

    [Fact]
    public void A_crop_lies_in_the_picture_and_has_the_shape_of_its_file_within_a_pixel()
    {
        var random = new Random(13);
        for (var i = 0; i < 2000; i++)
        {
            var picture = new PixelSize(random.Next(2, 6000), random.Next(2, 6000));
            var output = new PixelSize(random.Next(1, 3000), random.Next(1, 3000));
            var region = Some(random).In(picture).Shaped(Ratio.Of(output));
            if (region.Width < 1 || region.Height < 1)
            {
                continue;
            }

            var crop = region.CropFor(output, picture);
            Assert.True(
                crop is { Left: >= 0, Top: >= 0, Width: > 0, Height: > 0 } && crop.Right <= picture.Width && crop.Bottom <= picture.Height,
                $"{crop} in {picture.Width} x {picture.Height}"
            );
        }
    }

    [Fact]
    public void A_crop_is_moved_no_further_than_it_must_to_hold_a_region()
    {
        var picture = new PixelSize(1000, 800);
        var crop = new Crop(100, 100, 500, 400);
        Assert.Equal(crop, crop.Holding(new(150, 150, 100, 100), picture));
        Assert.Equal(new Crop(50, 100, 450, 400), crop.Holding(new(50, 150, 100, 100), picture));
        Assert.Equal(new Crop(300, 250, 700, 550), crop.Holding(new(600, 450, 100, 100), picture));
        // What is larger than the crop cannot be held: it stays where it is.
        Assert.Equal(crop, crop.Holding(new(0, 150, 900, 100), picture));
        // A hair beside a pixel is that pixel.
        Assert.Equal(crop, crop.Holding(new(100.0004, 100, 399.9996, 100), picture));
    }

    [Theory]
    [InlineData("2x", "2x")]
    [InlineData("1.5x", "1.5x")]
    [InlineData("800w", "800w")]
    public void A_descriptor_is_read_as_pages_write_it(string text, string written)
    {
        Assert.True(Descriptor.TryParse(text, out var descriptor));
        Assert.Equal(written, descriptor.ToString());
    }

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData("x")]
    [InlineData("0x")]
    [InlineData("11x")]
    [InlineData("0w")]
    [InlineData("-800w")]
    [InlineData("8.5w")]
    [InlineData("800")]
    [InlineData("8000000000000w")]
    public void What_is_no_descriptor_is_not_read(string? text) => Assert.False(Descriptor.TryParse(text, out _));

    [Fact]
    public void Descriptors_are_in_the_order_of_their_widths_or_densities()
    {
        Descriptor[] all = [Descriptor.Wide(1600), Descriptor.Wide(320), Descriptor.Wide(800)];
        Assert.Equal(["320w", "800w", "1600w"], all.Order().Select(one => one.ToString()));
        Descriptor[] densities = [new Density(3), new Density(1), new Density(1.5m)];
        Assert.Equal(["1x", "1.5x", "3x"], densities.Order().Select(one => one.ToString()));
    }

    private static Ratio Shape(string text) =>
        Ratio.TryParse(text, out var ratio, out var error) ? ratio : throw new ArgumentException(error);

    private static Frame Some(Random random)
    {
        var (left, top) = (random.NextDouble() * 0.9, random.NextDouble() * 0.9);
        var (right, bottom) = (
            left + ((1 - left) * (0.05 + (random.NextDouble() * 0.95))),
            top + ((1 - top) * (0.05 + (random.NextDouble() * 0.95)))
        );
        return Frame.TryCreate(left, top, Math.Min(1, right), Math.Min(1, bottom), out var frame, out var error)
            ? frame
            : throw new ArgumentException(error);
    }
}

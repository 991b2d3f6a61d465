using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Planning;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Tests.Dressing;

public sealed class CalmAreaTests
{
    private const int Width = 480;
    private const int Height = 300;

    [Fact]
    public void Where_all_is_calm_words_stand_below()
    {
        var place = CalmArea.Find(Picture((_, _) => false), Frame.Whole, []);
        Assert.True(place.Top > 0.6, $"{place}");
        Assert.InRange(place.Left, 0.04, 0.06);
        Assert.InRange(place.Bottom, 0.94, 0.96);
    }

    [Theory]
    [InlineData("below", 0, 0.55, 1, 1)]
    [InlineData("above", 0, 0, 1, 0.45)]
    [InlineData("left", 0, 0, 0.5, 1)]
    [InlineData("right", 0.5, 0, 1, 1)]
    public void A_busy_part_is_left_alone(string busy, double left, double top, double right, double bottom)
    {
        var place = CalmArea.Find(Picture((x, y) => x >= left && x < right && y >= top && y < bottom), Frame.Whole, []);
        var shared = Frame.Within(left, top, right, bottom).Shared(place) / place.Area;
        Assert.True(shared < 0.05, $"{busy}: {place}");
    }

    [Fact]
    public void A_keep_box_is_left_alone_although_it_is_calm_and_the_rest_is_busy()
    {
        var keep = Frame.Within(0.25, 0.4, 0.75, 1);
        var place = CalmArea.Find(Picture((x, y) => !keep.Holds(x, y)), Frame.Whole, [keep]);
        Assert.True(keep.Shared(place) / place.Area < 0.05, $"{place}");
    }

    [Fact]
    public void What_is_covered_in_the_slot_is_not_written_on()
    {
        var clear = Frame.Within(0.3, 0.1, 0.9, 0.6);
        var place = CalmArea.Find(Picture((_, _) => false), clear, []);
        Assert.True(place.Left >= 0.3 && place.Top >= 0.1 && place.Right <= 0.9 && place.Bottom <= 0.6, $"{place}");
    }

    [Fact]
    public void Words_find_a_place_in_every_small_picture()
    {
        foreach (var (width, height) in new[] { (1, 1), (3, 200), (200, 3), (16, 16) })
        {
            var pixels = new PixelRows(new byte[width * height * 3], width, height, 3);
            var place = CalmArea.Find(pixels, Frame.Whole, []);
            Assert.True(place.Area > 0.2, $"{width} x {height}: {place}");
        }
    }

    [Fact]
    public void A_box_of_the_picture_lies_in_the_file_where_the_frame_shows_it()
    {
        var plan = new VariantPlan
        {
            Descriptor = Descriptor.Of(Density.One),
            Asked = new(600, 500),
            Offered = 1,
            MayShrink = false,
            Verdict = Verdict.Meets,
            Reasons = [],
            Crop = new(1000, 0, 2000, 1000),
            Size = new(600, 500),
            Content = new(500, 500),
        };
        // Half of the crop across, a quarter of it down, with margins of 50 px at both sides.
        var box = Assert.Single(CalmArea.InFile([Frame.Within(0.5, 0.25, 0.75, 0.5)], new(2000, 1000), plan));
        Assert.Equal(50.0 / 600, box.Left, 6);
        Assert.Equal(300.0 / 600, box.Right, 6);
        Assert.Equal(0.25, box.Top, 6);
        Assert.Equal(0.5, box.Bottom, 6);
        // What the frame does not show is in no file.
        Assert.Empty(CalmArea.InFile([Frame.Within(0, 0, 0.3, 1)], new(2000, 1000), plan));
    }

    // A grey picture with stripes where it is busy.
    private static PixelRows Picture(Func<double, double, bool> isBusy)
    {
        var values = new byte[Width * Height * 3];
        for (var y = 0; y < Height; y++)
        {
            for (var x = 0; x < Width; x++)
            {
                var value = isBusy((double)x / Width, (double)y / Height) && (x / 3 % 2 == 0) ? (byte)220 : (byte)128;
                values.AsSpan(((y * Width) + x) * 3, 3).Fill(value);
            }
        }

        return new(values, Width, Height, 3);
    }
}

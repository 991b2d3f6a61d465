using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.Tests.Framing;

public class SuggesterTests
{
    private const int Width = 120;
    private const int Height = 80;

    [Fact]
    public void A_plain_backdrop_is_trimmed_away()
    {
        var suggestion = Suggester.Suggest(Picture((x, y) => In(x, y, 30, 20, 70, 60) ? (120, 80, 40) : (240, 240, 238)))!.Value;
        Assert.Equal(SuggestionKind.PlainBackdrop, suggestion.Kind);
        AssertAround(suggestion.Box, 30, 20, 70, 60);
    }

    [Fact]
    public void A_backdrop_that_grows_darker_and_a_soft_shadow_belong_to_the_backdrop()
    {
        var suggestion = Suggester
            .Suggest(
                Picture(
                    (x, y) =>
                    {
                        if (In(x, y, 40, 15, 60, 62))
                        {
                            return (150, 60, 30);
                        }

                        var shadow = (int)(60 * Math.Exp(-(((x - 50) * (x - 50) / 300.0) + ((y - 66) * (y - 66) / 40.0))));
                        var shade = 235 - (y / 2) - shadow;
                        return (shade, shade, shade);
                    }
                )
            )!
            .Value;
        Assert.Equal(SuggestionKind.PlainBackdrop, suggestion.Kind);
        AssertAround(suggestion.Box, 40, 15, 60, 62);
    }

    [Fact]
    public void Noise_that_is_nowhere_far_from_the_backdrop_is_no_subject()
    {
        var random = new Random(7);
        Assert.Null(Suggester.Suggest(Picture((_, _) => (118 + random.Next(20), 118 + random.Next(20), 118 + random.Next(20)))));
    }

    [Fact]
    public void A_subject_may_leave_the_picture_at_one_side()
    {
        var suggestion = Suggester.Suggest(Picture((x, y) => In(x, y, 50, 30, 70, Height) ? (20, 60, 120) : (200, 205, 210)))!.Value;
        Assert.Equal(SuggestionKind.PlainBackdrop, suggestion.Kind);
        AssertAround(suggestion.Box, 50, 30, 70, Height);
    }

    [Fact]
    public void Dust_on_the_backdrop_is_not_the_subject()
    {
        var suggestion = Suggester
            .Suggest(Picture((x, y) => In(x, y, 60, 20, 100, 60) || In(x, y, 5, 5, 7, 6) ? (90, 60, 40) : (250, 250, 250)))!
            .Value;
        AssertAround(suggestion.Box, 60, 20, 100, 60);
    }

    [Fact]
    public void What_shows_through_is_the_backdrop_whatever_its_colour()
    {
        var pixels = new byte[Width * Height * 4];
        for (var i = 0; i < Width * Height; i++)
        {
            var (x, y) = (i % Width, i / Width);
            (pixels[4 * i], pixels[(4 * i) + 1], pixels[(4 * i) + 2]) = ((byte)(x * 2), (byte)(y * 3), 40);
            pixels[(4 * i) + 3] = (byte)(In(x, y, 20, 10, 90, 70) ? 255 : 0);
        }

        AssertAround(Suggester.Suggest(new(pixels, Width, Height, 4))!.Value.Box, 20, 10, 90, 70);
    }

    [Fact]
    public void One_even_colour_and_a_picture_of_a_few_pixels_suggest_nothing()
    {
        Assert.Null(Suggester.Suggest(Picture((_, _) => (90, 90, 90))));
        Assert.Null(Suggester.Suggest(new(new byte[4 * 4 * 3], 4, 4, 3)));
    }

    private static void AssertAround(Frame box, int left, int top, int right, int bottom)
    {
        // Two pixels of air are given on purpose.
        var found = (Left: box.Left * Width, Top: box.Top * Height, Right: box.Right * Width, Bottom: box.Bottom * Height);
        Assert.True(
            found.Left <= left
                && left - found.Left <= 3
                && found.Top <= top
                && top - found.Top <= 3
                && found.Right >= right
                && found.Right - right <= 3
                && found.Bottom >= bottom
                && found.Bottom - bottom <= 3,
            $"{found} is not around {left},{top},{right},{bottom}"
        );
    }

    private static bool In(int x, int y, int left, int top, int right, int bottom) => x >= left && x < right && y >= top && y < bottom;

    private static Thumb Picture(Func<int, int, (int Red, int Green, int Blue)> colour)
    {
        var pixels = new byte[Width * Height * 3];
        for (var i = 0; i < Width * Height; i++)
        {
            var (red, green, blue) = colour(i % Width, i / Width);
            (pixels[3 * i], pixels[(3 * i) + 1], pixels[(3 * i) + 2]) = (
                (byte)Math.Clamp(red, 0, 255),
                (byte)Math.Clamp(green, 0, 255),
                (byte)Math.Clamp(blue, 0, 255)
            );
        }

        return new(pixels, Width, Height, 3);
    }
}

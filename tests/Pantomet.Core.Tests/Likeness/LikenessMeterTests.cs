using CsCheck;
using Pantomet.Core.Geometry;
using Pantomet.Core.Likeness;
using Measured = Pantomet.Core.Likeness.Likeness;

namespace Pantomet.Core.Tests.Likeness;

/// <summary>The properties that the papers prove or ask for, and that the worst place is the worst.</summary>
public class LikenessMeterTests
{
    private static readonly Gen<(int Width, int Height, int Seed)> Sizes = Gen.Select(Gen.Int[1, 90], Gen.Int[1, 90], Gen.Int[0, 9999]);

    [Fact]
    public void Equal_pictures_score_1_and_no_others_do() =>
        Sizes.Sample(
            (width, height, seed) =>
            {
                var (a, b) = (Noise(width, height, seed), Noise(width, height, seed + 1));
                Assert.Equal(1, LikenessMeter.Measure(Planes(a, width, height), Planes(a, width, height)).Score, 6);
                Assert.True(
                    a.SequenceEqual(b) || LikenessMeter.Measure(Planes(a, width, height), Planes(b, width, height)).Score < 0.999999
                );
            }
        );

    [Fact]
    public void The_score_is_symmetric_and_lies_between_0_and_1() =>
        Sizes.Sample(
            (width, height, seed) =>
            {
                var (a, b) = (Planes(Noise(width, height, seed), width, height), Planes(Noise(width, height, seed + 7), width, height));
                var (there, back) = (LikenessMeter.Measure(a, b).Score, LikenessMeter.Measure(b, a).Score);
                Assert.Equal(there, back, 5);
                Assert.InRange(there, 0, 1);
            }
        );

    [Fact]
    public void More_noise_is_less_likeness()
    {
        var smooth = Gradient(200, 160);
        var scores = new[] { 1, 2, 4, 8, 16, 32 }
            .Select(amount => LikenessMeter.Measure(Planes(smooth, 200, 160), Planes(Disturbed(smooth, amount), 200, 160)).Score)
            .ToList();
        Assert.Equal(scores.OrderDescending(), scores);
        Assert.True(scores[0] - scores[^1] > 0.2);
    }

    [Fact]
    public void A_small_shift_in_brightness_costs_less_than_noise_of_the_same_error()
    {
        // The point of structural similarity (Wang et al. 2004, figure 2): equal mean squared error, unlike to the eye.
        var picture = Gradient(200, 160);
        var lighter = picture.Select(value => (byte)Math.Min(255, value + 8)).ToArray();
        var noisy = picture.Select((value, i) => (byte)Math.Clamp(value + (i / 3 * 7919 % 31 < 16 ? 8 : -8), 0, 255)).ToArray();
        var reference = Planes(picture, 200, 160);
        var (shifted, spoilt) = (
            LikenessMeter.Measure(reference, Planes(lighter, 200, 160)).Score,
            LikenessMeter.Measure(reference, Planes(noisy, 200, 160)).Score
        );
        Assert.True(shifted > spoilt + 0.03, $"{shifted} against {spoilt}");
    }

    [Theory]
    [InlineData(0, 0)]
    [InlineData(130, 70)]
    [InlineData(299, 199)]
    public void The_worst_tile_is_where_the_damage_is(int x, int y)
    {
        const int width = 300,
            height = 200;
        var picture = Gradient(width, height);
        var damaged = (byte[])picture.Clone();
        for (var dy = -9; dy <= 9; dy++)
        {
            for (var dx = -9; dx <= 9; dx++)
            {
                if (x + dx is >= 0 and < width && y + dy is >= 0 and < height)
                {
                    var at = (((y + dy) * width) + x + dx) * 3;
                    damaged[at] ^= 0x55;
                    damaged[at + 1] ^= 0x55;
                }
            }
        }

        var measured = LikenessMeter.Measure(Planes(picture, width, height), Planes(damaged, width, height));
        var tile = measured.WorstTile;
        Assert.True(
            x >= tile.Left - 10 && x <= tile.Right + 10 && y >= tile.Top - 10 && y <= tile.Bottom + 10,
            $"{tile} is not at {x},{y}"
        );
        Assert.True(measured.WorstScore < measured.Score && measured.Score < 1);
    }

    [Fact]
    public void Colour_alone_is_counted_too()
    {
        var grey = Enumerable.Repeat((byte)128, 128 * 128 * 3).ToArray();
        var tinted = grey.Select(
                (value, i) =>
                    (i % 3) switch
                    {
                        0 => (byte)(value + (i / 3 % 16 < 8 ? 40 : 0)),
                        1 => (byte)(value - (i / 3 % 16 < 8 ? 20 : 0)),
                        _ => value,
                    }
            )
            .ToArray();
        Assert.True(LikenessMeter.Measure(Planes(grey, 128, 128), Planes(tinted, 128, 128)).Score < 0.99);
    }

    [Fact]
    public void Pictures_of_unlike_sizes_are_not_compared() =>
        Assert.Throws<ArgumentException>(() => LikenessMeter.Measure(Planes(Gradient(20, 20), 20, 20), Planes(Gradient(20, 21), 20, 21)));

    [Theory]
    [InlineData(1.0, LikenessWord.NoDifference)]
    [InlineData(0.996, LikenessWord.HardToSee)]
    [InlineData(0.99, LikenessWord.Slight)]
    [InlineData(0.975, LikenessWord.Visible)]
    [InlineData(0.5, LikenessWord.Rough)]
    [InlineData(-1, LikenessWord.Rough)]
    public void Every_score_has_its_word(double score, LikenessWord word) => Assert.Equal(word, Measured.WordFor(score));

    [Fact]
    public void A_window_wider_than_the_vector_gives_the_same_as_one_place_at_a_time()
    {
        // The same rows once in a wide plane and once in narrow strips that take the one-by-one way.
        var (a, b) = (Grey(Noise(64, 40, 1), 64, 40), Grey(Noise(64, 40, 2), 64, 40));
        var wide = new Dictionary<(int X, int Y), float>();
        StructuralSimilarity.Compare(a, b, (y, first, _, structure) => Keep(wide, y, first, 0, structure));
        var narrow = new Dictionary<(int X, int Y), float>();
        for (var left = 0; left + 11 <= 64; left++)
        {
            StructuralSimilarity.Compare(
                Strip(a, left),
                Strip(b, left),
                (y, first, _, structure) => Keep(narrow, y, first, left, structure)
            );
        }

        Assert.Equal(wide.Count, narrow.Count);
        Assert.All(wide, place => Assert.InRange(place.Value - narrow[place.Key], -0.001, 0.001));
    }

    private static void Keep(Dictionary<(int X, int Y), float> map, int y, int first, int left, ReadOnlySpan<float> values)
    {
        for (var i = 0; i < values.Length; i++)
        {
            map[(left + first + i, y)] = values[i];
        }
    }

    private static Plane Strip(Plane plane, int left)
    {
        var strip = new Plane(new float[11 * plane.Height], 11, plane.Height);
        for (var y = 0; y < plane.Height; y++)
        {
            plane.Row(y).Slice(left, 11).CopyTo(strip.Row(y));
        }

        return strip;
    }

    private static Plane Grey(byte[] pixels, int width, int height) => Planes(pixels, width, height).Luma;

    private static ColourPlanes Planes(byte[] pixels, int width, int height) => ColourPlanes.Of(pixels, width, height, 3);

    private static byte[] Noise(int width, int height, int seed)
    {
        var pixels = new byte[width * height * 3];
        new Random(seed).NextBytes(pixels);
        return pixels;
    }

    private static byte[] Gradient(int width, int height) =>
        [
            .. Enumerable
                .Range(0, width * height * 3)
                .Select(i => (byte)(40 + ((i / 3 % width) * 120 / width) + (60 * (i / 3 / width) / height))),
        ];

    private static byte[] Disturbed(byte[] pixels, int amount)
    {
        var random = new Random(3);
        return [.. pixels.Select(value => (byte)Math.Clamp(value + random.Next(-amount, amount + 1), 0, 255))];
    }
}

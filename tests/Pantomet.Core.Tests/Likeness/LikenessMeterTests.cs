using CsCheck;
using Pantomet.Core.Geometry;
using Pantomet.Core.Likeness;
using Pantomet.Core.Pixels;
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
    public void The_score_lies_between_0_and_1() =>
        Sizes.Sample(
            (width, height, seed) =>
            {
                var (a, b) = (Planes(Noise(width, height, seed), width, height), Planes(Noise(width, height, seed + 7), width, height));
                Assert.InRange(LikenessMeter.Measure(a, b).Score, 0, 1);
            }
        );

    [Fact]
    public void It_does_not_matter_how_many_rows_come_at_a_time() =>
        Sizes.Sample(
            (width, height, seed) =>
            {
                var (a, b) = (Noise(width, height, seed), Disturbed(Noise(width, height, seed), 9));
                var pieces = new TileLosses(new(width, height), 3);
                var random = new Random(seed);
                for (var row = 0; row < height; )
                {
                    var end = Math.Min(height, row + random.Next(1, 30));
                    pieces.Add(a.AsSpan(row * width * 3, (end - row) * width * 3), b.AsSpan(row * width * 3, (end - row) * width * 3));
                    row = end;
                }

                Assert.Equal(LikenessMeter.Losses(Planes(a, width, height), Planes(b, width, height)), pieces.Each());
            }
        );

    [Fact]
    public void Rows_that_are_missing_or_too_many_are_refused()
    {
        var losses = new TileLosses(new(10, 12), 3);
        losses.Add(new byte[300], new byte[300]);
        Assert.Throws<InvalidOperationException>(() => losses.Each());
        Assert.Throws<ArgumentException>(() => losses.Add(new byte[90], new byte[90]));
        Assert.Throws<ArgumentException>(() => losses.Add(new byte[29], new byte[29]));
        Assert.Throws<ArgumentException>(() => losses.Add(new byte[30], new byte[60]));
        losses.Add(new byte[60], new byte[60]);
        Assert.Equal([0.0], losses.Each());
    }

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

    [Theory]
    [InlineData(206, 20, 30, 216, 20, 30)]
    [InlineData(20, 60, 200, 26, 62, 190)]
    [InlineData(240, 200, 20, 232, 198, 26)]
    public void A_flat_area_whose_colour_moved_is_seen_and_is_the_worst_place(
        int red,
        int green,
        int blue,
        int toRed,
        int toGreen,
        int toBlue
    )
    {
        // Of four areas one changes its colour by 2 to 4 of CIEDE2000.
        var picture = Enumerable.Range(0, 256 * 256 * 3).Select(i => (byte)(i % 3 == 0 ? 90 : 150)).ToArray();
        var file = (byte[])picture.Clone();
        for (var y = 128; y < 256; y++)
        {
            for (var x = 0; x < 128; x++)
            {
                var at = ((y * 256) + x) * 3;
                (picture[at], picture[at + 1], picture[at + 2]) = ((byte)red, (byte)green, (byte)blue);
                (file[at], file[at + 1], file[at + 2]) = ((byte)toRed, (byte)toGreen, (byte)toBlue);
            }
        }

        var measured = LikenessMeter.Measure(Planes(picture, 256, 256), Planes(file, 256, 256));
        Assert.True(measured.Word >= LikenessWord.Visible, $"{measured}");
        Assert.True(measured.WorstTile.Left < 128 && measured.WorstTile.Top >= 128, $"{measured.WorstTile}");
    }

    [Fact]
    public void A_colour_that_nobody_tells_apart_costs_little()
    {
        var picture = Enumerable.Range(0, 128 * 128 * 3).Select(i => (byte)(i % 3 == 0 ? 206 : 20)).ToArray();
        var file = picture.Select((value, i) => (byte)(i % 3 == 0 ? value + 1 : value)).ToArray();
        Assert.True(LikenessMeter.Measure(Planes(picture, 128, 128), Planes(file, 128, 128)).Word <= LikenessWord.HardToSee);
    }

    [Fact]
    public void Colour_that_frays_at_an_edge_counts_though_luma_is_the_same()
    {
        // A red bar on green of the same luma, whose edge columns are mixed as halved colour mixes them.
        var (red, green) = ((200, 60, 40), (20, 152, 40));
        var picture = new byte[128 * 128 * 3];
        for (var i = 0; i < 128 * 128; i++)
        {
            var (r, g, b) = i % 128 / 16 % 2 == 0 ? red : green;
            (picture[3 * i], picture[(3 * i) + 1], picture[(3 * i) + 2]) = ((byte)r, (byte)g, (byte)b);
        }

        var frayed = (byte[])picture.Clone();
        for (var i = 1; i < (128 * 128) - 1; i++)
        {
            for (var channel = 0; i % 16 is 0 or 15 && channel < 3; channel++)
            {
                frayed[(3 * i) + channel] = (byte)((picture[(3 * (i - 1)) + channel] + picture[(3 * (i + 1)) + channel]) / 2);
            }
        }

        Assert.True(LikenessMeter.Measure(Planes(picture, 128, 128), Planes(frayed, 128, 128)).Word >= LikenessWord.Slight);
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

    private static Plane Grey(byte[] pixels, int width, int height) => Plane.LumaOf(pixels, width, height, 3);

    private static PixelRows Planes(byte[] pixels, int width, int height) => new(pixels, width, height, 3);

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

using CsCheck;
using Pantomet.Core.Likeness;
using Pantomet.Core.Pixels;

namespace Pantomet.Core.Tests.Likeness;

public sealed class TileSampleTests
{
    [Fact]
    public void Rows_lie_inside_each_once_and_evenly() =>
        Gen.Select(Gen.Int[1, 200], Gen.Int[1, 200])
            .Sample(
                (columns, rows) =>
                {
                    var sample = TileSample.Spread(columns, rows).Rows;
                    Assert.NotEmpty(sample);
                    Assert.All(sample, row => Assert.InRange(row, 0, rows - 1));
                    var steps = sample.Zip(sample.Skip(1), (above, below) => below - above).ToList();
                    Assert.All(steps, step => Assert.InRange(step, 2, steps.Min() + 1));
                    Assert.True(sample.Count * columns <= TileSample.Most + columns);
                }
            );

    [Fact]
    public void A_small_picture_is_looked_at_by_half_and_a_large_one_by_as_many_tiles()
    {
        Assert.Equal([0, 2, 4, 6], TileSample.Spread(9, 8).Rows);
        Assert.InRange(TileSample.Spread(66, 49).Rows.Count * 66, TileSample.Most * 4 / 5, TileSample.Most);
        Assert.Equal([0], TileSample.Spread(500, 1).Rows);
    }

    [Fact]
    public void Tiles_together_are_the_picture()
    {
        var (reference, file) = (Noise(1, 0), Noise(1, 9));
        var whole = 1 - LikenessMeter.Measure(reference, file).Score;
        Assert.Equal(whole, LikenessMeter.Together(LikenessMeter.Losses(reference, file)), 9);
    }

    [Fact]
    public void The_worst_of_the_tiles_counts_more_than_its_share() =>
        Assert.True(LikenessMeter.Together([0.001, 0.001, 0.001, 0.02]) > 2 * (0.023 / 4));

    // Four tiles by three, a pattern with as much noise as asked for.
    private static PixelRows Noise(int seed, int noise)
    {
        var random = new Random(seed);
        var values = new byte[256 * 192 * 3];
        for (var i = 0; i < values.Length; i++)
        {
            values[i] = (byte)Math.Clamp(128 + (60 * Math.Sin(i * 0.013)) + random.Next(-noise, noise + 1), 0, 255);
        }

        return new(values, 256, 192, 3);
    }
}

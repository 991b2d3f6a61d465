using CsCheck;
using Pantomet.Core.Likeness;
using Pantomet.Core.Pixels;

namespace Pantomet.Core.Tests.Likeness;

public sealed class TileSampleTests
{
    [Fact]
    public void Half_of_the_tiles_lie_inside_each_once_and_none_beside_another() =>
        Gen.Select(Gen.Int[2, 40], Gen.Int[1, 40])
            .Sample(
                (columns, rows) =>
                {
                    var tiles = TileSample.Half(columns, rows).Tiles;
                    Assert.All(tiles, tile => Assert.True(tile.Column < columns && tile.Row < rows));
                    Assert.Equal(tiles.Count, tiles.Distinct().Count());
                    Assert.Equal(rows * (columns / 2), tiles.Count);
                    Assert.DoesNotContain(
                        tiles,
                        tile => tiles.Contains((tile.Column + 1, tile.Row)) || tiles.Contains((tile.Column, tile.Row + 1))
                    );
                }
            );

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

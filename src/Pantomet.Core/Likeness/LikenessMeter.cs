using Pantomet.Core.Geometry;

namespace Pantomet.Core.Likeness;

/// <summary>
/// Measures how much a file looks like the same pixels uncompressed, at 1:1. Multi-scale structural similarity on luma
/// (Z. Wang, E. Simoncelli, A. Bovik, "Multi-scale structural similarity for image quality assessment", Asilomar 2003,
/// equation 7 with the exponents of its section 3.2), with the colour differences counted as well, taken tile by tile so that the
/// worst place is known and weighs more than its area.
/// </summary>
public static class LikenessMeter
{
    /// <summary>The side of a tile in pixels.</summary>
    public const int Tile = 64;

    /// <summary>The share of each colour difference in a tile's score; calibrated in docs/likeness.md.</summary>
    private const double ColourShare = 0.05;

    /// <summary>
    /// How much more a bad tile counts than a good one: the exponent of the mean over tiles; calibrated in docs/likeness.md.
    /// </summary>
    private const double Pooling = 4;

    // Wang et al. 2003, section 3.2.
    private static readonly double[] Exponents = [0.0448, 0.2856, 0.3001, 0.2363, 0.1333];

    /// <summary>Measures.</summary>
    /// <param name="reference">The pixels uncompressed.</param>
    /// <param name="file">The file's pixels, of the same size.</param>
    /// <exception cref="ArgumentException">The sizes differ.</exception>
    public static Likeness Measure(ColourPlanes reference, ColourPlanes file) => Measure(reference, file, ColourShare, Pooling);

    /// <summary>The same with other weights, for calibrating them.</summary>
    internal static Likeness Measure(ColourPlanes reference, ColourPlanes file, double colourShare, double pooling) =>
        Pooled(Tiles(reference, file, colourShare), SizeOf(reference), pooling);

    /// <summary>What each tile lacks in likeness, 1 − score, row by row.</summary>
    /// <param name="reference">The pixels uncompressed.</param>
    /// <param name="file">The file's pixels, of the same size.</param>
    /// <exception cref="ArgumentException">The sizes differ.</exception>
    public static double[] Losses(ColourPlanes reference, ColourPlanes file)
    {
        var tiles = Tiles(reference, file, ColourShare);
        return [.. Enumerable.Range(0, tiles.Rows * tiles.Columns).Select(i => 1 - tiles[i % tiles.Columns, i / tiles.Columns])];
    }

    /// <summary>The loss of tiles of one size together, 1 − score.</summary>
    /// <param name="losses">What each tile lacks; at least one.</param>
    public static double Together(IEnumerable<double> losses) => Math.Pow(losses.Average(loss => Math.Pow(loss, Pooling)), 1 / Pooling);

    private static PixelSize SizeOf(ColourPlanes planes) => new(planes.Luma.Width, planes.Luma.Height);

    private static TileScores Tiles(ColourPlanes reference, ColourPlanes file, double colourShare)
    {
        ArgumentNullException.ThrowIfNull(reference);
        ArgumentNullException.ThrowIfNull(file);
        var luma = TileScores.Measure(reference.Luma, file.Luma, Tile, Exponents);
        if (reference.Blue is { } blue && reference.Red is { } red && file.Blue is { } fileBlue && file.Red is { } fileRed)
        {
            // Colour is at half size already: its finest scale stands beside luma's second.
            luma.Multiply(TileScores.Measure(blue, fileBlue, Tile / 2, Exponents.AsSpan(1)), colourShare);
            luma.Multiply(TileScores.Measure(red, fileRed, Tile / 2, Exponents.AsSpan(1)), colourShare);
        }

        return luma;
    }

    private static Likeness Pooled(TileScores tiles, PixelSize size, double pooling)
    {
        double sum = 0,
            weights = 0;
        var worst = (Score: double.PositiveInfinity, Column: 0, Row: 0);
        for (var row = 0; row < tiles.Rows; row++)
        {
            for (var column = 0; column < tiles.Columns; column++)
            {
                var score = tiles[column, row];
                var area = (double)Math.Min(Tile, size.Width - (column * Tile)) * Math.Min(Tile, size.Height - (row * Tile));
                sum += area * Math.Pow(1 - score, pooling);
                weights += area;
                if (score < worst.Score)
                {
                    worst = (score, column, row);
                }
            }
        }

        var (left, top) = (worst.Column * Tile, worst.Row * Tile);
        return new(
            1 - Math.Pow(sum / weights, 1 / pooling),
            worst.Score,
            new(left, top, Math.Min(size.Width, left + Tile), Math.Min(size.Height, top + Tile))
        );
    }
}

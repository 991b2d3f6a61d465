using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;

namespace Pantomet.Core.Likeness;

/// <summary>
/// Measures how much a file looks like the same pixels uncompressed, at 1:1. What is lost is counted tile by tile, so that the worst place is
/// known and weighs more than its area: see <see cref="TileLosses"/> for what counts.
/// </summary>
public static class LikenessMeter
{
    /// <summary>The side of a tile in pixels.</summary>
    public const int Tile = 64;

    /// <summary>
    /// How much more a bad tile counts than a good one: the exponent of the mean over tiles; calibrated in docs/likeness.md.
    /// </summary>
    private const double Pooling = 4;

    /// <summary>Measures.</summary>
    /// <param name="reference">The pixels uncompressed: red, green and blue, or one grey channel.</param>
    /// <param name="file">The file's pixels, of the same size and kind.</param>
    /// <exception cref="ArgumentException">The sizes or channels differ.</exception>
    public static Likeness Measure(PixelRows reference, PixelRows file) => LossesOf(reference, file).Together();

    /// <summary>What each tile lacks in likeness, 1 − score, row by row.</summary>
    /// <param name="reference">The pixels uncompressed: red, green and blue, or one grey channel.</param>
    /// <param name="file">The file's pixels, of the same size and kind.</param>
    /// <exception cref="ArgumentException">The sizes or channels differ.</exception>
    public static double[] Losses(PixelRows reference, PixelRows file) => LossesOf(reference, file).Each();

    /// <summary>The loss of tiles of one size together, 1 − score.</summary>
    /// <param name="losses">What each tile lacks; at least one.</param>
    public static double Together(IEnumerable<double> losses) => Math.Pow(losses.Average(loss => Math.Pow(loss, Pooling)), 1 / Pooling);

    /// <summary>The likeness of tiles of which those at the edges may be smaller.</summary>
    /// <param name="losses">What each tile lacks, row by row.</param>
    /// <param name="size">The picture's size in pixels.</param>
    internal static Likeness Together(double[] losses, PixelSize size)
    {
        double sum = 0,
            weights = 0;
        var worst = 0;
        var columns = TileLosses.TilesIn(size.Width);
        for (var i = 0; i < losses.Length; i++)
        {
            var place = PlaceOf(i, columns, size);
            var area = (double)place.Width * place.Height;
            sum += area * Math.Pow(losses[i], Pooling);
            weights += area;
            worst = losses[i] > losses[worst] ? i : worst;
        }

        return new(1 - Math.Pow(sum / weights, 1 / Pooling), 1 - losses[worst], PlaceOf(worst, columns, size));
    }

    private static Crop PlaceOf(int tile, int columns, PixelSize size)
    {
        var (left, top) = (tile % columns * Tile, tile / columns * Tile);
        return new(left, top, Math.Min(size.Width, left + Tile), Math.Min(size.Height, top + Tile));
    }

    private static TileLosses LossesOf(PixelRows reference, PixelRows file)
    {
        if ((reference.Width, reference.Height, reference.Bands) != (file.Width, file.Height, file.Bands))
        {
            throw new ArgumentException(
                $"{reference.Width} x {reference.Height} x {reference.Bands} and {file.Width} x {file.Height} x {file.Bands} cannot be compared",
                nameof(file)
            );
        }

        var losses = new TileLosses(new(reference.Width, reference.Height), reference.Bands);
        losses.Add(reference.Values.Span, file.Values.Span);
        return losses;
    }
}

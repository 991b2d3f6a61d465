using NetVips;
using Pantomet.Core.Likeness;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Making;

/// <summary>Trials on some rows of tiles of a rendering, each row encoded and measured alone.</summary>
internal sealed class TileTrials : IDisposable
{
    private readonly List<(Image Pixels, LikenessGauge Gauge)> _rows = [];

    /// <summary>Cuts the rows out.</summary>
    /// <param name="pixels">The rendering.</param>
    /// <param name="sample">Which rows.</param>
    public TileTrials(Image pixels, TileSample sample)
    {
        foreach (var row in sample.Rows)
        {
            var top = row * LikenessMeter.Tile;
            using var part = pixels.Crop(0, top, pixels.Width, Math.Min(LikenessMeter.Tile, pixels.Height - top));
            var held = part.CopyMemory();
            _rows.Add((held, new(held)));
        }
    }

    /// <summary>What the tiles together lack in files that are made of their rows: 1 − likeness.</summary>
    /// <param name="encode">Makes a file of a row.</param>
    public double Loss(Func<Image, byte[]> encode) =>
        LikenessMeter.Together(_rows.SelectMany(row => row.Gauge.Losses(encode(row.Pixels))).ToList());

    /// <summary>Frees the rows; the rendering stays.</summary>
    public void Dispose() => _rows.ForEach(row => row.Pixels.Dispose());
}

using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Making;

/// <summary>Trials of one type with the plain encoder on some tiles of a rendering; each is made and measured once.</summary>
/// <param name="encoder">Encodes them.</param>
/// <param name="format">jpeg, webp or avif.</param>
/// <param name="sample">The tiles.</param>
internal sealed class TileTrials(VariantEncoder encoder, PictureFormat format, TileSample sample) : IDisposable
{
    private readonly Image _tiles = encoder.Tiles(format, sample);
    private readonly Dictionary<int, double> _losses = [];
    private LikenessGauge? _gauge;

    /// <summary>How many encodes were made.</summary>
    public int Count => _losses.Count;

    /// <summary>What the tiles together lack in a plain file: 1 − likeness.</summary>
    /// <param name="setting">The encoder's setting.</param>
    public double Loss(int setting)
    {
        if (!_losses.TryGetValue(setting, out var loss))
        {
            _gauge ??= new(_tiles);
            // What fills up the last row is no tile.
            var losses = _gauge.Losses(encoder.Plain(_tiles, format, setting)).Take(sample.Tiles.Count);
            _losses[setting] = loss = LikenessMeter.Together(losses);
        }

        return loss;
    }

    /// <summary>Frees the tiles.</summary>
    public void Dispose() => _tiles.Dispose();
}

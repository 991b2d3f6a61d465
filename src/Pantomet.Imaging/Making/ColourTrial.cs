using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Making;

/// <summary>
/// Tells whether colour must be written at full size. Files keep it at half size as a rule, which costs a photograph little that is seen; where
/// strong colours meet, nothing that the rest of the file could spend its bytes on would show as much.
/// </summary>
internal static class ColourTrial
{
    // What halving alone may cost, 1 - likeness: more is no longer hard to see. At equal weight files of pictures above it were more alike with
    // full colour (docs/likeness.md). The lines and letters of a drawing are looked at closer.
    private const double Most = 0.006;
    private const double MostOfDrawing = 0.002;

    // A quality at which little else is lost.
    private const int Quality = 95;

    /// <summary>True where halving alone would show.</summary>
    /// <param name="encoder">What is to be encoded.</param>
    public static bool ShowsHalved(VariantEncoder encoder)
    {
        var pixels = encoder.Pixels(PictureFormat.Jpeg);
        if (encoder.Moves || pixels.Bands < 3)
        {
            return false;
        }

        var most = encoder.IsDrawing ? MostOfDrawing : Most;
        var halved = Lost(encoder, full: false);
        return halved > most && halved - Lost(encoder, full: true) > most;
    }

    // Rows of tiles, every other one: unlike single tiles they have no seams across, where unlike colours would meet.
    private static double Lost(VariantEncoder encoder, bool full)
    {
        var pixels = encoder.Pixels(PictureFormat.Jpeg);
        var losses = new List<double>();
        for (var top = 0; top < pixels.Height; top += 2 * LikenessMeter.Tile)
        {
            using var rows = pixels.Crop(0, top, pixels.Width, Math.Min(LikenessMeter.Tile, pixels.Height - top));
            using var held = rows.CopyMemory();
            losses.AddRange(new LikenessGauge(held).Losses(encoder.PlainJpeg(held, Quality, full)));
        }

        return LikenessMeter.Together(losses);
    }
}

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

    // As many tiles as are looked at of a large picture: more than for a trial, as strong colours may meet in one place alone.
    private const int MostTiles = 2 * TileSample.Most;

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
        using var trials = new TileTrials(pixels, TileSample.Spread(encoder.Grid.Columns, encoder.Grid.Rows, MostTiles));
        var halved = trials.Loss(rows => encoder.PlainJpeg(rows, Quality, full: false));
        return halved > most && halved - trials.Loss(rows => encoder.PlainJpeg(rows, Quality, full: true)) > most;
    }
}

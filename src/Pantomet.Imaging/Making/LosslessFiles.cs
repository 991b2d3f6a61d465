using Pantomet.Core;
using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Rendering;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Making;

/// <summary>The files of one rendering that lose nothing, and those that lose nothing but colours. Each is made once.</summary>
/// <param name="encoder">Encodes them.</param>
/// <param name="pixels">What is encoded.</param>
/// <param name="slot">The slot.</param>
/// <param name="aim">How much like the pixels a palette must be; null where nothing is asked for.</param>
/// <param name="cancel">Stops between encodes.</param>
internal sealed class LosslessFiles(VariantEncoder encoder, RenderedPixels pixels, Slot slot, double? aim, CancellationToken cancel)
{
    // From many colours to few: bits for a pixel, and how near the colours must stay.
    private static readonly (int Bits, int Quality)[] Palettes = [(8, 100), (8, 80), (8, 60), (4, 100)];

    private readonly Dictionary<PictureFormat, Attempt> _lossless = [];
    private readonly Dictionary<(int Bits, int Quality), Attempt> _palettes = [];

    /// <summary>How many encodes were made.</summary>
    public int Encodes => _lossless.Count + _palettes.Count;

    private double Limit => slot.Limits.MaxBytes?.Bytes ?? double.PositiveInfinity;

    /// <summary>The file without any loss.</summary>
    /// <param name="format">png or webp.</param>
    public Attempt Of(PictureFormat format)
    {
        if (!_lossless.TryGetValue(format, out var attempt))
        {
            cancel.ThrowIfCancellationRequested();
            var file = format == PictureFormat.Png ? encoder.Png() : encoder.LosslessWebP();
            var equal = new Likeness(1, 1, new(0, 0, pixels.Size.Width, pixels.Size.Height));
            _lossless[format] = attempt = new(format, null, file.LongLength <= Limit, () => file, _ => equal);
        }

        return attempt;
    }

    /// <summary>
    /// Lossless where it fits; with a likeness aim the smallest palette that reaches it; else the full palette, as a limit's price.
    /// </summary>
    public Attempt Png()
    {
        var lossless = Of(PictureFormat.Png);
        if (aim is { } least)
        {
            var reaching = Palettes
                .Select(Palette)
                .TakeWhile(palette => palette.Likeness.Score >= least)
                .LastOrDefault(palette => palette.Bytes < lossless.Bytes);
            if (reaching is { Fits: true })
            {
                return reaching;
            }
        }

        return lossless.Fits ? lossless : Conceded(Palette(Palettes[0]));
    }

    /// <summary>The palette with the most colours that fits; the smallest where none does.</summary>
    public Attempt SmallPalette()
    {
        var last = Conceded(Palette(Palettes[0]));
        foreach (var palette in Palettes.Skip(1))
        {
            if (last.Fits)
            {
                break;
            }

            last = Conceded(Palette(palette));
        }

        return last;
    }

    private Attempt Palette((int Bits, int Quality) palette)
    {
        if (!_palettes.TryGetValue(palette, out var attempt))
        {
            cancel.ThrowIfCancellationRequested();
            var file = encoder.PalettePng(palette.Bits, palette.Quality);
            _palettes[palette] = attempt = new(
                PictureFormat.Png,
                null,
                file.LongLength <= Limit,
                () => file,
                new LikenessGauge(encoder.Reference(PictureFormat.Png)).Measure
            );
        }

        return attempt;
    }

    private Attempt Conceded(Attempt palette)
    {
        if (palette.Fits && palette.Concessions.Count == 0)
        {
            palette.Concessions.Add(
                new(
                    ReasonCodes.Palette,
                    ReasonTexts.ReducedToFewColoursLikenessLossless(
                        Figures.Number(palette.Likeness.Score, 3),
                        Figures.Weight(Of(PictureFormat.Png).Bytes),
                        slot.Limits.MaxBytes
                    )
                )
            );
        }

        return palette;
    }
}

using Pantomet.Core;
using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Core.Weight;
using Pantomet.Imaging.Rendering;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Making;

/// <summary>
/// Finds the best file of one rendering in one type: the smallest that reaches the likeness aim, within limit, band, floor and ceiling.
/// </summary>
internal sealed class TypeSearch(RenderedPixels pixels, Slot slot, PictureFacts facts, CancellationToken cancel) : IDisposable
{
    private static readonly Likeness Equal = new(1, 1, default);

    // From many colours to few: bits for a pixel, and how near the colours must stay.
    private static readonly (int Bits, int Quality)[] Palettes = [(8, 100), (8, 80), (8, 60), (4, 100)];

    private readonly VariantEncoder _encoder = new(pixels, slot, facts);
    private readonly Dictionary<PictureFormat, Trials> _trials = [];
    private readonly Dictionary<(int Bits, int Quality), Attempt> _palettes = [];
    private Attempt? _lossless;
    private int _losslessEncodes;

    /// <summary>How many encodes were made in all types.</summary>
    public int Encodes => _losslessEncodes + _trials.Values.Sum(trials => trials.Encodes);

    private double Limit => slot.Limits.MaxBytes?.Bytes ?? double.PositiveInfinity;

    private double BandMost => slot.Aims.Band?.Most.Bytes ?? double.PositiveInfinity;

    /// <summary>The best within floor and ceiling.</summary>
    public Attempt Comfortable(PictureFormat format) =>
        format switch
        {
            PictureFormat.Png => Png(),
            PictureFormat.WebP when facts.Kind == PictureKind.FlatGraphic => Lighter(LosslessWebP(), Lossy(format, RangeOf(format))),
            _ => Lossy(format, RangeOf(format)),
        };

    /// <summary>The best below the floor; null where the type or the slot knows nothing below it.</summary>
    public Attempt? BelowFloor(PictureFormat format)
    {
        if (format == PictureFormat.Png)
        {
            return SmallPalette();
        }

        if ((slot.Aims.Quality is not null && !slot.Aims.BelowFloor) || RangeOf(format).Below is not { } range)
        {
            return null;
        }

        var attempt = Lossy(format, range);
        if (attempt.Fits)
        {
            attempt.Concessions.Add(
                new(
                    ReasonCodes.LowQuality,
                    $"Quality {attempt.Quality}, below {range.Ceiling + 1}, to stay within {slot.Limits.MaxBytes}: "
                        + $"{Figures.Weight(attempt.Bytes)}. Look at it {(pixels.Moves ? "moving" : "at 100 %")}."
                )
            );
        }

        return attempt;
    }

    /// <summary>The file at a quality chosen by hand; lossless where the type has none.</summary>
    public Attempt ByHand(PictureFormat format, int quality)
    {
        if (format == PictureFormat.Png)
        {
            _losslessEncodes++;
            return Whole(_encoder.Png(), format);
        }

        var trials = TrialsOf(format);
        var setting = format == PictureFormat.Jpeg ? JpegScale.SettingFor(quality) : quality;
        return new(format, quality, trials.Dear(setting).LongLength <= Limit, () => trials.Dear(setting), trials.Measure);
    }

    public void Dispose() => _encoder.Dispose();

    private Attempt Lossy(PictureFormat format, QualityRange qualities)
    {
        var trials = TrialsOf(format);
        var range = format == PictureFormat.Jpeg ? JpegScale.SettingsFor(qualities) : qualities;
        var most = Math.Min(Limit, BandMost);
        var byWeight = () => QualitySearch.HighestWithin(range, most, trials.Weights);
        FoundQuality found;
        if (slot.Aims.Likeness is { } aim)
        {
            found = QualitySearch.LowestWithin(range, 1 - aim, trials.Losses);
            if (!found.Fits)
            {
                // Nothing in the range is alike enough: the ceiling is the nearest.
                found = new(range.Ceiling, true);
            }

            if (trials.Dear(found.Quality).LongLength > most)
            {
                found = byWeight();
            }
            else if (slot.Aims.Band is { } band && trials.Dear(found.Quality).LongLength < band.Least.Bytes)
            {
                found = Raised(trials, range with { Floor = found.Quality }, band, most);
            }
        }
        else
        {
            found = byWeight();
        }

        if (!found.Fits && BandMost < Limit)
        {
            // The band is only wanted: its top gives way before the limit does.
            found = QualitySearch.HighestWithin(range with { Ceiling = range.Floor }, Limit, trials.Weights);
        }

        var quality =
            format == PictureFormat.Jpeg
                ? Math.Clamp(JpegScale.QualityOf(found.Quality), qualities.Floor, qualities.Ceiling)
                : found.Quality;
        var attempt = new Attempt(
            format,
            quality,
            found.Fits && trials.Dear(found.Quality).LongLength <= Limit,
            () => trials.Dear(found.Quality),
            trials.Measure
        );
        if (attempt.Fits)
        {
            Explain(attempt, qualities, found.Quality == range.Ceiling);
        }

        return attempt;
    }

    // The lowest quality that brings the weight up into the band, as far as the range and the limit go.
    private static FoundQuality Raised(Trials trials, QualityRange range, WeightBand band, double most)
    {
        var under = QualitySearch.HighestWithin(range, band.Least.Bytes - 1, trials.Weights);
        var next = Math.Min(range.Ceiling, under.Quality + 1);
        return new(trials.Dear(next).LongLength <= most ? next : under.Quality, true);
    }

    private void Explain(Attempt attempt, QualityRange range, bool atCeiling)
    {
        var bytes = attempt.Bytes;
        var capped = Cap(attempt.Format) is { } cap && cap < Uncapped(attempt.Format).Ceiling && atCeiling;
        if (capped)
        {
            attempt.Notes.Add(
                new(
                    ReasonCodes.OriginalQuality,
                    $"The original is a JPEG of quality {facts.JpegQuality}; more than {attempt.Quality} is not used unless it is "
                        + $"asked for."
                )
            );
        }

        if (slot.Aims.Likeness is { } aim && attempt.Likeness.Score < aim)
        {
            var why =
                bytes >= Math.Min(Limit, BandMost) * 0.9
                    ? $"to stay within {Figures.Weight((long)Math.Min(Limit, BandMost))}"
                    : $"quality {attempt.Quality} is the highest allowed";
            attempt.Concessions.Add(
                new(
                    ReasonCodes.Likeness,
                    $"Likeness {Figures.Number(attempt.Likeness.Score, 3)} instead of {Figures.Number(aim, 3)}: {why}."
                )
            );
        }

        if (slot.Aims.Band is not { } band)
        {
            return;
        }

        if (bytes > band.Most.Bytes)
        {
            attempt.Concessions.Add(
                new(
                    ReasonCodes.OverBand,
                    $"{Figures.Weight(bytes)} at quality {attempt.Quality}, over the {band.Most} wanted: no quality of the range is "
                        + $"lighter."
                )
            );
        }
        else if (bytes < band.Least.Bytes)
        {
            attempt.Concessions.Add(
                new(
                    ReasonCodes.UnderBand,
                    $"{Figures.Weight(bytes)}, under the {band.Least} wanted: quality {attempt.Quality} is the highest "
                        + $"{(capped ? "the original has" : "of the range")}."
                )
            );
        }
    }

    // Lossless where it fits; with a likeness aim the smallest palette that reaches it; else the full palette, as a limit's price.
    private Attempt Png()
    {
        _losslessEncodes++;
        _lossless ??= Whole(_encoder.Png(), PictureFormat.Png);
        if (slot.Aims.Likeness is { } aim)
        {
            var reaching = Palettes
                .Select(Palette)
                .TakeWhile(palette => palette.Likeness.Score >= aim)
                .LastOrDefault(palette => palette.Bytes < _lossless.Bytes);
            if (reaching is { Fits: true })
            {
                return reaching;
            }
        }

        return _lossless.Fits ? _lossless : Conceded(Palette(Palettes[0]));
    }

    private Attempt SmallPalette()
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
            _losslessEncodes++;
            var file = _encoder.PalettePng(palette.Bits, palette.Quality);
            _palettes[palette] = attempt = new(
                PictureFormat.Png,
                null,
                file.LongLength <= Limit,
                () => file,
                new LikenessGauge(_encoder.Reference(PictureFormat.Png)).Measure
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
                    $"Reduced to few colours, likeness {Figures.Number(palette.Likeness.Score, 3)}: lossless it would weigh "
                        + $"{Figures.Weight(_lossless!.Bytes)} of {slot.Limits.MaxBytes}."
                )
            );
        }

        return palette;
    }

    private Attempt LosslessWebP()
    {
        _losslessEncodes++;
        return Whole(_encoder.LosslessWebP(), PictureFormat.WebP);
    }

    private Attempt Whole(byte[] file, PictureFormat format) =>
        new(
            format,
            null,
            file.LongLength <= Limit,
            () => file,
            _ => Equal with { WorstTile = new(0, 0, pixels.Size.Width, pixels.Size.Height) }
        );

    private static Attempt Lighter(Attempt lossless, Attempt lossy) =>
        lossless.Fits && (!lossy.Fits || lossy.Concessions.Count > 0 || lossless.Bytes <= lossy.Bytes) ? lossless : lossy;

    private QualityRange RangeOf(PictureFormat format) =>
        Cap(format) is { } cap ? Uncapped(format).CappedAt(cap, slot.Aims.Quality is not null) : Uncapped(format);

    private QualityRange Uncapped(PictureFormat format) => slot.Aims.Quality ?? QualityRange.Comfortable(format);

    // What a JPEG original was worth, in the numbers of the type that is written.
    private int? Cap(PictureFormat format) =>
        facts.JpegQuality is not { } original
            ? null
            : format switch
            {
                PictureFormat.Avif => Math.Max(
                    1,
                    original * QualityRange.Comfortable(format).Ceiling / QualityRange.Comfortable(PictureFormat.Jpeg).Ceiling
                ),
                _ => original,
            };

    private Trials TrialsOf(PictureFormat format) =>
        _trials.TryGetValue(format, out var known) ? known : _trials[format] = new(_encoder, format, cancel);
}

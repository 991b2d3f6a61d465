using Pantomet.Core;
using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Core.Weight;
using Pantomet.Imaging.Rendering;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Making;

/// <summary>
/// Finds the best file of one rendering in one type: the smallest that reaches the likeness aim, within limit, band, floor and ceiling.
/// </summary>
/// <param name="pixels">What is encoded.</param>
/// <param name="slot">The slot.</param>
/// <param name="facts">The original's facts.</param>
/// <param name="reduction">Pixels of the original for one of the file along a side.</param>
/// <param name="cancel">Stops between encodes.</param>
internal sealed class TypeSearch(RenderedPixels pixels, Slot slot, PictureFacts facts, double reduction, CancellationToken cancel)
    : IDisposable
{
    /// <summary>Beyond this likeness nothing more is to be seen, whatever weight is wanted.</summary>
    private const double NothingMore = 0.9995;

    /// <summary>The quality from which on colour at full size buys anything that could be seen (common practice).</summary>
    private const int LeastFullColour = 90;

    /// <summary>The share of a limit that an expected weight may take and be believed to stay within.</summary>
    private const double RoomEnough = 0.95;

    private readonly VariantEncoder _encoder = new(pixels, slot, facts);
    private readonly Lazy<VariantEncoder> _halved = new(() => new(pixels, slot, facts));
    private readonly Dictionary<PictureFormat, Trials> _trials = [];
    private readonly Dictionary<double, int> _numbers = [];
    private LosslessFiles? _whole;
    private Trials? _halvedJpeg;
    private bool _isColourTried;

    /// <summary>How many encodes of the whole picture were made in all types.</summary>
    public int Encodes => (_whole?.Encodes ?? 0) + _trials.Values.Sum(trials => trials.Encodes) + (_halvedJpeg?.Encodes ?? 0);

    /// <summary>How many encodes of samples of it were made.</summary>
    public int Samples => _trials.Values.Sum(trials => trials.Samples) + (_halvedJpeg?.Samples ?? 0);

    /// <summary>
    /// How much like the pixels a file must be: what the slot asks for; where it leaves the type open and asks for nothing, what is hard to
    /// see.
    /// </summary>
    public double? Aim { get; } =
        slot.Aims.Likeness ?? (slot.ByContent ? Likeness.Borders.First(border => border.Word == LikenessWord.HardToSee).Least : null);

    private LosslessFiles Whole => _whole ??= new(_encoder, pixels, slot, Aim, cancel);

    private double Limit => slot.Limits.MaxBytes?.Bytes ?? double.PositiveInfinity;

    private double BandMost => slot.Aims.Band?.Most.Bytes ?? double.PositiveInfinity;

    /// <summary>The best within floor and ceiling.</summary>
    public Attempt Comfortable(PictureFormat format) =>
        format switch
        {
            PictureFormat.Png => Whole.Png(),
            PictureFormat.WebP when facts.Kind == PictureKind.FlatGraphic => Lighter(Lossless(format), Lossy(format, Range)),
            _ => Lossy(format, Range),
        };

    /// <summary>The best below the floor; null where the type or the slot knows nothing below it.</summary>
    public Attempt? BelowFloor(PictureFormat format)
    {
        if (format == PictureFormat.Png)
        {
            return Whole.SmallPalette();
        }

        if ((slot.Aims.Quality is not null && !slot.Aims.BelowFloor) || Range.Below is not { } range)
        {
            return null;
        }

        var attempt = Lossy(format, range);
        if (attempt.Fits)
        {
            attempt.Concessions.Add(
                new(
                    ReasonCodes.LowQuality,
                    ReasonTexts.QualityBelowToStayWithinCheck(
                        attempt.Quality,
                        range.Ceiling + 1,
                        slot.Limits.MaxBytes,
                        Figures.Weight(attempt.Bytes),
                        (pixels.Moves ? "moving" : "at 100 %")
                    )
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
            return Lossless(format);
        }

        var trials = TrialsOf(format);
        var setting = trials.ExactSettingFor(quality);
        return new(format, quality, trials.Dear(setting).LongLength <= Limit, () => trials.Dear(setting), trials.Measure);
    }

    /// <summary>The file without any loss.</summary>
    /// <param name="format">png or webp.</param>
    public Attempt Lossless(PictureFormat format) => Whole.Of(format);

    /// <summary>What a file without loss is expected to weigh, from a sample; of a small picture, what it weighs.</summary>
    /// <param name="format">png or webp.</param>
    public double ExpectedLossless(PictureFormat format) => _encoder.IsPatched ? _encoder.ExpectedLossless(format) : Lossless(format).Bytes;

    /// <summary>What a file is expected to weigh that is as much like the pixels as is wanted, from a sample.</summary>
    /// <param name="format">jpeg, webp or avif.</param>
    /// <param name="aim">The likeness; null takes the highest quality that is comfortable.</param>
    public double Expected(PictureFormat format, double? aim)
    {
        var trials = TrialsOf(format);
        if (aim is not { } least || NumberFor(least) is var number && number >= Range.Ceiling)
        {
            return trials.Expected(trials.SettingFor(Range.Ceiling));
        }

        return trials.Expected(number <= Range.Floor ? FloorOf(trials, Range) : trials.SettingNear(number, 1 - least));
    }

    /// <summary>What a file of a quality number is expected to weigh, from a sample.</summary>
    /// <param name="format">jpeg, webp or avif.</param>
    /// <param name="quality">1 to 100.</param>
    public double ExpectedAt(PictureFormat format, int quality) => TrialsOf(format).Expected(TrialsOf(format).SettingFor(quality));

    /// <summary>Frees what the search made; the pixels stay.</summary>
    public void Dispose()
    {
        foreach (var trials in _trials.Values)
        {
            trials.Dispose();
        }

        _halvedJpeg?.Dispose();
        if (_halved.IsValueCreated)
        {
            _halved.Value.Dispose();
        }

        _encoder.Dispose();
    }

    private Attempt Lossy(PictureFormat format, QualityRange qualities)
    {
        var trials = TrialsOf(format);
        var most = Math.Min(Limit, BandMost);
        var found = slot.ByContent && Aim is { } aim ? AimFirst(trials, qualities, aim, most) : WeightFirst(trials, qualities, most);
        if (slot.Aims.Band is { } band && found.Fits && IsUnder(trials, band, found))
        {
            found = Heavier(trials, qualities, found, band, most);
        }

        found = AtFloorAtLeast(trials, qualities, found, most);
        var atCeiling = found.Fits && found.Quality == trials.SettingFor(qualities.Ceiling);
        if (atCeiling && trials.ExactSettingFor(qualities.Ceiling) is var exact && IsWithin(trials, exact, most))
        {
            found = new(exact, true);
        }

        var attempt = new Attempt(
            format,
            atCeiling ? qualities.Ceiling : NumberOf(trials, qualities, found),
            found.Fits && trials.Dear(found.Quality).LongLength <= Limit,
            () => trials.Dear(found.Quality),
            trials.Measure
        )
        {
            AtCeiling = atCeiling,
        };
        if (attempt.Fits)
        {
            Explain(attempt);
        }

        return attempt;
    }

    // Only a band leads above the ceiling; an estimate does not.
    private static int NumberOf(Trials trials, QualityRange qualities, FoundQuality found) =>
        Math.Clamp(
            trials.NumberOf(found.Quality),
            qualities.Floor,
            found.Quality > trials.SettingFor(qualities.Ceiling) ? QualityRange.Highest : qualities.Ceiling
        );

    // The heaviest that fits; only where it leaves room below the aim is less looked for.
    private FoundQuality WeightFirst(Trials trials, QualityRange qualities, double most)
    {
        if (Aim is { } wanted && !double.IsPositiveInfinity(most) && ReachedWithin(trials, qualities, wanted, most) is { } reached)
        {
            return reached;
        }

        var ceiling = trials.SettingFor(qualities.Ceiling);
        var found = QualitySearch.IsPlainlyWithin(ceiling, most, trials.Weights)
            ? new(ceiling, true)
            : QualitySearch.HighestWithin(trials.SettingsFor(qualities), most, trials.Weights);
        return Aim is { } aim && found.Fits
            ? Lowered(trials, trials.SettingsFor(qualities) with { Ceiling = found.Quality }, aim, double.IsPositiveInfinity(most))
            : found;
    }

    // Where a sample tells that the aim leaves room below the limit, only the aim is sought.
    private FoundQuality? ReachedWithin(Trials trials, QualityRange qualities, double aim, double most)
    {
        if (!(trials.Expected(SettingNear(trials, aim)) < most * RoomEnough))
        {
            return null;
        }

        var range = trials.SettingsFor(qualities);
        var at = Math.Clamp(Reaching(trials, aim), range.Floor, range.Ceiling);
        return IsWithin(trials, at, most) ? new(at, true) : null;
    }

    // Where types compete only the aim counts, and mostly it leaves room below any limit.
    private FoundQuality AimFirst(Trials trials, QualityRange qualities, double aim, double most)
    {
        var number = NumberFor(aim);
        var at =
            number >= qualities.Ceiling ? trials.SettingFor(qualities.Ceiling)
            : number <= qualities.Floor ? FloorOf(trials, qualities)
            : Reaching(trials, aim);
        return IsWithin(trials, at, most)
            ? new(at, true)
            : QualitySearch.HighestWithin(new(Math.Min(at, trials.SettingsFor(qualities).Floor), at), most, trials.Weights);
    }

    // JPEG's number for a likeness: the same for every type.
    private int NumberFor(double aim)
    {
        if (!_numbers.TryGetValue(aim, out var number))
        {
            _numbers[aim] = number = TrialsOf(PictureFormat.Jpeg).NumberNear(QualityRange.Comfortable.Ceiling, 1 - aim);
        }

        return number;
    }

    private static int FloorOf(Trials trials, QualityRange qualities) =>
        trials.Format == PictureFormat.Jpeg ? trials.SettingsFor(qualities).Floor : trials.SettingFor(qualities.Floor);

    // Of a type other than JPEG the number is known when the place is; below the floor, the floor is what is left to try.
    private FoundQuality AtFloorAtLeast(Trials trials, QualityRange qualities, FoundQuality found, double most)
    {
        var isBelow = found.Fits && trials.Format != PictureFormat.Jpeg && trials.NumberOf(found.Quality) < qualities.Floor;
        if (found.Fits && !isBelow)
        {
            return found;
        }

        // The band is only wanted: its top gives way before the limit does.
        var floor = FloorOf(trials, qualities);
        return new(floor, IsWithin(trials, floor, BandMost < Limit ? Limit : most));
    }

    private static bool IsWithin(Trials trials, int setting, double most) =>
        double.IsPositiveInfinity(most) || trials.Dear(setting).LongLength <= most;

    private static bool IsUnder(Trials trials, WeightBand band, FoundQuality found) =>
        trials.Dear(found.Quality).LongLength < band.Least.Bytes;

    // A band is asking for weight: up to the ceiling, and above it where nobody wrote one down.
    private FoundQuality Heavier(Trials trials, QualityRange qualities, FoundQuality found, WeightBand band, double most)
    {
        var ceiling = trials.SettingFor(qualities.Ceiling);
        var raised = found.Quality < ceiling ? Raised(trials, new(found.Quality, ceiling), band, most) : found;
        return slot.Aims.Quality is null && raised.Quality == ceiling && IsUnder(trials, band, raised)
            ? Lifted(trials, ceiling, band, most)
            : raised;
    }

    // The lowest quality that reaches the aim; the ceiling, as the nearest, where none does.
    private FoundQuality Lowered(Trials trials, QualityRange range, double aim, bool free) =>
        !free && 1 - trials.Loss(range.Ceiling) <= aim
            ? new(range.Ceiling, true)
            : new(Math.Clamp(Reaching(trials, aim), range.Floor, range.Ceiling), true);

    private int Reaching(Trials trials, double aim) =>
        QualitySearch.LowestReaching(SettingNear(trials, aim), 1 - aim, trials.Losses, QualityScale.Slope(trials.Format));

    private int SettingNear(Trials trials, double aim) => trials.SettingNear(NumberFor(aim), 1 - aim);

    // Above the comfortable ceiling until the band is reached, or nothing more is to be seen.
    private FoundQuality Lifted(Trials trials, int ceiling, WeightBand band, double most)
    {
        if (1 - trials.Loss(ceiling) >= NothingMore)
        {
            return new(ceiling, true);
        }

        var above = new QualityRange(ceiling, trials.SettingFor(QualityRange.Highest));
        if (above.Ceiling <= above.Floor)
        {
            return new(ceiling, true);
        }

        var raised = Raised(trials, above, band, most);
        if (
            trials.Format == PictureFormat.Jpeg
            && !_encoder.KeepsColour
            && raised.Quality == above.Ceiling
            && IsUnder(trials, band, raised)
        )
        {
            var full = new QualityRange(JpegScale.FullColour(JpegScale.SettingFor(LeastFullColour)), JpegScale.FullColour(above.Ceiling));
            var coloured = Raised(trials, full, band, most);
            raised = IsWithin(trials, coloured.Quality, most) && coloured.Quality > full.Floor ? coloured : raised;
        }

        return JpegScale.IsFullColour(raised.Quality) || 1 - trials.Loss(raised.Quality) <= NothingMore
            ? raised
            : new(Math.Clamp(Reaching(trials, NothingMore), ceiling, raised.Quality), true);
    }

    // The lowest quality that brings the weight up into the band, as far as the range and the limit go.
    private static FoundQuality Raised(Trials trials, QualityRange range, WeightBand band, double most)
    {
        var under = QualitySearch.HighestWithin(range, band.Least.Bytes - 1, trials.Weights);
        var next = Math.Min(range.Ceiling, under.Quality + 1);
        return new(trials.Dear(next).LongLength <= most ? next : under.Quality, true);
    }

    private void Explain(Attempt attempt)
    {
        var bytes = attempt.Bytes;
        if (Cap is { } cap && cap < Uncapped.Ceiling && attempt.AtCeiling)
        {
            attempt.Notes.Add(new(ReasonCodes.OriginalQuality, ReasonTexts.TheOriginalIsAJPEGOf(facts.JpegQuality, attempt.Quality)));
        }

        if (_encoder.KeepsColour && attempt.Format is (PictureFormat.Jpeg or PictureFormat.Avif))
        {
            attempt.Notes.Add(new(ReasonCodes.FullColour, ReasonTexts.ColourIsKeptAtFullSize));
        }

        if (slot.Aims.Likeness is { } aim && attempt.Likeness.Score < aim)
        {
            var why =
                bytes >= Math.Min(Limit, BandMost) * 0.9
                    ? ReasonTexts.ToStayWithin(Figures.Weight((long)Math.Min(Limit, BandMost)))
                    : ReasonTexts.QualityIsTheHighestAllowed(attempt.Quality);
            attempt.Concessions.Add(
                new(
                    ReasonCodes.Likeness,
                    ReasonTexts.LikenessInsteadOf(Figures.Number(attempt.Likeness.Score, 3), Figures.Number(aim, 3), why)
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
                new(ReasonCodes.OverBand, ReasonTexts.AtQualityOverTheWantedNo(Figures.Weight(bytes), attempt.Quality, band.Most))
            );
        }
        else if (bytes < band.Least.Bytes)
        {
            attempt.Concessions.Add(
                new(ReasonCodes.UnderBand, ReasonTexts.UnderTheWanted(Figures.Weight(bytes), band.Least, WhyNoHeavier(attempt)))
            );
        }
    }

    private string WhyNoHeavier(Attempt attempt) =>
        slot.Aims.Quality is not null ? ReasonTexts.QualityIsTheHighestOfThe(attempt.Quality)
        : attempt.Likeness.Score >= NothingMore
            ? ReasonTexts.LikenessAtQualityAHigherQuality(Figures.Number(attempt.Likeness.Score, 4), attempt.Quality)
        : ReasonTexts.QualityIsTheHighestThatIs(attempt.Quality);

    private static Attempt Lighter(Attempt lossless, Attempt lossy) =>
        lossless.Fits && (!lossy.Fits || lossy.Concessions.Count > 0 || lossless.Bytes <= lossy.Bytes) ? lossless : lossy;

    private QualityRange Range => Cap is { } cap ? Uncapped.CappedAt(cap) : Uncapped;

    // Where the content chooses, what looks the same is asked for, which may take more than is comfortable.
    private QualityRange Uncapped =>
        slot.Aims.Quality ?? (slot.ByContent ? QualityRange.Comfortable with { Ceiling = QualityRange.Highest } : QualityRange.Comfortable);

    // What a JPEG original is still worth at this reduction. Who writes a range down, asks.
    private int? Cap => slot.Aims.Quality is null && facts.JpegQuality is { } original ? QualityRange.Cap(original, reduction) : null;

    private Trials TrialsOf(PictureFormat format)
    {
        if (!_isColourTried)
        {
            _isColourTried = true;
            _encoder.KeepsColour = ColourTrial.ShowsHalved(_encoder);
        }

        return _trials.TryGetValue(format, out var known) ? known : _trials[format] = new(_encoder, format, JpegBeside(format), cancel);
    }

    // What a number stands for: JPEG, with as much colour as the type can have.
    private Trials? JpegBeside(PictureFormat format) =>
        format == PictureFormat.Jpeg ? null
        : format == PictureFormat.WebP && _encoder.KeepsColour ? _halvedJpeg ??= new(_halved.Value, PictureFormat.Jpeg, null, cancel)
        : TrialsOf(PictureFormat.Jpeg);
}

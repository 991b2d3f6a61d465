using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Core.Weight;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Making;

/// <summary>
/// Trial encodes of one rendering in one type: each is made, and measured, once. Weights are searched on bands of the pixels with the cheap
/// encoder, likenesses on tiles of them; one dear encode of the bands and one cheap encode of the whole tell how they stand to the whole.
/// </summary>
/// <param name="encoder">Encodes them.</param>
/// <param name="format">jpeg, webp or avif.</param>
/// <param name="jpeg">The same in JPEG, whose quality numbers are everybody's; null for JPEG itself.</param>
/// <param name="cancel">Stops between encodes.</param>
internal sealed class Trials(VariantEncoder encoder, PictureFormat format, Trials? jpeg, CancellationToken cancel) : IDisposable
{
    // How far a file may lie from what its number stands for before it is made once more: as a share of the loss, and in likeness.
    private const double NearShare = 0.12;
    private const double NearLeast = 0.0008;
    private const double NearMost = 0.002;
    private const int MostCorrections = 3;

    // What the careful encoder loses for what the plain one of the same setting does (measured on every third of the photographs of
    // docs/weights.md; deviation 3 % for JPEG, against that 6 % for WebP and 13 % for AVIF).
    private static readonly Dictionary<PictureFormat, double> CarefulShares = new()
    {
        [PictureFormat.Jpeg] = 1.065,
        [PictureFormat.WebP] = 1.0,
        [PictureFormat.Avif] = 0.935,
    };

    // The whole loses a little less than rows of its tiles do: encoded alone, those have less around them (nine photographs at 700 and 2500 px,
    // three qualities and three types; deviation 3 % of large pictures, 5 % of small ones).
    private const double WholeOverTiles = 0.94;

    // What the dear encoder weighs for each byte of the cheap one, before anything is known of the picture (measured on open photographs).
    private static readonly Dictionary<PictureFormat, double> WeightRatios = new()
    {
        [PictureFormat.Jpeg] = 0.84,
        [PictureFormat.WebP] = 0.80,
        [PictureFormat.Avif] = 0.80,
    };

    private readonly LikenessGauge _gauge = new(encoder.Reference(format));
    private readonly Dictionary<int, byte[]> _dear = [];
    private readonly Dictionary<(int Quality, bool Dear), byte[]> _samples = [];
    private readonly Dictionary<byte[], Likeness> _likeness = new(ReferenceEqualityComparer.Instance);
    private readonly Dictionary<int, double> _plain = [];
    private readonly Dictionary<int, int> _alike = [];
    private readonly Dictionary<int, int> _numbers = [];
    private readonly Dictionary<int, double> _tileLosses = [];
    private TileTrials? _tiles;

    /// <summary>The type.</summary>
    public PictureFormat Format => format;

    /// <summary>How many encodes of the whole picture were made.</summary>
    public int Encodes { get; private set; }

    /// <summary>How many encodes of a sample of it.</summary>
    public int Samples { get; private set; }

    /// <summary>Weights in bytes, for a search.</summary>
    public IQualityProbes Weights => new WeightProbes(this);

    /// <summary>Losses of likeness, 1 − score, for a search.</summary>
    public IQualityProbes Losses => new LossProbes(this);

    /// <summary>The file as it would be delivered.</summary>
    public byte[] Dear(int quality) => Once(_dear, quality, () => encoder.Dear(format, quality), ofAll: true);

    /// <summary>The likeness of a file.</summary>
    public Likeness Measure(byte[] file)
    {
        if (!_likeness.TryGetValue(file, out var likeness))
        {
            cancel.ThrowIfCancellationRequested();
            _likeness[file] = likeness = _gauge.Measure(file);
        }

        return likeness;
    }

    /// <summary>The encoder's settings for quality numbers: the highest, and one from which on the numbers may be wanted.</summary>
    /// <param name="numbers">JPEG's numbers; of another type the lower end is rough, see <see cref="NumberOf"/>.</param>
    public QualityRange SettingsFor(QualityRange numbers)
    {
        if (jpeg is null)
        {
            return JpegScale.SettingsFor(numbers);
        }

        var ceiling = SettingFor(numbers.Ceiling);
        return new(Math.Min(ceiling, QualityScale.Usual(format, QualityRange.Unusable)), ceiling);
    }

    /// <summary>The encoder's setting that comes out as much alike as JPEG does at a quality number, told by tiles of the picture.</summary>
    /// <param name="number">1 to 100.</param>
    public int SettingFor(int number)
    {
        if (jpeg is null)
        {
            return JpegScale.SettingFor(number);
        }

        if (!_alike.TryGetValue(number, out var setting))
        {
            // Frames that are packed by what differs say nothing about a still JPEG.
            setting = QualityScale.Usual(format, number);
            _alike[number] = setting = encoder.Moves
                ? setting
                : Estimate(setting, jpeg.SampleLoss(JpegScale.SettingFor(number)), SampleLoss);
        }

        return setting;
    }

    /// <summary>
    /// The same for a file that is delivered at that number: it is held against what JPEG loses there, and what lies too far from that is
    /// corrected once.
    /// </summary>
    /// <param name="number">1 to 100.</param>
    public int ExactSettingFor(int number)
    {
        var setting = SettingFor(number);
        if (jpeg is null || encoder.Moves || !IsPatched)
        {
            return setting;
        }

        var wanted = jpeg.NumberLoss(JpegScale.SettingFor(number));
        double Off(int at) => Math.Abs(Loss(at) - wanted);
        var near = Math.Clamp(wanted * NearShare, NearLeast, NearMost);
        if (Off(setting) <= near)
        {
            return setting;
        }

        // From what the careful files lost: the plain encoder's slope is steeper, and jumps where it changes its ways. Of a small picture more
        // looks cost little.
        var looks = new List<(int At, double Loss)> { (setting, Loss(setting)) };
        while (looks.Count <= (encoder.IsLarge ? 1 : MostCorrections) && Off(looks[^1].At) > near)
        {
            var next = QualitySearch.Next(looks, wanted, QualityScale.Slope(format));
            if (looks.Exists(look => look.At == next))
            {
                break;
            }

            looks.Add((next, Loss(next)));
        }

        return looks.MinBy(look => Off(look.At)).At;
    }

    /// <summary>The setting whose loss comes nearest to a wanted one, told by tiles of the picture.</summary>
    /// <param name="number">The number at which JPEG has that loss.</param>
    /// <param name="loss">1 − likeness.</param>
    public int SettingNear(int number, double loss) =>
        Estimate(jpeg is null ? SettingFor(number) : QualityScale.Usual(format, number), loss, AimLoss);

    /// <summary>The quality number of a setting: where JPEG is as much alike.</summary>
    /// <param name="setting">1 to 100.</param>
    public int NumberOf(int setting)
    {
        if (jpeg is null)
        {
            return JpegScale.QualityOf(setting);
        }

        if (!_numbers.TryGetValue(setting, out var number))
        {
            number = QualityScale.UsualNumber(format, setting);
            _numbers[setting] = number = encoder.Moves
                ? number
                : JpegScale.QualityOf(jpeg.Estimate(JpegScale.SettingFor(number), SampleLoss(setting), jpeg.SampleLoss));
        }

        return number;
    }

    /// <summary>The number at which JPEG comes nearest to a loss.</summary>
    /// <param name="guess">Where to look first.</param>
    /// <param name="loss">1 − likeness.</param>
    public int NumberNear(int guess, double loss) => JpegScale.QualityOf(Estimate(JpegScale.SettingFor(guess), loss, AimLoss));

    /// <summary>What the whole is expected to weigh at a setting, from bands of it; of a small picture, what it weighs.</summary>
    /// <param name="setting">1 to 100.</param>
    public double Expected(int setting) => IsPatched ? Sample(setting, dear: true).Length / ShareOfSample() : Dear(setting).Length;

    /// <summary>What the file at a setting lacks in likeness: 1 − score.</summary>
    /// <param name="quality">The encoder's setting, 1 to 100.</param>
    public double Loss(int quality) => 1 - Measure(Dear(quality)).Score;

    private int Estimate(int guess, double loss, Func<int, double> lossAt) =>
        QualitySearch.Estimate(guess, loss, lossAt, QualityScale.Slope(format));

    // What the file would lack, told by a plain file of some tiles, which costs a fifteenth of it and less. All types are told on the same
    // tiles, so that what those are better or worse than the whole falls out where types are compared.
    private double SampleLoss(int setting) => IsPatched ? TileLoss(setting) * CarefulShares[format] : Loss(setting);

    // What is held against a likeness that is asked for: of a small picture the truth, which costs no more than its tiles do.
    private double AimLoss(int setting) => encoder.IsLarge ? SampleLoss(setting) * WholeOverTiles : Loss(setting);

    // What a number stands for in the whole: JPEG's own loss where its file was made anyway, else a plain one's, which costs a hundredth of
    // what it helps to find.
    private double NumberLoss(int setting)
    {
        if (_dear.ContainsKey(setting))
        {
            return Loss(setting);
        }

        return PlainLoss(setting);
    }

    private double PlainLoss(int setting)
    {
        if (!_plain.TryGetValue(setting, out var loss))
        {
            cancel.ThrowIfCancellationRequested();
            Encodes++;
            _plain[setting] = loss = (1 - _gauge.Measure(encoder.Cheap(format, setting)).Score) * CarefulShares[format];
        }

        return loss;
    }

    private double TileLoss(int setting)
    {
        if (!_tileLosses.TryGetValue(setting, out var loss))
        {
            cancel.ThrowIfCancellationRequested();
            Samples++;
            _tiles ??= new(encoder.Pixels(format), TileSample.Spread(encoder.Grid.Columns, encoder.Grid.Rows));
            _tileLosses[setting] = loss = _tiles.Loss(pixels => encoder.Plain(pixels, format, setting));
        }

        return loss;
    }

    private byte[] Sample(int quality, bool dear) =>
        dear && !IsSampled
            ? Dear(quality)
            : Once(_samples, (quality, dear), () => encoder.TrySample(format, quality, dear), ofAll: !IsSampled);

    private byte[] Once<TKey>(Dictionary<TKey, byte[]> known, TKey key, Func<byte[]> encode, bool ofAll)
        where TKey : notnull
    {
        if (!known.TryGetValue(key, out var file))
        {
            cancel.ThrowIfCancellationRequested();
            Encodes += ofAll ? 1 : 0;
            Samples += ofAll ? 0 : 1;
            known[key] = file = encode();
        }

        return file;
    }

    private sealed class WeightProbes(Trials trials) : IQualityProbes
    {
        private readonly double _share = trials.ShareOfSample();

        public double Ratio => WeightRatios[trials.Format] / _share;

        public double Cheap(int quality) => trials.Sample(quality, dear: false).LongLength;

        public double Dear(int quality) => trials.Dear(quality).LongLength;

        // On a small picture the sample is the whole, and a dear trial is as good as the file itself.
        public double RatioNear(int quality) =>
            trials.IsSampled
                ? trials.WholeOverSample(quality) * trials.Sample(quality, dear: true).Length / trials.Sample(quality, dear: false).Length
                : Ratio;
    }

    // A small picture is its own sample of tiles.
    private sealed class LossProbes(Trials trials) : IQualityProbes
    {
        public double Ratio => 1;

        public double Cheap(int quality) => trials.IsPatched ? trials.SampleLoss(quality) * WholeOverTiles : trials.PlainLoss(quality);

        public double Dear(int quality) => trials.Loss(quality);
    }

    /// <summary>Frees the tiles; the encoder stays.</summary>
    public void Dispose()
    {
        _tiles?.Dispose();
    }

    private bool IsSampled => !ReferenceEquals(encoder.Sample(format), encoder.Pixels(format));

    private bool IsPatched => encoder.IsPatched;

    private double ShareOfSample() => (double)encoder.Sample(format).Height / encoder.Pixels(format).Height;

    private double WholeOverSample(int quality)
    {
        Encodes++;
        return (double)encoder.Cheap(format, quality).Length / Sample(quality, dear: false).Length;
    }
}

using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Core.Weight;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Making;

/// <summary>
/// Trial encodes of one rendering in one type: each is made, and measured, once. Weights are searched on bands of the pixels with the cheap
/// encoder, likenesses on squares of them; one dear encode of the bands and one cheap encode of the whole tell how they stand to the whole.
/// </summary>
/// <param name="encoder">Encodes them.</param>
/// <param name="format">jpeg, webp or avif.</param>
/// <param name="jpeg">The same in JPEG, whose quality numbers are everybody's; null for JPEG itself.</param>
/// <param name="cancel">Stops between encodes.</param>
internal sealed class Trials(VariantEncoder encoder, PictureFormat format, Trials? jpeg, CancellationToken cancel)
{
    // Looks at the whole picture are dear, and the first is mostly near enough.
    private const int WholeLooks = 4;
    private const double WholeSlack = 0.08;

    // What the dear encoder weighs for each byte of the cheap one, before anything is known of the picture (measured on open photographs).
    private static readonly Dictionary<PictureFormat, double> WeightRatios = new()
    {
        [PictureFormat.Jpeg] = 0.84,
        [PictureFormat.WebP] = 0.80,
        [PictureFormat.Avif] = 0.80,
    };

    private readonly LikenessGauge _gauge = new(encoder.Reference(format));
    private readonly Lazy<LikenessGauge> _patchGauge = new(() => new(encoder.Patches(format)));
    private readonly Dictionary<int, byte[]> _dear = [];
    private readonly Dictionary<(int Quality, bool Dear), byte[]> _samples = [];
    private readonly Dictionary<int, byte[]> _patches = [];
    private readonly Dictionary<byte[], Likeness> _likeness = new(ReferenceEqualityComparer.Instance);
    private readonly Dictionary<int, int> _alike = [];
    private readonly Dictionary<int, int> _numbers = [];

    /// <summary>The type.</summary>
    public PictureFormat Format => format;

    /// <summary>How many encodes of the whole picture were made.</summary>
    public int Encodes { get; private set; }

    /// <summary>How many encodes of a sample of it.</summary>
    public int Samples { get; private set; }

    /// <summary>Weights in bytes, for a search.</summary>
    public IQualityProbes Weights => new WeightProbes(this);

    /// <summary>The file as it would be delivered.</summary>
    public byte[] Dear(int quality) => Once(_dear, quality, () => encoder.Dear(format, quality), ofAll: true);

    /// <summary>The likeness of a file.</summary>
    public Likeness Measure(byte[] file) => Measure(_gauge, file);

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

    /// <summary>The encoder's setting that comes out as much alike as JPEG does at a quality number, told by squares of the picture.</summary>
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
                : QualitySearch.Nearest(setting, jpeg.PatchLoss(JpegScale.SettingFor(number)), PatchLoss);
        }

        return setting;
    }

    /// <summary>
    /// The same brought nearer on the whole picture, for a file that is delivered at that number: squares may be off by twice as much as is
    /// seen.
    /// </summary>
    /// <param name="number">1 to 100.</param>
    public int ExactSettingFor(int number)
    {
        var setting = SettingFor(number);
        return jpeg is null || encoder.Moves || !IsPatched
            ? setting
            : QualitySearch.Nearest(setting, jpeg.Loss(JpegScale.SettingFor(number)), Loss, WholeLooks, WholeSlack);
    }

    /// <summary>The setting whose loss comes nearest to a wanted one, told by squares of the picture.</summary>
    /// <param name="number">The number at which JPEG has that loss.</param>
    /// <param name="loss">1 − likeness.</param>
    public int SettingNear(int number, double loss) =>
        QualitySearch.Nearest(jpeg is null ? SettingFor(number) : QualityScale.Usual(format, number), loss, PatchLoss);

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
            _numbers[setting] = number = encoder.Moves ? number : jpeg.NumberNear(number, PatchLoss(setting));
        }

        return number;
    }

    /// <summary>The number at which JPEG comes nearest to a loss, told by squares of the picture.</summary>
    /// <param name="guess">Where to look first.</param>
    /// <param name="loss">1 − likeness.</param>
    public int NumberNear(int guess, double loss) =>
        JpegScale.QualityOf(QualitySearch.Nearest(JpegScale.SettingFor(guess), loss, PatchLoss));

    /// <summary>What the whole is expected to weigh at a setting, from bands of it; of a small picture, what it weighs.</summary>
    /// <param name="setting">1 to 100.</param>
    public double Expected(int setting) => IsPatched ? Sample(setting, dear: true).Length / ShareOfSample() : Dear(setting).Length;

    /// <summary>What the file at a setting lacks in likeness: 1 − score.</summary>
    /// <param name="quality">The encoder's setting, 1 to 100.</param>
    public double Loss(int quality) => 1 - Measure(Dear(quality)).Score;

    private double PatchLoss(int quality) =>
        IsPatched
            ? 1 - Measure(_patchGauge.Value, Once(_patches, quality, () => encoder.TryPatches(format, quality), ofAll: false)).Score
            : Loss(quality);

    private byte[] Sample(int quality, bool dear) =>
        dear && !IsSampled
            ? Dear(quality)
            : Once(_samples, (quality, dear), () => encoder.TrySample(format, quality, dear), ofAll: !IsSampled);

    private Likeness Measure(LikenessGauge gauge, byte[] file)
    {
        if (!_likeness.TryGetValue(file, out var likeness))
        {
            cancel.ThrowIfCancellationRequested();
            _likeness[file] = likeness = gauge.Measure(file);
        }

        return likeness;
    }

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

    private bool IsSampled => !ReferenceEquals(encoder.Sample(format), encoder.Pixels(format));

    private bool IsPatched => encoder.IsPatched;

    private double ShareOfSample() => (double)encoder.Sample(format).Height / encoder.Pixels(format).Height;

    private double WholeOverSample(int quality)
    {
        Encodes++;
        return (double)encoder.Cheap(format, quality).Length / Sample(quality, dear: false).Length;
    }
}

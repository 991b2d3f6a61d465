using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Core.Weight;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Making;

/// <summary>
/// Trial encodes of one rendering in one type: each is made, and measured, once. Places are searched on a sample of the pixels with the
/// cheap
/// encoder; one dear encode of the sample and one cheap encode of the whole tell how the sample stands to the whole.
/// </summary>
internal sealed class Trials(VariantEncoder encoder, PictureFormat format, CancellationToken cancel)
{
    // What the dear encoder weighs for each byte of the cheap one, before anything is known of the picture (measured on open photographs).
    private static readonly Dictionary<PictureFormat, double> WeightRatios = new()
    {
        [PictureFormat.Jpeg] = 0.84,
        [PictureFormat.WebP] = 0.80,
        [PictureFormat.Avif] = 0.80,
    };

    private readonly LikenessGauge _gauge = new(encoder.Reference(format));
    private readonly LikenessGauge _sampleGauge = new(encoder.SampleReference(format));
    private readonly Dictionary<int, byte[]> _dear = [];
    private readonly Dictionary<(int Quality, bool Dear), byte[]> _samples = [];
    private readonly Dictionary<byte[], Likeness> _likeness = new(ReferenceEqualityComparer.Instance);

    /// <summary>How many encodes were made, those of samples included.</summary>
    public int Encodes { get; private set; }

    /// <summary>Weights in bytes, for a search.</summary>
    public IQualityProbes Weights => new WeightProbes(this);

    /// <summary>Losses of likeness, 1 − score, for a search.</summary>
    public IQualityProbes Losses => new LossProbes(this);

    /// <summary>The file as it would be delivered.</summary>
    public byte[] Dear(int quality) => Once(_dear, quality, () => encoder.Dear(format, quality));

    /// <summary>The likeness of a file.</summary>
    public Likeness Measure(byte[] file) => Measure(_gauge, file);

    private byte[] Sample(int quality, bool dear) => Once(_samples, (quality, dear), () => encoder.TrySample(format, quality, dear));

    private Likeness Measure(LikenessGauge gauge, byte[] file)
    {
        if (!_likeness.TryGetValue(file, out var likeness))
        {
            cancel.ThrowIfCancellationRequested();
            _likeness[file] = likeness = gauge.Measure(file);
        }

        return likeness;
    }

    private byte[] Once<TKey>(Dictionary<TKey, byte[]> known, TKey key, Func<byte[]> encode)
        where TKey : notnull
    {
        if (!known.TryGetValue(key, out var file))
        {
            cancel.ThrowIfCancellationRequested();
            Encodes++;
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

    private sealed class LossProbes(Trials trials) : IQualityProbes
    {
        public double Ratio => 1.15;

        public double Cheap(int quality) => 1 - trials.Measure(trials._sampleGauge, trials.Sample(quality, dear: false)).Score;

        public double Dear(int quality) => 1 - trials.Measure(trials.Dear(quality)).Score;
    }

    private PictureFormat Format => format;

    private bool IsSampled => !ReferenceEquals(encoder.Sample(format), encoder.Pixels(format));

    private double ShareOfSample() => (double)encoder.Sample(format).Height / encoder.Pixels(format).Height;

    private double WholeOverSample(int quality)
    {
        Encodes++;
        return (double)encoder.Cheap(format, quality).Length / Sample(quality, dear: false).Length;
    }
}

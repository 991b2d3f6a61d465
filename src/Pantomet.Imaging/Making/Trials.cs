using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Core.Weight;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Making;

/// <summary>Trial encodes of one rendering in one type: each is made, and measured, once.</summary>
internal sealed class Trials(VariantEncoder encoder, PictureFormat format, CancellationToken cancel)
{
    // What the dear encoder weighs for each byte of the cheap one, before anything is known of the picture (measured on open photographs).
    private static readonly Dictionary<PictureFormat, double> WeightRatios = new()
    {
        [PictureFormat.Jpeg] = 0.81, [PictureFormat.WebP] = 0.80, [PictureFormat.Avif] = 0.80,
    };

    private readonly LikenessGauge _gauge = new(encoder.Reference(format));
    private readonly Dictionary<int, byte[]> _cheap = [];
    private readonly Dictionary<int, byte[]> _dear = [];
    private readonly Dictionary<byte[], Likeness> _likeness = new(ReferenceEqualityComparer.Instance);

    /// <summary>How many encodes were made.</summary>
    public int Encodes { get; private set; }

    /// <summary>Weights in bytes, for a search.</summary>
    public IQualityProbes Weights => new WeightProbes(this);

    /// <summary>Losses of likeness, 1 − score, for a search.</summary>
    public IQualityProbes Losses => new LossProbes(this);

    /// <summary>The file as it would be delivered.</summary>
    public byte[] Dear(int quality) => Once(_dear, quality, encoder.Dear);

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

    private PictureFormat Format => format;

    private byte[] Cheap(int quality) => Once(_cheap, quality, encoder.Cheap);

    private byte[] Once(Dictionary<int, byte[]> known, int quality, Func<PictureFormat, int, byte[]> encode)
    {
        if (!known.TryGetValue(quality, out var file))
        {
            cancel.ThrowIfCancellationRequested();
            Encodes++;
            known[quality] = file = encode(format, quality);
        }

        return file;
    }

    private sealed class WeightProbes(Trials trials) : IQualityProbes
    {
        public double Ratio => WeightRatios[trials.Format];

        public double Cheap(int quality) => trials.Cheap(quality).LongLength;

        public double Dear(int quality) => trials.Dear(quality).LongLength;
    }

    private sealed class LossProbes(Trials trials) : IQualityProbes
    {
        public double Ratio => 1.15;

        public double Cheap(int quality) => 1 - trials.Measure(trials.Cheap(quality)).Score;

        public double Dear(int quality) => 1 - trials.Measure(trials.Dear(quality)).Score;
    }
}

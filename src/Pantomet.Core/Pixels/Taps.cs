namespace Pantomet.Core.Pixels;

/// <summary>Which pixels each pixel of the result is made of along one axis, and how much of each.</summary>
internal sealed class Taps
{
    /// <summary>Four values for each pixel, whatever it has: one step of the processor takes a whole pixel.</summary>
    public const int Lanes = 4;

    private const int Lobes = 3;

    private readonly int[] _starts;
    private readonly int[] _counts;
    private readonly float[] _weights;
    private readonly short[] _fractions;
    private readonly float[] _lanes;
    private readonly int _most;

    /// <summary>What all fractions of a pixel add up to.</summary>
    public const int Whole = 1 << 14;

    private Taps(int size, int most)
    {
        (_starts, _counts, _weights, _most) = (new int[size], new int[size], new float[size * most], most);
        (_fractions, _lanes) = (new short[size * most], new float[size * most * Lanes]);
    }

    /// <summary>How many pixels the result has.</summary>
    public int Size => _starts.Length;

    /// <summary>The first pixel that the frame touches.</summary>
    public int First { get; private init; }

    /// <summary>The one after the last.</summary>
    public int Last { get; private init; }

    /// <summary>The first pixel that a pixel of the result is made of.</summary>
    public int Start(int i) => _starts[i];

    /// <summary>How much of that one and those after it; they add up to 1.</summary>
    public ReadOnlySpan<float> Weights(int i) => _weights.AsSpan(i * _most, _counts[i]);

    /// <summary>The same in whole numbers.</summary>
    public ReadOnlySpan<short> Fractions(int i) => _fractions.AsSpan(i * _most, _counts[i]);

    /// <summary>The same, each as often as a pixel has lanes.</summary>
    public ReadOnlySpan<float> WeightsOfLanes(int i) => _lanes.AsSpan(i * _most * Lanes, _counts[i] * Lanes);

    /// <summary>Works them out.</summary>
    /// <param name="left">Where the frame begins, in pixels of the source.</param>
    /// <param name="right">Where it ends.</param>
    /// <param name="source">How many pixels the source has.</param>
    /// <param name="size">How many the result has.</param>
    public static Taps For(double left, double right, int source, int size)
    {
        var scale = (right - left) / size;
        var stretch = Math.Max(1, scale);
        var reach = Lobes * stretch;
        // The pixels that the frame touches; those outside are not of the picture's part.
        var (least, end) = (Math.Max(0, (int)Math.Floor(left + 1e-6)), Math.Min(source, (int)Math.Ceiling(right - 1e-6)));
        var most = (int)Math.Ceiling(2 * reach) + 2;
        var taps = new Taps(size, most) { First = least, Last = end };
        Span<double> weights = stackalloc double[Math.Min(most, 4096)];
        weights = most > weights.Length ? new double[most] : weights;
        for (var i = 0; i < size; i++)
        {
            var centre = left + ((i + 0.5) * scale);
            var start = Math.Clamp((int)Math.Ceiling(centre - reach - 0.5), least, end - 1);
            var count = Math.Clamp((int)Math.Floor(centre + reach - 0.5) + 1 - start, 1, Math.Min(most, end - start));
            var sum = 0.0;
            for (var k = 0; k < count; k++)
            {
                sum += weights[k] = Kernel((start + k + 0.5 - centre) / stretch);
            }

            for (var k = 0; k < count; k++)
            {
                taps._weights[(i * most) + k] = (float)(weights[k] / sum);
            }

            (taps._starts[i], taps._counts[i]) = (start, count);
            taps.Fill(i);
        }

        return taps;
    }

    // The whole numbers add up to one exactly; what rounding leaves goes where most is.
    private void Fill(int i)
    {
        var weights = Weights(i);
        var fractions = _fractions.AsSpan(i * _most, _counts[i]);
        var (left, heaviest) = (Whole, 0);
        for (var k = 0; k < weights.Length; k++)
        {
            fractions[k] = (short)MathF.Round(weights[k] * Whole);
            left -= fractions[k];
            heaviest = weights[k] > weights[heaviest] ? k : heaviest;
            _lanes.AsSpan(((i * _most) + k) * Lanes, Lanes).Fill(weights[k]);
        }

        fractions[heaviest] += (short)left;
    }

    private static double Kernel(double x)
    {
        if (Math.Abs(x) < 1e-9)
        {
            return 1;
        }

        return Math.Abs(x) >= Lobes ? 0 : Lobes * Math.Sin(Math.PI * x) * Math.Sin(Math.PI * x / Lobes) / (Math.PI * Math.PI * x * x);
    }
}

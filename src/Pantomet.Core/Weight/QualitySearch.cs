namespace Pantomet.Core.Weight;

/// <summary>What a search over quality found.</summary>
/// <typeparam name="T">The encoded file.</typeparam>
/// <param name="Quality">The quality of <paramref name="File"/>.</param>
/// <param name="File">The file itself, already encoded.</param>
/// <param name="Fits">False when even the floor is over the limit.</param>
/// <param name="Encodes">How many encodes were made, cheap and dear together.</param>
public readonly record struct FoundQuality<T>(int Quality, T File, bool Fits, int Encodes);

/// <summary>
/// Finds the highest quality whose file stays within a weight limit. Sizes of a cheap and a dear encoder move together,
/// so the place is searched with the cheap one, scaled by what the dear one weighed, and confirmed with the dear one.
/// </summary>
/// <remarks>
/// Weight against quality is monotone but for noise and nearly straight in the logarithm; the cheap search interpolates in
/// the logarithm within a bracket that shrinks with every probe.
/// </remarks>
public static class QualitySearch
{
    /// <summary>How near the limit a prediction for one more step may come and still be believed without an encode.</summary>
    private const double SureOver = 1.004;

    /// <summary>Searches.</summary>
    /// <param name="range">Floor and ceiling of the quality.</param>
    /// <param name="limit">The most bytes; null takes the ceiling.</param>
    /// <param name="cheap">Weight in bytes from the cheap encoder.</param>
    /// <param name="dear">The file from the dear encoder.</param>
    /// <param name="bytes">A file's weight in bytes.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public static FoundQuality<T> Find<T>(
        QualityRange range, long? limit, Func<int, long> cheap, Func<int, T> dear, Func<T, long> bytes, CancellationToken cancel = default)
    {
        var probe = new Probes<T>(cheap, dear, cancel);
        var top = probe.Dear(range.Ceiling);
        if (limit is not { } most || bytes(top) <= most)
        {
            return new(range.Ceiling, top, true, probe.Encodes);
        }

        // The bracket: "over" is known to be too heavy, "under" is known to fit (or lies below the floor).
        var over = range.Ceiling;
        var under = range.Floor - 1;
        T? best = default;
        var scale = bytes(top) / (double)Math.Max(1, probe.Cheap(range.Ceiling));
        while (over - under > 1)
        {
            var guess = HighestUnder(probe, Math.Max(range.Floor, under + 1), over - 1, most / scale);
            var isStep = under >= range.Floor;
            if (isStep && guess <= under + 1)
            {
                // One more step is all that is left to win; believe a clear prediction, test a close one.
                guess = under + 1;
                if (probe.Cheap(guess) * scale > most * SureOver)
                {
                    break;
                }
            }

            var file = probe.Dear(guess);
            scale = bytes(file) / (double)Math.Max(1, probe.Cheap(guess));
            if (bytes(file) <= most)
            {
                under = guess;
                best = file;
            }
            else
            {
                over = guess;
            }
        }

        return under >= range.Floor
            ? new(under, best!, true, probe.Encodes)
            : new(range.Floor, probe.Dear(range.Floor), false, probe.Encodes);
    }

    // The highest quality in [low, high] whose cheap weight is at most target; low when none is.
    private static int HighestUnder<T>(Probes<T> probe, int low, int high, double target)
    {
        if (probe.Cheap(low) > target)
        {
            return low;
        }

        if (probe.Cheap(high) <= target)
        {
            return high;
        }

        while (high - low > 1)
        {
            var (atLow, atHigh) = (Math.Log(probe.Cheap(low)), Math.Log(probe.Cheap(high)));
            var share = (Math.Log(target) - atLow) / Math.Max(1e-9, atHigh - atLow);
            var middle = Math.Clamp(low + (int)Math.Floor(share * (high - low)), low + 1, high - 1);
            if (probe.Cheap(middle) <= target)
            {
                low = middle;
            }
            else
            {
                high = middle;
            }
        }

        return low;
    }

    // Remembers every encode, so that none is made twice.
    private sealed class Probes<T>(Func<int, long> cheap, Func<int, T> dear, CancellationToken cancel)
    {
        private readonly Dictionary<int, long> _cheap = [];
        private readonly Dictionary<int, T> _dear = [];

        public int Encodes { get; private set; }

        public long Cheap(int quality) => Once(_cheap, quality, cheap);

        public T Dear(int quality) => Once(_dear, quality, dear);

        private TValue Once<TValue>(Dictionary<int, TValue> known, int quality, Func<int, TValue> encode)
        {
            if (!known.TryGetValue(quality, out var value))
            {
                cancel.ThrowIfCancellationRequested();
                Encodes++;
                known[quality] = value = encode(quality);
            }

            return value;
        }
    }
}

namespace Pantomet.Core.Weight;

/// <summary>What a search over quality found.</summary>
/// <param name="Quality">The quality found; the range's last resort when nothing fits.</param>
/// <param name="Fits">False when no quality of the range does.</param>
public readonly record struct FoundQuality(int Quality, bool Fits);

/// <summary>How a search asks for trial encodes. Each is made once, however often it is asked for.</summary>
public interface IQualityProbes
{
    /// <summary>What the cheap encoder gives at a quality: an estimate that moves with the dear one's.</summary>
    public double Cheap(int quality);

    /// <summary>What the dear encoder gives at a quality: the truth.</summary>
    public double Dear(int quality);

    /// <summary>
    /// What the dear encoder is expected to give as a multiple of the cheap one, before anything is known of the picture.
    /// </summary>
    public double Ratio { get; }

    /// <summary>The same from a look at the picture near a quality, for less than a dear encode.</summary>
    public double RatioNear(int quality) => Ratio;
}

/// <summary>
/// Finds a quality: the highest whose weight stays within a limit, the lowest whose loss of likeness does, or the one whose loss comes
/// nearest. For the first, a cheap and a dear encoder move together, so the place is searched with the cheap one, scaled by what the dear
/// one gave, and confirmed with the dear one.
/// </summary>
/// <remarks>
/// Weight against quality is monotone but for noise and nearly straight in the logarithm; so is the loss of likeness, falling. The
/// cheap search interpolates in the logarithm within a bracket that shrinks with every probe.
/// </remarks>
public static class QualitySearch
{
    // Nothing weighs or loses less, so that logarithms can be taken.
    private const double Least = 1e-12;

    // Estimating: how many looks at most, how near one must lie that no other is taken, and how far from the usual slope is believed.
    private const int MostLooksAhead = 3;
    private const int NearStep = 3;
    private const double Steepest = 1.5;
    private const double Flattest = 0.6;

    private const int MostLooks = 5;

    // At how many qualities the ratio of the encoders is foretold.
    private const int MostForetold = 3;

    // The slope is not the same from end to end: no step goes further than it can be trusted.
    private const double LongestStep = 15;

    // How much of the loss that is allowed must be used up for a search to end.
    private const double NearlyAll = 0.9;

    // How much of a loss that is allowed is aimed at: what comes out a little beyond it costs an encode.
    private const double WellWithin = 0.97;

    // How far below the limit an estimate lies when a limit plainly does not matter.
    private const double Plain = 0.6;

    /// <summary>How near the bound a prediction for one more step may come and still be believed without an encode.</summary>
    private const double Sure = 1.006;

    /// <summary>How near the bound is near enough: what a step more would win is not seen, and each costs a dear encode.</summary>
    private const double Enough = 0.985;

    /// <summary>How far over the bound the first prediction at the end of a range must lie to be believed without a dear encode.</summary>
    private const double Hopeless = 1.3;

    /// <summary>The first guess aims a little below the bound, as a guess above it costs an encode and one below does not.</summary>
    private const double Cautious = 0.994;

    /// <summary>The highest quality whose weight is at most <paramref name="most"/>.</summary>
    public static FoundQuality HighestWithin(QualityRange range, double most, IQualityProbes probes)
    {
        ArgumentNullException.ThrowIfNull(probes);
        var (low, high) = (range.Floor, range.Ceiling);
        var cheap = (int at) => Math.Max(Least, probes.Cheap(at));
        if (IsPlainlyWithin(high, most, probes))
        {
            return new(high, true);
        }

        // The bracket: "within" is known to fit (or lies before the range), "beyond" is known not to.
        var (within, beyond) = (low - 1, high + 1);
        var (foretold, corrected) = (new SortedList<int, double>(), new SortedList<int, double>());
        var expected = (int at) => cheap(at) * Between(foretold, at) * (corrected.Count == 0 ? 1 : Between(corrected, at));
        // How the encoders stand to each other changes with the quality: it is foretold where it will be needed.
        var near = Predicted(cheap, low, high, most / probes.Ratio);
        while (foretold.Count < MostForetold && !foretold.Keys.Any(known => Math.Abs(known - near) <= NearStep))
        {
            foretold[near] = probes.RatioNear(near);
            near = Predicted(expected, low, high, most);
        }

        if (expected(low) > most * Hopeless)
        {
            return new(low, false);
        }

        while (beyond - within > 1)
        {
            var guess = Predicted(expected, Math.Max(low, within + 1), beyond - 1, most * Cautious);
            if (within >= low && guess <= within + 1)
            {
                // One more step is all that is left to win; believe a clear prediction, test a close one.
                guess = within + 1;
                if (expected(guess) > most * Sure)
                {
                    break;
                }
            }

            var value = probes.Dear(guess);
            corrected[guess] = Math.Max(Least, value) / (cheap(guess) * Between(foretold, guess));
            if (value <= most)
            {
                within = guess;
                if (value >= most * Enough)
                {
                    break;
                }
            }
            else
            {
                beyond = guess;
            }
        }

        return within >= low ? new(within, true) : new(low, false);
    }

    /// <summary>True where one look at a quality shows that it is within the bound with room to spare.</summary>
    public static bool IsPlainlyWithin(int quality, double most, IQualityProbes probes)
    {
        ArgumentNullException.ThrowIfNull(probes);
        return double.IsPositiveInfinity(most)
            || (Math.Max(Least, probes.Cheap(quality)) * probes.Ratio <= most * Plain && probes.Dear(quality) <= most);
    }

    /// <summary>
    /// The setting, 1 to 100, whose loss should come nearest to a wanted one: estimated from two or three looks, and mostly not looked at
    /// itself.
    /// </summary>
    /// <param name="guess">Where to look first.</param>
    /// <param name="loss">The loss wanted: 1 − likeness.</param>
    /// <param name="lossAt">The loss at a setting; it falls with it, but for noise.</param>
    /// <param name="slope">By how much its logarithm usually falls for each step, below 0.</param>
    public static int Estimate(int guess, double loss, Func<int, double> lossAt, double slope)
    {
        ArgumentNullException.ThrowIfNull(lossAt);
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(slope, 0);
        var wanted = Math.Log(Math.Max(Least, loss));
        var looks = new List<(int At, double Loss)>();
        var next = Math.Clamp(guess, 1, 100);
        while (looks.Count < MostLooksAhead && !looks.Exists(look => Math.Abs(look.At - next) <= NearStep))
        {
            looks.Add((next, Math.Log(Math.Max(Least, lossAt(next)))));
            // A line through what was seen; its slope is held near the usual one, as single looks are off by a tenth and more.
            var (first, last) = (looks.MinBy(look => look.At), looks.MaxBy(look => look.At));
            var seen = last.At == first.At ? slope : (last.Loss - first.Loss) / (last.At - first.At);
            var fall = Math.Clamp(seen, slope * Steepest, slope * Flattest);
            // The nearer a look, the more it counts.
            double sum = 0,
                weights = 0;
            foreach (var (at, found) in looks)
            {
                var step = (wanted - found) / fall;
                var weight = 1 / (1 + (step * step));
                sum += weight * (at + step);
                weights += weight;
            }

            next = (int)
                Math.Round(Math.Clamp(sum / weights, Math.Max(1, looks[^1].At - LongestStep), Math.Min(100, looks[^1].At + LongestStep)));
        }

        return next;
    }

    /// <summary>The setting at which a loss is expected to be so many times as large as at another.</summary>
    /// <param name="setting">The other setting, 1 to 100.</param>
    /// <param name="times">How many times as large; above 0.</param>
    /// <param name="slope">By how much the logarithm of the loss changes with each step; below 0.</param>
    /// <returns>1 to 100.</returns>
    public static int Moved(int setting, double times, double slope)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(times);
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(slope, 0);
        var step = Math.Clamp(Math.Log(times) / slope, -LongestStep, LongestStep);
        return (int)Math.Clamp(setting + Math.Round(step), 1, 100);
    }

    /// <summary>The setting at which a loss is expected, from what was seen at others.</summary>
    /// <param name="looks">Settings and their losses, at least one.</param>
    /// <param name="loss">The wanted loss.</param>
    /// <param name="slope">The usual slope, where nothing better is seen; below 0.</param>
    /// <returns>1 to 100; between the two looks around the loss where there are such.</returns>
    public static int Next(IReadOnlyList<(int At, double Loss)> looks, double loss, double slope)
    {
        ArgumentNullException.ThrowIfNull(looks);
        var nearest = looks.MinBy(look => Math.Abs(Math.Log(Math.Max(Least, look.Loss) / Math.Max(Least, loss))));
        var beyond = looks.Where(look => (look.Loss > loss) != (nearest.Loss > loss)).ToList();
        var others = (beyond.Count > 0 ? beyond : [.. looks]).Where(look => look.At != nearest.At).ToList();
        if (others.Count > 0)
        {
            var other = others.MinBy(look => Math.Abs(look.At - nearest.At));
            var seen = Math.Log(Math.Max(Least, other.Loss) / Math.Max(Least, nearest.Loss)) / (other.At - nearest.At);
            // More loss at a higher setting is chance.
            slope = seen < 0 ? seen : slope;
        }

        return Moved(nearest.At, Math.Max(Least, loss) / Math.Max(Least, nearest.Loss), slope);
    }

    /// <summary>
    /// The lowest setting, 1 to 100, whose loss is at most a wanted one: sought with the cheap trials from a good guess, confirmed with the dear
    /// ones.
    /// </summary>
    /// <param name="guess">Where to look first.</param>
    /// <param name="most">The loss: 1 − likeness.</param>
    /// <param name="probes">Losses; they fall with the setting, in steps that both kinds of trials have in the same places.</param>
    /// <param name="slope">By how much the logarithm of the loss usually falls for each step, below 0.</param>
    /// <returns>A setting that is within, and little better than needed; 100 where none was found.</returns>
    public static int LowestReaching(int guess, double most, IQualityProbes probes, double slope)
    {
        ArgumentNullException.ThrowIfNull(probes);
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(slope, 0);
        var (beyond, within) = (0, 101);
        var ratio = probes.Ratio;
        var at = Math.Clamp(guess, 1, 100);
        for (var look = 0; look < MostLooks && within - beyond > 1; look++)
        {
            at = LowestCheap(at, (beyond, within), most * WellWithin / ratio, probes, slope);
            var found = Math.Max(Least, probes.Dear(at));
            ratio = found / Math.Max(Least, probes.Cheap(at));
            (beyond, within) = found <= most ? (beyond, at) : (at, within);
            // Where the next lower one is known to be too low, or would win hardly anything, no more is looked for.
            if (found <= most && (found >= most * NearlyAll || at == 1 || probes.Cheap(at - 1) * ratio > most))
            {
                break;
            }
        }

        return Math.Min(within, 100);
    }

    // The lowest setting between two others, neither of them included, whose cheap loss is at most a target; the highest where none is.
    private static int LowestCheap(int guess, (int Beyond, int Within) between, double target, IQualityProbes probes, double slope)
    {
        var (low, high) = between;
        var last = Math.Min(high - 1, 100);
        var looks = new List<(int At, double Loss)>();
        var at = Math.Clamp(guess, low + 1, last);
        while (true)
        {
            looks.Add((at, Math.Max(Least, probes.Cheap(at))));
            (low, high) = looks[^1].Loss <= target ? (low, at) : (at, high);
            if (high - low <= 1)
            {
                return Math.Min(high, last);
            }

            at = Math.Clamp(looks.Count < MostLooks ? Next(looks, target, slope) : (low + high) / 2, low + 1, Math.Min(high - 1, last));
        }
    }

    // How the dear encoder stands to the cheap one at a setting: it goes evenly from one that is known to the next.
    private static double Between(SortedList<int, double> ratios, int at)
    {
        var above = ratios.FirstOrDefault(known => known.Key >= at, ratios.Last());
        var below = ratios.LastOrDefault(known => known.Key <= at, ratios.First());
        return above.Key == below.Key
            ? above.Value
            : double.Lerp(below.Value, above.Value, Math.Clamp((double)(at - below.Key) / (above.Key - below.Key), 0, 1));
    }

    // The furthest place in [low, high] whose cheap value is at most target; low when none is.
    private static int Predicted(Func<int, double> cheap, int low, int high, double target)
    {
        if (low == high)
        {
            return low;
        }

        if (cheap(high) <= target)
        {
            return high;
        }

        if (cheap(low) > target)
        {
            return low;
        }

        while (high - low > 1)
        {
            var (atLow, atHigh) = (Math.Log(cheap(low)), Math.Log(cheap(high)));
            var share = (Math.Log(target) - atLow) / Math.Max(1e-9, atHigh - atLow);
            var middle = Math.Clamp(low + (int)Math.Floor(share * (high - low)), low + 1, high - 1);
            if (cheap(middle) <= target)
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
}

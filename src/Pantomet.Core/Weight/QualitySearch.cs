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
/// Finds the best quality on one side of a bound: the highest whose weight stays within a limit, or the lowest whose loss of likeness
/// does. A cheap and a dear encoder move together, so the place is searched with the cheap one, scaled by what the dear one gave, and
/// confirmed with the dear one.
/// </summary>
/// <remarks>
/// Weight against quality is monotone but for noise and nearly straight in the logarithm; so is the loss of likeness, falling. The
/// cheap search interpolates in the logarithm within a bracket that shrinks with every probe.
/// </remarks>
public static class QualitySearch
{
    /// <summary>How near the bound a prediction for one more step may come and still be believed without an encode.</summary>
    // How far below the limit an estimate lies when a limit plainly does not matter.
    private const double Plain = 0.6;

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
        var (at, fits) = Furthest(range.Floor, range.Ceiling, most, probes, quality => quality);
        return new(at, fits);
    }

    /// <summary>The lowest quality whose loss is at most <paramref name="most"/>.</summary>
    public static FoundQuality LowestWithin(QualityRange range, double most, IQualityProbes probes)
    {
        // Loss falls with quality, so the same search runs over the qualities mirrored.
        var (at, fits) = Furthest(-range.Ceiling, -range.Floor, most, probes, quality => -quality);
        return new(-at, fits);
    }

    // The furthest place in [low, high] whose value, growing with the place, is at most "most"; low when none is.
    private static (int At, bool Fits) Furthest(int low, int high, double most, IQualityProbes probes, Func<int, int> quality)
    {
        ArgumentNullException.ThrowIfNull(probes);
        var cheap = (int at) => Math.Max(1e-12, probes.Cheap(quality(at)));
        if (double.IsPositiveInfinity(most))
        {
            return (high, true);
        }

        // Where even the furthest place is plainly within, one look at it is enough.
        if (cheap(high) * probes.Ratio <= most * Plain && probes.Dear(quality(high)) <= most)
        {
            return (high, true);
        }

        // The bracket: "within" is known to fit (or lies before the range), "beyond" is known not to.
        var (within, beyond) = (low - 1, high + 1);
        var ratio = probes.RatioNear(quality(Predicted(cheap, low, high, most / probes.Ratio)));
        if (cheap(low) * ratio > most * Hopeless)
        {
            return (low, false);
        }

        while (beyond - within > 1)
        {
            var guess = Predicted(cheap, Math.Max(low, within + 1), beyond - 1, most * Cautious / ratio);
            if (within >= low && guess <= within + 1)
            {
                // One more step is all that is left to win; believe a clear prediction, test a close one.
                guess = within + 1;
                if (cheap(guess) * ratio > most * Sure)
                {
                    break;
                }
            }

            var value = probes.Dear(quality(guess));
            ratio = Math.Max(1e-12, value) / cheap(guess);
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

        return within >= low ? (within, true) : (low, false);
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

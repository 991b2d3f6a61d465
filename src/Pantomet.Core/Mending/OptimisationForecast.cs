namespace Pantomet.Core.Mending;

/// <summary>A picture that was tried.</summary>
/// <param name="Before">Its weight, in bytes.</param>
/// <param name="After">What it would weigh; the same where it would stay.</param>
/// <param name="Seconds">How long it took one core.</param>
public readonly record struct TriedPicture(long Before, long After, double Seconds);

/// <summary>
/// What putting a folder right would come to, told from some pictures that were really made. They are drawn by weight, each with a chance in
/// proportion to its bytes, at equal steps of the sum; so the mean of their shares estimates the share of the whole (W. Cochran, "Sampling
/// Techniques", 3rd edition, 1977, 9A.3: sampling with probability proportional to size).
/// </summary>
/// <param name="Tried">How many were made.</param>
/// <param name="All">True where those are all of them: then nothing is estimated.</param>
/// <param name="Lighter">How many of them would be replaced.</param>
/// <param name="Saved">What would be saved, in bytes.</param>
/// <param name="GiveOrTake">Two standard errors of it, in bytes; null where too few were tried.</param>
/// <param name="Seconds">How long it would take, in seconds.</param>
public sealed record OptimisationForecast(int Tried, bool All, int Lighter, long Saved, long? GiveOrTake, double Seconds)
{
    /// <summary>How many are tried at most.</summary>
    public const int MostTried = 24;

    // Of so few nobody can tell how far they are from the rest.
    private const int Fewest = 5;

    /// <summary>The pictures to try: at equal steps of the weight, so that heavy ones come as often as they weigh. All where they are few.</summary>
    /// <param name="weights">What each weighs, in bytes.</param>
    /// <returns>Their places, each once, in order.</returns>
    public static IReadOnlyList<int> Drawn(IReadOnlyList<long> weights)
    {
        ArgumentNullException.ThrowIfNull(weights);
        if (weights.Count <= MostTried)
        {
            return [.. Enumerable.Range(0, weights.Count)];
        }

        var step = weights.Sum() / (double)MostTried;
        var (drawn, sum, next) = (new List<int>(), 0.0, step / 2);
        for (var i = 0; i < weights.Count; i++)
        {
            sum += weights[i];
            if (sum < next)
            {
                continue;
            }

            drawn.Add(i);
            // One that is heavier than several steps stands for all of them.
            while (next <= sum)
            {
                next += step;
            }
        }

        return drawn;
    }

    /// <summary>Tells the whole from what was tried.</summary>
    /// <param name="tried">What was tried.</param>
    /// <param name="bytes">What all pictures that can be lightened weigh.</param>
    /// <param name="all">True where all of them were tried: then nothing is estimated.</param>
    /// <param name="jobs">How many are worked on at once.</param>
    public static OptimisationForecast Of(IReadOnlyList<TriedPicture> tried, long bytes, bool all, int jobs)
    {
        ArgumentNullException.ThrowIfNull(tried);
        var lighter = tried.Count(one => one.After < one.Before);
        if (all || tried.Count == 0)
        {
            return new(
                tried.Count,
                all,
                lighter,
                tried.Sum(one => one.Before - one.After),
                0,
                tried.Sum(one => one.Seconds) / Math.Max(1, jobs)
            );
        }

        var shares = tried.Select(one => 1 - (one.After / (double)Math.Max(1, one.Before))).ToList();
        var mean = shares.Average();
        var error = Math.Sqrt(shares.Sum(share => (share - mean) * (share - mean)) / Math.Max(1, tried.Count - 1) / tried.Count);
        return new(
            tried.Count,
            false,
            lighter,
            (long)(mean * bytes),
            tried.Count < Fewest ? null : (long)(2 * error * bytes),
            tried.Average(one => one.Seconds / Math.Max(1, one.Before)) * bytes / Math.Max(1, jobs)
        );
    }
}

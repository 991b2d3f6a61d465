using Pantomet.Core;
using Pantomet.Core.Facts;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;

namespace Pantomet.Imaging.Making;

/// <summary>Which of several types one rendering is written in.</summary>
/// <param name="search">Finds the best file of each type.</param>
/// <param name="slot">The slot.</param>
/// <param name="kind">Photograph or flat graphic.</param>
internal sealed class TypeContest(TypeSearch search, Slot slot, PictureKind kind)
{
    /// <summary>How much more a flat graphic may weigh to come without any loss (common practice: lines and letters show it first).</summary>
    private const double WithoutLoss = 4.0 / 3;

    /// <summary>How far an estimate from a sample may be off: what looks heavier by more than this is not made.</summary>
    private const double Doubt = 1.15;

    // By how much a palette is lighter than the same without loss at most (drawings and photographs of docs/weights.md).
    private double PaletteGain => kind == PictureKind.FlatGraphic ? 8 : 4;

    /// <summary>The types in order of preference: the first that does, unless a later one is lighter and as much alike.</summary>
    /// <returns>The file; one that fits no limit where none does.</returns>
    public Attempt InOrder(IReadOnlyList<PictureFormat> types)
    {
        Attempt? lightest = null;
        foreach (var find in (Func<PictureFormat, Attempt?>[])[search.Comfortable, search.BelowFloor])
        {
            for (var i = 0; i < types.Count; i++)
            {
                var attempt = find(types[i]);
                if (attempt is { Fits: true })
                {
                    return Named(types[0], attempt, LighterOf(attempt, types.Skip(i + 1), find));
                }

                lightest = attempt is not null && (lightest is null || attempt.Bytes < lightest.Bytes) ? attempt : lightest;
            }
        }

        lightest!.Concessions.Clear();
        return lightest;
    }

    /// <summary>The lightest of the types that looks the same; a flat graphic without loss where that costs little.</summary>
    /// <returns>The file; one that fits no limit where none does.</returns>
    public Attempt Lightest(IReadOnlyList<PictureFormat> types)
    {
        var expected = types.Select(type => (Type: type, Bytes: ExpectedOf(type))).OrderBy(one => one.Bytes).ToList();
        Attempt? best = null;
        foreach (var (type, bytes) in expected)
        {
            // Where the best so far misses what is wanted, the others may do better whatever they weigh.
            if (best is null || !Reaches(best) || bytes <= best.Bytes * Doubt)
            {
                best = Better(best, search.Comfortable(type));
            }
        }

        if (!best!.Fits)
        {
            var below = expected.Select(one => search.BelowFloor(one.Type)).OfType<Attempt>().ToList();
            best = below.Aggregate(best, Better);
            if (!best.Fits)
            {
                best.Concessions.Clear();
                return best;
            }
        }

        return kind == PictureKind.FlatGraphic ? WithoutLossIfCheap(best, types) : best;
    }

    private Attempt WithoutLossIfCheap(Attempt best, IReadOnlyList<PictureFormat> types)
    {
        var lossless = types
            .Where(type => type is PictureFormat.Png or PictureFormat.WebP)
            .Select(search.Lossless)
            .MinBy(file => file.Bytes);
        return lossless is { Fits: true } && lossless.Bytes <= best.Bytes * WithoutLoss ? lossless : best;
    }

    // A photograph in a type without loss is heavier many times: a sample tells so for a fraction of the work.
    private double ExpectedOf(PictureFormat type) =>
        type switch
        {
            PictureFormat.Png => search.ExpectedLossless(type) / PaletteGain,
            PictureFormat.WebP when kind == PictureKind.FlatGraphic => Math.Min(
                search.ExpectedLossless(type),
                search.Expected(type, search.Aim)
            ),
            _ => search.Expected(type, search.Aim),
        };

    // A photograph at the highest quality that its own damage or the slot allows has nothing more to reach: without loss it would only be
    // heavier.
    private bool Reaches(Attempt attempt) =>
        attempt.Fits && (attempt.Likeness.Score >= search.Aim || (kind == PictureKind.Photograph && attempt.AtCeiling));

    // What fits before what does not; then what looks the same, the lighter first; else what comes nearest.
    private Attempt Better(Attempt? one, Attempt other)
    {
        if (one is null || !one.Fits || !other.Fits)
        {
            return one is null || (other.Fits && !one.Fits) || (other.Fits == one.Fits && other.Bytes < one.Bytes) ? other : one;
        }

        var (first, second) = (Reaches(one), Reaches(other));
        return first != second ? (first ? one : other)
            : first || SameLoss(one, other) ? (other.Bytes < one.Bytes ? other : one)
            : other.Likeness.Score > one.Likeness.Score ? other
            : one;
    }

    // A later type that is lighter and as much alike, or, where a limit is filled, no heavier and more alike.
    private Attempt LighterOf(Attempt first, IEnumerable<PictureFormat> later, Func<PictureFormat, Attempt?> find)
    {
        var best = first;
        foreach (var type in later)
        {
            var whole = first.Quality is null && first.Likeness.Score == 1 && type is PictureFormat.Png or PictureFormat.WebP;
            if (!whole && ExpectedBeside(first, type) > best.Bytes * Doubt)
            {
                continue;
            }

            var other = whole ? search.Lossless(type) : find(type);
            if (other is { Fits: true } && other.Concessions.Count <= best.Concessions.Count && Outdoes(other, best))
            {
                best = other;
            }
        }

        return best;
    }

    private double ExpectedBeside(Attempt first, PictureFormat type) =>
        type == PictureFormat.Png ? search.ExpectedLossless(type) / PaletteGain
        : first.Quality is { } quality ? search.ExpectedAt(type, quality)
        : search.Expected(type, search.Aim);

    private static bool Outdoes(Attempt other, Attempt best) =>
        (other.Bytes < best.Bytes && (SameLoss(other, best) || other.Likeness.Score > best.Likeness.Score))
        || (other.Bytes <= best.Bytes * 1.02 && !SameLoss(other, best) && other.Likeness.Score > best.Likeness.Score);

    // As near as two encoders come for one quality number.
    private static bool SameLoss(Attempt one, Attempt other)
    {
        var (first, second) = (1 - one.Likeness.Score, 1 - other.Likeness.Score);
        return Math.Abs(first - second) <= 0.0003 + (0.1 * Math.Min(first, second));
    }

    private Attempt Named(PictureFormat first, Attempt fitting, Attempt chosen)
    {
        if (fitting.Format != first)
        {
            chosen.Concessions.Add(
                new(ReasonCodes.NextType, ReasonTexts.InsteadOfToStayWithin(chosen.Format.Label(), first.Label(), slot.Limits.MaxBytes))
            );
        }
        else if (chosen != fitting)
        {
            chosen.Notes.Add(
                new(
                    ReasonCodes.LighterType,
                    ReasonTexts.InsteadOfNeedsForTheSame(
                        chosen.Format.Label(),
                        first.Label(),
                        Figures.Weight(chosen.Bytes),
                        first.Label(),
                        Figures.Weight(fitting.Bytes)
                    )
                )
            );
        }

        return chosen;
    }
}

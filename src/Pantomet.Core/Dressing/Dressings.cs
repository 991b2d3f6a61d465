using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Dressing;

/// <summary>What a dress had to give up, in sentences.</summary>
public static class Dressings
{
    /// <summary>What is told of an extended canvas.</summary>
    /// <param name="sides">Where it was extended, at least one side.</param>
    public static Reason Reason(IReadOnlyList<ExtendedSide> sides)
    {
        ArgumentNullException.ThrowIfNull(sides);
        var told = sides.Select(side =>
            $"by {Figures.Count(side.Pixels)} px {(side.Side is EdgePlace.Top or EdgePlace.Bottom ? "at the" : "on the")} "
            + $"{side.Side.ToString().ToLowerInvariant()} {(side.Colour is { } colour ? $"in its edge's colour {colour}" : "with its edge blurred, which is not even")}"
        );
        return new(ReasonCodes.Extended, $"No frame holds the keep box: the canvas is extended {string.Join(", ", told)}.");
    }

    /// <summary>The reasons; none where all is as it was asked for.</summary>
    /// <param name="slot">The slot.</param>
    /// <param name="dressed">What became of its dress.</param>
    public static IReadOnlyList<Reason> Reasons(Slot slot, Dressed dressed)
    {
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(dressed);
        var reasons = new List<Reason>();
        if (!dressed.Reached)
        {
            var (reaches, wanted) = (Figures.Contrast(dressed.Contrast!.Value), Figures.Contrast(dressed.Wanted!.Value));
            var mayFade = slot.Dress.Title?.Fade ?? slot.Dress.Fade is not null;
            reasons.Add(
                new(
                    ReasonCodes.Contrast,
                    mayFade
                        ? $"No fade makes {dressed.Ink} readable here: {reaches} at the most, {wanted} is wanted. "
                            + "Another text colour or another colour to fade to reaches more."
                        : $"{dressed.Ink} reaches {reaches} here, {wanted} is wanted. Let the picture be faded for it, or choose another text colour."
                )
            );
        }

        if (dressed.Fits is 0)
        {
            reasons.Add(
                new(ReasonCodes.TitleSize, "The title does not fit its area at any size; it is skipped. Shorten it, or give it more room.")
            );
        }
        else if (dressed.Fits is { } fits)
        {
            reasons.Add(
                new(
                    ReasonCodes.TitleSize,
                    $"The title does not fit its area at {Figures.Number(dressed.AskedSize!.Value)} px; "
                        + $"{Figures.Number(fits)} px is the largest that does, and was taken."
                )
            );
        }

        if (dressed.MissingFont is { } missing)
        {
            reasons.Add(new(ReasonCodes.Font, $"{missing} The title is set in another font."));
        }

        if (dressed.Lacking is { } lacking)
        {
            reasons.Add(
                new(
                    ReasonCodes.Font,
                    $"The title's font has no {string.Join(' ', lacking.EnumerateRunes())}; these are drawn from another."
                )
            );
        }

        if (dressed.MarkFault is { } fault)
        {
            reasons.Add(new(ReasonCodes.Mark, fault));
        }

        if (dressed.MarkCovers is { } covers)
        {
            reasons.Add(
                new(
                    ReasonCodes.Mark,
                    $"The mark covers {Figures.Percent(covers)} of what must stay whole: no corner is free of it. "
                        + "A smaller mark or a wider frame leaves it free."
                )
            );
        }

        return reasons;
    }
}

using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Dressing;

/// <summary>What a dress had to give up, in sentences.</summary>
public static class Dressings
{
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
                            + "Another ink or another colour to fade to reaches more."
                        : $"{dressed.Ink} reaches {reaches} here, {wanted} is wanted. Let the picture be faded for it, or take another ink."
                )
            );
        }

        if (dressed.Fits is { } fits)
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
            reasons.Add(new(ReasonCodes.Font, $"There is no font \"{missing}\"; the title is set in another."));
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

        return reasons;
    }
}

using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
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
            OverlayTexts.ByPx(
                Figures.Count(side.Pixels),
                (side.Side is EdgePlace.Top or EdgePlace.Bottom ? OverlayTexts.AtThe : OverlayTexts.OnThe),
                side.Side.ToString().ToLowerInvariant(),
                (side.Colour is { } colour ? OverlayTexts.InItsEdgesColour(colour) : OverlayTexts.WithItsBlurredEdgeBecauseThe)
            )
        );
        return new(ReasonCodes.Extended, OverlayTexts.NoCropHoldsTheKeepBox(string.Join(", ", told)));
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
                        ? OverlayTexts.NoFadeMakesReadableHereThe(dressed.Ink, reaches, wanted)
                        : OverlayTexts.TheContrastOfIsHereIs(dressed.Ink, reaches, wanted)
                )
            );
        }

        if (dressed.Fits is 0)
        {
            reasons.Add(new(ReasonCodes.TitleSize, OverlayTexts.TheTitleDoesNotFitIts));
        }
        else if (dressed.Fits is { } fits)
        {
            reasons.Add(
                new(
                    ReasonCodes.TitleSize,
                    OverlayTexts.TheTitleDoesNotFitIts2(Figures.Number(dressed.AskedSize!.Value), Figures.Number(fits))
                )
            );
        }

        if (dressed.MissingFont is { } missing)
        {
            reasons.Add(new(ReasonCodes.Font, OverlayTexts.TheTitleIsSetInAnother(missing)));
        }

        if (dressed.Lacking is { } lacking)
        {
            reasons.Add(new(ReasonCodes.Font, OverlayTexts.TheTitlesFontHasNoAnother(string.Join(' ', lacking.EnumerateRunes()))));
        }

        if (dressed.MarkFault is { } fault)
        {
            reasons.Add(new(ReasonCodes.Mark, fault));
        }

        if (dressed.MarkCovers is { } covers)
        {
            reasons.Add(new(ReasonCodes.Mark, OverlayTexts.TheLogoCoversOfTheKeep(Figures.Percent(covers))));
        }

        return reasons;
    }
}

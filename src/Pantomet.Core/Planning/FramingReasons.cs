using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Planning;

/// <summary>Puts into words what a frame gave up.</summary>
internal static class FramingReasons
{
    /// <summary>Adds the reasons and says whether something was conceded.</summary>
    /// <param name="picture">The picture as displayed.</param>
    /// <param name="solved">The frame.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="suggested">The suggestion that frames it; null where none does.</param>
    /// <param name="reasons">Where the reasons go.</param>
    public static Verdict Judge(PixelSize picture, SolvedFrame solved, Slot slot, Suggestion? suggested, List<Reason> reasons)
    {
        if (solved.Reshaped)
        {
            reasons.Add(new(ReasonCodes.Reshaped, ReasonTexts.TheFrameSetByHandIs(slot.FrameShape, slot.FrameShape)));
        }

        if (solved.Origin == FrameOrigin.Suggested && suggested is { } suggestion)
        {
            reasons.Add(
                new(
                    ReasonCodes.Suggested,
                    suggestion.Kind switch
                    {
                        SuggestionKind.Faces => OfFaces(suggestion, solved.Region.On(picture)),
                        SuggestionKind.PlainBackdrop => ReasonTexts.CroppedAroundTheObjectInFront,
                        SuggestionKind.EyeCatching => ReasonTexts.CroppedAroundTheMostNoticeablePart,
                        _ when suggestion.Confidence < Suggestion.Sure => ReasonTexts.CroppedAroundWhatMayBeThe,
                        _ => ReasonTexts.CroppedAroundTheSubjectConfirmOr,
                    }
                )
            );
        }

        var concedes = false;
        if (!solved.Cut.IsNone)
        {
            concedes = true;
            reasons.Add(new(ReasonCodes.KeepCut, ReasonTexts.CutsTheKeepBox(What(solved), Sides(solved.Cut), Offer(slot))));
        }
        else if (!solved.Covered.IsNone)
        {
            concedes = true;
            reasons.Add(new(ReasonCodes.KeepCovered, ReasonTexts.TheKeepBoxExtendsBeyondThe(Sides(solved.Covered), Offer(slot))));
        }

        if (solved.ShareMissed is { } reached)
        {
            concedes |= suggested is null;
            reasons.Add(
                new(
                    ReasonCodes.SubjectShare,
                    ReasonTexts.TheSubjectFillsOfTheClear(Figures.Percent(reached), Figures.Percent(slot.SubjectShare!.Value))
                )
            );
        }

        return concedes ? Verdict.Concedes : Verdict.Meets;
    }

    private static string OfFaces(Suggestion suggestion, Frame shown)
    {
        var (kept, all) = (suggestion.FacesIn(shown), suggestion.Faces?.Count ?? 0);
        return kept == all ? ReasonTexts.FacesKept(all) : ReasonTexts.SomeFacesKept(kept, all);
    }

    private static string What(SolvedFrame solved) =>
        solved.Origin == FrameOrigin.Hand ? ReasonTexts.TheFrameSetByHand : ReasonTexts.NoFrameOfThisShapeHolds;

    private static string Sides(Overhang over) =>
        string.Join(" and ", over.Sides().Select(side => ReasonTexts.ByPxAtThe(Figures.Count((long)Math.Round(side.Pixels)), side.Side)));

    private static string Offer(Slot slot) =>
        slot.Background switch
        {
            null => ReasonTexts.ShowingTheWholePictureWithMargins,
            { Colour: null } => ReasonTexts.ExtendingTheCanvasWithTheEdges,
            { } ground => ReasonTexts.ShowingTheWholePictureOnWould(ground.Colour),
        };
}

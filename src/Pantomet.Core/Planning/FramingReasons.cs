using Pantomet.Core.Framing;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Planning;

/// <summary>Puts into words what a frame gave up.</summary>
internal static class FramingReasons
{
    /// <summary>Adds the reasons and says whether something was conceded.</summary>
    public static Verdict Judge(SolvedFrame solved, Slot slot, Suggestion? suggested, List<Reason> reasons)
    {
        if (solved.Reshaped)
        {
            reasons.Add(
                new(
                    ReasonCodes.Reshaped,
                    $"The frame set by hand is not {slot.FrameShape}; the largest {slot.FrameShape} frame inside it is used."
                )
            );
        }

        if (solved.Origin == FrameOrigin.Suggested && suggested is { } suggestion)
        {
            reasons.Add(
                new(
                    ReasonCodes.Suggested,
                    suggestion.Kind switch
                    {
                        SuggestionKind.PlainBackdrop =>
                            "Framed around what stands before the plain backdrop; a suggestion until it is confirmed.",
                        SuggestionKind.EyeCatching => "Framed around what catches the eye; a suggestion until it is confirmed.",
                        _ when suggestion.Confidence < Suggestion.Sure =>
                            "Framed around what may be its subject; a suggestion until it is confirmed.",
                        _ => "Framed around its subject; a suggestion until it is confirmed.",
                    }
                )
            );
        }

        var concedes = false;
        if (!solved.Cut.IsNone)
        {
            concedes = true;
            reasons.Add(new(ReasonCodes.KeepCut, $"{What(solved)} cuts the keep box {Sides(solved.Cut)}. {Offer(slot)}"));
        }
        else if (!solved.Covered.IsNone)
        {
            concedes = true;
            reasons.Add(new(ReasonCodes.KeepCovered, $"The keep box reaches out of the clear area {Sides(solved.Covered)}. {Offer(slot)}"));
        }

        if (solved.ShareMissed is { } reached)
        {
            concedes |= suggested is null;
            reasons.Add(
                new(
                    ReasonCodes.SubjectShare,
                    $"The subject takes {Figures.Percent(reached)} of the clear area, {Figures.Percent(slot.SubjectShare!.Value)} are "
                        + $"asked: the edges of the picture allow no other frame."
                )
            );
        }

        return concedes ? Verdict.Concedes : Verdict.Meets;
    }

    private static string What(SolvedFrame solved) =>
        solved.Origin == FrameOrigin.Hand ? "The frame set by hand" : "No frame of this shape holds it: it";

    private static string Sides(Overhang over) =>
        string.Join(" and ", over.Sides().Select(side => $"by {Figures.Count((long)Math.Round(side.Pixels))} px at the {side.Side}"));

    private static string Offer(Slot slot) =>
        slot.Background switch
        {
            null => "Fitting the whole picture with margins would keep it.",
            { Colour: null } => "Extending the canvas with the edge's colour would keep it.",
            { } ground => $"Fitting the whole picture on {ground.Colour} would keep it.",
        };
}

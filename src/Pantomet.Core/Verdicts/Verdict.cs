namespace Pantomet.Core.Verdicts;

/// <summary>How a variant stands against its slot.</summary>
public enum Verdict
{
    /// <summary>Everything asked is there.</summary>
    Meets,

    /// <summary>Within every limit, by giving something up that is named.</summary>
    Concedes,

    /// <summary>A limit is broken; no file is delivered.</summary>
    Breaks,

    /// <summary>Left out because the slot says so.</summary>
    Skipped,
}

/// <summary>Why a verdict is what it is.</summary>
/// <param name="Code">One of <see cref="ReasonCodes"/>.</param>
/// <param name="Message">A sentence with the figures.</param>
public sealed record Reason(string Code, string Message);

/// <summary>The codes that reports and the API carry beside each sentence.</summary>
public static class ReasonCodes
{
    /// <summary>What people should read first: what was given up, before what is only worth knowing.</summary>
    public static IReadOnlyList<Reason> InOrder(IReadOnlyList<Reason> reasons)
    {
        ArgumentNullException.ThrowIfNull(reasons);
        // Asked for every cell of a job: most have one reason or none.
        return reasons.Count < 2 ? reasons : [.. reasons.Where(reason => !IsRemark(reason)), .. reasons.Where(IsRemark)];
    }

    private static bool IsRemark(Reason reason) =>
        reason.Code is Suggested or FirstFrame or Flattened or OriginalQuality or FullColour or LighterType or Extended;

    /// <summary>What is written over the picture does not reach the contrast that is wanted.</summary>
    public const string Contrast = "contrast";

    /// <summary>The title does not fit its area at the size that is asked for.</summary>
    public const string TitleSize = "title-size";

    /// <summary>The title's font is not there, or lacks some of its characters.</summary>
    public const string Font = "font";

    /// <summary>The place takes another number of pictures side by side.</summary>
    public const string Pair = "pair";

    /// <summary>One of the pictures that stand side by side is missing.</summary>
    public const string PairPart = "pair-part";

    /// <summary>The mark is missing, or covers what must stay whole.</summary>
    public const string Mark = "mark";

    /// <summary>The framing has fewer pixels than the slot asks for.</summary>
    public const string TooSmall = "too-small";

    /// <summary>The pixel size was reduced to the slot's largest side.</summary>
    public const string LargestSide = "largest-side";

    /// <summary>The pixel size is below the slot's smallest side.</summary>
    public const string SmallestSide = "smallest-side";

    /// <summary>The file is over the weight limit and nothing more could be given up.</summary>
    public const string OverWeight = "over-weight";

    /// <summary>The quality had to go below what is comfortable, or below the slot's floor.</summary>
    public const string LowQuality = "low-quality";

    /// <summary>The colours were reduced to a palette to meet the weight.</summary>
    public const string Palette = "palette";

    /// <summary>A later type of the slot's list was taken to meet the weight.</summary>
    public const string NextType = "next-type";

    /// <summary>A later type of the slot's list was taken because it is lighter and as much alike.</summary>
    public const string LighterType = "lighter-type";

    /// <summary>Fewer pixels than the rule allows at most, to meet the weight.</summary>
    public const string FewerPixels = "fewer-pixels";

    /// <summary>Transparency was laid on the background because the type has none.</summary>
    public const string Flattened = "flattened";

    /// <summary>A frame set by hand had another shape than the slot.</summary>
    public const string Reshaped = "reshaped";

    /// <summary>The frame cuts a keep box.</summary>
    public const string KeepCut = "keep-cut";

    /// <summary>The canvas was extended to hold a keep box.</summary>
    public const string Extended = "extended";

    /// <summary>A keep box lies partly outside the slot's clear area.</summary>
    public const string KeepCovered = "keep-covered";

    /// <summary>The subject takes another share of the clear area than the slot asks.</summary>
    public const string SubjectShare = "subject-share";

    /// <summary>The frame follows a suggestion that nobody confirmed.</summary>
    public const string Suggested = "suggested";

    /// <summary>The likeness aim was not reached.</summary>
    public const string Likeness = "likeness";

    /// <summary>The file is lighter than the band that is wanted.</summary>
    public const string UnderBand = "under-band";

    /// <summary>The file is heavier than the band that is wanted, though within the limit.</summary>
    public const string OverBand = "over-band";

    /// <summary>The quality was held to that of the original, which has lost the rest already.</summary>
    public const string OriginalQuality = "original-quality";

    /// <summary>Colour is written at full size, as halving it would show most.</summary>
    public const string FullColour = "full-colour";

    /// <summary>Colours beyond sRGB or a profile that the type or the picture could not keep.</summary>
    public const string Profile = "profile";

    /// <summary>Only the first frame of a file with several was used.</summary>
    public const string FirstFrame = "first-frame";

    /// <summary>The picture could not be drawn into a file.</summary>
    public const string Unreadable = "unreadable";

    /// <summary>A picture of a library is light enough as it is.</summary>
    public const string LightEnough = "light-enough";

    /// <summary>A delivered file has a density that its slot no longer asks for.</summary>
    public const string OtherDensity = "other-density";

    /// <summary>A delivered file has a type that its slot no longer takes.</summary>
    public const string OtherType = "other-type";

    /// <summary>A delivered file has another size or shape than its slot now asks for.</summary>
    public const string OtherSize = "other-size";

    /// <summary>A newer original has another shape than the one that frames by hand were set on.</summary>
    public const string OtherShape = "other-shape";

    /// <summary>Nobody wrote what the picture shows, for those who cannot see it.</summary>
    public const string NoAlternative = "no-alt";

    /// <summary>A place on the page has no file.</summary>
    public const string NoFile = "no-file";

    /// <summary>The file is still to be made.</summary>
    public const string Waiting = "waiting";

    /// <summary>Every code.</summary>
    public static IReadOnlySet<string> All { get; } =
        typeof(ReasonCodes).GetFields().Where(field => field.IsLiteral).Select(field => (string)field.GetRawConstantValue()!).ToHashSet();

    /// <summary>These come from the plan of a variant; all others are told by the file.</summary>
    public static bool IsOfPlan(string code) =>
        code
            is TooSmall
                or LargestSide
                or SmallestSide
                or Reshaped
                or KeepCut
                or KeepCovered
                or SubjectShare
                or Suggested
                or OtherShape
                or Pair
                or PairPart;
}

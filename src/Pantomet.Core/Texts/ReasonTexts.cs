namespace Pantomet.Core.Texts;

/// <summary>The sentences about the reasons at a file and the verdicts on it.</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class ReasonTexts
{
    public static string QualityBelowToStayWithinCheck(object? quality, int ceiling, object? maxBytes, string bytes, string moves) =>
        $"Quality {quality}, below {ceiling}, to stay within {maxBytes}: {bytes}. Check it {moves}.";

    public static string TheOriginalIsAJPEGOf(object? jpegQuality, object? quality) =>
        $"The original is a JPEG of quality {jpegQuality}; quality {quality} is the highest that is used, unless a rule asks for more.";

    public const string ColourIsKeptAtFullSize =
        "Colour is kept at full size: at half size, as usual, the edges of its strong colours would fray.";

    public static string ToStayWithin(string bandMost) => $"to stay within {bandMost}";

    public static string QualityIsTheHighestAllowed(object? quality) => $"quality {quality} is the highest allowed";

    public static string LikenessInsteadOf(string score, string aim, string why) => $"Likeness {score} instead of {aim}: {why}.";

    public static string AtQualityOverTheWantedNo(string bytes, object? quality, object? most) =>
        $"{bytes} at quality {quality}, over the {most} wanted: no quality in the range gives less.";

    public static string UnderTheWanted(string bytes, object? least, string attempt) => $"{bytes}, under the {least} wanted: {attempt}.";

    public static string QualityIsTheHighestOfThe(object? quality) => $"quality {quality} is the highest of the range";

    public static string LikenessAtQualityAHigherQuality(string score, object? quality) =>
        $"likeness {score} at quality {quality}, a higher quality shows no difference";

    public static string QualityIsTheHighestThatIs(object? quality) => $"quality {quality} is the highest that is used";

    public static string ReducedToFewColoursLikenessLossless(string score, string bytes, object? maxBytes) =>
        $"Reduced to few colours, likeness {score}. Lossless, the file would weigh {bytes}; the limit is {maxBytes}.";

    public static string InsteadOfToStayWithin(string label, string label2, object? maxBytes) =>
        $"{label} instead of {label2}, to stay within {maxBytes}.";

    public static string InsteadOfNeedsForTheSame(string label, string label2, string bytes, string label3, string bytes2) =>
        $"{label} instead of {label2}: {bytes}; {label3} needs {bytes2} for the same likeness.";

    public const string ThePictureCouldNotBeDecoded = "The picture could not be decoded or encoded for this slot.";

    public static string MadeAtToStayWithin(string size, object? limit) => $"Made at {size} to stay within {limit}.";

    public const string Animation = "animation";

    public const string FewerFramesOrAStillPicture = " Fewer frames or a still picture would weigh less.";

    public static string TheWeighsBytesOverTheLimit(
        string moves,
        string bytes,
        string attempt,
        string bytes2,
        object? maxBytes,
        string moves2
    ) => $"The {moves} weighs {bytes}{attempt}, {bytes2} bytes over the limit of {maxBytes}.{moves2}";

    public static string JPEGHasNoTransparencyItsBackground(string slot) =>
        $"JPEG has no transparency: its background is filled with {slot}.";

    public static string TheOriginalHasFramesOnlyThe(int frames) => $"The original has {frames} frames; only the first one is used.";

    public const string TheOriginalHasCMYKColoursWhich =
        "The original has CMYK colours, which browsers show incorrectly. It was converted to sRGB.";

    public const string TheEdgesColour = "the edge's colour";

    public static string AtQuality(int quality) => $" at quality {quality}";

    public const string OneOfTheCombinedPicturesCould = "One of the combined pictures could not be decoded or encoded for this slot.";

    public const string TheColoursCouldNotBeConverted = "The colours could not be converted.";

    public const string NoDifferenceAt = "no difference at 100 %";

    public const string HardToSee = "hard to see";

    public const string SlightDifference = "slight difference";

    public const string VisibleDifference = "visible difference";

    public static string IsNotAWeightGiveA(string text) =>
        $"\"{text}\" is not a weight; give a number of bytes or write it like \"500 kB\", \"1 MB\", \"300 KiB\" or \"1 MiB\"";

    public const string AWeightMustBeFromByte = "a weight must be from 1 byte to 1 000 000 MB";

    public static string Picture(int i, string message) => $"Picture {i}: {message}";

    public static string ThePicturesHaveThisSlotNeeds(string size, string size2) => $"The pictures have {size}; this slot needs {size2}. ";

    public const string Skipped = "Skipped.";

    public const string NotMade = "Not made.";

    public const string MadeInTheLargestTrueSize = "Made in the largest true size.";

    public static string TheCropHasThisSlotNeeds(string native, string content, string instead) =>
        $"The crop has {native}; this slot needs {content}. {instead}";

    public static string ThisSlotCombinesPicturesSideBy(int pair) =>
        $"This slot combines {pair} pictures side by side. Combine pictures on the bench.";

    public static string PxAreNeededAtTheWidest(string needed, string width) =>
        $"{needed} px are needed at the widest; the responsive widths end at {width} px";

    public static string TheSlotAllowsNoMore(string ends) => $"{ends}: the slot allows no more.";

    public static string TheCropHasFewerFilesAre(string ends, string native) => $"{ends}: the crop has {native}. Fewer files are made.";

    public static string TheCropHasTheSlotAsks(string native, string asked, string offered) =>
        $"The crop has {native}, the slot asks for {asked}: this is {offered} of the 1x asked for.";

    public static string TheCropHasTheSlotAsks2(string native, string asked, string offered, object? density) =>
        $"The crop has {native}, the slot asks for {asked}: this is {offered} of the {density} asked for.";

    public static string IsLargerThanTheSlotsMaximum(string size, string maxHeight, string smaller) =>
        $"{size} is larger than the slot's maximum of {maxHeight}. Made at {smaller}.";

    public static string IsSmallerThanTheSlotsMinimum(string size, string minHeight) =>
        $"{size} is smaller than the slot's minimum of {minHeight}. Choose a larger picture or a wider frame.";

    public static string PxWide(string w) => $"{w} px wide";

    public static string PxHigh(string h) => $"{h} px high";

    public static string PxOnASide(string longestSide) => $"{longestSide} px on a side";

    public static string TheFrameSetByHandIs(object? frameShape, object? frameShape2) =>
        $"The frame set by hand is not {frameShape}. The largest {frameShape2} frame inside it is used.";

    public const string CroppedAroundTheObjectInFront =
        "Cropped around the object in front of the plain background. Confirm or reject this crop.";

    public const string CroppedAroundTheMostNoticeablePart = "Cropped around the most noticeable part. Confirm or reject this crop.";

    public const string CroppedAroundWhatMayBeThe = "Cropped around what may be the subject. Confirm or reject this crop.";

    public const string CroppedAroundTheSubjectConfirmOr = "Cropped around the subject. Confirm or reject this crop.";

    public static string FacesKept(int faces) =>
        faces switch
        {
            1 => "Face kept whole. Confirm or reject this crop.",
            2 => "Two faces kept whole. Confirm or reject this crop.",
            _ => $"{faces} faces kept whole. Confirm or reject this crop.",
        };

    public static string SomeFacesKept(int kept, int faces) =>
        $"{kept} of {faces} faces kept whole: the crop is too narrow for all of them. Choose who is shown, or reject this crop.";

    public static string CutsTheKeepBox(string solved, string cut, string slot) => $"{solved} cuts the keep box {cut}. {slot}";

    public static string TheKeepBoxExtendsBeyondThe(string covered, string slot) =>
        $"The keep box extends beyond the clear area {covered}. {slot}";

    public static string TheSubjectFillsOfTheClear(string reached, string subjectShare) =>
        $"The subject fills {reached} of the clear area; the slot asks for {subjectShare}. The edges of the picture allow no other frame.";

    public const string TheFrameSetByHand = "The frame set by hand";

    public const string NoFrameOfThisShapeHolds = "No frame of this shape holds it: it";

    public static string ByPxAtThe(string pixels, string side) => $"by {pixels} px at the {side}";

    public const string ShowingTheWholePictureWithMargins = "Showing the whole picture with margins would keep it.";

    public const string ExtendingTheCanvasWithTheEdges = "Extending the canvas with the edge's colour would keep it.";

    public static string ShowingTheWholePictureOnWould(object? colour) => $"Showing the whole picture on {colour} would keep it.";
}

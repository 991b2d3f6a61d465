using System.Globalization;

namespace Pantomet.Core.Texts;

/// <summary>The sentences of a picture's history and of the log, without their subject: "set the frame for ...".</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class HistoryTexts
{
    public static string SetTheFrameFor(string slot) => $"set the frame for {slot}";

    public static string SetTheFrameForAllOfShape(string shape) => $"set the frame for all slots of shape {shape}";

    public static string TookTheFrameBackFor(string slot) => $"let the frame follow the marks again for {slot}";

    public static string TookTheFrameBackForShape(string shape) => $"let the frames of shape {shape} follow the marks again";

    public static string LetFollowMarks(string slots) => $"let the frames follow the marks again for {slots}";

    public static string Unlinked(string slot) => $"unlinked {slot} from its shape";

    public static string Linked(string slot) => $"linked {slot} to its shape again";

    public const string CopiedFramesFromHere = "copied its frames to other pictures";

    public const string GotFramesOfAnother = "gave it the frames of another picture";

    public const string DrewAKeepBox = "drew a keep box";

    public static string SetKeepBoxes(int count) =>
        count == 0 ? "removed the keep boxes" : $"set {Counted(count, "keep box", "keep boxes")}";

    public const string SetTheFocus = "set the focus";

    public const string RemovedTheFocus = "removed the focus";

    public const string ConfirmedTheSuggestedCrop = "confirmed the suggested crop";

    public const string RejectedTheSuggestedCrop = "rejected the suggested crop";

    public const string ClearedTheMarks = "cleared keep boxes and focus";

    public static string TurnedTo(double degrees) =>
        degrees == 0 ? "turned it upright" : string.Create(CultureInfo.InvariantCulture, $"turned it by {degrees:0.##} degrees");

    public static string Accepted(string slot) => $"accepted {slot}";

    public static string Skipped(string slot) => $"skipped {slot}";

    public static string Included(string slot) => $"included {slot} again";

    public static string AllowedAnyway(string slot) => $"allowed {slot} anyway";

    public static string Chose(string slot, string what) => $"chose {what} for {slot}";

    public const string AutomaticTypeAndQuality = "automatic type and quality";

    public static string Quality(int quality) => $"quality {quality}";

    public static string Dressed(string slot) => $"set text and overlay for {slot}";

    public static string Undressed(string slot) => $"took the own text and overlay away from {slot}";

    public static string GaveWords(string which) => $"wrote {which}";

    public const string Keywords = "keywords";

    public const string AlternativeText = "the alternative text";

    public const string Title = "the title";

    public const string MarkedAsDecorative = "marked it as decorative";

    public const string ForgotEverything = "forgot all decisions about it";

    public const string AddedToTheJob = "added it to the job";

    public const string RemovedFromTheJob = "removed it from the job";

    public const string TheLibraryReplacedTheOriginal = "replaced the original by one of another shape";

    public static string Undid(string what) => $"undid: {what}";

    public static string Redid(string what) => $"redid: {what}";

    public static string WentBackTo(DateTime at) =>
        string.Create(CultureInfo.InvariantCulture, $"went back to how it was on {at:yyyy-MM-dd HH:mm} UTC");

    public const string TheTurn = "the turn";

    public const string TheFocus = "the focus";

    public const string TheKeepBoxes = "the keep boxes";

    public const string TheSuggestedCrop = "the suggested crop";

    public static string TheFrameOfShape(string shape) => $"the frame of shape {shape}";

    public static string TheDecisionsFor(string slot) => $"the decisions for {slot}";

    public const string Decorative = "whether it is decorative";

    public const string SomethingElse = "something of the job";

    public static string Frames(int count) => $"set {Counted(count, "frame", "frames")}";

    public static string MarksChanged(int count) => $"changed the marks of {Counted(count, "picture", "pictures")}";

    public static string CellsDecided(int count) => $"decided about {Counted(count, "cell", "cells")}";

    public static string WordsGiven(int count) => $"wrote about {Counted(count, "picture", "pictures")}";

    public static string PicturesAdded(int count) => $"added {Counted(count, "picture", "pictures")}";

    public static string PicturesRemoved(int count) => $"removed {Counted(count, "picture", "pictures")}";

    public static string SlotsAdded(int count) => $"added {Counted(count, "slot", "slots")}";

    public static string SlotsRemoved(int count) => $"removed {Counted(count, "slot", "slots")}";

    public static string JobNamed(string? name) => name is null ? "changed the names of files" : $"named the job \"{name}\"";

    public const string UndidAStep = "undid a step";

    public const string RedidAStep = "redid a step";

    public const string WentBackWithAPicture = "went back to a moment with a picture";

    private static string Counted(int count, string one, string several) => $"{count} {(count == 1 ? one : several)}";
}

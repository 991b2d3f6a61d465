using System.Text.Json.Serialization;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Jobs.Commands;

/// <summary>
/// One decision about a job, as it was made: it says what was decided, not what the job looks like afterwards. Applied to the job as it is
/// now
/// by <see cref="JobCommands.Apply"/>, so that decisions of two people on one picture stand side by side. In JSON the member <c>do</c>
/// tells which it is.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "do")]
[JsonDerivedType(typeof(SetFrame), "set-frame")]
[JsonDerivedType(typeof(FollowMarks), "follow-marks")]
[JsonDerivedType(typeof(UnlinkCell), "unlink")]
[JsonDerivedType(typeof(LinkCell), "link")]
[JsonDerivedType(typeof(AddKeepBox), "add-keep-box")]
[JsonDerivedType(typeof(SetKeepBoxes), "set-keep-boxes")]
[JsonDerivedType(typeof(SetFocus), "set-focus")]
[JsonDerivedType(typeof(ConfirmSuggestion), "confirm-suggestion")]
[JsonDerivedType(typeof(RejectSuggestion), "reject-suggestion")]
[JsonDerivedType(typeof(ClearMarks), "clear-marks")]
[JsonDerivedType(typeof(TurnPicture), "turn")]
[JsonDerivedType(typeof(Accept), "accept")]
[JsonDerivedType(typeof(SkipCell), "skip")]
[JsonDerivedType(typeof(AllowAnyway), "allow-anyway")]
[JsonDerivedType(typeof(Choose), "choose")]
[JsonDerivedType(typeof(ChooseForSlots), "choose-for-slots")]
[JsonDerivedType(typeof(GiveWords), "give-words")]
[JsonDerivedType(typeof(DressCell), "dress")]
[JsonDerivedType(typeof(CopyFraming), "copy-framing")]
[JsonDerivedType(typeof(Forget), "forget")]
[JsonDerivedType(typeof(AddPictures), "add-pictures")]
[JsonDerivedType(typeof(RemovePictures), "remove-pictures")]
[JsonDerivedType(typeof(AddSlots), "add-slots")]
[JsonDerivedType(typeof(RemoveSlots), "remove-slots")]
[JsonDerivedType(typeof(NameJob), "name-job")]
public abstract record JobCommand
{
    /// <summary>The changed job, or a refusal; the very same job where nothing changes.</summary>
    internal abstract Outcome On(Job job, ICommandContext around);
}

/// <summary>Why a command is refused.</summary>
/// <param name="Code">For programs.</param>
/// <param name="Sentence">For people.</param>
/// <param name="Field">The member of the command that is meant; null for the whole.</param>
public sealed record CommandFault(string Code, string Sentence, string? Field = null)
{
    /// <summary>The job has no such picture.</summary>
    public const string NoSuchPicture = "no-such-picture";

    /// <summary>The job has no such slot.</summary>
    public const string NoSuchSlot = "no-such-slot";

    /// <summary>A value cannot be used.</summary>
    public const string BadValue = "bad-value";

    /// <summary>A job would hold more than it can.</summary>
    public const string TooMany = "too-many";

    internal static CommandFault Picture(string field = "picture") => new(NoSuchPicture, JobTexts.ThisPictureIsNotInThe, field);

    internal static CommandFault Slot(string field = "slot") => new(NoSuchSlot, JobTexts.ThisSlotIsNotInThe, field);
}

/// <summary>A changed job, or why it is not changed.</summary>
internal readonly record struct Outcome(Job? Job, CommandFault? Fault)
{
    public static implicit operator Outcome(Job job) => new(job, null);

    public static implicit operator Outcome(CommandFault fault) => new(null, fault);
}

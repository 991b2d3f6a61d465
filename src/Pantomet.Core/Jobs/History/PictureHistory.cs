using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Jobs.History;

/// <summary>
/// What was done with one picture of a job, as sentences without their subject. What the commands say counts; where they do not name the
/// picture, what differs afterwards is told.
/// </summary>
public static class PictureHistory
{
    /// <summary>True when a step changed something about a picture.</summary>
    /// <param name="inverse">The patch that leads back.</param>
    /// <param name="picture">The picture.</param>
    public static bool Concerns(JobPatch inverse, Guid picture)
    {
        ArgumentNullException.ThrowIfNull(inverse);
        return inverse.Decisions?.ContainsKey(picture) == true
            || inverse.PicturesOut?.Contains(picture) == true
            || inverse.PicturesIn?.Any(one => one.Picture.Id == picture) == true;
    }

    /// <summary>What commands decided about a picture.</summary>
    /// <param name="commands">The commands, in order.</param>
    /// <param name="inverse">The patch that leads back.</param>
    /// <param name="picture">The picture.</param>
    /// <param name="slotName">The name of a slot by its address.</param>
    public static IReadOnlyList<string> OfCommands(
        IReadOnlyList<JobCommand> commands,
        JobPatch inverse,
        Guid picture,
        Func<string, string> slotName
    )
    {
        ArgumentNullException.ThrowIfNull(commands);
        ArgumentNullException.ThrowIfNull(inverse);
        var said = commands.Select(command => Of(command, picture, slotName)).OfType<string>().Distinct().ToList();
        return said.Count > 0 ? said
            : inverse.Decisions?.TryGetValue(picture, out var patch) == true ? [.. Parts(patch, slotName)]
            : [];
    }

    /// <summary>What a step back or forward was about, as a list with commas.</summary>
    /// <param name="inverse">The patch that leads back from it.</param>
    /// <param name="isUndo">True for a step back: what it took back is told, not what it did.</param>
    /// <param name="picture">The picture.</param>
    /// <param name="slotName">The name of a slot by its address.</param>
    public static string OfStep(JobPatch inverse, bool isUndo, Guid picture, Func<string, string> slotName)
    {
        ArgumentNullException.ThrowIfNull(inverse);
        var came = inverse.PicturesOut?.Contains(picture) == true;
        var went = inverse.PicturesIn?.Any(one => one.Picture.Id == picture) == true;
        return came || went ? (came == isUndo ? HistoryTexts.RemovedFromTheJob : HistoryTexts.AddedToTheJob)
            : inverse.Decisions?.TryGetValue(picture, out var patch) == true ? string.Join(", ", Parts(patch, slotName))
            : HistoryTexts.SomethingElse;
    }

    /// <summary>
    /// The decisions about a picture at an earlier moment: all that was done since is taken back, the latest first. What slots had that the job
    /// no longer has is left out.
    /// </summary>
    /// <param name="job">The job as it is now.</param>
    /// <param name="picture">The picture.</param>
    /// <param name="inverses">The ways back of all that was done since, the latest first.</param>
    /// <returns>Null when the picture was not in the job all the time since.</returns>
    public static Decisions? AsItWas(Job job, Guid picture, IEnumerable<JobPatch> inverses)
    {
        ArgumentNullException.ThrowIfNull(job);
        ArgumentNullException.ThrowIfNull(inverses);
        if (job.Find(picture) is not { } now)
        {
            return null;
        }

        var decisions = now.Decisions;
        foreach (var inverse in inverses)
        {
            if (inverse.PicturesOut?.Contains(picture) == true || inverse.PicturesIn?.Any(one => one.Picture.Id == picture) == true)
            {
                return null;
            }

            if (inverse.Decisions?.TryGetValue(picture, out var patch) == true)
            {
                decisions = patch.On(decisions);
            }
        }

        return decisions with
        {
            Cells = decisions.Cells.Where(cell => job.HasSlot(cell.Key)).ToDictionary(cell => cell.Key, cell => cell.Value),
        };
    }

    private static string? Of(JobCommand command, Guid picture, Func<string, string> slotName) =>
        command switch
        {
            SetFrame frame when frame.Picture == picture => OfFrame(frame, slotName),
            FollowMarks follow => follow.Cells.Where(cell => cell.Picture == picture).Select(cell => slotName(cell.Slot)).ToList()
                is { Count: > 0 } slots
                ? HistoryTexts.LetFollowMarks(string.Join(", ", slots))
                : null,
            UnlinkCell one when one.Picture == picture => HistoryTexts.Unlinked(slotName(one.Slot)),
            LinkCell one when one.Picture == picture => HistoryTexts.Linked(slotName(one.Slot)),
            CopyFraming copy => copy.To.Contains(picture) ? HistoryTexts.GotFramesOfAnother
            : copy.Picture == picture ? HistoryTexts.CopiedFramesFromHere
            : null,
            AddPictures added when added.Pictures.Contains(picture) => HistoryTexts.AddedToTheJob,
            RemovePictures removed when removed.Pictures.Contains(picture) => HistoryTexts.RemovedFromTheJob,
            Forget one when one.Picture == picture => HistoryTexts.ForgotEverything,
            GiveWords words when words.Picture == picture => OfWords(words),
            _ => OfMarks(command, picture) ?? OfCell(command, picture, slotName),
        };

    private static string OfFrame(SetFrame frame, Func<string, string> slotName) =>
        (frame.Frame is null, frame.Slot, frame.Shape) switch
        {
            (false, { } slot, _) => HistoryTexts.SetTheFrameFor(slotName(slot)),
            (true, { } slot, _) => HistoryTexts.TookTheFrameBackFor(slotName(slot)),
            (false, _, { } shape) => HistoryTexts.SetTheFrameForAllOfShape(shape),
            (_, _, var shape) => HistoryTexts.TookTheFrameBackForShape(shape ?? ""),
        };

    private static string? OfMarks(JobCommand command, Guid picture) =>
        command switch
        {
            AddKeepBox one when one.Picture == picture => HistoryTexts.DrewAKeepBox,
            SetKeepBoxes boxes when boxes.Picture == picture => HistoryTexts.SetKeepBoxes(boxes.Boxes.Count),
            SetFocus focus when focus.Picture == picture => focus.Focus is null ? HistoryTexts.RemovedTheFocus : HistoryTexts.SetTheFocus,
            ConfirmSuggestion one when one.Picture == picture => HistoryTexts.ConfirmedTheSuggestedCrop,
            RejectSuggestion one when one.Picture == picture => HistoryTexts.RejectedTheSuggestedCrop,
            ClearMarks one when one.Picture == picture => HistoryTexts.ClearedTheMarks,
            TurnPicture turn when turn.Picture == picture => HistoryTexts.TurnedTo((turn.Quarters * 90) + turn.Degrees),
            _ => null,
        };

    private static string? OfCell(JobCommand command, Guid picture, Func<string, string> slotName) =>
        command switch
        {
            Accept one when one.Picture == picture => HistoryTexts.Accepted(slotName(one.Slot)),
            SkipCell one when one.Picture == picture => one.Skipped
                ? HistoryTexts.Skipped(slotName(one.Slot))
                : HistoryTexts.Included(slotName(one.Slot)),
            AllowAnyway one when one.Picture == picture => HistoryTexts.AllowedAnyway(slotName(one.Slot)),
            Choose one when one.Picture == picture => HistoryTexts.Chose(slotName(one.Slot), OfChoice(one.Choice)),
            DressCell one when one.Picture == picture => one.Dress is null
                ? HistoryTexts.Undressed(slotName(one.Slot))
                : HistoryTexts.Dressed(slotName(one.Slot)),
            _ => null,
        };

    private static string OfChoice(Choice? choice) =>
        string.Join(
            ", ",
            new[] { choice?.Format, choice?.Quality is { } quality ? HistoryTexts.Quality(quality) : null }
                .OfType<string>()
                .DefaultIfEmpty(HistoryTexts.AutomaticTypeAndQuality)
        );

    private static string? OfWords(GiveWords words)
    {
        string?[] given =
        [
            words.Keywords is null ? null : HistoryTexts.Keywords,
            words.Alternative is null ? null : HistoryTexts.AlternativeText,
            words.Title is null ? null : HistoryTexts.Title,
        ];
        var which = given.OfType<string>().ToList();
        return which.Count > 0 ? HistoryTexts.GaveWords(string.Join(", ", which))
            : words.Decorative is true ? HistoryTexts.MarkedAsDecorative
            : words.Decorative is false ? HistoryTexts.GaveWords(HistoryTexts.Decorative)
            : null;
    }

    private static IEnumerable<string> Parts(DecisionsPatch patch, Func<string, string> slotName)
    {
        string?[] parts =
        [
            patch.Turn is null ? null : HistoryTexts.TheTurn,
            patch.Focus is null ? null : HistoryTexts.TheFocus,
            patch.Keep is null ? null : HistoryTexts.TheKeepBoxes,
            patch.SuggestionRejected is null ? null : HistoryTexts.TheSuggestedCrop,
            patch.Keywords is null ? null : HistoryTexts.Keywords,
            patch.Alternative is null ? null : HistoryTexts.AlternativeText,
            patch.Title is null ? null : HistoryTexts.Title,
            patch.Decorative is null ? null : HistoryTexts.Decorative,
        ];
        return
        [
            .. parts.OfType<string>(),
            .. (patch.Framings?.Keys ?? []).Select(HistoryTexts.TheFrameOfShape),
            .. (patch.Cells?.Keys ?? []).Select(slot => HistoryTexts.TheDecisionsFor(slotName(slot))),
        ];
    }
}

using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Jobs.History;

/// <summary>What a list of commands did, in one line for the log of all jobs: counted by kind, without its subject.</summary>
public static class CommandSummary
{
    /// <summary>The line.</summary>
    public static string Of(IReadOnlyList<JobCommand> commands)
    {
        ArgumentNullException.ThrowIfNull(commands);
        var frames = commands.Count(command => command is SetFrame or FollowMarks or CopyFraming or UnlinkCell or LinkCell);
        var marks = commands.Count(command =>
            command
                is AddKeepBox
                    or SetKeepBoxes
                    or SetFocus
                    or ConfirmSuggestion
                    or RejectSuggestion
                    or ClearMarks
                    or TurnPicture
                    or Forget
        );
        var cells = commands.Count(command => command is Accept or SkipCell or AllowAnyway or Choose or ChooseForSlots or DressCell);
        var words = commands.Count(command => command is GiveWords);
        var added = commands.OfType<AddPictures>().Sum(command => command.Pictures.Count);
        var removed = commands.OfType<RemovePictures>().Sum(command => command.Pictures.Count);
        var slotsIn = commands.OfType<AddSlots>().Sum(command => command.Slots.Count);
        var slotsOut = commands.OfType<RemoveSlots>().Sum(command => command.Slots.Count);
        var named = commands.OfType<NameJob>().LastOrDefault();
        string?[] parts =
        [
            Said(added, HistoryTexts.PicturesAdded),
            Said(removed, HistoryTexts.PicturesRemoved),
            Said(slotsIn, HistoryTexts.SlotsAdded),
            Said(slotsOut, HistoryTexts.SlotsRemoved),
            Said(frames, HistoryTexts.Frames),
            Said(marks, HistoryTexts.MarksChanged),
            Said(cells, HistoryTexts.CellsDecided),
            Said(words, HistoryTexts.WordsGiven),
            named is null ? null : HistoryTexts.JobNamed(named.Name),
        ];
        return string.Join(", ", parts.OfType<string>().DefaultIfEmpty(HistoryTexts.SomethingElse));
    }

    private static string? Said(int count, Func<int, string> sentence) => count == 0 ? null : sentence(count);
}

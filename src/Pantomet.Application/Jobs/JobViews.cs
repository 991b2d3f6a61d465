using Pantomet.Application.Destinations;
using Pantomet.Application.Pictures;
using Pantomet.Application.Variants;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Naming;
using Pantomet.Core.Planning;
using Pantomet.Core.Verdicts;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Jobs;

/// <summary>How far a job is.</summary>
/// <param name="Files">Files that are wanted.</param>
/// <param name="Done">Files that are made.</param>
/// <param name="Failed">Files that could not be made.</param>
/// <param name="Making">Files under way now.</param>
/// <param name="Bytes">What the made files weigh together.</param>
/// <param name="SecondsLeft">
/// How long the rest takes at the pace of the last files; null while that is not known or nothing is being made.
/// </param>
public sealed record JobProgress(int Files, int Done, int Failed, int Making, long Bytes, double? SecondsLeft);

/// <summary>A job in the list of jobs.</summary>
/// <param name="Id">Identity in addresses.</param>
/// <param name="Name">Name for people.</param>
/// <param name="CreatedAt">When it was made, UTC.</param>
/// <param name="Archived">True when it was archived.</param>
/// <param name="Run">Whether its files are being made.</param>
/// <param name="Pictures">How many pictures.</param>
/// <param name="Slots">How many slots.</param>
/// <param name="First">The first pictures, for a glance.</param>
/// <param name="Progress">How far it is; null for one that is archived.</param>
/// <param name="ToReview">How many cells are to review.</param>
/// <param name="Fault">Why it cannot be read and was set aside, as a sentence; null for all others.</param>
public sealed record JobSummary(
    Guid Id,
    string Name,
    DateTime CreatedAt,
    bool Archived,
    RunState Run,
    int Pictures,
    int Slots,
    IReadOnlyList<ShownPicture> First,
    JobProgress? Progress,
    int ToReview,
    string? Fault
);

/// <summary>A picture as far as it is shown.</summary>
/// <param name="Id">Identity in addresses.</param>
/// <param name="Shown">Changes whenever its pixels do: a part of preview addresses.</param>
public sealed record ShownPicture(Guid Id, string Shown)
{
    internal static string Words(PictureRow row, Decisions decisions) => $"{row.ContentHash[..12]}-{decisions.Turn}";

    // Of pictures side by side: by all of them, and how each is turned.
    internal static string Words(IReadOnlyList<BoardPart> parts) =>
        $"{PairStore.HashOf(parts.Select(part => part.Picture.ContentHash))[..12]}-"
        + string.Join(PairStore.BetweenTurns, parts.Select(part => part.Mine.Decisions.Turn));
}

/// <summary>A picture of a job.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Shown">Changes whenever its pixels do: a part of preview addresses.</param>
/// <param name="Width">Pixels across after the turn.</param>
/// <param name="Height">Pixels down after the turn.</param>
/// <param name="Decisions">What was decided about it.</param>
/// <param name="Suggestion">The suggested keep box, after the turn.</param>
/// <param name="SuggestionKind">How it was found.</param>
/// <param name="SuggestedParts">What a frame should hold of the suggestion, in this order, after the turn.</param>
/// <param name="Faces">The faces that were found, after the turn.</param>
/// <param name="Content">Where most of the content of a picture without a subject lies, after the turn.</param>
/// <param name="Looking">True while its subject is still sought; its files wait for that.</param>
/// <param name="Words">What its files are named by; null while only a camera's number is there.</param>
public sealed record JobPictureView(
    PictureView Picture,
    string Shown,
    int Width,
    int Height,
    Decisions Decisions,
    Frame? Suggestion,
    SuggestionKind? SuggestionKind,
    IReadOnlyList<SuggestedPart> SuggestedParts,
    IReadOnlyList<Frame> Faces,
    FocusPoint? Content,
    bool Looking,
    string? Words
)
{
    internal static JobPictureView Of(BoardState state, JobPicture mine)
    {
        var row = state.Rows[mine.Id];
        var words = state.WordsOf(mine);
        if (row.Parts is { } names)
        {
            return OfPair(row, mine, words, [.. names.Select(part => part.Id)], state.PartsOf(row)!);
        }

        var size = mine.Decisions.Turn.SizeOf(row.Facts.Size);
        var suggestion = CellPlan.SuggestionOf(row.Facts, mine.Decisions.Turn);
        var subject = suggestion is { Kind: Core.Framing.SuggestionKind.Content } ? null : suggestion;
        return new(
            PictureView.Of(row),
            ShownPicture.Words(row, mine.Decisions),
            size.Width,
            size.Height,
            mine.Decisions,
            subject?.Box,
            subject?.Kind,
            subject?.Parts ?? [],
            subject?.Faces ?? [],
            subject is null && suggestion is { Box: var box } ? new((box.Left + box.Right) / 2, (box.Top + box.Bottom) / 2) : null,
            !row.SubjectSought,
            words
        );
    }

    private static JobPictureView OfPair(
        PictureRow row,
        JobPicture mine,
        string? words,
        IReadOnlyList<Guid> names,
        IReadOnlyList<BoardPart> parts
    )
    {
        var whole = parts.Count == names.Count;
        var size = whole
            ? PairPlanner.Beside([.. parts.Select(part => part.Mine.Decisions.Turn.SizeOf(part.Picture.Facts.Size))])
            : row.Facts.Size;
        return new(
            PictureView.Of(row),
            whole ? ShownPicture.Words(parts) : row.ContentHash[..12],
            size.Width,
            size.Height,
            mine.Decisions,
            null,
            null,
            [],
            [],
            null,
            parts.Any(part => !part.Picture.SubjectSought),
            words
        )
        {
            Parts = names,
        };
    }

    /// <summary>The pictures that stand side by side, from left to right; null for a single picture.</summary>
    public IReadOnlyList<Guid>? Parts { get; init; }
}

/// <summary>A slot of a job.</summary>
/// <param name="Address">"destination/slot".</param>
/// <param name="Destination">The destination's key.</param>
/// <param name="DestinationName">The destination's name.</param>
/// <param name="Slot">The slot.</param>
/// <param name="Choice">Type and quality for all pictures.</param>
public sealed record JobSlotView(string Address, string Destination, string DestinationName, SlotView Slot, Choice? Choice)
{
    internal static JobSlotView Of(JobSlot place, BoardSlot slot) =>
        new(place.Address, place.Destination, slot.Destination.Name, SlotView.Of(slot.Asked), place.Choice);
}

/// <summary>One file of a cell.</summary>
/// <param name="Id">Identity in addresses, once it is made.</param>
/// <param name="Descriptor">The density asked for, or the width of the ladder: 2x, 800w.</param>
/// <param name="Width">Pixels across.</param>
/// <param name="Height">Pixels down.</param>
/// <param name="Format">The type; null before it is made and where the slot finds it.</param>
/// <param name="Bytes">Weight; null before it is known, which is a moment before the file is made.</param>
/// <param name="Quality">1 to 100; null where there is none.</param>
/// <param name="Likeness">0 to 1; null before it is made.</param>
/// <param name="Made">True when there is a file.</param>
/// <param name="Verdict">The verdict on file and frame together.</param>
/// <param name="Allowed">True when it is handed over although it breaks a limit.</param>
public sealed record CellFile(
    string Id,
    string Descriptor,
    int Width,
    int Height,
    string? Format,
    long? Bytes,
    int? Quality,
    double? Likeness,
    bool Made,
    Verdict Verdict,
    bool Allowed
);

/// <summary>What stands in a cell.</summary>
public enum CellState
{
    /// <summary>Some file is still to be made.</summary>
    Waiting,

    /// <summary>Some file is being made.</summary>
    Making,

    /// <summary>All that can be made is made.</summary>
    Done,

    /// <summary>The picture does not go there.</summary>
    Skipped,
}

/// <summary>One picture in one slot.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
/// <param name="Sequence">The job's sequence when it stood like this; a lower one says what was before.</param>
/// <param name="Frame">Left, top, right, bottom as fractions of the turned picture.</param>
/// <param name="Width">The width that the slot asks for, in CSS pixels.</param>
/// <param name="Height">The height that the slot asks for, in CSS pixels.</param>
/// <param name="Origin">Where the frame came from.</param>
/// <param name="State">What stands in it.</param>
/// <param name="Verdict">The gravest verdict of its files.</param>
/// <param name="Codes">All reasons, by code.</param>
/// <param name="ToReview">The reasons that a person should review, by code.</param>
/// <param name="Files">The files, by density and type.</param>
public sealed record CellView(
    Guid Picture,
    string Slot,
    long Sequence,
    IReadOnlyList<double> Frame,
    int Width,
    int Height,
    FrameOrigin Origin,
    CellState State,
    Verdict Verdict,
    IReadOnlyList<string> Codes,
    IReadOnlyList<string> ToReview,
    IReadOnlyList<CellFile> Files
);

/// <summary>What a job says of itself: names and states.</summary>
/// <param name="Name">Name for people.</param>
/// <param name="Prefix">Words that every file's name begins with.</param>
/// <param name="Numbered">True when pictures without words are named after the job and counted.</param>
/// <param name="Patterns">Patterns of names by destination.</param>
/// <param name="Archived">True when it was archived.</param>
/// <param name="CanUndo">True when there is a step back.</param>
/// <param name="CanRedo">True when there is a step forward.</param>
/// <param name="Missing">Addresses of slots that the book no longer has.</param>
public sealed record JobTitle(
    string Name,
    string Prefix,
    bool Numbered,
    IReadOnlyDictionary<string, string> Patterns,
    bool Archived,
    bool CanUndo,
    bool CanRedo,
    IReadOnlyList<string> Missing
)
{
    internal static JobTitle Of(BoardState state) =>
        new(
            state.Job.Name,
            state.Job.Prefix,
            state.Job.Numbered,
            state.Job.Patterns,
            state.ArchivedAt is not null,
            state.CanUndo,
            state.CanRedo,
            [.. state.Missing.Select(place => place.Address)]
        );
}

/// <summary>A job without its cells.</summary>
/// <param name="Id">Identity in addresses.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Prefix">Words that every file's name begins with.</param>
/// <param name="Numbered">True when pictures without words are named after the job and counted.</param>
/// <param name="Patterns">Patterns of names by destination.</param>
/// <param name="Archived">True when it was archived.</param>
/// <param name="CanUndo">True when there is a step back.</param>
/// <param name="CanRedo">True when there is a step forward.</param>
/// <param name="Missing">Addresses of slots that the book no longer has.</param>
/// <param name="Run">Whether its files are being made.</param>
/// <param name="Sequence">Counts everything that was stored and told about it.</param>
/// <param name="Pictures">Its pictures.</param>
/// <param name="Slots">Its slots.</param>
public sealed record JobHead(
    Guid Id,
    string Name,
    string Prefix,
    bool Numbered,
    IReadOnlyDictionary<string, string> Patterns,
    bool Archived,
    bool CanUndo,
    bool CanRedo,
    IReadOnlyList<string> Missing,
    RunState Run,
    long Sequence,
    IReadOnlyList<JobPictureView> Pictures,
    IReadOnlyList<JobSlotView> Slots
)
{
    internal static JobHead Of(BoardState state)
    {
        var title = JobTitle.Of(state);
        return new(
            state.Id,
            title.Name,
            title.Prefix,
            title.Numbered,
            title.Patterns,
            title.Archived,
            title.CanUndo,
            title.CanRedo,
            title.Missing,
            state.Run,
            state.Sequence,
            [.. state.Shown.Select(one => JobPictureView.Of(state, one))],
            SlotsOf(state)
        );
    }

    internal static IReadOnlyList<JobSlotView> SlotsOf(BoardState state) =>
        [
            .. state
                .Job.Slots.Where(place => state.Slots.ContainsKey(place.Address))
                .OrderBy(place => state.Slots[place.Address].Rank)
                .Select(place => JobSlotView.Of(place, state.Slots[place.Address])),
        ];
}

/// <summary>A job, with its first cells or all of them.</summary>
/// <param name="Head">All but its cells.</param>
/// <param name="Cells">The cells of its first pictures.</param>
/// <param name="More">The place in <see cref="JobHead.Pictures"/> from which cells are still to be read; null when all stand here.</param>
/// <param name="Progress">How far it is.</param>
public sealed record JobView(JobHead Head, IReadOnlyList<CellView> Cells, int? More, JobProgress Progress);

/// <summary>More cells of a job.</summary>
/// <param name="Sequence">The job's sequence then.</param>
/// <param name="Cells">The cells.</param>
/// <param name="More">The place from which cells are still to be read; null when these were the last.</param>
public sealed record JobCells(long Sequence, IReadOnlyList<CellView> Cells, int? More);

/// <summary>What happened to a job, for everyone who looks at it: only what changed.</summary>
/// <param name="Sequence">
/// The job's sequence then. One more than that of the event before, when something was stored; the same for what passes. Whoever misses a
/// number reads again.
/// </param>
/// <param name="Title">Names and states, where they changed.</param>
/// <param name="Pictures">Pictures that came or changed; null when none did.</param>
/// <param name="Order">All pictures in their order, where any came or went; null otherwise.</param>
/// <param name="Slots">All slots in their order, where any changed; null otherwise.</param>
/// <param name="Cells">Cells as they stand now.</param>
/// <param name="Reread">True when more cells changed than are told at once: they are to be read again.</param>
/// <param name="Progress">How far it is.</param>
/// <param name="Run">Whether its files are being made.</param>
/// <param name="People">Who has the job open, where that changed; null otherwise.</param>
/// <param name="Change">Who decided what, where somebody did; null otherwise.</param>
/// <param name="Commented">True when somebody commented, or a comment was dealt with.</param>
public sealed record JobEvent(
    long Sequence,
    JobTitle? Title,
    IReadOnlyList<JobPictureView>? Pictures,
    IReadOnlyList<Guid>? Order,
    IReadOnlyList<JobSlotView>? Slots,
    IReadOnlyList<CellView> Cells,
    bool Reread,
    JobProgress Progress,
    RunState Run,
    IReadOnlyList<PersonInJob>? People = null,
    ChangeNote? Change = null,
    bool Commented = false
);

/// <summary>Who decided what.</summary>
/// <param name="Actor">Who; "browser" or "program" where nobody signs in.</param>
/// <param name="Did">What, as a sentence without its subject.</param>
public sealed record ChangeNote(string Actor, string Did);

/// <summary>What is on a screen, nearest first.</summary>
/// <param name="Pictures">Pictures.</param>
/// <param name="Slots">Addresses of slots.</param>
public sealed record JobViewport(IReadOnlyList<Guid> Pictures, IReadOnlyList<string> Slots)
{
    /// <summary>Nobody looks.</summary>
    internal static readonly JobViewport Nothing = new([], []);
}

/// <summary>One cell with its reasons in sentences and its files in full.</summary>
/// <param name="Cell">The cell.</param>
/// <param name="Reasons">Why, for the cell as a whole.</param>
/// <param name="Plans">What each density gets.</param>
/// <param name="Files">The files that are made, with everything known about them.</param>
public sealed record CellDetail(
    CellView Cell,
    IReadOnlyList<Reason> Reasons,
    IReadOnlyList<PlanView> Plans,
    IReadOnlyList<VariantFileView> Files
);

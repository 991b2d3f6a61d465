using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Jobs;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Jobs;

/// <summary>What of a job differs for those who show it, besides cells.</summary>
public sealed record JobDifference
{
    /// <summary>True where name or state of the job changed.</summary>
    public bool Title { get; init; }

    /// <summary>The pictures that changed.</summary>
    public IReadOnlySet<Guid> Pictures { get; init; } = new HashSet<Guid>();

    /// <summary>True where pictures were added, removed or moved.</summary>
    public bool Order { get; init; }

    /// <summary>True where the slots changed.</summary>
    public bool Slots { get; init; }
}

/// <summary>A change of one job that is written and becomes the job once it is committed.</summary>
/// <param name="Board">The job in memory.</param>
/// <param name="State">The job after the change.</param>
/// <param name="Event">What those are told who show it.</param>
public sealed record JobChange(JobBoard Board, BoardState State, JobEvent Event)
{
    /// <summary>The job's sequence afterwards.</summary>
    public long Sequence => State.Sequence;
}

/// <summary>
/// The way down of every change of a job. Within a transaction its cells and figures are written; after the commit the job in memory is
/// replaced, those who show it are told, and the making of files is woken.
/// </summary>
public sealed class JobChanges(CellJudge judge, JobNotifier notifier)
{
    // A client that is told of more cells at once reads them itself, in parts.
    private const int MostCells = 400;

    /// <summary>Writes cells and figures of a job that changed.</summary>
    /// <param name="db">The database, within a transaction, with the decisions written.</param>
    /// <param name="board">The job.</param>
    /// <param name="next">The job as it is to be, but for its figures.</param>
    /// <param name="touched">The cells that may differ.</param>
    /// <param name="difference">What else differs.</param>
    public async Task<JobChange> WriteAsync(
        PantometDb db,
        JobBoard board,
        BoardState next,
        IReadOnlySet<CellKey> touched,
        JobDifference difference
    )
    {
        var cells = touched.ToDictionary(key => key, key => board.Cell(next, key.Picture, key.Slot));
        var delta = await CellTables.StoreAsync(db, next, cells);
        var (canUndo, canRedo) = await OpenJobs.StepsAsync(db, next.Id, CancellationToken.None);
        next = next with { Sequence = board.State.Sequence + 1, Tally = board.State.Tally + delta, CanUndo = canUndo, CanRedo = canRedo };
        var (sequence, tally, pictures) = (next.Sequence, next.Tally, next.Rows.Count);
        await db
            .Jobs.Where(row => row.Id == next.Id)
            .ExecuteUpdateAsync(set =>
                set.SetProperty(row => row.Sequence, sequence)
                    .SetProperty(row => row.Pictures, pictures)
                    .SetProperty(row => row.Files, tally.Files)
                    .SetProperty(row => row.Done, tally.Done)
                    .SetProperty(row => row.Failed, tally.Failed)
                    .SetProperty(row => row.Bytes, tally.Bytes)
                    .SetProperty(row => row.Left, tally.Left)
                    .SetProperty(row => row.ToReview, tally.ToReview)
                    .SetProperty(row => row.Run, next.Run)
                    .SetProperty(row => row.ArchivedAt, next.ArchivedAt)
            );
        return new(board, next, await EventAsync(db, board, next, [.. cells.Values.OfType<BoardCell>()], difference));
    }

    /// <summary>Replaces the job in memory by what is committed, tells it, and wakes the making of files.</summary>
    /// <param name="change">The change.</param>
    /// <param name="note">Who decided what; null where nobody did.</param>
    public void Publish(JobChange change, ChangeNote? note = null)
    {
        ArgumentNullException.ThrowIfNull(change);
        change.Board.Take(change.State);
        change.Board.Tell(change.Event with { Progress = judge.Progress(change.Board), Change = note });
        notifier.Ring();
    }

    /// <summary>The same for changes of several jobs.</summary>
    public void Publish(IEnumerable<JobChange> changes)
    {
        ArgumentNullException.ThrowIfNull(changes);
        foreach (var change in changes)
        {
            Publish(change);
        }
    }

    private async Task<JobEvent> EventAsync(
        PantometDb db,
        JobBoard board,
        BoardState next,
        IReadOnlyList<BoardCell> shown,
        JobDifference difference
    )
    {
        var before = board.State;
        var all = shown.Count > MostCells;
        var standings =
            all || !board.IsLookedAt
                ? FileStandings.None
                : await FileStandings.OfAsync(db, shown.SelectMany(cell => cell.Files).Select(file => file.Id), CancellationToken.None);
        var title = difference.Title || before.CanUndo != next.CanUndo || before.CanRedo != next.CanRedo ? JobTitle.Of(next) : null;
        // Numbers follow the order, and names the numbers.
        var renamed = difference.Order && next.Job.Numbered;
        return new(
            next.Sequence,
            title,
            difference.Pictures.Count == 0 && !renamed
                ? null
                : [.. next.Shown.Where(one => renamed || difference.Pictures.Contains(one.Id)).Select(one => JobPictureView.Of(next, one))],
            difference.Order ? [.. next.Shown.Select(one => one.Id)] : null,
            difference.Slots ? JobHead.SlotsOf(next) : null,
            all ? [] : [.. shown.Select(cell => judge.View(cell, standings, next.Sequence))],
            all,
            new(0, 0, 0, 0, 0, null),
            next.Run
        );
    }
}

using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Variants;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Jobs;

/// <summary>A change of one job that was written and is to be taken over and told once it is committed.</summary>
public sealed class JobChange
{
    // A page that is told of more cells at once reads them itself, in parts.
    private const int MostCells = 400;

    private readonly JobBoard _board;
    private readonly CellJudge _judge;
    private readonly BoardState _next;
    private readonly long _sequence;
    private readonly JobEvent _event;

    private JobChange(JobBoard board, CellJudge judge, BoardState next, JobEvent what) =>
        (_board, _judge, _next, _sequence, _event) = (board, judge, next, what.Sequence, what);

    /// <summary>The job's sequence afterwards.</summary>
    public long Sequence => _sequence;

    /// <summary>What differs, for pages.</summary>
    public sealed record Told
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

    /// <summary>Writes cells and figures of a job that changed.</summary>
    /// <param name="db">The database, within a transaction, with the decisions written.</param>
    /// <param name="judge">Judges cells.</param>
    /// <param name="board">The job.</param>
    /// <param name="next">The job as it is to be, but for its figures.</param>
    /// <param name="cells">The cells that may differ; null takes one away.</param>
    /// <param name="told">What else differs.</param>
    public static async Task<JobChange> WriteAsync(
        PantometDb db,
        CellJudge judge,
        JobBoard board,
        BoardState next,
        IReadOnlyDictionary<CellTables.Key, BoardCell?> cells,
        Told told
    )
    {
        var delta = await CellTables.StoreAsync(db, judge, next, cells);
        var (canUndo, canRedo) = await OpenJobs.StepsAsync(db, next.Id, CancellationToken.None);
        var sequence = board.State.Sequence + 1;
        next = next with { Sequence = sequence, Tally = board.State.Tally + delta, CanUndo = canUndo, CanRedo = canRedo };
        var (tally, pictures) = (next.Tally, next.Rows.Count);
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
                    .SetProperty(row => row.Looks, tally.Looks)
                    .SetProperty(row => row.Run, next.Run)
                    .SetProperty(row => row.ArchivedAt, next.ArchivedAt)
            );
        return new(board, judge, next, await EventAsync(db, judge, board, next, sequence, cells, told));
    }

    /// <summary>Takes over what is stored and tells it.</summary>
    public void Take()
    {
        _board.Take(_next);
        _board.Tell(_event with { Progress = Progress(_board, _judge) });
    }

    /// <summary>How far a job is.</summary>
    public static JobProgress Progress(JobBoard board, CellJudge judge) => Progress(board, board.State, judge);

    /// <summary>How far a job was at a state of it: what is told beside cells must not know more than they do.</summary>
    public static JobProgress Progress(JobBoard board, BoardState state, CellJudge judge)
    {
        var tally = state.Tally;
        return new(
            tally.Files,
            tally.Done,
            tally.Failed,
            judge.MakingFor(state.Id),
            tally.Bytes,
            tally.Left > 0 && state.Run == RunState.Running ? board.Pace.SecondsFor(tally.Left) : null
        );
    }

    private static async Task<JobEvent> EventAsync(
        PantometDb db,
        CellJudge judge,
        JobBoard board,
        BoardState next,
        long sequence,
        IReadOnlyDictionary<CellTables.Key, BoardCell?> cells,
        Told told
    )
    {
        var before = board.State;
        var shown = cells.Values.OfType<BoardCell>().ToList();
        var all = shown.Count > MostCells;
        var standings =
            all || !board.IsLookedAt
                ? FileStandings.None
                : await FileStandings.OfAsync(db, shown.SelectMany(cell => cell.Files).Select(file => file.Id), CancellationToken.None);
        var title = told.Title || before.CanUndo != next.CanUndo || before.CanRedo != next.CanRedo ? JobTitle.Of(next) : null;
        // Numbers follow the order, and names the numbers.
        var renamed = told.Order && next.Job.Numbered;
        return new(
            sequence,
            title,
            told.Pictures.Count == 0 && !renamed
                ? null
                : [.. next.Shown.Where(one => renamed || told.Pictures.Contains(one.Id)).Select(one => JobPictureView.Of(next, one))],
            told.Order ? [.. next.Shown.Select(one => one.Id)] : null,
            told.Slots ? JobHead.SlotsOf(next) : null,
            all ? [] : [.. shown.Select(cell => judge.View(cell, standings, sequence))],
            all,
            new(0, 0, 0, 0, 0, null),
            next.Run
        );
    }

    /// <summary>The cells that a change of decisions touches.</summary>
    public static Dictionary<CellTables.Key, BoardCell?> Touched(JobBoard board, BoardState before, BoardState next, JobPatch change)
    {
        var cells = new Dictionary<CellTables.Key, BoardCell?>();
        void Touch(Guid picture, string slot) => cells[new(picture, slot)] = board.Cell(next, picture, slot);
        // Pictures side by side follow their parts, wherever they go.
        void TouchPairs(Guid part)
        {
            foreach (var pair in next.PairsWith(part))
            {
                foreach (var (address, slot) in next.Slots)
                {
                    if (slot.Slot.Pair is not null)
                    {
                        Touch(pair, address);
                    }
                }
            }
        }

        foreach (var gone in change.PicturesOut ?? [])
        {
            foreach (var place in before.Job.Slots)
            {
                cells[new(gone, place.Address)] = null;
            }

            TouchPairs(gone);
        }

        foreach (var gone in change.SlotsOut ?? [])
        {
            foreach (var one in before.Job.Pictures)
            {
                cells[new(one.Id, gone)] = null;
            }
        }

        var columns = (change.SlotsIn?.Select(one => one.Slot.Address) ?? []).Concat(change.Choices?.Keys ?? []).ToHashSet();
        foreach (var one in columns.Count > 0 ? next.Job.Pictures : [])
        {
            foreach (var address in columns)
            {
                Touch(one.Id, address);
            }
        }

        foreach (var one in change.PicturesIn ?? [])
        {
            foreach (var place in next.Job.Slots)
            {
                Touch(one.Picture.Id, place.Address);
            }

            TouchPairs(one.Picture.Id);
        }

        foreach (var (picture, patch) in change.Decisions ?? new Dictionary<Guid, DecisionsPatch>())
        {
            var marks =
                patch.Turn is not null
                || patch.Focus is not null
                || patch.Keep is not null
                || patch.NoSuggestion is not null
                || patch.OtherShape is not null;
            if (marks || patch.Cells is not null)
            {
                TouchPairs(picture);
            }

            foreach (var (address, slot) in next.Slots)
            {
                // A title stands where the slot writes one, or something else is drawn over this picture alone.
                var titled =
                    patch.Title is not null
                    && (slot.Slot.Dress.Title is not null || next.Job.Find(picture)?.Decisions.For(address).Dress is not null);
                if (
                    marks
                    || titled
                    || patch.Cells?.ContainsKey(address) == true
                    || patch.Framings?.ContainsKey(Shapes.KeyOf(slot.Slot)) == true
                )
                {
                    Touch(picture, address);
                }
            }
        }

        return cells;
    }
}

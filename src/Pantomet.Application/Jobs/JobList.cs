using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Variants;
using Pantomet.Core.Geometry;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Jobs;

/// <summary>Reads jobs for those who look at them: the list from its rows alone, one job in parts.</summary>
public sealed class JobList(IServiceScopeFactory scopes, OpenJobs jobs, JobRoom room, CellJudge judge)
{
    private const int First = 6;

    // A job of this many cells is read as a whole; of a larger one the first pictures, and the rest in parts of as many cells.
    private const int MostCells = 2600;
    private const int FirstCells = 1000;

    /// <summary>All jobs, the newest first; only some of them where they are named.</summary>
    public async Task<IReadOnlyList<JobSummary>> AllAsync(IReadOnlyCollection<Guid>? only, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        var rows = await db
            .Jobs.AsNoTracking()
            .Where(row => row.Text == null || row.Fault != null)
            .Where(row => only == null || only.Contains(row.Id))
            .OrderByDescending(row => row.CreatedAt)
            .ToListAsync(cancel);
        var slots = await db
            .JobSlots.GroupBy(row => row.JobId)
            .Select(group => new { group.Key, Count = group.Count() })
            .ToDictionaryAsync(one => one.Key, one => one.Count, cancel);
        var first = await JobQueries.FirstPicturesAsync(db, rows.Select(row => row.Id), First, cancel);
        var summaries = new List<JobSummary>();
        foreach (var row in rows)
        {
            summaries.Add(
                new(
                    row.Id,
                    row.Name,
                    DateTime.SpecifyKind(row.CreatedAt, DateTimeKind.Utc),
                    row.ArchivedAt is not null,
                    row.Run,
                    row.Pictures,
                    slots.GetValueOrDefault(row.Id),
                    [.. first[row.Id].Select(ShownOf)],
                    ProgressOf(row),
                    row.ToReview,
                    row.Fault
                )
            );
        }

        return summaries;
    }

    /// <summary>What changes whenever something that the list shows of a job does.</summary>
    public async Task<Dictionary<Guid, (long Sequence, int Making)>> StampsAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        var rows = await db
            .Jobs.Where(row => row.Text == null || row.Fault != null)
            .Select(row => new { row.Id, row.Sequence })
            .ToListAsync(cancel);
        return rows.ToDictionary(row => row.Id, row => (row.Sequence, judge.MakingFor(row.Id)));
    }

    /// <summary>One job with its first cells.</summary>
    public async Task<JobView?> ViewAsync(Guid id, CancellationToken cancel)
    {
        if (await room.OpenAsync(id, cancel) is not { } board)
        {
            return null;
        }

        var state = board.State;
        var sequence = state.Sequence;
        var (cells, more) = await CellsAsync(board, state, sequence, 0, FirstCells, cancel);
        return new(JobHead.Of(state), cells, more, judge.Progress(board, state));
    }

    /// <summary>The cells of the pictures from a place on.</summary>
    public async Task<JobCells?> MoreAsync(Guid id, int from, CancellationToken cancel)
    {
        if (await room.OpenAsync(id, cancel) is not { } board)
        {
            return null;
        }

        var state = board.State;
        var sequence = state.Sequence;
        var (cells, more) = await CellsAsync(board, state, sequence, from, MostCells, cancel);
        return new(sequence, cells, more);
    }

    /// <summary>How the files of some cells stand.</summary>
    public async Task<FileStandings> StandingsAsync(IReadOnlyList<BoardCell> cells, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await FileStandings.OfAsync(
            scope.ServiceProvider.GetRequiredService<PantometDb>(),
            cells.SelectMany(cell => cell.Files).Select(file => file.Id),
            cancel
        );
    }

    private async Task<FileStandings> StandingsOfAsync(Guid job, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await FileStandings.OfJobAsync(scope.ServiceProvider.GetRequiredService<PantometDb>(), job, whole: false, cancel);
    }

    private async Task<(IReadOnlyList<CellView> Cells, int? More)> CellsAsync(
        JobBoard board,
        BoardState state,
        long sequence,
        int from,
        int most,
        CancellationToken cancel
    )
    {
        var shown = state.Shown.ToList();
        var slots = Math.Max(1, state.Slots.Count);
        var all = from == 0 && shown.Count * slots <= MostCells;
        var until = all ? shown.Count : Math.Min(shown.Count, from + Math.Max(1, most / slots));
        // While the files are looked up, the cells are planned: somebody waits for the first sight of a job.
        var reading = all ? Task.Run(() => StandingsOfAsync(state.Id, cancel), cancel) : null;
        var cells = shown
            .Skip(from)
            .Take(until - from)
            .AsParallel()
            .AsOrdered()
            .SelectMany(mine => state.Job.Slots.Select(place => board.Cell(state, mine, place)).OfType<BoardCell>())
            .ToList();
        var standings = reading is not null ? await reading : await StandingsAsync(cells, cancel);
        var views = cells.AsParallel().AsOrdered().Select(cell => judge.View(cell, standings, sequence)).ToList();
        return (views, until < shown.Count ? until : null);
    }

    private JobProgress? ProgressOf(JobRow row) =>
        row.Fault is not null ? null
        : jobs.Known(row.Id) is { } board ? judge.Progress(board)
        : new(row.Files, row.Done, row.Failed, judge.MakingFor(row.Id), row.Bytes, null);

    private static ShownPicture ShownOf(FirstPicture one) => new(one.Id, $"{one.ContentHash[..12]}-{new Turn(one.Quarters, one.Degrees)}");
}

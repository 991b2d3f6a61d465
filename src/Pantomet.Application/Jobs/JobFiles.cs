using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Jobs;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Jobs;

/// <summary>The files that jobs want, where something happens to the files: each cell that wants one is brought in step with it.</summary>
public sealed class JobFiles(OpenJobs jobs, Writer writer, CellJudge judge, JobNotifier notifier)
{
    /// <summary>Makes the files of some cells again; null when there is no such job.</summary>
    public Task<CommandResult?> AgainAsync(Guid id, IReadOnlyCollection<CellTables.Key> cells, CancellationToken cancel) =>
        writer.WriteAsync<CommandResult?>(
            async db =>
            {
                if (await jobs.OpenAsync(id, CancellationToken.None) is not { } board)
                {
                    return (null, null);
                }

                var theirs = cells.Select(key => board.Cell(key.Picture, key.Slot)).OfType<BoardCell>().ToList();
                var files = theirs.SelectMany(cell => cell.Files).Select(file => file.Id).ToHashSet();
                var changes = await ForgetAsync(db, files);
                return (
                    new(changes.FirstOrDefault(change => change.Job == id).Change?.Sequence ?? board.State.Sequence, null),
                    () => changes.ForEach(one => notifier.Take(one.Change))
                );
            },
            cancel
        );

    /// <summary>Forgets files and their failures, in whatever job, so that they are made again.</summary>
    public Task ForgetAsync(IReadOnlyCollection<string> files, CancellationToken cancel) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                var changes = await ForgetAsync(db, files);
                return (true, () => changes.ForEach(one => notifier.Take(one.Change)));
            },
            cancel
        );

    /// <summary>Tries files of a picture again that could not be made.</summary>
    public Task TryAgainAsync(Guid picture, CancellationToken cancel) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                var files = await db.Failures.Where(row => row.PictureId == picture).Select(row => row.FileId).ToListAsync();
                var changes = files.Count == 0 ? [] : await ForgetAsync(db, files);
                return (true, () => changes.ForEach(one => notifier.Take(one.Change)));
            },
            cancel
        );

    /// <summary>Brings every cell that wants some files in step with them, whatever job it is of.</summary>
    /// <param name="db">The database, within a transaction.</param>
    /// <param name="files">The files.</param>
    public async Task<List<(Guid Job, JobChange Change)>> ChangedAsync(PantometDb db, IEnumerable<string> files)
    {
        using var sql = new Statements(db);
        var wanting = new List<(Guid Job, CellTables.Key Cell)>();
        foreach (var file in files)
        {
            wanting.AddRange(await CellTables.WantingAsync(sql, file));
        }

        var changes = new List<(Guid, JobChange)>();
        foreach (var job in wanting.GroupBy(one => one.Job, one => one.Cell))
        {
            if (await jobs.OpenAsync(job.Key, CancellationToken.None) is { } board)
            {
                var cells = job.Distinct().ToDictionary(key => key, key => board.Cell(key.Picture, key.Slot));
                changes.Add((job.Key, await JobChange.WriteAsync(db, judge, board, board.State, cells, new())));
            }
        }

        return changes;
    }

    /// <summary>Brings the rows of one cell in step with how it is planned now.</summary>
    public Task StepInAsync(Guid id, CellTables.Key cell, CancellationToken cancel) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                if (await jobs.OpenAsync(id, CancellationToken.None) is not { } board)
                {
                    return (false, null);
                }

                var cells = new Dictionary<CellTables.Key, BoardCell?> { [cell] = board.Cell(cell.Picture, cell.Slot) };
                var change = await JobChange.WriteAsync(db, judge, board, board.State, cells, new());
                return (true, () => notifier.Take(change));
            },
            cancel
        );

    private async Task<List<(Guid Job, JobChange Change)>> ForgetAsync(PantometDb db, IReadOnlyCollection<string> files)
    {
        foreach (var chunk in files.Chunk(Statements.AtOnce))
        {
            await db.Variants.Where(row => chunk.Contains(row.Id)).ExecuteDeleteAsync();
            await db.Failures.Where(row => chunk.Contains(row.FileId)).ExecuteDeleteAsync();
        }

        return await ChangedAsync(db, files);
    }
}

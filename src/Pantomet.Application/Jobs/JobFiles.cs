using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Jobs;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Jobs;

/// <summary>The files that jobs want, where something happens to the files: each cell that wants one is brought in step with it.</summary>
public sealed class JobFiles(OpenJobs jobs, Writer writer, JobChanges changes)
{
    /// <summary>Makes the files of some cells again; null when there is no such job.</summary>
    public Task<CommandResult?> RemakeAsync(Guid id, IReadOnlyCollection<CellKey> cells, CancellationToken cancel) =>
        writer.WriteAsync<CommandResult?>(
            async db =>
            {
                if (await jobs.OpenAsync(id, CancellationToken.None) is not { } board)
                {
                    return (null, null);
                }

                var theirs = cells.Select(key => board.Cell(key.Picture, key.Slot)).OfType<BoardCell>().ToList();
                var files = theirs.SelectMany(cell => cell.Files).Select(file => file.Id).ToHashSet();
                var changed = await ForgetAsync(db, files);
                return (
                    new(changed.Find(change => change.Board.Id == id)?.Sequence ?? board.State.Sequence, null),
                    () => changes.Publish(changed)
                );
            },
            cancel
        );

    /// <summary>Forgets files and their failures, in whatever job, so that they are made again.</summary>
    public Task ForgetAsync(IReadOnlyCollection<string> files, CancellationToken cancel) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                var changed = await ForgetAsync(db, files);
                return (true, () => changes.Publish(changed));
            },
            cancel
        );

    /// <summary>Tries files of a picture again that could not be made.</summary>
    public Task TryAgainAsync(Guid picture, CancellationToken cancel) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                var files = await db.Failures.Where(row => row.PictureId == picture).Select(row => row.FileId).ToListAsync();
                var changed = files.Count == 0 ? [] : await ForgetAsync(db, files);
                return (true, () => changes.Publish(changed));
            },
            cancel
        );

    /// <summary>Brings every cell that wants some files in step with them, whatever job it is of.</summary>
    /// <param name="db">The database, within a transaction.</param>
    /// <param name="files">The files.</param>
    public async Task<List<JobChange>> ChangedAsync(PantometDb db, IEnumerable<string> files)
    {
        using var rows = new CellRows(db);
        var wanting = new List<(Guid Job, CellKey Cell)>();
        foreach (var file in files)
        {
            wanting.AddRange(await rows.WantingAsync(file));
        }

        var changed = new List<JobChange>();
        foreach (var job in wanting.GroupBy(one => one.Job, one => one.Cell))
        {
            if (await jobs.OpenAsync(job.Key, CancellationToken.None) is { } board)
            {
                changed.Add(await changes.WriteAsync(db, board, board.State, job.ToHashSet(), new()));
            }
        }

        return changed;
    }

    /// <summary>Brings the rows of one cell in step with how it is planned now.</summary>
    public Task StepInAsync(Guid id, CellKey cell, CancellationToken cancel) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                if (await jobs.OpenAsync(id, CancellationToken.None) is not { } board)
                {
                    return (false, null);
                }

                var change = await changes.WriteAsync(db, board, board.State, new HashSet<CellKey> { cell }, new());
                return (true, () => changes.Publish(change));
            },
            cancel
        );

    private async Task<List<JobChange>> ForgetAsync(PantometDb db, IReadOnlyCollection<string> files)
    {
        foreach (var chunk in files.Chunk(Statements.AtOnce))
        {
            await db.Variants.Where(row => chunk.Contains(row.Id)).ExecuteDeleteAsync();
            await db.Failures.Where(row => chunk.Contains(row.FileId)).ExecuteDeleteAsync();
        }

        return await ChangedAsync(db, files);
    }
}

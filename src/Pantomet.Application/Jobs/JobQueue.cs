using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Variants;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Variants;
using Pantomet.Imaging.Making;

namespace Pantomet.Application.Jobs;

/// <summary>A file to make, and for which job.</summary>
internal sealed record QueuedFile(JobBoard Board, WantedFile File);

/// <summary>
/// What is to be made next: the head of an index over the wants that are open, so that it costs the same however many wait.
/// </summary>
internal sealed class JobQueue(OpenJobs jobs, JobFiles files, CellJudge judge, UnderWay underWay, IServiceScopeFactory scopes)
{
    // Enough to find a picture that no other worker has at hand.
    private const int Ahead = 60;

    /// <summary>The next file of all running jobs, marked as being made; null when nothing is to do.</summary>
    /// <param name="awaited">True for a file that a person waits for, or none: one of the single picture that is looked at.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<QueuedFile?> BeginAsync(bool awaited, CancellationToken cancel)
    {
        // Asked after every file: mostly nobody waits.
        if (awaited && !jobs.All.Any(board => board.Look.Pictures.Count == 1))
        {
            return null;
        }

        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        await db.Database.OpenConnectionAsync(cancel);
        using var rows = new CellRows(db);
        foreach (var id in await RunningAsync(db, cancel))
        {
            var look = jobs.Known(id)?.Look ?? JobViewport.Nothing;
            if ((awaited && look.Pictures.Count != 1) || await jobs.OpenAsync(id, cancel) is not { } board)
            {
                continue;
            }

            // Several workers may look at the same head; who marks it first has it.
            for (var tries = 0; tries < Ahead && await NextAsync(rows, board.State, look, awaited) is { } head; tries++)
            {
                if (board.Cell(head.Picture, head.Slot)?.Files.FirstOrDefault(file => file.Id == head.File) is not { } file)
                {
                    // The row is older than the plan: it is brought in step, and looked for again.
                    await files.StepInAsync(id, new(head.Picture, head.Slot), cancel);
                    continue;
                }

                if (underWay.Begin(file.Id, id, file.Picture.Id))
                {
                    await TellAsync(file.Id);
                    return new(board, file);
                }
            }
        }

        return null;
    }

    /// <summary>Tells every page that shows the file what it weighs, before the rest is known.</summary>
    public async Task WeighedAsync(string file, WeighedFile found)
    {
        underWay.Weigh(file, found);
        await TellAsync(file);
    }

    /// <summary>Ends what was begun.</summary>
    public async Task EndAsync(string file)
    {
        underWay.End(file);
        await TellAsync(file);
    }

    /// <summary>True while this file is still wanted by a job that was not stopped.</summary>
    public async Task<bool> IsWantedAsync(string file, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        return await db
            .Wants.Where(want => want.FileId == file)
            .AnyAsync(want => db.Jobs.Any(job => job.Id == want.JobId && job.ArchivedAt == null && job.Run != RunState.Stopped), cancel);
    }

    // The jobs that somebody looks at come first, then the oldest.
    private async Task<IReadOnlyList<Guid>> RunningAsync(PantometDb db, CancellationToken cancel)
    {
        var ids = await db
            .Jobs.Where(job =>
                job.Run == RunState.Running
                && job.ArchivedAt == null
                && job.Fault == null
                && job.Text == null
                && job.Files > job.Done + job.Failed
            )
            .OrderBy(job => job.CreatedAt)
            .Select(job => job.Id)
            .ToListAsync(cancel);
        return [.. ids.OrderByDescending(id => jobs.Known(id)?.Look.Pictures.Count > 0)];
    }

    // On the screen first, then the nearest; a picture that another worker has at hand only when there is no other.
    private async Task<OpenWant?> NextAsync(CellRows rows, BoardState state, JobViewport look, bool awaited)
    {
        var making = underWay.Files.ToHashSet();
        var busy = underWay.Pictures;
        OpenWant? Best(List<OpenWant> heads)
        {
            heads.RemoveAll(head => making.Contains(head.File));
            return heads.Find(head => !busy.Contains(head.Picture)) ?? heads.FirstOrDefault();
        }

        var places = look.Pictures.Where(state.Places.ContainsKey).Select(picture => state.Places[picture]).ToList();
        if (places.Count > 0)
        {
            var (from, to) = (places.Min(), places.Max());
            var slots = look.Slots.ToHashSet();
            var seen = await rows.OpenBetweenAsync(state.Id, from, to);
            if (Best([.. seen.Where(head => slots.Count == 0 || slots.Contains(head.Slot))]) is { } onScreen)
            {
                return onScreen;
            }

            if (awaited)
            {
                return null;
            }

            if (Best(await rows.OpenFromAsync(state.Id, from, Ahead)) is { } below)
            {
                return below;
            }
        }

        return awaited ? null : Best(await rows.OpenFromAsync(state.Id, long.MinValue, Ahead));
    }

    // How far a file is, is broadcast and not stored.
    private async Task TellAsync(string file)
    {
        var open = jobs.All.Where(board => board.IsLookedAt).ToList();
        if (open.Count == 0)
        {
            return;
        }

        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        foreach (var board in open)
        {
            var (id, state) = (board.Id, board.State);
            var sequence = state.Sequence;
            var wanting = await db
                .Wants.AsNoTracking()
                .Where(want => want.JobId == id && want.FileId == file)
                .Select(want => new { want.PictureId, want.Slot })
                .ToListAsync();
            var cells = wanting.Distinct().Select(at => board.Cell(state, at.PictureId, at.Slot)).OfType<BoardCell>().ToList();
            if (cells.Count > 0)
            {
                var standings = await FileStandings.OfAsync(
                    db,
                    cells.SelectMany(cell => cell.Files).Select(one => one.Id),
                    CancellationToken.None
                );
                board.Tell(
                    new(
                        sequence,
                        null,
                        null,
                        null,
                        null,
                        [.. cells.Select(cell => judge.View(cell, standings, sequence))],
                        false,
                        judge.Progress(board),
                        state.Run
                    )
                );
            }
        }
    }
}

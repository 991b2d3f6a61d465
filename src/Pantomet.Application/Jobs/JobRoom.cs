using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Background;
using Pantomet.Application.Variants;
using Pantomet.Core.Accounts;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Jobs.History;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Jobs;

/// <summary>Commands as somebody sent them.</summary>
/// <param name="Commands">The commands, all or none.</param>
/// <param name="Id">The sender's own id of them: what is sent twice is applied once. Null where there is none.</param>
/// <param name="Gesture">Commands of one gesture are one step. Null stands alone.</param>
/// <param name="Actor">Who decided; null for a program of this machine.</param>
/// <param name="Within">A gesture that ended longer ago than this is another; null for however long ago.</param>
public sealed record CommandBatch(
    IReadOnlyList<JobCommand> Commands,
    string? Id = null,
    string? Gesture = null,
    Actor? Actor = null,
    TimeSpan? Within = null
);

/// <summary>What came of a change: the sequence that was reached, or a refusal.</summary>
public sealed record CommandResult(long Sequence, RefusedCommand? Refused);

/// <summary>Jobs and everything that is decided about them: read the tables, apply, store in one transaction, take over, tell.</summary>
public sealed class JobRoom(
    OpenJobs jobs,
    JobLayout layout,
    Writer writer,
    CellJudge judge,
    IServiceScopeFactory scopes,
    JobChanges changes,
    TimeProvider clock
)
{
    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    /// <summary>Judges the cells of a job.</summary>
    public CellJudge Judge => judge;

    /// <summary>A job for those who look at it: laid out by the book as it is now. Null when there is none.</summary>
    public Task<JobBoard?> OpenAsync(Guid id, CancellationToken cancel) => layout.OpenAsync(id, cancel);

    /// <summary>Tells those who show a job that there is something new among its comments.</summary>
    public void TellOfComments(JobBoard board)
    {
        ArgumentNullException.ThrowIfNull(board);
        var state = board.State;
        board.Tell(new(state.Sequence, null, null, null, null, [], false, judge.Progress(board), state.Run, Commented: true));
    }

    /// <summary>Makes a job.</summary>
    /// <param name="name">Its name; null takes the day's. One that is taken already is counted.</param>
    /// <param name="begin">The commands that it begins with, as no step.</param>
    /// <param name="cancel">Stops waiting.</param>
    public Task<(Guid Id, RefusedCommand? Refused)> CreateAsync(string? name, IReadOnlyList<JobCommand> begin, CancellationToken cancel) =>
        MakeAsync(
            db => name is null ? FreeAsync(db, JobTexts.JobOf(clock.GetLocalNow())) : Task.FromResult(name.Trim()),
            new Job { Name = "" },
            begin,
            cancel
        );

    /// <summary>Makes another job with the same pictures, slots and decisions; null when there is no such job.</summary>
    public async Task<Guid?> CopyAsync(Guid id, CancellationToken cancel)
    {
        if (await layout.OpenAsync(id, cancel) is not { } board)
        {
            return null;
        }

        var job = board.State.Job;
        return (await MakeAsync(db => FreeAsync(db, $"{job.Name}, copy"), job, [], cancel)).Id;
    }

    /// <summary>Applies commands; null when there is no such job.</summary>
    public async Task<CommandResult?> SendAsync(Guid id, CommandBatch batch, CancellationToken cancel)
    {
        var began = Stopwatch.GetTimestamp();
        var result = await ApplyAsync(id, batch, cancel);
        WorkMetrics.CommandsEnded(Stopwatch.GetElapsedTime(began));
        return result;
    }

    private async Task<CommandResult?> ApplyAsync(Guid id, CommandBatch batch, CancellationToken cancel)
    {
        var book = await jobs.SlotsAsync(cancel);
        if (await jobs.OpenAsync(id, cancel) is null)
        {
            return null;
        }

        return await writer.WriteAsync<CommandResult?>(
            async db =>
            {
                if (await jobs.OpenAsync(id, CancellationToken.None) is not { } board)
                {
                    return (null, null);
                }

                if (
                    batch.Id is { } sent
                    && await db
                        .Commands.Where(row => row.JobId == id && row.Sender == sent)
                        .Select(row => (long?)row.Sequence)
                        .FirstOrDefaultAsync()
                        is { } known
                )
                {
                    return (new(known, null), null);
                }

                var around = await CommandContext.OfAsync(db, board, board.State, book, batch.Commands, CancellationToken.None);
                if (!JobCommands.TryApply(board.State.Job, batch.Commands, around, out var applied, out var refused))
                {
                    return (new(board.State.Sequence, refused), null);
                }

                if (applied!.Change.IsEmpty)
                {
                    return (new(board.State.Sequence, null), null);
                }

                var step = await JobSteps.ForAsync(db, id, batch, Now);
                var row = new CommandRow
                {
                    JobId = id,
                    Sender = batch.Id,
                    Actor = (batch.Actor ?? Actor.Program).Name,
                    ActorId = batch.Actor?.Person,
                    At = Now,
                    Kind = "commands",
                    Step = step,
                    Body = StoredJson.Write(batch.Commands),
                    Inverse = StoredJson.Write(applied.Inverse),
                };
                var change = await StoreAsync(db, board, applied, row, around.Fresh, book);
                var note = new ChangeNote(row.Actor, CommandSummary.Of(batch.Commands));
                return (new(change.Sequence, null), () => changes.Publish(change, note));
            },
            cancel
        );
    }

    /// <summary>What some commands would decide about a picture, without storing it.</summary>
    public async Task<(Decisions? Decisions, RefusedCommand? Refused)> AheadAsync(
        JobBoard board,
        Guid picture,
        IReadOnlyList<JobCommand> commands,
        CancellationToken cancel
    )
    {
        var state = board.State;
        await using var scope = scopes.CreateAsyncScope();
        var around = await CommandContext.OfAsync(
            scope.ServiceProvider.GetRequiredService<PantometDb>(),
            board,
            state,
            await jobs.SlotsAsync(cancel),
            commands,
            cancel
        );
        return JobCommands.TryApply(state.Job, commands, around, out var applied, out var refused)
            ? (applied!.Job.Find(picture)?.Decisions ?? Decisions.None, null)
            : (null, refused);
    }

    /// <summary>Goes one step back or forward; null when there is no such job.</summary>
    public async Task<CommandResult?> StepAsync(Guid id, bool back, Actor actor, CancellationToken cancel)
    {
        var book = await jobs.SlotsAsync(cancel);
        return await writer.WriteAsync<CommandResult?>(
            async db =>
            {
                if (await jobs.OpenAsync(id, CancellationToken.None) is not { } board)
                {
                    return (null, null);
                }

                var step = await JobSteps.NextAsync(db, id, back);
                if (step is null)
                {
                    return (new(board.State.Sequence, null), null);
                }

                step.State = back ? StepState.Undone : StepState.Done;
                await db.SaveChangesAsync();
                var job = board.State.Job;
                foreach (var inverse in await JobSteps.WaysBackAsync(db, id, step.Number))
                {
                    job = inverse.On(job);
                }

                var applied = new Applied(job, JobPatch.Between(board.State.Job, job), JobPatch.Between(job, board.State.Job));
                var row = new CommandRow
                {
                    JobId = id,
                    Actor = actor.Name,
                    ActorId = actor.Person,
                    At = Now,
                    Kind = back ? "undo" : "redo",
                    Step = step.Number,
                    Body = "[]",
                    Inverse = StoredJson.Write(applied.Inverse),
                };
                var change = await StoreAsync(db, board, applied, row, new Dictionary<Guid, PictureRow>(), book);
                var note = new ChangeNote(actor.Name, back ? HistoryTexts.UndidAStep : HistoryTexts.RedidAStep);
                return (new(change.Sequence, null), () => changes.Publish(change, note));
            },
            cancel
        );
    }

    /// <summary>Runs, pauses or stops the making of files, or puts a job aside; null when there is no such job.</summary>
    public Task<CommandResult?> SetAsync(Guid id, Func<BoardState, BoardState> set, CancellationToken cancel) =>
        writer.WriteAsync<CommandResult?>(
            async db =>
            {
                if (await jobs.OpenAsync(id, CancellationToken.None) is not { } board)
                {
                    return (null, null);
                }

                var change = await changes.WriteAsync(db, board, set(board.State), new HashSet<CellKey>(), new() { Title = true });
                return (
                    new(change.Sequence, null),
                    () =>
                    {
                        board.Pace.Forget();
                        changes.Publish(change);
                    }
                );
            },
            cancel
        );

    private async Task<(Guid Id, RefusedCommand? Refused)> MakeAsync(
        Func<PantometDb, Task<string>> name,
        Job like,
        IReadOnlyList<JobCommand> begin,
        CancellationToken cancel
    )
    {
        var book = await jobs.SlotsAsync(cancel);
        return await writer.WriteAsync(
            async db =>
            {
                var row = new JobRow
                {
                    Id = Guid.CreateVersion7(),
                    Name = await name(db),
                    CreatedAt = Now,
                };
                var empty = new BoardState
                {
                    Id = row.Id,
                    Job = new Job { Name = row.Name },
                    CreatedAt = row.CreatedAt,
                    Rows = new Dictionary<Guid, PictureRow>(),
                    Slots = new Dictionary<string, BoardSlot>(),
                    Places = new Dictionary<Guid, long>(),
                };
                var around = await CommandContext.OfAsync(db, null, empty, book, begin, CancellationToken.None);
                if (!JobCommands.TryApply(like with { Name = row.Name }, begin, around, out var applied, out var refused))
                {
                    return ((Guid.Empty, refused), null);
                }

                db.Jobs.Add(row);
                await db.SaveChangesAsync();
                db.ChangeTracker.Clear();
                var board = new JobBoard(empty);
                var first = new Applied(applied!.Job, JobPatch.Between(empty.Job, applied.Job), JobPatch.Between(applied.Job, empty.Job));
                var change = await StoreAsync(db, board, first, null, around.Fresh, book);
                return ((row.Id, (RefusedCommand?)null), (Action?)(() => changes.Publish(change)));
            },
            cancel
        );
    }

    /// <summary>Stores what was applied, within a transaction; it becomes the job once it is committed.</summary>
    internal async Task<JobChange> StoreAsync(
        PantometDb db,
        JobBoard board,
        Applied applied,
        CommandRow? row,
        IReadOnlyDictionary<Guid, PictureRow> fresh,
        IReadOnlyDictionary<string, BoardSlot> book
    )
    {
        var (before, change) = (board.State, applied.Change);
        var places = await JobTables.StoreAsync(db, before.Id, applied.Job, change, before.Places);
        var next = before with
        {
            Job = applied.Job,
            Places = places,
            Slots = OpenJobs.SlotsOf(applied.Job, book),
            Rows = await RowsAsync(db, before.Rows, change, fresh),
        };
        if (row is not null)
        {
            row.Sequence = board.State.Sequence + 1;
            db.Commands.Add(row);
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
        }

        foreach (var slot in change.SlotsIn?.Select(one => one.Slot.Address) ?? [])
        {
            var by = book.GetValueOrDefault(slot)?.LaidOutBy ?? "";
            await db
                .JobSlots.Where(one => one.JobId == before.Id && one.Slot == slot)
                .ExecuteUpdateAsync(set => set.SetProperty(one => one.LaidOutBy, by));
        }

        var named = change.Name is not null || change.Prefix is not null || change.Numbered is not null;
        var rules = next.Slots.ToDictionary(one => one.Key, one => one.Value.Slot);
        return await changes.WriteAsync(
            db,
            board,
            next,
            TouchedCells.Of(before.Job, next.Job, change, rules, next.PairsWith),
            new()
            {
                Title = named || change.Patterns is not null,
                // The job's name is a part of the names of pictures that are counted under it.
                Pictures = (change.Decisions?.Keys ?? [])
                    .Concat(change.PicturesIn?.Select(one => one.Picture.Id) ?? [])
                    .Concat(change.PicturesOut ?? [])
                    .SelectMany(id => (Guid[])[id, .. next.PairsWith(id)])
                    .Concat(change.Numbered is not null || (change.Name is not null && next.Job.Numbered) ? next.Rows.Keys : [])
                    .ToHashSet(),
                Order = change.PicturesIn is not null || change.PicturesOut is not null,
                Slots = change.SlotsIn is not null || change.SlotsOut is not null || change.Choices is not null,
            }
        );
    }

    private static async Task<IReadOnlyDictionary<Guid, PictureRow>> RowsAsync(
        PantometDb db,
        IReadOnlyDictionary<Guid, PictureRow> before,
        JobPatch change,
        IReadOnlyDictionary<Guid, PictureRow> fresh
    )
    {
        if (change.PicturesIn is null && change.PicturesOut is null)
        {
            return before;
        }

        var rows = new Dictionary<Guid, PictureRow>(before);
        foreach (var gone in change.PicturesOut ?? [])
        {
            rows.Remove(gone);
        }

        var come = (change.PicturesIn ?? []).Select(one => one.Picture.Id).ToList();
        foreach (var id in come.Where(fresh.ContainsKey))
        {
            rows[id] = fresh[id];
        }

        foreach (var chunk in come.Where(id => !fresh.ContainsKey(id)).Chunk(Statements.AtOnce))
        {
            foreach (
                var row in await db.Pictures.AsNoTracking().Where(row => chunk.Contains(row.Id) && row.RemovedAt == null).ToListAsync()
            )
            {
                rows[row.Id] = row;
            }
        }

        return rows;
    }

    private static async Task<string> FreeAsync(PantometDb db, string name)
    {
        var taken = (await db.Jobs.Where(row => row.Name.StartsWith(name)).Select(row => row.Name).ToListAsync()).ToHashSet(
            StringComparer.OrdinalIgnoreCase
        );
        return Enumerable.Range(1, int.MaxValue).Select(n => n == 1 ? name : $"{name} {n}").First(one => !taken.Contains(one));
    }
}

using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Variants;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Jobs;

/// <summary>Commands as somebody sent them.</summary>
/// <param name="Commands">The commands, all or none.</param>
/// <param name="Id">The sender's own id of them: what is sent twice is applied once. Null where there is none.</param>
/// <param name="Gesture">Commands of one gesture are one step. Null stands alone.</param>
/// <param name="Actor">Who decided.</param>
/// <param name="Within">A gesture that ended longer ago than this is another; null for however long ago.</param>
internal sealed record Sending(
    IReadOnlyList<JobCommand> Commands,
    string? Id = null,
    string? Gesture = null,
    string Actor = "somebody",
    TimeSpan? Within = null
);

/// <summary>What came of a change: the sequence that was reached, or a refusal.</summary>
internal sealed record SendResult(long Sequence, RefusedCommand? Refused);

/// <summary>Jobs and everything that is decided about them: read the tables, apply, store in one transaction, take over, tell.</summary>
internal sealed class JobRoom(OpenJobs jobs, Writer writer, CellJudge judge, IServiceScopeFactory scopes, JobBell bell, TimeProvider clock)
{
    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    public CellJudge Judge => judge;

    /// <summary>A job for those who look at it: laid out by the book as it is now. Null when there is none.</summary>
    public async Task<JobBoard?> OpenAsync(Guid id, CancellationToken cancel)
    {
        var book = await jobs.SlotsAsync(cancel);
        if (await jobs.OpenAsync(id, cancel) is not { } board)
        {
            return null;
        }

        var state = board.State;
        var stale = state
            .Job.Slots.Select(place => place.Address)
            .Where(address =>
                state.Stale.Contains(address) || !ReferenceEquals(state.Slots.GetValueOrDefault(address), book.GetValueOrDefault(address))
            )
            .ToList();
        if (stale.Count > 0)
        {
            await LayOutAsync(id, stale, book, cancel);
            return await jobs.OpenAsync(id, cancel);
        }

        return board;
    }

    /// <summary>Makes a job.</summary>
    /// <param name="name">Its name; null takes the day's. One that is taken already is counted.</param>
    /// <param name="begin">The commands that it begins with, as no step.</param>
    /// <param name="cancel">Stops waiting.</param>
    public Task<(Guid Id, RefusedCommand? Refused)> CreateAsync(string? name, IReadOnlyList<JobCommand> begin, CancellationToken cancel) =>
        MakeAsync(
            db => name is null ? FreeAsync(db, $"Job of {clock.GetLocalNow():d MMMM}") : Task.FromResult(name.Trim()),
            new Job { Name = "" },
            begin,
            cancel
        );

    /// <summary>Makes another job with the same pictures, slots and decisions; null when there is no such job.</summary>
    public async Task<Guid?> CopyAsync(Guid id, CancellationToken cancel)
    {
        if (await OpenAsync(id, cancel) is not { } board)
        {
            return null;
        }

        var job = board.State.Job;
        return (await MakeAsync(db => FreeAsync(db, $"{job.Name}, copy"), job, [], cancel)).Id;
    }

    /// <summary>Applies commands; null when there is no such job.</summary>
    public async Task<SendResult?> SendAsync(Guid id, Sending sending, CancellationToken cancel)
    {
        var book = await jobs.SlotsAsync(cancel);
        if (await jobs.OpenAsync(id, cancel) is null)
        {
            return null;
        }

        return await writer.WriteAsync<SendResult?>(
            async db =>
            {
                if (await jobs.OpenAsync(id, CancellationToken.None) is not { } board)
                {
                    return (null, null);
                }

                if (
                    sending.Id is { } sent
                    && await db
                        .Commands.Where(row => row.JobId == id && row.Sender == sent)
                        .Select(row => (long?)row.Sequence)
                        .FirstOrDefaultAsync()
                        is { } known
                )
                {
                    return (new(known, null), null);
                }

                var around = await Surroundings.OfAsync(db, board, board.State, book, sending.Commands, CancellationToken.None);
                if (!JobCommands.TryApply(board.State.Job, sending.Commands, around, out var applied, out var refused))
                {
                    return (new(board.State.Sequence, refused), null);
                }

                if (applied!.Change.IsEmpty)
                {
                    return (new(board.State.Sequence, null), null);
                }

                var step = await StepAsync(db, id, sending);
                var row = new CommandRow
                {
                    JobId = id,
                    Sender = sending.Id,
                    Actor = sending.Actor,
                    At = Now,
                    Kind = "commands",
                    Step = step,
                    Body = StoredJson.Write(sending.Commands),
                    Inverse = StoredJson.Write(applied.Inverse),
                };
                var change = await StoreAsync(db, board, applied, row, around.Fresh, book);
                return (new(change.Sequence, null), () => Take(change));
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
        var around = await Surroundings.OfAsync(
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
    public async Task<SendResult?> StepAsync(Guid id, bool back, string actor, CancellationToken cancel)
    {
        var book = await jobs.SlotsAsync(cancel);
        return await writer.WriteAsync<SendResult?>(
            async db =>
            {
                if (await jobs.OpenAsync(id, CancellationToken.None) is not { } board)
                {
                    return (null, null);
                }

                var last = await db
                    .Steps.Where(one => one.JobId == id && one.State == StepState.Done)
                    .OrderByDescending(one => one.Number)
                    .FirstOrDefaultAsync();
                var number = last?.Number ?? 0;
                var step = back
                    ? last
                    : await db
                        .Steps.Where(one => one.JobId == id && one.Number > number && one.State == StepState.Undone)
                        .OrderBy(one => one.Number)
                        .FirstOrDefaultAsync();
                if (step is null)
                {
                    return (new(board.State.Sequence, null), null);
                }

                step.State = back ? StepState.Undone : StepState.Done;
                await db.SaveChangesAsync();
                var job = board.State.Job;
                foreach (var inverse in await WaysBackAsync(db, id, step.Number))
                {
                    job = inverse.On(job);
                }

                var applied = new Applied(job, JobPatch.Between(board.State.Job, job), JobPatch.Between(job, board.State.Job));
                var row = new CommandRow
                {
                    JobId = id,
                    Actor = actor,
                    At = Now,
                    Kind = back ? "undo" : "redo",
                    Step = step.Number,
                    Body = "[]",
                    Inverse = StoredJson.Write(applied.Inverse),
                };
                var change = await StoreAsync(db, board, applied, row, new Dictionary<Guid, PictureRow>(), book);
                return (new(change.Sequence, null), () => Take(change));
            },
            cancel
        );
    }

    /// <summary>Runs, pauses or stops the making of files, or puts a job aside; null when there is no such job.</summary>
    public Task<SendResult?> SetAsync(Guid id, Func<BoardState, BoardState> set, CancellationToken cancel) =>
        writer.WriteAsync<SendResult?>(
            async db =>
            {
                if (await jobs.OpenAsync(id, CancellationToken.None) is not { } board)
                {
                    return (null, null);
                }

                var change = await JobChange.WriteAsync(
                    db,
                    judge,
                    board,
                    set(board.State),
                    new Dictionary<CellTables.Key, BoardCell?>(),
                    new() { Title = true }
                );
                return (
                    new(change.Sequence, null),
                    () =>
                    {
                        board.Pace.Forget();
                        Take(change);
                    }
                );
            },
            cancel
        );

    /// <summary>Changes a picture of the library together with every job that has it.</summary>
    /// <param name="picture">The picture.</param>
    /// <param name="change">
    /// Changes its row; gives false when it is not to be changed after all, and whether its shape became another.
    /// </param>
    /// <param name="cancel">Stops waiting.</param>
    public async Task<T> ChangePictureAsync<T>(
        Guid picture,
        Func<PantometDb, PictureRow?, Task<(T Result, bool Changed, bool OtherShape)>> change,
        CancellationToken cancel
    )
    {
        var book = await jobs.SlotsAsync(cancel);
        return await writer.WriteAsync(
            async db =>
            {
                var ids = await db.JobPictures.Where(one => one.PictureId == picture).Select(one => one.JobId).ToListAsync();
                var boards = new List<JobBoard>();
                foreach (var id in ids)
                {
                    boards.AddRange(await jobs.OpenAsync(id, CancellationToken.None) is { } board ? [board] : []);
                }

                var (result, changed, otherShape) = await change(db, await db.Pictures.FindAsync(picture));
                if (!changed)
                {
                    return (result, null);
                }

                await db.SaveChangesAsync();
                db.ChangeTracker.Clear();
                var row = await db.Pictures.AsNoTracking().FirstOrDefaultAsync(one => one.Id == picture && one.RemovedAt == null);
                var changes = new List<JobChange>();
                foreach (var board in boards)
                {
                    changes.Add(await PictureChangedAsync(db, board, picture, row, otherShape));
                }

                return (result, (Action?)(() => changes.ForEach(Take)));
            },
            cancel
        );
    }

    /// <summary>Lays out anew, job by job, what was laid out by a rule that says something else now.</summary>
    /// <returns>How many jobs were.</returns>
    public async Task<int> LayOutAsync(CancellationToken cancel)
    {
        var book = await jobs.SlotsAsync(cancel);
        List<IGrouping<Guid, string>> stale;
        await using (var scope = scopes.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            var rows = await db
                .JobSlots.AsNoTracking()
                .Where(row => db.Jobs.Any(job => job.Id == row.JobId && job.Fault == null && job.Text == null))
                .Select(row => new
                {
                    row.JobId,
                    row.Slot,
                    row.LaidOutBy,
                })
                .ToListAsync(cancel);
            stale =
            [
                .. rows.Where(row => row.LaidOutBy != (book.GetValueOrDefault(row.Slot)?.LaidOutBy ?? ""))
                    .GroupBy(row => row.JobId, row => row.Slot),
            ];
        }

        // Those that somebody looks at first.
        foreach (var job in stale.OrderByDescending(job => jobs.Known(job.Key)?.IsLookedAt))
        {
            cancel.ThrowIfCancellationRequested();
            await LayOutAsync(job.Key, [.. job], book, cancel);
        }

        return stale.Count;
    }

    /// <summary>Makes the files of some cells again; null when there is no such job.</summary>
    public Task<SendResult?> AgainAsync(Guid id, IReadOnlyCollection<CellTables.Key> cells, CancellationToken cancel) =>
        writer.WriteAsync<SendResult?>(
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
                    () => changes.ForEach(one => Take(one.Change))
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
                return (true, () => changes.ForEach(one => Take(one.Change)));
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
                return (true, () => changes.ForEach(one => Take(one.Change)));
            },
            cancel
        );

    /// <summary>Brings every cell that wants some files in step with them, whatever job it is of.</summary>
    /// <param name="db">The database, within a transaction.</param>
    /// <param name="files">The files.</param>
    public async Task<List<(Guid Job, JobChange Change)>> FilesChangedAsync(PantometDb db, IEnumerable<string> files)
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
                return (true, () => Take(change));
            },
            cancel
        );

    public void Take(JobChange change)
    {
        change.Take();
        bell.Ring();
    }

    private async Task<List<(Guid Job, JobChange Change)>> ForgetAsync(PantometDb db, IReadOnlyCollection<string> files)
    {
        foreach (var chunk in files.Chunk(Statements.AtOnce))
        {
            await db.Variants.Where(row => chunk.Contains(row.Id)).ExecuteDeleteAsync();
            await db.Failures.Where(row => chunk.Contains(row.FileId)).ExecuteDeleteAsync();
        }

        return await FilesChangedAsync(db, files);
    }

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
                var around = await Surroundings.OfAsync(db, null, empty, book, begin, CancellationToken.None);
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
                return ((row.Id, (RefusedCommand?)null), (Action?)(() => Take(change)));
            },
            cancel
        );
    }

    private async Task<JobChange> StoreAsync(
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
        return await JobChange.WriteAsync(
            db,
            judge,
            board,
            next,
            JobChange.Touched(board, before, next, change),
            new()
            {
                Title = named || change.Patterns is not null,
                // The job's name is a part of the names of pictures that are counted under it.
                Pictures = (change.Decisions?.Keys ?? [])
                    .Concat(change.PicturesIn?.Select(one => one.Picture.Id) ?? [])
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

    private async Task<JobChange> PictureChangedAsync(PantometDb db, JobBoard board, Guid picture, PictureRow? row, bool otherShape)
    {
        var before = board.State;
        var rows = new Dictionary<Guid, PictureRow>(before.Rows);
        rows.Remove(picture);
        if (row is not null)
        {
            rows[picture] = row;
        }

        var next = before with { Rows = rows };
        if (otherShape && before.Job.Find(picture) is { } mine)
        {
            var job = before.Job.With(picture, mine.Decisions with { OtherShape = true });
            var patch = JobPatch.Between(before.Job, job);
            await JobTables.StoreAsync(db, before.Id, job, patch, before.Places);
            db.Commands.Add(
                new()
                {
                    JobId = before.Id,
                    Sequence = board.State.Sequence + 1,
                    Actor = "library",
                    At = Now,
                    Kind = "library",
                    Body = StoredJson.Write(patch),
                    Inverse = StoredJson.Write(JobPatch.Between(job, before.Job)),
                }
            );
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
            next = next with { Job = job };
        }

        var cells = next.Job.Slots.ToDictionary(
            place => new CellTables.Key(picture, place.Address),
            place => board.Cell(next, picture, place.Address)
        );
        return await JobChange.WriteAsync(
            db,
            judge,
            board,
            next,
            cells,
            new()
            {
                Pictures = new HashSet<Guid> { picture },
                Order = before.Rows.ContainsKey(picture) != rows.ContainsKey(picture),
            }
        );
    }

    private Task<bool> LayOutAsync(
        Guid id,
        IReadOnlyList<string> slots,
        IReadOnlyDictionary<string, BoardSlot> book,
        CancellationToken cancel
    ) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                if (await jobs.OpenAsync(id, CancellationToken.None) is not { } board)
                {
                    return (false, null);
                }

                var next = board.State with
                {
                    Slots = OpenJobs.SlotsOf(board.State.Job, book),
                    Stale = board.State.Stale.Except(slots).ToHashSet(),
                };
                var cells = next
                    .Shown.SelectMany(one => slots.Select(address => new CellTables.Key(one.Id, address)))
                    .ToDictionary(key => key, key => board.Cell(next, key.Picture, key.Slot));
                foreach (var slot in slots)
                {
                    var by = book.GetValueOrDefault(slot)?.LaidOutBy ?? "";
                    await db
                        .JobSlots.Where(one => one.JobId == id && one.Slot == slot)
                        .ExecuteUpdateAsync(set => set.SetProperty(one => one.LaidOutBy, by));
                }

                var change = await JobChange.WriteAsync(db, judge, board, next, cells, new() { Title = true, Slots = true });
                return (true, () => Take(change));
            },
            cancel
        );

    // The step that the commands belong to: a new one, or that of their gesture.
    private async Task<long> StepAsync(PantometDb db, Guid id, Sending sending)
    {
        var top = await db.Steps.Where(step => step.JobId == id).OrderByDescending(step => step.Number).FirstOrDefaultAsync();
        if (
            top is { State: StepState.Done }
            && sending.Gesture is { } gesture
            && top.Gesture == gesture
            && (sending.Within is null || Now - top.At < sending.Within)
            && await db
                .Commands.Where(row => row.JobId == id && row.Step == top.Number)
                .OrderByDescending(row => row.Id)
                .Select(row => row.Kind)
                .FirstOrDefaultAsync() == "commands"
        )
        {
            top.At = Now;
            await db.SaveChangesAsync();
            return top.Number;
        }

        await db
            .Steps.Where(step => step.JobId == id && step.State == StepState.Undone)
            .ExecuteUpdateAsync(set => set.SetProperty(step => step.State, StepState.Dropped));
        var fresh = new StepRow
        {
            JobId = id,
            Number = 1 + (top?.Number ?? 0),
            Gesture = sending.Gesture,
            At = Now,
            State = StepState.Done,
        };
        db.Steps.Add(fresh);
        await db.SaveChangesAsync();
        return fresh.Number;
    }

    // What leads from where a step stands now to the other side of it: its last undo or redo as a whole, or its commands from the last to
    // the first.
    private static async Task<IReadOnlyList<JobPatch>> WaysBackAsync(PantometDb db, Guid id, long step)
    {
        var rows = await db
            .Commands.AsNoTracking()
            .Where(row => row.JobId == id && row.Step == step)
            .OrderByDescending(row => row.Id)
            .Select(row => new { row.Kind, row.Inverse })
            .ToListAsync();
        return
        [
            .. (rows[0].Kind == "commands" ? rows.TakeWhile(row => row.Kind == "commands") : rows.Take(1)).Select(row =>
                StoredJson.Read<JobPatch>(row.Inverse)
            ),
        ];
    }

    private static async Task<string> FreeAsync(PantometDb db, string name)
    {
        var taken = (await db.Jobs.Where(row => row.Name.StartsWith(name)).Select(row => row.Name).ToListAsync()).ToHashSet(
            StringComparer.OrdinalIgnoreCase
        );
        return Enumerable.Range(1, int.MaxValue).Select(n => n == 1 ? name : $"{name} {n}").First(one => !taken.Contains(one));
    }
}

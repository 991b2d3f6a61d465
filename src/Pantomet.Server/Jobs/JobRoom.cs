using System.Collections.Concurrent;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Core.Jobs;
using Pantomet.Core.Rules;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;
using Pantomet.Imaging.Making;
using Pantomet.Server.Destinations;
using Pantomet.Server.Variants;

namespace Pantomet.Server.Jobs;

/// <summary>All jobs, laid out: every change goes through here, is stored, and is told to everyone who looks.</summary>
internal sealed class JobRoom(IServiceScopeFactory scopes, VariantStore store, TimeProvider clock) : IDisposable
{
    private static readonly JsonSerializerOptions Json = JsonSerializerOptions.Web;

    private readonly SemaphoreSlim _gate = new(1, 1);
    private readonly ConcurrentDictionary<Guid, JobBoard> _boards = new();
    private readonly ConcurrentDictionary<string, Guid> _making = new();
    private readonly ConcurrentDictionary<string, WeighedFile> _weighed = new();
    private readonly SemaphoreSlim _wake = new(0);
    private Dictionary<string, BoardSlot> _slots = [];
    private bool _loaded;

    public CellJudge Judge => field ??= new(store, _making.ContainsKey, _weighed.GetValueOrDefault);

    /// <summary>Reads all jobs in. What was made before is found again, so that only the rest is made.</summary>
    public async Task LoadAsync(CancellationToken cancel)
    {
        await _gate.WaitAsync(cancel);
        try
        {
            if (_loaded)
            {
                return;
            }

            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            _slots = await SlotsAsync(scope, cancel);
            foreach (var row in await db.Jobs.AsNoTracking().ToListAsync(cancel))
            {
                var board = new JobBoard(row.Id, JsonSerializer.Deserialize<Job>(row.Text, Json)!, row.CreatedAt) { ArchivedAt = row.ArchivedAt, Run = row.Run };
                _boards[row.Id] = board;
                await LayOutAsync(board, db, cancel);
            }

            _loaded = true;
            _wake.Release();
        }
        finally
        {
            _gate.Release();
        }
    }

    public IReadOnlyList<JobBoard> All() => [.. _boards.Values.OrderByDescending(board => board.CreatedAt)];

    public JobBoard? Find(Guid id) => _boards.GetValueOrDefault(id);

    public async Task<JobBoard> CreateAsync(Job job, CancellationToken cancel)
    {
        await _gate.WaitAsync(cancel);
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            var board = new JobBoard(Guid.CreateVersion7(), job, clock.GetUtcNow().UtcDateTime);
            db.Jobs.Add(new() { Id = board.Id, Text = JsonSerializer.Serialize(job, Json), CreatedAt = board.CreatedAt });
            await db.SaveChangesAsync(cancel);
            await LayOutAsync(board, db, cancel);
            _boards[board.Id] = board;
            _wake.Release();
            return board;
        }
        finally
        {
            _gate.Release();
        }
    }

    /// <summary>Changes a job, stores it, and tells. A change to the very same job is none.</summary>
    /// <param name="id">The job.</param>
    /// <param name="change">Gives the changed job.</param>
    /// <param name="cancel">Stops.</param>
    /// <param name="together">Changes of one kind that follow each other closely are one step.</param>
    public Task<JobEvent?> ChangeAsync(Guid id, Func<Job, Job> change, CancellationToken cancel, string? together = null) => AtAsync(id, async (board, db) =>
    {
        var changed = change(board.Job);
        if (ReferenceEquals(changed, board.Job))
        {
            return Tell(board, [], changed: false);
        }

        board.Change(changed, together);
        return await StoreAsync(board, db, cancel);
    }, cancel);

    /// <summary>Goes one step back or forward.</summary>
    public Task<JobEvent?> StepAsync(Guid id, bool back, CancellationToken cancel) => AtAsync(id, async (board, db) =>
        board.Step(back) ? await StoreAsync(board, db, cancel) : Tell(board, [], changed: false), cancel);

    public Task<JobEvent?> RunAsync(Guid id, RunState run, CancellationToken cancel) => AtAsync(id, async (board, db) =>
    {
        board.Run = run;
        board.Pace.Forget();
        await db.Jobs.Where(row => row.Id == id).ExecuteUpdateAsync(set => set.SetProperty(row => row.Run, run), cancel);
        return Tell(board, [], changed: true);
    }, cancel);

    public Task<JobEvent?> ArchiveAsync(Guid id, bool archived, CancellationToken cancel) => AtAsync(id, async (board, db) =>
    {
        board.ArchivedAt = archived ? clock.GetUtcNow().UtcDateTime : null;
        await db.Jobs.Where(row => row.Id == id).ExecuteUpdateAsync(set => set.SetProperty(row => row.ArchivedAt, board.ArchivedAt), cancel);
        return Tell(board, [], changed: true);
    }, cancel);

    /// <summary>What was decided about a picture in the job that was last made with it: where another job begins.</summary>
    public Decisions MarksOf(Guid picture)
    {
        var last = All().Select(board => board.Job.Find(picture)).FirstOrDefault(one => one is not null)?.Decisions;
        return last is null ? Decisions.None : Decisions.None with
        {
            Turn = last.Turn,
            Focus = last.Focus,
            Keep = last.Keep,
            NoSuggestion = last.NoSuggestion,
            Keywords = last.Keywords,
            Alternative = last.Alternative,
        };
    }

    /// <summary>Lays all jobs out anew after the book of rules changed.</summary>
    public async Task RulesChangedAsync(CancellationToken cancel)
    {
        await _gate.WaitAsync(cancel);
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            var fresh = await SlotsAsync(scope, cancel);
            // A rule that says the same keeps its cells.
            foreach (var (address, slot) in fresh.ToList())
            {
                if (_slots.TryGetValue(address, out var known) && known.Destination.Name == slot.Destination.Name && RulesWriter.Write(new RuleBook([new("d", "d", [known.Slot])])) == RulesWriter.Write(new RuleBook([new("d", "d", [slot.Slot])])))
                {
                    fresh[address] = known;
                }
            }

            _slots = fresh;
            await AllAnewAsync(scope, board => true, cancel);
        }
        finally
        {
            _gate.Release();
        }
    }

    /// <summary>Lays out anew what holds a picture, after its original changed or it went away or came back.</summary>
    /// <param name="picture">The picture.</param>
    /// <param name="otherShape">True when frames by hand were set on another shape.</param>
    /// <param name="cancel">Stops.</param>
    public async Task PictureChangedAsync(Guid picture, bool otherShape, CancellationToken cancel)
    {
        await _gate.WaitAsync(cancel);
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            foreach (var board in _boards.Values.Where(board => board.Job.Find(picture) is not null))
            {
                if (otherShape && board.Job.Find(picture) is { } mine)
                {
                    board.Change(board.Job.With(picture, mine.Decisions with { OtherShape = true }));
                    await StoreTextAsync(board, scope.ServiceProvider.GetRequiredService<PantometDb>(), cancel);
                }
            }

            await AllAnewAsync(scope, board => board.Job.Find(picture) is not null, cancel);
        }
        finally
        {
            _gate.Release();
        }
    }

    /// <summary>Forgets files so that they are made again.</summary>
    public Task<JobEvent?> AgainAsync(Guid id, IReadOnlySet<(Guid, string)> cells, CancellationToken cancel) => AtAsync(id, async (board, _) =>
    {
        var theirs = board.Cells.Where(pair => cells.Contains(pair.Key)).Select(pair => pair.Value).ToList();
        await store.ForgetAsync([.. theirs.SelectMany(cell => cell.Files).Select(file => file.Id).Distinct()], cancel);
        board.Requeue();
        return Tell(board, theirs, changed: false);
    }, cancel);

    /// <summary>The next file of all running jobs, marked as being made; null when nothing is to do.</summary>
    /// <param name="awaited">True for a file that a person waits for, or none.</param>
    public (JobBoard Board, WantedFile File)? Begin(bool awaited = false)
    {
        var busy = _making.Values.ToHashSet();
        // The job that somebody looks at comes first.
        foreach (var board in _boards.Values.Where(board => board is { ArchivedAt: null, Run: RunState.Running }).OrderByDescending(board => board.Look.Pictures.Count > 0).ThenBy(board => board.CreatedAt))
        {
            while (board.Next(id => store.Known(id) is null && store.Failure(id) is null && !_making.ContainsKey(id), busy, awaited) is { } file)
            {
                if (_making.TryAdd(file.Id, file.Picture.Id))
                {
                    TellAbout(file.Id);
                    return (board, file);
                }
            }
        }

        return null;
    }

    /// <summary>Tells every job that wants the file what it weighs, before the rest is known.</summary>
    public void Weighed(string id, WeighedFile file)
    {
        _weighed[id] = file;
        TellAbout(id);
    }

    /// <summary>Ends what was begun and tells every job that wants the file.</summary>
    public void End(string id)
    {
        _making.TryRemove(id, out _);
        _weighed.TryRemove(id, out _);
        TellAbout(id);
    }

    /// <summary>True while this file is still wanted by a running job.</summary>
    public bool IsWanted(string id) => _boards.Values.Any(board => board is { ArchivedAt: null, Run: not RunState.Stopped } && board.CellsWith(id).Count > 0);

    public Task WaitForWorkAsync(TimeSpan most, CancellationToken cancel) => _wake.WaitAsync(most, cancel);

    public JobProgress ProgressOf(JobBoard board)
    {
        int files = 0, done = 0, failed = 0, making = 0;
        long bytes = 0;
        var left = 0.0;
        lock (board.Gate)
        {
            foreach (var file in board.AllFiles())
            {
                files++;
                if (store.Known(file.Id) is { } row)
                {
                    done++;
                    bytes += row.Bytes;
                }
                else if (store.Failure(file.Id) is not null)
                {
                    failed++;
                }
                else
                {
                    making += _making.ContainsKey(file.Id) ? 1 : 0;
                    left += Pace.WorkOf(file);
                }
            }
        }

        return new(files, done, failed, making, bytes, left > 0 && board.Run == RunState.Running ? board.Pace.SecondsFor(left) : null);
    }

    public JobView ViewOf(JobBoard board)
    {
        lock (board.Gate)
        {
            return new(JobHead.Of(board), [.. board.Cells.Values.Select(Judge.View)], ProgressOf(board));
        }
    }

    public JobSummary SummaryOf(JobBoard board)
    {
        int looks;
        lock (board.Gate)
        {
            looks = board.Cells.Values.Count(cell => Judge.View(cell).Looks.Count > 0);
        }

        var job = board.Job;
        return new(
            board.Id, job.Name, board.CreatedAt, board.ArchivedAt is not null, board.Run, job.Pictures.Count(one => board.Rows.ContainsKey(one.Id)), job.Slots.Count,
            [.. job.Pictures.Where(one => board.Rows.ContainsKey(one.Id)).Take(6).Select(one => new ShownPicture(one.Id, ShownPicture.Words(board.Rows[one.Id], one.Decisions)))],
            ProgressOf(board), looks);
    }

    public void Dispose()
    {
        _gate.Dispose();
        _wake.Dispose();
    }

    private async Task<JobEvent?> AtAsync(Guid id, Func<JobBoard, PantometDb, Task<JobEvent>> act, CancellationToken cancel)
    {
        await _gate.WaitAsync(cancel);
        try
        {
            if (Find(id) is not { } board)
            {
                return null;
            }

            await using var scope = scopes.CreateAsyncScope();
            var what = await act(board, scope.ServiceProvider.GetRequiredService<PantometDb>());
            _wake.Release();
            return what;
        }
        finally
        {
            _gate.Release();
        }
    }

    private async Task<JobEvent> StoreAsync(JobBoard board, PantometDb db, CancellationToken cancel)
    {
        await StoreTextAsync(board, db, cancel);
        return Tell(board, await LayOutAsync(board, db, cancel), changed: true);
    }

    private static async Task StoreTextAsync(JobBoard board, PantometDb db, CancellationToken cancel)
    {
        var text = JsonSerializer.Serialize(board.Job, Json);
        await db.Jobs.Where(row => row.Id == board.Id).ExecuteUpdateAsync(set => set.SetProperty(row => row.Text, text), cancel);
    }

    private async Task AllAnewAsync(AsyncServiceScope scope, Func<JobBoard, bool> which, CancellationToken cancel)
    {
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        foreach (var board in _boards.Values.Where(which))
        {
            Tell(board, await LayOutAsync(board, db, cancel), changed: true);
        }

        _wake.Release();
    }

    private async Task<IReadOnlyList<BoardCell>> LayOutAsync(JobBoard board, PantometDb db, CancellationToken cancel)
    {
        var ids = board.Job.Pictures.Select(one => one.Id).ToList();
        var rows = await db.Pictures.AsNoTracking().Where(row => ids.Contains(row.Id) && row.RemovedAt == null).ToDictionaryAsync(row => row.Id, cancel);
        var changed = board.LayOut(rows, _slots);
        await store.RecallAsync(changed.SelectMany(cell => cell.Files).Select(file => file.Id), cancel);
        return changed;
    }

    private void TellAbout(string file)
    {
        foreach (var board in _boards.Values)
        {
            lock (board.Gate)
            {
                if (board.CellsWith(file) is { Count: > 0 } cells)
                {
                    Tell(board, cells, changed: false);
                }
            }
        }
    }

    // Under the board's lock, so that what is told later was seen later.
    private JobEvent Tell(JobBoard board, IReadOnlyList<BoardCell> cells, bool changed)
    {
        lock (board.Gate)
        {
            var what = new JobEvent(board.Version, changed ? JobHead.Of(board) : null, [.. cells.Select(Judge.View)], ProgressOf(board), board.Run);
            board.Tell(what);
            return what;
        }
    }

    private static async Task<Dictionary<string, BoardSlot>> SlotsAsync(AsyncServiceScope scope, CancellationToken cancel)
    {
        var book = await scope.ServiceProvider.GetRequiredService<RuleShelf>().BookAsync(cancel);
        return book.Destinations.SelectMany(destination => destination.Slots.Select(slot => new BoardSlot(destination, slot, RulesWriter.BytesKey(slot))))
            .ToDictionary(slot => $"{slot.Destination.Key}/{slot.Slot.Key}");
    }
}

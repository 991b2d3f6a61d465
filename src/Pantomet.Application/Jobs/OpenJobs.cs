using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Destinations;
using Pantomet.Core.Rules;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Jobs;

/// <summary>
/// The jobs that are open in memory, and the book of rules as it is now. What is not used for a while is closed; the tables have it all.
/// </summary>
public sealed partial class OpenJobs(IServiceScopeFactory scopes, SideFileStore files, TimeProvider clock, ILogger<OpenJobs> log)
    : IDisposable
{
    private const int MostOpen = 6;
    private static readonly TimeSpan Rest = TimeSpan.FromMinutes(2);

    private readonly ConcurrentDictionary<Guid, JobBoard> _boards = new();
    private readonly SemaphoreSlim _opening = new(1, 1);
    private readonly SemaphoreSlim _reading = new(1, 1);
    private IReadOnlyDictionary<string, BoardSlot>? _slots;

    /// <summary>The boards that are open now.</summary>
    public IEnumerable<JobBoard> All => _boards.Values;

    /// <summary>The slots of the book by address.</summary>
    public async Task<IReadOnlyDictionary<string, BoardSlot>> SlotsAsync(CancellationToken cancel)
    {
        if (_slots is { } known)
        {
            return known;
        }

        await _reading.WaitAsync(cancel);
        try
        {
            if (_slots is null)
            {
                await using var scope = scopes.CreateAsyncScope();
                await files.NamesAsync(cancel);
                SetBook(await scope.ServiceProvider.GetRequiredService<RuleStore>().BookAsync(cancel));
            }

            return _slots!;
        }
        finally
        {
            _reading.Release();
        }
    }

    /// <summary>Takes over a book that was stored.</summary>
    /// <remarks>Before the logos and fonts are read that it names, it is read again when it is asked for.</remarks>
    public void SetBook(RuleBook book) =>
        _slots = !files.IsRead ? null : BookOfRules.SlotsOf(book, files, _slots ?? new Dictionary<string, BoardSlot>());

    /// <summary>The job where it is held in memory; null where it is not.</summary>
    public JobBoard? Known(Guid id) => _boards.GetValueOrDefault(id);

    /// <summary>A job, read in if it is not open; null when there is none or it was set aside.</summary>
    public async Task<JobBoard?> OpenAsync(Guid id, CancellationToken cancel)
    {
        if (_boards.TryGetValue(id, out var open))
        {
            open.UsedAt = clock.GetUtcNow().UtcDateTime;
            return open;
        }

        var slots = await SlotsAsync(cancel);
        await _opening.WaitAsync(cancel);
        try
        {
            if (_boards.TryGetValue(id, out open))
            {
                return open;
            }

            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            StoredJob? stored;
            try
            {
                stored = await JobTables.LoadAsync(db, id, cancel);
            }
            catch (InvalidDataException fault)
            {
                await SetAsideAsync(db, id, fault.Message);
                return null;
            }

            if (stored is null || stored.Row.Fault is not null || stored.Row.Text is not null)
            {
                return null;
            }

            var board = new JobBoard(await StateAsync(db, stored, slots, cancel)) { UsedAt = clock.GetUtcNow().UtcDateTime };
            return _boards[id] = board;
        }
        finally
        {
            _opening.Release();
        }
    }

    /// <summary>Opens a job and listens to it: the board cannot be closed in between.</summary>
    public async Task<(JobBoard Board, System.Threading.Channels.Channel<JobEvent> Channel)?> ListenAsync(Guid id, CancellationToken cancel)
    {
        while (await OpenAsync(id, cancel) is { } board)
        {
            var channel = board.Listen();
            if (ReferenceEquals(Known(id), board))
            {
                return (board, channel);
            }

            board.Leave(channel);
        }

        return null;
    }

    /// <summary>
    /// Closes jobs that were not used for a while, and the least recently used of too many, but for those that somebody looks at. Only
    /// while nothing is written: a change
    /// that is under way must find its job.
    /// </summary>
    public void CloseIdle()
    {
        var now = clock.GetUtcNow().UtcDateTime;
        var idle = _boards.Values.Where(board => !board.IsLookedAt).OrderBy(board => board.UsedAt).ToList();
        foreach (var board in idle.Where((board, at) => now - board.UsedAt > Rest || at < idle.Count - MostOpen))
        {
            _boards.TryRemove(board.Id, out _);
        }
    }

    /// <summary>The pictures of a job that the library has.</summary>
    public static async Task<Dictionary<Guid, PictureRow>> RowsAsync(PantometDb db, Guid job, CancellationToken cancel) =>
        await db
            .Pictures.AsNoTracking()
            .Where(row => row.RemovedAt == null && db.JobPictures.Any(one => one.JobId == job && one.PictureId == row.Id))
            .ToDictionaryAsync(row => row.Id, cancel);

    /// <summary>The slots of a job that the book has.</summary>
    public static Dictionary<string, BoardSlot> SlotsOf(Core.Jobs.Job job, IReadOnlyDictionary<string, BoardSlot> book) =>
        job
            .Slots.Where(place => book.ContainsKey(place.Address))
            .DistinctBy(place => place.Address)
            .ToDictionary(place => place.Address, place => book[place.Address]);

    /// <summary>What can be undone and done again.</summary>
    public static async Task<(bool CanUndo, bool CanRedo)> StepsAsync(PantometDb db, Guid job, CancellationToken cancel)
    {
        var last = await db
            .Steps.Where(step => step.JobId == job && step.State == StepState.Done)
            .OrderByDescending(step => step.Number)
            .Select(step => (long?)step.Number)
            .FirstOrDefaultAsync(cancel);
        return (
            last is not null,
            await db.Steps.AnyAsync(step => step.JobId == job && step.Number > (last ?? 0) && step.State == StepState.Undone, cancel)
        );
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        _opening.Dispose();
        _reading.Dispose();
    }

    private static async Task<BoardState> StateAsync(
        PantometDb db,
        StoredJob stored,
        IReadOnlyDictionary<string, BoardSlot> slots,
        CancellationToken cancel
    )
    {
        var row = stored.Row;
        var (canUndo, canRedo) = await StepsAsync(db, row.Id, cancel);
        return new()
        {
            Id = row.Id,
            Job = stored.Job,
            CreatedAt = row.CreatedAt,
            Sequence = row.Sequence,
            ArchivedAt = row.ArchivedAt,
            Run = row.Run,
            Rows = await RowsAsync(db, row.Id, cancel),
            Slots = SlotsOf(stored.Job, slots),
            Stale = stored
                .LaidOutBy.Where(pair => pair.Value != (slots.GetValueOrDefault(pair.Key)?.LaidOutBy ?? ""))
                .Select(pair => pair.Key)
                .ToHashSet(),
            Places = stored.Places,
            Tally = new(row.Files, row.Done, row.Failed, row.Bytes, row.Left, row.ToReview),
            CanUndo = canUndo,
            CanRedo = canRedo,
        };
    }

    private async Task SetAsideAsync(PantometDb db, Guid id, string why)
    {
        JobIsSetAside(log, id, why);
        await db.Jobs.Where(row => row.Id == id).ExecuteUpdateAsync(set => set.SetProperty(row => row.Fault, why), CancellationToken.None);
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "The job {Job} is set aside: {Why}")]
    private static partial void JobIsSetAside(ILogger log, Guid job, string why);
}

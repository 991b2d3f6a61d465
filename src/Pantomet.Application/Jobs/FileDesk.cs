using System.Collections.Concurrent;
using System.Data.Common;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Background;
using Pantomet.Application.Variants;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Jobs;

/// <summary>
/// Makes files, each once however many want it, and puts down what came of it: the file with its figures, or the failure with its cause,
/// its tries and when it is
/// tried again. Every failure is logged once.
/// </summary>
public sealed partial class FileDesk(
    IServiceScopeFactory scopes,
    VariantStore store,
    JobFiles files,
    JobChanges changes,
    Writer writer,
    WorkOptions options,
    TimeProvider clock,
    ILogger<FileDesk> log
)
{
    private static readonly TimeSpan[] Locked = [.. new[] { 0.2, 1, 3, 10, 30 }.Select(TimeSpan.FromSeconds)];
    private readonly ConcurrentDictionary<string, Making> _underWay = new();

    // When a failure is tried again next, as far as the table is known; looked up anew after each that is put down.
    private DateTime? _nextTry;
    private volatile bool _lookedThrough;

    /// <summary>
    /// Makes a file, or finds it again; what is being made for somebody else is waited for, and made here only if the other gives up.
    /// </summary>
    /// <param name="wanted">The file.</param>
    /// <param name="urgent">True when a person waits for it.</param>
    /// <param name="cancel">Stops between encodes.</param>
    /// <param name="found">Told of the file as soon as it is found.</param>
    public async Task<FileStandings> MakeAsync(WantedFile wanted, bool urgent, CancellationToken cancel, Action<FoundFile>? found = null)
    {
        while (true)
        {
            var known = await StandingAsync(wanted.Id, cancel);
            if (known.Made(wanted.Id) is { } made)
            {
                if (await store.IsWholeAsync(made, cancel))
                {
                    await WantedAsync(made);
                    return known;
                }

                // Should it not be made again, nobody takes the damaged one for it.
                FileIsDamaged(log, made.Id, made.ContentHash);
                await files.ForgetAsync([made.Id], CancellationToken.None);
            }

            using var mine = new Making();
            var other = _underWay.GetOrAdd(wanted.Id, mine);
            if (found is not null)
            {
                other.Listen(found);
            }

            if (!ReferenceEquals(other, mine))
            {
                await other.Ended.WaitAsync(cancel);
                if (other.Failed)
                {
                    return await StandingAsync(wanted.Id, cancel);
                }

                continue;
            }

            try
            {
                var rendered = await store.RenderAsync(wanted, urgent, mine.Tell, cancel);
                mine.Failed = rendered.Row is null;
                WorkMetrics.FileEnded(rendered.Row is not null);
                await StoreAsync(wanted, rendered, known.Tries(wanted.Id));
                return await StandingAsync(wanted.Id, CancellationToken.None);
            }
            finally
            {
                _underWay.TryRemove(wanted.Id, out _);
            }
        }
    }

    /// <summary>
    /// The file, byte for byte, with its figures; one that is missing, short or of another hash is made again, and may then weigh a little
    /// more or less. Null when that cannot be done.
    /// </summary>
    public async Task<(byte[] Bytes, VariantRow Row)?> ReadAsync(WantedFile wanted, VariantRow row, CancellationToken cancel)
    {
        if (await store.ReadAsync(row, cancel) is { } bytes)
        {
            return (bytes, row);
        }

        FileIsDamaged(log, row.Id, row.ContentHash);
        await files.ForgetAsync([row.Id], cancel);
        var again = (await MakeAsync(wanted, urgent: true, cancel)).Made(wanted.Id);
        return again is not null && await store.ReadAsync(again, cancel) is { } fresh ? (fresh, again) : null;
    }

    /// <summary>Lets failures be tried again whose pause is over.</summary>
    /// <returns>How long until the next one is.</returns>
    public async Task<TimeSpan?> TickAsync(CancellationToken cancel)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        if (_lookedThrough && (_nextTry is null || _nextTry > now))
        {
            return _nextTry - now;
        }

        _lookedThrough = true;
        await using (var scope = scopes.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            _nextTry = await db
                .Failures.Where(row => row.NextAt != null)
                .OrderBy(row => row.NextAt)
                .Select(row => row.NextAt)
                .FirstOrDefaultAsync(cancel);
            if (_nextTry is null || _nextTry > now)
            {
                return _nextTry - now;
            }
        }

        return await writer.WriteAsync<TimeSpan?>(
            async db =>
            {
                var due = await db
                    .Failures.AsNoTracking()
                    .Where(row => row.NextAt != null && row.NextAt <= now)
                    .Select(row => row.FileId)
                    .Take(Statements.AtOnce)
                    .ToListAsync();
                // The tries are kept: only that it rests is removed.
                await db
                    .Failures.Where(row => due.Contains(row.FileId))
                    .ExecuteUpdateAsync(set =>
                        set.SetProperty(row => row.NextAt, (DateTime?)null).SetProperty(row => row.Code, FailureRow.Due)
                    );
                var changed = await files.ChangedAsync(db, due);
                return (TimeSpan.Zero, () => changes.Publish(changed));
            },
            cancel
        );
    }

    // The database may be locked by another program for a while: what was made is not thrown away for that.
    private async Task StoreAsync(WantedFile wanted, Rendered rendered, int tries)
    {
        for (var attempt = 0; ; attempt++)
        {
            try
            {
                await writer.WriteAsync<bool>(
                    async db =>
                    {
                        var changed = rendered.Row is { } row
                            ? await MadeAsync(db, row)
                            : await FailedAsync(db, wanted, rendered.Failure!, tries + 1);
                        return (
                            true,
                            () =>
                            {
                                // Only now does the table have the next try.
                                _lookedThrough &= rendered.Failure is null;
                                changes.Publish(changed);
                            }
                        );
                    },
                    CancellationToken.None
                );
                return;
            }
            // What is saved through the model comes wrapped.
            catch (Exception fault)
                when (fault is DbException or DbUpdateException { InnerException: DbException } && attempt < Locked.Length)
            {
                NotStored(log, wanted.Id, Locked[attempt].TotalSeconds, fault.Message);
                await Task.Delay(Locked[attempt], CancellationToken.None);
            }
        }
    }

    private async Task<List<JobChange>> MadeAsync(PantometDb db, VariantRow row)
    {
        await db.Variants.Where(other => other.Id == row.Id).ExecuteDeleteAsync();
        await db.Failures.Where(failure => failure.FileId == row.Id).ExecuteDeleteAsync();
        if (await db.Pictures.AnyAsync(picture => picture.Id == row.PictureId))
        {
            db.Variants.Add(row);
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
        }

        return await files.ChangedAsync(db, [row.Id]);
    }

    private async Task<List<JobChange>> FailedAsync(PantometDb db, WantedFile wanted, RenderFailure failure, int tries)
    {
        var again = failure.MayPass && tries <= options.Pauses.Count;
        FileFailed(
            log,
            again ? LogLevel.Warning : LogLevel.Error,
            wanted.Id,
            wanted.Picture.Name,
            tries,
            failure.Code,
            failure.Reason,
            again ? JobTexts.IsTriedAgain : JobTexts.IsGivenUp
        );
        var now = clock.GetUtcNow().UtcDateTime;
        await db.Failures.Where(row => row.FileId == wanted.Id).ExecuteDeleteAsync();
        if (await db.Pictures.AnyAsync(picture => picture.Id == wanted.Picture.Id))
        {
            db.Failures.Add(
                new()
                {
                    FileId = wanted.Id,
                    PictureId = wanted.Picture.Id,
                    Tries = tries,
                    At = now,
                    NextAt = again ? now + options.Pauses[tries - 1] : null,
                    Code = failure.Code,
                    Reason = again ? JobTexts.PantometTriesAgainByItself(failure.Reason) : failure.Reason,
                }
            );
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
        }

        return await files.ChangedAsync(db, [wanted.Id]);
    }

    // To the day: what was not wanted for longest is collected first.
    private async Task WantedAsync(VariantRow row)
    {
        var today = clock.GetUtcNow().UtcDateTime.Date;
        if (row.WantedAt < today)
        {
            await writer.WriteAsync<bool>(
                async db =>
                {
                    await db.Variants.Where(one => one.Id == row.Id).ExecuteUpdateAsync(set => set.SetProperty(one => one.WantedAt, today));
                    return (true, null);
                },
                CancellationToken.None
            );
        }
    }

    private async Task<FileStandings> StandingAsync(string id, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await FileStandings.OfAsync(scope.ServiceProvider.GetRequiredService<PantometDb>(), [id], cancel);
    }

    [LoggerMessage(Message = "The file {File} of {Picture} could not be made, try {Tries}, {Code}: {Reason} It {Then}.")]
    private static partial void FileFailed(
        ILogger log,
        LogLevel level,
        string file,
        string picture,
        int tries,
        string code,
        string reason,
        string then
    );

    [LoggerMessage(Level = LogLevel.Warning, Message = "The file {File} is made but could not be stored; next try in {Seconds} s: {Why}")]
    private static partial void NotStored(ILogger log, string file, double seconds, string why);

    [LoggerMessage(Level = LogLevel.Warning, Message = "The file {File} ({Hash}) is missing or damaged and is made again.")]
    private static partial void FileIsDamaged(ILogger log, string file, string hash);

    /// <summary>A file that somebody is making, for all who want it.</summary>
    private sealed class Making : IDisposable
    {
        private readonly TaskCompletionSource _ended = new(TaskCreationOptions.RunContinuationsAsynchronously);
        private readonly List<Action<FoundFile>> _listeners = [];
        private FoundFile? _found;

        public Task Ended => _ended.Task;

        public bool Failed { get; set; }

        public void Listen(Action<FoundFile> listener)
        {
            lock (_listeners)
            {
                _listeners.Add(listener);
                if (_found is not null)
                {
                    listener(_found);
                }
            }
        }

        public void Tell(FoundFile file)
        {
            lock (_listeners)
            {
                _found = file;
                _listeners.ForEach(listener => listener(file));
            }
        }

        public void Dispose() => _ended.TrySetResult();
    }
}

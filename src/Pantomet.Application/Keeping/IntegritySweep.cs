using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Background;
using Pantomet.Application.Jobs;
using Pantomet.Backups;
using Pantomet.Core.Texts;
using Pantomet.Data;

namespace Pantomet.Application.Keeping;

/// <summary>How far the slow check of all stored files is, and what it found.</summary>
/// <param name="Checked">How many files this round has read.</param>
/// <param name="Of">Of how many.</param>
/// <param name="FinishedAt">When the last whole round ended, UTC; null before the first.</param>
/// <param name="Remade">How many damaged files were removed to be made again, since the start.</param>
/// <param name="DamagedOriginals">Originals that are missing or damaged, by the names of their pictures.</param>
public sealed record IntegrityView(int Checked, int Of, DateTime? FinishedAt, int Remade, IReadOnlyList<DamagedOriginal> DamagedOriginals);

/// <summary>An original that is missing or damaged.</summary>
/// <param name="Name">The picture's name.</param>
/// <param name="Sha256">The hash that its bytes should have.</param>
/// <param name="Backup">The newest of the server's backups that has it; null where none has.</param>
public sealed record DamagedOriginal(string Name, string Sha256, string? Backup);

/// <summary>
/// Reads every stored file again and again, slowly, and holds it against its hash: a disk that loses bits tells nobody. A damaged file is removed
/// and made again; a damaged original is named.
/// </summary>
public sealed partial class IntegritySweep(
    IServiceScopeFactory scopes,
    DataFolder folder,
    JobFiles files,
    WorkOptions options,
    TimeProvider clock,
    ILogger<IntegritySweep> log
) : BackgroundWork(log)
{
    private readonly Lock _gate = new();
    private readonly SortedDictionary<string, string> _damaged = new(StringComparer.Ordinal);
    private readonly WorkSignal _signal = new();
    private volatile bool _isAsked;
    private int _checked;
    private int _of;
    private int _remade;
    private DateTime? _finishedAt;

    /// <summary>How far it is.</summary>
    public IntegrityView View()
    {
        Dictionary<string, string> damaged;
        IntegrityView view;
        lock (_gate)
        {
            damaged = new(_damaged, StringComparer.Ordinal);
            view = new(_checked, _of, _finishedAt, _remade, []);
        }

        // The lists of backups are read only where something is damaged, and nothing waits for that.
        var held =
            damaged.Count > 0 && BackupFolder.Is(options.BackupFolder)
                ? new BackupFolder(options.BackupFolder).Holding(damaged.Keys.ToHashSet(StringComparer.Ordinal))
                : new Dictionary<string, IReadOnlyList<string>>();
        return view with
        {
            DamagedOriginals =
            [
                .. damaged
                    .Select(one => new DamagedOriginal(one.Value, one.Key, held.GetValueOrDefault(one.Key)?[0]))
                    .OrderBy(one => one.Name, StringComparer.OrdinalIgnoreCase),
            ],
        };
    }

    /// <summary>Has everything read now, as fast as the disk gives it.</summary>
    public void CheckNow()
    {
        lock (_gate)
        {
            (_checked, _isAsked) = (0, true);
        }

        _signal.Ring();
    }

    /// <summary>Restores originals that are missing or damaged from the server's backups.</summary>
    /// <returns>How many there are whole again.</returns>
    public async Task<int> RestoreOriginalsAsync(CancellationToken cancel)
    {
        var restored = 0;
        foreach (var one in View().DamagedOriginals.Where(one => one.Backup is not null))
        {
            if (!await DataRestore.OriginalAsync(options.BackupFolder, one.Sha256, folder.Root, cancel))
            {
                continue;
            }

            restored++;
            lock (_gate)
            {
                _damaged.Remove(one.Sha256);
            }

            foreach (var picture in await PicturesOfAsync(one.Sha256, cancel))
            {
                await files.TryAgainAsync(picture, CancellationToken.None);
            }
        }

        return restored;
    }

    private async Task<List<Guid>> PicturesOfAsync(string hash, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await scope
            .ServiceProvider.GetRequiredService<PantometDb>()
            .Pictures.Where(row => row.ContentHash == hash)
            .Select(row => row.Id)
            .ToListAsync(cancel);
    }

    /// <summary>Reads everything once.</summary>
    public async Task RunAsync(CancellationToken cancel)
    {
        var (originals, variants) = (folder.Originals.Names().Select(one => one.Hash).ToList(), await VariantsAsync(cancel));
        var wanted = await OriginalsAsync(cancel);
        // What is missing is found among what must be there, what is damaged among what is.
        originals = [.. originals.Union(wanted.Keys, StringComparer.Ordinal)];
        lock (_gate)
        {
            (_checked, _of) = (0, originals.Count + variants.Count);
        }

        foreach (var hash in originals)
        {
            var whole = await folder.Originals.CheckAsync(hash, PaceAsync, cancel);
            lock (_gate)
            {
                _checked++;
                if (whole || !wanted.TryGetValue(hash, out var name))
                {
                    _damaged.Remove(hash);
                }
                else if (_damaged.TryAdd(hash, name))
                {
                    OriginalIsDamaged(log, name, hash);
                }
            }
        }

        foreach (var hash in variants)
        {
            if (!await folder.Variants.CheckAsync(hash, PaceAsync, cancel))
            {
                await GiveUpAsync(hash, cancel);
            }

            Interlocked.Increment(ref _checked);
        }

        lock (_gate)
        {
            _finishedAt = clock.GetUtcNow().UtcDateTime;
        }
    }

    /// <inheritdoc/>
    protected override Task BeginAsync(CancellationToken stopping) => _signal.WaitAsync(options.IntegrityBegins, stopping);

    /// <inheritdoc/>
    protected override async Task StepAsync(CancellationToken stopping)
    {
        await RunAsync(stopping);
        _isAsked = false;
        await _signal.WaitAsync(options.IntegrityEvery, stopping);
    }

    // So slow that nobody notices it, unless somebody waits for it.
    private async Task PaceAsync(int bytes)
    {
        if (_isAsked)
        {
            return;
        }

        var due = TimeSpan.FromSeconds((double)bytes / options.IntegrityBytesPerSecond);
        _owed += due;
        if (_owed > Breath)
        {
            var (began, owed) = (Stopwatch.GetTimestamp(), _owed);
            _owed = TimeSpan.Zero;
            await Task.Delay(owed);
            // What was slept too long need not be slept again.
            _owed = owed - Stopwatch.GetElapsedTime(began);
        }
    }

    private static readonly TimeSpan Breath = TimeSpan.FromMilliseconds(50);
    private TimeSpan _owed;

    private async Task GiveUpAsync(string hash, CancellationToken cancel)
    {
        List<string> ids;
        await using (var scope = scopes.CreateAsyncScope())
        {
            ids = await scope
                .ServiceProvider.GetRequiredService<PantometDb>()
                .Variants.Where(row => row.ContentHash == hash)
                .Select(row => row.Id)
                .ToListAsync(cancel);
        }

        // It may have been collected, or made again, while it was read.
        if (ids.Count == 0 || await folder.Variants.IsWholeAsync(hash, cancel))
        {
            return;
        }

        FileIsDamaged(log, hash);
        folder.Variants.Remove(hash);
        await files.ForgetAsync(ids, cancel);
        Interlocked.Increment(ref _remade);
    }

    private async Task<List<string>> VariantsAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await scope
            .ServiceProvider.GetRequiredService<PantometDb>()
            .Variants.Select(row => row.ContentHash)
            .Distinct()
            .ToListAsync(cancel);
    }

    // The picture's name by the hash of each original that must be there.
    private async Task<Dictionary<string, string>> OriginalsAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        var names = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (
            var row in await db
                .Revisions.Join(
                    db.Pictures,
                    one => one.PictureId,
                    picture => picture.Id,
                    (one, picture) => new { one.ContentHash, picture.Name }
                )
                .ToListAsync(cancel)
        )
        {
            names[row.ContentHash] = PictureTexts.AnEarlierOriginal(row.Name);
        }

        // Pictures side by side have no original of their own.
        foreach (
            var row in await db
                .Pictures.Where(row => row.Parts == null)
                .Select(row => new { row.ContentHash, row.Name })
                .ToListAsync(cancel)
        )
        {
            names[row.ContentHash] = row.Name;
        }

        return names;
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "The original of {Picture} ({Hash}) is missing or damaged on the disk.")]
    private static partial void OriginalIsDamaged(ILogger log, string picture, string hash);

    [LoggerMessage(Level = LogLevel.Warning, Message = "The file {Hash} is missing or damaged on the disk and is made again.")]
    private static partial void FileIsDamaged(ILogger log, string hash);
}

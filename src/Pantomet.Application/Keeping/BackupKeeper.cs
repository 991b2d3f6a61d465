using System.Collections.Concurrent;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Background;
using Pantomet.Application.Jobs;
using Pantomet.Backups;
using Pantomet.Data;

namespace Pantomet.Application.Keeping;

/// <summary>Makes backups when they are due or asked for, one at a time, while the server works; and removes those that are too many.</summary>
public sealed partial class BackupKeeper(
    IServiceScopeFactory scopes,
    Writer writer,
    DataFolder data,
    WorkOptions options,
    TimeProvider clock,
    ILogger<BackupKeeper> log
) : BackgroundWork(log)
{
    // How long it may be late; also how often it is looked whether one is due.
    private static readonly TimeSpan Often = TimeSpan.FromMinutes(1);

    // A backup that failed is tried again after so long, not each minute.
    private static readonly TimeSpan AfterFault = TimeSpan.FromHours(1);

    private readonly WorkSignal _signal = new();
    private readonly Lock _gate = new();
    private readonly ConcurrentDictionary<string, KeptBackup> _read = new(StringComparer.Ordinal);
    private bool _asked;
    private CancellationTokenSource? _running;
    private BackupProgress? _progress;
    private string? _fault;
    private DateTime _failedAt;

    /// <summary>How they stand.</summary>
    public async Task<BackupView> ViewAsync(CancellationToken cancel)
    {
        var settings = await SettingsAsync(cancel);
        var backups = Kept();
        lock (_gate)
        {
            return new(options.BackupFolder, settings, Due(settings, backups), _progress, _fault, backups);
        }
    }

    /// <summary>Has one made now.</summary>
    public void Ask()
    {
        lock (_gate)
        {
            _asked = true;
            _progress ??= new(0, 0, 0, 0);
        }

        _signal.Ring();
    }

    /// <summary>Stops the one that is being made; what was there before stays.</summary>
    public void Stop()
    {
        lock (_gate)
        {
            _asked = false;
            _progress = null;
            _running?.Cancel();
        }
    }

    /// <summary>Sets how they are made by themselves.</summary>
    public Task<bool> SetAsync(BackupSettings settings, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(settings);
        return writer.WriteAsync<bool>(
            async db =>
            {
                string[] names = [SettingRow.BackupEvery, SettingRow.BackupsKept];
                await db.Settings.Where(row => names.Contains(row.Name)).ExecuteDeleteAsync(CancellationToken.None);
                db.Settings.Add(new() { Name = SettingRow.BackupEvery, Value = settings.Every.ToString() });
                db.Settings.Add(new() { Name = SettingRow.BackupsKept, Value = settings.Kept.ToString(CultureInfo.InvariantCulture) });
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, _signal.Ring);
            },
            cancel
        );
    }

    /// <inheritdoc/>
    protected override async Task StepAsync(CancellationToken stopping)
    {
        var settings = await SettingsAsync(stopping);
        bool asked;
        lock (_gate)
        {
            (asked, _asked) = (_asked, false);
        }

        if (asked || (Due(settings, Kept()) is { } due && due <= Now))
        {
            await TakeAsync(settings, stopping);
        }
        else
        {
            await _signal.WaitAsync(Often, stopping);
        }
    }

    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    private async Task TakeAsync(BackupSettings settings, CancellationToken stopping)
    {
        using var running = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        lock (_gate)
        {
            (_running, _progress) = (running, new(0, 0, 0, 0));
        }

        string? fault = null;
        try
        {
            var outcome = await DataBackup.TakeAsync(
                data.Root,
                options.BackupFolder + Path.DirectorySeparatorChar,
                Now,
                BackupManifest.ThisProgram,
                Tell,
                running.Token
            );
            Done(log, outcome.Manifest.Files.Count, outcome.Manifest.Bytes, outcome.Added);
            await new BackupFolder(options.BackupFolder).PruneAsync(settings.Kept);
        }
        catch (BackupException unable)
        {
            fault = unable.Message;
            Failed(log, unable.Message);
        }
        catch (OperationCanceledException) when (!stopping.IsCancellationRequested)
        {
            // Somebody stopped it.
        }
        finally
        {
            lock (_gate)
            {
                (_running, _progress, _fault) = (null, null, fault);
                _failedAt = fault is null ? default : Now;
            }
        }
    }

    private void Tell(BackupProgress now)
    {
        lock (_gate)
        {
            _progress = _running is null ? null : now;
        }
    }

    private DateTime? Due(BackupSettings settings, IReadOnlyList<KeptBackup> backups)
    {
        if (settings.Every == BackupSchedule.Never)
        {
            return null;
        }

        var due = backups is [var newest, ..] ? newest.TakenAt.AddDays(settings.Every == BackupSchedule.Daily ? 1 : 7) : Now;
        return _failedAt == default || due > _failedAt + AfterFault ? due : _failedAt + AfterFault;
    }

    private List<KeptBackup> Kept()
    {
        if (!BackupFolder.Is(options.BackupFolder))
        {
            return [];
        }

        var entries = new BackupFolder(options.BackupFolder).Entries();
        foreach (var gone in _read.Keys.Except(entries.Select(entry => entry.Id), StringComparer.Ordinal).ToList())
        {
            _read.TryRemove(gone, out _);
        }

        var kept = new List<KeptBackup>();
        foreach (var entry in entries)
        {
            if (!_read.TryGetValue(entry.Id, out var known) && entry.Read() is { } manifest)
            {
                known = new(entry.Id, manifest.TakenAt, manifest.Files.Count, manifest.Bytes, [.. manifest.Lost.Select(one => one.Name)]);
                _read[entry.Id] = known;
            }

            if (known is not null)
            {
                kept.Add(known);
            }
        }

        return kept;
    }

    private async Task<BackupSettings> SettingsAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var rows = await scope
            .ServiceProvider.GetRequiredService<PantometDb>()
            .Settings.AsNoTracking()
            .Where(row => row.Name == SettingRow.BackupEvery || row.Name == SettingRow.BackupsKept)
            .ToDictionaryAsync(row => row.Name, row => row.Value, cancel);
        return new(
            rows.TryGetValue(SettingRow.BackupEvery, out var every) ? Enum.Parse<BackupSchedule>(every) : BackupSettings.Usual.Every,
            rows.TryGetValue(SettingRow.BackupsKept, out var kept)
                ? int.Parse(kept, CultureInfo.InvariantCulture)
                : BackupSettings.Usual.Kept
        );
    }

    [LoggerMessage(Level = LogLevel.Information, Message = "A backup was made: {Files} files, {Bytes} bytes, {Added} of them new.")]
    private static partial void Done(ILogger log, int files, long bytes, int added);

    [LoggerMessage(Level = LogLevel.Error, Message = "A backup could not be made: {Reason}")]
    private static partial void Failed(ILogger log, string reason);
}

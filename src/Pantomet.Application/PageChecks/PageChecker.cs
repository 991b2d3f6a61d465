using System.Collections.Concurrent;
using System.Diagnostics;
using System.Text.Json;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Engine;
using Pantomet.Application.Jobs;
using Pantomet.Core.PageChecks;
using Pantomet.Data.Pages;

namespace Pantomet.Application.PageChecks;

/// <summary>
/// Measures pages one after the other, each in a process of its own. What was under way when the server ended waits again when it starts.
/// </summary>
internal sealed partial class PageChecker(PageShelf shelf, WorkOptions options, ILogger<PageChecker> log) : BackgroundService
{
    private static readonly TimeSpan Idle = TimeSpan.FromSeconds(30);

    private readonly JobBell _bell = new();
    private readonly ConcurrentDictionary<Guid, PageProgress> _progress = new();
    private readonly ConcurrentDictionary<Guid, Running> _running = new();

    /// <summary>Says that one waits.</summary>
    public void Ring() => _bell.Ring();

    /// <summary>How far one is; null where it is not under way.</summary>
    public PageProgress? ProgressOf(Guid id) => _progress.TryGetValue(id, out var progress) ? progress : null;

    /// <summary>Ends one that is under way, and waits until nothing of it writes any more.</summary>
    public async Task StopAsync(Guid id)
    {
        if (_running.TryGetValue(id, out var running))
        {
            await running.Stop.CancelAsync();
            await running.Ended.Task;
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                if (await shelf.NextAsync(stoppingToken) is { } next)
                {
                    await CheckAsync(next, stoppingToken);
                }
                else
                {
                    await _bell.WaitAsync(Idle, stoppingToken);
                }
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                break;
            }
#pragma warning disable CA1031 // Nothing that happens to one page or to the database may end the work.
            catch (Exception fault)
#pragma warning restore CA1031
            {
                Stumbled(log, fault);
                await Task.Delay(Idle, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }

    private async Task CheckAsync(PageCheckRow row, CancellationToken stopping)
    {
        // Not disposed: who stops it may still hold it when it ends by itself.
        var stop = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        var running = new Running(stop, new(TaskCreationOptions.RunContinuationsAsynchronously));
        _running[row.Id] = running;
        try
        {
            var wish = shelf.WishOf(row, options);
            if (Directory.Exists(wish.Keep))
            {
                Directory.Delete(wish.Keep!, recursive: true);
            }

            var trouble = await RunAsync(wish, progress => _progress[row.Id] = progress, stop.Token);
            stopping.ThrowIfCancellationRequested();
            if (stop.IsCancellationRequested)
            {
                // Whoever stopped it has said so; it may wait anew already.
                return;
            }

            var report = trouble is null ? await shelf.MeasuredAsync(row.Id, stopping) : null;
            await shelf.ChangeAsync(
                row.Id,
                now =>
                {
                    // Somebody may have stopped it while it ended.
                    if (now.State != PageCheckState.Waiting)
                    {
                        return;
                    }

                    (now.State, now.Trouble) = report is null
                        ? (PageCheckState.Failed, trouble ?? "What was measured could not be read.")
                        : (PageCheckState.Done, null);
                    (now.Images, now.Mean, now.Possible) = (report?.Totals.Images, report?.Totals.Mean, report?.Totals.Possible);
                },
                CancellationToken.None
            );
        }
        finally
        {
            _running.TryRemove(row.Id, out _);
            _progress.TryRemove(row.Id, out _);
            running.Ended.SetResult();
        }
    }

    // Why it could not be measured; null when it was.
    private async Task<string?> RunAsync(PageWish wish, Action<PageProgress> tells, CancellationToken cancel)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(options.LongestPageCheck);
        var start = new ProcessStartInfo(EngineProcess.Host(), [options.Engine, PageWork.Call])
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            UseShellExecute = false,
        };
        start.Environment["MALLOC_ARENA_MAX"] = "2";
        using var process = Process.Start(start) ?? throw new InvalidOperationException("The process that measures pages did not start.");
        _ = process.StandardError.BaseStream.CopyToAsync(Stream.Null, CancellationToken.None);
        try
        {
            await process.StandardInput.WriteLineAsync(PageWork.Write(wish).AsMemory(), limit.Token);
            await process.StandardInput.FlushAsync(limit.Token);
            while (await process.StandardOutput.ReadLineAsync(limit.Token) is { } line)
            {
                var told = PageWork.Read<PageLine>(line);
                if (told.Progress is not { } progress)
                {
                    return told.Trouble;
                }

                tells(progress);
            }

            return "The process that measured it ended before it was done.";
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            return $"It took longer than {options.LongestPageCheck.TotalMinutes:0} minutes, and was ended.";
        }
        catch (OperationCanceledException)
        {
            return "It was stopped.";
        }
        catch (Exception fault) when (fault is IOException or JsonException)
        {
            return "The process that measured it ended before it was done.";
        }
        finally
        {
            // The browser hangs on it and ends with it.
            await EngineProcess.EndAsync(process);
        }
    }

    private sealed record Running(CancellationTokenSource Stop, TaskCompletionSource Ended);

    [LoggerMessage(Level = LogLevel.Error, Message = "The check of a page stumbled and goes on in a while.")]
    private static partial void Stumbled(ILogger log, Exception fault);
}

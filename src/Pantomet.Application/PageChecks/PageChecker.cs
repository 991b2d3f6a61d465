using System.Collections.Concurrent;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Jobs;
using Pantomet.Application.PageMends;
using Pantomet.Data.Pages;

namespace Pantomet.Application.PageChecks;

/// <summary>
/// Measures pages, and mends those of jobs, one after the other, each in a process of its own. What was under way when the server ended waits again when it starts.
/// </summary>
internal sealed partial class PageChecker(
    PageShelf shelf,
    PageMendShelf mends,
    PageProcess process,
    WorkOptions options,
    ILogger<PageChecker> log
) : BackgroundService
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
                else if (await mends.NextAsync(stoppingToken) is { } mend)
                {
                    await MendAsync(mend, stoppingToken);
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

    private Task CheckAsync(PageCheckRow row, CancellationToken stopping) =>
        RunAsync(
            row.Id,
            _ =>
            {
                var wish = shelf.WishOf(row, options);
                if (Directory.Exists(wish.Keep))
                {
                    Directory.Delete(wish.Keep!, recursive: true);
                }

                return Task.FromResult<PageOrder?>(new(wish, null));
            },
            async trouble =>
            {
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
            },
            stopping
        );

    private Task MendAsync(PageJobRow row, CancellationToken stopping) =>
        RunAsync(
            row.JobId,
            async stop => await mends.WishAsync(row, stop) is { } wish ? new(null, wish) : null,
            trouble =>
                mends.ChangeAsync(
                    row.JobId,
                    now =>
                    {
                        if (now.State == PageCheckState.Waiting)
                        {
                            (now.State, now.Trouble) = trouble is null ? (PageCheckState.Done, null) : (PageCheckState.Failed, trouble);
                        }
                    }
                ),
            stopping
        );

    private async Task RunAsync(
        Guid id,
        Func<CancellationToken, Task<PageOrder?>> asks,
        Func<string?, Task> ended,
        CancellationToken stopping
    )
    {
        // Not disposed: who stops it may still hold it when it ends by itself.
        var stop = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        var running = new Running(stop, new(TaskCreationOptions.RunContinuationsAsynchronously));
        _running[id] = running;
        try
        {
            var order = await asks(stop.Token);
            var trouble = order is null
                ? "What it was made of is not there any more."
                : await process.RunAsync(order, progress => _progress[id] = progress, stop.Token);
            stopping.ThrowIfCancellationRequested();
            // Whoever stopped it has said so; it may wait anew already.
            if (!stop.IsCancellationRequested)
            {
                await ended(trouble);
            }
        }
        catch (OperationCanceledException) when (stop.IsCancellationRequested && !stopping.IsCancellationRequested)
        {
            // It was stopped before it began.
        }
        finally
        {
            _running.TryRemove(id, out _);
            _progress.TryRemove(id, out _);
            running.Ended.SetResult();
        }
    }

    private sealed record Running(CancellationTokenSource Stop, TaskCompletionSource Ended);

    [LoggerMessage(Level = LogLevel.Error, Message = "The check of a page stumbled and goes on in a while.")]
    private static partial void Stumbled(ILogger log, Exception fault);
}

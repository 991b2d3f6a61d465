using Microsoft.Extensions.Hosting;
using Pantomet.Server.Variants;

namespace Pantomet.Server.Jobs;

/// <summary>
/// Makes what running jobs still want, in the background, one file for each core and one that a person waits for. There is no stored queue: what is missing is what is wanted and not
/// made, so a restart goes on where the last run ended.
/// </summary>
internal sealed class JobRunner(JobRoom room, VariantStore store, ServerOptions options, TimeProvider clock) : BackgroundService
{
    private static readonly TimeSpan Idle = TimeSpan.FromSeconds(2);
    private static readonly TimeSpan Look = TimeSpan.FromMilliseconds(150);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        await room.LoadAsync(stoppingToken);
        var working = new List<Task>();
        var change = Task.CompletedTask;
        while (!stoppingToken.IsCancellationRequested)
        {
            working.RemoveAll(task => task.IsCompleted);
            // What a person waits for does not stand in line: one more is made beside the others.
            var awaited = working.Count == options.Workers;
            if (working.Count <= options.Workers && room.Begin(awaited) is { } next)
            {
                working.Add(Task.Run(() => MakeAsync(next.Board, next.File, awaited, stoppingToken), CancellationToken.None));
                continue;
            }

            try
            {
                change = change.IsCompleted ? room.WaitForWorkAsync(Idle, stoppingToken) : change;
                await Task.WhenAny([change, .. working]);
            }
            catch (OperationCanceledException)
            {
                break;
            }
        }

        await Task.WhenAll(working);
    }

    private async Task MakeAsync(JobBoard board, WantedFile file, bool awaited, CancellationToken stopping)
    {
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        var began = clock.GetUtcNow().UtcDateTime;
        try
        {
            var making = store.MakeAsync(file, awaited, stop.Token, weighed => room.Weighed(file.Id, weighed));
            // What nobody wants any more is not finished: its job was stopped, or its frame has moved on.
            while (await Task.WhenAny(making, Task.Delay(Look, CancellationToken.None)) != making)
            {
                if (!room.IsWanted(file.Id))
                {
                    await stop.CancelAsync();
                }
            }

            await making;
            board.Pace.Add(began, clock.GetUtcNow().UtcDateTime, Pace.WorkOf(file));
        }
        catch (OperationCanceledException)
        {
            // It is made later, or never.
        }
        finally
        {
            room.End(file.Id);
        }
    }
}

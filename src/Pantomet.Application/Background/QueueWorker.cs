using System.Collections.Concurrent;
using Microsoft.Extensions.Logging;

namespace Pantomet.Application.Background;

/// <summary>
/// Does what waits, one after the other. What was under way when the server ended waits again when it starts; one that is under way can be
/// ended, and whoever ends it waits until nothing of it writes any more.
/// </summary>
/// <typeparam name="T">How far one is.</typeparam>
public abstract class QueueWorker<T>(ILogger log) : BackgroundWork(log)
    where T : class
{
    private static readonly TimeSpan Idle = TimeSpan.FromSeconds(30);

    private readonly WorkSignal _signal = new();
    private readonly ConcurrentDictionary<Guid, T> _progress = new();
    private readonly ConcurrentDictionary<Guid, Running> _running = new();

    /// <summary>Says that one waits.</summary>
    public void Ring() => _signal.Ring();

    /// <summary>How far one is; null where it is not under way.</summary>
    public T? ProgressOf(Guid id) => _progress.TryGetValue(id, out var progress) ? progress : null;

    /// <summary>Ends one that is under way, and waits until nothing of it writes any more.</summary>
    public async Task StopAsync(Guid id)
    {
        if (_running.TryGetValue(id, out var running))
        {
            await running.Stop.CancelAsync();
            await running.Ended.Task;
        }
    }

    /// <summary>Does the next one; false when none waits.</summary>
    protected abstract Task<bool> NextAsync(CancellationToken stopping);

    /// <summary>Does one.</summary>
    /// <param name="id">Its identity.</param>
    /// <param name="does">Does it; gives a sentence where it could not.</param>
    /// <param name="ended">Told the sentence, unless it was stopped.</param>
    /// <param name="stopping">The end of the server.</param>
    protected async Task RunAsync(
        Guid id,
        Func<Action<T>, CancellationToken, Task<string?>> does,
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
            var trouble = await does(progress => _progress[id] = progress, stop.Token);
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

    /// <inheritdoc/>
    protected override async Task StepAsync(CancellationToken stopping)
    {
        if (!await NextAsync(stopping))
        {
            await _signal.WaitAsync(Idle, stopping);
        }
    }

    private sealed record Running(CancellationTokenSource Stop, TaskCompletionSource Ended);
}

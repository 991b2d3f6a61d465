using System.Data.Common;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace Pantomet.Application.Background;

/// <summary>
/// Work in the background, step by step until the server ends. A step that fails, because of one file or because the database is held for a
/// while, is logged, and the work goes on after a rest. The rest doubles as long as steps fail.
/// </summary>
/// <param name="log">Where a step that failed is told.</param>
public abstract partial class BackgroundWork(ILogger log) : BackgroundService
{
    private static readonly TimeSpan FirstRest = TimeSpan.FromSeconds(1);
    private static readonly TimeSpan LongestRest = TimeSpan.FromSeconds(30);

    /// <summary>What is done once before the first step; it is tried again until it succeeds.</summary>
    protected virtual Task BeginAsync(CancellationToken stopping) => Task.CompletedTask;

    /// <summary>Does one step. It waits itself where there is nothing to do.</summary>
    protected abstract Task StepAsync(CancellationToken stopping);

    /// <summary>What is done once after the last step.</summary>
    protected virtual Task EndAsync() => Task.CompletedTask;

    /// <inheritdoc/>
    protected sealed override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // The start of the server does not wait for the first step.
        await Task.Yield();
        var (begun, rest) = (false, TimeSpan.Zero);
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                if (!begun)
                {
                    await BeginAsync(stoppingToken);
                    begun = true;
                }

                await StepAsync(stoppingToken);
                rest = TimeSpan.Zero;
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                break;
            }
#pragma warning disable CA1031 // Nothing that happens in one step may end the work.
            catch (Exception fault)
#pragma warning restore CA1031
            {
                rest = rest == TimeSpan.Zero ? FirstRest : TimeSpan.FromTicks(Math.Min(2 * rest.Ticks, LongestRest.Ticks));
                StepFailed(log, fault is DbException ? LogLevel.Warning : LogLevel.Error, GetType().Name, rest.TotalSeconds, fault);
                await Task.Delay(rest, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }

        await EndAsync();
    }

    [LoggerMessage(Message = "A step of {Work} failed; it goes on in {Seconds} s.")]
    private static partial void StepFailed(ILogger log, LogLevel level, string work, double seconds, Exception fault);
}

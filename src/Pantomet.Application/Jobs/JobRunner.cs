using Microsoft.Extensions.Logging;
using Pantomet.Application.Background;
using Pantomet.Application.Variants;

namespace Pantomet.Application.Jobs;

/// <summary>
/// Makes what running jobs still want, in the background, one file for each core and one that a person waits for. What is missing is what
/// is wanted and not made,
/// so a restart goes on where the last run ended. Whatever happens to one file, or to the database for a while, the work goes on
/// afterwards.
/// </summary>
internal sealed partial class JobRunner(
    OpenJobs jobs,
    JobLayout layout,
    JobQueue queue,
    FileDesk desk,
    Writer writer,
    JobNotifier notifier,
    WorkOptions options,
    TimeProvider clock,
    ILogger<JobRunner> log
) : BackgroundWork(log)
{
    private static readonly TimeSpan Idle = TimeSpan.FromSeconds(2);
    private static readonly TimeSpan Look = TimeSpan.FromMilliseconds(250);

    private readonly List<Task> _working = [];

    /// <inheritdoc/>
    protected override Task BeginAsync(CancellationToken stopping) => layout.LayOutAsync(stopping);

    /// <inheritdoc/>
    protected override Task EndAsync() => Task.WhenAll(_working);

    // Begins as many files as there are workers; else waits for one to end, for the bell, or for a pause to be over.
    protected override async Task StepAsync(CancellationToken stopping)
    {
        _working.RemoveAll(task => task.IsCompleted);
        // What a person waits for does not stand in line: one more is made beside the others.
        var awaited = _working.Count == options.Workers;
        if (_working.Count <= options.Workers && await queue.BeginAsync(awaited, stopping) is { } next)
        {
            _working.Add(Task.Run(() => MakeAsync(next, awaited, stopping), CancellationToken.None));
            return;
        }

        await writer.AloneAsync(jobs.CloseIdle, stopping);
        var pause = await desk.TickAsync(stopping) ?? Idle;
        if (pause > TimeSpan.Zero)
        {
            using var rung = CancellationTokenSource.CreateLinkedTokenSource(stopping);
            await Task.WhenAny([notifier.WaitAsync(pause < Idle ? pause : Idle, rung.Token), .. _working]);
            await rung.CancelAsync();
        }
    }

    private async Task MakeAsync(QueuedFile next, bool awaited, CancellationToken stopping)
    {
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        var (board, file) = next;
        var began = clock.GetUtcNow().UtcDateTime;
        try
        {
            var making = desk.MakeAsync(
                file,
                awaited,
                stop.Token,
                found => _ = TellAsync(() => queue.WeighedAsync(file.Id, found.Weighed))
            );
            // What nobody wants any more is not finished: its job was stopped, or its frame has moved on.
            while (await Task.WhenAny(making, Task.Delay(Look, CancellationToken.None)) != making)
            {
                if (!stop.IsCancellationRequested && !await queue.IsWantedAsync(file.Id, CancellationToken.None))
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
#pragma warning disable CA1031 // One file's failure is not the others'.
        catch (Exception fault)
#pragma warning restore CA1031
        {
            NotMade(log, file.Id, file.Picture.Name, fault);
            // Nothing loops hot: what cannot even be put down rests.
            await Task.Delay(TimeSpan.FromSeconds(5), stopping).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
        finally
        {
            await TellAsync(() => queue.EndAsync(file.Id));
            notifier.Ring();
        }
    }

    // Telling is of no account for the work.
    private async Task TellAsync(Func<Task> tell)
    {
        try
        {
            await tell();
        }
#pragma warning disable CA1031 // See above.
        catch (Exception fault)
#pragma warning restore CA1031
        {
            NotTold(log, fault);
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "The file {File} of {Picture} could not be made or put down.")]
    private static partial void NotMade(ILogger log, string file, string picture, Exception fault);

    [LoggerMessage(Level = LogLevel.Warning, Message = "Pages could not be told of a file.")]
    private static partial void NotTold(ILogger log, Exception fault);
}

using Microsoft.Extensions.Logging;
using Pantomet.Application.Background;
using Pantomet.Data;
using Pantomet.Platform;

namespace Pantomet.Application.Keeping;

/// <summary>Each hour removes what killed processes left; every few hours removes what was removed long enough ago, and collects what nothing wants.</summary>
internal sealed partial class Housekeeping(RemovalSweep sweep, UnusedFileCollector collector, DataFolder folder, ILogger<Housekeeping> log)
    : BackgroundWork(log)
{
    private const int Hours = 6;

    private static readonly TimeSpan Every = TimeSpan.FromHours(1);

    private int _hour;

    /// <inheritdoc/>
    protected override async Task StepAsync(CancellationToken stopping)
    {
        await TryAsync("removing what killed processes left", () => Task.Run(SweepLeft, stopping));
        if (_hour++ % Hours == 0)
        {
            await TryAsync("sweeping removed pictures", () => sweep.SweepAsync(stopping));
            await TryAsync("collecting files that nothing wants", () => collector.CollectAsync(null, stopping));
        }

        await Task.Delay(Every, stopping);
    }

    // Temporary folders of processes that ended, and half files that nobody writes any more.
    private void SweepLeft()
    {
        TemporaryFolder.Sweep();
        folder.SweepHalfFiles(Old);
    }

    private static readonly TimeSpan Old = TimeSpan.FromDays(1);

    private async Task TryAsync(string what, Func<Task> work)
    {
        try
        {
            await work();
        }
#pragma warning disable CA1031 // It is tried again in a few hours; nothing here may stop the program.
        catch (Exception fault) when (fault is not OperationCanceledException)
#pragma warning restore CA1031
        {
            Failed(log, fault, what);
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Something failed while {What}.")]
    private static partial void Failed(ILogger log, Exception fault, string what);
}

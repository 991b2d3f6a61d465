using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace Pantomet.Application.Keeping;

/// <summary>Every few hours: removes what was removed long enough ago, and collects what nothing wants.</summary>
internal sealed partial class Housekeeping(RemovalSweep sweep, Keeper keeper, ILogger<Housekeeping> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromHours(6);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every);
        try
        {
            do
            {
                await TryAsync("sweeping removed pictures", () => sweep.SweepAsync(stoppingToken));
                await TryAsync("collecting files that nothing wants", () => keeper.CollectAsync(null, stoppingToken));
            } while (await timer.WaitForNextTickAsync(stoppingToken));
        }
        catch (OperationCanceledException)
        {
            // The program ends.
        }
    }

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

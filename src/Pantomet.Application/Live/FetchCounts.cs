using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Jobs;

namespace Pantomet.Application.Live;

/// <summary>
/// Puts down now and then how often what was fetched. Who fetched it is never known here: there are only numbers.
/// </summary>
public sealed partial class FetchCounts(LiveLinkStore store, Writer writer, ILogger<FetchCounts> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(20);

    /// <summary>Puts down what was counted since the last time.</summary>
    /// <param name="places">Where it was counted.</param>
    public async Task StoreAsync(IReadOnlyCollection<LivePlace> places)
    {
        var counted = places
            .Select(place => (Place: place, Counts: place.TakeCounts()))
            .Where(one => one.Counts.Fetches > 0 || one.Counts.Unchanged > 0)
            .ToList();
        if (counted.Count == 0)
        {
            return;
        }

        await writer.WriteAsync<bool>(
            async db =>
            {
                foreach (var (place, counts) in counted)
                {
                    await db.Database.ExecuteSqlAsync(
                        $"""
                        INSERT INTO FetchCounts (PublicationId, Path, Fetches, Unchanged, Bytes)
                        VALUES ({place.Publication}, {place.Path}, {counts.Fetches}, {counts.Unchanged}, {counts.Bytes})
                        ON CONFLICT (PublicationId, Path) DO UPDATE SET
                        Fetches = Fetches + excluded.Fetches, Unchanged = Unchanged + excluded.Unchanged, Bytes = Bytes + excluded.Bytes
                        """
                    );
                }

                return (true, null);
            },
            CancellationToken.None
        );
    }

    /// <inheritdoc/>
    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        await base.StopAsync(cancellationToken);
        await TryAsync();
    }

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every);
        try
        {
            while (await timer.WaitForNextTickAsync(stoppingToken))
            {
                await TryAsync();
            }
        }
        catch (OperationCanceledException)
        {
            // The program ends.
        }
    }

    private async Task TryAsync()
    {
        try
        {
            await StoreAsync(store.Known);
        }
#pragma warning disable CA1031 // A number that is lost is no reason to stop the program.
        catch (Exception fault)
#pragma warning restore CA1031
        {
            NotStored(log, fault);
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "What was fetched could not be put down.")]
    private static partial void NotStored(ILogger log, Exception fault);
}

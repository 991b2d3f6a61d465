using Microsoft.Extensions.Logging;
using Pantomet.Application.Background;
using Pantomet.Application.Jobs;
using Pantomet.Data.Live;

namespace Pantomet.Application.Live;

/// <summary>
/// Puts down now and then how often what was fetched. Who fetched it is never known here: there are only numbers.
/// </summary>
public sealed partial class FetchCounts(LiveLinkStore store, Writer writer, ILogger<FetchCounts> log) : BackgroundWork(log)
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
                    await FetchCountRows.AddAsync(
                        db,
                        new()
                        {
                            PublicationId = place.Publication,
                            Path = place.Path,
                            Fetches = counts.Fetches,
                            Unchanged = counts.Unchanged,
                            Bytes = counts.Bytes,
                        }
                    );
                }

                return (true, null);
            },
            CancellationToken.None
        );
    }

    /// <inheritdoc/>
    protected override async Task StepAsync(CancellationToken stopping)
    {
        await Task.Delay(Every, stopping);
        await StoreAsync(store.Known);
    }

    /// <inheritdoc/>
    protected override async Task EndAsync()
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

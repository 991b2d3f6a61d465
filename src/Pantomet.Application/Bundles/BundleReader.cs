using Pantomet.Application.Jobs;
using Pantomet.Data;

namespace Pantomet.Application.Bundles;

/// <summary>What goes out of a job, for whoever asks over HTTP.</summary>
/// <param name="db">The database.</param>
/// <param name="room">The jobs.</param>
public sealed class BundleReader(PantometDb db, JobRoom room)
{
    /// <summary>What goes out of a job; null where there is no such job.</summary>
    public async Task<BundleContents?> OfJobAsync(Guid job, CancellationToken cancel) =>
        await room.OpenAsync(job, cancel) is { } board ? await OfAsync(board, cancel) : null;

    /// <summary>What goes out of an open job.</summary>
    public Task<BundleContents> OfAsync(JobBoard board, CancellationToken cancel) => BundleContents.OfAsync(db, board, cancel);
}

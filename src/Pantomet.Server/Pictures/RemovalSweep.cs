using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Pantomet.Data;

namespace Pantomet.Server.Pictures;

/// <summary>Removes for good what was removed and not put back within the grace period. The only place where an original is deleted.</summary>
internal sealed class RemovalSweep(IServiceScopeFactory scopes, DataFolder folder, TimeProvider clock) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromHours(6);

    /// <summary>Sweeps once.</summary>
    /// <returns>How many pictures went.</returns>
    public async Task<int> SweepAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        var before = clock.GetUtcNow().UtcDateTime - Revisions.Grace;
        var gone = await db.Pictures.Where(row => row.RemovedAt != null && row.RemovedAt < before).ToListAsync(cancel);
        foreach (var picture in gone)
        {
            var hashes = await db.Revisions.Where(row => row.PictureId == picture.Id).Select(row => row.ContentHash).ToListAsync(cancel);
            db.Pictures.Remove(picture);
            await db.SaveChangesAsync(cancel);
            foreach (var hash in hashes.Append(picture.ContentHash).Distinct())
            {
                // Another picture may have had the same original.
                if (!await db.Pictures.AnyAsync(row => row.ContentHash == hash, cancel) && !await db.Revisions.AnyAsync(row => row.ContentHash == hash, cancel))
                {
                    folder.Originals.Remove(hash);
                }
            }
        }

        return gone.Count;
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every);
        do
        {
            await SweepAsync(stoppingToken);
        }
        while (await timer.WaitForNextTickAsync(stoppingToken).AsTask().ContinueWith(tick => tick.IsCompletedSuccessfully && tick.Result, TaskScheduler.Default));
    }
}

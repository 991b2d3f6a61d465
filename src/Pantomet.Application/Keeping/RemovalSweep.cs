using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Jobs;
using Pantomet.Application.Pictures;
using Pantomet.Data;

namespace Pantomet.Application.Keeping;

/// <summary>
/// Removes for good what was removed and not restored within the grace period. The only place where an original is deleted. It counts the
/// days that it has seen pass:
/// a clock that was set wrong, or a year on the shelf, is one day.
/// </summary>
internal sealed class RemovalSweep(Writer writer, DataFolder folder, TimeProvider clock)
{
    /// <summary>Sweeps once.</summary>
    /// <returns>How many pictures went.</returns>
    public Task<int> SweepAsync(CancellationToken cancel) =>
        writer.WriteAsync<int>(
            async db =>
            {
                await CountOnAsync(db);
                // What pages still fetch stays until it is unpublished.
                var gone = await db
                    .Pictures.Where(row => row.RemovedAt != null && row.RemovedDays >= Revisions.GraceDays)
                    .Where(row => !db.PublishedPlaces.Any(place => place.PictureId == row.Id))
                    .ToListAsync();
                var hashes = new HashSet<string>();
                foreach (var picture in gone)
                {
                    hashes.UnionWith(
                        await db.Revisions.Where(row => row.PictureId == picture.Id).Select(row => row.ContentHash).ToListAsync()
                    );
                    hashes.Add(picture.ContentHash);
                    db.Pictures.Remove(picture);
                }

                await db.SaveChangesAsync();
                // Another picture may have had the same original.
                foreach (var hash in hashes.ToList())
                {
                    if (
                        await db.Pictures.AnyAsync(row => row.ContentHash == hash)
                        || await db.Revisions.AnyAsync(row => row.ContentHash == hash)
                    )
                    {
                        hashes.Remove(hash);
                    }
                }

                return (
                    gone.Count,
                    () =>
                    {
                        foreach (var hash in hashes)
                        {
                            folder.Originals.Remove(hash);
                        }
                    }
                );
            },
            cancel
        );

    private async Task CountOnAsync(PantometDb db)
    {
        var today = clock.GetUtcNow().ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
        var last = await db.Settings.FindAsync(SettingRow.LastDay);
        if (last?.Value == today)
        {
            return;
        }

        if (last is null)
        {
            db.Settings.Add(new() { Name = SettingRow.LastDay, Value = today });
        }
        else
        {
            last.Value = today;
            await db
                .Pictures.Where(row => row.RemovedAt != null)
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.RemovedDays, row => row.RemovedDays + 1));
        }

        await db.SaveChangesAsync();
    }
}

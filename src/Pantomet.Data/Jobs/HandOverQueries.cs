using Microsoft.EntityFrameworkCore;

namespace Pantomet.Data.Jobs;

/// <summary>A file that was handed over last for a slot.</summary>
/// <param name="Job">The job.</param>
/// <param name="Path">Its path in the bundle.</param>
/// <param name="File">Its figures, as JSON.</param>
public sealed record HandedOverFile(Guid Job, string Path, string File);

/// <summary>A job that has a slot.</summary>
/// <param name="Slot">The slot's address.</param>
/// <param name="Job">The job.</param>
/// <param name="Name">Its name.</param>
public sealed record SlotUse(string Slot, Guid Job, string Name);

/// <summary>What is asked about jobs and about what was handed over of them.</summary>
/// <param name="db">The database.</param>
public sealed class HandOverQueries(PantometDb db)
{
    /// <summary>How often something was handed over, and when last: while both stay, nothing else was.</summary>
    public async Task<(int Count, DateTime? Last)> StateAsync(CancellationToken cancel) =>
        (
            await db.Deliveries.CountAsync(cancel),
            await db.Deliveries.OrderByDescending(row => row.At).Select(row => (DateTime?)row.At).FirstOrDefaultAsync(cancel)
        );

    /// <summary>The files of a slot in the last handing over of each job that had files for it. Other slots may have gone elsewhere since.</summary>
    public Task<List<HandedOverFile>> LastOfSlotAsync(string destination, string slot, CancellationToken cancel)
    {
        var last = db.Deliveries.Where(row =>
            row.Number
            == db.Deliveries.Where(other =>
                    other.JobId == row.JobId
                    && db.DeliveredFiles.Any(file => file.DeliveryId == other.Id && file.Destination == destination && file.Slot == slot)
                )
                .Max(other => other.Number)
        );
        return db
            .DeliveredFiles.AsNoTracking()
            .Where(file => file.Destination == destination && file.Slot == slot)
            .Join(
                last,
                file => file.DeliveryId,
                delivery => delivery.Id,
                (file, delivery) => new HandedOverFile(delivery.JobId, file.Path, file.File)
            )
            .ToListAsync(cancel);
    }

    /// <summary>The names of jobs by their identity; those that there are.</summary>
    public Task<Dictionary<Guid, string>> JobNamesAsync(IReadOnlyCollection<Guid> jobs, CancellationToken cancel) =>
        db.Jobs.Where(row => jobs.Contains(row.Id)).ToDictionaryAsync(row => row.Id, row => row.Name, cancel);

    /// <summary>Which jobs have which slots, the newest job first; archived ones are left out.</summary>
    public Task<List<SlotUse>> UsesAsync(CancellationToken cancel) =>
        db
            .JobSlots.Join(
                db.Jobs.Where(job => job.ArchivedAt == null),
                slot => slot.JobId,
                job => job.Id,
                (slot, job) =>
                    new
                    {
                        slot.Slot,
                        job.Id,
                        job.Name,
                        job.CreatedAt,
                    }
            )
            .OrderByDescending(one => one.CreatedAt)
            .Select(one => new SlotUse(one.Slot, one.Id, one.Name))
            .ToListAsync(cancel);

    /// <summary>The first job with a name; null where there is none.</summary>
    public async Task<Guid?> JobNamedAsync(string name, CancellationToken cancel) =>
        await db.Jobs.Where(row => row.Name == name).Select(row => (Guid?)row.Id).FirstOrDefaultAsync(cancel);
}

using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Accounts;
using Pantomet.Core.Jobs;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Jobs;

/// <summary>A picture of the library changes together with every job that has it.</summary>
public sealed class JobsOfPicture(OpenJobs jobs, Writer writer, JobChanges changes, TimeProvider clock)
{
    /// <summary>Changes a picture of the library together with every job that has it.</summary>
    /// <param name="picture">The picture.</param>
    /// <param name="change">
    /// Changes its row; gives false when it is not to be changed after all, and whether its shape became another.
    /// </param>
    /// <param name="cancel">Stops waiting.</param>
    public async Task<T> ChangeAsync<T>(
        Guid picture,
        Func<PantometDb, PictureRow?, Task<(T Result, bool Changed, bool OtherShape)>> change,
        CancellationToken cancel
    )
    {
        var book = await jobs.SlotsAsync(cancel);
        return await writer.WriteAsync(
            async db =>
            {
                var ids = await db.JobPictures.Where(one => one.PictureId == picture).Select(one => one.JobId).ToListAsync();
                var boards = new List<JobBoard>();
                foreach (var id in ids)
                {
                    boards.AddRange(await jobs.OpenAsync(id, CancellationToken.None) is { } board ? [board] : []);
                }

                var (result, isChanged, otherShape) = await change(db, await db.Pictures.FindAsync(picture));
                if (!isChanged)
                {
                    return (result, null);
                }

                await db.SaveChangesAsync();
                db.ChangeTracker.Clear();
                var row = await db.Pictures.AsNoTracking().FirstOrDefaultAsync(one => one.Id == picture && one.RemovedAt == null);
                var changed = new List<JobChange>();
                foreach (var board in boards)
                {
                    changed.Add(await PictureChangedAsync(db, board, picture, row, otherShape));
                }

                return (result, (Action?)(() => changes.Publish(changed)));
            },
            cancel
        );
    }

    private async Task<JobChange> PictureChangedAsync(PantometDb db, JobBoard board, Guid picture, PictureRow? row, bool otherShape)
    {
        var before = board.State;
        var rows = new Dictionary<Guid, PictureRow>(before.Rows);
        rows.Remove(picture);
        if (row is not null)
        {
            rows[picture] = row;
        }

        var next = before with { Rows = rows };
        if (otherShape && before.Job.Find(picture) is { } mine)
        {
            var job = before.Job.With(picture, mine.Decisions with { OtherShape = true });
            var patch = JobPatch.Between(before.Job, job);
            await JobTables.StoreAsync(db, before.Id, job, patch, before.Places);
            db.Commands.Add(
                new()
                {
                    JobId = before.Id,
                    Sequence = board.State.Sequence + 1,
                    Actor = Actor.Library.Name,
                    At = clock.GetUtcNow().UtcDateTime,
                    Kind = "library",
                    Body = StoredJson.Write(patch),
                    Inverse = StoredJson.Write(JobPatch.Between(job, before.Job)),
                }
            );
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
            next = next with { Job = job };
        }

        // Pictures side by side follow their parts.
        HashSet<Guid> touched = [picture, .. next.PairsWith(picture)];
        var cells = touched.SelectMany(one => next.Job.Slots.Select(place => new CellKey(one, place.Address))).ToHashSet();
        return await changes.WriteAsync(
            db,
            board,
            next,
            cells,
            new() { Pictures = touched, Order = before.Rows.ContainsKey(picture) != rows.ContainsKey(picture) }
        );
    }
}

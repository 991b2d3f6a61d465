using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Jobs;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Pictures;

/// <summary>Newer originals in the place of older ones, and the way back; removing a picture, and the way back from that.</summary>
public sealed class Revisions(
    PantometDb db,
    PictureIntake intake,
    DataFolder folder,
    JobsOfPicture jobs,
    SubjectDetection seeker,
    TimeProvider clock
)
{
    /// <summary>How many days a removed picture can be restored.</summary>
    public const int GraceDays = 30;

    // Two originals are of one shape when their ratios differ by less: rounding of other sizes of the same picture.
    private const double ShapeSlack = 0.005;

    /// <summary>All originals a picture has or had, the newest first.</summary>
    public async Task<IReadOnlyList<RevisionRow>> OfAsync(PictureRow picture, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var rows = await db
            .Revisions.AsNoTracking()
            .Where(row => row.PictureId == picture.Id)
            .OrderByDescending(row => row.Number)
            .ToListAsync(cancel);
        return rows.Count > 0 ? rows : [RowOf(picture)];
    }

    /// <summary>Reads a newer original in and puts it in the place of the last.</summary>
    public async Task<IntakeResult?> ReplaceAsync(Guid picture, string? name, Stream body, long? length, CancellationToken cancel)
    {
        var (file, refused) = await intake.ReceiveAsync(name, body, length, cancel);
        using (file)
        {
            if (refused is { } refusal)
            {
                return refusal;
            }

            var (facts, unreadable) = await intake.ReadAsync(file!, cancel);
            if (facts is null)
            {
                return unreadable;
            }

            return await jobs.ChangeAsync<IntakeResult?>(
                picture,
                async (db, row) =>
                {
                    if (row is null)
                    {
                        return (null, false, false);
                    }

                    if (row.ContentHash == file!.Hash)
                    {
                        // The same bytes: nothing changes, but for mending what lies on the disk.
                        folder.Originals.Keep(file);
                        return (new IntakeResult(row, true, null, null), false, false);
                    }

                    if (await db.Pictures.FirstOrDefaultAsync(other => other.Id != picture && other.ContentHash == file.Hash) is { } other)
                    {
                        return (Taken(other), false, false);
                    }

                    folder.Originals.Keep(file);
                    if (!await db.Revisions.AnyAsync(one => one.PictureId == picture))
                    {
                        db.Revisions.Add(RowOf(row));
                        await db.SaveChangesAsync();
                    }

                    var number = 1 + await db.Revisions.Where(one => one.PictureId == picture).MaxAsync(one => one.Number);
                    db.Revisions.Add(
                        new()
                        {
                            PictureId = picture,
                            Number = number,
                            ContentHash = file.Hash,
                            Name = name!,
                            AddedAt = clock.GetUtcNow().UtcDateTime,
                            Facts = StoredJson.Write(facts),
                        }
                    );
                    return Take(row, number, file.Hash, name!, facts);
                },
                cancel
            );
        }
    }

    /// <summary>
    /// Puts an earlier original back; nothing is lost, the later ones stay. Null when there is no such picture or revision.
    /// </summary>
    public Task<IntakeResult?> PutBackAsync(Guid picture, int number, CancellationToken cancel) =>
        jobs.ChangeAsync<IntakeResult?>(
            picture,
            async (db, row) =>
            {
                if (
                    row is null
                    || await db.Revisions.AsNoTracking().FirstOrDefaultAsync(one => one.PictureId == picture && one.Number == number)
                        is not { } revision
                )
                {
                    return (null, false, false);
                }

                return
                    await db.Pictures.FirstOrDefaultAsync(one => one.Id != picture && one.ContentHash == revision.ContentHash) is { } other
                    ? (Taken(other), false, false)
                    : Take(row, number, revision.ContentHash, revision.Name, StoredJson.Read<PictureFacts>(revision.Facts));
            },
            cancel
        );

    /// <summary>Takes a picture out of the library; jobs no longer show it. It can be restored until the grace period is over.</summary>
    public Task<bool> RemoveAsync(Guid picture, CancellationToken cancel) =>
        SetRemovedAsync(picture, clock.GetUtcNow().UtcDateTime, cancel);

    /// <summary>Puts a removed picture back, with everything that was decided about it.</summary>
    public Task<bool> RestoreAsync(Guid picture, CancellationToken cancel) => SetRemovedAsync(picture, null, cancel);

    private Task<bool> SetRemovedAsync(Guid picture, DateTime? at, CancellationToken cancel) =>
        jobs.ChangeAsync(
            picture,
            (_, row) =>
            {
                if (row is null || row.RemovedAt is null == at is null)
                {
                    return Task.FromResult((row is not null, false, false));
                }

                (row.RemovedAt, row.RemovedDays) = (at, 0);
                return Task.FromResult((true, true, false));
            },
            cancel
        );

    private static IntakeResult Taken(PictureRow other) =>
        IntakeResult.Refused(
            IntakeResult.AnotherPicture,
            PictureTexts.TheSameFileIsInThe(other.Name, (other.RemovedAt is null ? "" : PictureTexts.WhichWasRemovedItCanBe))
        );

    private (IntakeResult? Result, bool Changed, bool OtherShape) Take(
        PictureRow picture,
        int number,
        string hash,
        string name,
        PictureFacts facts
    )
    {
        var otherShape = Math.Abs((Ratio.Of(facts.Size).Value / Ratio.Of(picture.Facts.Size).Value) - 1) > ShapeSlack;
        picture.Take(name, hash, facts);
        picture.Revision = number;
        seeker.Ring();
        return (new IntakeResult(picture, false, null, null), true, otherShape);
    }

    private static RevisionRow RowOf(PictureRow picture) =>
        new()
        {
            PictureId = picture.Id,
            Number = 1,
            ContentHash = picture.ContentHash,
            Name = picture.Name,
            AddedAt = picture.AddedAt,
            Facts = StoredJson.Write(picture.Facts),
        };
}

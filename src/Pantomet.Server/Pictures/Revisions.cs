using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Http;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Server.Jobs;

namespace Pantomet.Server.Pictures;

/// <summary>Newer originals in the place of older ones, and the way back; removing a picture, and the way back from that.</summary>
internal sealed class Revisions(PantometDb db, PictureIntake intake, JobRoom room, TimeProvider clock)
{
    /// <summary>How long a removed picture can be put back.</summary>
    public static readonly TimeSpan Grace = TimeSpan.FromDays(30);

    // Two originals are of one shape when their ratios differ by less: rounding of other sizes of the same picture.
    private const double ShapeSlack = 0.005;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { Converters = { new JsonStringEnumConverter() } };

    /// <summary>All originals a picture has or had, the newest first.</summary>
    public async Task<IReadOnlyList<RevisionRow>> OfAsync(PictureRow picture, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var rows = await db.Revisions.AsNoTracking().Where(row => row.PictureId == picture.Id).OrderByDescending(row => row.Number).ToListAsync(cancel);
        return rows.Count > 0 ? rows : [RowOf(picture)];
    }

    /// <summary>Reads a newer original in and puts it in the place of the last.</summary>
    public async Task<IntakeResult> ReplaceAsync(PictureRow picture, string? name, Stream body, long? length, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var (file, facts, refused) = await intake.ReadAsync(name, body, length, cancel);
        using (file)
        {
            if (refused is { Row: { } other } && other.Id != picture.Id)
            {
                return IntakeResult.Refused(StatusCodes.Status409Conflict, "another-picture", $"The same file is in the library already, as {other.Name}.");
            }

            if (refused is { } refusal)
            {
                return refusal;
            }

            intake.Keep(file!);
            await EnsureFirstAsync(picture, cancel);
            var number = 1 + await db.Revisions.Where(row => row.PictureId == picture.Id).MaxAsync(row => row.Number, cancel);
            db.Revisions.Add(new()
            {
                PictureId = picture.Id, Number = number, ContentHash = file!.Hash, Name = name!, AddedAt = clock.GetUtcNow().UtcDateTime, Facts = JsonSerializer.Serialize(facts, Json),
            });
            return await TakeAsync(picture, number, file.Hash, name!, facts!, cancel);
        }
    }

    /// <summary>Puts an earlier original back; nothing is lost, the later ones stay.</summary>
    /// <returns>The picture, or null when there is no such revision.</returns>
    public async Task<IntakeResult?> PutBackAsync(PictureRow picture, int number, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(picture);
        if (await db.Revisions.AsNoTracking().FirstOrDefaultAsync(row => row.PictureId == picture.Id && row.Number == number, cancel) is not { } revision)
        {
            return null;
        }

        if (await db.Pictures.AnyAsync(row => row.Id != picture.Id && row.ContentHash == revision.ContentHash, cancel))
        {
            return IntakeResult.Refused(StatusCodes.Status409Conflict, "another-picture", "This original stands in the library as another picture now.");
        }

        return await TakeAsync(picture, number, revision.ContentHash, revision.Name, JsonSerializer.Deserialize<PictureFacts>(revision.Facts, Json)!, cancel);
    }

    /// <summary>Takes a picture out of the library; jobs no longer show it. It can be put back until the grace period is over.</summary>
    public async Task RemoveAsync(PictureRow picture, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(picture);
        picture.RemovedAt = clock.GetUtcNow().UtcDateTime;
        await db.SaveChangesAsync(cancel);
        await room.PictureChangedAsync(picture.Id, otherShape: false, cancel);
    }

    /// <summary>Puts a removed picture back, with everything that was decided about it.</summary>
    public async Task RestoreAsync(PictureRow picture, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(picture);
        picture.RemovedAt = null;
        await db.SaveChangesAsync(cancel);
        await room.PictureChangedAsync(picture.Id, otherShape: false, cancel);
    }

    private async Task<IntakeResult> TakeAsync(PictureRow picture, int number, string hash, string name, PictureFacts facts, CancellationToken cancel)
    {
        var otherShape = Math.Abs((Ratio.Of(facts.Size).Value / Ratio.Of(picture.Facts.Size).Value) - 1) > ShapeSlack;
        picture.Take(name, hash, facts);
        picture.Revision = number;
        await db.SaveChangesAsync(cancel);
        await room.PictureChangedAsync(picture.Id, otherShape, cancel);
        return new(picture, false, StatusCodes.Status200OK, null, null);
    }

    private async Task EnsureFirstAsync(PictureRow picture, CancellationToken cancel)
    {
        if (!await db.Revisions.AnyAsync(row => row.PictureId == picture.Id, cancel))
        {
            db.Revisions.Add(RowOf(picture));
            await db.SaveChangesAsync(cancel);
        }
    }

    private static RevisionRow RowOf(PictureRow picture) => new()
    {
        PictureId = picture.Id, Number = 1, ContentHash = picture.ContentHash, Name = picture.Name, AddedAt = picture.AddedAt, Facts = JsonSerializer.Serialize(picture.Facts, Json),
    };
}

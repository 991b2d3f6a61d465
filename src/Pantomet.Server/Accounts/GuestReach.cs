using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Data;
using Pantomet.Data.Pictures;

namespace Pantomet.Server.Accounts;

/// <summary>
/// What a guest of a job reaches: the job, its pictures, and the files that its cells have. What an address names by its values is looked up,
/// so that a guest who knows the name of something else does not get it.
/// </summary>
internal static class GuestReach
{
    private const string Id = "id";

    /// <summary>True when all that an address names belongs to a job.</summary>
    public static async Task<bool> ReachesAsync(HttpContext context, Guid job)
    {
        var path = context.Request.Path;
        var values = context.Request.RouteValues;
        if (path.StartsWithSegments("/api/jobs", StringComparison.OrdinalIgnoreCase))
        {
            return Same(values, Id, job);
        }

        var db = context.RequestServices.GetRequiredService<PantometDb>();
        if (path.StartsWithSegments("/api/pictures", StringComparison.OrdinalIgnoreCase))
        {
            return Guid.TryParse(values[Id] as string, out var picture) && await HasPictureAsync(db, job, picture, context.RequestAborted);
        }

        if (path.StartsWithSegments("/api/variants", StringComparison.OrdinalIgnoreCase))
        {
            var file = values[Id] as string ?? "";
            return await db.Wants.AnyAsync(want => want.JobId == job && want.FileId == file, context.RequestAborted);
        }

        // What names nothing of a job or of the library: fonts, and who one is.
        return true;
    }

    private static bool Same(RouteValueDictionary values, string name, Guid job) =>
        Guid.TryParse(values[name] as string, out var id) && id == job;

    private static async Task<bool> HasPictureAsync(PantometDb db, Guid job, Guid picture, CancellationToken cancel)
    {
        if (await db.JobPictures.AnyAsync(row => row.JobId == job && row.PictureId == picture, cancel))
        {
            return true;
        }

        // A part of pictures side by side.
        var pairs = await db
            .Pictures.AsNoTracking()
            .Where(row => row.Parts != null && db.JobPictures.Any(one => one.JobId == job && one.PictureId == row.Id))
            .ToListAsync(cancel);
        return pairs.Exists(row => row.Parts!.Any(part => part.Id == picture));
    }
}

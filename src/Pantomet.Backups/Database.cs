using Microsoft.EntityFrameworkCore;
using Pantomet.Data;

namespace Pantomet.Backups;

/// <summary>What is asked of a database apart from a running application.</summary>
internal static class Database
{
    /// <summary>Opens the database of a file.</summary>
    public static PantometDb At(string path) =>
        new(new DbContextOptionsBuilder<PantometDb>().UseSqlite($"Data Source={path};Pooling=False;Default Timeout=20").Options);

    /// <summary>The originals that it names, those of removed pictures and earlier revisions included: the name of a picture by its hash.</summary>
    public static async Task<IReadOnlyDictionary<string, string>> OriginalsAsync(PantometDb db, CancellationToken cancel)
    {
        var names = new Dictionary<string, string>(StringComparer.Ordinal);
        // Pictures side by side have no original of their own.
        foreach (
            var one in await db
                .Pictures.AsNoTracking()
                .Where(row => row.Parts == null)
                .Select(row => new { row.ContentHash, row.Name })
                .ToListAsync(cancel)
        )
        {
            names.TryAdd(one.ContentHash, one.Name);
        }

        foreach (
            var one in await db
                .Revisions.AsNoTracking()
                .Join(
                    db.Pictures,
                    revision => revision.PictureId,
                    picture => picture.Id,
                    (revision, picture) => new { revision.ContentHash, picture.Name }
                )
                .ToListAsync(cancel)
        )
        {
            names.TryAdd(one.ContentHash, one.Name);
        }

        return names;
    }
}

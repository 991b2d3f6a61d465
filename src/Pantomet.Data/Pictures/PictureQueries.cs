using Microsoft.EntityFrameworkCore;

namespace Pantomet.Data.Pictures;

/// <summary>What is asked about pictures. The rows are for reading; changes go through the one writer.</summary>
/// <param name="db">The database.</param>
public sealed class PictureQueries(PantometDb db)
{
    /// <summary>A picture, removed or not; null where there is none.</summary>
    public Task<PictureRow?> OneAsync(Guid id, CancellationToken cancel) =>
        db.Pictures.AsNoTracking().SingleOrDefaultAsync(row => row.Id == id, cancel);

    /// <summary>Some pictures by their identity; those that there are.</summary>
    public Task<Dictionary<Guid, PictureRow>> SomeAsync(IReadOnlyCollection<Guid> ids, CancellationToken cancel) =>
        db.Pictures.AsNoTracking().Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id, cancel);

    /// <summary>All pictures of the library, the newest first; no removed and no combined ones.</summary>
    public Task<List<PictureRow>> LibraryAsync(CancellationToken cancel) => Newest(Library()).ToListAsync(cancel);

    /// <summary>The removed pictures, the last removed first.</summary>
    public Task<List<PictureRow>> RemovedAsync(CancellationToken cancel) =>
        db.Pictures.AsNoTracking().Where(row => row.RemovedAt != null).OrderByDescending(row => row.RemovedAt).ToListAsync(cancel);

    /// <summary>The identities of all pictures by their names; of pictures with one name, one of them.</summary>
    public async Task<IReadOnlyDictionary<string, Guid>> IdsByNameAsync(CancellationToken cancel)
    {
        var ids = new Dictionary<string, Guid>(StringComparer.Ordinal);
        foreach (var row in await db.Pictures.AsNoTracking().Select(row => new { row.Name, row.Id }).ToListAsync(cancel))
        {
            ids[row.Name] = row.Id;
        }

        return ids;
    }

    /// <summary>A part of the library, the newest first, of the pictures that have all words in their name or in what was written about them.</summary>
    /// <param name="words">The words; none finds all pictures.</param>
    /// <param name="from">The place of the first picture of the part, from 0.</param>
    /// <param name="count">How many the part has at most.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>How many were found in all, and the part.</returns>
    public async Task<(int Total, IReadOnlyList<PictureRow> Part)> FindAsync(
        IEnumerable<string> words,
        int from,
        int count,
        CancellationToken cancel
    )
    {
        var found = words.Aggregate(Library(), Holding);
        // One look through the names, for the count and for the part.
        var ids = await Newest(found).Select(row => row.Id).ToListAsync(cancel);
        var part = ids.Skip(from).Take(count).ToList();
        var rows = await SomeAsync(part, cancel);
        return (ids.Count, [.. part.Where(rows.ContainsKey).Select(id => rows[id])]);
    }

    private IQueryable<PictureRow> Library() => db.Pictures.AsNoTracking().Where(row => row.RemovedAt == null && row.Parts == null);

    private static IOrderedQueryable<PictureRow> Newest(IQueryable<PictureRow> rows) =>
        rows.OrderByDescending(row => row.AddedAt).ThenBy(row => row.Name);

    // A word stands in the picture's name, or in what was written about it in some job.
    private IQueryable<PictureRow> Holding(IQueryable<PictureRow> rows, string word)
    {
        var literal = word.Replace("\\", "\\\\", StringComparison.Ordinal)
            .Replace("%", "\\%", StringComparison.Ordinal)
            .Replace("_", "\\_", StringComparison.Ordinal);
        var like = $"%{literal}%";
        // Those that the words name are looked up once, not for each picture.
        var named = db
            .JobPictures.Where(one => one.Keywords != "" || one.Alternative != "")
            .Where(one => EF.Functions.Like(one.Keywords, like, "\\") || EF.Functions.Like(one.Alternative, like, "\\"))
            .Select(one => one.PictureId);
        return rows.Where(row => EF.Functions.Like(row.Name, like, "\\") || named.Contains(row.Id));
    }
}

using Microsoft.EntityFrameworkCore;

namespace Pantomet.Data.Live;

/// <summary>The rows that count what was fetched.</summary>
public static class FetchCountRows
{
    /// <summary>Adds to what was counted of one place.</summary>
    public static Task AddAsync(PantometDb db, FetchCountRow more)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(more);
        return db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO FetchCounts (PublicationId, Path, Fetches, Unchanged, Bytes)
            VALUES ({more.PublicationId}, {more.Path}, {more.Fetches}, {more.Unchanged}, {more.Bytes})
            ON CONFLICT (PublicationId, Path) DO UPDATE SET
            Fetches = Fetches + excluded.Fetches, Unchanged = Unchanged + excluded.Unchanged, Bytes = Bytes + excluded.Bytes
            """
        );
    }
}

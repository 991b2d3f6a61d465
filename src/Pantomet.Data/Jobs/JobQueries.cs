using Microsoft.EntityFrameworkCore;

namespace Pantomet.Data.Jobs;

/// <summary>The first pictures of a job, as a list of jobs shows them.</summary>
/// <param name="Id">The picture.</param>
/// <param name="ContentHash">The hash of its original.</param>
/// <param name="Quarters">Quarter turns, 0 to 3.</param>
/// <param name="Degrees">Degrees beyond them.</param>
public sealed record FirstPicture(Guid Id, string ContentHash, int Quarters, double Degrees);

/// <summary>Questions about many jobs.</summary>
public static class JobQueries
{
    /// <summary>The first pictures of each of some jobs, in order.</summary>
    public static async Task<Dictionary<Guid, List<FirstPicture>>> FirstPicturesAsync(
        PantometDb db,
        IEnumerable<Guid> jobs,
        int most,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(jobs);
        await db.Database.OpenConnectionAsync(cancel);
        using var sql = new Statements(db);
        var all = new Dictionary<Guid, List<FirstPicture>>();
        foreach (var job in jobs)
        {
            all[job] = await sql.ReadAsync(
                """
                SELECT p.Id, p.ContentHash, j.Quarters, j.Degrees FROM JobPictures j
                JOIN Pictures p ON p.Id = j.PictureId AND p.RemovedAt IS NULL
                WHERE j.JobId = $1 ORDER BY j.Place LIMIT $2
                """,
                row => new FirstPicture(row.GetGuid(0), row.GetString(1), row.GetInt32(2), row.GetDouble(3)),
                job,
                most
            );
        }

        return all;
    }
}

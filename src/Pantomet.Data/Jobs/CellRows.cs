using Pantomet.Core.Jobs;

namespace Pantomet.Data.Jobs;

/// <summary>A file that a cell wants, as its row says.</summary>
/// <param name="FileId">The file: the hash of its recipe.</param>
/// <param name="Place">The picture's place in the job.</param>
/// <param name="Rank">The place among the files of one picture, the largest first.</param>
/// <param name="State">One of the states of <see cref="WantRow"/>.</param>
/// <param name="Bytes">What it weighs; 0 before it is made.</param>
public sealed record StoredWant(string FileId, long Place, long Rank, string State, long Bytes);

/// <summary>A cell, as its rows say.</summary>
/// <param name="State">How it stands.</param>
/// <param name="Verdict">Its verdict.</param>
/// <param name="ToReview">The reasons for which it is to review, separated by commas.</param>
/// <param name="Wants">The files that it wants, in order.</param>
public sealed record StoredCell(string State, string Verdict, string ToReview, List<StoredWant> Wants);

/// <summary>A file that is open, and the cell that wants it.</summary>
public sealed record OpenWant(Guid Picture, string Slot, string File);

/// <summary>
/// The rows of cells and of the files that they want. They are read and written thousands at a time, by statements that are prepared once.
/// </summary>
/// <param name="db">A database whose connection is open; what is written belongs to its transaction.</param>
public sealed class CellRows(PantometDb db) : IDisposable
{
    // A picture's files wait until its subject was sought: their frames depend on it.
    private const string Open =
        "SELECT PictureId, Slot, FileId FROM Wants WHERE JobId = $1 AND State = 'open' "
        + "AND PictureId NOT IN (SELECT Id FROM Pictures WHERE SubjectSought = 0)";

    private readonly Statements _sql = new(db);

    /// <summary>The rows of some cells of a job, those that are stored.</summary>
    public async Task<Dictionary<CellKey, StoredCell>> ReadAsync(Guid job, IReadOnlySet<CellKey> cells)
    {
        ArgumentNullException.ThrowIfNull(cells);
        var stored = new Dictionary<CellKey, StoredCell>();
        foreach (var chunk in cells.Select(key => key.Picture).Distinct().Chunk(Statements.AtOnce))
        {
            var among = $"JobId = $1 AND PictureId IN ({string.Join(',', chunk.Select((_, at) => $"${at + 2}"))})";
            object[] values = [job, .. chunk.Cast<object>()];
            var rows = await _sql.ReadAsync(
                $"SELECT PictureId, Slot, State, Verdict, ToReview FROM Cells WHERE {among}",
                row =>
                    (
                        new CellKey(row.GetGuid(0), row.GetString(1)),
                        new StoredCell(row.GetString(2), row.GetString(3), row.GetString(4), [])
                    ),
                values
            );
            foreach (var (key, cell) in rows.Where(one => cells.Contains(one.Item1)))
            {
                stored[key] = cell;
            }

            var wants = await _sql.ReadAsync(
                $"SELECT PictureId, Slot, FileId, Place, Rank, State, Bytes FROM Wants WHERE {among} ORDER BY Ordinal",
                row =>
                    (
                        new CellKey(row.GetGuid(0), row.GetString(1)),
                        new StoredWant(row.GetString(2), row.GetInt64(3), row.GetInt64(4), row.GetString(5), row.GetInt64(6))
                    ),
                values
            );
            foreach (var (key, want) in wants)
            {
                stored.GetValueOrDefault(key)?.Wants.Add(want);
            }
        }

        return stored;
    }

    /// <summary>Writes how a cell stands.</summary>
    public Task SetStateAsync(Guid job, CellKey key, StoredCell cell)
    {
        ArgumentNullException.ThrowIfNull(cell);
        return _sql.RunAsync(
            "INSERT OR REPLACE INTO Cells (JobId, PictureId, Slot, State, Verdict, ToReview) VALUES ($1, $2, $3, $4, $5, $6)",
            job,
            key.Picture,
            key.Slot,
            cell.State,
            cell.Verdict,
            cell.ToReview
        );
    }

    /// <summary>Writes which files a cell wants, instead of those that it wanted.</summary>
    public async Task SetWantsAsync(Guid job, CellKey key, StoredCell? before, StoredCell after)
    {
        ArgumentNullException.ThrowIfNull(after);
        if (before is { Wants.Count: > 0 })
        {
            await RemoveWantsAsync(job, key);
        }

        for (var at = 0; at < after.Wants.Count; at++)
        {
            var want = after.Wants[at];
            await _sql.RunAsync(
                "INSERT OR REPLACE INTO Wants (JobId, PictureId, Slot, Ordinal, FileId, Place, Rank, State, Bytes) VALUES "
                    + "($1, $2, $3, $4, $5, $6, $7, $8, $9)",
                job,
                key.Picture,
                key.Slot,
                at,
                want.FileId,
                want.Place,
                want.Rank,
                want.State,
                want.Bytes
            );
        }
    }

    /// <summary>Removes a cell and what it wanted.</summary>
    public async Task RemoveAsync(Guid job, CellKey key)
    {
        await RemoveWantsAsync(job, key);
        await _sql.RunAsync("DELETE FROM Cells WHERE JobId = $1 AND PictureId = $2 AND Slot = $3", job, key.Picture, key.Slot);
    }

    /// <summary>The cells that want a file, in whatever job.</summary>
    public Task<List<(Guid Job, CellKey Cell)>> WantingAsync(string file) =>
        _sql.ReadAsync(
            "SELECT DISTINCT JobId, PictureId, Slot FROM Wants WHERE FileId = $1",
            row => (row.GetGuid(0), new CellKey(row.GetGuid(1), row.GetString(2))),
            file
        );

    /// <summary>What is to be made between two places of a job, in order.</summary>
    public Task<List<OpenWant>> OpenBetweenAsync(Guid job, long from, long to) =>
        _sql.ReadAsync($"{Open} AND Place BETWEEN $2 AND $3 ORDER BY Place, Rank", Want, job, from, to);

    /// <summary>What is to be made next from a place of a job on, in order.</summary>
    public Task<List<OpenWant>> OpenFromAsync(Guid job, long from, int most) =>
        _sql.ReadAsync($"{Open} AND Place >= $2 ORDER BY Place, Rank LIMIT $3", Want, job, from, most);

    /// <inheritdoc/>
    public void Dispose() => _sql.Dispose();

    private static OpenWant Want(Microsoft.Data.Sqlite.SqliteDataReader row) => new(row.GetGuid(0), row.GetString(1), row.GetString(2));

    private Task RemoveWantsAsync(Guid job, CellKey key) =>
        _sql.RunAsync("DELETE FROM Wants WHERE JobId = $1 AND PictureId = $2 AND Slot = $3", job, key.Picture, key.Slot);
}

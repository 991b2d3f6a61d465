using Pantomet.Application.Variants;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Data.Jobs;

namespace Pantomet.Application.Jobs;

/// <summary>Cells and the files they want, in their tables: only what differs is written, and what is counted is counted on.</summary>
public static class CellTables
{
    /// <summary>A cell's name.</summary>
    public readonly record struct Key(Guid Picture, string Slot);

    private sealed record StoredWant(string FileId, long Place, long Rank, string State, long Bytes);

    private sealed record StoredCell(string State, string Verdict, string Looks, List<StoredWant> Wants);

    /// <summary>Brings the rows of some cells in step with how they are planned now.</summary>
    /// <param name="db">The database, within a transaction.</param>
    /// <param name="judge">Judges cells.</param>
    /// <param name="state">The job as it is to be.</param>
    /// <param name="cells">The cells as they are to be; null takes one away.</param>
    /// <returns>By how much the job's figures change.</returns>
    public static async Task<Tally> StoreAsync(PantometDb db, CellJudge judge, BoardState state, IReadOnlyDictionary<Key, BoardCell?> cells)
    {
        using var sql = new Statements(db);
        var stored = await ReadAsync(sql, state.Id, cells);
        var standings = await FileStandings.OfAsync(
            db,
            cells.Values.OfType<BoardCell>().SelectMany(cell => cell.Files).Select(file => file.Id),
            CancellationToken.None
        );
        var tally = default(Tally);
        foreach (var (key, cell) in cells)
        {
            var before = stored.GetValueOrDefault(key);
            tally -= before is null ? default : TallyOf(before);
            if (cell is null)
            {
                if (before is not null)
                {
                    await RemoveAsync(sql, state.Id, key, keepCell: false);
                }

                continue;
            }

            var after = RowOf(judge, cell, standings, state.Places[key.Picture]);
            tally += TallyOf(after);
            if (before is null || before.State != after.State || before.Verdict != after.Verdict || before.Looks != after.Looks)
            {
                await sql.RunAsync(
                    "INSERT OR REPLACE INTO Cells (JobId, PictureId, Slot, State, Verdict, Looks) VALUES ($1, $2, $3, $4, $5, $6)",
                    state.Id,
                    key.Picture,
                    key.Slot,
                    after.State,
                    after.Verdict,
                    after.Looks
                );
            }

            if (before is null || !before.Wants.SequenceEqual(after.Wants))
            {
                if (before is { Wants.Count: > 0 })
                {
                    await RemoveAsync(sql, state.Id, key, keepCell: true);
                }

                for (var at = 0; at < after.Wants.Count; at++)
                {
                    var want = after.Wants[at];
                    await sql.RunAsync(
                        "INSERT OR REPLACE INTO Wants (JobId, PictureId, Slot, Ordinal, FileId, Place, Rank, State, Bytes) VALUES "
                            + "($1, $2, $3, $4, $5, $6, $7, $8, $9)",
                        state.Id,
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
        }

        return tally;
    }

    /// <summary>The cells that want a file, in whatever job.</summary>
    public static Task<List<(Guid Job, Key Cell)>> WantingAsync(Statements sql, string file) =>
        sql.ReadAsync(
            "SELECT DISTINCT JobId, PictureId, Slot FROM Wants WHERE FileId = $1",
            row => (row.GetGuid(0), new Key(row.GetGuid(1), row.GetString(2))),
            file
        );

    private static async Task<Dictionary<Key, StoredCell>> ReadAsync(Statements sql, Guid job, IReadOnlyDictionary<Key, BoardCell?> cells)
    {
        var stored = new Dictionary<Key, StoredCell>();
        var pictures = cells.Keys.Select(key => key.Picture).Distinct().ToList();
        foreach (var chunk in pictures.Chunk(Statements.AtOnce))
        {
            var list = string.Join(',', chunk.Select((_, at) => $"${at + 2}"));
            object[] values = [job, .. chunk.Cast<object>()];
            foreach (
                var (key, cell) in await sql.ReadAsync(
                    $"SELECT PictureId, Slot, State, Verdict, Looks FROM Cells WHERE JobId = $1 AND PictureId IN ({list})",
                    row =>
                        (
                            new Key(row.GetGuid(0), row.GetString(1)),
                            new StoredCell(row.GetString(2), row.GetString(3), row.GetString(4), [])
                        ),
                    values
                )
            )
            {
                if (cells.ContainsKey(key))
                {
                    stored[key] = cell;
                }
            }

            foreach (
                var (key, want) in await sql.ReadAsync(
                    $"SELECT PictureId, Slot, FileId, Place, Rank, State, Bytes FROM Wants WHERE JobId = $1 AND PictureId IN ({list}) "
                        + $"ORDER BY Ordinal",
                    row =>
                        (
                            new Key(row.GetGuid(0), row.GetString(1)),
                            new StoredWant(row.GetString(2), row.GetInt64(3), row.GetInt64(4), row.GetString(5), row.GetInt64(6))
                        ),
                    values
                )
            )
            {
                stored.GetValueOrDefault(key)?.Wants.Add(want);
            }
        }

        return stored;
    }

    private static async Task RemoveAsync(Statements sql, Guid job, Key key, bool keepCell)
    {
        await sql.RunAsync("DELETE FROM Wants WHERE JobId = $1 AND PictureId = $2 AND Slot = $3", job, key.Picture, key.Slot);
        if (!keepCell)
        {
            await sql.RunAsync("DELETE FROM Cells WHERE JobId = $1 AND PictureId = $2 AND Slot = $3", job, key.Picture, key.Slot);
        }
    }

    private static StoredCell RowOf(CellJudge judge, BoardCell cell, FileStandings standings, long place)
    {
        var standing = CellJudge.Standing(cell, standings);
        return new(
            standing.State,
            standing.Verdict.ToString(),
            string.Join(',', standing.Looks),
            [
                .. cell.Files.Select(file =>
                    standings.Made(file.Id) is { } made
                        ? new StoredWant(file.Id, place, -file.Request.Plan.Size.Area, WantRow.Made, made.Bytes)
                        : new StoredWant(
                            file.Id,
                            place,
                            -file.Request.Plan.Size.Area,
                            standings.Failure(file.Id) is null ? WantRow.Open : WantRow.Failed,
                            0
                        )
                ),
            ]
        );
    }

    private static Tally TallyOf(StoredCell cell) =>
        cell.Wants.Aggregate(
            new Tally(cell.Wants.Count, 0, 0, 0, 0, cell.Looks.Length > 0 ? 1 : 0),
            (tally, want) =>
                tally
                + (
                    want.State switch
                    {
                        WantRow.Made => new(0, 1, 0, want.Bytes, 0, 0),
                        WantRow.Failed => new(0, 0, 1, 0, 0, 0),
                        _ => new(0, 0, 0, 0, Pace.WorkOf(-want.Rank), 0),
                    }
                )
        );
}

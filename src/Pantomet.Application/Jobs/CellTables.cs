using Pantomet.Core.Jobs;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Jobs;

/// <summary>Cells and the files they want, in their tables: only what differs is written, and what is counted is counted on.</summary>
public static class CellTables
{
    /// <summary>Brings the rows of some cells in step with how they are planned now.</summary>
    /// <param name="db">The database, within a transaction.</param>
    /// <param name="state">The job as it is to be.</param>
    /// <param name="cells">The cells as they are to be; null removes one.</param>
    /// <returns>By how much the job's figures change.</returns>
    public static async Task<Tally> StoreAsync(PantometDb db, BoardState state, IReadOnlyDictionary<CellKey, BoardCell?> cells)
    {
        using var rows = new CellRows(db);
        var stored = await rows.ReadAsync(state.Id, cells.Keys.ToHashSet());
        var standings = await FileStandings.OfAsync(
            db,
            cells.Values.OfType<BoardCell>().SelectMany(cell => cell.Files).Select(file => file.Id),
            CancellationToken.None
        );
        var tally = default(Tally);
        foreach (var (key, cell) in cells)
        {
            var before = stored.GetValueOrDefault(key);
            var after = cell is null ? null : RowOf(cell, standings, state.Places[key.Picture]);
            tally = tally - TallyOf(before) + TallyOf(after);
            await StoreAsync(rows, state.Id, key, before, after);
        }

        return tally;
    }

    private static async Task StoreAsync(CellRows rows, Guid job, CellKey key, StoredCell? before, StoredCell? after)
    {
        if (after is null)
        {
            await (before is null ? Task.CompletedTask : rows.RemoveAsync(job, key));
            return;
        }

        if (before is null || before.State != after.State || before.Verdict != after.Verdict || before.ToReview != after.ToReview)
        {
            await rows.SetStateAsync(job, key, after);
        }

        if (before is null || !before.Wants.SequenceEqual(after.Wants))
        {
            await rows.SetWantsAsync(job, key, before, after);
        }
    }

    private static StoredCell RowOf(BoardCell cell, FileStandings standings, long place)
    {
        var standing = CellJudge.Standing(cell, standings);
        return new(
            standing.State,
            standing.Verdict.ToString(),
            string.Join(',', standing.ToReview),
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

    private static Tally TallyOf(StoredCell? cell) =>
        cell is null
            ? default
            : cell.Wants.Aggregate(
                new Tally(cell.Wants.Count, 0, 0, 0, 0, cell.ToReview.Length > 0 ? 1 : 0),
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

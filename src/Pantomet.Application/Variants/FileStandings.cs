using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Facts;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Variants;

/// <summary>Which of some files are made, and which could not be, as the tables say.</summary>
internal sealed class FileStandings
{
    private const string Columns =
        "Id, PictureId, ContentHash, Format, Width, Height, Bytes, Quality, Likeness, WorstPlace, Encodes, Verdict, Reasons, MadeAt, Want, WantedAt";

    private readonly Dictionary<string, VariantRow> _made = [];
    private readonly Dictionary<string, FailureRow> _failed = [];

    /// <summary>Nothing is known of any file.</summary>
    public static FileStandings None { get; } = new();

    public VariantRow? Made(string id) => _made.GetValueOrDefault(id);

    /// <summary>Why it could not be made; null when it is due to be tried again.</summary>
    public FailureRow? Failure(string id) => _failed.TryGetValue(id, out var row) && row.Code != FailureRow.Due ? row : null;

    /// <summary>How often it was tried in vain.</summary>
    public int Tries(string id) => _failed.TryGetValue(id, out var row) ? row.Tries : 0;

    /// <summary>How these files stand.</summary>
    public static async Task<FileStandings> OfAsync(PantometDb db, IEnumerable<string> ids, CancellationToken cancel)
    {
        var standings = new FileStandings();
        await db.Database.OpenConnectionAsync(cancel);
        try
        {
            using var sql = new Statements(db);
            foreach (var chunk in ids.Distinct().Chunk(Statements.AtOnce))
            {
                var list = string.Join(',', Enumerable.Range(1, chunk.Length).Select(i => $"${i}"));
                await standings.ReadAsync(sql, $"IN ({list})", chunk);
            }
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }

        return standings;
    }

    /// <summary>How all files of a job stand.</summary>
    public static async Task<FileStandings> OfJobAsync(PantometDb db, Guid job, CancellationToken cancel)
    {
        var standings = new FileStandings();
        await db.Database.OpenConnectionAsync(cancel);
        try
        {
            using var sql = new Statements(db);
            await standings.ReadAsync(sql, "IN (SELECT FileId FROM Wants WHERE JobId = $1)", [job]);
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }

        return standings;
    }

    private async Task ReadAsync(Statements sql, string which, object[] values)
    {
        foreach (var row in await sql.ReadAsync($"SELECT {Columns} FROM Variants WHERE Id {which}", Variant, values))
        {
            _made[row.Id] = row;
        }

        var failures = await sql.ReadAsync(
            $"SELECT FileId, PictureId, Tries, At, NextAt, Code, Reason FROM Failures WHERE FileId {which}",
            row => new FailureRow
            {
                FileId = row.GetString(0),
                PictureId = row.GetGuid(1),
                Tries = row.GetInt32(2),
                At = row.GetDateTime(3),
                NextAt = row.IsDBNull(4) ? null : row.GetDateTime(4),
                Code = row.GetString(5),
                Reason = row.GetString(6),
            },
            values
        );
        failures.ForEach(row => _failed[row.FileId] = row);
    }

    private static VariantRow Variant(Microsoft.Data.Sqlite.SqliteDataReader row) =>
        new()
        {
            Id = row.GetString(0),
            PictureId = row.GetGuid(1),
            ContentHash = row.GetString(2),
            Format = Enum.Parse<PictureFormat>(row.GetString(3)),
            Width = row.GetInt32(4),
            Height = row.GetInt32(5),
            Bytes = row.GetInt64(6),
            Quality = row.IsDBNull(7) ? null : row.GetInt32(7),
            Likeness = row.IsDBNull(8) ? null : row.GetDouble(8),
            WorstPlace = row.IsDBNull(9) ? null : row.GetString(9),
            Encodes = row.GetInt32(10),
            Verdict = Enum.Parse<Verdict>(row.GetString(11)),
            Reasons = row.GetString(12),
            MadeAt = row.GetDateTime(13),
            Want = row.GetString(14),
            WantedAt = row.GetDateTime(15),
        };
}

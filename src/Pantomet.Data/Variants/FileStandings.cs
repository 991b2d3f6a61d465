using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Facts;
using Pantomet.Core.Verdicts;

namespace Pantomet.Data.Variants;

/// <summary>Which of some files are made, and which could not be, as the tables say.</summary>
public sealed class FileStandings
{
    // What is shown of a file among many comes first; the rest is read where one is looked at.
    private const string Shown = "Id, PictureId, ContentHash, Format, Width, Height, Bytes, Quality, Likeness, Verdict, Reasons";
    private const string All = $"{Shown}, WorstPlace, Encodes, MadeAt, Want, WantedAt, Placeholder, Edge, Dressed";

    private readonly Dictionary<string, VariantRow> _made = [];
    private readonly Dictionary<string, FailureRow> _failed = [];

    /// <summary>Nothing is known of any file.</summary>
    public static FileStandings None { get; } = new();

    /// <summary>True where the file with this key is made.</summary>
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
                await standings.ReadAsync(sql, All, $"IN ({list})", chunk);
            }
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }

        return standings;
    }

    /// <summary>How all files of a job stand.</summary>
    /// <param name="db">The database.</param>
    /// <param name="job">The job.</param>
    /// <param name="whole">True for all that is known of each file, false for what is shown of it among many.</param>
    /// <param name="cancel">Stops.</param>
    public static async Task<FileStandings> OfJobAsync(PantometDb db, Guid job, bool whole, CancellationToken cancel)
    {
        var standings = new FileStandings();
        await db.Database.OpenConnectionAsync(cancel);
        try
        {
            using var sql = new Statements(db);
            await standings.ReadAsync(sql, whole ? All : Shown, "IN (SELECT FileId FROM Wants WHERE JobId = $1)", [job]);
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }

        return standings;
    }

    private async Task ReadAsync(Statements sql, string columns, string which, object[] values)
    {
        foreach (var row in await sql.ReadAsync($"SELECT {columns} FROM Variants WHERE Id {which}", Variant, values))
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

    private static VariantRow Variant(Microsoft.Data.Sqlite.SqliteDataReader row)
    {
        var variant = new VariantRow
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
            Verdict = Enum.Parse<Verdict>(row.GetString(9)),
            Reasons = row.GetString(10),
        };
        if (row.FieldCount > 11)
        {
            variant.WorstPlace = row.IsDBNull(11) ? null : row.GetString(11);
            variant.Encodes = row.GetInt32(12);
            variant.MadeAt = row.GetDateTime(13);
            variant.Want = row.GetString(14);
            variant.WantedAt = row.GetDateTime(15);
            variant.Placeholder = row.IsDBNull(16) ? null : row.GetString(16);
            variant.Edge = row.IsDBNull(17) ? null : row.GetString(17);
            variant.Dressed = row.IsDBNull(18) ? null : row.GetString(18);
        }

        return variant;
    }
}

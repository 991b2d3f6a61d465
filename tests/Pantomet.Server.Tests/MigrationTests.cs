using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Pantomet.Data;

namespace Pantomet.Server.Tests;

/// <summary>A data folder that any program of before wrote is opened, has the tables of a new one, and keeps what is in it.</summary>
public sealed class MigrationTests : IDisposable
{
    private const string LastBefore = "20261123191904_Jobs";
    private const string Job = "7a1f0c52-0000-4000-8000-000000000001";

    private readonly string _root = Directory.CreateTempSubdirectory("pantomet-steps-").FullName;

    public static TheoryData<int> Steps => [.. Enumerable.Range(0, MigrationSteps.All.Count + 1)];

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(_root, recursive: true);
    }

    [Theory]
    [MemberData(nameof(Steps))]
    public async Task A_folder_of_in_between_gets_what_it_lacks_and_keeps_what_it_has(int done)
    {
        var old = Path.Combine(_root, "old");
        await WriteAsync(old, done);
        Assert.Equal(await SchemaAsync(Path.Combine(_root, "new")), await SchemaAsync(old));
        Assert.Equal([Job], await ColumnAsync(old, "SELECT lower(Id) FROM Jobs"));
        Assert.Equal(
            await ColumnAsync(Path.Combine(_root, "new"), "SELECT MigrationId FROM __EFMigrationsHistory ORDER BY 1"),
            await ColumnAsync(old, "SELECT MigrationId FROM __EFMigrationsHistory ORDER BY 1")
        );
    }

    [Fact]
    public async Task What_receivers_have_is_known_by_its_new_names()
    {
        var old = Path.Combine(_root, "old");
        await WriteAsync(old, MigrationSteps.All.Count);
        await using (var connection = new SqliteConnection($"Data Source={Path.Combine(old, "pantomet.db")};Pooling=False"))
        {
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            command.CommandText = """
                INSERT INTO Receivers (Id, Rule, AddedAt) VALUES ('A', '{}', '2026-11-27 10:00:00');
                INSERT INTO Sendings (Id, JobId, ReceiverId, State, AskedAt) VALUES ('S', 'J', 'A', 'Done', '2026-11-27 10:00:00');
                INSERT INTO SentFiles (ReceiverId, JobId, Path, PictureId, Slot, ContentHash, Bytes, State, Said, Shown, At)
                VALUES ('A', 'J', 'a.jpg', 'P', 'd/s', 'h', 9, 'Taken', '[]', '{}', '2026-11-27 10:00:00'),
                  ('A', 'J', 'b.jpg', 'P', 'd/s', 'h', 9, 'Failed', '[]', '{}', '2026-11-27 10:00:00'),
                  ('A', 'J', 'c.jpg', 'P', 'd/s', 'h', 9, 'Refused', '[]', '{}', '2026-11-27 10:00:00');
                """;
            await command.ExecuteNonQueryAsync();
        }

        await SchemaAsync(old);
        Assert.Equal(["Accepted", "NotDelivered", "Refused"], await ColumnAsync(old, "SELECT State FROM ReceiverFiles ORDER BY Path"));
        Assert.Equal(["S Done"], await ColumnAsync(old, "SELECT Id || ' ' || State FROM ReceiverDeliveries"));
    }

    [Fact]
    public async Task Decisions_and_commands_are_known_by_their_new_names_and_texts_of_people_stay_as_they_are()
    {
        var old = Path.Combine(_root, "old");
        await WriteAsync(old, MigrationSteps.All.Count);
        const string named =
            """[{"do":"leave-out","slot":"d/s","out":true},{"do":"give-words","title":"\"loose\": a tie","ornament":true}]""";
        await using (var connection = new SqliteConnection($"Data Source={Path.Combine(old, "pantomet.db")};Pooling=False"))
        {
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            command.CommandText = """
                INSERT INTO JobPictures (JobId, PictureId, Place, Quarters, Degrees, Keep, NoSuggestion, Keywords, Alternative, OtherShape, Ornament, Title)
                VALUES ('J', 'P', 1, 0, 0, '[]', 1, '', '', 0, 0, ''), ('J', 'Q', 2, 0, 0, '[]', 0, '', '', 0, 1, '');
                INSERT INTO Commands (JobId, Sequence, Actor, At, Kind, Version, Body, Inverse)
                VALUES ('J', 1, 'a', '2026-11-27 10:00:00', 'commands', 1, $1, '{"decisions":{"P":{"noSuggestion":{"value":true}}}}');
                """;
            command.Parameters.AddWithValue("$1", named);
            await command.ExecuteNonQueryAsync();
        }

        await SchemaAsync(old);
        Assert.Equal(
            ["1 0", "0 1"],
            await ColumnAsync(old, "SELECT SuggestionRejected || ' ' || Decorative FROM JobPictures ORDER BY Place")
        );
        Assert.Equal(
            ["""{"decisions":{"P":{"suggestionRejected":{"value":true}}}}"""],
            await ColumnAsync(old, "SELECT Inverse FROM Commands")
        );
        var body = Assert.Single(await ColumnAsync(old, "SELECT Body FROM Commands"));
        Assert.Equal(
            """[{"do":"skip","slot":"d/s","skipped":true},{"do":"give-words","title":"\"loose\": a tie","decorative":true}]""",
            body
        );
    }

    [Fact]
    public async Task The_database_as_it_was_stays_beside_the_upgraded_one()
    {
        var old = Path.Combine(_root, "old");
        await WriteAsync(old, MigrationSteps.All.Count);
        var before = await ColumnAsync(old, Schema);
        await SchemaAsync(old);
        var former = Assert.Single(Directory.GetFiles(old, "pantomet.db.*"), path => path.Contains(".before-", StringComparison.Ordinal));
        Assert.Equal($"pantomet.db.before-{MigrationSteps.All[^1].Name}", Path.GetFileName(former));
        Assert.Equal(before, await ColumnAsync(old, Schema, Path.GetFileName(former)));
        Assert.Equal([Job], await ColumnAsync(old, "SELECT lower(Id) FROM Jobs", Path.GetFileName(former)));
        Assert.Empty(Directory.GetFiles(old, "*.trial*").Concat(Directory.GetFiles(old, "*.part")));

        // Opened again it is up to date: nothing is copied.
        File.Delete(former);
        await SchemaAsync(old);
        Assert.DoesNotContain(Directory.GetFiles(old), path => path.Contains(".before-", StringComparison.Ordinal));
        // Nor of a new folder.
        await SchemaAsync(Path.Combine(_root, "new"));
        Assert.DoesNotContain(Directory.GetFiles(Path.Combine(_root, "new")), path => path.Contains(".before-", StringComparison.Ordinal));
    }

    [Fact]
    public async Task An_upgrade_that_fails_changes_nothing_and_says_so()
    {
        var old = Path.Combine(_root, "old");
        await WriteAsync(old, MigrationSteps.All.Count);
        await using (var connection = new SqliteConnection($"Data Source={Path.Combine(old, "pantomet.db")};Pooling=False"))
        {
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            // A table of a later version stands where it is to be made.
            command.CommandText = "CREATE TABLE ReceiverFiles (Id TEXT);";
            await command.ExecuteNonQueryAsync();
        }

        var before = await File.ReadAllBytesAsync(Path.Combine(old, "pantomet.db"));
        var fault = await Assert.ThrowsAsync<InvalidDataException>(() => SchemaAsync(old));
        Assert.Contains("cannot be upgraded", fault.Message, StringComparison.Ordinal);
        Assert.Contains("Nothing was changed.", fault.Message, StringComparison.Ordinal);
        Assert.Equal(before, await File.ReadAllBytesAsync(Path.Combine(old, "pantomet.db")));
        Assert.DoesNotContain(Directory.GetFiles(old), path => Path.GetFileName(path).StartsWith("pantomet.db.", StringComparison.Ordinal));
    }

    // As the program of then left it: three migrations, and the first so many of the steps.
    private static async Task WriteAsync(string root, int steps)
    {
        Directory.CreateDirectory(root);
        await using var db = new PantometDb(
            new DbContextOptionsBuilder<PantometDb>().UseSqlite($"Data Source={Path.Combine(root, "pantomet.db")};Pooling=False").Options
        );
        await db.GetService<IMigrator>().MigrateAsync(LastBefore);
        await db.Database.ExecuteSqlAsync(
            $"INSERT INTO Jobs (Id, Text, CreatedAt, Run) VALUES ({Job.ToUpperInvariant()}, {""}, {"2026-11-24 10:00:00"}, {"Paused"})"
        );
        foreach (var step in MigrationSteps.All.Take(steps))
        {
            foreach (var (sql, _) in step.Parts())
            {
                await db.Database.ExecuteSqlRawAsync(
                    sql.Replace("{", "{{", StringComparison.Ordinal).Replace("}", "}}", StringComparison.Ordinal)
                );
            }

            await db.Database.ExecuteSqlAsync(
                $"INSERT INTO __EFMigrationsHistory (MigrationId, ProductVersion) VALUES ({step.Name}, {"10.0.0"})"
            );
        }
    }

    private static async Task<IReadOnlyList<string>> SchemaAsync(string root)
    {
        using (var folder = new DataFolder(root))
        {
            await using var db = new PantometDb(
                new DbContextOptionsBuilder<PantometDb>().UseSqlite(folder.ConnectionString + ";Pooling=False").Options
            );
            await folder.PrepareAsync(db, CancellationToken.None);
        }

        return await ColumnAsync(root, Schema);
    }

    private const string Schema =
        "SELECT type || ' ' || name || ' ' || coalesce(replace(replace(sql, char(10), ' '), '  ', ' '), '') FROM sqlite_master ORDER BY type, name";

    private static async Task<IReadOnlyList<string>> ColumnAsync(string root, string sql, string database = "pantomet.db")
    {
        await using var connection = new SqliteConnection($"Data Source={Path.Combine(root, database)};Pooling=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        await using var reader = await command.ExecuteReaderAsync();
        var all = new List<string>();
        while (await reader.ReadAsync())
        {
            all.Add(reader.GetString(0));
        }

        return all;
    }
}

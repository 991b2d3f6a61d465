using Microsoft.Data.Sqlite;

namespace Pantomet.Data;

/// <summary>Copies a database as it is at one moment, beside whoever writes to it, by SQLite's own online backup (sqlite.org/backup.html).</summary>
public static class DatabaseCopy
{
    /// <summary>Copies a database into a file of its own, without a journal beside it.</summary>
    /// <param name="database">The database.</param>
    /// <param name="to">The copy; must not exist.</param>
    /// <exception cref="SqliteException">It cannot be read, or the copy not written.</exception>
    public static void Make(string database, string to)
    {
        using var from = new SqliteConnection($"Data Source={database};Pooling=False;Default Timeout=20");
        using var copy = new SqliteConnection($"Data Source={to};Pooling=False");
        from.Open();
        copy.Open();
        from.BackupDatabase(copy);
        using var journal = copy.CreateCommand();
        journal.CommandText = "PRAGMA journal_mode=DELETE;";
        journal.ExecuteNonQuery();
    }

    /// <summary>What SQLite's own check says of a database; empty where nothing is wrong.</summary>
    /// <param name="database">The database.</param>
    /// <param name="most">The most faults that are told.</param>
    public static IReadOnlyList<string> Faults(string database, int most)
    {
        using var connection = new SqliteConnection($"Data Source={database};Pooling=False;Default Timeout=20");
        connection.Open();
        using var integrity = connection.CreateCommand();
        integrity.CommandText = $"PRAGMA integrity_check({most});";
        using var rows = integrity.ExecuteReader();
        var faults = new List<string>();
        while (rows.Read())
        {
            if (rows.GetString(0) is var said && said != "ok")
            {
                faults.Add(said);
            }
        }

        return faults;
    }
}

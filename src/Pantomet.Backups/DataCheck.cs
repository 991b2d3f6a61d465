using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Texts;
using Pantomet.Data;

namespace Pantomet.Backups;

/// <summary>An original that is missing or damaged.</summary>
/// <param name="Name">The picture's name.</param>
/// <param name="Sha256">The hash that its bytes should have.</param>
/// <param name="IsMissing">True where there is no file; false where its bytes are others.</param>
/// <param name="Backups">The backups that hold it whole, as they are called in their folder.</param>
public sealed record BadOriginal(string Name, string Sha256, bool IsMissing, IReadOnlyList<string> Backups);

/// <summary>What a check of a data folder found.</summary>
/// <param name="Database">What is wrong with the database, in SQLite's own words; empty where nothing is.</param>
/// <param name="Originals">How many originals the database names.</param>
/// <param name="BadOriginals">Those of them that are missing or damaged.</param>
/// <param name="Variants">How many files made the database names.</param>
/// <param name="BadVariants">The hashes of those that are missing or damaged; each can be made again.</param>
/// <param name="Unreferenced">How many originals and files made lie there that the database does not name.</param>
/// <param name="UnreferencedBytes">What those weigh.</param>
public sealed record CheckOutcome(
    IReadOnlyList<string> Database,
    int Originals,
    IReadOnlyList<BadOriginal> BadOriginals,
    int Variants,
    IReadOnlyList<string> BadVariants,
    int Unreferenced,
    long UnreferencedBytes
)
{
    /// <summary>True when nothing is missing or damaged. What is not referenced does no harm.</summary>
    public bool IsSound => Database.Count == 0 && BadOriginals.Count == 0 && BadVariants.Count == 0;
}

/// <summary>Holds a data folder against its database, whether a program has it open or not: every stored file is read and hashed.</summary>
public static class DataCheck
{
    private const int MostFaults = 100;

    /// <summary>Checks a data folder. Nothing is changed.</summary>
    /// <param name="data">The data folder.</param>
    /// <param name="backups">A folder of backups in which what is gone is looked for; null for none.</param>
    /// <param name="tells">Told how far it is.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="BackupException">It is no data folder, or cannot be read.</exception>
    public static async Task<CheckOutcome> RunAsync(string data, string? backups, Action<BackupProgress>? tells, CancellationToken cancel)
    {
        var root = Path.GetFullPath(data);
        var database = Path.Combine(root, DataFiles.Database);
        if (!File.Exists(database))
        {
            throw new BackupException(BackupTexts.ThisIsNoDataFolder(root));
        }

        try
        {
            if (Faults(database) is { Count: > 0 } faults)
            {
                return new(faults, 0, [], 0, [], 0, 0);
            }

            await using var db = Backups.Database.At(database);
            var originals = await Backups.Database.OriginalsAsync(db, cancel);
            var variants = (await db.Variants.Select(row => row.ContentHash).Distinct().ToListAsync(cancel)).ToHashSet(
                StringComparer.Ordinal
            );
            var there = DataFiles
                .In(root)
                .Select(path => (Path: path, Hash: DataFiles.HashOf(path)))
                .Where(one => one.Hash is not null)
                .Select(one => (one.Path, Hash: one.Hash!, new FileInfo(Path.Combine(root, one.Path)).Length))
                .ToList();
            var whole = await WholeAsync(root, there, tells, cancel);
            var gone = originals.Keys.Where(hash => !whole.Contains($"{DataFiles.Originals}/{hash}")).ToHashSet(StringComparer.Ordinal);
            var held =
                backups is null ? new Dictionary<string, IReadOnlyList<string>>()
                : BackupFolder.Is(backups) ? new BackupFolder(backups).Holding(gone)
                : throw new BackupException(BackupTexts.ThisIsNoBackup(backups));
            var bad = originals
                .Where(one => gone.Contains(one.Key))
                .Select(one => new BadOriginal(
                    one.Value,
                    one.Key,
                    there.TrueForAll(file => file.Hash != one.Key || !DataFiles.IsOriginal(file.Path)),
                    held.GetValueOrDefault(one.Key) ?? []
                ))
                .OrderBy(one => one.Name, StringComparer.OrdinalIgnoreCase)
                .ToList();
            var unreferenced = there
                .Where(file => !(DataFiles.IsOriginal(file.Path) ? originals.ContainsKey(file.Hash) : variants.Contains(file.Hash)))
                .ToList();
            return new(
                [],
                originals.Count,
                bad,
                variants.Count,
                [.. variants.Where(hash => !whole.Contains($"{DataFiles.Variants}/{hash}")).Order(StringComparer.Ordinal)],
                unreferenced.Count,
                unreferenced.Sum(file => file.Length)
            );
        }
        catch (SqliteException fault)
        {
            return new([fault.Message], 0, [], 0, [], 0, 0);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            throw new BackupException(BackupTexts.TheDataFolderCannotBeRead(root, fault.Message), fault);
        }
    }

    // The database's own check (sqlite.org/pragma.html), and that no row names another that is not there.
    private static List<string> Faults(string database)
    {
        var faults = DatabaseCopy.Faults(database, MostFaults).ToList();
        using var connection = new SqliteConnection($"Data Source={database};Pooling=False;Default Timeout=20");
        connection.Open();
        using var keys = connection.CreateCommand();
        keys.CommandText = "PRAGMA foreign_key_check;";
        using var found = keys.ExecuteReader();
        while (found.Read() && faults.Count < MostFaults)
        {
            faults.Add(BackupTexts.ARowNamesAnotherThatIsNotThere(found.GetString(0), found.GetString(2)));
        }

        return faults;
    }

    private static async Task<HashSet<string>> WholeAsync(
        string root,
        List<(string Path, string Hash, long Length)> there,
        Action<BackupProgress>? tells,
        CancellationToken cancel
    )
    {
        var whole = new HashSet<string>(StringComparer.Ordinal);
        var (files, bytes, of) = (0, 0L, there.Sum(file => file.Length));
        foreach (var (path, hash, length) in there)
        {
            cancel.ThrowIfCancellationRequested();
            try
            {
                await using var content = HashedCopy.Open(Path.Combine(root, path));
                if ((await HashedCopy.CopyAsync(content, Stream.Null, cancel)).Sha256 == hash)
                {
                    whole.Add($"{path.Split('/')[0]}/{hash}");
                }
            }
            catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
            {
                // What cannot be read is not whole.
            }

            (files, bytes) = (files + 1, bytes + length);
            tells?.Invoke(new(files, there.Count, bytes, of));
        }

        return whole;
    }
}

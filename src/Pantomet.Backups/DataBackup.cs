using Microsoft.Data.Sqlite;
using Pantomet.Core.Texts;
using Pantomet.Data;

namespace Pantomet.Backups;

/// <summary>What a backup came to.</summary>
/// <param name="Manifest">What it holds.</param>
/// <param name="Added">How many files were written; all others lay there already.</param>
/// <param name="AddedBytes">What those weigh.</param>
public sealed record BackupOutcome(BackupManifest Manifest, int Added, long AddedBytes);

/// <summary>
/// Backs a data folder up, whether a program has it open or not. The database is copied first, as a whole, by SQLite's own online backup
/// (sqlite.org/backup.html); then the files: those named by their content never change, and what comes later is of a later moment.
/// </summary>
public static class DataBackup
{
    /// <summary>Takes a backup.</summary>
    /// <param name="data">The data folder.</param>
    /// <param name="to">A folder of backups, where it adds what is new; or a file, which holds all of it.</param>
    /// <param name="now">What the moment is called, UTC.</param>
    /// <param name="program">The version of the program.</param>
    /// <param name="tells">Told how far it is.</param>
    /// <param name="cancel">Stops; nothing that counts is left behind.</param>
    /// <exception cref="BackupException">It cannot be taken.</exception>
    public static async Task<BackupOutcome> TakeAsync(
        string data,
        string to,
        DateTime now,
        string program,
        Action<BackupProgress>? tells,
        CancellationToken cancel
    )
    {
        var root = Path.GetFullPath(data);
        if (!File.Exists(Path.Combine(root, DataFiles.Database)))
        {
            throw new BackupException(BackupTexts.ThisIsNoDataFolder(root));
        }

        if (IsInside(Path.GetFullPath(to), root))
        {
            throw new BackupException(BackupTexts.TheBackupWouldLieInTheData(to));
        }

        try
        {
            await using var target = IsFolder(to) ? (IBackupTarget)new BackupFolder(to).Begin() : new ZipTarget(to);
            return await TakeAsync(root, target, now, program, tells, cancel);
        }
        catch (SqliteException fault)
        {
            throw new BackupException(BackupTexts.TheDatabaseCannotBeRead(fault.Message), fault);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            throw new BackupException(BackupTexts.TheBackupCannotBeWritten(to, fault.Message), fault);
        }
    }

    /// <summary>True where a backup goes into a folder: it is one, or is written with a separator at its end.</summary>
    public static bool IsFolder(string to) => Directory.Exists(to) || Path.EndsInDirectorySeparator(to);

    private static bool IsInside(string path, string folder) =>
        (path + Path.DirectorySeparatorChar).StartsWith(folder + Path.DirectorySeparatorChar, StringComparison.Ordinal);

    private static async Task<BackupOutcome> TakeAsync(
        string root,
        IBackupTarget target,
        DateTime now,
        string program,
        Action<BackupProgress>? tells,
        CancellationToken cancel
    )
    {
        var snapshot = Path.Combine(target.Scratch, $"{Guid.NewGuid():n}.db.part");
        try
        {
            DatabaseCopy.Make(Path.Combine(root, DataFiles.Database), snapshot);
            var originals = await OriginalsAsync(snapshot, cancel);
            var paths = DataFiles.In(root).ToList();
            var adding = new Adding(root, target, tells, paths.Count + 1, new FileInfo(snapshot).Length + Weight(root, paths));
            var files = new List<BackupFile>();
            foreach (var path in paths)
            {
                cancel.ThrowIfCancellationRequested();
                if (await adding.AddAsync(path, cancel) is { } file)
                {
                    files.Add(file);
                }
            }

            // Last: a reader that finds it knows that all that it names was there before.
            await using (var database = HashedCopy.Open(snapshot))
            {
                var (bytes, hash) = await target.AddAsync(DataFiles.Database, database, cancel);
                files.Add(new(DataFiles.Database, bytes, hash, now));
                adding.Count(bytes, isNew: true);
            }

            var there = files
                .Where(file => DataFiles.HashOf(file.Path) is not null)
                .Select(file => file.Sha256)
                .ToHashSet(StringComparer.Ordinal);
            var manifest = new BackupManifest(
                BackupManifest.CurrentSchema,
                now,
                program,
                files,
                [.. originals.Where(one => !there.Contains(one.Sha256))]
            );
            await target.FinishAsync(manifest, cancel);
            return new(manifest, adding.Added, adding.AddedBytes);
        }
        finally
        {
            File.Delete(snapshot);
        }
    }

    private static long Weight(string root, List<string> paths) =>
        paths.Sum(path => new FileInfo(Path.Combine(root, path)) is { Exists: true } file ? file.Length : 0);

    private static async Task<IReadOnlyList<LostOriginal>> OriginalsAsync(string database, CancellationToken cancel)
    {
        await using var db = Database.At(database);
        return [.. (await Database.OriginalsAsync(db, cancel)).Select(one => new LostOriginal(one.Key, one.Value))];
    }

    // What is counted while files are added.
    private sealed class Adding(string root, IBackupTarget target, Action<BackupProgress>? tells, int of, long ofBytes)
    {
        private int _files;
        private long _bytes;

        public int Added { get; private set; }

        public long AddedBytes { get; private set; }

        // Null for a file that is gone by now, or whose bytes are no longer those of its name.
        public async Task<BackupFile?> AddAsync(string path, CancellationToken cancel)
        {
            try
            {
                var facts = new FileInfo(Path.Combine(root, path));
                var (bytes, changed) = (facts.Length, facts.LastWriteTimeUtc);
                var expected = DataFiles.HashOf(path);
                var hash =
                    expected ?? (target.Known(path) is { } known && known.Bytes == bytes && known.Changed == changed ? known.Sha256 : null);
                if (hash is not null && target.Holds(hash, bytes))
                {
                    Count(bytes, isNew: false);
                    return new(path, bytes, hash, changed);
                }

                await using var content = HashedCopy.Open(facts.FullName);
                var (written, sha256) = await target.AddAsync(path, content, cancel);
                Count(written, isNew: true);
                return expected is null || expected == sha256 ? new(path, written, sha256, changed) : null;
            }
            catch (Exception fault) when (fault is FileNotFoundException or DirectoryNotFoundException)
            {
                return null;
            }
        }

        public void Count(long bytes, bool isNew)
        {
            (_files, _bytes) = (_files + 1, _bytes + bytes);
            if (isNew)
            {
                (Added, AddedBytes) = (Added + 1, AddedBytes + bytes);
            }

            tells?.Invoke(new(_files, of, _bytes, Math.Max(_bytes, ofBytes)));
        }
    }
}

using Pantomet.Core.Texts;
using Pantomet.Data;

namespace Pantomet.Backups;

/// <summary>What a restore came to.</summary>
/// <param name="Manifest">What the backup holds.</param>
/// <param name="Damaged">Files of it that were missing in the backup or damaged there: they were not restored.</param>
public sealed record RestoreOutcome(BackupManifest Manifest, IReadOnlyList<string> Damaged);

/// <summary>
/// Makes a data folder from a backup. The database comes last, so that a folder that was not wholly restored is no data folder; a restore that
/// was ended goes on where it was.
/// </summary>
public static class DataRestore
{
    // Stands in a folder until all of it is there.
    private const string Marker = "restore.part";

    /// <summary>Restores a backup into an empty folder.</summary>
    /// <param name="from">A folder of backups, or a backup of one file.</param>
    /// <param name="id">Which backup of a folder, by how its name begins; null for the newest.</param>
    /// <param name="data">The data folder; made if missing.</param>
    /// <param name="tells">Told how far it is.</param>
    /// <param name="cancel">Stops; called again it goes on.</param>
    /// <exception cref="BackupException">It cannot be restored.</exception>
    public static async Task<RestoreOutcome> RunAsync(
        string from,
        string? id,
        string data,
        Action<BackupProgress>? tells,
        CancellationToken cancel
    )
    {
        var root = Path.GetFullPath(data);
        using var source = Open(from, id);
        if (source.Manifest.Files.FirstOrDefault(file => !DataFiles.IsIn(file.Path)) is { } strange)
        {
            throw new BackupException(BackupTexts.TheBackupNamesAFileElsewhere(strange.Path));
        }

        var marker = Path.Combine(root, Marker);
        if (Directory.Exists(root) && Directory.EnumerateFileSystemEntries(root).Any() && !File.Exists(marker))
        {
            throw new BackupException(BackupTexts.TheFolderIsNotEmpty(root));
        }

        try
        {
            Directory.CreateDirectory(root);
            await File.WriteAllTextAsync(marker, from, cancel);
            // Nobody starts on it meanwhile.
            using var folder = new DataFolder(root);
            var damaged = await FilesAsync(source, folder, tells, cancel);
            File.Delete(marker);
            return new(source.Manifest, damaged);
        }
        catch (InvalidDataException fault)
        {
            throw new BackupException(fault.Message, fault);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            throw new BackupException(BackupTexts.TheFolderCannotBeRestored(root, fault.Message), fault);
        }
    }

    /// <summary>Puts one original back from a folder of backups, in the place of what lies there.</summary>
    /// <param name="backups">The folder of backups.</param>
    /// <param name="sha256">The original's hash.</param>
    /// <param name="data">The data folder, which the caller has open.</param>
    /// <param name="cancel">Stops; nothing is changed then.</param>
    /// <returns>False when the bytes are damaged in the backup as well.</returns>
    public static async Task<bool> OriginalAsync(string backups, string sha256, string data, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(sha256);
        var path = Path.Combine(Path.GetFullPath(data), DataFiles.Originals, sha256[..2], sha256[2..]);
        var part = Path.Combine(Path.GetFullPath(data), DataFiles.Originals, $"{Guid.NewGuid():n}.part");
        try
        {
            await using (var content = HashedCopy.Open(new BackupFolder(backups).PathOf(sha256)))
            await using (var written = new FileStream(part, FileMode.CreateNew, FileAccess.Write, FileShare.None, 1))
            {
                if ((await HashedCopy.CopyAsync(content, written, cancel)).Sha256 != sha256)
                {
                    return false;
                }

                written.Flush(flushToDisk: true);
            }

            Durable.Move(part, path);
            return true;
        }
        finally
        {
            File.Delete(part);
        }
    }

    private static IBackupSource Open(string from, string? id)
    {
        if (File.Exists(from))
        {
            return new ZipSource(from);
        }

        if (!BackupFolder.Is(from))
        {
            throw new BackupException(BackupTexts.ThisIsNoBackup(from));
        }

        var folder = new BackupFolder(from);
        var entry =
            folder.Entries().FirstOrDefault(entry => id is null || entry.Id.StartsWith(id, StringComparison.OrdinalIgnoreCase))
            ?? throw new BackupException(id is null ? BackupTexts.ThisIsNoBackup(from) : BackupTexts.ThereIsNoBackupOf(id));
        return new FolderSource(folder, entry.Read() ?? throw new BackupException(BackupTexts.TheListOfTheBackupIsDamaged(entry.Path)));
    }

    private static async Task<IReadOnlyList<string>> FilesAsync(
        IBackupSource source,
        DataFolder folder,
        Action<BackupProgress>? tells,
        CancellationToken cancel
    )
    {
        var manifest = source.Manifest;
        var damaged = new List<string>();
        var (files, bytes, of) = (0, 0L, manifest.Bytes);
        foreach (var file in manifest.Files.OrderBy(file => file.Path == DataFiles.Database))
        {
            cancel.ThrowIfCancellationRequested();
            if (!await OneAsync(source, folder, file, cancel))
            {
                if (file.Path == DataFiles.Database)
                {
                    throw new BackupException(BackupTexts.TheDatabaseOfTheBackupIsDamaged);
                }

                damaged.Add(file.Path);
            }

            (files, bytes) = (files + 1, bytes + file.Bytes);
            tells?.Invoke(new(files, manifest.Files.Count, bytes, of));
        }

        return damaged;
    }

    private static async Task<bool> OneAsync(IBackupSource source, DataFolder folder, BackupFile file, CancellationToken cancel)
    {
        var path = Path.Combine(folder.Root, file.Path);
        // An earlier try moved it there whole.
        if (new FileInfo(path) is { Exists: true } there && there.Length == file.Bytes)
        {
            return true;
        }

        try
        {
            await using var content = source.Open(file);
            if (content is null)
            {
                return false;
            }

            var part = folder.Scratch();
            try
            {
                await using (var written = new FileStream(part, FileMode.CreateNew, FileAccess.Write, FileShare.None, 1))
                {
                    var (bytes, hash) = await HashedCopy.CopyAsync(content, written, cancel);
                    if (hash != file.Sha256 || bytes != file.Bytes)
                    {
                        return false;
                    }

                    written.Flush(flushToDisk: true);
                }

                // What is sent and kept of folders is known again by its time.
                File.SetLastWriteTimeUtc(part, file.Changed);
                if (file.Path.StartsWith($"{DataFiles.Keys}/", StringComparison.Ordinal))
                {
                    folder.MakeKeys();
                    if (!OperatingSystem.IsWindows())
                    {
                        File.SetUnixFileMode(part, UnixFileMode.UserRead | UnixFileMode.UserWrite);
                    }
                }

                Durable.Move(part, path);
                return true;
            }
            finally
            {
                File.Delete(part);
            }
        }
        catch (InvalidDataException)
        {
            // The ZIP is damaged at this place.
            return false;
        }
    }
}

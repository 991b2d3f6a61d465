using System.Globalization;
using Pantomet.Core.Texts;
using Pantomet.Data;

namespace Pantomet.Backups;

/// <summary>A backup in a folder of backups.</summary>
/// <param name="Id">Its name there: the moment it was taken at, like 20261201T042200Z.</param>
/// <param name="Path">Where its manifest lies.</param>
public sealed record BackupEntry(string Id, string Path)
{
    /// <summary>Reads what it holds; null when it is damaged.</summary>
    public BackupManifest? Read()
    {
        try
        {
            using var file = File.OpenRead(Path);
            return BackupManifest.Read(file);
        }
        catch (IOException)
        {
            return null;
        }
    }
}

/// <summary>
/// A folder of backups. Bytes lie once under their hash, whatever backup needs them, so that another backup adds only what is new; each backup
/// is a list of what lay where.
/// </summary>
public sealed class BackupFolder
{
    private const string Stamp = "yyyyMMdd'T'HHmmss'Z'";

    private readonly string _lists;

    /// <summary>Opens a folder of backups, made if missing.</summary>
    /// <exception cref="BackupException">It cannot be written to, or holds something else.</exception>
    public BackupFolder(string path)
    {
        Root = Path.GetFullPath(path);
        _lists = Path.Combine(Root, "backups");
        try
        {
            if (!Directory.Exists(_lists) && Directory.Exists(Root) && Directory.EnumerateFileSystemEntries(Root).Any())
            {
                throw new BackupException(BackupTexts.TheFolderHoldsSomethingElse(Root));
            }

            OwnersAlone.CreateFolder(Root);
            Directory.CreateDirectory(_lists);
            OwnersAlone.CreateFolder(Files);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            throw new BackupException(BackupTexts.TheBackupCannotBeWritten(Root, fault.Message), fault);
        }
    }

    /// <summary>Its absolute path.</summary>
    public string Root { get; }

    private string Files => Path.Combine(Root, "files");

    /// <summary>Where the bytes of a hash lie, or would.</summary>
    public string PathOf(string sha256) => Path.Combine(Files, sha256[..2], sha256[2..]);

    /// <summary>True when bytes of this hash and weight lie there.</summary>
    public bool Holds(string sha256, long bytes) => new FileInfo(PathOf(sha256)) is { Exists: true } file && file.Length == bytes;

    /// <summary>Removes all but the newest backups, and the bytes that none of them needs.</summary>
    /// <param name="keep">How many stay, at least one.</param>
    /// <returns>How many backups were removed.</returns>
    /// <exception cref="BackupException">A backup is being written there.</exception>
    public async Task<int> PruneAsync(int keep)
    {
        await using var target = Begin();
        return target.Prune(keep);
    }

    /// <summary>Opens it for writing; only one program at a time does.</summary>
    /// <exception cref="BackupException">Another backup is being written there.</exception>
    internal FolderTarget Begin()
    {
        FileStream held;
        try
        {
            held = new FileStream(Path.Combine(Root, "backup.lock"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
        }
        catch (IOException fault)
        {
            throw new BackupException(BackupTexts.AnotherBackupIsBeingWritten(Root), fault);
        }

        // What an earlier backup left half written is swept by whoever holds the lock, and by nobody else.
        return new(this, new(Files), held);
    }

    /// <summary>True when a path leads to a folder of backups.</summary>
    public static bool Is(string path) => Directory.Exists(Path.Combine(path, "backups")) && Directory.Exists(Path.Combine(path, "files"));

    /// <summary>Its backups, the newest first.</summary>
    public IReadOnlyList<BackupEntry> Entries() =>
        [
            .. Directory
                .EnumerateFiles(_lists, "*.json")
                .Select(path => new BackupEntry(Path.GetFileNameWithoutExtension(path), path))
                .OrderByDescending(entry => entry.Id, StringComparer.Ordinal),
        ];

    /// <summary>The backups that hold some originals, by the hash of each, the newest first; what lies damaged here is not counted.</summary>
    /// <param name="hashes">The SHA-256 of the originals.</param>
    public IReadOnlyDictionary<string, IReadOnlyList<string>> Holding(IReadOnlySet<string> hashes)
    {
        ArgumentNullException.ThrowIfNull(hashes);
        return Entries()
            .SelectMany(entry => (entry.Read()?.Files ?? []).Select(file => (entry.Id, File: file)))
            .Where(one => hashes.Contains(one.File.Sha256) && DataFiles.IsOriginal(one.File.Path) && Holds(one.File.Sha256, one.File.Bytes))
            .GroupBy(one => one.File.Sha256, one => one.Id, StringComparer.Ordinal)
            .ToDictionary(same => same.Key, IReadOnlyList<string> (same) => [.. same], StringComparer.Ordinal);
    }

    /// <summary>Puts down a backup whose bytes are there.</summary>
    public async Task<BackupEntry> AddAsync(BackupManifest manifest, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(manifest);
        var id = manifest.TakenAt.ToString(Stamp, CultureInfo.InvariantCulture);
        var path = Path.Combine(_lists, $"{id}.json");
        for (var n = 2; File.Exists(path); n++)
        {
            path = Path.Combine(_lists, $"{id}-{n}.json");
        }

        var part = path + ".part";
        await File.WriteAllBytesAsync(part, manifest.Write(), cancel);
        Durable.Flush(part);
        Durable.Move(part, path);
        return new(Path.GetFileNameWithoutExtension(path), path);
    }
}

/// <summary>Writes a backup into a folder of backups.</summary>
internal sealed class FolderTarget : IBackupTarget
{
    private readonly BackupFolder _folder;
    private readonly ContentFolder _contents;
    private readonly FileStream _held;
    private readonly Dictionary<string, BackupFile> _known;

    public FolderTarget(BackupFolder folder, ContentFolder contents, FileStream held)
    {
        (_folder, _contents, _held) = (folder, contents, held);
        var last = folder.Entries().Select(entry => entry.Read()).FirstOrDefault(manifest => manifest is not null);
        _known = last?.Files.ToDictionary(file => file.Path, StringComparer.Ordinal) ?? [];
    }

    /// <inheritdoc/>
    public string Scratch => Path.GetDirectoryName(_contents.TemporaryPath())!;

    /// <inheritdoc/>
    public BackupFile? Known(string path) => _known.GetValueOrDefault(path);

    /// <inheritdoc/>
    public bool Holds(string sha256, long bytes) => _folder.Holds(sha256, bytes);

    /// <inheritdoc/>
    public async Task<(long Bytes, string Sha256)> AddAsync(string path, Stream content, CancellationToken cancel)
    {
        using var file = await _contents.ReceiveAsync(content, long.MaxValue, cancel);
        _contents.Keep(file!);
        return (file!.Bytes, file.Hash);
    }

    /// <inheritdoc/>
    public Task FinishAsync(BackupManifest manifest, CancellationToken cancel) => _folder.AddAsync(manifest, cancel);

    /// <summary>Removes all but the newest backups, and the bytes that none of them needs.</summary>
    /// <param name="keep">How many stay, at least one.</param>
    /// <returns>How many backups were removed.</returns>
    public int Prune(int keep)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(keep, 1);
        var entries = _folder.Entries();
        var old = entries.Skip(keep).ToList();
        if (old.Count == 0)
        {
            return 0;
        }

        var needed = new HashSet<string>(StringComparer.Ordinal);
        foreach (var entry in entries.Take(keep))
        {
            // What cannot be read may need anything: nothing is removed then.
            if (entry.Read() is not { } manifest)
            {
                return 0;
            }

            needed.UnionWith(manifest.Files.Select(file => file.Sha256));
        }

        foreach (var entry in old)
        {
            File.Delete(entry.Path);
        }

        foreach (var hash in _contents.Names().Select(one => one.Hash).Where(hash => !needed.Contains(hash)).ToList())
        {
            _contents.Remove(hash);
        }

        return old.Count;
    }

    /// <inheritdoc/>
    public ValueTask DisposeAsync() => _held.DisposeAsync();
}

/// <summary>Reads a backup of a folder of backups.</summary>
internal sealed class FolderSource(BackupFolder folder, BackupManifest manifest) : IBackupSource
{
    /// <inheritdoc/>
    public BackupManifest Manifest => manifest;

    /// <inheritdoc/>
    public Stream? Open(BackupFile file) => File.Exists(folder.PathOf(file.Sha256)) ? HashedCopy.Open(folder.PathOf(file.Sha256)) : null;

    /// <inheritdoc/>
    public void Dispose() { }
}

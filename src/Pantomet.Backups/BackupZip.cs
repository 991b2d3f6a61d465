using System.IO.Compression;
using Pantomet.Core.Texts;
using Pantomet.Data;

namespace Pantomet.Backups;

/// <summary>Writes a backup as one ZIP, with the files of the data folder under their own paths and the list of them last.</summary>
internal sealed class ZipTarget : IBackupTarget
{
    private readonly string _path;
    private readonly string _part;
    private readonly ZipArchive _zip;
    private bool _isFinished;

    public ZipTarget(string path)
    {
        _path = Path.GetFullPath(path);
        _part = $"{_path}.{Guid.NewGuid():n}.part";
        Scratch = Path.GetDirectoryName(_path)!;
        try
        {
            Directory.CreateDirectory(Scratch);
            _zip = new(OwnersAlone.Create(_part), ZipArchiveMode.Create);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            throw new BackupException(BackupTexts.TheBackupCannotBeWritten(_path, fault.Message), fault);
        }
    }

    /// <inheritdoc/>
    public string Scratch { get; }

    /// <inheritdoc/>
    public BackupFile? Known(string path) => null;

    /// <inheritdoc/>
    public bool Holds(string sha256, long bytes) => false;

    /// <inheritdoc/>
    public async Task<(long Bytes, string Sha256)> AddAsync(string path, Stream content, CancellationToken cancel)
    {
        // Pictures are compressed already; the database is not.
        var level = path.EndsWith(".db", StringComparison.Ordinal) ? CompressionLevel.Fastest : CompressionLevel.NoCompression;
        await using var entry = await _zip.CreateEntry(path, level).OpenAsync(cancel);
        return await HashedCopy.CopyAsync(content, entry, cancel);
    }

    /// <inheritdoc/>
    public async Task FinishAsync(BackupManifest manifest, CancellationToken cancel)
    {
        await using (var entry = await _zip.CreateEntry(BackupManifest.FileName, CompressionLevel.Fastest).OpenAsync(cancel))
        {
            await entry.WriteAsync(manifest.Write(), cancel);
        }

        await _zip.DisposeAsync();
        Durable.Flush(_part);
        Durable.Move(_part, _path);
        _isFinished = true;
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        if (_isFinished)
        {
            return;
        }

        try
        {
            await _zip.DisposeAsync();
        }
        catch (IOException)
        {
            // The disk is full; that was told already.
        }

        File.Delete(_part);
    }
}

/// <summary>Reads a backup of one file.</summary>
internal sealed class ZipSource : IBackupSource
{
    private readonly ZipArchive _zip;

    /// <exception cref="BackupException">It is no backup.</exception>
    public ZipSource(string path)
    {
        try
        {
            _zip = ZipFile.OpenRead(path);
            using var list = _zip.GetEntry(BackupManifest.FileName)?.Open();
            Manifest = (list is null ? null : BackupManifest.Read(list)) ?? throw new BackupException(BackupTexts.ThisIsNoBackup(path));
        }
        catch (Exception fault) when (fault is InvalidDataException or IOException or UnauthorizedAccessException)
        {
            throw new BackupException(BackupTexts.ThisIsNoBackup(path), fault);
        }
    }

    /// <inheritdoc/>
    public BackupManifest Manifest { get; }

    /// <inheritdoc/>
    public Stream? Open(BackupFile file) => _zip.GetEntry(file.Path)?.Open();

    /// <inheritdoc/>
    public void Dispose() => _zip.Dispose();
}

namespace Pantomet.Backups;

/// <summary>Where a backup is written to. It counts once it is finished; what was written before is of no use to anybody.</summary>
internal interface IBackupTarget : IAsyncDisposable
{
    /// <summary>A folder on the same disk for what is under way.</summary>
    public string Scratch { get; }

    /// <summary>The file as it stands in the last backup there, so that what did not change is not read again; null where it does not.</summary>
    public BackupFile? Known(string path);

    /// <summary>True when these bytes lie there already.</summary>
    public bool Holds(string sha256, long bytes);

    /// <summary>Writes a file.</summary>
    /// <param name="path">Its path in the data folder.</param>
    /// <param name="content">Its bytes.</param>
    /// <param name="cancel">Stops between two parts.</param>
    public Task<(long Bytes, string Sha256)> AddAsync(string path, Stream content, CancellationToken cancel);

    /// <summary>Makes the backup count.</summary>
    public Task FinishAsync(BackupManifest manifest, CancellationToken cancel);
}

/// <summary>A backup to read from.</summary>
internal interface IBackupSource : IDisposable
{
    /// <summary>What it holds.</summary>
    public BackupManifest Manifest { get; }

    /// <summary>The bytes of a file; null where they are missing.</summary>
    public Stream? Open(BackupFile file);
}

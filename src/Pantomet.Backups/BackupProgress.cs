namespace Pantomet.Backups;

/// <summary>How far a backup, a restore or a check is.</summary>
/// <param name="Files">Files that are done.</param>
/// <param name="Of">Of how many.</param>
/// <param name="Bytes">What those weigh that are done.</param>
/// <param name="OfBytes">What all weigh.</param>
public sealed record BackupProgress(int Files, int Of, long Bytes, long OfBytes);

/// <summary>A backup, a restore or a check that cannot be done; the message is a sentence.</summary>
public sealed class BackupException : Exception
{
    /// <summary>With nothing said.</summary>
    public BackupException() { }

    /// <summary>With a sentence.</summary>
    public BackupException(string message)
        : base(message) { }

    /// <summary>With a sentence, and what it came from.</summary>
    public BackupException(string message, Exception inner)
        : base(message, inner) { }
}

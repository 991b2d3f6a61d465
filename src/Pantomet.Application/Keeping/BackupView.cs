using Pantomet.Backups;

namespace Pantomet.Application.Keeping;

/// <summary>How often backups are made by themselves.</summary>
public enum BackupSchedule
{
    /// <summary>Only when somebody asks.</summary>
    Never,

    /// <summary>Every day.</summary>
    Daily,

    /// <summary>Every week.</summary>
    Weekly,
}

/// <summary>How backups are made by themselves.</summary>
/// <param name="Every">How often.</param>
/// <param name="Kept">How many are kept, 1 to 1000; older ones are removed after another was made.</param>
public sealed record BackupSettings(BackupSchedule Every, int Kept)
{
    /// <summary>The most backups that are kept.</summary>
    public const int MostKept = 1000;

    /// <summary>What holds unless somebody says otherwise.</summary>
    public static readonly BackupSettings Usual = new(BackupSchedule.Never, 7);
}

/// <summary>A backup that lies in the folder of backups.</summary>
/// <param name="Id">Its name there.</param>
/// <param name="TakenAt">Its moment, UTC.</param>
/// <param name="Files">How many files it holds.</param>
/// <param name="Bytes">What those weigh.</param>
/// <param name="Lost">The names of pictures whose original was missing or damaged when it was made.</param>
public sealed record KeptBackup(string Id, DateTime TakenAt, int Files, long Bytes, IReadOnlyList<string> Lost);

/// <summary>The backups of this server.</summary>
/// <param name="Folder">Where they lie.</param>
/// <param name="Settings">How they are made by themselves.</param>
/// <param name="NextAt">When the next one is due, UTC; null where none is.</param>
/// <param name="Progress">How far the one is that is being made; null where none is.</param>
/// <param name="Fault">Why the last one could not be made; null where it could.</param>
/// <param name="Backups">Those that lie there, the newest first.</param>
public sealed record BackupView(
    string Folder,
    BackupSettings Settings,
    DateTime? NextAt,
    BackupProgress? Progress,
    string? Fault,
    IReadOnlyList<KeptBackup> Backups
);

namespace Pantomet.Core.Texts;

/// <summary>The sentences about backups.</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class BackupTexts
{
    public static string ThisIsNoDataFolder(string path) => $"{path} is no data folder: it has no database.";

    public static string TheBackupWouldLieInTheData(string path) => $"{path} is in the data folder. Back up to another place.";

    public static string TheDatabaseCannotBeRead(string message) => $"The database cannot be read: {message}";

    public static string TheBackupCannotBeWritten(string path, string message) => $"{path}: the backup cannot be written: {message}";

    public static string TheFolderHoldsSomethingElse(string path) =>
        $"{path} holds something else. Back up to an empty folder, or to one with backups.";

    public static string AnotherBackupIsBeingWritten(string path) => $"{path}: another backup is being written there.";

    public static string ThisIsNoBackup(string path) => $"{path} is no backup.";

    public static string ThereIsNoBackupOf(string id) => $"There is no backup whose name begins with {id}.";

    public static string TheListOfTheBackupIsDamaged(string path) => $"{path}: the list of the backup is damaged.";

    public static string TheBackupNamesAFileElsewhere(string path) =>
        $"The backup names a file that no data folder has: {path}. Nothing was restored.";

    public static string TheFolderIsNotEmpty(string path) => $"{path} is not empty. Restore into an empty folder.";

    public static string TheFolderCannotBeRestored(string path, string message) => $"{path} cannot be restored: {message}";

    public static string TheDataFolderCannotBeRead(string path, string message) => $"{path} cannot be read: {message}";

    public const string TheDatabaseOfTheBackupIsDamaged = "The database of the backup is damaged. Restore another backup.";

    public static string ARowNamesAnotherThatIsNotThere(string table, string other) =>
        $"A row of {table} names one of {other} that is not there.";

    public static string KeepFromOneTo(int most) => $"kept: Keep from 1 to {most} backups.";

    public const string WhereTheServersBackupsGo = "The folder of the server's own backups; beside the data folder if it is not given.";

    public static string WhatAnExportHolds(string job, IReadOnlyList<string> turned) =>
        $"""
            {job}

            originals/       the pictures as they arrived
            rules.json       the slots of the job
            marks.json       what was said about each picture: names, texts, keep boxes, focus, frames by hand
            decisions.json   all that was decided, by file name
            report.json      every file with its weight, its likeness and its verdict; report.csv is the same as a table

            The same files are made again by: pantomet render --rules rules.json --marks marks.json --out DIR originals/*
            Cells that were skipped are made as well, and slots of pictures side by side take the pictures in their order.

            """
        + (
            turned.Count == 0
                ? ""
                : $"These pictures were turned, so that their boxes and frames stand in decisions.json alone: {string.Join(", ", turned)}\n"
        );

    // The command line.

    public const string BacksUpADataFolder = "Backs up a data folder, while Pantomet runs on it or not.";

    public const string WhereTheBackupGoes = "A file, which holds all; or a folder, where only what is new is added.";

    public const string RestoresABackup = "Makes a data folder from a backup.";

    public const string TheBackup = "The backup: a file, or a folder of backups.";

    public const string WhichBackupOfAFolder = "Which backup of a folder, by how its name begins; the newest if it is not given.";

    public const string AnEmptyFolder = "The data folder: empty, or made.";

    public const string ChecksADataFolder = "Holds every stored file of a data folder against its hash and its row.";

    public const string MakesWhatIsDamagedAgain =
        "Makes missing and damaged files again, and takes originals from the backups of --backups.";

    public const string WhereBackupsLie = "A folder of backups in which originals that are gone are looked for.";

    public static string BackedUp(int files, string bytes, int added, string addedBytes) =>
        $"{files} files, {bytes}; {added} of them, {addedBytes}, were new.";

    public static string LostOriginal(string name) => $"{name}: the original is missing or damaged, and is not in the backup.";

    public static string Restored(int files, string bytes, string taken) => $"{files} files, {bytes}, as they were on {taken}.";

    public static string NotRestored(string path) => $"{path}: damaged in the backup, and not restored.";

    public static string DatabaseFault(string fault) => $"The database is damaged: {fault}";

    public static string OriginalIsMissing(string name) => $"{name}: the original is missing.";

    public static string OriginalIsDamaged(string name) => $"{name}: the original is damaged.";

    public static string BackupsHaveIt(string backups) => $"It is in the backups {backups}.";

    public const string NoBackupHasIt = "No backup has it.";

    public static string Checked(int originals, int variants) => $"{originals} originals and {variants} files made were checked.";

    public static string FilesToMakeAgain(int count) =>
        count == 1
            ? "1 file made is missing or damaged. It can be made again: --repair."
            : $"{count} files made are missing or damaged. They can be made again: --repair.";

    public static string FilesMadeAgain(int made, int of) => $"{made} of {of} missing or damaged files were made again.";

    public static string OriginalTakenFrom(string name, string backup) => $"{name}: the original was taken from the backup {backup}.";

    public static string Unreferenced(int files, string bytes) =>
        files == 1
            ? $"1 file, {bytes}, is not referenced; Pantomet removes it by itself."
            : $"{files} files, {bytes}, are not referenced; Pantomet removes them by itself.";

    public const string NothingIsDamaged = "Nothing is missing or damaged.";

    public const string StopPantometToRepair =
        "Pantomet runs on this data folder. It makes damaged files again by itself; stop it to repair them all now.";
}

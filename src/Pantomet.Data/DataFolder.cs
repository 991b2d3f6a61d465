using System.Xml;
using System.Xml.Linq;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Texts;

namespace Pantomet.Data;

/// <summary>
/// The folder that holds everything Pantomet keeps: the database, the originals, the variants, the previews. One program at a time has it.
/// </summary>
public sealed class DataFolder : IDisposable
{
    // What the system says when another program has the lock: EWOULDBLOCK, or a sharing violation.
    private const int WouldBlock = 11;
    private const int SharingViolation = unchecked((int)0x80070020);

    /// <summary>The name of the folder of logos and fonts that rules name.</summary>
    public const string SideFilesName = "side-files";

    private const string DatabaseName = "pantomet.db";

    private readonly FileStream _lock;

    /// <summary>Opens a data folder, made if missing.</summary>
    /// <exception cref="InvalidDataException">
    /// Another program has it open, or it cannot be written to; the message is a sentence.
    /// </exception>
    public DataFolder(string root)
    {
        Root = Path.GetFullPath(root);
        try
        {
            Directory.CreateDirectory(Root);
            // Before anything is touched: what looks left behind may be another program's work.
            _lock = Locked(Path.Combine(Root, "pantomet.lock"));
            Originals = new(Path.Combine(Root, "originals"));
            Variants = new(Path.Combine(Root, "variants"));
            SideFiles = Path.Combine(Root, SideFilesName);
            Directory.CreateDirectory(SideFiles);
            Pages = Path.Combine(Root, "pages");
            Directory.CreateDirectory(Pages);
            PictureFolders = Path.Combine(Root, "folders");
            Directory.CreateDirectory(PictureFolders);
            Keys = Path.Combine(Root, "keys");
            Previews = Path.Combine(Root, "previews");
            Directory.CreateDirectory(Previews);
            foreach (var left in Directory.EnumerateFiles(Previews, "*.part"))
            {
                File.Delete(left);
            }
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            _lock?.Dispose();
            throw new InvalidDataException(PictureTexts.TheDataFolderCannotBeWritten(Root, fault.Message), fault);
        }
    }

    /// <summary>Absolute path.</summary>
    public string Root { get; }

    /// <summary>The originals, never changed.</summary>
    public ContentFolder Originals { get; }

    /// <summary>The files made.</summary>
    public ContentFolder Variants { get; }

    /// <summary>Folder of the logos and fonts that rules name, each under the name of its content.</summary>
    public string SideFiles { get; }

    /// <summary>Folder of pages that were checked, a folder each.</summary>
    public string Pages { get; }

    /// <summary>The folder of the lists and originals of folders that are optimised.</summary>
    public string PictureFolders { get; }

    /// <summary>Folder of the keys that seal what is secret of receivers; without it those have to be entered anew.</summary>
    public string Keys { get; }

    /// <summary>Folder of previews; it can be emptied at any time.</summary>
    public string Previews { get; }

    /// <summary>Makes the folder of keys, if it is missing; nobody else can read it.</summary>
    public DirectoryInfo MakeKeys() =>
        OperatingSystem.IsWindows()
            ? Directory.CreateDirectory(Keys)
            : Directory.CreateDirectory(Keys, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);

    /// <summary>Removes half files that nobody has written to for so long.</summary>
    /// <param name="age">For how long.</param>
    public void SweepHalfFiles(TimeSpan age)
    {
        var before = DateTime.UtcNow - age;
        foreach (
            var left in Originals
                .HalfFiles()
                .Concat(Variants.HalfFiles())
                .Concat(Directory.EnumerateFiles(Previews, "*.part"))
                .Where(path => File.GetLastWriteTimeUtc(path) < before)
                .ToList()
        )
        {
            File.Delete(left);
        }
    }

    /// <summary>A free path for a file under way; what is left there when the program ends is removed at the next start.</summary>
    public string Scratch() => Variants.TemporaryPath();

    /// <summary>
    /// The connection to the database. A database that another program holds is waited for a few seconds, no longer: whoever asked is told,
    /// and what is made in the
    /// background waits by itself.
    /// </summary>
    public string ConnectionString => $"Data Source={Path.Combine(Root, DatabaseName)};Default Timeout=4";

    /// <summary>Brings the database up to date and switches to write-ahead logging, so that readers never wait for a writer.</summary>
    /// <exception cref="InvalidDataException">
    /// The database was written by a later version, or cannot be read or written; the message is a sentence.
    /// </exception>
    public async Task PrepareAsync(PantometDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        MustNotBeLost();
        KeysMustBeWhole();
        try
        {
            await BringUpAsync(db, cancel);
        }
        catch (SqliteException fault)
        {
            throw new InvalidDataException(
                fault.SqliteErrorCode switch
                {
                    Full => PictureTexts.TheDiskOfTheDataFolder(Root),
                    ReadOnly or CannotOpen or Perm => PictureTexts.TheDatabaseInTheDataFolder(Root),
                    NoDatabase or Corrupt => PictureTexts.TheDatabaseIsDamagedAndWas(Path.Combine(Root, DatabaseName)),
                    Busy => PictureTexts.AnotherProgramUsesTheDatabaseIn(Root),
                    _ => PictureTexts.TheDatabaseInTheDataFolder2(Root, fault.Message),
                },
                fault
            );
        }
    }

    // A folder full of originals without what is known of them is no new folder: starting on it would sweep away what can still be found again.
    private void MustNotBeLost()
    {
        var path = Path.Combine(Root, DatabaseName);
        if (new FileInfo(path) is { Exists: true, Length: > 0 } || !Originals.Names().Any())
        {
            return;
        }

        throw new InvalidDataException(
            PictureTexts.TheDatabaseIsButTheFolder(
                path,
                (File.Exists(path) ? "empty" : "missing"),
                DatabaseName,
                Path.Combine(Root, "originals")
            )
        );
    }

    // A key that cannot be read seals nothing and opens nothing; which one it is can be told before anybody needs it.
    private void KeysMustBeWhole()
    {
        if (!Directory.Exists(Keys))
        {
            return;
        }

        foreach (var path in Directory.EnumerateFiles(Keys, "*.xml"))
        {
            try
            {
                XDocument.Load(path);
            }
            catch (Exception fault) when (fault is XmlException or IOException or UnauthorizedAccessException)
            {
                throw new InvalidDataException(PictureTexts.TheKeyFileIsDamagedOr(path), fault);
            }
        }
    }

    // Result codes of SQLite (sqlite.org/rescode.html).
    private const int Perm = 3;
    private const int Busy = 5;
    private const int ReadOnly = 8;
    private const int Corrupt = 11;
    private const int Full = 13;
    private const int CannotOpen = 14;
    private const int NoDatabase = 26;

    private async Task BringUpAsync(PantometDb db, CancellationToken cancel)
    {
        var known = db.Database.GetMigrations().ToHashSet(StringComparer.Ordinal);
        var applied = (await db.Database.GetAppliedMigrationsAsync(cancel)).ToList();
        var steps = MigrationSteps.All.Select(step => step.Name).ToHashSet(StringComparer.Ordinal);
        if (applied.Find(one => !known.Contains(one) && !steps.Contains(one)) is { } later)
        {
            throw new InvalidDataException(PictureTexts.TheDataFolderWasWrittenBy(later));
        }

        if (applied.Count > 0 && !known.IsSubsetOf(applied))
        {
            await TryUpgradeAsync(applied[^1], cancel);
        }

        await UpgradeAsync(db, cancel);
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL;", cancel);
    }

    private static async Task UpgradeAsync(PantometDb db, CancellationToken cancel)
    {
        await MigrationSteps.CompleteAsync(db, cancel);
        await db.Database.MigrateAsync(cancel);
    }

    // What is new is tried on a copy, and the database as it was stays beside: an upgrade that fails, or that somebody wants to undo, loses nothing.
    private async Task TryUpgradeAsync(string last, CancellationToken cancel)
    {
        var (database, trial) = (Path.Combine(Root, DatabaseName), Path.Combine(Root, DatabaseName + ".trial"));
        var former = Path.Combine(Root, $"{DatabaseName}.before-{last}");
        try
        {
            File.Delete(trial);
            DatabaseCopy.Make(database, trial);
            File.Copy(trial, former + ".part", overwrite: true);
            await using (
                var copy = new PantometDb(new DbContextOptionsBuilder<PantometDb>().UseSqlite($"Data Source={trial};Pooling=False").Options)
            )
            {
                await UpgradeAsync(copy, cancel);
            }

            if (DatabaseCopy.Faults(trial, 1) is [var fault, ..])
            {
                throw new InvalidDataException(PictureTexts.TheUpgradeWasTriedAndFailed(Root, fault));
            }

            Durable.Flush(former + ".part");
            Durable.Move(former + ".part", former);
        }
        catch (SqliteException fault) when (fault.SqliteErrorCode is not (Full or ReadOnly or CannotOpen or Perm or NoDatabase or Corrupt))
        {
            throw new InvalidDataException(PictureTexts.TheUpgradeWasTriedAndFailed(Root, fault.Message), fault);
        }
        finally
        {
            File.Delete(former + ".part");
            File.Delete(trial);
        }
    }

    /// <summary>Lets the folder go.</summary>
    public void Dispose() => _lock.Dispose();

    private static FileStream Locked(string path)
    {
        try
        {
            return new FileStream(path, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
        }
        catch (IOException fault) when (fault.HResult is WouldBlock or SharingViolation)
        {
            throw new InvalidDataException(PictureTexts.TheDataFolderIsOpenIn(Path.GetDirectoryName(path)));
        }
    }
}

using Microsoft.EntityFrameworkCore;

namespace Pantomet.Data;

/// <summary>The folder that holds everything Pantomet keeps: the database, the originals, the variants, the previews.</summary>
public sealed class DataFolder
{
    /// <summary>Opens a data folder, made if missing.</summary>
    public DataFolder(string root)
    {
        Root = Path.GetFullPath(root);
        Directory.CreateDirectory(Root);
        Originals = new(Path.Combine(Root, "originals"));
        Variants = new(Path.Combine(Root, "variants"));
        Previews = Path.Combine(Root, "previews");
        Directory.CreateDirectory(Previews);
    }

    /// <summary>Absolute path.</summary>
    public string Root { get; }

    /// <summary>The originals, never changed.</summary>
    public ContentFolder Originals { get; }

    /// <summary>The files made.</summary>
    public ContentFolder Variants { get; }

    /// <summary>Folder of previews; it can be emptied at any time.</summary>
    public string Previews { get; }

    /// <summary>A free path for a file under way; what is left there when the program ends is removed at the next start.</summary>
    public string Scratch() => Variants.TemporaryPath();

    /// <summary>The connection to the database.</summary>
    public string ConnectionString => $"Data Source={Path.Combine(Root, "pantomet.db")}";

    /// <summary>Brings the database up to date and switches to write-ahead logging, so that readers never wait for a writer.</summary>
    public static async Task PrepareAsync(PantometDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        await db.Database.MigrateAsync(cancel);
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL;", cancel);
    }
}

using Pantomet.Data;

namespace Pantomet.Backups;

/// <summary>Which files of a data folder a backup holds.</summary>
internal static class DataFiles
{
    /// <summary>The folders, as they are called in the data folder. What can be made again at any time, the previews, is not among them.</summary>
    public static readonly IReadOnlyList<string> Folders = [Originals, Variants, DataFolder.SideFilesName, "pages", "folders", Keys];

    /// <summary>The originals, under their hashes.</summary>
    public const string Originals = "originals";

    /// <summary>The files made, under their hashes.</summary>
    public const string Variants = "variants";

    /// <summary>The keys that seal secrets: nobody else can read them.</summary>
    public const string Keys = "keys";

    /// <summary>The database.</summary>
    public const string Database = "pantomet.db";

    private const string Incoming = "incoming";

    /// <summary>The files of a data folder but for its database, by their paths with slashes. Links are passed over, and what is under way.</summary>
    /// <param name="root">The data folder.</param>
    public static IEnumerable<string> In(string root)
    {
        var all = new EnumerationOptions
        {
            RecurseSubdirectories = true,
            AttributesToSkip = FileAttributes.ReparsePoint,
            IgnoreInaccessible = false,
        };
        return Folders
            .Select(name => Path.Combine(root, name))
            .Where(Directory.Exists)
            .SelectMany(folder => Directory.EnumerateFiles(folder, "*", all))
            .Select(path => Path.GetRelativePath(root, path).Replace(Path.DirectorySeparatorChar, '/'))
            .Where(path => !IsUnderWay(path))
            .Order(StringComparer.Ordinal);
    }

    /// <summary>The hash that a file has by its name; null for files that are not named by their content.</summary>
    public static string? HashOf(string path) =>
        path.Split('/') is [Originals or Variants, { Length: 2 } first, { Length: 62 } rest] ? first + rest : null;

    /// <summary>True for the path of an original.</summary>
    public static bool IsOriginal(string path) => path.StartsWith($"{Originals}/", StringComparison.Ordinal);

    /// <summary>True for a path that a data folder can have: inside of it, and in a folder that is backed up.</summary>
    public static bool IsIn(string path) =>
        path == Database
        || (
            path.Split('/') is [var top, .., _] parts
            && Folders.Contains(top)
            && parts.All(part => part is not ("" or "." or "..") && part.IndexOfAny(['\\', ':', '\0']) < 0)
        );

    private static bool IsUnderWay(string path) =>
        path.EndsWith(".part", StringComparison.Ordinal)
        || path.StartsWith($"{Originals}/{Incoming}/", StringComparison.Ordinal)
        || path.StartsWith($"{Variants}/{Incoming}/", StringComparison.Ordinal);
}

namespace Pantomet.Platform;

/// <summary>What paths lead to.</summary>
public static class RealPath
{
    // As many as the system itself follows (path_resolution(7)).
    private const int MostLinks = 40;

    /// <summary>The path with every link on it followed, as it is now.</summary>
    /// <param name="path">A whole path.</param>
    public static string Of(string path) => Of(path, 0);

    /// <summary>True for a path that is a folder, or lies in it. Both are whole paths.</summary>
    public static bool IsInside(string path, string folder)
    {
        ArgumentNullException.ThrowIfNull(path);
        ArgumentNullException.ThrowIfNull(folder);
        return path == folder || path.StartsWith(folder.TrimEnd('/') + '/', StringComparison.Ordinal);
    }

    private static string Of(string path, int links)
    {
        if (Path.GetDirectoryName(path) is not { } parent)
        {
            return path;
        }

        var here = Path.Combine(Of(parent, links), Path.GetFileName(path));
        FileSystemInfo entry = Directory.Exists(here) ? new DirectoryInfo(here) : new FileInfo(here);
        // What is not there yet is no link.
        return links < MostLinks && entry.LinkTarget is not null && entry.ResolveLinkTarget(returnFinalTarget: false) is { } target
            ? Of(target.FullName, links + 1)
            : here;
    }
}

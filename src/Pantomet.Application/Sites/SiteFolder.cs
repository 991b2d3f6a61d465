namespace Pantomet.Application.Sites;

/// <summary>A built site as it lies in its folder: what is in it, and what an address on one of its pages leads to.</summary>
internal sealed class SiteFolder(string root)
{
    private static readonly EnumerationOptions All = new()
    {
        RecurseSubdirectories = true,
        AttributesToSkip = FileAttributes.ReparsePoint,
        IgnoreInaccessible = false,
    };

    public string Root { get; } = Path.GetFullPath(root);

    /// <summary>Paths of all files from the root, in order. Links to other places are not followed.</summary>
    public IReadOnlyList<string> Files() =>
        [.. Directory.EnumerateFiles(Root, "*", All).Select(path => Path.GetRelativePath(Root, path)).Order(StringComparer.Ordinal)];

    public string At(string path) => Path.Combine(Root, path);

    public static bool IsPage(string path) => Path.GetExtension(path).ToLowerInvariant() is ".html" or ".htm";

    /// <summary>The file that an address on a page leads to, as a path from the root; or a sentence why there is none.</summary>
    /// <param name="page">The page's path from the root.</param>
    /// <param name="address">As it stands in <c>src</c>.</param>
    /// <param name="path">The path.</param>
    public string? Resolve(string page, string address, out string path)
    {
        path = "";
        if (address.Length == 0)
        {
            return "the image has no src";
        }

        var cut = address.IndexOfAny(['?', '#']);
        var plain = cut < 0 ? address : address[..cut];
        if (plain.Contains(':', StringComparison.Ordinal) || plain.StartsWith("//", StringComparison.Ordinal))
        {
            return $"\"{Short(address)}\" is not a file of the site";
        }

        try
        {
            var local = Uri.UnescapeDataString(plain).Replace('\\', '/');
            var from = local.StartsWith('/') ? Root : Path.GetDirectoryName(At(page))!;
            var full = Path.GetFullPath(Path.Combine(from, local.TrimStart('/')));
            if (!IsInside(full, Root))
            {
                return $"\"{Short(address)}\" leads out of the site's folder";
            }

            if (!File.Exists(full))
            {
                return $"\"{Short(address)}\" is missing";
            }

            if (!IsInside(Real(full), Real(Root)))
            {
                return $"\"{Short(address)}\" is a link that leads out of the site's folder";
            }

            path = Path.GetRelativePath(Root, full);
            return null;
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException or ArgumentException)
        {
            return $"\"{Short(address)}\" cannot be read";
        }
    }

    public static bool IsInside(string path, string folder) =>
        path == folder || path.StartsWith(folder.TrimEnd('/') + '/', StringComparison.Ordinal);

    /// <summary>The path with every link on it followed.</summary>
    public static string Real(string path)
    {
        var parent = Path.GetDirectoryName(path);
        if (parent is null)
        {
            return path;
        }

        var here = Path.Combine(Real(parent), Path.GetFileName(path));
        FileSystemInfo entry = Directory.Exists(here) ? new DirectoryInfo(here) : new FileInfo(here);
        return entry.ResolveLinkTarget(returnFinalTarget: true)?.FullName ?? here;
    }

    private static string Short(string address) => address.Length <= 80 ? address : address[..77] + "...";
}

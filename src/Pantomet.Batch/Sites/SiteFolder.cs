using Pantomet.Core.Texts;
using Pantomet.Platform;

namespace Pantomet.Batch.Sites;

/// <summary>A built site as it lies in its folder: what is in it, and what an address on one of its pages leads to.</summary>
/// <param name="root">Its folder, held from the first look at it: a link that takes its place later leads nowhere.</param>
public sealed class SiteFolder(string root) : IDisposable
{
    private readonly Lazy<FolderHandle> _folder = new(() => FolderHandle.OpenNamed(root));

    /// <summary>The folder, as a full path.</summary>
    public string Root { get; } = Path.GetFullPath(root);

    /// <summary>Paths of all files from the root, in order. Links to other places are not followed.</summary>
    public IReadOnlyList<string> Files() => [.. _folder.Value.Files().Order(StringComparer.Ordinal)];

    /// <summary>Opens a file of it.</summary>
    /// <param name="path">From the root. A link that stays within the site is followed.</param>
    /// <exception cref="IOException">It is not there, leads out, is no regular file, or may not be read.</exception>
    public RegularFile Open(string path)
    {
        var real = RealPath.Of(Path.Combine(Root, path));
        return _folder.Value.OpenFile(Path.GetRelativePath(RealPath.Of(Root), real));
    }

    /// <summary>Lets the folder go.</summary>
    public void Dispose()
    {
        if (_folder.IsValueCreated)
        {
            _folder.Value.Dispose();
        }
    }

    /// <summary>True for the path of an HTML page.</summary>
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
            return PageTexts.TheImageHasNoSrc;
        }

        var cut = address.IndexOfAny(['?', '#']);
        var plain = cut < 0 ? address : address[..cut];
        if (plain.Contains(':', StringComparison.Ordinal) || plain.StartsWith("//", StringComparison.Ordinal))
        {
            return PageTexts.IsNotAFileOfThe(Short(address));
        }

        try
        {
            var local = Uri.UnescapeDataString(plain).Replace('\\', '/');
            var from = local.StartsWith('/') ? Root : Path.GetDirectoryName(Path.Combine(Root, page))!;
            var full = Path.GetFullPath(Path.Combine(from, local.TrimStart('/')));
            if (!RealPath.IsInside(full, Root))
            {
                return PageTexts.IsOutsideOfTheSitesFolder(Short(address));
            }

            if (!File.Exists(full))
            {
                return PageTexts.IsMissing(Short(address));
            }

            if (!RealPath.IsInside(RealPath.Of(full), RealPath.Of(Root)))
            {
                return PageTexts.IsALinkThatLeadsOut(Short(address));
            }

            path = Path.GetRelativePath(Root, full);
            return null;
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException or ArgumentException)
        {
            return PageTexts.CannotBeRead2(Short(address));
        }
    }

    private static string Short(string address) => address.Length <= 80 ? address : address[..77] + "...";
}

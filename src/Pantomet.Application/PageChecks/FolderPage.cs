using Pantomet.Application.Sites;

namespace Pantomet.Application.PageChecks;

/// <summary>A page in a folder. Links that lead out of it are not followed.</summary>
internal sealed class FolderPage : OwnFiles
{
    private readonly SiteFolder _folder;

    private FolderPage(SiteFolder folder, string start)
        : base(start) => _folder = folder;

    /// <summary>The page of a folder.</summary>
    public static FolderPage Of(string folder)
    {
        var site = new SiteFolder(folder);
        return new(site, StartOf(site.Files()));
    }

    /// <summary>One page, with what lies in its folder.</summary>
    public static FolderPage OfFile(string page) => new(new(Path.GetDirectoryName(Path.GetFullPath(page))!), Path.GetFileName(page));

    protected override (long Length, Func<CancellationToken, Task<byte[]>>? Read) Find(string path)
    {
        var wanted = path.Length == 0 || path.EndsWith('/') ? path + "index.html" : path;
        if (_folder.Resolve("index.html", "/" + Uri.EscapeDataString(wanted), out var found) is not null)
        {
            return default;
        }

        var full = _folder.At(found);
        return (new FileInfo(full).Length, cancel => File.ReadAllBytesAsync(full, cancel));
    }
}

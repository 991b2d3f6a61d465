using Pantomet.Batch.Sites;

namespace Pantomet.PageChecks;

/// <summary>A page in a folder. Links that lead out of it are not followed.</summary>
internal sealed class FolderPage : OwnFiles, IDisposable
{
    private readonly SiteFolder _folder;

    private FolderPage(SiteFolder folder, string start)
        : base(start) => _folder = folder;

    /// <summary>The page of a folder.</summary>
    public static FolderPage Of(string folder)
    {
        var site = new SiteFolder(folder);
        try
        {
            return new(site, StartOf(site.Files()));
        }
        catch
        {
            site.Dispose();
            throw;
        }
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

        using var file = _folder.Open(found);
        return (file.Facts.Bytes, cancel => ReadAsync(found, cancel));
    }

    public void Dispose() => _folder.Dispose();

    private async Task<byte[]> ReadAsync(string path, CancellationToken cancel)
    {
        using var file = _folder.Open(path);
        // It may have grown since it was looked at.
        return await Task.Run(() => file.ReadAll(Largest), cancel);
    }
}

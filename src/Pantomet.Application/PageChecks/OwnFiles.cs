using System.Globalization;
using MimeKit;
using Pantomet.Application.Sites;
using Pantomet.Browsing;

namespace Pantomet.Application.PageChecks;

/// <summary>A page that lies in files: it and all that lies with it stand under an address of their own, and nothing else does.</summary>
internal abstract class OwnFiles : IPageFiles
{
    /// <summary>The largest file that a page gets.</summary>
    public const long Largest = 96_000_000;

    // A name that no network has (RFC 6761, 6.2).
    private const string Host = "http://page.test/";

    protected OwnFiles(string start) => Start = new(Host + string.Join('/', start.Split('/').Select(Uri.EscapeDataString)));

    public Uri Start { get; }

    public string Own => Host;

    public async Task<PageAnswer> GetAsync(Uri address, CancellationToken cancel)
    {
        if (!address.AbsoluteUri.StartsWith(Host, StringComparison.Ordinal))
        {
            return OtherHosts.NotAllowed(address);
        }

        var path = Uri.UnescapeDataString(address.AbsolutePath).TrimStart('/');
        try
        {
            return await ReadAsync(path, cancel);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return PageAnswer.None(403, $"\"{Short(path)}\" cannot be read: {fault.Message}");
        }
    }

    private async Task<PageAnswer> ReadAsync(string path, CancellationToken cancel)
    {
        var (length, read) = Find(path);
        return read is null ? PageAnswer.None(404, $"\"{Short(path)}\" is not there.")
            : length > Largest
                ? PageAnswer.None(
                    413,
                    $"\"{Short(path)}\" is larger than {(Largest / 1_000_000).ToString(CultureInfo.InvariantCulture)} MB, which no page needs."
                )
            : PageAnswer.Of(TypeOf(path), await read(cancel));
    }

    /// <summary>The page among the files of a folder: its index, else the only page there is.</summary>
    /// <exception cref="PageFaultException">There is none, or there are several.</exception>
    protected static string StartOf(IEnumerable<string> paths)
    {
        var pages = paths
            .Where(SiteFolder.IsPage)
            .OrderBy(path => path.Count(sign => sign == '/'))
            .ThenBy(path => path, StringComparer.Ordinal)
            .ToList();
        var index = pages.Find(path => Path.GetFileNameWithoutExtension(path).Equals("index", StringComparison.OrdinalIgnoreCase));
        return index
            ?? (
                pages.Count switch
                {
                    1 => pages[0],
                    0 => throw new PageFaultException("There is no page in it: no file that ends with .html."),
                    _ => throw new PageFaultException(
                        $"It holds {pages.Count} pages and none is called index.html. Name one of them, such as {pages[0]}."
                    ),
                }
            );
    }

    /// <summary>A file's length and how it is read; nothing to read where there is none.</summary>
    protected abstract (long Length, Func<CancellationToken, Task<byte[]>>? Read) Find(string path);

    private static string TypeOf(string path) => MimeTypes.GetMimeType(path.Length == 0 || path.EndsWith('/') ? "index.html" : path);

    private static string Short(string path) => path.Length <= 80 ? path : path[..77] + "...";
}

using System.Globalization;
using MimeKit;
using Pantomet.Application.Sites;
using Pantomet.Browsing;

namespace Pantomet.Application.PageChecks;

/// <summary>A page that lies in files: it and all that lies with it stand under an address of their own, and nothing else does.</summary>
internal abstract class OwnFiles : IPageFiles
{
    /// <summary>The largest file that a page gets.</summary>
    public const long Largest = 64_000_000;

    /// <summary>The most bytes that all files of a page together may have.</summary>
    public const long MostBytes = 600_000_000;

    // A name that no network has (RFC 6761, 6.2).
    private const string Host = "http://page.test/";

    protected OwnFiles(string start) => Start = new(Host + string.Join('/', start.Split('/').Select(Uri.EscapeDataString)));

    public Uri Start { get; }

    public string Own => Host;

    // What was read once counts once, however often it is read.
    private readonly Dictionary<string, long> _read = new(StringComparer.Ordinal);
    private long _bytes;

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
        catch (Exception fault) when (fault is IOException or InvalidDataException or UnauthorizedAccessException)
        {
            return PageAnswer.None(403, $"\"{Short(path)}\" cannot be read: {fault.Message}");
        }
    }

    private async Task<PageAnswer> ReadAsync(string path, CancellationToken cancel)
    {
        var (length, read) = Find(path);
        if (read is null)
        {
            return PageAnswer.None(404, $"\"{Short(path)}\" is not there.");
        }

        if (length > Largest)
        {
            return PageAnswer.None(413, $"\"{Short(path)}\" is larger than {Megabytes(Largest)} MB, which no page needs.");
        }

        if (!Take(path, length))
        {
            return PageAnswer.None(
                413,
                $"\"{Short(path)}\" was not read: the files of this page together are larger than {Megabytes(MostBytes)} MB."
            );
        }

        return PageAnswer.Of(TypeOf(path), await read(cancel));
    }

    private bool Take(string path, long length)
    {
        lock (_read)
        {
            if (_read.TryAdd(path, length))
            {
                _bytes += length;
            }

            return _bytes <= MostBytes;
        }
    }

    private static string Megabytes(long bytes) => (bytes / 1_000_000).ToString(CultureInfo.InvariantCulture);

    /// <summary>The page among the files of a folder: its index, else the only page there is.</summary>
    /// <exception cref="PageFaultException">There is none, or there are several.</exception>
    protected static string StartOf(IEnumerable<string> paths)
    {
        var pages = paths
            .Where(SiteFolder.IsPage)
            .OrderBy(path => path.Count(character => character == '/'))
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

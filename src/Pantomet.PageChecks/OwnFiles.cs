using System.Globalization;
using MimeKit;
using Pantomet.Batch.Sites;
using Pantomet.Browsing;
using Pantomet.Core.Texts;

namespace Pantomet.PageChecks;

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
            return PageAnswer.None(403, PageTexts.CannotBeRead(Short(path), fault.Message));
        }
    }

    private async Task<PageAnswer> ReadAsync(string path, CancellationToken cancel)
    {
        var (length, read) = Find(path);
        if (read is null)
        {
            return PageAnswer.None(404, PageTexts.IsNotThere(Short(path)));
        }

        if (length > Largest)
        {
            return PageAnswer.None(413, PageTexts.IsLargerThanMB(Short(path), Megabytes(Largest)));
        }

        if (!Take(path, length))
        {
            return PageAnswer.None(413, PageTexts.WasNotReadTheFilesOf(Short(path), Megabytes(MostBytes)));
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
                    0 => throw new PageFaultException(PageTexts.NoPageWasFoundNoFile),
                    _ => throw new PageFaultException(PageTexts.ThereArePagesAndNoneIs(pages.Count, pages[0])),
                }
            );
    }

    /// <summary>A file's length and how it is read; nothing to read where there is none.</summary>
    protected abstract (long Length, Func<CancellationToken, Task<byte[]>>? Read) Find(string path);

    private static string TypeOf(string path) => MimeTypes.GetMimeType(path.Length == 0 || path.EndsWith('/') ? "index.html" : path);

    private static string Short(string path) => path.Length <= 80 ? path : path[..77] + "...";
}

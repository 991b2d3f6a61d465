using System.Globalization;
using System.Text;
using MimeKit;
using Pantomet.Application.Sites;
using Pantomet.Browsing;

namespace Pantomet.Application.PageChecks;

/// <summary>A page that cannot be opened; the message says why.</summary>
/// <param name="message">A sentence.</param>
public sealed class PageFaultException(string message) : Exception(message);

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

/// <summary>A page in a zip, read without unpacking it.</summary>
internal sealed class ZipPage : OwnFiles, IDisposable
{
    private readonly System.IO.Compression.ZipArchive _zip;
    private readonly Dictionary<string, System.IO.Compression.ZipArchiveEntry> _entries;
    private readonly SemaphoreSlim _one = new(1);
    private readonly string _root;

    private ZipPage(
        System.IO.Compression.ZipArchive zip,
        Dictionary<string, System.IO.Compression.ZipArchiveEntry> entries,
        string root,
        string start
    )
        : base(start) => (_zip, _entries, _root) = (zip, entries, root);

    /// <summary>Opens one.</summary>
    /// <exception cref="PageFaultException">It is damaged, or there is no page in it.</exception>
    public static ZipPage Of(string path)
    {
        System.IO.Compression.ZipArchive? zip = null;
        try
        {
            zip = System.IO.Compression.ZipFile.OpenRead(path);
            var entries = zip
                .Entries.Where(entry => !entry.FullName.EndsWith('/'))
                .DistinctBy(entry => entry.FullName)
                .ToDictionary(entry => entry.FullName.Replace('\\', '/'), StringComparer.Ordinal);
            var start = StartOf(entries.Keys);
            // What the page calls its root is the folder that it lies in.
            var root = start.Contains('/', StringComparison.Ordinal) ? start[..(start.LastIndexOf('/') + 1)] : "";
            return new(zip, entries, root, start[root.Length..]);
        }
        catch (InvalidDataException)
        {
            zip?.Dispose();
            throw new PageFaultException("The zip is damaged and cannot be read.");
        }
        catch (PageFaultException)
        {
            zip?.Dispose();
            throw;
        }
    }

    public void Dispose()
    {
        _zip.Dispose();
        _one.Dispose();
    }

    protected override (long Length, Func<CancellationToken, Task<byte[]>>? Read) Find(string path)
    {
        var wanted = path.Length == 0 || path.EndsWith('/') ? path + "index.html" : path;
        return _entries.TryGetValue(_root + wanted, out var entry) ? (entry.Length, cancel => ReadAsync(entry, cancel)) : default;
    }

    // An archive is read one entry after the other. What it says of a length may be a lie: no more than that is taken.
    private async Task<byte[]> ReadAsync(System.IO.Compression.ZipArchiveEntry entry, CancellationToken cancel)
    {
        await _one.WaitAsync(cancel);
        try
        {
            await using var stream = await entry.OpenAsync(cancel);
            var content = new byte[entry.Length];
            var read = await stream.ReadAtLeastAsync(content, content.Length, throwOnEndOfStream: false, cancel);
            return content[..read];
        }
        catch (InvalidDataException)
        {
            return [];
        }
        finally
        {
            _one.Release();
        }
    }
}

/// <summary>A page saved with all its files in one (MIME HTML, RFC 2557).</summary>
internal sealed class SavedPage : IPageFiles
{
    private const string Inner = "http://page.test/cid/";

    private readonly Dictionary<string, PageAnswer> _parts = new(StringComparer.Ordinal);

    private SavedPage(Uri start) => Start = start;

    public Uri Start { get; }

    public string Own => Start.GetLeftPart(UriPartial.Authority) + "/";

    /// <summary>Reads one.</summary>
    /// <exception cref="PageFaultException">It holds no page.</exception>
    public static async Task<SavedPage> ReadAsync(string path, CancellationToken cancel)
    {
        List<MimePart> parts;
        try
        {
            await using var stream = File.OpenRead(path);
            parts = [.. (await MimeMessage.LoadAsync(stream, cancel)).BodyParts.OfType<MimePart>()];
        }
        catch (FormatException)
        {
            parts = [];
        }

        var first =
            parts.Find(part => part.ContentType.IsMimeType("text", "html") && part.Content is not null)
            ?? throw new PageFaultException("There is no page in it: no part of it is HTML.");
        var page = new SavedPage(
            first.ContentLocation is { IsAbsoluteUri: true, Scheme: "http" or "https" } at ? at : new Uri("http://page.test/")
        );
        foreach (var part in parts.Where(part => part.Content is not null))
        {
            page.Add(part, part == first);
        }

        return page;
    }

    public Task<PageAnswer> GetAsync(Uri address, CancellationToken cancel) =>
        Task.FromResult(
            _parts.TryGetValue(address.AbsoluteUri, out var part) ? part
            : address.AbsoluteUri.StartsWith(Own, StringComparison.Ordinal) ? PageAnswer.None(404, "It was not saved with the page.")
            : OtherHosts.NotAllowed(address)
        );

    private void Add(MimePart part, bool isStart)
    {
        using var content = new MemoryStream();
        part.Content!.DecodeTo(content);
        var body = content.ToArray();
        // What parts call each other by is no address that a browser asks for.
        if (part.ContentType.IsMimeType("text", "*"))
        {
            body = Encoding.Latin1.GetBytes(Encoding.Latin1.GetString(body).Replace("cid:", Inner, StringComparison.Ordinal));
        }

        var charset = part.ContentType.Charset is { Length: > 0 } named ? $"; charset={named}" : "";
        var answer = PageAnswer.Of(part.ContentType.MimeType + charset, body);
        if (isStart)
        {
            _parts.TryAdd(Start.AbsoluteUri, answer);
        }

        if (part.ContentLocation is { } location && Uri.TryCreate(Start, location, out var at))
        {
            _parts.TryAdd(at.AbsoluteUri, answer);
        }

        if (part.ContentId is { Length: > 0 } id)
        {
            _parts.TryAdd(new Uri(Inner + id).AbsoluteUri, answer);
        }
    }
}

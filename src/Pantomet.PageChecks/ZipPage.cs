using System.IO.Compression;
using Pantomet.Core.Texts;

namespace Pantomet.PageChecks;

/// <summary>A page in a zip, read without unpacking it.</summary>
internal sealed class ZipPage : OwnFiles, IDisposable
{
    // Text that repeats itself is packed to a hundredth; what is packed much more tightly is made to grow.
    private const int MostRatio = 250;
    private const int SmallEnough = 1_000_000;
    private const int MostEntries = 20_000;

    private readonly ZipArchive _zip;
    private readonly Dictionary<string, ZipArchiveEntry> _entries;
    private readonly SemaphoreSlim _one = new(1);
    private readonly string _root;

    private ZipPage(ZipArchive zip, Dictionary<string, ZipArchiveEntry> entries, string root, string start)
        : base(start) => (_zip, _entries, _root) = (zip, entries, root);

    /// <summary>Opens one.</summary>
    /// <exception cref="PageFaultException">It is damaged, or there is no page in it.</exception>
    public static ZipPage Of(string path)
    {
        ZipArchive? zip = null;
        try
        {
            zip = ZipFile.OpenRead(path);
            if (zip.Entries.Count > MostEntries)
            {
                throw new PageFaultException(PageTexts.TheZIPHasMoreThanFiles(MostEntries));
            }

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
            throw new PageFaultException(PageTexts.TheZIPIsDamagedAndCannot);
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

    // An archive is read one entry after the other. What it says of a length may be a lie: what comes is counted while it comes.
    private async Task<byte[]> ReadAsync(ZipArchiveEntry entry, CancellationToken cancel)
    {
        await _one.WaitAsync(cancel);
        try
        {
            await using var stream = await entry.OpenAsync(cancel);
            using var content = new MemoryStream();
            var part = new byte[81_920];
            int read;
            while ((read = await stream.ReadAsync(part, cancel)) > 0)
            {
                content.Write(part, 0, read);
                if (content.Length > entry.Length || content.Length > Largest)
                {
                    throw new InvalidDataException(PageTexts.TheFileIsLongerThanThe);
                }

                if (content.Length > SmallEnough && content.Length / MostRatio > entry.CompressedLength)
                {
                    throw new InvalidDataException(PageTexts.TheFileIsCompressedMoreThan);
                }
            }

            return content.ToArray();
        }
        finally
        {
            _one.Release();
        }
    }
}

using System.Text;
using MimeKit;
using Pantomet.Browsing;
using Pantomet.Core.Texts;
using Pantomet.Platform;

namespace Pantomet.PageChecks;

/// <summary>A page saved with all its files in one (MIME HTML, RFC 2557).</summary>
internal sealed class SavedPage : IPageFiles
{
    private const long Largest = 200_000_000;
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
            using var file = RegularFile.Open(path);
            if (file.Facts.Bytes > Largest)
            {
                throw new PageFaultException(PageTexts.TheSavedPageIsLargerThan(Largest / 1_000_000));
            }

            await using var stream = file.Read();
            parts = [.. (await MimeMessage.LoadAsync(stream, cancel)).BodyParts.OfType<MimePart>()];
        }
        catch (FormatException)
        {
            parts = [];
        }

        var first =
            parts.Find(part => part.ContentType.IsMimeType("text", "html") && part.Content is not null)
            ?? throw new PageFaultException(PageTexts.NoPageWasFoundNoPart);
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
            : address.AbsoluteUri.StartsWith(Own, StringComparison.Ordinal) ? PageAnswer.None(404, PageTexts.ThisFileWasNotSavedWith)
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

using MimeKit;
using Pantomet.Browsing;
using Pantomet.Core.Texts;
using Pantomet.Platform;

namespace Pantomet.PageChecks.Rewriting;

/// <summary>A page's files with some of them mended, and a folder of new ones beside the page.</summary>
/// <param name="source">The page as it was.</param>
/// <param name="pictures">The whole address of the folder of new files.</param>
/// <param name="folder">Where they lie.</param>
internal sealed class MendedFiles(IPageFiles source, Uri pictures, string folder) : IPageFiles
{
    /// <summary>What was mended, by whole address.</summary>
    public Dictionary<string, PageAnswer> Mended { get; } = new(StringComparer.Ordinal);

    public Uri Start => source.Start;

    public string Own => source.Own;

    public async Task<PageAnswer> GetAsync(Uri address, CancellationToken cancel)
    {
        if (Mended.TryGetValue(address.AbsoluteUri, out var mended))
        {
            return mended;
        }

        if (!address.AbsoluteUri.StartsWith(pictures.AbsoluteUri, StringComparison.Ordinal))
        {
            return await source.GetAsync(address, cancel);
        }

        var path = Path.GetFullPath(Path.Combine(folder, Uri.UnescapeDataString(address.AbsoluteUri[pictures.AbsoluteUri.Length..])));
        return RealPath.IsInside(path, folder) && File.Exists(path)
            ? PageAnswer.Of(MimeTypes.GetMimeType(path), await File.ReadAllBytesAsync(path, cancel))
            : PageAnswer.None(404, PageTexts.TheFileWasNotMade);
    }
}

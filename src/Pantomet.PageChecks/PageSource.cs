using System.Net;
using Pantomet.Application.Background;
using Pantomet.Batch.Sites;
using Pantomet.Browsing;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Texts;
using Pantomet.Platform;

namespace Pantomet.PageChecks;

/// <summary>A page as it was given - a folder, a zip, a page saved with its files, one HTML file, an address - with the hosts it may read.</summary>
internal sealed class PageSource : IPageFiles, IDisposable
{
    private readonly IPageFiles? _own;
    private readonly OtherHosts _hosts;

    private PageSource(IPageFiles? own, Uri start, string beginning, OtherHosts hosts) =>
        (_own, Start, Own, _hosts) = (own, start, beginning, hosts);

    public Uri Start { get; }

    public string Own { get; }

    /// <summary>Opens one.</summary>
    /// <param name="page">A path or an address.</param>
    /// <param name="allowed">Other hosts that may be read.</param>
    /// <param name="privateHosts">The hosts that may be private; null for those that were named so.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="PageFaultException">There is no page.</exception>
    public static async Task<PageSource> OpenAsync(
        string page,
        IReadOnlyList<string> allowed,
        IReadOnlyList<string>? privateHosts,
        CancellationToken cancel
    )
    {
        List<AllowedHost> named = [.. PrivateHosts.Hosts(allowed)];
        if (AddressOf(page) is { } address)
        {
            return new(
                null,
                address,
                address.GetLeftPart(UriPartial.Authority) + "/",
                new([AllowedHost.Of(address), .. named], ReachOf(privateHosts, [AllowedHost.Of(address), .. named.Where(IsNamedPrivate)]))
            );
        }

        var own = await OwnAsync(page, cancel);
        return new(own, own.Start, own.Own, new(named, ReachOf(privateHosts, [.. named.Where(IsNamedPrivate)])));
    }

    private static PrivateHosts ReachOf(IReadOnlyList<string>? privateHosts, IReadOnlyList<AllowedHost> named) =>
        PrivateHosts.Only(privateHosts is null ? named : PrivateHosts.Hosts(privateHosts));

    // Who names this machine, or a private address, knows what it is; a name that only leads to one may have been made to.
    private static bool IsNamedPrivate(AllowedHost host) =>
        host.Name == "localhost" || (IPAddress.TryParse(host.Name.Trim('[', ']'), out var address) && PrivateAddress.Is(address));

    /// <summary>The address that a text is; null where it is a path.</summary>
    public static Uri? AddressOf(string text) =>
        Uri.TryCreate(text, UriKind.Absolute, out var address) && address.Scheme is "http" or "https"
            ? new(address.AbsoluteUri.Split('#')[0])
            : null;

    public Task<PageAnswer> GetAsync(Uri address, CancellationToken cancel) =>
        _own is null || _hosts.Allows(address) ? _hosts.GetAsync(address, cancel) : _own.GetAsync(address, cancel);

    public void Dispose()
    {
        (_own as IDisposable)?.Dispose();
        _hosts.Dispose();
    }

    private static async Task<IPageFiles> OwnAsync(string path, CancellationToken cancel)
    {
        try
        {
            return Directory.Exists(path) ? FolderPage.Of(path)
                : !File.Exists(path) ? throw new PageFaultException(PageTexts.ThisFileFolderOrAddressDoes)
                : await IsZipAsync(path, cancel) ? ZipPage.Of(path)
                : Path.GetExtension(path).ToLowerInvariant() is ".mhtml" or ".mht" ? await SavedPage.ReadAsync(path, cancel)
                : SiteFolder.IsPage(path) ? FolderPage.OfFile(path)
                : throw new PageFaultException(PageTexts.ThisIsNotAPageGive);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            throw new PageFaultException(PageTexts.ThePageCannotBeRead(fault.Message));
        }
    }

    private static async Task<bool> IsZipAsync(string path, CancellationToken cancel)
    {
        using var opened = RegularFile.Open(path);
        await using var file = opened.Read();
        var head = new byte[4];
        return await file.ReadAtLeastAsync(head, 4, throwOnEndOfStream: false, cancel) == 4 && head.AsSpan().SequenceEqual("PK\x03\x04"u8);
    }
}

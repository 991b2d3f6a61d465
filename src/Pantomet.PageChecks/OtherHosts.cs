using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using Pantomet.Application.Background;
using Pantomet.Browsing;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Texts;

namespace Pantomet.PageChecks;

/// <summary>Files of hosts that the user named, by scheme, name and port, and of no other.</summary>
internal sealed class OtherHosts : IDisposable
{
    private const long Most = 1_000_000_000;

    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(20);

    private readonly IReadOnlyList<AllowedHost> _allowed;
    private readonly HttpClient _client;
    private readonly ConcurrentDictionary<string, Lazy<Task<PageAnswer>>> _answers = new(StringComparer.Ordinal);
    private long _bytes;

    /// <param name="allowed">The hosts.</param>
    /// <param name="privateHosts">Those of them that may be private.</param>
    public OtherHosts(IReadOnlyList<AllowedHost> allowed, PrivateHosts privateHosts)
    {
        _allowed = allowed;
        var handler = new HostReach(privateHosts).Handler(Longest);
        handler.AutomaticDecompression = DecompressionMethods.All;
        _client = new(handler) { Timeout = Longest };
        // What a browser of today sends, so that a server that gives lighter types to those who take them does.
        _client.DefaultRequestHeaders.Add("Accept", "text/html,application/xhtml+xml,image/avif,image/webp,*/*;q=0.8");
        _client.DefaultRequestHeaders.Add("User-Agent", "Mozilla/5.0 (compatible; Pantomet)");
    }

    /// <summary>What is said of an address that may not be read.</summary>
    public static PageAnswer NotAllowed(Uri address) => PageAnswer.None(0, PageTexts.TheFileIsAtWhichIs(address.Authority));

    /// <summary>True for an address at a host that may be read.</summary>
    public bool Allows(Uri address) => _allowed.Any(host => host.Allows(address));

    /// <summary>Gets a file, once for as long as this object lives: who asked first may go, and others still get it.</summary>
    public Task<PageAnswer> GetAsync(Uri address, CancellationToken cancel) =>
        Allows(address)
            ? _answers.GetOrAdd(address.AbsoluteUri, _ => new(() => FetchAsync(address))).Value.WaitAsync(cancel)
            : Task.FromResult(NotAllowed(address));

    public void Dispose() => _client.Dispose();

    private async Task<PageAnswer> FetchAsync(Uri address)
    {
        try
        {
            using var limit = new CancellationTokenSource(Longest);
            using var answer = await _client.GetAsync(address, HttpCompletionOption.ResponseHeadersRead, limit.Token);
            if ((int)answer.StatusCode is >= 300 and < 400 && answer.Headers.Location is { } moved)
            {
                return new((int)answer.StatusCode, null, [], new(address, moved), null);
            }

            var body = await HostReach.ReadAsync(
                answer.Content,
                OwnFiles.Largest,
                read => Interlocked.Add(ref _bytes, read) <= Most,
                limit.Token
            );
            var type = answer.Content.Headers.ContentType?.ToString();
            return body is null ? PageAnswer.None(413, PageTexts.TheFileOrTheWholePage)
                : answer.IsSuccessStatusCode ? PageAnswer.Of(type, body)
                : new(
                    (int)answer.StatusCode,
                    type,
                    body,
                    null,
                    PageTexts.Answered(address.Authority, ((int)answer.StatusCode).ToString(CultureInfo.InvariantCulture))
                );
        }
        catch (OperationCanceledException)
        {
            return PageAnswer.None(0, PageTexts.DidNotAnswerWithinS(address.Authority, Longest.TotalSeconds));
        }
        catch (HttpRequestException fault)
        {
            return PageAnswer.None(0, PageTexts.CannotBeReached(address.Authority, fault.InnerException?.Message ?? fault.Message));
        }
        catch (IOException fault)
        {
            return PageAnswer.None(0, PageTexts.ClosedTheConnection(address.Authority, fault.Message));
        }
    }
}

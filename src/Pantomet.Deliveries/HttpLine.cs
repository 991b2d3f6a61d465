using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Text;
using Pantomet.Application;
using Pantomet.Application.Background;
using Pantomet.Core.Deliveries;
using Pantomet.Core.Texts;

namespace Pantomet.Deliveries;

/// <summary>What was fetched of an address; either bytes or a sentence why there are none.</summary>
public sealed record Fetched(byte[]? Bytes, string? MediaType, string? Trouble)
{
    /// <summary>True where the address answers that nothing is shown there.</summary>
    public bool IsNothing { get; init; }
}

/// <summary>A receiver over HTTP: files are put under addresses of their own, or sent in forms.</summary>
public sealed class HttpLine : IReceiverLine
{
    private const int MostFetched = 64_000_000;
    private const int MostMoves = 3;

    // What is slower is given up; that it answers has a time of its own.
    private const double LeastBytesPerSecond = 30_000;

    private static readonly TimeSpan LongestWait = TimeSpan.FromMinutes(1);

    private readonly ReceiverRule _rule;
    private readonly Uri _address;
    private readonly AuthenticationHeaderValue? _credentials;
    private readonly TimeSpan _longest;
    private readonly HttpClient _client;

    /// <summary>A line to a receiver with a web address.</summary>
    public HttpLine(ReceiverRule rule, string? secret, WorkOptions options)
    {
        (_rule, _address, _longest) = (rule, new(rule.Address), options.LongestAnswer);
        // RFC 7617 and RFC 6750.
        _credentials = (rule.User, secret) switch
        {
            ({ } user, _) => new("Basic", Convert.ToBase64String(Encoding.UTF8.GetBytes($"{user}:{secret}"))),
            (null, { } token) => new("Bearer", token),
            _ => null,
        };
        _client = new(new HostReach(PrivateHosts.Of(options)).Handler(options.LongestAnswer)) { Timeout = Timeout.InfiniteTimeSpan };
        _client.DefaultRequestHeaders.UserAgent.ParseAdd("Pantomet");
    }

    /// <inheritdoc/>
    public async Task<Handed> HandAsync(Outgoing file, CancellationToken cancel)
    {
        using var limit = Limit(file.Bytes.Length, cancel);
        try
        {
            using var request = Request(file);
            using var answer = await _client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, limit.Token);
            var body = await TextAsync(answer.Content, limit.Token);
            var read = ReceiverAnswer.Read(
                (int)answer.StatusCode,
                answer.Content.Headers.ContentType?.MediaType,
                body,
                answer.Headers.Location?.ToString()
            );
            var (shown, says) = read.Meaning == AnswerMeaning.Accepted ? ShownAt(request.RequestUri!, answer, body) : ([], false);
            return new(read.Meaning, read.Said)
            {
                ShownAt = shown,
                SaysWhere = says,
                After =
                    answer.Headers.RetryAfter?.Delta is { } after && after > LongestWait ? LongestWait : answer.Headers.RetryAfter?.Delta,
            };
        }
        catch (Exception fault) when (TroubleOf(fault, cancel) is var (meaning, sentence))
        {
            return new(meaning, [sentence]);
        }
    }

    /// <inheritdoc/>
    public async Task<ReceiverTrial> TryAsync(CancellationToken cancel)
    {
        using var limit = Limit(0, cancel);
        try
        {
            using var request = new HttpRequestMessage(HttpMethod.Head, _address);
            request.Headers.Authorization = _credentials;
            using var answer = await _client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, limit.Token);
            return answer.StatusCode is HttpStatusCode.Unauthorized or HttpStatusCode.ProxyAuthenticationRequired
                ? new(false, ReceiverTexts.TheReceiverAnswersButTheUser)
                : new(true, ReceiverTexts.TheReceiverAnswersWhetherItAccepts);
        }
        catch (Exception fault) when (TroubleOf(fault, cancel) is var (_, sentence))
        {
            return new(false, sentence);
        }
    }

    /// <summary>Fetches what the receiver shows at an address of its own host.</summary>
    public async Task<Fetched> FetchAsync(Uri address, CancellationToken cancel)
    {
        using var limit = Limit(0, cancel);
        try
        {
            for (var moves = 0; ; moves++)
            {
                // Scheme, name and port: what is sent along is for that very place.
                if (Origin(address) != Origin(_address))
                {
                    return new(null, null, ReceiverTexts.TheReceiverShowsTheFileAt(address.Authority));
                }

                using var request = new HttpRequestMessage(HttpMethod.Get, address);
                request.Headers.Authorization = _credentials;
                using var answer = await _client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, limit.Token);
                var status = (int)answer.StatusCode;
                if (status is >= 300 and < 400 && answer.Headers.Location is { } moved && moves < MostMoves)
                {
                    address = new(address, moved);
                    continue;
                }

                if (!answer.IsSuccessStatusCode)
                {
                    return new(null, null, ReceiverTexts.TheAddressWhereTheFileIs(status.ToString(CultureInfo.InvariantCulture)))
                    {
                        IsNothing = true,
                    };
                }

                var said = answer.Content.Headers.ContentLength;
                return said > MostFetched ? new(null, null, ReceiverTexts.TheFileThatIsShownWeighs(said / 1_000_000))
                    : await BytesAsync(answer.Content, MostFetched, limit.Token) is { } bytes
                        ? new(bytes, answer.Content.Headers.ContentType?.MediaType, null)
                    : new(null, null, ReceiverTexts.TheFileThatIsShownDoes(MostFetched / 1_000_000));
            }
        }
        catch (Exception fault) when (TroubleOf(fault, cancel) is var (_, sentence))
        {
            return new(null, null, sentence);
        }
    }

    /// <inheritdoc/>
    public ValueTask DisposeAsync()
    {
        _client.Dispose();
        return ValueTask.CompletedTask;
    }

    private static string Origin(Uri address) => address.GetLeftPart(UriPartial.Authority).ToLowerInvariant();

    private HttpRequestMessage Request(Outgoing file)
    {
        var content = new ByteArrayContent(file.Bytes);
        content.Headers.ContentType = new(file.MediaType);
        HttpRequestMessage request;
        if (_rule.Way == ReceiverWay.Put)
        {
            var path = string.Join('/', file.Path.Split('/').Select(Uri.EscapeDataString));
            request = new(HttpMethod.Put, new Uri($"{_rule.Address.TrimEnd('/')}/{path}")) { Content = content };
        }
        else
        {
            // Names are slugs: nothing in them wants quoting, whatever the receiver reads.
            content.Headers.ContentDisposition = new("form-data") { Name = $"\"{_rule.Field}\"", FileName = $"\"{file.Name}\"" };
            request = new(HttpMethod.Post, _address) { Content = new MultipartFormDataContent { content } };
        }

        request.Headers.Authorization = _credentials;
        return request;
    }

    private (IReadOnlyList<Uri> At, bool Says) ShownAt(Uri asked, HttpResponseMessage answer, string body)
    {
        if (_rule.ShownAt is { Length: > 0 } pointer)
        {
            return (
                [.. ReceiverAnswer.Shown(body, pointer).Select(text => Uri.TryCreate(asked, text, out var at) ? at : null).OfType<Uri>()],
                true
            );
        }

        if (answer.Headers.Location is { } location)
        {
            return ([new(asked, location)], true);
        }

        return _rule.Way == ReceiverWay.Put ? ([asked], false) : ([], false);
    }

    private CancellationTokenSource Limit(int bytes, CancellationToken cancel)
    {
        var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(_longest + TimeSpan.FromSeconds(bytes / LeastBytesPerSecond));
        return limit;
    }

    /// <summary>What a fault of a connection means; null where it is none, or whoever asked went away.</summary>
    internal static (AnswerMeaning Meaning, string Sentence)? TroubleOf(Exception fault, CancellationToken cancel) =>
        cancel.IsCancellationRequested ? null
        : fault is OperationCanceledException ? (AnswerMeaning.Later, ReceiverTexts.TheReceiverDidNotAnswerIn)
        : fault is HttpRequestException { HttpRequestError: HttpRequestError.SecureConnectionError } secure
            ? (AnswerMeaning.Closed, ReceiverTexts.NoSecureConnectionCouldBeMade(Inner(secure)))
        : fault is HttpRequestException { HttpRequestError: HttpRequestError.NameResolutionError }
            ? (AnswerMeaning.Later, ReceiverTexts.ThereIsNoHostWithThis)
        : fault is HttpRequestException { HttpRequestError: HttpRequestError.ResponseEnded } or HttpIOException
            ? (AnswerMeaning.Later, ReceiverTexts.TheReceiverClosedTheConnectionBefore)
        : fault is HttpRequestException { HttpRequestError: HttpRequestError.InvalidResponse }
            ? (AnswerMeaning.Later, ReceiverTexts.TheAnswerIsNotHTTP)
        : fault is HttpRequestException or IOException
            ? Inner(fault) == HostReach.IsPrivate ? (AnswerMeaning.Closed, HostReach.IsPrivate)
                : (AnswerMeaning.Later, ReceiverTexts.TheReceiverCannotBeReached(Inner(fault)))
        : null;

    private static string Inner(Exception fault) => fault.InnerException is { } inner ? Inner(inner) : fault.Message;

    private static async Task<string> TextAsync(HttpContent content, CancellationToken cancel) =>
        await BytesAsync(content, ReceiverAnswer.MostRead, cancel) is { } bytes ? Encoding.UTF8.GetString(bytes) : "";

    private static Task<byte[]?> BytesAsync(HttpContent content, int most, CancellationToken cancel) =>
        HostReach.ReadAsync(content, most, _ => true, cancel);
}

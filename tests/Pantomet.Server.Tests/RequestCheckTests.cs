using System.Net;
using System.Text;

namespace Pantomet.Server.Tests;

/// <summary>Who comes in, with what, and with how much.</summary>
public sealed class RequestCheckTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    [Theory]
    [InlineData("/api/pictures?name=a.jpg", "text/plain")]
    [InlineData("/api/destinations/import", "text/plain")]
    [InlineData("/api/destinations/website/copy", null)]
    [InlineData("/api/jobs", "application/json")]
    public async Task A_page_elsewhere_cannot_write(string address, string? type)
    {
        foreach (
            var (origin, site) in new[]
            {
                ("https://elsewhere.example", "cross-site"),
                ("null", null),
                (null, "cross-site"),
                (null, "same-origin"),
            }
        )
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, address);
            request.Content = type is null ? null : new StringContent("{}", Encoding.UTF8, type);
            if (origin is not null)
            {
                request.Headers.TryAddWithoutValidation("Origin", origin);
            }

            if (site is not null)
            {
                request.Headers.TryAddWithoutValidation("Sec-Fetch-Site", site);
            }

            using var answer = await server.Client.SendAsync(request);
            Assert.Equal(HttpStatusCode.Forbidden, answer.StatusCode);
        }
    }

    [Fact]
    public async Task The_own_page_and_a_program_can_write()
    {
        using var own = new HttpRequestMessage(HttpMethod.Post, "/api/jobs")
        {
            Content = new StringContent("{}", Encoding.UTF8, "application/json"),
        };
        own.Headers.TryAddWithoutValidation("Origin", server.Client.BaseAddress!.GetLeftPart(UriPartial.Authority));
        own.Headers.TryAddWithoutValidation("Sec-Fetch-Site", "same-origin");
        Assert.Equal(HttpStatusCode.OK, (await server.Client.SendAsync(own)).StatusCode);
        using var program = new StringContent("{}", Encoding.UTF8, "application/json");
        Assert.Equal(HttpStatusCode.OK, (await server.Client.PostAsync(new Uri("/api/jobs", UriKind.Relative), program)).StatusCode);
    }

    [Theory]
    [InlineData("elsewhere.example")]
    [InlineData("127.0.0.1.elsewhere.example")]
    public async Task Another_name_for_this_machine_is_not_answered(string host)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/jobs");
        request.Headers.Host = host;
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Client.SendAsync(request)).StatusCode);
    }

    [Fact]
    public async Task An_empty_host_is_not_answered()
    {
        var uri = server.Client.BaseAddress!;
        using var socket = new System.Net.Sockets.TcpClient();
        await socket.ConnectAsync(uri.Host, uri.Port);
        var stream = socket.GetStream();
        await stream.WriteAsync("GET /api/jobs HTTP/1.1\r\nHost:\r\nConnection: close\r\n\r\n"u8.ToArray());
        using var reader = new StreamReader(stream);
        Assert.StartsWith("HTTP/1.1 400", await reader.ReadToEndAsync(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("/api/destinations/import")]
    [InlineData("/api/jobs")]
    public async Task A_body_has_its_limit_whether_its_length_is_told_or_not(string address)
    {
        var bytes = Encoding.UTF8.GetBytes($$"""{ "name": "{{new string('a', 3_000_000)}}" }""");
        foreach (var chunked in new[] { false, true })
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, address) { Content = new ByteArrayContent(bytes) };
            request.Content.Headers.ContentType = new("application/json");
            request.Headers.TransferEncodingChunked = chunked;
            HttpStatusCode? status = null;
            try
            {
                using var answer = await server.Client.SendAsync(request);
                status = answer.StatusCode;
            }
            catch (HttpRequestException)
            {
                // The server closed before all was sent.
            }

            Assert.True(status is null or HttpStatusCode.RequestEntityTooLarge, $"{status}");
        }
    }

    [Fact]
    public async Task What_comes_from_elsewhere_is_sent_so_that_nothing_in_it_runs()
    {
        var id = await server.PictureAsync("weatherworks-mark.svg");
        using var original = await server.Client.GetAsync(new Uri($"/api/pictures/{id}/original", UriKind.Relative));
        Assert.Contains("sandbox", original.Headers.GetValues("Content-Security-Policy").Single(), StringComparison.Ordinal);
        using var page = await server.Client.GetAsync(new Uri("/api/jobs", UriKind.Relative));
        Assert.Contains("default-src 'self'", page.Headers.GetValues("Content-Security-Policy").Single(), StringComparison.Ordinal);
        Assert.Equal(
            ("nosniff", "no-referrer"),
            (page.Headers.GetValues("X-Content-Type-Options").Single(), page.Headers.GetValues("Referrer-Policy").Single())
        );
    }
}

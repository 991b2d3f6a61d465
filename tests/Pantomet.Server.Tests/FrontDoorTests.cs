using System.Net;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Accounts;
using Pantomet.Data;
using static Pantomet.Server.Tests.AccountFixture;

namespace Pantomet.Server.Tests;

/// <summary>TLS, proxies, limits, and what is written down of those who come.</summary>
public sealed class FrontDoorTests
{
    [Fact]
    public async Task With_a_certificate_the_server_answers_by_tls_and_its_cookies_are_secure()
    {
        var folder = Directory.CreateTempSubdirectory("pantomet-tls-");
        try
        {
            await using var server = new Door(options => options with { Certificate = Certificate(folder.FullName) });
            await server.InitializeAsync();
            using var trusting = new HttpClientHandler { ServerCertificateCustomValidationCallback = (_, _, _, _) => true };
            using var client = new HttpClient(trusting) { BaseAddress = server.Client.BaseAddress };
            using var came = await OwnerAsync(client, server);
            var cookie = Assert.Single(came.Headers.GetValues("Set-Cookie"));

            Assert.Equal("https", client.BaseAddress!.Scheme);
            Assert.StartsWith("__Host-pantomet=", cookie, StringComparison.Ordinal);
            Assert.Contains("secure", cookie, StringComparison.OrdinalIgnoreCase);
            Assert.True(came.Headers.Contains("Strict-Transport-Security"));
            Assert.Equal("signedIn", (await JsonAsync(client, HttpMethod.Get, "/api/me")).Text("state"));
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    [Fact]
    public async Task A_certificate_that_cannot_be_read_is_said_with_its_file()
    {
        var server = new Door(options => options with { Certificate = "/nowhere/at-all.pem" });

        var fault = await Assert.ThrowsAsync<InvalidDataException>(server.InitializeAsync);

        Assert.Contains("/nowhere/at-all.pem", fault.Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("127.0.0.1/32", "203.0.113.9", true)]
    [InlineData("10.0.0.0/8", "127.0.0.1", false)]
    public async Task Forwarded_headers_are_believed_of_named_proxies_only(string proxy, string from, bool secure)
    {
        await using var server = new Door(options => options with { Proxies = [IPNetwork.Parse(proxy)] });
        await server.InitializeAsync();
        using var client = new HttpClient { BaseAddress = server.Client.BaseAddress };
        client.DefaultRequestHeaders.Add("X-Forwarded-For", "203.0.113.9");
        client.DefaultRequestHeaders.Add("X-Forwarded-Proto", "https");
        client.DefaultRequestHeaders.Add("X-Forwarded-Host", "pictures.example");
        using var came = await OwnerAsync(client, server);
        var cookie = Assert.Single(came.Headers.GetValues("Set-Cookie"));

        Assert.Equal(secure, cookie.Contains("secure", StringComparison.OrdinalIgnoreCase));
        await using var scope = server.Services.CreateAsyncScope();
        var rows = await scope.ServiceProvider.GetRequiredService<PantometDb>().Activities.Select(row => row.From).Distinct().ToListAsync();
        Assert.Equal(from, Assert.Single(rows));
    }

    [Fact]
    public async Task Other_machines_get_their_answers_compressed_and_this_one_and_what_is_shown_once_as_they_are()
    {
        await using var server = new Door(options => options with { Proxies = [IPNetwork.Parse("127.0.0.1/32")] });
        await server.InitializeAsync();
        using var far = new HttpClient { BaseAddress = server.Client.BaseAddress };
        far.DefaultRequestHeaders.Add("X-Forwarded-For", "203.0.113.9");
        far.DefaultRequestHeaders.AcceptEncoding.ParseAdd("br");
        using var came = await OwnerAsync(far, server);
        using var near = new HttpRequestMessage(HttpMethod.Get, "/api/me");
        near.Headers.AcceptEncoding.ParseAdd("br");

        Assert.Empty(came.Content.Headers.ContentEncoding);
        using var shown = await far.GetAsync(new Uri("/api/destinations", UriKind.Relative));
        Assert.Equal("br", Assert.Single(shown.Content.Headers.ContentEncoding));
        await using var plain = new System.IO.Compression.BrotliStream(
            await shown.Content.ReadAsStreamAsync(),
            System.IO.Compression.CompressionMode.Decompress
        );
        Assert.Equal("website", (await System.Text.Json.JsonDocument.ParseAsync(plain)).RootElement[0].Text("key"));
        using var here = await server.Client.SendAsync(near);
        Assert.Empty(here.Content.Headers.ContentEncoding);
    }

    [Fact]
    public async Task Too_many_sign_ins_are_refused_with_the_time_to_wait_and_other_requests_are_not()
    {
        await using var server = new Door(options => options with { Limits = new() { SignIns = 3 } });
        await server.InitializeAsync();
        using var client = server.Browser();
        for (var tries = 0; tries < 3; tries++)
        {
            Assert.Equal("wrong-sign-in", (await TryAsync(client)).Code);
        }

        using var answer = await client.PostAsJsonAsync("/api/sign-in", new { signInName = "nobody", password = "nothing" });

        Assert.Equal(HttpStatusCode.TooManyRequests, answer.StatusCode);
        Assert.True(answer.Headers.RetryAfter!.Delta > TimeSpan.Zero);
        Assert.Equal("noOwner", (await JsonAsync(client, HttpMethod.Get, "/api/me")).Text("state"));
    }

    [Fact]
    public async Task The_log_keeps_its_newest_entries_and_does_not_grow_for_ever()
    {
        await using var server = new Door(options => options with { MostLogEntries = 4 });
        await server.InitializeAsync();
        using var client = server.Browser();
        for (var tries = 0; tries < 7; tries++)
        {
            await TryAsync(client, $"somebody {tries}");
        }

        await using var scope = server.Services.CreateAsyncScope();
        var kept = await scope
            .ServiceProvider.GetRequiredService<PantometDb>()
            .Activities.OrderBy(row => row.Id)
            .Select(row => row.Subject)
            .ToListAsync();
        Assert.Equal(["somebody 3", "somebody 4", "somebody 5", "somebody 6"], kept);
    }

    [Fact]
    public async Task Live_links_have_a_limit_of_their_own()
    {
        await using var server = new Door(options => options with { Limits = new() { LiveLinks = 2 } });
        await server.InitializeAsync();
        using var client = server.Browser();

        Assert.Equal(HttpStatusCode.NotFound, (await RefusedAsync(client, HttpMethod.Get, "/live/a")).Status);
        Assert.Equal(HttpStatusCode.NotFound, (await RefusedAsync(client, HttpMethod.Get, "/live/a")).Status);
        Assert.Equal(HttpStatusCode.TooManyRequests, (await RefusedAsync(client, HttpMethod.Get, "/live/a")).Status);
        Assert.Equal("wrong-sign-in", (await TryAsync(client)).Code);
    }

    [Fact]
    public async Task On_the_loopback_alone_nobody_signs_in_and_everything_is_allowed()
    {
        await using var server = new Door(options => options with { Accounts = false });
        await server.InitializeAsync();
        var me = await server.SendAsync(HttpMethod.Get, "/api/me");

        Assert.Equal(("local", "owner"), (me.Text("state"), me.Text("role")));
        await server.SendAsync(HttpMethod.Get, "/api/backups");
        Assert.Equal((HttpStatusCode.BadRequest, "no-accounts"), await TryAsync(server.Client));
        Assert.Equal(
            (HttpStatusCode.BadRequest, "no-accounts"),
            await RefusedAsync(server.Client, HttpMethod.Post, "/api/people/invitations", new { name = "Kim", role = "editor" })
        );
    }

    [Fact]
    public async Task What_was_done_is_written_down_with_who_did_it()
    {
        await using var server = new Door(options => options);
        await server.InitializeAsync();
        using var owner = await server.SignedInAsync("writer", "owner");
        await JsonAsync(owner, HttpMethod.Post, "/api/people/invitations", new { name = "Kim", role = "editor" });
        await TryAsync(owner);
        var job = (await JsonAsync(owner, HttpMethod.Post, "/api/jobs", new { name = "Autumn" })).Text("id");
        // The sender's own word of who it is does not count.
        await JsonAsync(
            owner,
            HttpMethod.Post,
            $"/api/jobs/{job}/commands",
            new { commands = new[] { new { @do = "name-job", name = "Winter" } }, actor = "Somebody else" }
        );

        await using var scope = server.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        var rows = await db
            .Activities.OrderBy(row => row.Id)
            .Select(row => new
            {
                row.Actor,
                row.What,
                row.Subject,
            })
            .ToListAsync();
        Assert.Contains(rows, row => row is { Actor: "writer of the shop", What: "invite", Subject: "Kim, Editor" });
        Assert.Contains(rows, row => row is { Actor: "", What: "signInFailed", Subject: "nobody" });
        Assert.Contains(rows, row => row is { Actor: "writer of the shop", What: "signIn" });
        Assert.Equal("writer of the shop", await db.Commands.Select(row => row.Actor).SingleAsync());
    }

    private static Task<(HttpStatusCode Status, string? Code)> TryAsync(HttpClient client, string name = "nobody") =>
        RefusedAsync(client, HttpMethod.Post, "/api/sign-in", new { signInName = name, password = "nothing" });

    private static Task<HttpResponseMessage> OwnerAsync(HttpClient client, Door server) =>
        client.PostAsJsonAsync(
            "/api/accounts",
            new
            {
                secret = server.Services.GetRequiredService<FirstOwner>().Make(),
                signInName = "owner",
                name = "Owner",
                password = Password,
            }
        );

    private static string Certificate(string folder)
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest("CN=pictures.example", key, HashAlgorithmName.SHA256);
        using var made = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(1));
        var path = Path.Combine(folder, "certificate.pem");
        File.WriteAllText(path, made.ExportCertificatePem() + "\n" + key.ExportPkcs8PrivateKeyPem());
        return path;
    }

    private sealed class Door(Func<ServerOptions, ServerOptions> adjust) : AccountFixture, IAsyncDisposable
    {
        protected override ServerOptions Adjusted(ServerOptions options) => adjust(base.Adjusted(options));

        async ValueTask IAsyncDisposable.DisposeAsync() => await DisposeAsync();
    }
}

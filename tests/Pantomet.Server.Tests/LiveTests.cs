using System.Net;
using System.Net.Http.Headers;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Keeping;
using Pantomet.Data;

namespace Pantomet.Server.Tests;

/// <summary>Live links: what is published answers as the standards ask, and nothing else does.</summary>
public sealed class LiveTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    private const string Column = "live/column";

    [Fact]
    public async Task The_type_follows_what_is_accepted_and_the_width_is_the_next_of_the_ladder()
    {
        var (job, _) = await PublishedAsync("Types");
        var address = (await PlaceAsync(job)).GetProperty("address").GetString()!;
        Assert.Equal("/live/types/barometer-from-chat/live/column", address);
        var ladder = await WidthsAsync(job);
        foreach (
            var (accept, type) in new[]
            {
                ("image/avif,image/webp,*/*;q=0.8", "image/webp"),
                ("image/webp;q=0, */*", "image/jpeg"),
                ("*/*", "image/jpeg"),
                ("", "image/jpeg"),
            }
        )
        {
            using var answer = await GetAsync($"{address}?w=301", accept);
            Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
            Assert.Equal(type, answer.Content.Headers.ContentType!.MediaType);
            Assert.Equal("Accept", Assert.Single(answer.Headers.Vary));
            Assert.Equal(ladder.First(width => width >= 301), await WidthAsync(answer));
        }

        using var wide = await GetAsync($"{address}?w=9999", "*/*");
        Assert.Equal(ladder[^1], await WidthAsync(wide));
    }

    [Fact]
    public async Task Headers_are_those_of_a_file_that_may_be_kept()
    {
        var (job, _) = await PublishedAsync("Headers");
        var place = await PlaceAsync(job);
        using var newest = await GetAsync(place.GetProperty("address").GetString()!, "*/*");
        Assert.Equal("public, max-age=60", newest.Headers.CacheControl!.ToString());
        var fixedTo = place.GetProperty("fixed").GetString()!;
        using var one = await GetAsync(fixedTo, "*/*");
        Assert.Equal("public, max-age=31536000, immutable", string.Join(", ", one.Headers.GetValues("Cache-Control")));
        Assert.Equal("*", Assert.Single(one.Headers.GetValues("Access-Control-Allow-Origin")));
        Assert.Equal("cross-origin", Assert.Single(one.Headers.GetValues("Cross-Origin-Resource-Policy")));
        Assert.Equal("nosniff", Assert.Single(one.Headers.GetValues("X-Content-Type-Options")));
        var tag = one.Headers.ETag!;
        Assert.False(tag.IsWeak);
        var bytes = await one.Content.ReadAsByteArrayAsync();
        Assert.Equal(bytes.Length, one.Content.Headers.ContentLength);

        using var same = await GetAsync(fixedTo, "*/*", request => request.Headers.IfNoneMatch.Add(tag));
        Assert.Equal(HttpStatusCode.NotModified, same.StatusCode);
        using var head = await server.Client.SendAsync(new HttpRequestMessage(HttpMethod.Head, fixedTo));
        Assert.Equal((HttpStatusCode.OK, (long?)bytes.Length), (head.StatusCode, head.Content.Headers.ContentLength));
        using var part = await GetAsync(fixedTo, "*/*", request => request.Headers.Range = new RangeHeaderValue(10, 19));
        Assert.Equal(HttpStatusCode.PartialContent, part.StatusCode);
        Assert.Equal(bytes[10..20], await part.Content.ReadAsByteArrayAsync());
    }

    [Theory]
    [InlineData("?w=0", HttpStatusCode.BadRequest)]
    [InlineData("?w=-5", HttpStatusCode.BadRequest)]
    [InlineData("?w=1e9", HttpStatusCode.BadRequest)]
    [InlineData("?w=99999999999999999999", HttpStatusCode.BadRequest)]
    [InlineData("?v=00000000", HttpStatusCode.NotFound)]
    [InlineData("/other", HttpStatusCode.NotFound)]
    [InlineData("/../../healthz", HttpStatusCode.NotFound)]
    [InlineData("x", HttpStatusCode.NotFound)]
    public async Task Nonsense_gets_a_sentence_and_makes_no_file(string more, HttpStatusCode status)
    {
        var (job, _) = await PublishedAsync("Nonsense");
        var before = await CountAsync();
        using var answer = await GetAsync(
            (await PlaceAsync(job)).GetProperty("address").GetString() + more.Replace("..", "%2e%2e", StringComparison.Ordinal),
            "*/*"
        );
        Assert.Equal(status, answer.StatusCode);
        Assert.EndsWith(
            ".",
            JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement.GetProperty("detail").GetString(),
            StringComparison.Ordinal
        );
        Assert.Equal(before, await CountAsync());
    }

    [Fact]
    public async Task What_is_not_published_is_not_served_and_what_was_withdrawn_answers_no_more()
    {
        await RulesAsync();
        var picture = await server.PictureAsync("barometer-from-chat.jpg");
        var job = await server.JobAsync([picture], [Column], name: "Back again", anew: true);
        await server.MadeAsync(job);
        const string address = "/live/back-again/barometer-from-chat/live/column";
        Assert.Equal(HttpStatusCode.NotFound, (await GetAsync(address, "*/*")).StatusCode);
        await PublishAsync(job);
        Assert.Equal(HttpStatusCode.OK, (await GetAsync(address, "*/*")).StatusCode);
        Assert.True((await server.Client.DeleteAsync(new Uri($"/api/jobs/{job}/publication", UriKind.Relative))).IsSuccessStatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await GetAsync(address, "*/*")).StatusCode);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await server.Client.DeleteAsync(new Uri($"/api/jobs/{job}/publication", UriKind.Relative))).StatusCode
        );
        await PublishAsync(job);
        Assert.Equal(HttpStatusCode.OK, (await GetAsync(address, "*/*")).StatusCode);
    }

    [Fact]
    public async Task A_changed_frame_differs_from_what_is_live_until_one_step_makes_it_so_and_the_old_version_stays_as_it_was()
    {
        var (job, picture) = await PublishedAsync("Frames");
        var before = await PlaceAsync(job);
        var old = await BytesAsync(before.GetProperty("fixed").GetString()!);
        Assert.Equal("live", before.GetProperty("state").GetString());
        await server.CommandAsync(
            job,
            new
            {
                @do = "set-frame",
                picture,
                slot = Column,
                frame = new
                {
                    left = 0.0,
                    top = 0.0,
                    right = 0.5,
                    bottom = 0.5,
                },
            }
        );
        await server.MadeAsync(job);
        var differs = await PlaceAsync(job);
        Assert.Equal("differs", differs.GetProperty("state").GetString());
        Assert.NotNull(differs.GetProperty("now").GetString());
        Assert.Equal(old, await BytesAsync(before.GetProperty("address").GetString()!));

        await PublishAsync(job, differs.GetProperty("path").GetString());
        var after = await PlaceAsync(job);
        Assert.Equal("live", after.GetProperty("state").GetString());
        Assert.NotEqual(before.GetProperty("version").GetString(), after.GetProperty("version").GetString());
        Assert.NotEqual(old, await BytesAsync(before.GetProperty("address").GetString()!));
        Assert.Equal(old, await BytesAsync(before.GetProperty("fixed").GetString()!));
    }

    [Fact]
    public async Task However_many_ask_for_a_file_that_is_not_there_it_is_made_once()
    {
        await RulesAsync();
        var picture = await server.PictureAsync("barometer-from-chat.jpg");
        var job = await server.JobAsync([picture], [Column], run: "stopped", name: "Many", anew: true);
        // A frame that no other test has: nothing of it is there.
        await server.CommandAsync(
            job,
            new
            {
                @do = "set-frame",
                picture,
                slot = Column,
                frame = new
                {
                    left = 0.11,
                    top = 0.07,
                    right = 0.93,
                    bottom = 0.81,
                },
            }
        );
        await PublishAsync(job);
        var address = (await PlaceAsync(job)).GetProperty("address").GetString() + "?w=1";
        // Only what is asked for is made, and the tables tell how often.
        var before = await CountAsync();
        var answers = await Task.WhenAll(Enumerable.Range(0, 60).Select(_ => GetAsync(address, "image/webp")));
        Assert.All(answers, answer => Assert.Equal(HttpStatusCode.OK, answer.StatusCode));
        Assert.Single(answers.Select(answer => answer.Headers.ETag!.Tag).Distinct());
        // It went out as soon as it was found, and is put down once it is measured.
        for (var i = 0; i < 200 && await CountAsync() == before; i++)
        {
            await Task.Delay(50);
        }

        await GetAsync(address, "image/webp");
        Assert.Equal(before + 1, await CountAsync());
    }

    [Fact]
    public async Task What_is_published_is_not_collected_and_a_file_that_was_deleted_is_made_again()
    {
        var (job, picture) = await PublishedAsync("Kept");
        var address = (await PlaceAsync(job)).GetProperty("fixed").GetString()!;
        var bytes = await BytesAsync(address);
        await server.CommandAsync(job, new { @do = "remove-pictures", pictures = new[] { picture } });
        await using (var scope = server.Services.CreateAsyncScope())
        {
            await scope.ServiceProvider.GetRequiredService<UnusedFileCollector>().CollectAsync(0, CancellationToken.None);
        }

        Assert.Equal(bytes, await BytesAsync(address));
        foreach (var file in Directory.EnumerateFiles(Path.Combine(server.Data, "variants"), "*", SearchOption.AllDirectories))
        {
            File.Delete(file);
        }

        Assert.Equal(bytes, await BytesAsync(address));
        using var narrow = await GetAsync($"{address}&w=1", "*/*");
        Assert.Equal(HttpStatusCode.OK, narrow.StatusCode);
        Assert.True(await WidthAsync(narrow) < 400);
    }

    private static async Task<int> WidthAsync(HttpResponseMessage answer)
    {
        using var image = NetVips.Image.NewFromBuffer(await answer.Content.ReadAsByteArrayAsync());
        return image.Width;
    }

    private async Task<int[]> WidthsAsync(string job) =>
        [
            .. (await server.JobAsync(job))
                .GetProperty("cells")[0]
                .GetProperty("files")
                .EnumerateArray()
                .Select(file => file.GetProperty("width").GetInt32())
                .Distinct()
                .Order(),
        ];

    private async Task<byte[]> BytesAsync(string address)
    {
        using var answer = await GetAsync(address, "*/*");
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await answer.Content.ReadAsByteArrayAsync();
    }

    private async Task<HttpResponseMessage> GetAsync(string address, string accept, Action<HttpRequestMessage>? adjust = null)
    {
        var request = new HttpRequestMessage(HttpMethod.Get, new Uri(address, UriKind.Relative));
        if (accept.Length > 0)
        {
            request.Headers.TryAddWithoutValidation("Accept", accept);
        }

        adjust?.Invoke(request);
        return await server.Client.SendAsync(request);
    }

    private async Task<int> CountAsync()
    {
        await using var scope = server.Services.CreateAsyncScope();
        return await scope.ServiceProvider.GetRequiredService<PantometDb>().Variants.CountAsync();
    }

    private async Task<JsonElement> PlaceAsync(string job) =>
        (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}/publication")).GetProperty("places").EnumerateArray().First();

    private Task<JsonElement> PublishAsync(string job, string? path = null) =>
        server.SendAsync(HttpMethod.Post, $"/api/jobs/{job}/publication", new { path });

    private async Task<(string Job, string Picture)> PublishedAsync(string name)
    {
        await RulesAsync();
        var picture = await server.PictureAsync("barometer-from-chat.jpg");
        var job = await server.JobAsync([picture], [Column], name: name, anew: true);
        await server.MadeAsync(job);
        await PublishAsync(job);
        return (job, picture);
    }

    private async Task RulesAsync()
    {
        using var made = await server.Client.GetAsync(new Uri("/api/destinations/live/slots/column", UriKind.Relative));
        if (made.StatusCode == HttpStatusCode.NotFound)
        {
            await server.SendAsync(HttpMethod.Post, "/api/destinations", new { name = "Live" });
            await server.SendAsync(
                HttpMethod.Put,
                "/api/destinations/live/slots/column",
                new
                {
                    rule = new
                    {
                        key = "column",
                        size = new { ratio = "3:2" },
                        types = new[] { "webp", "jpeg" },
                        each = true,
                        responsive = new
                        {
                            sizes = "100vw",
                            viewports = new[] { 200, 600 },
                            densities = new[] { 1 },
                            waste = 0.6,
                        },
                    },
                    pattern = "",
                }
            );
        }
    }
}

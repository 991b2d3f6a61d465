using System.Net;
using System.Text.Json;

namespace Pantomet.Server.Tests;

/// <summary>How pages show a job's pictures, over HTTP: markup, what a browser takes, and a ladder that is tried.</summary>
public sealed class PageTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    private const string Place = "pages/column";

    private static readonly object Column = new
    {
        key = "column",
        size = new { ratio = "3:2" },
        responsive = new
        {
            sizes = "(min-width: 500px) 300px, 100vw",
            viewports = new[] { 320, 900 },
            densities = new[] { 1 },
            waste = 0.3,
        },
    };

    private static readonly object[] Group = [Slot("low", "1:1", null), Slot("high", "2:1", "(min-width: 600px)")];

    [Fact]
    public async Task Markup_says_what_goes_out_and_what_is_missing()
    {
        var (job, picture) = await JobAsync(Place);
        var page = Assert.Single((await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}/pages?base=/p")).EnumerateArray());
        var html = page.GetProperty("html").GetString()!;
        Assert.StartsWith("<img src=\"/p/pages/barometer-from-chat-column-", html, StringComparison.Ordinal);
        Assert.Contains("sizes=\"(min-width: 500px) 300px, 100vw\"", html, StringComparison.Ordinal);
        Assert.Contains("alt=\"\"", html, StringComparison.Ordinal);
        Assert.Equal("no-alt", Assert.Single(page.GetProperty("reasons").EnumerateArray()).GetProperty("code").GetString());
        Assert.InRange(page.GetProperty("placeholder").GetString()!.Length, 60, 900);
        Assert.Matches("^#[0-9a-f]{6}$", page.GetProperty("colour").GetString());

        await server.CommandAsync(
            job,
            new
            {
                @do = "give-words",
                picture,
                decorative = true,
            }
        );
        page = (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}/pages?picture={picture}")).EnumerateArray().Single();
        Assert.Empty(page.GetProperty("reasons").EnumerateArray());
        // With a text it is no decorative any more.
        await server.CommandAsync(
            job,
            new
            {
                @do = "give-words",
                picture,
                alternative = "A \"barometer\"",
            }
        );
        page = (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}/pages?picture={picture}")).EnumerateArray().Single();
        Assert.Contains("alt=\"A &quot;barometer&quot;\"", page.GetProperty("html").GetString(), StringComparison.Ordinal);
        Assert.Contains(
            "pages/barometer-from-chat-column-",
            await server.Client.GetStringAsync(new Uri($"/api/jobs/{job}/pages.html", UriKind.Relative)),
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData("pages?base=javascript:x", "bad-address")]
    [InlineData("pages.html?base=a%20b", "bad-address")]
    [InlineData("loads?picture=00000000-0000-0000-0000-000000000000&place=pages/column&viewports=0&densities=1", "bad-viewport")]
    [InlineData("loads?picture=00000000-0000-0000-0000-000000000000&place=pages/column&viewports=9&densities=11", "bad-viewport")]
    [InlineData("loads?picture=00000000-0000-0000-0000-000000000000&place=pages/column&viewports=9&densities=1", "nothing-to-show")]
    public async Task What_cannot_be_asked_is_refused_with_a_sentence(string what, string code)
    {
        var (job, _) = await JobAsync(Place);
        using var answer = await server.Client.GetAsync(new Uri($"/api/jobs/{job}/{what}", UriKind.Relative));
        Assert.True(answer.StatusCode is HttpStatusCode.BadRequest or HttpStatusCode.NotFound);
        var problem = JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement;
        Assert.Equal(code, problem.GetProperty("code").GetString());
        Assert.EndsWith(".", problem.GetProperty("detail").GetString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_width_that_breaks_a_limit_is_named()
    {
        await RulesAsync();
        await PutAsync(
            new
            {
                key = "tight",
                size = new { ratio = "3:2" },
                limits = new { maxBytes = 100 },
                responsive = new
                {
                    sizes = "100vw",
                    viewports = new[] { 300, 400 },
                    densities = new[] { 1 },
                    files = 1,
                },
            }
        );
        var picture = await server.PictureAsync("barometer-from-chat.jpg");
        var job = await server.JobAsync([picture], ["pages/tight"], anew: true);
        await server.MadeAsync(job);
        var cell = await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}/cells/{picture}/pages/tight");
        var reason = cell.GetProperty("reasons").EnumerateArray().Single(one => one.GetProperty("code").GetString() == "over-weight");
        Assert.StartsWith("400w: ", reason.GetProperty("message").GetString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_ladder_is_tried_before_it_is_set()
    {
        var (job, picture) = await JobAsync(Place);
        var now = await LadderAsync(job, picture, null);
        var files = Assert.Single(now.GetProperty("slots").EnumerateArray()).GetProperty("files").EnumerateArray().ToList();
        Assert.Equal(499, files[^1].GetProperty("width").GetInt32());
        Assert.All(files, file => Assert.True(file.GetProperty("bytes").GetInt64() > 0));
        Assert.True(now.GetProperty("typical").GetDouble() < now.GetProperty("oneFile").GetInt64());
        Assert.Equal(2, now.GetProperty("grid").GetArrayLength());

        var tried = await LadderAsync(job, picture, "(min-width: 500px) 700px, 100vw");
        var fresh = tried.GetProperty("slots")[0].GetProperty("files").EnumerateArray().Last();
        Assert.Equal((700, JsonValueKind.Null), (fresh.GetProperty("width").GetInt32(), fresh.GetProperty("bytes").ValueKind));
        var wrong = await LadderAsync(job, picture, "50%");
        Assert.Equal("responsive.sizes", wrong.GetProperty("fault").GetProperty("place").GetString());
        // Nothing of it was set.
        Assert.Equal(
            499,
            (await LadderAsync(job, picture, null))
                .GetProperty("slots")[0]
                .GetProperty("files")
                .EnumerateArray()
                .Last()
                .GetProperty("width")
                .GetInt32()
        );
    }

    [Fact]
    public async Task Slots_of_a_group_become_one_picture_and_the_one_with_a_condition_comes_first()
    {
        await RulesAsync();
        foreach (var slot in Group)
        {
            await PutAsync(slot);
        }

        var picture = await server.PictureAsync("barometer-from-chat.jpg");
        var job = await server.JobAsync([picture], ["pages/low", "pages/high"], anew: true);
        await server.MadeAsync(job);
        var page = (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}/pages")).EnumerateArray().Single();
        Assert.Equal("front", page.GetProperty("key").GetString());
        Assert.StartsWith(
            "<picture>\n  <source media=\"(min-width: 600px)\" srcset=\"pages/barometer-from-chat-high.jpg 1x\" width=\"80\" height=\"40\">\n  <img",
            page.GetProperty("html").GetString(),
            StringComparison.Ordinal
        );
        var taken = await server.SendAsync(
            HttpMethod.Get,
            $"/api/jobs/{job}/loads?picture={picture}&place=pages/front&viewports=599&viewports=600&densities=1"
        );
        Assert.Equal(["low", "high"], taken.EnumerateArray().Select(one => one.GetProperty("slot").GetString()));

        // A job without the last of them has nothing to show where no condition holds.
        var half = await server.JobAsync([picture], ["pages/high"], anew: true);
        await server.MadeAsync(half);
        page = (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{half}/pages")).EnumerateArray().Single();
        Assert.Equal(JsonValueKind.Null, page.GetProperty("html").ValueKind);
        Assert.Contains("no-file", page.GetProperty("reasons").EnumerateArray().Select(reason => reason.GetProperty("code").GetString()));
    }

    [Fact]
    public async Task Slots_of_a_group_stand_together_in_a_job()
    {
        var book = """
            { "schema": "pantomet-rules/1", "destinations": [ { "key": "apart", "name": "Apart", "slots": [
              { "key": "wide", "size": { "ratio": "2:1", "width": 80 }, "group": "head", "media": "(min-width: 600px)" },
              { "key": "plain", "size": { "ratio": "1:1", "width": 80 } },
              { "key": "narrow", "size": { "ratio": "1:1", "width": 80 }, "group": "head" } ] } ] }
            """;
        using var rules = new StringContent(book, System.Text.Encoding.UTF8, "application/json");
        (await server.Client.PostAsync(new Uri("/api/destinations/import", UriKind.Relative), rules)).EnsureSuccessStatusCode();
        var picture = await server.PictureAsync("barometer-from-chat.jpg");
        var job = await server.JobAsync([picture], ["apart/narrow", "apart/plain", "apart/wide"], anew: true);
        var slots = (await server.JobAsync(job)).GetProperty("head").GetProperty("slots").EnumerateArray();
        Assert.Equal(["apart/wide", "apart/narrow", "apart/plain"], slots.Select(slot => slot.GetProperty("address").GetString()));
    }

    private static object Slot(string key, string ratio, string? media) =>
        media is null
            ? new
            {
                key,
                size = new { ratio, width = 80 },
                group = "front",
            }
            : new
            {
                key,
                size = new { ratio, width = 80 },
                group = "front",
                media,
            };

    private Task<JsonElement> LadderAsync(string job, string picture, string? sizes) =>
        server.SendAsync(
            HttpMethod.Post,
            $"/api/jobs/{job}/cells/{picture}/{Place}/responsive",
            new
            {
                draft = sizes is null
                    ? null
                    : new
                    {
                        rule = new
                        {
                            key = "column",
                            size = new { ratio = "3:2" },
                            responsive = new
                            {
                                sizes,
                                viewports = new[] { 320, 900 },
                                densities = new[] { 1 },
                                waste = 0.3,
                            },
                        },
                        pattern = "",
                    },
                viewports = new[] { 320, 900 },
                densities = new[] { 1 },
                visitors = new[]
                {
                    new
                    {
                        viewport = 360,
                        density = 1,
                        share = 1.0,
                    },
                },
            }
        );

    private async Task<(string Job, string Picture)> JobAsync(string slot)
    {
        await RulesAsync();
        var picture = await server.PictureAsync("barometer-from-chat.jpg");
        var job = await server.JobAsync([picture], [slot], anew: true);
        await server.MadeAsync(job);
        return (job, picture);
    }

    private async Task RulesAsync()
    {
        using var made = await server.Client.GetAsync(new Uri("/api/destinations/pages/slots/column", UriKind.Relative));
        if (made.StatusCode == HttpStatusCode.NotFound)
        {
            await server.SendAsync(HttpMethod.Post, "/api/destinations", new { name = "Pages" });
            await PutAsync(Column);
        }
    }

    private Task<JsonElement> PutAsync(object rule) =>
        server.SendAsync(
            HttpMethod.Put,
            $"/api/destinations/pages/slots/{JsonSerializer.SerializeToElement(rule).GetProperty("key").GetString()}",
            new { rule, pattern = "" }
        );
}

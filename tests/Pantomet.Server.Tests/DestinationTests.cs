using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;

namespace Pantomet.Server.Tests;

public sealed class DestinationTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    [Fact]
    public async Task Rules_with_a_ratio_of_zero_are_refused_with_their_place()
    {
        using var body = new StringContent(
            """{ "schema": "pantomet-rules/1", "destinations": [ { "key": "d", "slots": [ { "key": "a", "size": { "ratio": 0 } } ] } ] }""",
            Encoding.UTF8,
            "application/json"
        );
        var answer = await server.Client.PutAsync(new Uri("/api/destinations", UriKind.Relative), body);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains(
            "$.destinations[0].slots[0].size.ratio",
            (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("detail").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task What_is_exported_is_taken_in_again_unchanged()
    {
        var before = await server.Client.GetStringAsync(new Uri("/api/destinations/rules.json", UriKind.Relative));
        using var body = new StringContent(before, Encoding.UTF8, "application/json");
        (await server.Client.PostAsync(new Uri("/api/destinations/import", UriKind.Relative), body)).EnsureSuccessStatusCode();
        Assert.Equal(before, await server.Client.GetStringAsync(new Uri("/api/destinations/rules.json", UriKind.Relative)));
    }

    [Fact]
    public async Task A_slot_is_made_edited_and_checked_with_its_faults_placed()
    {
        var rule = new
        {
            rule = new
            {
                key = "tall",
                name = "Tall card",
                size = new { ratio = "2:3", width = 1000 },
            },
            pattern = "{picture}_{slot}",
        };
        await server.SendAsync(HttpMethod.Put, "/api/destinations/social/slots/tall", rule);
        var read = await server.SendAsync(HttpMethod.Get, "/api/destinations/social/slots/tall");
        Assert.Equal(
            ("Tall card", "{picture}_{slot}"),
            (read.GetProperty("rule").GetProperty("name").GetString(), read.GetProperty("pattern").GetString())
        );
        var check = await server.SendAsync(
            HttpMethod.Post,
            "/api/destinations/social/slots/tall/check",
            new
            {
                rule = new
                {
                    key = "tall",
                    size = new { width = 10 },
                    limits = new { maxBytes = "much" },
                },
                pattern = "",
            }
        );
        Assert.Equal("limits.maxBytes", check.GetProperty("fault").GetProperty("place").GetString());
        var other = await server.Client.PutAsJsonAsync(new Uri("/api/destinations/social/slots/other", UriKind.Relative), rule);
        Assert.Equal(HttpStatusCode.BadRequest, other.StatusCode);
    }

    [Fact]
    public async Task A_rule_is_tried_on_a_picture_before_it_is_saved_and_says_which_jobs_have_it()
    {
        var picture = await server.PictureAsync("barometer-from-chat.jpg");
        var draft = new
        {
            rule = new
            {
                key = "not-saved",
                name = "Not saved",
                size = new { ratio = "1:1", width = 320 },
                types = new[] { "webp" },
                limits = new { maxBytes = "8 kB" },
            },
            pattern = "",
        };
        var tried = await server.SendAsync(HttpMethod.Post, $"/api/destinations/social/slots/not-saved/trial/{picture}", draft);
        var file = tried.GetProperty("file");
        Assert.Equal((320, 320), (file.GetProperty("width").GetInt32(), file.GetProperty("height").GetInt32()));
        Assert.InRange(file.GetProperty("bytes").GetInt64(), 1, 8_000);
        var bytes = await server.Client.GetByteArrayAsync(
            new Uri($"/api/variants/{file.GetProperty("id").GetString()}/file", UriKind.Relative)
        );
        Assert.Equal(file.GetProperty("bytes").GetInt64(), bytes.Length);
        // Nothing was saved.
        using var saved = await server.Client.GetAsync(new Uri("/api/destinations/social/slots/not-saved", UriKind.Relative));
        Assert.Equal(HttpStatusCode.NotFound, saved.StatusCode);

        // Larger than the picture: that is said, as in a job.
        var large = await server.SendAsync(
            HttpMethod.Post,
            $"/api/destinations/social/slots/large/trial/{picture}",
            new { rule = new { key = "large", size = new { ratio = "1:1", width = 3000 } }, pattern = "" }
        );
        Assert.Contains("too-small", large.GetProperty("reasons").ToString(), StringComparison.Ordinal);
        using var wrong = await server.Client.PostAsJsonAsync(
            new Uri($"/api/destinations/social/slots/wrong/trial/{picture}", UriKind.Relative),
            new { rule = new { key = "wrong", size = new { ratio = 0 } }, pattern = "" }
        );
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);
        using var none = await server.Client.PostAsJsonAsync(
            new Uri($"/api/destinations/social/slots/not-saved/trial/{Guid.NewGuid()}", UriKind.Relative),
            draft
        );
        Assert.Equal(HttpStatusCode.NotFound, none.StatusCode);

        var book = await server.SendAsync(HttpMethod.Get, "/api/destinations");
        var (destination, slot) = (book[0].GetProperty("key").GetString(), book[0].GetProperty("slots")[0].GetProperty("key").GetString());
        var job = await server.SendAsync(
            HttpMethod.Post,
            "/api/jobs",
            new { name = "Uses a slot", slots = new[] { new { destination, slot } } }
        );
        var uses = await server.SendAsync(HttpMethod.Get, "/api/destinations/uses");
        var use = Assert.Single(uses.EnumerateArray(), one => one.GetProperty("job").GetString() == job.GetProperty("id").GetString());
        Assert.Equal(($"{destination}/{slot}", "Uses a slot"), (use.GetProperty("slot").GetString(), use.GetProperty("name").GetString()));
    }

    [Fact]
    public async Task A_destination_is_made_named_copied_and_retired()
    {
        var made = await server.SendAsync(HttpMethod.Post, "/api/destinations", new { name = "Fog Signal" });
        Assert.Equal("fog-signal", made[made.GetArrayLength() - 1].GetProperty("key").GetString());
        await server.SendAsync(HttpMethod.Put, "/api/destinations/fog-signal/name", new { name = "Fog horn" });
        await server.SendAsync(HttpMethod.Post, "/api/destinations/fog-signal/copy");
        var retired = await server.SendAsync(
            HttpMethod.Put,
            "/api/destinations/retired",
            new { slots = new[] { "fog-signal/first" }, retired = true }
        );
        var all = retired.EnumerateArray().ToDictionary(one => one.GetProperty("key").GetString()!);
        Assert.True(all["fog-signal"].GetProperty("slots")[0].GetProperty("retired").GetBoolean());
        Assert.False(all["fog-signal-copy"].GetProperty("slots")[0].GetProperty("retired").GetBoolean());
        Assert.Equal("Fog horn, copy", all["fog-signal-copy"].GetProperty("name").GetString());
    }
}

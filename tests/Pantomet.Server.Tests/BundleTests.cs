using System.IO.Compression;
using System.Net;
using System.Text.Json;

namespace Pantomet.Server.Tests;

public sealed class BundleTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    private const string Square = "website/grid-square";

    [Fact]
    public async Task A_bundle_holds_what_goes_under_its_names_and_the_report_the_rest()
    {
        var id = await server.JobAsync(
            [await server.PictureAsync("barometer-from-chat.jpg")],
            [Square, "shop/listing"],
            name: "Chat & more"
        );
        await server.MadeAsync(id);
        using var answer = await server.Client.GetAsync(new Uri($"/api/jobs/{id}/bundle.zip", UriKind.Relative));
        Assert.Equal("chat-more.zip", answer.Content.Headers.ContentDisposition?.FileName);
        using var zip = new ZipArchive(await answer.Content.ReadAsStreamAsync());
        Assert.Equal(
            [
                "manifest.json",
                "preview.html",
                "report.csv",
                "report.json",
                "website/barometer-from-chat-grid-square.jpg",
                "website/barometer-from-chat-grid-square@2x.jpg",
            ],
            zip.Entries.Select(entry => entry.FullName).Order(StringComparer.Ordinal)
        );
        await using var stream = await zip.GetEntry("report.json")!.OpenAsync();
        var report = (await JsonDocument.ParseAsync(stream)).RootElement;
        Assert.Equal(2, report.GetProperty("totals").GetProperty("files").GetInt32());
        var missing = report
            .GetProperty("variants")
            .EnumerateArray()
            .Single(variant => variant.GetProperty("slot").GetString() == "listing");
        Assert.False(missing.TryGetProperty("file", out _));
        Assert.Equal("breaks", missing.GetProperty("verdict").GetString());
        Assert.Contains(
            "smallest-side",
            missing.GetProperty("reasons").EnumerateArray().Select(reason => reason.GetProperty("code").GetString())
        );
    }

    [Fact]
    public async Task A_file_that_waits_is_told_with_the_name_that_it_gets()
    {
        var id = await server.JobAsync([await server.PictureAsync("DSC_0412.JPG")], [Square], run: "stopped");
        await server.CommandAsync(id, new { @do = "name-job", prefix = $"early {Guid.NewGuid():n}" });
        // Another frame has files of its own, which nothing makes while the job is stopped.
        await server.CommandAsync(
            id,
            new
            {
                @do = "set-frame",
                picture = await server.PictureAsync("DSC_0412.JPG"),
                slot = Square,
                frame = new
                {
                    left = 0.21,
                    top = 0.11,
                    right = 0.61,
                    bottom = 0.71,
                },
            }
        );
        var before = await FilesAsync(id);
        Assert.All(before, file => Assert.Equal("waiting", file.GetProperty("state").GetString()));
        Assert.All(before, file => Assert.Equal(JsonValueKind.Null, file.GetProperty("path").ValueKind));
        var expected = before.Select(file => file.GetProperty("expectedPath").GetString()).ToList();
        Assert.All(expected, path => Assert.StartsWith("website/early-", path, StringComparison.Ordinal));

        await server.SendAsync(HttpMethod.Put, $"/api/jobs/{id}/run", new { run = "running" });
        await server.MadeAsync(id);
        var after = await FilesAsync(id);
        Assert.Equal(expected, after.Select(file => file.GetProperty("path").GetString()));
        Assert.All(after, file => Assert.Equal(JsonValueKind.Null, file.GetProperty("expectedPath").ValueKind));

        async Task<IReadOnlyList<JsonElement>> FilesAsync(object job) =>
            [.. (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}/hand-over")).GetProperty("files").EnumerateArray()];
    }

    [Fact]
    public async Task Files_that_break_a_limit_stay_out_unless_let_through_one_by_one()
    {
        var picture = await server.PictureAsync("DSC_0452.JPG");
        var id = await server.JobAsync([picture], [Square]);
        await server.CommandAsync(
            id,
            new
            {
                @do = "name-job",
                name = "Heavy",
                prefix = "",
                numbered = true,
            }
        );
        await server.CommandAsync(
            id,
            new
            {
                @do = "choose-for-slots",
                slots = (string[]?)null,
                choice = new { format = (string?)null, quality = 100 },
            }
        );
        await server.MadeAsync(id);
        var held = (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{id}/hand-over"))
            .GetProperty("files")
            .EnumerateArray()
            .Where(file => file.GetProperty("state").GetString() == "held")
            .ToList();
        Assert.NotEmpty(held);
        await server.CommandAsync(
            id,
            new
            {
                @do = "allow-anyway",
                picture,
                slot = Square,
                files = new[] { held[0].GetProperty("id").GetString() },
            }
        );
        var after = (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{id}/hand-over"))
            .GetProperty("files")
            .EnumerateArray()
            .Count(file => file.GetProperty("state").GetString() == "held");
        Assert.Equal(held.Count - 1, after);
    }

    [Fact]
    public async Task Without_words_a_bundle_is_refused_until_it_was_asked()
    {
        var id = await server.JobAsync([await server.PictureAsync("IMG_2109.jpg")], [Square]);
        await server.MadeAsync(id);
        var answer = await server.Client.GetAsync(new Uri($"/api/jobs/{id}/bundle.zip", UriKind.Relative));
        Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        Assert.Contains("needs-names", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        await server.CommandAsync(id, new { @do = "name-job", numbered = true });
        Assert.Equal(HttpStatusCode.OK, (await server.Client.GetAsync(new Uri($"/api/jobs/{id}/bundle.zip", UriKind.Relative))).StatusCode);
    }

    [Fact]
    public async Task The_folder_is_the_bundle_and_the_second_time_it_is_replaced()
    {
        var picture = await server.PictureAsync("barometer-from-chat.jpg");
        var id = await server.JobAsync([picture], [Square, "social/cover"]);
        await server.MadeAsync(id);
        var first = (await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/folder")).GetProperty("folder").GetString()!;
        Assert.StartsWith(server.Data, first, StringComparison.Ordinal);
        Assert.True(Directory.Exists(Path.Combine(first, "social")));
        await server.SendAsync(
            HttpMethod.Put,
            $"/api/jobs/{id}/slots",
            new[]
            {
                new
                {
                    destination = "website",
                    slot = "grid-square",
                    choice = (object?)null,
                },
            }
        );
        var second = (await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/folder")).GetProperty("folder").GetString()!;
        Assert.Equal(first, second);
        Assert.False(Directory.Exists(Path.Combine(second, "social")));
    }
}

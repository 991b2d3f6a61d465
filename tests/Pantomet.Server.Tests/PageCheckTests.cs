using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;

namespace Pantomet.Server.Tests;

/// <summary>Pages that are sent, measured in the background, and kept with what came of it.</summary>
public sealed class PageCheckTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    private const string Page = "<!doctype html><img src=\"pictures/a.jpg\" width=\"300\" height=\"200\" alt=\"\">";

    [Fact]
    public async Task A_page_of_files_is_measured_and_what_came_of_it_can_be_seen()
    {
        var id = await AddAsync(("index.html", Encoding.UTF8.GetBytes(Page)), ("pictures/a.jpg", await PictureAsync()));
        await server.SendAsync(HttpMethod.Post, $"/api/page-checks/{id}/start");
        var detail = await EndedAsync(id);
        Assert.True(State(detail) == "done", $"{detail}");
        var report = detail.GetProperty("report");
        var image = Assert.Single(report.GetProperty("images").EnumerateArray());
        Assert.Equal("pictures/a.jpg", image.GetProperty("address").GetString());
        Assert.Contains("too-large", image.GetProperty("faults").EnumerateArray().Select(fault => fault.GetProperty("code").GetString()));
        Assert.Equal(
            detail.GetProperty("check").GetProperty("possible").GetInt64(),
            report.GetProperty("totals").GetProperty("possible").GetInt64()
        );

        // The page, what it loads and what would be enough.
        foreach (
            var (address, type) in new[]
            {
                ("pages/360", "image/png"),
                ("elements/360", "application/json"),
                ($"files/{image.GetProperty("path").GetString()}", "image/jpeg"),
                (
                    $"files/{image.GetProperty("files")[0].GetProperty("path").GetString()}",
                    $"image/{image.GetProperty("files")[0].GetProperty("format").GetString()}"
                ),
            }
        )
        {
            using var answer = await server.Client.GetAsync(new Uri($"/api/page-checks/{id}/{address}", UriKind.Relative));
            Assert.Equal((HttpStatusCode.OK, type), (answer.StatusCode, answer.Content.Headers.ContentType?.MediaType));
        }

        foreach (
            var elsewhere in (string[])
                ["files/report.json", "files/..%2F..%2F..%2Fpantomet.db", "files/%2Fetc%2Fpasswd", "pages/77", "elements/77"]
        )
        {
            using var answer = await server.Client.GetAsync(new Uri($"/api/page-checks/{id}/{elsewhere}", UriKind.Relative));
            Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
        }

        // One step from there to a job that shows what the page shows.
        var job = (await server.SendAsync(HttpMethod.Post, $"/api/page-checks/{id}/job")).GetProperty("id").GetString()!;
        var board = (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}")).GetProperty("head");
        Assert.Equal(
            ["a-page/place-1"],
            board.GetProperty("slots").EnumerateArray().Select(slot => slot.GetProperty("address").GetString())
        );
        Assert.Equal(
            "a.jpg",
            Assert.Single(board.GetProperty("pictures").EnumerateArray()).GetProperty("picture").GetProperty("name").GetString()
        );

        // Taken away, nothing of it is left.
        Assert.True(Directory.Exists(Path.Combine(server.Data, "pages", Guid.Parse(id).ToString("N"))));
        await server.SendAsync(HttpMethod.Delete, $"/api/page-checks/{id}");
        Assert.False(Directory.Exists(Path.Combine(server.Data, "pages", Guid.Parse(id).ToString("N"))));
    }

    [Fact]
    public async Task One_under_way_goes_on_after_a_restart_and_one_that_was_stopped_does_not()
    {
        var id = await AddAsync(("index.html", Encoding.UTF8.GetBytes(Page)), ("pictures/a.jpg", await PictureAsync()));
        var other = await AddAsync(("index.html", Encoding.UTF8.GetBytes(Page)));
        foreach (var one in (string[])[id, other])
        {
            await server.SendAsync(HttpMethod.Post, $"/api/page-checks/{one}/start");
        }

        await server.SendAsync(HttpMethod.Post, $"/api/page-checks/{other}/stop");
        await server.RestartAsync();
        Assert.Equal("done", State(await EndedAsync(id)));
        Assert.Equal("stopped", State(await server.SendAsync(HttpMethod.Get, $"/api/page-checks/{other}")));
        await server.SendAsync(HttpMethod.Post, $"/api/page-checks/{other}/start");
        // A picture that is missing is a finding, not a failure.
        Assert.Equal("done", State(await EndedAsync(other)));
    }

    [Fact]
    public async Task What_is_no_page_fails_with_a_sentence()
    {
        var id = await AddAsync(("notes.txt", "words"u8.ToArray()));
        await server.SendAsync(HttpMethod.Post, $"/api/page-checks/{id}/start");
        var detail = await EndedAsync(id);
        Assert.Equal("failed", State(detail));
        Assert.Contains("This is not a page", detail.GetProperty("check").GetProperty("trouble").GetString(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("../outside.html")]
    [InlineData("/etc/passwd")]
    [InlineData("a//b.html")]
    [InlineData("a\\b.html")]
    [InlineData("")]
    public async Task A_path_that_leads_out_of_the_page_is_refused(string path)
    {
        var id = await AddAsync();
        using var answer = await PutAsync(id, path, [1]);
        Assert.True((int)answer.StatusCode is 400 or 422, $"{answer.StatusCode}");
        Assert.Equal(
            ["page"],
            Directory.GetFileSystemEntries(Path.Combine(server.Data, "pages", Guid.Parse(id).ToString("N"))).Select(Path.GetFileName)
        );
        Assert.Empty(
            Directory.GetFiles(Path.Combine(server.Data, "pages", Guid.Parse(id).ToString("N")), "*", SearchOption.AllDirectories)
        );
    }

    [Theory]
    [InlineData("""{ "address": "harbour.example" }""", "begins with http")]
    [InlineData("""{ "address": "file:///etc/passwd" }""", "begins with http")]
    [InlineData("""{ "name": "x", "allowed": ["a b"] }""", "is not a host")]
    [InlineData("""{ "name": "x", "viewports": [12] }""", "screen widths")]
    [InlineData("""{ "name": "x", "densities": [9] }""", "Densities")]
    public async Task A_wrong_wish_gets_a_sentence(string body, string sentence)
    {
        using var answer = await server.Client.PostAsync(
            new Uri("/api/page-checks", UriKind.Relative),
            new StringContent(body, Encoding.UTF8, "application/json")
        );
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains(sentence, await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    private static string State(JsonElement detail) => detail.GetProperty("check").GetProperty("state").GetString()!;

    private Task<string> AddAsync(params (string Path, byte[] Content)[] files) => server.PageAsync("A page", files);

    private Task<HttpResponseMessage> PutAsync(string id, string path, byte[] content) =>
        server.PutFileAsync($"/api/page-checks/{id}", path, content);

    private Task<JsonElement> EndedAsync(string id) => server.PageEndedAsync(id);

    private static async Task<byte[]> PictureAsync() => await File.ReadAllBytesAsync(ServerFixture.DemoPicture("barometer-from-chat.jpg"));
}

using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json;

namespace Pantomet.Server.Tests;

/// <summary>A page that gets the files of the job that was made of it, and is opened beside what it was.</summary>
public sealed class PageRewriteTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    private const string Page = """
        <!doctype html><html><head><meta charset="utf-8"><link rel="stylesheet" href="css/site.css">
        <style>.side { width: 120px; height: 90px; background: url(pictures/c.jpg) center / cover }</style></head>
        <body><div class="top">Weather — measured</div>
        <div class="row"><img src="pictures/a.jpg" alt="Über dem Meer" class=wide></div>
        <div style="height: 60px; background: url('pictures/b.jpg') 50% 50% / cover"></div>
        <picture><source srcset="pictures/b.jpg" media="(min-width: 5000px)"><img src="pictures/a.jpg" width="90" height="60"></picture>
        <div class="side"></div><p id="here"></p>
        <script>const made = new Image(150, 100); made.src = "pictures/d.jpg"; document.getElementById("here").append(made);</script>
        </body></html>
        """;

    private const string Style = """
        body { margin: 0 } /* url(../pictures/a.jpg) */
        .top { height: 80px; color: white; background: linear-gradient(rgb(0 0 0 / .5), rgb(0 0 0 / .1)), url("../pictures/c.jpg") center / cover }
        .row { display: flex; gap: 9px } .row > .wide { width: 200px; height: auto }
        """;

    [Fact]
    public async Task A_page_gets_the_files_of_its_job_and_looks_as_before()
    {
        var job = await JobAsync();
        Assert.Equal("", await TextAsync(HttpMethod.Post, $"/api/jobs/{job}/page/rewrite"));
        var view = await MendedAsync(job);
        Assert.True(view.GetProperty("state").GetString() == "done", $"{view}");
        var page = view.GetProperty("page");
        var screen = page.GetProperty("screens")[0];
        Assert.True(screen.GetProperty("after").GetInt64() < screen.GetProperty("before").GetInt64() * 0.6, $"{screen}");
        Assert.True(screen.GetProperty("similarity").GetDouble() >= 0.98, $"{page}");
        Assert.Equal(screen.GetProperty("heightBefore").GetDouble(), screen.GetProperty("height").GetDouble());
        // What a script put there is told, and all else is mended.
        var left = page.GetProperty("images").EnumerateArray().Where(image => image.GetProperty("left").ValueKind == JsonValueKind.String);
        Assert.Equal("pictures/d.jpg", Assert.Single(left).GetProperty("address").GetString());
        Assert.Contains("a script", Assert.Single(left).GetProperty("left").GetString(), StringComparison.Ordinal);

        var files = await ZipAsync(job);
        var text = files["index.html"];
        Assert.Contains("""alt="Über dem Meer" class=wide""", text, StringComparison.Ordinal);
        Assert.Contains("Weather — measured", text, StringComparison.Ordinal);
        // Nobody said what the second one shows, and the page does not say that it shows nothing.
        Assert.Equal(1, text.Split(" alt=").Length - 1);
        Assert.DoesNotContain("pictures/a.jpg", text, StringComparison.Ordinal);
        Assert.DoesNotContain("pictures.invalid", text + files["css/site.css"], StringComparison.Ordinal);
        // The layers and the comment of the style stay, its picture is a choice, found from where the style lies.
        Assert.Contains("/* url(../pictures/a.jpg) */", files["css/site.css"], StringComparison.Ordinal);
        Assert.Contains("rgb(0 0 0 / .1)), var(--picture-", files["css/site.css"], StringComparison.Ordinal);
        Assert.Contains("url(\"../_pictures/", files["css/site.css"], StringComparison.Ordinal);
        Assert.Contains("pictures/d.jpg", files.Keys);
        Assert.DoesNotContain("pictures/a.jpg", files.Keys);
        foreach (var side in (string[])["before", "after", "difference"])
        {
            using var picture = await server.Client.GetAsync(new Uri($"/api/jobs/{job}/page/pictures/360/{side}", UriKind.Relative));
            Assert.Equal("image/png", picture.Content.Headers.ContentType?.MediaType);
        }

        // Every file that the mended page names lies in it: sent again as a page, nothing is missing.
        var again = await server.PageAsync("Once more", [.. (await EntriesAsync(job)).Select(entry => (entry.Name, entry.Content))]);
        var report = (await server.MeasuredAsync(again)).GetProperty("report");
        Assert.DoesNotContain("\"missing\"", report.ToString(), StringComparison.Ordinal);
        Assert.Equal(
            ["pictures/d.jpg"],
            report
                .GetProperty("images")
                .EnumerateArray()
                .Where(image =>
                    image.GetProperty("faults").EnumerateArray().Any(fault => fault.GetProperty("code").GetString() == "too-large")
                )
                .Select(image => image.GetProperty("address").GetString())
        );
    }

    [Fact]
    public async Task A_job_that_was_made_of_no_page_has_none()
    {
        var job = (
            await server.SendAsync(
                HttpMethod.Post,
                "/api/jobs",
                new
                {
                    name = "Without a page",
                    pictures = Array.Empty<string>(),
                    slots = Array.Empty<object>(),
                }
            )
        ).GetProperty("id").GetString();
        using (var nothing = await server.Client.GetAsync(new Uri($"/api/jobs/{job}/page", UriKind.Relative)))
        {
            Assert.Equal(HttpStatusCode.NoContent, nothing.StatusCode);
        }

        foreach (var address in (string[])["/mended.zip", "/pictures/360/before"])
        {
            using var answer = await server.Client.GetAsync(new Uri($"/api/jobs/{job}/page{address}", UriKind.Relative));
            Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
        }

        using var none = await server.Client.PostAsync(new Uri($"/api/jobs/{job}/page/rewrite", UriKind.Relative), null);
        Assert.True(none.StatusCode == HttpStatusCode.NotFound, await none.Content.ReadAsStringAsync());
    }

    private async Task<string> JobAsync()
    {
        var picture = await File.ReadAllBytesAsync(ServerFixture.DemoPicture("barometer-from-chat.jpg"));
        var check = await server.PageAsync(
            "A page to mend",
            [
                ("index.html", Encoding.UTF8.GetBytes(Page)),
                ("css/site.css", Encoding.UTF8.GetBytes(Style)),
                // Other files of the same picture, as far as anybody can tell.
                .. new[] { "a", "b", "c", "d" }.Select((name, i) => ($"pictures/{name}.jpg", (byte[])[.. picture, .. new byte[i]])),
            ]
        );
        await server.MeasuredAsync(check);
        return (await server.SendAsync(HttpMethod.Post, $"/api/page-checks/{check}/job")).GetProperty("id").GetString()!;
    }

    private Task<JsonElement> MendedAsync(string job) =>
        server.UntilAsync($"/api/jobs/{job}/page", view => view.GetProperty("state").GetString() is not "waiting");

    // Files are made in the background; until they are, nothing is mended, and that is said.
    private async Task<string> TextAsync(HttpMethod method, string address)
    {
        for (var tries = 0; ; tries++)
        {
            using var request = new HttpRequestMessage(method, new Uri(address, UriKind.Relative));
            using var answer = await server.Client.SendAsync(request);
            var text = await answer.Content.ReadAsStringAsync();
            if (answer.StatusCode != HttpStatusCode.Conflict || tries > 600)
            {
                return text;
            }

            Assert.Contains("still to be made", text, StringComparison.Ordinal);
            await Task.Delay(100);
        }
    }

    private async Task<Dictionary<string, string>> ZipAsync(string job) =>
        (await EntriesAsync(job)).ToDictionary(entry => entry.Name, entry => Encoding.UTF8.GetString(entry.Content));

    private async Task<List<(string Name, byte[] Content)>> EntriesAsync(string job)
    {
        await using var stream = await server.Client.GetStreamAsync(new Uri($"/api/jobs/{job}/page/rewritten.zip", UriKind.Relative));
        using var whole = new MemoryStream();
        await stream.CopyToAsync(whole);
        await using var zip = new ZipArchive(whole);
        var entries = new List<(string, byte[])>();
        foreach (var entry in zip.Entries)
        {
            using var content = new MemoryStream();
            await using var opened = await entry.OpenAsync();
            await opened.CopyToAsync(content);
            entries.Add((entry.FullName, content.ToArray()));
        }

        return entries;
    }
}

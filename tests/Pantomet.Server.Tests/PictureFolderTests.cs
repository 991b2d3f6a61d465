using System.Net;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text.Json;

namespace Pantomet.Server.Tests;

/// <summary>A folder of the server's machine: scanned, tried, put right, held, and restored.</summary>
public sealed class PictureFolderTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    [Fact]
    public async Task A_folder_is_looked_through_tried_put_right_and_put_back()
    {
        var folder = Folder("whole", 3);
        File.WriteAllText(Path.Combine(folder, "broken.jpg"), "no picture");
        File.CreateSymbolicLink(Path.Combine(folder, "link.jpg"), "/etc/passwd");
        var before = Contents(folder);
        var id = await AddAsync(folder);
        var looked = await ReadyAsync(id);
        var figures = looked.GetProperty("figures");
        Assert.Equal(4, figures.GetProperty("count").GetInt32());
        Assert.Equal(1, figures.GetProperty("unread").GetInt32());
        Assert.Equal(1, figures.GetProperty("misnamed").GetInt32());
        Assert.Equal(3, figures.GetProperty("mendable").GetInt32());

        // Trying touches nothing, and tells what all would come to.
        await AskAsync(
            id,
            "preview",
            new
            {
                maxSide = 400,
                likeness = 0.99,
                atLeast = 0.1,
            }
        );
        var tried = await ReadyAsync(id);
        var forecast = tried.GetProperty("trial").GetProperty("forecast");
        Assert.Equal(3, forecast.GetProperty("tried").GetInt32());
        Assert.Equal(before, Contents(folder));
        // The least alike stands first, and both files of it can be looked at; the folder is not left by a path.
        var previewed = (await server.SendAsync(HttpMethod.Get, $"/api/folders/{id}/pictures?show=previewed")).GetProperty("pictures");
        var scores = previewed.EnumerateArray().Select(one => one.GetProperty("preview").GetProperty("likeness").GetDouble()).ToList();
        Assert.Equal([.. scores.Order()], scores);
        Assert.Equal(3, scores.Count);
        Assert.All(previewed.EnumerateArray(), one => Assert.NotEqual(JsonValueKind.Null, one.GetProperty("likeness").ValueKind));
        Assert.True(await PreviewSideAsync(id, "picture-1.jpg", "current") > 400);
        Assert.Equal(400, await PreviewSideAsync(id, "picture-1.jpg", "previewed"));
        Assert.Equal(0, await PreviewSideAsync(id, "picture-1.jpg", "original"));
        Assert.Equal(0, await PreviewSideAsync(id, "link.jpg", "current"));
        Assert.Equal(0, await PreviewSideAsync(id, "../whole/picture-1.jpg", "current"));
        Assert.Equal(0, await PreviewSideAsync(id, "picture-1.jpg", "another"));

        await AskAsync(
            id,
            "optimise",
            new
            {
                maxSide = 400,
                likeness = 0.99,
                atLeast = 0.1,
            }
        );
        var mended = await ReadyAsync(id);
        Assert.True(mended.GetProperty("mended").GetBoolean(), $"{mended}");
        var outcome = mended.GetProperty("outcome");
        Assert.Equal(3, outcome.GetProperty("mended").GetInt32());
        Assert.Equal(3, outcome.GetProperty("kept").GetInt32());
        // What was told before is what came.
        Assert.Equal(
            forecast.GetProperty("saved").GetInt64(),
            outcome.GetProperty("before").GetInt64() - outcome.GetProperty("after").GetInt64()
        );
        Assert.NotEqual(before, Contents(folder));
        Assert.Equal(400, await PreviewSideAsync(id, "picture-1.jpg", "current"));
        Assert.True(await PreviewSideAsync(id, "picture-1.jpg", "original") > 400);
        var pictures = await server.SendAsync(HttpMethod.Get, $"/api/folders/{id}/pictures?show=troubles");
        Assert.Equal(1, outcome.GetProperty("inTrouble").GetInt32());
        var trouble = Assert.Single(pictures.GetProperty("pictures").EnumerateArray());
        Assert.Equal("broken.jpg", trouble.GetProperty("picture").GetProperty("path").GetString());

        // One comes back, then the others: byte for byte.
        var path = before.Keys.First(key => key.EndsWith("1.jpg", StringComparison.Ordinal));
        await AskAsync(id, "restore", new { paths = new[] { path } });
        var one = await ReadyAsync(id);
        Assert.Equal(2, one.GetProperty("outcome").GetProperty("kept").GetInt32());
        Assert.Equal(before[path], Contents(folder)[path]);
        await AskAsync(id, "restore", new { paths = (string[]?)null });
        var all = await ReadyAsync(id);
        Assert.Equal(0, all.GetProperty("outcome").GetProperty("kept").GetInt32());
        Assert.Equal(before, Contents(folder));
        await server.SendAsync(HttpMethod.Delete, $"/api/folders/{id}");
        Assert.Equal(before, Contents(folder));
    }

    [Fact]
    public async Task What_is_held_goes_on_where_it_was_also_after_a_restart()
    {
        var folder = Folder("held", 12);
        var id = await AddAsync(folder);
        await ReadyAsync(id);
        var rule = new { maxSide = 700, likeness = 0.99 };
        await AskAsync(id, "optimise", rule);
        await UntilAsync(id, view => view.GetProperty("outcome").GetProperty("mended").GetInt32() > 0);
        await AskAsync(id, "pause", null);
        var held = await server.SendAsync(HttpMethod.Get, $"/api/folders/{id}");
        Assert.Equal("paused", held.GetProperty("state").GetString());
        var done = held.GetProperty("outcome").GetProperty("mended").GetInt32();
        // Whatever was under way, each picture is old or new and whole, and its original is kept where it is new.
        Assert.InRange(held.GetProperty("outcome").GetProperty("kept").GetInt32(), done, done + Environment.ProcessorCount);
        Assert.DoesNotContain(Directory.EnumerateFiles(folder), path => path.EndsWith(".part", StringComparison.Ordinal));
        await AskAsync(id, "optimise", rule);
        await server.RestartAsync();
        var whole = await ReadyAsync(id);
        Assert.True(whole.GetProperty("mended").GetBoolean(), $"{whole}");
        Assert.Equal(12, whole.GetProperty("outcome").GetProperty("kept").GetInt32());
        Assert.Equal(12, whole.GetProperty("outcome").GetProperty("mended").GetInt32());
        await server.SendAsync(HttpMethod.Delete, $"/api/folders/{id}");
    }

    [Fact]
    public async Task A_folder_that_is_sent_is_put_right_and_taken_home()
    {
        var id = (await server.SendAsync(HttpMethod.Post, "/api/folders", new { name = "From my machine" })).GetProperty("id").GetString()!;
        var picture = await File.ReadAllBytesAsync(ServerFixture.DemoPicture("barometer-from-chat.jpg"));
        var changed = new DateTimeOffset(2024, 3, 1, 12, 0, 0, TimeSpan.Zero);
        foreach (var path in (string[])["2024/a.jpg", "b.jpg", "notes.txt"])
        {
            var more = $"&changed={changed.ToUnixTimeMilliseconds()}";
            using var answer = await server.PutFileAsync($"/api/folders/{id}", path, picture, more);
            Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        }

        using (var outside = await server.PutFileAsync($"/api/folders/{id}", "../c.jpg", picture))
        {
            Assert.Equal(HttpStatusCode.UnprocessableEntity, outside.StatusCode);
        }

        await AskAsync(id, "scan", null);
        Assert.Equal(2, (await ReadyAsync(id)).GetProperty("figures").GetProperty("count").GetInt32());
        await AskAsync(id, "optimise", new { maxSide = 300, likeness = 0.9 });
        Assert.Equal(2, (await ReadyAsync(id)).GetProperty("outcome").GetProperty("mended").GetInt32());

        using var stream = new MemoryStream(
            await server.Client.GetByteArrayAsync(new Uri($"/api/folders/{id}/folder.zip", UriKind.Relative))
        );
        await using var zip = new System.IO.Compression.ZipArchive(stream);
        Assert.Equal(["2024/a.jpg", "b.jpg", "notes.txt"], zip.Entries.Select(entry => entry.FullName));
        // Lighter under their own names and times; what is no picture by its name is as it was.
        Assert.All(zip.Entries.Take(2), entry => Assert.InRange(entry.Length, 1, picture.Length / 2));
        Assert.Equal(picture.Length, zip.Entries[2].Length);
        Assert.All(zip.Entries, entry => Assert.InRange((entry.LastWriteTime - changed).Duration(), TimeSpan.Zero, TimeSpan.FromDays(1)));
        await server.SendAsync(HttpMethod.Delete, $"/api/folders/{id}");
        Assert.False(Directory.Exists(Path.Combine(server.Data, "folders", Guid.Parse(id).ToString("N"))));
    }

    [Theory]
    [InlineData("/etc", "Only these folders")]
    [InlineData("pictures", "full path")]
    [InlineData("/no/such/folder", "does not exist")]
    public async Task Only_folders_that_the_owner_allowed_are_touched(string folder, string sentence)
    {
        using var answer = await server.Client.PostAsJsonAsync(new Uri("/api/folders", UriKind.Relative), new { folder });
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains(sentence, await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_link_that_leads_outsideof_an_allowed_folder_is_refused()
    {
        var way = Path.Combine(server.Pictures, "way-out");
        Directory.CreateSymbolicLink(way, server.Data);
        using var answer = await server.Client.PostAsJsonAsync(new Uri("/api/folders", UriKind.Relative), new { folder = way });
        Assert.Contains("Only these folders", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Directory.Delete(way);
    }

    [Theory]
    [InlineData("""{ "maxSide": 3 }""", "longer side")]
    [InlineData("""{ "likeness": 2 }""", "likeness")]
    [InlineData("""{ "atLeast": 1 }""", "share")]
    public async Task A_wrong_rule_gets_a_sentence(string rule, string sentence)
    {
        using var body = new StringContent(rule, System.Text.Encoding.UTF8, "application/json");
        using var answer = await server.Client.PostAsync(new Uri($"/api/folders/{Guid.NewGuid()}/optimise", UriKind.Relative), body);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains(sentence, await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    // The longer side of the small copy; 0 where there is none.
    private async Task<int> PreviewSideAsync(string id, string path, string file)
    {
        using var answer = await server.Client.GetAsync(
            new Uri($"/api/folders/{id}/preview/480?path={Uri.EscapeDataString(path)}&file={file}", UriKind.Relative)
        );
        if (answer.StatusCode == HttpStatusCode.NotFound)
        {
            return 0;
        }

        using var picture = NetVips.Image.NewFromBuffer(await answer.Content.ReadAsByteArrayAsync());
        return Math.Max(picture.Width, picture.Height);
    }

    private string Folder(string name, int count)
    {
        var folder = Path.Combine(server.Pictures, name);
        Directory.CreateDirectory(folder);
        var picture = File.ReadAllBytes(ServerFixture.DemoPicture("barometer-from-chat.jpg"));
        for (var i = 0; i < count; i++)
        {
            File.WriteAllBytes(Path.Combine(folder, i == 0 ? "picture-0.png" : $"picture-{i}.jpg"), [.. picture, .. new byte[i]]);
        }

        return folder;
    }

    private static Dictionary<string, string> Contents(string folder) =>
        Directory
            .EnumerateFiles(folder)
            .ToDictionary(path => Path.GetFileName(path), path => Convert.ToHexString(SHA256.HashData(File.ReadAllBytes(path))));

    private async Task<string> AddAsync(string folder) =>
        (await server.SendAsync(HttpMethod.Post, "/api/folders", new { folder })).GetProperty("id").GetString()!;

    private async Task AskAsync(string id, string what, object? body) =>
        await server.SendAsync(HttpMethod.Post, $"/api/folders/{id}/{what}", body);

    private Task<JsonElement> ReadyAsync(string id) => UntilAsync(id, view => view.GetProperty("state").GetString() == "ready");

    private Task<JsonElement> UntilAsync(string id, Func<JsonElement, bool> isIt) => server.UntilAsync($"/api/folders/{id}", isIt);
}

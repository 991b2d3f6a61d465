using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;

namespace Pantomet.Server.Tests;

/// <summary>Titles, marks and dresses of single pictures in jobs.</summary>
public sealed class DressingTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    private const string Mark =
        "<svg xmlns='http://www.w3.org/2000/svg' width='20' height='8'><rect width='20' height='8' fill='{0}'/></svg>";

    [Fact]
    public async Task Another_title_makes_that_pictures_files_of_that_slot_anew_and_nothing_else()
    {
        await SlotAsync("titled", """{ "title": { "text": "{title}", "size": 40, "fade": true } }""");
        var (id, pictures) = await server.FreshJobAsync(["IMG_2102.jpg", "DSC_0423.JPG"], ["social/titled", "website/grid-square"]);
        var bare = await server.MadeAsync(id);
        await server.CommandAsync(id, Titled(pictures[0], "Storm vane"));
        var named = await server.MadeAsync(id);
        Assert.Equal(["social/titled"], Changed(bare, named, pictures[0]));
        Assert.Empty(Changed(bare, named, pictures[1]));
        await server.CommandAsync(id, Titled(pictures[0], "Storm vane, brass"));
        var renamed = await server.MadeAsync(id);
        Assert.Equal(["social/titled"], Changed(named, renamed, pictures[0]));
        Assert.Empty(Changed(named, renamed, pictures[1]));

        // The way back finds the file of before, and a restart the title.
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/undo");
        Assert.Empty(Changed(named, await server.MadeAsync(id), pictures[0]));
        await server.RestartAsync();
        var after = await server.MadeAsync(id);
        Assert.Empty(Changed(named, after, pictures[0]));
        Assert.Equal("Storm vane", Decisions(after, pictures[0]).GetProperty("title").GetString());
    }

    [Fact]
    public async Task One_picture_can_have_something_else_laid_over_it_than_the_others()
    {
        await SlotAsync("pale", """{ "fade": { "to": "#ffffff", "amount": 0.5 } }""");
        var (id, pictures) = await server.FreshJobAsync(["IMG_2109.jpg", "DSC_0423.JPG"], ["social/pale"]);
        var alike = await server.MadeAsync(id);
        await server.CommandAsync(id, Dressed(pictures[0], "social/pale", """{ "fade": { "to": "#000000", "amount": 0.2 } }"""));
        var apart = await server.MadeAsync(id);
        Assert.Equal(["social/pale"], Changed(alike, apart, pictures[0]));
        Assert.Empty(Changed(alike, apart, pictures[1]));
        await server.CommandAsync(id, Dressed(pictures[0], "social/pale", null));
        Assert.Empty(Changed(alike, await server.MadeAsync(id), pictures[0]));

        using var wrong = await server.Client.PostAsJsonAsync(
            $"/api/jobs/{id}/commands",
            new { commands = new[] { Dressed(pictures[0], "social/pale", """{ "fade": { "to": "white" } }""") } }
        );
        Assert.False(wrong.IsSuccessStatusCode);
        Assert.Contains("write it like #ffffff", await wrong.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_mark_is_laid_exchanged_and_taken_away_and_a_drawing_that_runs_something_is_refused()
    {
        await PutAsync("maker.svg", Mark.Replace("{0}", "#111111", StringComparison.Ordinal));
        await SlotAsync("signed", """{ "mark": { "file": "maker.svg", "share": 0.2 } }""");
        var (id, pictures) = await server.FreshJobAsync(["IMG_2102.jpg"], ["social/signed"]);
        var dark = await server.MadeAsync(id);
        Assert.Empty(ReasonsOf(dark, "mark"));
        await PutAsync("maker.svg", Mark.Replace("{0}", "#eeeeee", StringComparison.Ordinal));
        var light = await server.MadeAsync(id);
        Assert.Equal(["social/signed"], Changed(dark, light, pictures[0]));
        Assert.Equal("image/svg+xml", (await server.Client.GetAsync(At("maker.svg"))).Content.Headers.ContentType!.MediaType);

        var refused = await server.Client.PutAsync(At("maker.svg"), Bytes("<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Contains(
            "<script>",
            (await refused.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("detail").GetString(),
            StringComparison.Ordinal
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await server.Client.PutAsync(At("font.ttf"), Bytes("no font"))).StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await server.Client.PutAsync(At("mark.gif"), Bytes("GIF89a"))).StatusCode);
        Assert.Empty(Changed(light, await server.MadeAsync(id), pictures[0]));

        (await server.Client.DeleteAsync(At("maker.svg"))).EnsureSuccessStatusCode();
        Assert.Single(ReasonsOf(await server.MadeAsync(id), "mark"));
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.GetAsync(At("maker.svg"))).StatusCode);
    }

    private static object Titled(string picture, string title) =>
        new
        {
            @do = "give-words",
            picture,
            title,
        };

    private static object Dressed(string picture, string slot, string? dress) =>
        new
        {
            @do = "dress",
            picture,
            slot,
            dress,
        };

    private static Uri At(string name) => new($"/api/side-files/{name}", UriKind.Relative);

    private static StringContent Bytes(string text) => new(text, Encoding.UTF8, "application/octet-stream");

    private async Task PutAsync(string name, string content) =>
        (await server.Client.PutAsync(At(name), Bytes(content))).EnsureSuccessStatusCode();

    private Task<JsonElement> SlotAsync(string key, string dress) =>
        server.SendAsync(
            HttpMethod.Put,
            $"/api/destinations/social/slots/{key}",
            new
            {
                rule = JsonDocument
                    .Parse($$"""{ "key": "{{key}}", "size": { "width": 400, "height": 200 }, "dress": {{dress}} }""")
                    .RootElement,
                pattern = "{picture}-{slot}",
            }
        );

    private static JsonElement Decisions(JsonElement job, string picture) =>
        job.GetProperty("head")
            .GetProperty("pictures")
            .EnumerateArray()
            .Single(one => one.GetProperty("picture").GetProperty("id").GetString() == picture)
            .GetProperty("decisions");

    // The slots in which a picture has other files than before.
    private static List<string> Changed(JsonElement before, JsonElement after, string picture)
    {
        var then = FilesOf(before, picture);
        Assert.All(after.GetProperty("cells").EnumerateArray(), cell => Assert.Equal("done", cell.GetProperty("state").GetString()));
        return [.. FilesOf(after, picture).Where(pair => !then[pair.Key].SequenceEqual(pair.Value)).Select(pair => pair.Key)];
    }

    private static Dictionary<string, List<string>> FilesOf(JsonElement job, string picture) =>
        job.GetProperty("cells")
            .EnumerateArray()
            .Where(cell => cell.GetProperty("picture").GetString() == picture)
            .ToDictionary(
                cell => cell.GetProperty("slot").GetString()!,
                cell => cell.GetProperty("files").EnumerateArray().Select(file => file.GetProperty("id").GetString()!).ToList()
            );

    private static List<string> ReasonsOf(JsonElement job, string code) =>
        [
            .. job.GetProperty("cells")
                .EnumerateArray()
                .SelectMany(cell => cell.GetProperty("toReview").EnumerateArray())
                .Select(look => look.GetString()!)
                .Where(look => look == code),
        ];
}

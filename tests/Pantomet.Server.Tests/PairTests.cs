using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Pantomet.Server.Tests;

/// <summary>Pictures side by side in jobs: a picture of its own that follows its parts.</summary>
public sealed class PairTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    private static readonly string[] Names = ["IMG_2102.jpg", "DSC_0423.JPG"];

    [Fact]
    public async Task Pictures_side_by_side_are_a_picture_of_the_job_and_go_only_where_such_are_taken()
    {
        var (id, pictures, pair) = await PairedAsync();
        var job = await server.MadeAsync(id);
        var mine = PictureOf(job, pair);
        Assert.Equal("IMG_2102 + DSC_0423", mine.GetProperty("picture").GetProperty("name").GetString());
        Assert.Equal(pictures, mine.GetProperty("parts").EnumerateArray().Select(part => part.GetString()!));
        var file = Cell(job, pair, "social/beside").GetProperty("files")[0];
        Assert.Equal((401, 150), (file.GetProperty("width").GetInt32(), file.GetProperty("height").GetInt32()));
        Assert.Equal("skipped", Cell(job, pair, "website/grid-square").GetProperty("state").GetString());
        Assert.All(pictures, one => Assert.Equal("skipped", Cell(job, one, "social/beside").GetProperty("state").GetString()));
        // What goes nowhere is no exception.
        Assert.All(
            job.GetProperty("cells").EnumerateArray(),
            cell => Assert.DoesNotContain("pair", cell.GetProperty("toReview").EnumerateArray().Select(look => look.GetString()))
        );
        var preview = await server.Client.GetAsync(
            new Uri($"/api/pictures/{pair}/preview/480?turn={mine.GetProperty("shown").GetString()!.Split('-', 2)[1]}", UriKind.Relative)
        );
        Assert.Equal("image/webp", preview.Content.Headers.ContentType!.MediaType);

        // The library shows what it has originals of.
        var library = await server.SendAsync(HttpMethod.Get, "/api/pictures");
        Assert.DoesNotContain(library.EnumerateArray(), one => one.GetProperty("id").GetString() == pair);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await server.Client.GetAsync(new Uri($"/api/pictures/{pair}/original", UriKind.Relative))).StatusCode
        );

        // The same ones again are the same picture; undone they are gone.
        Assert.Equal(pair, (await PairAsync(id, pictures)).GetProperty("picture").GetString());
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/undo");
        Assert.DoesNotContain(pair, PicturesOf(await server.JobAsync(id)));

        // In another order they are another picture, in the place of the first and back in one step.
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/redo");
        var other = (await PairAsync(id, [pictures[1], pictures[0]], instead: pair)).GetProperty("picture").GetString();
        Assert.Equal([.. pictures, other], PicturesOf(await server.JobAsync(id)));
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/undo");
        Assert.Equal([.. pictures, pair], PicturesOf(await server.JobAsync(id)));
    }

    [Fact]
    public async Task A_part_that_is_marked_or_turned_makes_the_pair_anew_and_one_that_is_gone_is_named()
    {
        var (id, pictures, pair) = await PairedAsync();
        var first = FilesOf(await server.MadeAsync(id), pair);
        await server.CommandAsync(
            id,
            new
            {
                @do = "set-keep-boxes",
                picture = pictures[1],
                boxes = new[]
                {
                    new
                    {
                        left = 0.0,
                        top = 0.0,
                        right = 0.3,
                        bottom = 0.3,
                    },
                },
            }
        );
        var marked = FilesOf(await server.MadeAsync(id), pair);
        Assert.NotEqual(first, marked);
        await server.CommandAsync(
            id,
            new
            {
                @do = "turn",
                picture = pictures[0],
                quarters = 1,
                degrees = 0,
            }
        );
        var turned = FilesOf(await server.MadeAsync(id), pair);
        Assert.NotEqual(marked, turned);
        // Words of a part are not a part of the picture.
        await server.CommandAsync(
            id,
            new
            {
                @do = "give-words",
                picture = pictures[0],
                alternative = "A vane",
            }
        );
        Assert.Equal(turned, FilesOf(await server.MadeAsync(id), pair));

        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/pictures/remove", new[] { pictures[1] });
        var broken = await server.MadeAsync(id);
        var cell = Cell(broken, pair, "social/beside");
        Assert.Equal("breaks", cell.GetProperty("verdict").GetString());
        Assert.Equal(["pair-part"], cell.GetProperty("toReview").EnumerateArray().Select(look => look.GetString()));
        var detail = await server.SendAsync(HttpMethod.Get, $"/api/jobs/{id}/cells/{pair}/social/beside");
        Assert.StartsWith(
            "\"DSC_0423.JPG\" is no longer in this job.",
            detail.GetProperty("reasons")[0].GetProperty("message").GetString(),
            StringComparison.Ordinal
        );
        // The other files stand, and the way back brings the pair's.
        Assert.Equal("done", Cell(broken, pictures[0], "website/grid-square").GetProperty("state").GetString());
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/undo");
        Assert.Equal(turned, FilesOf(await server.MadeAsync(id), pair));
        await server.RestartAsync();
        Assert.Equal(turned, FilesOf(await server.MadeAsync(id), pair));
    }

    [Fact]
    public async Task The_bundle_tells_the_parts_and_a_file_is_compared_with_its_pixels()
    {
        var (id, pictures, pair) = await PairedAsync();
        var job = await server.MadeAsync(id);
        var report = await server.SendAsync(HttpMethod.Get, $"/api/jobs/{id}/report.json");
        Assert.Equal(2, report.GetProperty("sources").GetArrayLength());
        var variant = report
            .GetProperty("variants")
            .EnumerateArray()
            .Single(one => one.GetProperty("slot").GetString() == "beside" && one.TryGetProperty("parts", out _));
        var parts = variant.GetProperty("parts");
        Assert.Equal(Names, parts.EnumerateArray().Select(part => part.GetProperty("source").GetString()!));
        var (left, right) = (Four(parts[0], "place"), Four(parts[1], "place"));
        Assert.Equal((0, 401, 7), (left[0], right[2], right[0] - left[2]));
        Assert.EndsWith(".png", variant.GetProperty("file").GetString(), StringComparison.Ordinal);

        var file = Cell(job, pair, "social/beside").GetProperty("files")[0].GetProperty("id").GetString();
        var reference = await server.Client.GetAsync(new Uri($"/api/variants/{file}/reference", UriKind.Relative));
        Assert.Equal(HttpStatusCode.OK, reference.StatusCode);

        // By hand, weighed, and dressed.
        Assert.Equal("meets", (await server.TryAsync(id, pair, "social/beside", "png", 100)).GetProperty("verdict").GetString());
        using var look = await server.Client.PostAsJsonAsync(
            $"/api/jobs/{id}/cells/{pair}/social/beside/preview",
            new { commands = Array.Empty<object>(), colours = true }
        );
        Assert.True(look.IsSuccessStatusCode, await look.Content.ReadAsStringAsync());
        Assert.NotEmpty(pictures);
    }

    [Fact]
    public async Task A_live_link_has_them_in_every_type_that_is_accepted_though_only_one_was_made()
    {
        var (id, _, pair) = await PairedAsync("live", """ "types": ["webp", "jpeg"] """);
        Assert.Single(Cell(await server.MadeAsync(id), pair, "social/live").GetProperty("files").EnumerateArray());
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/publication", new { path = (string?)null });
        var places = (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{id}/publication")).GetProperty("places").EnumerateArray();
        var address = places
            .Select(place => place.GetProperty("address").GetString()!)
            .Single(one => one.EndsWith("/social/live", StringComparison.Ordinal));
        foreach (var type in (string[])["image/webp", "image/jpeg"])
        {
            using var asked = new HttpRequestMessage(HttpMethod.Get, address);
            asked.Headers.TryAddWithoutValidation("Accept", type);
            using var answer = await server.Client.SendAsync(asked);
            Assert.Equal((HttpStatusCode.OK, type), (answer.StatusCode, answer.Content.Headers.ContentType!.MediaType));
            using var image = NetVips.Image.NewFromBuffer(await answer.Content.ReadAsByteArrayAsync());
            Assert.Equal((401, 150), (image.Width, image.Height));
            // The gap, as far as its colour survives a lossy type.
            Assert.True(image.Getpoint(200, 75) is [> 180, < 80, > 180, ..], string.Join(' ', image.Getpoint(200, 75)));
        }
    }

    [Theory]
    [InlineData(1, "Combine 2 to 4 pictures side by side.")]
    [InlineData(2, "A picture cannot be combined with itself.")]
    [InlineData(3, "One of these pictures is no longer in the job.")]
    [InlineData(4, "Combined pictures cannot be combined again.")]
    public async Task What_cannot_stand_side_by_side_is_refused_with_a_sentence(int which, string sentence)
    {
        var (id, pictures, pair) = await PairedAsync();
        string[] asked = which switch
        {
            1 => [pictures[0]],
            2 => [pictures[0], pictures[0]],
            3 => [pictures[0], Guid.NewGuid().ToString()],
            _ => [pictures[0], pair],
        };
        using var answer = await server.Client.PostAsJsonAsync($"/api/jobs/{id}/pairs", new { pictures = asked });
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Equal(sentence, (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("detail").GetString());
    }

    private async Task<(string Job, List<string> Pictures, string Pair)> PairedAsync(
        string key = "beside",
        string types = """ "types": ["png"] """
    )
    {
        await server.SendAsync(
            HttpMethod.Put,
            $"/api/destinations/social/slots/{key}",
            new
            {
                rule = JsonDocument
                    .Parse(
                        $$"""
                        { "key": "{{key}}", "size": { "width": 401, "height": 150 }, {{types}},
                          "pair": { "count": 2, "gap": 7, "background": "#ff00ff" } }
                        """
                    )
                    .RootElement,
                pattern = "{picture}-{slot}",
            }
        );
        var (id, pictures) = await server.FreshJobAsync(Names, [$"social/{key}", "website/grid-square"]);
        return (id, pictures, (await PairAsync(id, pictures)).GetProperty("picture").GetString()!);
    }

    private Task<JsonElement> PairAsync(string job, List<string> pictures, string? instead = null) =>
        server.SendAsync(HttpMethod.Post, $"/api/jobs/{job}/pairs", new { pictures, instead });

    private static IEnumerable<string> PicturesOf(JsonElement job) =>
        job.GetProperty("head")
            .GetProperty("pictures")
            .EnumerateArray()
            .Select(one => one.GetProperty("picture").GetProperty("id").GetString()!);

    private static JsonElement PictureOf(JsonElement job, string picture) =>
        job.GetProperty("head")
            .GetProperty("pictures")
            .EnumerateArray()
            .Single(one => one.GetProperty("picture").GetProperty("id").GetString() == picture);

    private static JsonElement Cell(JsonElement job, string picture, string slot) =>
        job.GetProperty("cells")
            .EnumerateArray()
            .Single(cell => cell.GetProperty("picture").GetString() == picture && cell.GetProperty("slot").GetString() == slot);

    private static List<string> FilesOf(JsonElement job, string picture) =>
        [
            .. Cell(job, picture, "social/beside")
                .GetProperty("files")
                .EnumerateArray()
                .Where(file => file.GetProperty("made").GetBoolean())
                .Select(file => file.GetProperty("id").GetString()!),
        ];

    private static List<int> Four(JsonElement part, string member) =>
        [.. part.GetProperty(member).EnumerateArray().Select(one => one.GetInt32())];
}

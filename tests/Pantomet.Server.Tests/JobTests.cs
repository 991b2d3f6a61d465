using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Jobs;

namespace Pantomet.Server.Tests;

public sealed class JobTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    private const string Square = "website/grid-square";
    private const string Large = "website/opening-large";

    [Fact]
    public async Task A_job_makes_every_file_and_remembers_everything_after_a_restart()
    {
        var (id, pictures) = await server.FreshJobAsync(["IMG_2102.jpg", "barometer-from-chat.jpg"], [Square, Large]);
        await server.CommandAsync(
            id,
            new
            {
                @do = "set-focus",
                picture = pictures[0],
                focus = new { x = 0.3, y = 0.4 },
            }
        );
        await server.CommandAsync(
            id,
            new
            {
                @do = "name-job",
                name = "Remembered",
                prefix = "skerry",
                numbered = true,
            }
        );
        var before = await server.MadeAsync(id);
        await server.RestartAsync();
        var after = await server.JobAsync(id);
        Assert.Equal(ServerFixture.Cells(before), ServerFixture.Cells(after));
        Assert.Equal(
            before.GetProperty("head").GetProperty("pictures").GetRawText(),
            after.GetProperty("head").GetProperty("pictures").GetRawText()
        );
        Assert.Equal(("Remembered", "skerry"), (Title(after, "name"), Title(after, "prefix")));
        Assert.Equal(
            after.GetProperty("progress").GetProperty("files").GetInt32(),
            after.GetProperty("progress").GetProperty("done").GetInt32()
        );
    }

    [Fact]
    public async Task The_progress_that_is_told_never_knows_more_than_the_cells_beside_it()
    {
        var (id, _) = await server.FreshJobAsync(["IMG_2102.jpg", "DSC_0423.JPG", "IMG_2109.jpg"], [Square, Large]);
        JsonElement job;
        do
        {
            job = await server.JobAsync(id);
            var made = job.GetProperty("cells")
                .EnumerateArray()
                .SelectMany(cell => cell.GetProperty("files").EnumerateArray())
                .Count(file => file.GetProperty("made").GetBoolean());
            Assert.InRange(job.GetProperty("progress").GetProperty("done").GetInt32(), 0, made);
        } while (job.GetProperty("progress").GetProperty("done").GetInt32() < job.GetProperty("progress").GetProperty("files").GetInt32());
    }

    [Fact]
    public async Task A_changed_framing_redoes_its_variants_alone_and_the_way_back_redoes_nothing()
    {
        var (id, pictures) = await server.FreshJobAsync(["DSC_0423.JPG", "IMG_2109.jpg"], [Square, Large]);
        var before = await server.MadeAsync(id);
        await server.CommandAsync(
            id,
            new
            {
                @do = "set-frame",
                picture = pictures[0],
                shape = "1",
                frame = new
                {
                    left = 0.1,
                    top = 0.1,
                    right = 0.6,
                    bottom = 0.6,
                },
            }
        );
        var after = await server.MadeAsync(id);
        var changed = ServerFixture.Cells(before).Except(ServerFixture.Cells(after)).ToList();
        Assert.Contains(Square, Assert.Single(changed), StringComparison.Ordinal);
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/undo");
        // No waiting: what was made before stands.
        Assert.Equal(ServerFixture.Cells(before), ServerFixture.Cells(await server.JobAsync(id)));
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/redo");
        Assert.Equal(ServerFixture.Cells(after), ServerFixture.Cells(await server.JobAsync(id)));
    }

    [Fact]
    public async Task Pictures_that_arrive_one_by_one_are_one_step_and_another_change_ends_it()
    {
        var (id, _) = await server.FreshJobAsync([], [Square], run: "stopped");
        async Task AddAsync(string name) =>
            await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/pictures", new[] { await server.PictureAsync(name) });
        async Task<int> CountAsync() => (await server.JobAsync(id)).GetProperty("head").GetProperty("pictures").GetArrayLength();
        await AddAsync("IMG_2102.jpg");
        await AddAsync("IMG_2109.jpg");
        await server.CommandAsync(id, new { @do = "name-job", name = "Between" });
        await AddAsync("IMG_2081.jpg");
        await AddAsync("IMG_2087.jpg");
        Assert.Equal(4, await CountAsync());
        foreach (var left in (int[])[2, 2, 0])
        {
            await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/undo");
            Assert.Equal(left, await CountAsync());
        }

        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/redo");
        Assert.Equal(2, await CountAsync());
    }

    [Fact]
    public async Task A_suggestion_that_is_confirmed_changes_the_reasons_and_no_file()
    {
        var (id, pictures) = await server.FreshJobAsync(["P1050233.JPG"], ["social/cover"]);
        var before = (await server.MadeAsync(id)).GetProperty("cells")[0];
        Assert.Equal("suggested", before.GetProperty("origin").GetString());
        var suggestion = (await server.JobAsync(id)).GetProperty("head").GetProperty("pictures")[0].GetProperty("suggestion");
        await server.CommandAsync(
            id,
            new
            {
                @do = "set-keep-boxes",
                picture = pictures[0],
                boxes = new[] { suggestion },
            }
        );
        var after = (await server.JobAsync(id)).GetProperty("cells")[0];
        Assert.Equal("kept", after.GetProperty("origin").GetString());
        Assert.DoesNotContain("suggested", after.GetProperty("codes").EnumerateArray().Select(code => code.GetString()));
        Assert.Equal(
            before.GetProperty("files")[0].GetProperty("id").GetString(),
            after.GetProperty("files")[0].GetProperty("id").GetString()
        );
    }

    [Fact]
    public async Task The_files_of_a_picture_wait_for_its_subject_and_are_framed_around_it()
    {
        using var bytes = new ByteArrayContent(ServerFixture.SmallPicture("P1050233.JPG"));
        var answer = await server.Client.PostAsync(new Uri("/api/pictures?name=station.JPG", UriKind.Relative), bytes);
        var picture = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("picture").GetProperty("id").GetString()!;
        // At once, while it is still looked at.
        var id = await server.JobAsync([picture], [Large], anew: true);
        var made = await server.MadeAsync(id);
        var head = made.GetProperty("head").GetProperty("pictures")[0];
        Assert.Equal("object", head.GetProperty("suggestionKind").GetString());
        Assert.Equal("suggested", made.GetProperty("cells")[0].GetProperty("origin").GetString());
        // Planned again from what is stored, the frame is the same, and so is its file.
        await server.RestartAsync();
        var again = await server.JobAsync(id);
        static string Planned(JsonElement job) =>
            job.GetProperty("cells")[0].GetProperty("frame").GetRawText()
            + job.GetProperty("cells")[0].GetProperty("files")[0].GetProperty("id").GetRawText();
        Assert.Equal(Planned(made), Planned(again));
    }

    [Fact]
    public async Task Two_jobs_share_a_picture_without_disturbing_each_other()
    {
        var (first, pictures) = await server.FreshJobAsync(["P1050233.JPG"], [Square], run: "stopped");
        await server.CommandAsync(
            first,
            new
            {
                @do = "set-focus",
                picture = pictures[0],
                focus = new { x = 0.9, y = 0.5 },
            }
        );
        var second = await server.JobAsync(pictures, [Square], run: "stopped");
        // It begins where the last one was, and goes its own way.
        var begun = ServerFixture.Cells(await server.JobAsync(second));
        Assert.Equal(ServerFixture.Cells(await server.JobAsync(first)), begun);
        await server.CommandAsync(
            second,
            new
            {
                @do = "set-focus",
                picture = pictures[0],
                focus = new { x = 0.1, y = 0.5 },
            }
        );
        Assert.Equal(begun, ServerFixture.Cells(await server.JobAsync(first)));
        Assert.NotEqual(begun, ServerFixture.Cells(await server.JobAsync(second)));
    }

    [Fact]
    public async Task Choosing_a_quality_for_a_slot_uses_the_file_that_was_tried()
    {
        var (id, pictures) = await server.FreshJobAsync(["IMG_2081.jpg"], [Square], run: "stopped");
        var file = (await server.TryAsync(id, pictures[0], Square, null, 44)).GetProperty("file");
        await server.CommandAsync(
            id,
            new
            {
                @do = "choose-for-slots",
                slots = new[] { Square },
                choice = new { format = (string?)null, quality = 44 },
            }
        );
        var cell = (await server.JobAsync(id)).GetProperty("cells")[0].GetProperty("files")[0];
        Assert.True(cell.GetProperty("made").GetBoolean());
        Assert.Equal(file.GetProperty("id").GetString(), cell.GetProperty("id").GetString());
    }

    [Theory]
    [InlineData("""{ "do": "turn", "picture": "PICTURE", "quarters": 7, "degrees": 0 }""", "$.commands[0].quarters")]
    [InlineData("""{ "do": "turn", "picture": "PICTURE", "quarters": 0, "degrees": 80 }""", "$.commands[0].quarters")]
    [InlineData(
        """{ "do": "set-keep-boxes", "picture": "PICTURE", "boxes": [ { "left": 0.5, "top": 0, "right": 0.4, "bottom": 1 } ] }""",
        "$.commands[0].boxes"
    )]
    [InlineData("""{ "do": "set-focus", "picture": "PICTURE", "focus": { "x": 2, "y": 0 } }""", "$.commands[0].focus")]
    [InlineData(
        """{ "do": "choose", "picture": "PICTURE", "slot": "website/grid-square", "choice": { "format": "bmp", "quality": 50 } }""",
        "$.commands[0].choice"
    )]
    [InlineData("""{ "do": "set-keep-boxes", "picture": "PICTURE", "boxes": null }""", "$.commands[0]")]
    [InlineData("""{ "do": "something", "picture": "PICTURE" }""", "$.commands[0]")]
    [InlineData("""{ "picture": "PICTURE" }""", null)]
    [InlineData("null", "$.commands[0]")]
    public async Task A_decision_that_cannot_be_is_refused_with_a_sentence_and_its_place(string command, string? place)
    {
        var (id, pictures) = await server.FreshJobAsync(["IMG_2102.jpg"], [Square], run: "stopped");
        var text = $$"""{ "commands": [ {{command.Replace("PICTURE", pictures[0], StringComparison.Ordinal)}} ] }""";
        using var body = new StringContent(text, System.Text.Encoding.UTF8, "application/json");
        var answer = await server.Client.PostAsync(new Uri($"/api/jobs/{id}/commands", UriKind.Relative), body);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType?.MediaType);
        var problem = (await JsonDocument.ParseAsync(await answer.Content.ReadAsStreamAsync())).RootElement;
        Assert.NotEmpty(problem.GetProperty("detail").GetString()!);
        if (place is not null)
        {
            Assert.StartsWith(place, problem.GetProperty("place").GetString(), StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task A_curve_falls_with_the_quality_and_ends_at_the_file_that_is_made()
    {
        var (id, pictures) = await server.FreshJobAsync(["IMG_2109.jpg"], [Square], run: "stopped");
        var curve = await server.SendAsync(
            HttpMethod.Post,
            $"/api/jobs/{id}/cells/{pictures[0]}/{Square}/curve",
            new
            {
                descriptor = "1x",
                format = "jpeg",
                qualities = new[] { 85, 60, 30 },
            }
        );
        var bytes = curve.EnumerateArray().Select(point => point.GetProperty("bytes").GetInt64()).ToList();
        Assert.Equal(bytes.OrderDescending(), bytes);
        var file = (await server.TryAsync(id, pictures[0], Square, "jpeg", 60)).GetProperty("file");
        Assert.Equal(bytes[1], file.GetProperty("bytes").GetInt64());
        Assert.Equal(curve[1].GetProperty("likeness").GetDouble(), file.GetProperty("likeness").GetDouble(), 9);
    }

    [Fact]
    public async Task The_figures_are_those_of_the_very_file_that_is_downloaded()
    {
        var (id, pictures) = await server.FreshJobAsync(["P1050233.JPG"], ["shop/listing"], run: "stopped");
        var file = (await server.TryAsync(id, pictures[0], "shop/listing", null, null)).GetProperty("file");
        var answer = await server.Client.GetAsync(
            new Uri($"/api/variants/{file.GetProperty("id")}/file?name={file.GetProperty("name").GetString()}", UriKind.Relative)
        );
        var bytes = await answer.Content.ReadAsByteArrayAsync();
        Assert.Equal(file.GetProperty("bytes").GetInt64(), bytes.LongLength);
        Assert.Equal(file.GetProperty("sha256").GetString(), Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(bytes)));
        using var image = NetVips.Image.NewFromBuffer(bytes);
        Assert.Equal((image.Width, image.Height), (file.GetProperty("width").GetInt32(), file.GetProperty("height").GetInt32()));
        Assert.True(bytes.Length < 1_000_000);
    }

    [Fact]
    public async Task A_turned_picture_is_made_from_turned_pixels()
    {
        var (id, pictures) = await server.FreshJobAsync(["IMG_2102.jpg"], ["newsletter/lead"], run: "stopped");
        var upright = (await server.TryAsync(id, pictures[0], "newsletter/lead", "jpeg", 80)).GetProperty("file");
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
        var turned = (await server.TryAsync(id, pictures[0], "newsletter/lead", "jpeg", 80)).GetProperty("file");
        var shape = (JsonElement file) => file.GetProperty("width").GetDouble() / file.GetProperty("height").GetDouble();
        Assert.Equal(1 / shape(upright), shape(turned), 2);
        foreach (var side in (int[])[480, 1800])
        {
            var preview = await server.Client.GetByteArrayAsync(
                new Uri($"/api/pictures/{pictures[0]}/preview/{side}?turn=1q2.5", UriKind.Relative)
            );
            Assert.True(preview.Length > 1000);
        }

        Assert.Equal(
            HttpStatusCode.NotFound,
            (await server.Client.GetAsync(new Uri($"/api/pictures/{pictures[0]}/preview/480?turn=9q0", UriKind.Relative))).StatusCode
        );
    }

    private static string? Title(JsonElement job, string what) => job.GetProperty("head").GetProperty(what).GetString();
}

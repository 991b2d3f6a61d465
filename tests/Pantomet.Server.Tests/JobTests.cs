using System.Net;
using System.Text.Json;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Jobs;

namespace Pantomet.Server.Tests;

public sealed class JobTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    private const string Square = "website/grid-square";
    private const string Large = "website/opening-large";

    [Fact]
    public async Task A_job_makes_every_file_and_remembers_everything_after_a_restart()
    {
        var (id, pictures) = await JobAsync(["IMG_2102.jpg", "barometer-from-chat.jpg"], [Square, Large]);
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
        Assert.Equal(Cells(before), Cells(after));
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
    public async Task A_changed_framing_redoes_its_variants_alone_and_the_way_back_redoes_nothing()
    {
        var (id, pictures) = await JobAsync(["DSC_0423.JPG", "IMG_2109.jpg"], [Square, Large]);
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
        var changed = Cells(before).Except(Cells(after)).ToList();
        Assert.Contains(Square, Assert.Single(changed), StringComparison.Ordinal);
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/undo");
        // No waiting: what was made before stands.
        Assert.Equal(Cells(before), Cells(await server.JobAsync(id)));
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/redo");
        Assert.Equal(Cells(after), Cells(await server.JobAsync(id)));
    }

    [Fact]
    public async Task Pictures_that_arrive_one_by_one_are_one_step_and_another_change_ends_it()
    {
        var (id, _) = await JobAsync([], [Square], run: "stopped");
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
        var (id, pictures) = await JobAsync(["DSC_0440.JPG"], ["social/cover"]);
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
    public async Task Two_jobs_share_a_picture_without_disturbing_each_other()
    {
        var (first, pictures) = await JobAsync(["P1050233.JPG"], [Square], run: "stopped");
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
        var begun = Cells(await server.JobAsync(second));
        Assert.Equal(Cells(await server.JobAsync(first)), begun);
        await server.CommandAsync(
            second,
            new
            {
                @do = "set-focus",
                picture = pictures[0],
                focus = new { x = 0.1, y = 0.5 },
            }
        );
        Assert.Equal(begun, Cells(await server.JobAsync(first)));
        Assert.NotEqual(begun, Cells(await server.JobAsync(second)));
    }

    [Fact]
    public async Task Choosing_a_quality_for_a_slot_uses_the_file_that_was_tried()
    {
        var (id, pictures) = await JobAsync(["IMG_2081.jpg"], [Square], run: "stopped");
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

    [Fact]
    public async Task What_happens_is_told_as_events_in_the_order_in_which_it_happened()
    {
        var (id, pictures) = await JobAsync(["IMG_2102.jpg"], [Square], run: "stopped");
        using var stream = await server.Client.GetStreamAsync(new Uri($"/api/jobs/{id}/events", UriKind.Relative));
        using var reader = new StreamReader(stream);
        var first = await NextAsync(reader);
        await server.CommandAsync(
            id,
            new
            {
                @do = "give-words",
                picture = pictures[0],
                keywords = "cup anemometer",
            }
        );
        var change = await NextAsync(reader);
        Assert.Equal(first.GetProperty("sequence").GetInt64() + 1, change.GetProperty("sequence").GetInt64());
        Assert.Equal("cup anemometer", change.GetProperty("pictures")[0].GetProperty("words").GetString());
        await server.SendAsync(HttpMethod.Put, $"/api/jobs/{id}/run", new { run = "running" });
        var states = new List<string?>();
        while (states.LastOrDefault() != "done")
        {
            states.AddRange(
                (await NextAsync(reader)).GetProperty("cells").EnumerateArray().Select(cell => cell.GetProperty("state").GetString())
            );
        }

        Assert.Contains("making", states);
        Assert.Equal("done", states[^1]);
    }

    [Fact]
    public async Task The_list_of_jobs_is_told_what_changes_and_nothing_else()
    {
        var (quiet, _) = await JobAsync([], [Square]);
        using var stream = await server.Client.GetStreamAsync(new Uri("/api/jobs/events", UriKind.Relative));
        using var reader = new StreamReader(stream);
        Assert.Contains(quiet, Ids(await NextAsync(reader)));
        var (busy, pictures) = await JobAsync(["IMG_2109.jpg"], [Square], run: "stopped");
        await server.SendAsync(HttpMethod.Put, $"/api/jobs/{busy}/run", new { run = "running" });
        JsonElement? told = null;
        while (
            told?.GetProperty("progress") is not { } progress
            || progress.GetProperty("done").GetInt32() is var done && (done == 0 || done < progress.GetProperty("files").GetInt32())
        )
        {
            // Jobs of other tests may still be at work.
            var changed = await NextAsync(reader);
            Assert.DoesNotContain(quiet, Ids(changed));
            told = Ids(changed).IndexOf(busy) is >= 0 and var at ? changed[at] : told;
        }

        Assert.Equal(pictures, told.Value.GetProperty("first").EnumerateArray().Select(one => one.GetProperty("id").GetString()));
    }

    [Fact]
    public async Task A_files_weight_is_told_before_it_is_made_and_is_the_one_it_has_then()
    {
        var (id, _) = await JobAsync(["DSC_0431.JPG"], [Large], run: "stopped");
        using var stream = await server.Client.GetStreamAsync(new Uri($"/api/jobs/{id}/events", UriKind.Relative));
        using var reader = new StreamReader(stream);
        await NextAsync(reader);
        await server.SendAsync(HttpMethod.Put, $"/api/jobs/{id}/run", new { run = "running" });
        var told = new Dictionary<decimal, long>();
        JsonElement cell;
        do
        {
            var cells = (await NextAsync(reader)).GetProperty("cells");
            cell = cells.GetArrayLength() > 0 ? cells[0] : default;
            foreach (
                var file in cell.ValueKind == JsonValueKind.Undefined
                    ? []
                    : cell.GetProperty("files").EnumerateArray().Where(one => !one.GetProperty("made").GetBoolean())
            )
            {
                if (file.GetProperty("bytes").ValueKind == JsonValueKind.Number)
                {
                    told[file.GetProperty("density").GetDecimal()] = file.GetProperty("bytes").GetInt64();
                }
            }
        } while (cell.ValueKind == JsonValueKind.Undefined || cell.GetProperty("state").GetString() != "done");

        Assert.NotEmpty(told);
        var made = cell.GetProperty("files")
            .EnumerateArray()
            .ToDictionary(file => file.GetProperty("density").GetDecimal(), file => file.GetProperty("bytes").GetInt64());
        Assert.All(told, one => Assert.Equal(made[one.Key], one.Value));
    }

    [Fact]
    public async Task A_frame_that_is_still_held_is_weighed_and_its_file_is_there_once_it_is_let_go()
    {
        var (id, pictures) = await JobAsync(["IMG_2087.jpg"], [Square], run: "stopped");
        var before = await server.JobAsync(id);
        var held = new
        {
            @do = "set-frame",
            picture = pictures[0],
            shape = "1",
            frame = new
            {
                left = 0.2,
                top = 0.1,
                right = 0.7,
                bottom = 0.85,
            },
        };
        var ahead = await server.SendAsync(
            HttpMethod.Post,
            $"/api/jobs/{id}/cells/{pictures[0]}/{Square}/ahead",
            new { commands = new[] { held } }
        );
        Assert.True(ahead[0].GetProperty("bytes").GetInt64() > 1000);
        // Nothing was decided.
        Assert.Equal(Cells(before), Cells(await server.JobAsync(id)));
        // The job is stopped: what is there now was made before.
        await server.CommandAsync(id, held);
        var file = (await server.JobAsync(id)).GetProperty("cells")[0].GetProperty("files")[0];
        Assert.Equal(ahead[0].GetRawText(), file.GetRawText());
    }

    [Fact]
    public async Task A_file_that_several_want_at_once_is_made_once_and_outlives_the_first_who_gives_up()
    {
        var (id, _) = await JobAsync(["P1050233.JPG"], [Large], run: "stopped");
        var desk = server.Services.GetRequiredService<FileDesk>();
        var board = (await server.Services.GetRequiredService<JobRoom>().OpenAsync(Guid.Parse(id), CancellationToken.None))!;
        var file = board.Cells(board.State).First().Files[0];
        using var stop = new CancellationTokenSource();
        var first = desk.MakeAsync(file, urgent: true, stop.Token);
        var others = Enumerable.Range(0, 5).Select(_ => desk.MakeAsync(file, urgent: true, CancellationToken.None)).ToList();
        await stop.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => first);
        // Whoever makes a file puts down when.
        Assert.Single((await Task.WhenAll(others)).Select(one => one.Made(file.Id)!.MadeAt).Distinct());
    }

    [Fact]
    public async Task What_is_on_the_screen_is_made_first()
    {
        var (id, pictures) = await JobAsync(
            ["DSC_0412.JPG", "DSC_0415.JPG", "DSC_0423.JPG", "DSC_0440.JPG", "IMG_2081.jpg", "IMG_2087.jpg"],
            [Square, Large, "social/cover"],
            run: "stopped"
        );
        await server.SendAsync(
            HttpMethod.Put,
            $"/api/jobs/{id}/look",
            new { pictures = new[] { pictures[5] }, slots = new[] { "social/cover" } }
        );
        await server.SendAsync(HttpMethod.Put, $"/api/jobs/{id}/run", new { run = "running" });
        for (var i = 0; i < 200; i++)
        {
            var done = (await server.JobAsync(id))
                .GetProperty("cells")
                .EnumerateArray()
                .Where(cell => cell.GetProperty("files").EnumerateArray().Any(file => file.GetProperty("made").GetBoolean()))
                .Select(cell => (cell.GetProperty("picture").GetString(), cell.GetProperty("slot").GetString()))
                .ToList();
            if (done.Count > 0)
            {
                Assert.Contains((pictures[5], "social/cover"), done);
                return;
            }

            await Task.Delay(50);
        }

        Assert.Fail("Nothing was made.");
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
        var (id, pictures) = await JobAsync(["IMG_2102.jpg"], [Square], run: "stopped");
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
        var (id, pictures) = await JobAsync(["IMG_2109.jpg"], [Square], run: "stopped");
        var curve = await server.SendAsync(
            HttpMethod.Post,
            $"/api/jobs/{id}/cells/{pictures[0]}/{Square}/curve",
            new
            {
                density = 1,
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
        var (id, pictures) = await JobAsync(["P1050233.JPG"], ["shop/listing"], run: "stopped");
        var file = (await server.TryAsync(id, pictures[0], "shop/listing", null, null)).GetProperty("file");
        var answer = await server.Client.GetAsync(
            new Uri($"/api/variants/{file.GetProperty("id")}/file?name={file.GetProperty("name").GetString()}", UriKind.Relative)
        );
        var bytes = await answer.Content.ReadAsByteArrayAsync();
        Assert.Equal(file.GetProperty("bytes").GetInt64(), bytes.LongLength);
        Assert.Equal(file.GetProperty("sha256").GetString(), Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(bytes)));
        Assert.Equal((2500, 2000), (file.GetProperty("width").GetInt32(), file.GetProperty("height").GetInt32()));
        Assert.True(bytes.Length < 1_000_000);
    }

    [Fact]
    public async Task A_turned_picture_is_made_from_turned_pixels()
    {
        var (id, pictures) = await JobAsync(["IMG_2102.jpg"], ["newsletter/lead"], run: "stopped");
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

    private static async Task<JsonElement> NextAsync(StreamReader reader)
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        while (await reader.ReadLineAsync(patience.Token) is { } line)
        {
            if (line.StartsWith("data: ", StringComparison.Ordinal))
            {
                return JsonDocument.Parse(line[6..]).RootElement;
            }
        }

        throw new EndOfStreamException();
    }

    private static List<string?> Ids(JsonElement jobs) => [.. jobs.EnumerateArray().Select(job => job.GetProperty("id").GetString())];

    private static List<string> Cells(JsonElement job) =>
        [.. job.GetProperty("cells").EnumerateArray().Select(ServerFixture.Bare).Order(StringComparer.Ordinal)];

    private async Task<(string Id, List<string> Pictures)> JobAsync(string[] names, string[] slots, string run = "running")
    {
        List<string> pictures = [];
        foreach (var name in names)
        {
            pictures.Add(await server.PictureAsync(name));
        }

        return (await server.JobAsync(pictures, slots, run, anew: true), pictures);
    }

    private static string? Title(JsonElement job, string what) => job.GetProperty("head").GetProperty(what).GetString();
}

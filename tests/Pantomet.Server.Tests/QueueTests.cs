using System.Net;
using System.Text.Json;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Jobs;

namespace Pantomet.Server.Tests;

public sealed class QueueTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    private const string Square = "website/grid-square";
    private const string Large = "website/opening-large";

    [Fact]
    public async Task What_happens_is_told_as_events_in_the_order_in_which_it_happened()
    {
        var (id, pictures) = await server.FreshJobAsync(["IMG_2102.jpg"], [Square], run: "stopped");
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
        var (quiet, _) = await server.FreshJobAsync([], [Square]);
        using var stream = await server.Client.GetStreamAsync(new Uri("/api/jobs/events", UriKind.Relative));
        using var reader = new StreamReader(stream);
        Assert.Contains(quiet, Ids(await NextAsync(reader)));
        var (busy, pictures) = await server.FreshJobAsync(["IMG_2109.jpg"], [Square], run: "stopped");
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
        var (id, _) = await server.FreshJobAsync(["DSC_0431.JPG"], [Large], run: "stopped");
        using var stream = await server.Client.GetStreamAsync(new Uri($"/api/jobs/{id}/events", UriKind.Relative));
        using var reader = new StreamReader(stream);
        await NextAsync(reader);
        await server.SendAsync(HttpMethod.Put, $"/api/jobs/{id}/run", new { run = "running" });
        var told = new Dictionary<string, long>();
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
                    told[file.GetProperty("descriptor").GetString()!] = file.GetProperty("bytes").GetInt64();
                }
            }
        } while (cell.ValueKind == JsonValueKind.Undefined || cell.GetProperty("state").GetString() != "done");

        Assert.NotEmpty(told);
        var made = cell.GetProperty("files")
            .EnumerateArray()
            .ToDictionary(file => file.GetProperty("descriptor").GetString()!, file => file.GetProperty("bytes").GetInt64());
        Assert.All(told, one => Assert.Equal(made[one.Key], one.Value));
    }

    [Fact]
    public async Task A_frame_that_is_still_held_is_weighed_and_its_file_is_there_once_it_is_let_go()
    {
        var (id, pictures) = await server.FreshJobAsync(["DSC_0452.JPG"], [Square], run: "stopped");
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
            $"/api/jobs/{id}/cells/{pictures[0]}/{Square}/weigh",
            new { commands = new[] { held } }
        );
        Assert.True(ahead[0].GetProperty("bytes").GetInt64() > 1000);
        // Nothing was decided.
        Assert.Equal(ServerFixture.Cells(before), ServerFixture.Cells(await server.JobAsync(id)));
        // The job is stopped: what is there now was made before.
        await server.CommandAsync(id, held);
        var file = (await server.JobAsync(id)).GetProperty("cells")[0].GetProperty("files")[0];
        Assert.Equal(ahead[0].GetRawText(), file.GetRawText());
    }

    [Fact]
    public async Task A_file_that_several_want_at_once_is_made_once_and_outlives_the_first_who_gives_up()
    {
        var (id, _) = await server.FreshJobAsync(["P1050233.JPG"], [Large], run: "stopped");
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
        var (id, pictures) = await server.FreshJobAsync(
            ["DSC_0412.JPG", "DSC_0415.JPG", "DSC_0423.JPG", "DSC_0440.JPG", "IMG_2081.jpg", "IMG_2087.jpg"],
            [Square, Large, "social/cover"],
            run: "stopped"
        );
        await server.SendAsync(
            HttpMethod.Put,
            $"/api/jobs/{id}/viewport",
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
}

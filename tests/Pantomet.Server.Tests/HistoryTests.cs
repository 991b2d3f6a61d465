using System.Net;
using System.Text.Json;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Core.Texts;
using Pantomet.Server.Accounts;
using static Pantomet.Server.Tests.AccountFixture;

namespace Pantomet.Server.Tests;

/// <summary>Who did what with a picture, as sentences; the way back; and the log of all.</summary>
public sealed class HistoryTests(AccountFixture server) : IClassFixture<AccountFixture>
{
    private const string Slot = "website/thumbnail";

    private static readonly double[] Left = [0.0, 0.1, 0.5, 0.6];
    private static readonly double[] Right = [0.4, 0.1, 0.9, 0.6];

    [Fact]
    public async Task The_history_says_who_changed_the_frame_of_a_file_and_when()
    {
        using var anna = await server.SignedInAsync("anna", "owner");
        using var ben = await server.SignedInAsync("benjamin", "editor");
        var (job, picture) = await JobAsync(anna);
        var before = DateTime.UtcNow;
        await DoAsync(
            ben,
            job,
            new
            {
                @do = "set-frame",
                picture,
                slot = Slot,
                frame = await FrameAsync(anna, job, picture, Left),
            }
        );
        await DoAsync(
            anna,
            job,
            new
            {
                @do = "give-words",
                picture,
                alternative = "A barometer",
            }
        );
        await JsonAsync(ben, HttpMethod.Post, $"/api/jobs/{job}/undo");

        var history = await HistoryAsync(anna, job, picture);

        Assert.Equal(
            [
                "undid: the alternative text",
                "wrote the alternative text",
                "set the frame for Website, Thumbnail",
                "added it to the job; forgot all decisions about it",
            ],
            history.Select(one => one.Sentence)
        );
        Assert.Equal(
            ["benjamin of the shop", "anna of the shop", "benjamin of the shop", "anna of the shop"],
            history.Select(one => one.Actor)
        );
        Assert.InRange(history[2].At, before, DateTime.UtcNow);
    }

    [Fact]
    public async Task A_picture_goes_back_to_any_moment_and_that_can_be_undone()
    {
        using var owner = await server.SignedInAsync("going-back", "owner");
        var (job, picture) = await JobAsync(owner);
        await DoAsync(
            owner,
            job,
            new
            {
                @do = "give-words",
                picture,
                alternative = "First",
            }
        );
        await DoAsync(
            owner,
            job,
            new
            {
                @do = "set-frame",
                picture,
                slot = Slot,
                frame = await FrameAsync(owner, job, picture, Left),
            }
        );
        var moment = await DecisionsAsync(owner, job, picture);
        var entry = (await HistoryAsync(owner, job, picture))[0];
        await DoAsync(
            owner,
            job,
            new
            {
                @do = "set-frame",
                picture,
                slot = Slot,
                frame = await FrameAsync(owner, job, picture, Right),
            }
        );
        await JsonAsync(owner, HttpMethod.Post, $"/api/jobs/{job}/undo");
        await JsonAsync(owner, HttpMethod.Post, $"/api/jobs/{job}/redo");
        await DoAsync(
            owner,
            job,
            new
            {
                @do = "give-words",
                picture,
                alternative = "Second",
            }
        );
        await DoAsync(
            owner,
            job,
            new
            {
                @do = "turn",
                picture,
                quarters = 1,
                degrees = 0,
            }
        );
        var last = await DecisionsAsync(owner, job, picture);

        await JsonAsync(owner, HttpMethod.Post, $"/api/jobs/{job}/pictures/{picture}/return", new { entry = entry.Id });
        var back = await DecisionsAsync(owner, job, picture);
        var said = (await HistoryAsync(owner, job, picture))[0];
        await JsonAsync(owner, HttpMethod.Post, $"/api/jobs/{job}/undo");

        Assert.NotEqual(moment, last);
        Assert.Equal(moment, back);
        Assert.StartsWith("went back to how it was on ", said.Sentence, StringComparison.Ordinal);
        Assert.Equal(last, await DecisionsAsync(owner, job, picture));
        await JsonAsync(owner, HttpMethod.Post, $"/api/jobs/{job}/redo");
        Assert.Equal(moment, await DecisionsAsync(owner, job, picture));
    }

    [Fact]
    public async Task There_is_no_way_back_to_before_the_picture_was_in_the_job()
    {
        using var owner = await server.SignedInAsync("no-way-back", "owner");
        var (job, picture) = await JobAsync(owner);
        await DoAsync(
            owner,
            job,
            new
            {
                @do = "give-words",
                picture,
                alternative = "First",
            }
        );
        await JsonAsync(owner, HttpMethod.Post, $"/api/jobs/{job}/pictures/remove", new[] { picture });
        await JsonAsync(owner, HttpMethod.Post, $"/api/jobs/{job}/pictures", new[] { picture });
        await DoAsync(
            owner,
            job,
            new
            {
                @do = "give-words",
                picture,
                alternative = "Second",
            }
        );
        var history = await HistoryAsync(owner, job, picture);

        Assert.Equal([false, true, false, false, false], history.Select(one => one.Returns));
        Assert.Equal(
            (HttpStatusCode.NotFound, "no-such-moment"),
            await RefusedAsync(owner, HttpMethod.Post, $"/api/jobs/{job}/pictures/{picture}/return", new { entry = history[3].Id })
        );
    }

    [Fact]
    public async Task The_log_has_commands_and_requests_by_time_in_parts()
    {
        using var owner = await server.SignedInAsync("log-reader", "owner");
        var (job, picture) = await JobAsync(owner);
        for (var i = 0; i < 120; i++)
        {
            await DoAsync(
                owner,
                job,
                new
                {
                    @do = "give-words",
                    picture,
                    alternative = $"Text {i}",
                }
            );
        }

        await JsonAsync(owner, HttpMethod.Put, $"/api/jobs/{job}/archived", new { archived = true });
        var all = new List<JsonElement>();
        string? before = null;
        do
        {
            var page = await JsonAsync(
                owner,
                HttpMethod.Get,
                $"/api/activity?job={job}{(before is null ? "" : $"&before={Uri.EscapeDataString(before)}")}"
            );
            all.AddRange(page.GetProperty("entries").EnumerateArray());
            before = page.GetProperty("next").GetString();
        } while (before is not null);

        // Made, paused, with its picture and slot, worded 120 times, archived.
        Assert.Equal(124, all.Count);
        Assert.Equal("archived or restored a job", all[0].Text("sentence"));
        Assert.Equal(("made a job", "History"), (all[^1].Text("sentence"), all[^1].Text("jobName")));
        Assert.Equal(120, all.Count(one => one.Text("sentence") == "wrote about 1 picture"));
        Assert.Equal(all.Select(one => one.Text("at")).OrderDescending(StringComparer.Ordinal), all.Select(one => one.Text("at")));
        Assert.All(all, one => Assert.Equal("log-reader of the shop", one.Text("actor")));
    }

    [Fact]
    public void Everything_that_is_logged_has_its_sentence()
    {
        var logged = server
            .Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.Where(one => one.Metadata.GetMetadata<IEndpointNameMetadata>() is not null)
            .Where(one =>
                one.Metadata.GetMetadata<LoggedActivity>()?.IsLogged
                ?? one.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods is not ["GET"]
            )
            .Select(one => one.Metadata.GetMetadata<IEndpointNameMetadata>()!.EndpointName);

        Assert.All(logged, name => Assert.True(ActivityTexts.Has(name), name));
    }

    private async Task<(string Job, string Picture)> JobAsync(HttpClient owner)
    {
        using var sent = await owner.PostAsync(
            new Uri("/api/pictures?name=DSC_0423.JPG", UriKind.Relative),
            new ByteArrayContent(ServerFixture.SmallPicture("DSC_0423.JPG"))
        );
        var picture = JsonDocument.Parse(await sent.Content.ReadAsStringAsync()).RootElement.GetProperty("picture").Text("id");
        await server.SoughtAsync(Guid.Parse(picture));
        var job = (await JsonAsync(owner, HttpMethod.Post, "/api/jobs", new { name = "History" })).Text("id");
        await JsonAsync(owner, HttpMethod.Put, $"/api/jobs/{job}/run", new { run = "paused" });
        // What was decided in another job about the same picture is not where this one begins.
        await DoAsync(
            owner,
            job,
            new { @do = "add-pictures", pictures = new[] { picture } },
            new { @do = "forget", picture },
            new { @do = "add-slots", slots = new[] { Slot } }
        );
        return (job, picture);
    }

    private static Task<JsonElement> DoAsync(HttpClient client, string job, params object[] commands) =>
        JsonAsync(client, HttpMethod.Post, $"/api/jobs/{job}/commands", new { commands });

    // A frame of the slot's shape is moved, so that the job takes it as it is.
    private static async Task<object> FrameAsync(HttpClient client, string job, string picture, double[] edges)
    {
        var cell = await JsonAsync(client, HttpMethod.Get, $"/api/jobs/{job}/cells/{picture}/{Slot}");
        return cell.ValueKind == JsonValueKind.Object
            ? new
            {
                left = edges[0],
                top = edges[1],
                right = edges[2],
                bottom = edges[3],
            }
            : new { };
    }

    private static async Task<string> DecisionsAsync(HttpClient client, string job, string picture) =>
        (await JsonAsync(client, HttpMethod.Get, $"/api/jobs/{job}"))
            .GetProperty("head")
            .GetProperty("pictures")
            .EnumerateArray()
            .Single(one => one.GetProperty("picture").Text("id") == picture)
            .GetProperty("decisions")
            .GetRawText();

    private static async Task<List<(long Id, DateTime At, string Actor, string Sentence, bool Returns)>> HistoryAsync(
        HttpClient client,
        string job,
        string picture
    ) =>
        [
            .. (await JsonAsync(client, HttpMethod.Get, $"/api/jobs/{job}/pictures/{picture}/history"))
                .EnumerateArray()
                .Select(one =>
                    (
                        one.GetProperty("id").GetInt64(),
                        one.GetProperty("at").GetDateTime(),
                        one.Text("actor"),
                        string.Join("; ", one.GetProperty("sentences").EnumerateArray().Select(text => text.GetString())),
                        one.GetProperty("returns").GetBoolean()
                    )
                ),
        ];
}

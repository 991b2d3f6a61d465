using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;

namespace Pantomet.Server.Tests;

/// <summary>Several people and programs at one job: nothing that was answered is lost, and nothing that cannot be is stored.</summary>
public sealed class DecisionTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    private const string Square = "website/grid-square";

    [Fact]
    public async Task Decisions_of_two_clients_on_one_picture_stand_side_by_side()
    {
        var slots = await SlotsAsync();
        var (id, picture) = await JobAsync(slots);
        // Each client decides on cells of its own, all at once.
        var sent = slots.Select(
            (slot, at) =>
                server.CommandAsync(
                    id,
                    at % 2 == 0
                        ? new
                        {
                            @do = "skip",
                            picture,
                            slot,
                            skipped = true,
                        }
                        : new
                        {
                            @do = "accept",
                            picture,
                            slot,
                            reasons = new[] { "too-small" },
                        }
                )
        );
        var sequences = (await Task.WhenAll(sent)).Select(answer => answer.GetProperty("sequence").GetInt64()).ToList();
        Assert.Equal(slots.Count, sequences.Distinct().Count());
        var cells = (await DecisionsAsync(id)).GetProperty("cells");
        Assert.All(
            slots.Select((slot, at) => (slot, at)),
            one =>
            {
                var cell = cells.GetProperty(one.slot);
                Assert.True(one.at % 2 == 0 ? cell.GetProperty("skip").GetBoolean() : cell.GetProperty("accepted").GetArrayLength() == 1);
            }
        );
        // Each is a step of its own, and the last goes back first.
        for (var left = slots.Count - 1; left >= 0; left--)
        {
            await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/undo");
            Assert.Equal(left, (await DecisionsAsync(id)).GetProperty("cells").EnumerateObject().Count());
        }
    }

    [Fact]
    public async Task What_is_sent_twice_is_applied_once()
    {
        var (id, picture) = await JobAsync([Square]);
        var box = new
        {
            left = 0.1,
            top = 0.1,
            right = 0.4,
            bottom = 0.4,
        };
        var body = new
        {
            id = "sender-1",
            commands = new[]
            {
                new
                {
                    @do = "add-keep-box",
                    picture,
                    box,
                },
            },
        };
        var first = await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/commands", body);
        var second = await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/commands", body);
        Assert.Equal(first.GetProperty("sequence").GetInt64(), second.GetProperty("sequence").GetInt64());
        Assert.Equal(1, (await DecisionsAsync(id)).GetProperty("keep").GetArrayLength());
    }

    [Fact]
    public async Task A_list_of_commands_is_applied_whole_or_not_at_all()
    {
        var (id, picture) = await JobAsync([Square]);
        var commands = new object[]
        {
            new
            {
                @do = "give-words",
                picture,
                keywords = "cup anemometer",
            },
            new
            {
                @do = "skip",
                picture,
                slot = "website/no-such-slot",
                skipped = true,
            },
        };
        using var answer = await server.Client.PostAsJsonAsync(new Uri($"/api/jobs/{id}/commands", UriKind.Relative), new { commands });
        Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        Assert.Equal("$.commands[1].slot", (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("place").GetString());
        Assert.Equal("", (await DecisionsAsync(id)).GetProperty("keywords").GetString());
    }

    [Fact]
    public async Task Commands_of_one_gesture_are_one_step_and_steps_outlive_a_restart()
    {
        var (id, picture) = await JobAsync([Square]);
        foreach (var x in new[] { 0.1, 0.2, 0.3 })
        {
            var frame = new
            {
                left = x,
                top = 0.1,
                right = x + 0.3,
                bottom = 0.5,
            };
            var commands = new[]
            {
                new
                {
                    @do = "set-frame",
                    picture,
                    slot = Square,
                    frame,
                },
            };
            await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/commands", new { gesture = "arrow", commands });
        }

        await server.CommandAsync(
            id,
            new
            {
                @do = "give-words",
                picture,
                keywords = "rain gauge",
            }
        );
        await server.RestartAsync();
        async Task<(bool Framed, string? Words)> StepAsync(string way)
        {
            await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/{way}");
            var decisions = await DecisionsAsync(id);
            return (decisions.GetProperty("framings").EnumerateObject().Any(), decisions.GetProperty("keywords").GetString());
        }

        Assert.Equal((true, ""), await StepAsync("undo"));
        Assert.Equal((false, ""), await StepAsync("undo"));
        Assert.Equal((true, ""), await StepAsync("redo"));
        await server.RestartAsync();
        Assert.Equal((true, "rain gauge"), await StepAsync("redo"));
        Assert.Equal((true, ""), await StepAsync("undo"));
        // Another step: what was undone cannot be done again.
        await server.CommandAsync(
            id,
            new
            {
                @do = "give-words",
                picture,
                keywords = "storm lantern",
            }
        );
        Assert.Equal((true, "storm lantern"), await StepAsync("redo"));
    }

    [Fact]
    public async Task A_choice_that_cannot_be_is_refused_wherever_it_stands_and_the_next_start_is_a_start()
    {
        var picture = await server.PictureAsync("barometer-from-chat.jpg");
        var slots = new[]
        {
            new
            {
                destination = "website",
                slot = "grid-square",
                choice = new { format = "xyz", quality = 5 },
            },
        };
        using var made = await server.Client.PostAsJsonAsync(
            new Uri("/api/jobs", UriKind.Relative),
            new
            {
                name = "Bad",
                pictures = new[] { picture },
                slots,
            }
        );
        Assert.Equal(HttpStatusCode.BadRequest, made.StatusCode);
        var (id, _) = await JobAsync([Square]);
        slots =
        [
            new
            {
                destination = "website",
                slot = "grid-square",
                choice = new { format = "gif", quality = 5 },
            },
        ];
        using var set = await server.Client.PutAsJsonAsync(new Uri($"/api/jobs/{id}/slots", UriKind.Relative), slots);
        Assert.Equal(HttpStatusCode.BadRequest, set.StatusCode);
        await server.RestartAsync();
        var jobs = await server.SendAsync(HttpMethod.Get, "/api/jobs");
        Assert.DoesNotContain("Bad", jobs.EnumerateArray().Select(job => job.GetProperty("name").GetString()));
    }

    [Theory]
    [InlineData("POST", "commands", """{ "commands": null }""")]
    [InlineData("POST", "commands", """{ "commands": [ { "do": "follow-marks", "cells": [ null ] } ] }""")]
    [InlineData(
        "POST",
        "commands",
        """{ "commands": [ { "do": "accept", "picture": "00000000-0000-0000-0000-000000000000", "slot": "a/b", "reasons": [ null ] } ] }"""
    )]
    [InlineData("POST", "commands", """{ "commands": [ { "do": "name-job", "patterns": { "a": null } } ] }""")]
    [InlineData("POST", "commands", "[]")]
    [InlineData("POST", "commands", "{ \"commands\": [")]
    [InlineData("PUT", "viewport", "{}")]
    [InlineData("PUT", "viewport", """{ "pictures": [], "slots": [ null ] }""")]
    [InlineData("PUT", "viewport", """{ "pictures": null, "slots": [] }""")]
    [InlineData("POST", "pictures", "null")]
    [InlineData("POST", "pictures", "[ null ]")]
    [InlineData("POST", "pictures/remove", "{}")]
    [InlineData("PUT", "slots", "[ null ]")]
    [InlineData("PUT", "slots", """[ { "destination": null, "slot": "a" } ]""")]
    [InlineData("PUT", "run", """{ "run": null }""")]
    [InlineData("PUT", "run", """{ "run": "sideways" }""")]
    [InlineData("PUT", "archived", "{}")]
    [InlineData("POST", "remake", """[ { "picture": "00000000-0000-0000-0000-000000000000", "slot": null } ]""")]
    public async Task A_body_that_is_none_is_refused_and_the_server_goes_on(string method, string address, string body)
    {
        var (id, _) = await JobAsync([Square]);
        using var request = new HttpRequestMessage(new(method), $"/api/jobs/{id}/{address}")
        {
            Content = new StringContent(body, Encoding.UTF8, "application/json"),
        };
        using var answer = await server.Client.SendAsync(request);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType?.MediaType);
        Assert.Equal("ready", await server.Client.GetStringAsync(new Uri("/healthz", UriKind.Relative)));
    }

    [Fact]
    public async Task A_job_takes_no_more_pictures_than_it_can_and_says_so_whichever_way_they_come()
    {
        var (id, _) = await JobAsync([Square]);
        var strangers = Enumerable.Range(0, 30_000).Select(_ => Guid.NewGuid()).ToList();
        using var answer = await server.Client.PostAsJsonAsync(new Uri($"/api/jobs/{id}/pictures", UriKind.Relative), strangers);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.NotEmpty((await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("detail").GetString()!);
    }

    [Fact]
    public async Task Slots_that_two_people_edit_at_once_are_both_kept()
    {
        await server.SendAsync(HttpMethod.Post, "/api/destinations", new { name = "Edited by two" });
        const string place = "edited-by-two";
        var edits = Enumerable
            .Range(0, 12)
            .Select(n =>
                server.SendAsync(
                    HttpMethod.Put,
                    $"/api/destinations/{place}/slots/slot-{n}",
                    new { rule = new { key = $"slot-{n}", size = new { width = 100 + n } }, pattern = (string?)null }
                )
            );
        await Task.WhenAll(edits);
        var book = await server.SendAsync(HttpMethod.Get, "/api/destinations");
        var slots = book.EnumerateArray()
            .Single(one => one.GetProperty("key").GetString() == place)
            .GetProperty("slots")
            .EnumerateArray()
            .Select(slot => slot.GetProperty("key").GetString())
            .ToList();
        Assert.All(Enumerable.Range(0, 12), n => Assert.Contains($"slot-{n}", slots));
    }

    private async Task<List<string>> SlotsAsync()
    {
        var book = await server.SendAsync(HttpMethod.Get, "/api/destinations");
        return
        [
            .. book.EnumerateArray()
                .Where(one => one.GetProperty("key").GetString() != "edited-by-two")
                .SelectMany(one =>
                    one.GetProperty("slots").EnumerateArray().Select(slot => $"{one.GetProperty("key")}/{slot.GetProperty("key")}")
                ),
        ];
    }

    private async Task<(string Id, string Picture)> JobAsync(IReadOnlyList<string> slots)
    {
        var picture = await server.PictureAsync("IMG_2109.jpg");
        return (await server.JobAsync([picture], slots, "stopped", anew: true), picture);
    }

    private async Task<JsonElement> DecisionsAsync(string id) =>
        (await server.JobAsync(id)).GetProperty("head").GetProperty("pictures")[0].GetProperty("decisions");
}

using System.Text.Json;
using static Pantomet.Server.Tests.AccountFixture;

namespace Pantomet.Server.Tests;

/// <summary>Several people in one job: who is where, and who changed what.</summary>
public sealed class PresenceTests(AccountFixture server) : IClassFixture<AccountFixture>
{
    [Fact]
    public async Task Those_in_a_job_are_told_where_the_others_are_and_what_they_change()
    {
        using var anna = await server.SignedInAsync("annabel", "owner");
        using var ben = await server.SignedInAsync("bennet", "editor");
        var job = (await JsonAsync(anna, HttpMethod.Post, "/api/jobs", new { name = "Together" })).Text("id");
        var picture = Guid.NewGuid();
        using var stop = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        await using var events = EventsAsync(anna, job, stop.Token).GetAsyncEnumerator(stop.Token);
        Assert.True(await events.MoveNextAsync());
        Assert.Empty(events.Current.GetProperty("people").EnumerateArray());

        await JsonAsync(
            ben,
            HttpMethod.Put,
            $"/api/jobs/{job}/presence",
            new
            {
                window = "w1",
                picture,
                slot = "website/thumbnail",
            }
        );
        var here = await NextAsync(events, "people");
        // The same again tells nobody anything.
        await JsonAsync(
            ben,
            HttpMethod.Put,
            $"/api/jobs/{job}/presence",
            new
            {
                window = "w1",
                picture,
                slot = "website/thumbnail",
            }
        );
        await JsonAsync(
            ben,
            HttpMethod.Post,
            $"/api/jobs/{job}/commands",
            new { commands = new[] { new { @do = "name-job", name = "Ours" } } }
        );
        var changed = await NextAsync(events, "change");
        await JsonAsync(ben, HttpMethod.Put, $"/api/jobs/{job}/presence", new { window = "w1", leaves = true });
        var gone = await NextAsync(events, "people");

        var one = Assert.Single(here.EnumerateArray());
        Assert.Equal(("bennet of the shop", picture.ToString()), (one.Text("name"), one.Text("picture")));
        Assert.Equal(("bennet of the shop", "named the job \"Ours\""), (changed.Text("actor"), changed.Text("did")));
        Assert.Empty(gone.EnumerateArray());
    }

    [Fact]
    public async Task A_stream_of_a_guest_names_nobody_and_ends_when_the_link_is_revoked()
    {
        using var owner = await server.SignedInAsync("streaming", "owner");
        var job = (await JsonAsync(owner, HttpMethod.Post, "/api/jobs", new { name = "Shown" })).Text("id");
        var link = await JsonAsync(owner, HttpMethod.Post, $"/api/jobs/{job}/guests", new { name = "Ms Lorne" });
        using var guest = server.Browser();
        await JsonAsync(guest, HttpMethod.Post, "/api/guests", new { secret = link.Text("address").Split('#')[1] });
        using var stop = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        await using var events = EventsAsync(guest, job, stop.Token).GetAsyncEnumerator(stop.Token);
        Assert.True(await events.MoveNextAsync());
        Assert.Equal(JsonValueKind.Null, events.Current.GetProperty("people").ValueKind);
        await NameAsync(owner, job, "Shown again");
        Assert.Equal(JsonValueKind.Null, (await NextAsync(events, "change")).ValueKind);

        await JsonAsync(owner, HttpMethod.Delete, $"/api/jobs/{job}/guests/{link.GetProperty("link").Text("id")}");
        await NameAsync(owner, job, "Not for them");

        Assert.False(await events.MoveNextAsync());
    }

    [Fact]
    public async Task A_stream_that_a_token_opened_ends_when_the_token_is_revoked()
    {
        using var owner = await server.SignedInAsync("revoking", "owner");
        var job = (await JsonAsync(owner, HttpMethod.Post, "/api/jobs", new { name = "Watched" })).Text("id");
        var made = await JsonAsync(owner, HttpMethod.Post, "/api/me/tokens", new { name = "Watcher", scopes = new[] { "read" } });
        using var program = server.Program(made.Text("token"));
        using var stop = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        await using var events = EventsAsync(program, job, stop.Token).GetAsyncEnumerator(stop.Token);
        Assert.True(await events.MoveNextAsync());
        await NameAsync(owner, job, "Watched still");
        Assert.True(await events.MoveNextAsync());

        await JsonAsync(owner, HttpMethod.Delete, $"/api/me/tokens/{made.GetProperty("view").Text("id")}");
        await NameAsync(owner, job, "Not for it");

        Assert.False(await events.MoveNextAsync());
    }

    [Fact]
    public async Task A_stream_ends_when_the_role_changes_and_can_be_opened_again()
    {
        using var owner = await server.SignedInAsync("raising", "owner");
        using var editor = await server.SignedInAsync("lowered", "editor");
        var id = (await JsonAsync(editor, HttpMethod.Get, "/api/me")).Text("id");
        var job = (await JsonAsync(owner, HttpMethod.Post, "/api/jobs", new { name = "Open" })).Text("id");
        using var stop = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        await using var events = EventsAsync(editor, job, stop.Token).GetAsyncEnumerator(stop.Token);
        Assert.True(await events.MoveNextAsync());

        await JsonAsync(owner, HttpMethod.Put, $"/api/people/{id}/role", new { role = "viewer" });
        await NameAsync(owner, job, "Open still");

        Assert.False(await events.MoveNextAsync());
        await using var again = EventsAsync(editor, job, stop.Token).GetAsyncEnumerator(stop.Token);
        Assert.True(await again.MoveNextAsync());
    }

    private static Task<JsonElement> NameAsync(HttpClient client, string job, string name) =>
        JsonAsync(client, HttpMethod.Post, $"/api/jobs/{job}/commands", new { commands = new[] { new { @do = "name-job", name } } });

    private static async Task<JsonElement> NextAsync(IAsyncEnumerator<JsonElement> events, string member)
    {
        Assert.True(await events.MoveNextAsync());
        return events.Current.GetProperty(member);
    }

    private static async IAsyncEnumerable<JsonElement> EventsAsync(
        HttpClient client,
        string job,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel
    )
    {
        using var stream = new StreamReader(await client.GetStreamAsync(new Uri($"/api/jobs/{job}/events", UriKind.Relative), cancel));
        while (await stream.ReadLineAsync(cancel) is { } line)
        {
            if (line.StartsWith("data: ", StringComparison.Ordinal))
            {
                yield return JsonDocument.Parse(line[6..]).RootElement;
            }
        }
    }
}

using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Keeping;
using Pantomet.Application.Pictures;
using Pantomet.Data;

namespace Pantomet.Server.Tests;

public sealed class RevisionTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    [Fact]
    public async Task A_newer_original_of_the_same_shape_keeps_the_frames_and_the_earlier_one_comes_back()
    {
        var id = await server.PictureAsync("DSC_0412.JPG");
        var job = await server.JobAsync([id], ["website/grid-square"], run: "stopped", anew: true);
        await FrameAsync(job, id);
        var before = await CellAsync(job);
        // The small copy from the chat: 900 x 600, the same shape.
        Assert.Equal(2, (await ReplaceAsync(id, "barometer-from-chat.jpg")).GetProperty("picture").GetProperty("revision").GetInt32());
        var after = await CellAsync(job);
        Assert.Equal(before.GetProperty("frame").GetRawText(), after.GetProperty("frame").GetRawText());
        Assert.DoesNotContain("other-shape", Codes(after));
        var original = await server.Client.GetByteArrayAsync(new Uri($"/api/pictures/{id}/original", UriKind.Relative));
        Assert.Equal(ServerFixture.SmallPicture("barometer-from-chat.jpg"), original);
        await server.SendAsync(HttpMethod.Post, $"/api/pictures/{id}/revisions/1/restore");
        Assert.Equal(ServerFixture.Bare(before), ServerFixture.Bare(await CellAsync(job)));
        var revisions = await server.SendAsync(HttpMethod.Get, $"/api/pictures/{id}/revisions");
        Assert.Equal(
            [(2, false), (1, true)],
            revisions.EnumerateArray().Select(one => (one.GetProperty("number").GetInt32(), one.GetProperty("current").GetBoolean()))
        );
        Assert.Equal(original, await server.Client.GetByteArrayAsync(new Uri($"/api/pictures/{id}/original?revision=2", UriKind.Relative)));
    }

    [Fact]
    public async Task A_newer_original_of_another_shape_marks_frames_by_hand_for_a_look()
    {
        var id = await server.PictureAsync("DSC_0440.JPG");
        var job = await server.JobAsync([id], ["website/grid-square"], run: "stopped", anew: true);
        await FrameAsync(job, id);
        await ReplaceAsync(id, "IMG_2109.jpg");
        Assert.Contains("other-shape", Codes(await CellAsync(job)));
        Assert.Equal("hand", (await CellAsync(job)).GetProperty("origin").GetString());
    }

    [Fact]
    public async Task An_original_is_put_right_as_a_newer_one_and_the_first_is_always_there()
    {
        // It is rotated by tag.
        var id = await server.PictureAsync("DSC_0431.JPG");
        var before = await server.SendAsync(HttpMethod.Get, $"/api/pictures/{id}");
        Assert.Equal(6, before.GetProperty("orientation").GetInt32());
        var small = await RightAsync(
            id,
            new
            {
                maxSide = 1000,
                type = "webp",
                background = (string?)null,
            }
        );
        Assert.Equal(1, small.GetProperty("orientation").GetInt32());
        Assert.Equal((800, 1000), (small.GetProperty("width").GetInt32(), small.GetProperty("height").GetInt32()));
        Assert.Equal("webp", small.GetProperty("format").GetString());
        Assert.EndsWith(".webp", small.GetProperty("name").GetString(), StringComparison.Ordinal);
        Assert.True(small.GetProperty("bytes").GetInt64() < before.GetProperty("bytes").GetInt64());
        using var again = await AskRightAsync(
            id,
            new
            {
                maxSide = 1000,
                type = "webp",
                background = (string?)null,
            }
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, again.StatusCode);
        Assert.Contains("The original is already like this.", await again.Content.ReadAsStringAsync(), StringComparison.Ordinal);

        await server.SendAsync(HttpMethod.Post, $"/api/pictures/{id}/revisions/1/restore");
        Assert.Equal(
            ServerFixture.SmallPicture("DSC_0431.JPG"),
            await server.Client.GetByteArrayAsync(new Uri($"/api/pictures/{id}/original", UriKind.Relative))
        );
    }

    [Fact]
    public async Task A_mark_with_transparency_is_laid_on_a_ground()
    {
        var id = await server.PictureAsync("weatherworks-mark.png");
        var flat = await RightAsync(
            id,
            new
            {
                maxSide = (int?)null,
                type = (string?)null,
                background = "#ffffff",
            }
        );
        Assert.Equal("jpeg", flat.GetProperty("format").GetString());
        Assert.False(flat.GetProperty("hasAlpha").GetBoolean());
        using var odd = await AskRightAsync(
            id,
            new
            {
                maxSide = 5,
                type = (string?)null,
                background = (string?)null,
            }
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, odd.StatusCode);
        await server.SendAsync(HttpMethod.Post, $"/api/pictures/{id}/revisions/1/restore");
    }

    [Fact]
    public async Task What_is_no_picture_or_another_s_does_not_take_the_place_of_an_original()
    {
        var id = await server.PictureAsync("DSC_0423.JPG");
        await server.PictureAsync("DSC_0431.JPG");
        var bad = await server.Client.PostAsync(
            new Uri($"/api/pictures/{id}/revisions?name=a.jpg", UriKind.Relative),
            new ByteArrayContent("<html>"u8.ToArray())
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, bad.StatusCode);
        var other = await server.Client.PostAsync(
            new Uri($"/api/pictures/{id}/revisions?name=a.jpg", UriKind.Relative),
            new ByteArrayContent(ServerFixture.SmallPicture("DSC_0431.JPG"))
        );
        Assert.Equal(HttpStatusCode.Conflict, other.StatusCode);
        Assert.Single((await server.SendAsync(HttpMethod.Get, $"/api/pictures/{id}/revisions")).EnumerateArray());
    }

    [Fact]
    public async Task A_removed_picture_comes_back_within_the_grace_period_and_goes_for_good_after_it()
    {
        var id = await server.PictureAsync("IMG_2102.jpg");
        var job = await server.JobAsync([id], ["website/grid-square"], run: "stopped", anew: true);
        await server.SendAsync(HttpMethod.Delete, $"/api/pictures/{id}");
        Assert.Empty((await server.JobAsync(job)).GetProperty("cells").EnumerateArray());
        Assert.Contains(id, (await server.SendAsync(HttpMethod.Get, "/api/pictures/removed")).GetRawText(), StringComparison.Ordinal);
        var sweep = server.Services.GetRequiredService<RemovalSweep>();
        Assert.Equal(0, await sweep.SweepAsync(CancellationToken.None));
        await server.SendAsync(HttpMethod.Post, $"/api/pictures/{id}/restore");
        Assert.Single((await server.JobAsync(job)).GetProperty("cells").EnumerateArray());

        await server.SendAsync(HttpMethod.Delete, $"/api/pictures/{id}");
        await using var scope = server.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        var row = await db.Pictures.SingleAsync(one => one.Id == Guid.Parse(id));
        var path = scope.ServiceProvider.GetRequiredService<DataFolder>().Originals.PathOf(row.ContentHash);
        Assert.True(File.Exists(path));
        row.RemovedDays = Revisions.GraceDays;
        await db.SaveChangesAsync();
        Assert.Equal(1, await sweep.SweepAsync(CancellationToken.None));
        Assert.False(File.Exists(path));
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.GetAsync(new Uri($"/api/pictures/{id}", UriKind.Relative))).StatusCode);
    }

    private Task<JsonElement> FrameAsync(string job, string picture) =>
        server.CommandAsync(
            job,
            new
            {
                @do = "set-frame",
                picture,
                shape = "1",
                frame = new
                {
                    left = 0.1,
                    top = 0.1,
                    right = 0.5,
                    bottom = 0.7,
                },
            }
        );

    private async Task<JsonElement> CellAsync(string job) => (await server.JobAsync(job)).GetProperty("cells")[0];

    private static IEnumerable<string?> Codes(JsonElement cell) =>
        cell.GetProperty("codes").EnumerateArray().Select(code => code.GetString());

    private async Task<JsonElement> ReplaceAsync(string id, string name)
    {
        var answer = await server.Client.PostAsync(
            new Uri($"/api/pictures/{id}/revisions?name={name}", UriKind.Relative),
            new ByteArrayContent(ServerFixture.SmallPicture(name))
        );
        answer.EnsureSuccessStatusCode();
        return JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement;
    }

    private Task<HttpResponseMessage> AskRightAsync(string id, object request) =>
        server.Client.PostAsync(new Uri($"/api/pictures/{id}/fix", UriKind.Relative), System.Net.Http.Json.JsonContent.Create(request));

    private async Task<JsonElement> RightAsync(string id, object request) =>
        (await server.SendAsync(HttpMethod.Post, $"/api/pictures/{id}/fix", request)).GetProperty("picture");
}

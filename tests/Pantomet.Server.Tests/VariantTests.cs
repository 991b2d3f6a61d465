using System.Net;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;

namespace Pantomet.Server.Tests;

public sealed class VariantTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    private const string Cover = "framings/social/cover";

    [Fact]
    public async Task The_figures_are_those_of_the_very_file_that_is_downloaded()
    {
        var id = await server.PictureAsync("P1050233.JPG");
        var variant = await MakeAsync(new { pictureId = id, destination = "shop", slot = "listing", density = 1, format = (string?)null, quality = (int?)null });
        var file = variant.GetProperty("file");
        var answer = await server.Client.GetAsync(At($"/api/variants/{file.GetProperty("id")}/file?download=true"));
        var bytes = await answer.Content.ReadAsByteArrayAsync();
        Assert.Equal(file.GetProperty("bytes").GetInt64(), bytes.LongLength);
        Assert.Equal(file.GetProperty("sha256").GetString(), Convert.ToHexStringLower(SHA256.HashData(bytes)));
        Assert.Equal("p1050233-listing.jpg", answer.Content.Headers.ContentDisposition?.FileName);
        Assert.Equal((2500, 2000), (file.GetProperty("width").GetInt32(), file.GetProperty("height").GetInt32()));
        Assert.True(bytes.Length < 1_000_000);
    }

    [Fact]
    public async Task The_same_wish_finds_the_same_file_also_after_a_restart()
    {
        var id = await server.PictureAsync("IMG_2081.jpg");
        var wish = new { pictureId = id, destination = "website", slot = "grid-square", density = 2, format = (string?)null, quality = 55 };
        var first = await MakeAsync(wish);
        await server.RestartAsync();
        var second = await MakeAsync(wish);
        Assert.Equal(first.GetProperty("file").GetRawText(), second.GetProperty("file").GetRawText());
        Assert.Equal(55, second.GetProperty("file").GetProperty("quality").GetInt32());
    }

    [Fact]
    public async Task A_quality_by_hand_over_the_limit_is_made_and_said_to_break_it()
    {
        var id = await server.PictureAsync("DSC_0452.JPG");
        var variant = await MakeAsync(new { pictureId = id, destination = "website", slot = "grid-square", density = 2, format = (string?)null, quality = 100 });
        Assert.Equal("breaks", variant.GetProperty("verdict").GetString());
        Assert.Equal("over-weight", variant.GetProperty("reasons")[0].GetProperty("code").GetString());
    }

    [Fact]
    public async Task A_frame_by_hand_is_kept_shaped_and_undone()
    {
        var id = await server.PictureAsync("DSC_0440.JPG");
        var before = await server.Client.GetFromJsonAsync<JsonElement>($"/api/pictures/{id}/{Cover}");
        Assert.Equal("suggested", before.GetProperty("origin").GetString());
        var put = await server.Client.PutAsJsonAsync($"/api/pictures/{id}/{Cover}", new { frame = new[] { 0.1, 0.1, 0.6, 0.9 } });
        var set = await put.Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal("hand", set.GetProperty("origin").GetString());
        var frame = set.GetProperty("frame").EnumerateArray().Select(value => value.GetDouble()).ToArray();
        Assert.Equal(851.0 / 315, (frame[2] - frame[0]) * 6000 / ((frame[3] - frame[1]) * 4000), 9);
        var reset = await server.Client.DeleteAsync(At($"/api/pictures/{id}/{Cover}"));
        Assert.Equal(before.GetProperty("frame").GetRawText(), (await reset.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("frame").GetRawText());
    }

    [Theory]
    [InlineData("[0.2, 0.2, 0.2, 0.8]")]
    [InlineData("[0, 0, 2, 1]")]
    [InlineData("[0, 0, 1]")]
    [InlineData("[]")]
    public async Task A_frame_that_is_none_is_refused(string frame)
    {
        var id = await server.PictureAsync("DSC_0440.JPG");
        using var body = new StringContent($$"""{ "frame": {{frame}} }""", Encoding.UTF8, "application/json");
        var answer = await server.Client.PutAsync(At($"/api/pictures/{id}/{Cover}"), body);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Equal("bad-frame", (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("code").GetString());
    }

    [Theory]
    [InlineData("""{ "pictureId": "00000000-0000-0000-0000-000000000000", "destination": "shop", "slot": "listing", "density": 1, "format": null, "quality": null }""", HttpStatusCode.NotFound)]
    [InlineData("""{ "pictureId": "ID", "destination": "shop", "slot": "nowhere", "density": 1, "format": null, "quality": null }""", HttpStatusCode.NotFound)]
    [InlineData("""{ "pictureId": "ID", "destination": "shop", "slot": "listing", "density": 7, "format": null, "quality": null }""", HttpStatusCode.BadRequest)]
    [InlineData("""{ "pictureId": "ID", "destination": "shop", "slot": "listing", "density": 1, "format": null, "quality": 0 }""", HttpStatusCode.BadRequest)]
    [InlineData("""{ "pictureId": "ID", "destination": "shop", "slot": "listing", "density": 1, "format": "bmp", "quality": 5 }""", HttpStatusCode.BadRequest)]
    [InlineData("""{ "pictureId": """, HttpStatusCode.BadRequest)]
    public async Task A_wish_that_cannot_be_granted_is_refused_with_a_problem(string json, HttpStatusCode status)
    {
        var id = await server.PictureAsync("IMG_2102.jpg");
        using var body = new StringContent(json.Replace("ID\"", id + "\"", StringComparison.Ordinal), Encoding.UTF8, "application/json");
        var answer = await server.Client.PostAsync(At("/api/variants"), body);
        Assert.Equal(status, answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType?.MediaType);
    }

    [Fact]
    public async Task Rules_with_a_ratio_of_zero_are_refused_with_their_place()
    {
        using var body = new StringContent(
            """{ "schema": "pantomet-rules/1", "destinations": [ { "key": "d", "slots": [ { "key": "a", "size": { "ratio": 0 } } ] } ] }""", Encoding.UTF8, "application/json");
        var answer = await server.Client.PutAsync(At("/api/destinations"), body);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains("$.destinations[0].slots[0].size.ratio", (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("detail").GetString(), StringComparison.Ordinal);
    }

    private async Task<JsonElement> MakeAsync(object wish)
    {
        var answer = await server.Client.PostAsJsonAsync("/api/variants", wish);
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private static Uri At(string address) => new(address, UriKind.Relative);
}

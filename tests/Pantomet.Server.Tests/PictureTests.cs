using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;

namespace Pantomet.Server.Tests;

public sealed class PictureTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    [Fact]
    public async Task A_picture_is_read_in_with_its_facts_and_its_original_comes_back_byte_for_byte()
    {
        var bytes = await File.ReadAllBytesAsync(ServerFixture.DemoPicture("DSC_0431.JPG"));
        var answer = await server.SendAsync("rain gauge.jpg", bytes);
        Assert.Contains(answer.StatusCode, new[] { HttpStatusCode.Created, HttpStatusCode.OK });
        var picture = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("picture");
        // It is rotated by tag in the file; its size is told as displayed.
        Assert.Equal(
            (3000, 3750, 6),
            (
                picture.GetProperty("width").GetInt32(),
                picture.GetProperty("height").GetInt32(),
                picture.GetProperty("orientation").GetInt32()
            )
        );
        Assert.Equal(300, picture.GetProperty("ppi").GetDouble());
        var original = await server.Client.GetByteArrayAsync(
            new Uri($"/api/pictures/{picture.GetProperty("id")}/original", UriKind.Relative)
        );
        Assert.Equal(bytes, original);
    }

    [Fact]
    public async Task The_same_file_twice_is_recognised_even_at_the_same_moment()
    {
        var bytes = await File.ReadAllBytesAsync(ServerFixture.DemoPicture("weatherworks-mark.png"));
        var answers = await Task.WhenAll(Enumerable.Range(0, 4).Select(n => server.SendAsync($"mark-{n}.png", bytes)));
        Assert.All(answers, answer => Assert.True(answer.IsSuccessStatusCode));
        var intakes = await Task.WhenAll(answers.Select(answer => answer.Content.ReadFromJsonAsync<JsonElement>()));
        Assert.Single(intakes.Select(intake => intake.GetProperty("picture").GetProperty("id").GetString()).Distinct());
        Assert.True(intakes.Count(intake => !intake.GetProperty("alreadyHere").GetBoolean()) <= 1);
    }

    [Theory]
    [InlineData("page.jpg", "<!doctype html><p>Not found</p>", HttpStatusCode.UnprocessableEntity, "web page")]
    [InlineData("empty.jpg", "", HttpStatusCode.UnprocessableEntity, "empty")]
    [InlineData("letter.png", "Dear shop", HttpStatusCode.UnprocessableEntity, "not a picture of a known type")]
    [InlineData("../up.jpg", "x", HttpStatusCode.BadRequest, "path")]
    [InlineData("a\\b.jpg", "x", HttpStatusCode.BadRequest, "path")]
    [InlineData("bell\u0007.jpg", "x", HttpStatusCode.BadRequest, "control characters")]
    [InlineData(" ", "x", HttpStatusCode.BadRequest, "no name")]
    public async Task Bad_input_gets_a_sentence_and_leaves_nothing(string name, string content, HttpStatusCode status, string says) =>
        await AssertRefusedAsync(name, Encoding.UTF8.GetBytes(content), status, says);

    [Fact]
    public async Task A_file_cut_short_is_refused()
    {
        var bytes = await File.ReadAllBytesAsync(ServerFixture.DemoPicture("IMG_2102.jpg"));
        await AssertRefusedAsync("cut.jpg", bytes[..(bytes.Length * 2 / 3)], HttpStatusCode.UnprocessableEntity, "incomplete");
    }

    [Fact]
    public async Task A_file_over_the_limit_is_refused() =>
        await AssertRefusedAsync(
            "large.jpg",
            RandomNumberGenerator.GetBytes(ServerFixture.MostUploadBytes + 1),
            HttpStatusCode.RequestEntityTooLarge,
            "3 MB"
        );

    [Fact]
    public async Task A_file_over_the_limit_without_a_stated_length_is_refused()
    {
        using var stream = new MemoryStream(new byte[ServerFixture.MostUploadBytes + 1]);
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/pictures?name=large.jpg") { Content = new StreamContent(stream) };
        request.Headers.TransferEncodingChunked = true;
        var answer = await server.Client.SendAsync(request);
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, answer.StatusCode);
        AssertNothingLeft();
    }

    [Fact]
    public async Task An_upload_that_breaks_off_leaves_nothing_and_is_no_crash()
    {
        using (var line = new TcpClient("127.0.0.1", server.Client.BaseAddress!.Port))
        {
            await line.GetStream()
                .WriteAsync(
                    Encoding.ASCII.GetBytes(
                        $"POST /api/pictures?name=a.jpg HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: "
                            + $"100000\r\n\r\n{new string('x', 5000)}"
                    )
                );
            await Task.Delay(300);
        }

        for (var i = 0; i < 50 && Directory.GetFiles(Path.Combine(server.Data, "originals", "incoming")).Length > 0; i++)
        {
            await Task.Delay(100);
        }

        AssertNothingLeft();
        Assert.Empty(server.Log.Lines);
    }

    [Fact]
    public async Task Another_name_for_this_machine_gets_no_answer()
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/pictures");
        request.Headers.Host = "pictures.example";
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Client.SendAsync(request)).StatusCode);
    }

    [Theory]
    [InlineData("/api/pictures/00000000-0000-0000-0000-000000000000")]
    [InlineData("/api/pictures/00000000-0000-0000-0000-000000000000/original")]
    [InlineData("/api/pictures/00000000-0000-0000-0000-000000000000/preview/480")]
    [InlineData("/api/jobs/00000000-0000-0000-0000-000000000000")]
    [InlineData("/api/variants/nothing/file")]
    [InlineData("/api/variants/nothing/reference")]
    [InlineData("/api/pictures/nonsense")]
    public async Task What_does_not_exist_is_404_with_a_problem(string address)
    {
        var answer = await server.Client.GetAsync(new Uri(address, UriKind.Relative));
        Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType?.MediaType);
    }

    [Fact]
    public async Task The_server_says_that_it_is_ready() =>
        Assert.Equal("ready", await server.Client.GetStringAsync(new Uri("/healthz", UriKind.Relative)));

    [Fact]
    public async Task The_clients_description_of_the_interface_is_the_servers()
    {
        var live = await server.Client.GetStringAsync(new Uri("/openapi/v1.json", UriKind.Relative));
        var kept = await File.ReadAllTextAsync(Path.Combine(Cli.Installation.Root, "client", "openapi.json"));
        Assert.True(
            live.Trim() == kept.Trim(),
            "client/openapi.json is not what the server describes; run: ./pantomet openapi > client/openapi.json"
        );
    }

    private async Task AssertRefusedAsync(string name, byte[] bytes, HttpStatusCode status, string says)
    {
        var answer = await server.SendAsync(name, bytes);
        Assert.Equal(status, answer.StatusCode);
        var problem = await answer.Content.ReadFromJsonAsync<JsonElement>();
        Assert.Contains(says, problem.GetProperty("detail").GetString(), StringComparison.Ordinal);
        Assert.NotEqual("", problem.GetProperty("code").GetString());
        AssertNothingLeft();
        Assert.Empty(server.Log.Lines);
    }

    private void AssertNothingLeft() => Assert.Empty(Directory.GetFiles(Path.Combine(server.Data, "originals", "incoming")));
}

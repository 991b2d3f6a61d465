namespace Pantomet.Server.Tests;

/// <summary>Receivers that are slow, break off, lie, or answer something else.</summary>
public sealed partial class DeliveryTests
{
    [Theory]
    [InlineData("lies", "The receiver has 10 bytes of a file of ")]
    [InlineData("refuses", "Your proposed upload exceeds the maximum allowed size")]
    [InlineData("page", "The answer is not the answer of an object store.")]
    [InlineData("breaks", "The receiver closed the connection before it answered.")]
    public async Task A_store_is_believed_only_as_far_as_it_is_so(string kind, string sentence)
    {
        const string Close = "Connection: close\r\n\r\n";
        const string TooLarge =
            "<Error><Code>EntityTooLarge</Code><Message>Your proposed upload exceeds the maximum allowed size</Message></Error>";
        using var odd = new OddReceiver(
            (_, first) =>
                kind switch
                {
                    "lies" => $"HTTP/1.1 200 OK\r\nETag: \"a\"\r\nContent-Length: {(first[0] == 'H' ? 10 : 0)}\r\n{Close}",
                    "refuses" =>
                        $"HTTP/1.1 400 No\r\nContent-Type: application/xml\r\nContent-Length: {TooLarge.Length}\r\n{Close}{TooLarge}",
                    "page" => $"HTTP/1.1 404 No\r\nContent-Type: text/html\r\nContent-Length: 13\r\n{Close}<p>Nothing</p>",
                    _ => "",
                }
        );
        var (job, _) = await MadeJobAsync(["DSC_0412.JPG"], "website/grid-square");
        var store = await ReceiverAsync("s3", odd.Address, new { bucket = "skerry", user = "KEY" }, "secret");
        var file = Files(await SentAsync(job, store))[0];
        Assert.NotEqual("accepted", file.GetProperty("standing").GetString());
        Assert.StartsWith(sentence, Said(file)[0], StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("silent", "failed", "The receiver did not answer in time.")]
    [InlineData("breaks", "failed", "The receiver closed the connection before it answered.")]
    [InlineData(
        "page",
        "failed",
        "The receiver answered with a web page. The address is for people or asks to sign in; use the address for files."
    )]
    [InlineData("gibberish", "failed", "The answer is not HTTP.")]
    [InlineData("moved", "failed", "The receiver redirects, to http://elsewhere.example/. Use that address instead.")]
    [InlineData("stranger", "failed", "The user, password or token is wrong.")]
    public async Task A_receiver_that_cannot_take_files_is_told_in_a_sentence(string kind, string state, string sentence)
    {
        using var odd = new OddReceiver((_, _) => Answer(kind));
        var (job, _) = await MadeJobAsync(["DSC_0412.JPG"], "website/grid-square");
        var receiver = await ReceiverAsync("put", odd.Address, new { });
        var sent = await SentAsync(job, receiver);
        Assert.Equal(state, sent.GetProperty("state").GetString());
        Assert.StartsWith(sentence, sent.GetProperty("trouble").GetString() ?? Said(Files(sent)[0])[0], StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_receiver_that_fails_once_is_asked_again_and_one_file_that_fails_holds_up_no_other()
    {
        using var odd = new OddReceiver(
            (count, first) =>
                first.Contains("%402x", StringComparison.Ordinal)
                    ? "HTTP/1.1 503 Later\r\nContent-Length: 0\r\nRetry-After: 0\r\nConnection: close\r\n\r\n"
                : count == 1 ? ""
                : "HTTP/1.1 204 Fine\r\nConnection: close\r\n\r\n"
        );
        var (job, _) = await MadeJobAsync(["DSC_0412.JPG", "DSC_0452.JPG"], "website/grid-square");
        var sent = await SentAsync(job, await ReceiverAsync("put", odd.Address, new { }));
        foreach (var file in Files(sent))
        {
            var isLarge = file.GetProperty("path").GetString()!.Contains("@2x", StringComparison.Ordinal);
            Assert.Equal(isLarge ? "notDelivered" : "accepted", file.GetProperty("standing").GetString());
        }
    }

    [Theory]
    [InlineData(
        "HTTP/1.1 200 OK\r\nContent-Type: image/jpeg\r\nContent-Length: 5000000\r\nConnection: close\r\n\r\nshort",
        "The receiver closed the connection"
    )]
    [InlineData(
        "HTTP/1.1 200 OK\r\nContent-Type: image/jpeg\r\nContent-Length: 90000000000\r\nConnection: close\r\n\r\n",
        "The file that is shown weighs 90000 MB"
    )]
    [InlineData(
        "HTTP/1.1 200 OK\r\nContent-Type: text/html\r\nConnection: close\r\n\r\n<p>Here</p>",
        "The receiver shows a web page there"
    )]
    [InlineData(
        "HTTP/1.1 200 OK\r\nContent-Type: image/jpeg\r\nConnection: close\r\n\r\nno picture",
        "The file that is shown is not a picture"
    )]
    [InlineData("HTTP/1.1 410 Gone\r\nContent-Length: 0\r\nConnection: close\r\n\r\n", "The address where the file is shown answers 410")]
    public async Task What_a_receiver_shows_is_believed_only_as_far_as_it_is_so(string answer, string trouble)
    {
        using var odd = new OddReceiver(
            (_, first) =>
                first.StartsWith("POST", StringComparison.Ordinal)
                    ? "HTTP/1.1 201 Created\r\nLocation: /shown\r\nContent-Length: 0\r\nConnection: close\r\n\r\n"
                    : answer
        );
        var (job, _) = await MadeJobAsync(["DSC_0412.JPG"], "website/grid-square");
        var sent = await SentAsync(job, await ReceiverAsync("form", $"{odd.Address}/posts", new { }));
        foreach (var file in Files(sent))
        {
            Assert.Equal("accepted", file.GetProperty("standing").GetString());
            Assert.StartsWith(trouble, file.GetProperty("shown")[0].GetProperty("trouble").GetString(), StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task A_slow_receiver_holds_up_nobody_and_can_be_stopped_and_taken_away_meanwhile()
    {
        using var odd = new OddReceiver((_, _) => null);
        var (job, _) = await MadeJobAsync(["DSC_0412.JPG"], "website/grid-square");
        var slow = await ReceiverAsync("put", odd.Address, new { });
        var shop = await ReceiverAsync("put", "/shop/files", new { });
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{job}/deliveries/{slow}");
        Assert.Equal("done", (await SentAsync(job, shop)).GetProperty("state").GetString());
        Assert.Equal("waiting", (await ViewAsync(job, slow)).GetProperty("state").GetString());

        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{job}/deliveries/{slow}/stop");
        Assert.Equal("stopped", (await ViewAsync(job, slow)).GetProperty("state").GetString());
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{job}/deliveries/{slow}");
        await server.SendAsync(HttpMethod.Delete, $"/api/receivers/{slow}");
        Assert.DoesNotContain(
            (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}/deliveries")).EnumerateArray(),
            view => view.GetProperty("receiver").GetProperty("id").GetString() == slow
        );
    }

    [Fact]
    public async Task It_goes_on_after_a_restart_with_what_is_not_yet_there()
    {
        var hold = true;
        using var odd = new OddReceiver(
            (_, first) =>
                hold && first.Contains("%402x", StringComparison.Ordinal) ? null : "HTTP/1.1 204 Fine\r\nConnection: close\r\n\r\n"
        );
        var (job, _) = await MadeJobAsync(["DSC_0412.JPG"], "website/grid-square");
        var receiver = await ReceiverAsync("put", odd.Address, new { });
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{job}/deliveries/{receiver}");
        await UntilAsync(job, receiver, view => Files(view).Any(file => file.GetProperty("standing").GetString() == "accepted"));
        hold = false;
        await server.RestartAsync();
        var view = await UntilAsync(job, receiver, view => view.GetProperty("state").GetString() != "waiting");
        Assert.Equal("done", view.GetProperty("state").GetString());
        Assert.All(Files(view), file => Assert.Equal("accepted", file.GetProperty("standing").GetString()));
        // The first one was not sent again.
        Assert.Single(
            odd.Requests,
            first => first.StartsWith("PUT", StringComparison.Ordinal) && !first.Contains("%402x", StringComparison.Ordinal)
        );
    }

    private static string? Answer(string kind) =>
        kind switch
        {
            "silent" => null,
            "breaks" => "",
            "page" => "HTTP/1.1 200 OK\r\nContent-Type: text/html; charset=utf-8\r\nConnection: close\r\n\r\n<title>Sign in</title>",
            "gibberish" => "220 mail.example ESMTP\r\n",
            "moved" => "HTTP/1.1 301 Moved\r\nLocation: http://elsewhere.example/\r\nContent-Length: 0\r\nConnection: close\r\n\r\n",
            _ => "HTTP/1.1 401 Who\r\nContent-Length: 0\r\nConnection: close\r\n\r\n",
        };
}

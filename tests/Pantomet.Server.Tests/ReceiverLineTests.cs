using System.Net;
using System.Security.Cryptography;
using System.Text;
using Pantomet.Application;
using Pantomet.Application.Background;
using Pantomet.Core.Deliveries;
using Pantomet.Data;
using Pantomet.Deliveries;
using Pantomet.Tests.Shared;

namespace Pantomet.Server.Tests;

/// <summary>The lines to receivers alone, against a listener of the test or a folder: no server is started.</summary>
public sealed class ReceiverLineTests : IDisposable
{
    private readonly string _root = Directory.CreateTempSubdirectory("pantomet-lines-").FullName;
    private readonly HttpListener _listener;
    private readonly string _address;
    private readonly List<(string Method, string Path, string? Credentials, string Type, byte[] Body)> _asked = [];

    public ReceiverLineTests()
    {
        _listener = LoopbackHttp.Start(out var port);
        _address = $"http://127.0.0.1:{port}/drop/";
    }

    public void Dispose()
    {
        _listener.Close();
        Directory.Delete(_root, recursive: true);
    }

    [Fact]
    public async Task A_file_is_put_under_its_path_with_its_type_and_the_credentials()
    {
        var served = AnswerAsync(_ => { });
        await using var line = Http(ReceiverWay.Put, user: "shop", secret: "se cret");
        var handed = await line.HandAsync(File("rooms/lamp 1.jpg", "bytes of a lamp"), CancellationToken.None);
        await served;
        Assert.Equal(AnswerMeaning.Accepted, handed.Meaning);
        var (method, path, credentials, type, body) = Assert.Single(_asked);
        Assert.Equal(("PUT", "/drop/rooms/lamp%201.jpg", "image/jpeg"), (method, path, type));
        Assert.Equal("bytes of a lamp", Encoding.UTF8.GetString(body));
        // RFC 7617, 2.
        Assert.Equal($"Basic {Convert.ToBase64String("shop:se cret"u8)}", credentials);
        // Where nothing is said, what was put is likely to be shown where it was put.
        Assert.EndsWith("/drop/rooms/lamp%201.jpg", Assert.Single(handed.ShownAt).AbsoluteUri, StringComparison.Ordinal);
        Assert.False(handed.SaysWhere);
    }

    [Fact]
    public async Task A_secret_without_a_user_is_a_token()
    {
        var served = AnswerAsync(_ => { });
        await using var line = Http(ReceiverWay.Put, secret: "abc");
        await line.HandAsync(File("a.jpg", "x"), CancellationToken.None);
        await served;
        // RFC 6750, 2.1.
        Assert.Equal("Bearer abc", Assert.Single(_asked).Credentials);
    }

    [Fact]
    public async Task A_form_has_the_file_in_its_field_and_its_answer_says_what_is_shown()
    {
        var served = AnswerAsync(answer =>
            Write(answer, 201, "application/json", """{ "item": { "pictures": ["/seen/1.jpg", "/seen/2.jpg"] } }""")
        );
        await using var line = Http(ReceiverWay.Form, shownAt: "/item/pictures", field: "photo");
        var handed = await line.HandAsync(File("rooms/lamp.jpg", "bytes"), CancellationToken.None);
        await served;
        var (method, path, _, type, body) = Assert.Single(_asked);
        Assert.Equal(("POST", "/drop/"), (method, path));
        Assert.StartsWith("multipart/form-data", type, StringComparison.Ordinal);
        var text = Encoding.UTF8.GetString(body);
        Assert.Contains("name=\"photo\"", text, StringComparison.Ordinal);
        // The name alone: folders are not the form's.
        Assert.Contains("filename=\"lamp.jpg\"", text, StringComparison.Ordinal);
        Assert.Equal(["/seen/1.jpg", "/seen/2.jpg"], handed.ShownAt.Select(at => at.AbsolutePath));
        Assert.True(handed.SaysWhere);
    }

    [Theory]
    [InlineData(200, AnswerMeaning.Accepted)]
    [InlineData(204, AnswerMeaning.Accepted)]
    [InlineData(302, AnswerMeaning.Closed)]
    [InlineData(401, AnswerMeaning.Closed)]
    [InlineData(404, AnswerMeaning.Refused)]
    [InlineData(415, AnswerMeaning.Refused)]
    [InlineData(429, AnswerMeaning.Later)]
    [InlineData(503, AnswerMeaning.Later)]
    public async Task What_an_answer_means_follows_from_its_status(int status, AnswerMeaning meaning)
    {
        var served = AnswerAsync(answer => answer.StatusCode = status);
        await using var line = Http(ReceiverWay.Put);
        var handed = await line.HandAsync(File("a.jpg", "x"), CancellationToken.None);
        await served;
        Assert.Equal(meaning, handed.Meaning);
        Assert.Equal(meaning == AnswerMeaning.Accepted, handed.Said.Count == 0);
    }

    [Fact]
    public async Task The_words_of_a_refusal_and_the_time_to_wait_are_the_receivers()
    {
        var served = AnswerAsync(answer =>
        {
            answer.Headers["Retry-After"] = "7";
            Write(answer, 429, "application/problem+json", """{ "title": "Too many", "detail": "Ten pictures a minute are enough." }""");
        });
        await using var line = Http(ReceiverWay.Put);
        var handed = await line.HandAsync(File("a.jpg", "x"), CancellationToken.None);
        await served;
        Assert.Equal(TimeSpan.FromSeconds(7), handed.After);
        Assert.Contains(handed.Said, sentence => sentence.Contains("Ten pictures a minute are enough", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Nobody_there_is_a_sentence_and_another_try()
    {
        _listener.Stop();
        await using var line = Http(ReceiverWay.Put);
        var handed = await line.HandAsync(File("a.jpg", "x"), CancellationToken.None);
        Assert.Equal(AnswerMeaning.Later, handed.Meaning);
        Assert.NotEmpty(Assert.Single(handed.Said));
        Assert.False((await line.TryAsync(CancellationToken.None)).Reached);
    }

    [Fact]
    public async Task A_private_host_is_not_reached_by_a_server_that_is_open_to_others()
    {
        var options = new WorkOptions { Data = _root, ReachesPrivate = false };
        await using var line = new HttpLine(Rule(ReceiverWay.Put, _address), null, options);
        var handed = await line.HandAsync(File("a.jpg", "x"), CancellationToken.None);
        Assert.Equal(AnswerMeaning.Closed, handed.Meaning);
        Assert.Empty(_asked);
    }

    [Fact]
    public async Task What_is_shown_is_fetched_from_the_receivers_own_host_and_from_no_other()
    {
        var served = AnswerAsync(answer => Write(answer, 200, "image/jpeg", "shown"));
        await using var line = Http(ReceiverWay.Put);
        var fetched = await line.FetchAsync(new Uri(new Uri(_address), "/seen/1.jpg"), CancellationToken.None);
        await served;
        Assert.Equal(("shown", "image/jpeg"), (Encoding.UTF8.GetString(fetched.Bytes!), fetched.MediaType));
        var elsewhere = await line.FetchAsync(new Uri("http://127.0.0.1:9/seen/1.jpg"), CancellationToken.None);
        Assert.Null(elsewhere.Bytes);
        Assert.NotNull(elsewhere.Trouble);
        Assert.Single(_asked);
    }

    [Fact]
    public async Task A_folder_gets_files_whole_and_keeps_what_is_not_ours()
    {
        var folder = Path.Combine(_root, "share");
        Directory.CreateDirectory(folder);
        using var data = new DataFolder(Path.Combine(_root, "data"));
        var options = new WorkOptions { Data = data.Root, PictureFolders = [folder] };
        await using var line = new ReceiverLines(new AllowedFolders(options, data), options).Open(Rule(ReceiverWay.Folder, folder), null);
        Assert.True((await line.TryAsync(CancellationToken.None)).Reached);
        Assert.Equal(AnswerMeaning.Accepted, (await line.HandAsync(File("rooms/a.jpg", "first"), CancellationToken.None)).Meaning);
        Assert.Equal("first", await System.IO.File.ReadAllTextAsync(Path.Combine(folder, "rooms", "a.jpg")));
        // Ours of before is replaced; another's file of the name is not.
        var newer = File("rooms/a.jpg", "second") with
        {
            HeldHash = Hash("first"),
        };
        Assert.Equal(AnswerMeaning.Accepted, (await line.HandAsync(newer, CancellationToken.None)).Meaning);
        await System.IO.File.WriteAllTextAsync(Path.Combine(folder, "b.jpg"), "another's");
        Assert.Equal(AnswerMeaning.Refused, (await line.HandAsync(File("b.jpg", "ours"), CancellationToken.None)).Meaning);
        Assert.Equal("another's", await System.IO.File.ReadAllTextAsync(Path.Combine(folder, "b.jpg")));
        // Nothing half written is left.
        Assert.Equal(2, Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories).Count());
    }

    [Fact]
    public async Task A_folder_that_is_not_allowed_or_that_leads_out_gets_nothing()
    {
        var (folder, outside) = (Path.Combine(_root, "share"), Path.Combine(_root, "outside"));
        Directory.CreateDirectory(folder);
        Directory.CreateDirectory(outside);
        using var data = new DataFolder(Path.Combine(_root, "data"));
        var options = new WorkOptions { Data = data.Root, PictureFolders = [folder] };
        var lines = new ReceiverLines(new AllowedFolders(options, data), options);
        await using var forbidden = lines.Open(Rule(ReceiverWay.Folder, outside), null);
        Assert.Equal(AnswerMeaning.Closed, (await forbidden.HandAsync(File("a.jpg", "x"), CancellationToken.None)).Meaning);
        Directory.CreateSymbolicLink(Path.Combine(folder, "rooms"), outside);
        await using var line = lines.Open(Rule(ReceiverWay.Folder, folder), null);
        Assert.Equal(AnswerMeaning.Refused, (await line.HandAsync(File("rooms/a.jpg", "x"), CancellationToken.None)).Meaning);
        Assert.Empty(Directory.EnumerateFileSystemEntries(outside));
    }

    // Answers the next request, and remembers what was asked.
    private async Task AnswerAsync(Action<HttpListenerResponse> answer)
    {
        var context = await _listener.GetContextAsync();
        using var body = new MemoryStream();
        await context.Request.InputStream.CopyToAsync(body);
        _asked.Add(
            (
                context.Request.HttpMethod,
                context.Request.RawUrl!,
                context.Request.Headers["Authorization"],
                context.Request.ContentType ?? "",
                body.ToArray()
            )
        );
        answer(context.Response);
        context.Response.Close();
    }

    private static void Write(HttpListenerResponse answer, int status, string type, string body)
    {
        (answer.StatusCode, answer.ContentType) = (status, type);
        answer.OutputStream.Write(Encoding.UTF8.GetBytes(body));
    }

    private HttpLine Http(ReceiverWay way, string? user = null, string? secret = null, string? shownAt = null, string field = "file") =>
        new HttpLine(
            Rule(way, _address) with
            {
                User = user,
                ShownAt = shownAt,
                Field = field,
            },
            secret,
            new WorkOptions { Data = _root, LongestAnswer = TimeSpan.FromSeconds(20) }
        );

    private static ReceiverRule Rule(ReceiverWay way, string address) =>
        new()
        {
            Name = "A receiver",
            Way = way,
            Address = address,
        };

    private static Outgoing File(string path, string content) =>
        new(path, "image/jpeg", Encoding.UTF8.GetBytes(content), Hash(content), null);

    private static string Hash(string content) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(content)));
}

using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json;
using NetVips;
using Pantomet.Application.Background;
using Pantomet.Browsing;
using Pantomet.Core.PageChecks;
using Pantomet.Imaging.Tests.Support;
using Pantomet.PageChecks;
using Pantomet.Tests.Shared;

namespace Pantomet.Imaging.Tests;

/// <summary>Pages from outside, with known faults and known troubles.</summary>
public sealed class PageCheckTests : IDisposable
{
    private static readonly Screen[] Phone = [new(360, 1)];
    private static readonly PageLimits Short = new()
    {
        Loading = TimeSpan.FromSeconds(3),
        Settling = TimeSpan.FromSeconds(2),
        Answering = TimeSpan.FromSeconds(4),
    };

    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Fact]
    public void Each_known_fault_is_found_where_it_is_and_nowhere_else()
    {
        Picture("good.jpg", 300, 200, 60);
        Picture("large.jpg", 1500, 1000, 60);
        Picture("small.jpg", 120, 80, 60);
        Picture("heavy.jpg", 300, 200, 100);
        File.WriteAllText(_place.At("broken.jpg"), "no picture");
        Page(
            """
            <img id="good" src="good.jpg" width="300" height="200" alt="A vane">
            <img id="large" src="large.jpg" width="300" height="200" alt="">
            <img id="small" src="small.jpg" width="300" height="200" alt="">
            <img id="heavy" src="heavy.jpg" width="300" height="200" alt="">
            <img id="squashed" src="good.jpg?1" width="300" height="150" alt="">
            <img id="free" src="good.jpg?2" alt="" style="width: 300px">
            <img id="mute" src="good.jpg?3" width="300" height="200">
            <img id="late" src="good.jpg?4" width="300" height="200" alt="" loading="lazy" style="position: absolute; left: 0; top: 0">
            <div style="width: 640px; height: 3000px"></div>
            <img id="below" src="good.jpg?5" width="300" height="200" alt="">
            <img id="patient" src="good.jpg?6" width="300" height="200" alt="" loading="lazy">
            <img id="gone" src="gone.jpg" width="300" height="200" alt="" loading="lazy">
            <img id="broken" src="broken.jpg" width="300" height="200" alt="" loading="lazy">
            """
        );
        var report = Check("--viewports", "640", "--densities", "1");
        var codes = report
            .GetProperty("images")
            .EnumerateArray()
            .ToDictionary(image => image.GetProperty("where").GetString()!, image => Codes(image).Except(["old-type"]).ToArray());
        Assert.Equal([], codes["#good"]);
        Assert.Equal(["too-large"], codes["#large"]);
        Assert.Equal(["enlarged"], codes["#small"]);
        Assert.Equal(["heavy"], codes["#heavy"]);
        Assert.Equal(["squashed"], codes["#squashed"]);
        Assert.Equal(["no-size"], codes["#free"]);
        Assert.Equal(["no-alt"], codes["#mute"]);
        Assert.Equal(["lazy-first"], codes["#late"]);
        Assert.Equal(["eager-below"], codes["#below"]);
        Assert.Equal([], codes["#patient"]);
        Assert.Equal(["missing"], codes["#gone"]);
        Assert.Equal(["missing"], codes["#broken"]);

        // What it could weigh is the weight of a file that lies there, and looks as it should.
        var large = report.GetProperty("images").EnumerateArray().Single(image => image.GetProperty("where").GetString() == "#large");
        var made = Directory.GetFiles(_place.At("kept/made"), "*", SearchOption.AllDirectories).Select(file => new FileInfo(file).Length);
        Assert.Contains(large.GetProperty("possible").GetInt64(), made);
        Assert.Equal(1 - (300 * 200 / (1500.0 * 1000)), large.GetProperty("shown")[0].GetProperty("waste").GetDouble(), 3);
        Assert.Equal("640 4200", Programs.Identify("%w %h", _place.At("kept/page-640.png"))[..8]);
    }

    [Fact]
    public async Task A_screen_is_told_with_its_figures_and_its_picture_as_soon_as_it_is_measured()
    {
        Picture("a picture.jpg", 600, 400, 60);
        var file = new FileInfo(_place.At("site/a picture.jpg")).Length;
        Page("<img src=\"a%20picture.jpg\" alt=\"\"><div style=\"width:100%;height:900px\"></div>");
        var told = new List<(PageProgress Progress, bool Kept)>();
        var request = new PageCheckRequest
        {
            Page = _place.At("site"),
            Viewports = [360, 1280],
            Densities = [1, 2],
            Keep = _place.At("kept"),
        };
        await new PageRun(
            request,
            progress => told.Add((progress, progress.Screens.All(screen => File.Exists(_place.At($"kept/page-{screen.Viewport}.png")))))
        ).ExecuteAsync(CancellationToken.None);

        var measuring = told.Where(one => !one.Progress.Making).ToList();
        Assert.Equal([1, 2, 3, 4], measuring.Select(one => one.Progress.Screens.Count));
        Assert.Equal([1, 2, 3, 4], measuring.Select(one => one.Progress.Done));
        var screens = measuring[^1].Progress.Screens;
        Assert.Equal([(360, 1), (360, 2), (1280, 1), (1280, 2)], screens.Select(one => (one.Viewport, (int)one.Density)).Order());
        Assert.All(screens, screen => Assert.Equal(1, screen.Images));
        // The picture, and the few hundred bytes of the page itself.
        Assert.All(screens, screen => Assert.InRange(screen.Bytes, file, file + 2000));
        Assert.All(screens, screen => Assert.InRange(screen.Height, 1300, 1400));
        // What the first density shows is kept when it is told; only the other one of a width may come before it.
        Assert.True(measuring[^1].Kept);
        Assert.All(told.Where(one => one.Progress.Making), one => Assert.Equal(4, one.Progress.Screens.Count));
    }

    [Fact]
    public async Task A_page_is_the_same_in_every_form()
    {
        Picture("a picture.jpg", 600, 400, 60);
        Page("<img src=\"a%20picture.jpg\" alt=\"\"><div style=\"width:90px;height:60px;background:url('/a picture.jpg') 0/cover\"></div>");
        ZipFile.CreateFromDirectory(_place.At("site"), _place.At("page.zip"));
        var saved = $"""
            MIME-Version: 1.0
            Content-Type: multipart/related; type="text/html"; boundary="part"

            --part
            Content-Type: text/html
            Content-Location: http://harbour.example/index.html

            {File.ReadAllText(_place.At("site/index.html")).Replace("'/a picture.jpg'", "cid:one@here", StringComparison.Ordinal)}
            --part
            Content-Type: image/jpeg
            Content-Transfer-Encoding: base64
            Content-ID: <one@here>
            Content-Location: http://harbour.example/a%20picture.jpg

            {Convert.ToBase64String(File.ReadAllBytes(_place.At("site/a picture.jpg")), Base64FormattingOptions.InsertLineBreaks)}
            --part--
            """;
        _place.Write("page.mhtml", saved);
        using var server = new Listener(_place.At("site"));
        foreach (
            var form in (string[])
                [_place.At("site"), _place.At("site/index.html"), _place.At("page.zip"), _place.At("page.mhtml"), server.Address]
        )
        {
            using var source = await PageSource.OpenAsync(form, [], null, CancellationToken.None);
            var look = await LookAsync(source);
            Assert.Equal([ImageKind.Img, ImageKind.Background], look.Images.Select(image => image.Kind));
            Assert.Equal([(600.0, 400.0), (90.0, 60.0)], look.Images.Select(image => (image.Box.Width, image.Box.Height)));
            Assert.False(look.Images[0].Broken, form);
        }
    }

    [Fact]
    public async Task Nothing_but_the_pages_own_files_is_read()
    {
        using var server = new Listener(_place.Root);
        Directory.CreateDirectory(_place.At("site"));
        File.WriteAllText(_place.At("secret.txt"), "secret");
        File.CreateSymbolicLink(_place.At("site/link.jpg"), _place.At("secret.txt"));
        Page(
            $$"""
            <img src="../secret.txt" alt=""><img src="%2e%2e/secret.txt" alt=""><img src="link.jpg" alt="">
            <img src="file://{{_place.Root}}/secret.txt" alt=""><img src="{{server.Address}}a.jpg" alt="">
            <iframe src="{{server.Address}}"></iframe><link rel="preconnect" href="{{server.Address}}">
            <script>
              const told = (text) => { if (text.includes("secret")) document.body.append(Object.assign(new Image(), { src: "leaked.jpg" })); };
              for (const at of ["{{server.Address}}", "file://{{_place.Root}}/secret.txt", "/../secret.txt", "link.jpg"])
                fetch(at, { mode: "no-cors" }).then((answer) => answer.text()).then(told, () => {});
              new WebSocket("{{server.Address}}".replace("http", "ws"));
              navigator.sendBeacon("{{server.Address}}");
              open("{{server.Address}}");
              const peer = new RTCPeerConnection({ iceServers: [{ urls: "stun:127.0.0.1:{{server.Port}}" }] });
              peer.createDataChannel("a"); peer.createOffer().then((offer) => peer.setLocalDescription(offer));
            </script>
            """
        );
        using var source = await PageSource.OpenAsync(_place.At("site"), [], null, CancellationToken.None);
        var look = await LookAsync(source);
        Assert.Equal(0, server.Connections);
        Assert.All(look.Images, image => Assert.True(image.Broken));
        Assert.Equal(5, look.Images.Count);
        Assert.Contains(
            look.Notes,
            note => note.StartsWith($"The page loads files from 127.0.0.1:{server.Port}, which is not allowed", StringComparison.Ordinal)
        );

        // A host that is named is read; one of a private network is not where that is not allowed.
        using var named = await PageSource.OpenAsync(_place.At("site"), [$"127.0.0.1:{server.Port}"], null, CancellationToken.None);
        Assert.Equal(404, (await named.GetAsync(new($"{server.Address}a.jpg"), CancellationToken.None)).Status);
        Assert.True(server.Connections > 0);
        using var strict = await PageSource.OpenAsync(server.Address, [], [], CancellationToken.None);
        var refused = await strict.GetAsync(strict.Start, CancellationToken.None);
        Assert.Equal(0, refused.Status);
        Assert.Contains("private network", refused.Trouble, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("<script>while (true) {}</script>", "do not end")]
    [InlineData("<img src=\"/endless\"><p>words", "did not finish loading")]
    [InlineData("<script>location.href = '/index.html?' + Math.random()</script>", "opens other pages again and again by itself")]
    [InlineData("<script>alert(1); confirm(2); prompt(3); onbeforeunload = () => 1</script><img src=a.jpg>", "")]
    [InlineData("<a id=a href=/file.bin download>x</a><script>a.click()</script><img src=a.jpg>", "")]
    [InlineData("<script>location.href = '/file.bin'</script><img src=a.jpg>", "not a page but a file")]
    [InlineData("<iframe src=/index.html></iframe><img src=a.jpg>", "")]
    [InlineData("<img src=\"data:image/png;base64,%%%\"><img src=\"blob:nothing\"><img src=a.jpg>", "")]
    public async Task A_page_that_misbehaves_gets_a_sentence_and_ends(string page, string sentence)
    {
        var source = new Answers(page);
        var (seen, failed) = await new PageMeasurer(source, Short).LookAsync(
            Phone,
            new HashSet<Screen>(),
            _ => Task.CompletedTask,
            CancellationToken.None
        );
        var said = string.Join(' ', [.. failed, .. seen.SelectMany(look => look.Notes)]);
        Assert.Contains(sentence, said, StringComparison.Ordinal);
        if (sentence.Length == 0)
        {
            Assert.Equal("", said);
            Assert.Contains(seen[0].Images, image => image.Address.EndsWith("a.jpg", StringComparison.Ordinal));
        }
    }

    [Theory]
    [InlineData(2, "does not exist", "--page", "nowhere.html")]
    [InlineData(2, "--viewports takes numbers", "--page", ".", "--viewports", "12")]
    [InlineData(2, "--densities takes numbers", "--page", ".", "--densities", "x")]
    [InlineData(2, "--rate takes", "--page", ".", "--rate", "0")]
    [InlineData(2, "--allow takes a host", "--page", ".", "--allow", "a b")]
    [InlineData(2, "the folder of the report does not exist", "--page", ".", "--report", "nowhere/report.json")]
    [InlineData(1, "This is not a page", "--page", "words.txt")]
    [InlineData(1, "No page was found", "--page", "empty")]
    [InlineData(1, "damaged", "--page", "damaged.zip")]
    [InlineData(1, "no part of the file is HTML", "--page", "empty.mhtml")]
    public void A_wrong_call_gets_a_sentence(int code, string sentence, params string[] call)
    {
        Directory.CreateDirectory(_place.At("empty"));
        _place.Write("words.txt", "words");
        _place.Write("damaged.zip", "PK\x03\x04 nothing");
        _place.Write("empty.mhtml", "");
        string[] placed =
        [
            .. call.Select(word => word.Contains('.', StringComparison.Ordinal) || word == "empty" ? _place.At(word) : word),
        ];
        var answer = Programs.Pantomet(["page", .. placed]);
        Assert.Equal(code, answer.Code);
        Assert.Contains(sentence, answer.Error, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", answer.Error, StringComparison.Ordinal);
    }

    [Fact]
    [System.Runtime.Versioning.UnsupportedOSPlatform("windows")]
    public void A_browser_that_has_no_sandbox_here_is_told_as_that()
    {
        // As in a container that forbids user namespaces: it says so, closes its pipe, and is gone a moment later.
        var browser = _place.Write("browser", "#!/bin/sh\necho 'No usable sandbox!' >&2\nexec <&- >&- 3<&- 4>&-\nsleep 0.5\nexit 1\n");
        const UnixFileMode All = (UnixFileMode)0b111_101_101;
        File.SetUnixFileMode(browser, All);
        File.SetUnixFileMode(_place.Root, All);
        _place.Write("page.html", "<p>words");

        var answer = Programs.PantometWith(Chromium.Variable, browser, "page", "--page", _place.At("page.html"));

        Assert.Contains("Allow user namespaces", answer.Error, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("127.0.0.1", true)]
    [InlineData("::1", true)]
    [InlineData("::ffff:10.1.2.3", true)]
    [InlineData("169.254.169.254", true)]
    [InlineData("172.31.255.255", true)]
    [InlineData("fd00::1", true)]
    [InlineData("0.0.0.0", true)]
    [InlineData("172.32.0.1", false)]
    [InlineData("198.51.100.7", false)]
    [InlineData("2001:db8::1", false)]
    public void Addresses_of_private_networks_are_told_apart(string address, bool isPrivate) =>
        Assert.Equal(isPrivate, PrivateAddress.Is(IPAddress.Parse(address)));

    private static async Task<LookedAt> LookAsync(IPageFiles source)
    {
        var (seen, failed) = await new PageMeasurer(source, new()).LookAsync(
            Phone,
            new HashSet<Screen>(),
            _ => Task.CompletedTask,
            CancellationToken.None
        );
        Assert.Empty(failed);
        return Assert.Single(seen);
    }

    private JsonElement Check(params string[] options)
    {
        var report = _place.At("report.json");
        var answer = Programs.Pantomet(["page", "--page", _place.At("site"), "--report", report, "--keep", _place.At("kept"), .. options]);
        Assert.True(answer.Code == 0, answer.Error);
        return JsonDocument.Parse(File.ReadAllText(report)).RootElement;
    }

    private static IEnumerable<string> Codes(JsonElement image) =>
        image.GetProperty("faults").EnumerateArray().Select(fault => fault.GetProperty("code").GetString()!);

    private void Page(string body)
    {
        Directory.CreateDirectory(_place.At("site"));
        File.WriteAllText(
            _place.At("site/index.html"),
            $"<!doctype html><style>body {{ margin: 0; display: flex; flex-wrap: wrap; align-items: start }}</style>{body}"
        );
    }

    private void Picture(string name, int width, int height, int quality)
    {
        Directory.CreateDirectory(_place.At("site"));
        using var photograph = Image.Thumbnail(Workplace.Photographs[1], width, height: height, crop: Enums.Interesting.Centre);
        photograph.Jpegsave(Path.Combine(_place.At("site"), name), q: quality);
    }

    // A page in memory, with one picture that comes, one that never does, and a file that is no page.
    private sealed class Answers(string page) : IPageFiles
    {
        public Uri Start { get; } = new("http://page.test/index.html");

        public string Own => "http://page.test/";

        public async Task<PageAnswer> GetAsync(Uri address, CancellationToken cancel)
        {
            if (address.AbsolutePath == "/endless")
            {
                await Task.Delay(TimeSpan.FromMinutes(1), cancel);
            }

            return address.AbsolutePath switch
            {
                "/index.html" => PageAnswer.Of("text/html", Encoding.UTF8.GetBytes("<!doctype html>" + page)),
                "/file.bin" => PageAnswer.Of("application/octet-stream", [1, 2, 3]),
                _ => PageAnswer.None(404, "It is not there."),
            };
        }
    }

    // A small server over a folder that counts who comes.
    private sealed class Listener : IDisposable
    {
        private readonly HttpListener _http;
        private int _connections;

        public Listener(string folder)
        {
            _http = LoopbackHttp.Start(out var port);
            Port = port;
            _ = ServeAsync(folder);
        }

        public int Port { get; }

        public string Address => $"http://127.0.0.1:{Port}/";

        public int Connections => _connections;

        public void Dispose() => _http.Close();

        private async Task ServeAsync(string folder)
        {
            while (true)
            {
                HttpListenerContext asked;
                try
                {
                    asked = await _http.GetContextAsync();
                }
                catch (Exception closed) when (closed is ObjectDisposedException or HttpListenerException)
                {
                    return;
                }

                Interlocked.Increment(ref _connections);
                var path = Uri.UnescapeDataString(asked.Request.Url!.AbsolutePath).TrimStart('/');
                var file = Path.Combine(folder, path.Length == 0 ? "index.html" : path);
                asked.Response.StatusCode = File.Exists(file) ? 200 : 404;
                asked.Response.ContentType = file.EndsWith(".html", StringComparison.Ordinal) ? "text/html" : "image/jpeg";
                if (File.Exists(file))
                {
                    await asked.Response.OutputStream.WriteAsync(await File.ReadAllBytesAsync(file));
                }

                asked.Response.Close();
            }
        }
    }
}

using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text;
using Pantomet.Browsing;
using Pantomet.Core.PageChecks;
using Pantomet.PageChecks;
using Pantomet.Platform;

namespace Pantomet.Imaging.Tests;

/// <summary>Pages that mean harm: nothing of them gets out, nothing grows over its limit, and what could be measured is told.</summary>
public sealed class HostilePageTests
{
    private static readonly Screen[] Phone = [new(360, 1)];

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public async Task No_datagram_leaves_a_page(bool sharesNetwork)
    {
        using var ear = new UdpClient(new IPEndPoint(IPAddress.Any, 0));
        var port = ((IPEndPoint)ear.Client.LocalEndPoint!).Port;
        var addresses = Dns.GetHostAddresses(Dns.GetHostName())
            .Where(one => one.AddressFamily == AddressFamily.InterNetwork)
            .Append(IPAddress.Loopback);
        var servers = string.Join(
            ",",
            addresses.SelectMany(one => (string[])[$"\"stun:{one}:{port}\"", $"\"turn:{one}:{port}?transport=udp\""])
        );
        var source = new Pages(
            $$"""
            <iframe srcdoc="<script>parent.pc(window)</script>"></iframe><iframe id=f></iframe>
            <script>
              window.made = 0;
              window.pc = (w) => {
                try {
                  const peer = new w.RTCPeerConnection({ iceServers: [{ urls: [{{servers}}], username: "a", credential: "b" }] });
                  peer.createDataChannel("a"); peer.createOffer().then((offer) => peer.setLocalDescription(offer)); window.made++;
                } catch {}
              };
              pc(window); pc(f.contentWindow);
              try { new WebTransport("https://127.0.0.1:{{port}}/"); } catch {}
              const link = document.createElement("link"); link.rel = "dns-prefetch"; link.href = "//secret.example"; document.head.append(link);
              const worker = new Worker(URL.createObjectURL(new Blob(["try { new WebTransport('https://127.0.0.1:{{port}}/') } catch {}"])));
            </script><p style="height: 4000px">words
            """
        );
        Chromium.SharesNetwork = sharesNetwork;
        try
        {
            var (seen, failed) = await new PageMeasurer(source, new()).LookAsync(
                Phone,
                new HashSet<Screen>(),
                _ => Task.CompletedTask,
                CancellationToken.None
            );
            Assert.Empty(failed);
            Assert.Single(seen);
        }
        finally
        {
            Chromium.SharesNetwork = false;
        }

        await Task.Delay(300);
        Assert.Equal(0, ear.Available);
    }

    [Fact]
    public async Task A_page_sends_nothing_and_what_it_would_have_sent_is_not_asked_for_either()
    {
        var source = new Pages(
            """
            <img src="a.jpg" width=10 height=10><form id=f method=post action="/delete?all=1" target=t><input name=a></form><iframe name=t></iframe>
            <script>
              fetch("/cart/add", { method: "POST", body: "1" }); fetch("/cart/put", { method: "PUT", body: "1" });
              fetch("/cart/away", { method: "DELETE" }); navigator.sendBeacon("/beacon", "x");
              const old = new XMLHttpRequest(); old.open("POST", "/old"); old.send("x"); f.submit();
            </script>
            """
        );
        var (seen, failed) = await new PageMeasurer(source, new()).LookAsync(
            Phone,
            new HashSet<Screen>(),
            _ => Task.CompletedTask,
            CancellationToken.None
        );
        Assert.Empty(failed);
        Assert.Equal(["/a.jpg", "/index.html"], source.Asked.Distinct().Except(["/favicon.ico"]).Order(StringComparer.Ordinal));
        Assert.Equal(
            ["/a.jpg", "/index.html"],
            seen[0].Asked.Select(one => new Uri(one).AbsolutePath).Except(["/favicon.ico"]).Order(StringComparer.Ordinal)
        );
        Assert.Contains(seen[0].Notes, note => note.StartsWith("The page sends data", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("<script>const all = []; while (true) { const one = new Uint8Array(50e6); one.fill(1); all.push(one); }</script>")]
    [InlineData(
        "<script>const all = []; setInterval(() => { for (let i = 0; i < 20; i++) all.push(new Array(1e6).fill(i)); }, 0)</script>"
    )]
    [InlineData(
        "<script>const all = []; setInterval(() => { const one = document.createElement('canvas'); one.width = one.height = 8000; "
            + "const pen = one.getContext('2d'); pen.fillRect(0, 0, 8000, 8000); pen.getImageData(0, 0, 8000, 8000); all.push(one); }, 0)</script>"
    )]
    public async Task A_page_that_grows_without_end_is_held_and_ends(string page)
    {
        var source = new Pages(page);
        var limits = new PageLimits
        {
            MostBytes = 700_000_000,
            // On a busy machine it grows slowly: memory must end it, not the clock.
            Loading = TimeSpan.FromMinutes(2),
            Answering = TimeSpan.FromMinutes(2),
        };
        var (_, failed) = await new PageMeasurer(source, limits).LookAsync(
            [new(360, 1), new(360, 2)],
            new HashSet<Screen>(),
            _ => Task.CompletedTask,
            CancellationToken.None
        );
        Assert.NotEmpty(failed);
        Assert.Contains("more memory", failed[0].Why, StringComparison.Ordinal);
    }

    [Fact]
    public async Task All_processes_of_a_browser_together_take_no_more_than_they_may()
    {
        await using var chromium = await Chromium.StartAsync(700_000_000, CancellationToken.None);
        await using var page = await chromium.Browser.NewPageAsync();
        var growing = page.EvaluateExpressionAsync(
            "(() => { const all = []; while (true) { const one = new Uint8Array(20e6); one.fill(1); all.push(one); } })()"
        );
        var (most, clock) = (0L, Stopwatch.StartNew());
        while (!growing.IsCompleted && clock.Elapsed < TimeSpan.FromSeconds(30))
        {
            most = Math.Max(most, ProcessTree.Memory(chromium.ProcessId));
            await Task.Delay(20);
        }

        await Assert.ThrowsAnyAsync<PuppeteerSharp.PuppeteerException>(() => growing);
        Assert.True(chromium.Grew);
        // What is caught between two looks is the most that it grew beyond.
        Assert.InRange(most, 100_000_000, 1_000_000_000);
    }

    [Fact]
    public async Task Ten_thousand_pictures_are_measured()
    {
        var source = new Pages(string.Concat(Enumerable.Range(0, 10_000).Select(i => $"<img src=\"{i % 40}.jpg\" width=10 height=10>")));
        var clock = Stopwatch.StartNew();
        var (seen, failed) = await new PageMeasurer(source, new()).LookAsync(
            Phone,
            new HashSet<Screen>(),
            _ => Task.CompletedTask,
            CancellationToken.None
        );
        Assert.Empty(failed);
        Assert.Equal(10_000, seen[0].Images.Count);
        Assert.Equal(10_000, seen[0].Images.Select(image => image.Where).Distinct().Count());
    }

    private sealed class Pages(string page) : IPageFiles
    {
        public List<string> Asked { get; } = [];

        public Uri Start { get; } = new("http://page.test/index.html");

        public string Own => "http://page.test/";

        public Task<PageAnswer> GetAsync(Uri address, CancellationToken cancel)
        {
            lock (Asked)
            {
                Asked.Add(address.AbsolutePath);
            }

            return Task.FromResult(
                address.AbsolutePath == "/index.html"
                    ? PageAnswer.Of("text/html", Encoding.UTF8.GetBytes("<!doctype html>" + page))
                    : PageAnswer.None(404, "It is not there.")
            );
        }
    }
}

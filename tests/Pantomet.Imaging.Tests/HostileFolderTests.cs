using System.IO.Compression;
using System.Net;
using System.Runtime.Versioning;
using System.Text;
using Pantomet.Browsing;
using Pantomet.Imaging.Tests.Support;
using Pantomet.PageChecks;
using Pantomet.Tests.Shared;

namespace Pantomet.Imaging.Tests;

/// <summary>Folders and files that mean harm: pipes, links, archives that grow, hosts that are others.</summary>
[UnsupportedOSPlatform("windows")]
public sealed class HostileFolderTests : IDisposable
{
    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Fact]
    public void A_pipe_named_like_a_picture_holds_up_neither_mend_nor_site_nor_render()
    {
        Directory.CreateDirectory(_place.At("in"));
        Pipe("in/pipe.jpg");
        Pipe("in/page.html");
        File.Copy(_place.Quarters("a.png", 400, 400), _place.At("in/a.png"));
        var mend = Programs.Pantomet("mend", _place.At("in"), "--out", _place.At("lighter"));
        Assert.Equal(1, mend.Code);
        Assert.Contains(
            "pipe.jpg: The file cannot be read or written: \"pipe.jpg\" is not a regular file",
            mend.Error,
            StringComparison.Ordinal
        );
        Assert.True(File.Exists(_place.At("lighter/a.png")));

        var rules = _place.Rules("""{ "key": "a", "size": { "width": 100 } }""");
        var site = Programs.Pantomet("site", "--rules", rules, "--in", _place.At("in"), "--out", _place.At("site"));
        Assert.Equal(1, site.Code);
        Assert.Contains("pipe.jpg: \"pipe.jpg\" is not a regular file", site.Error, StringComparison.Ordinal);
        Assert.Contains("page.html: \"page.html\" is not a regular file", site.Error, StringComparison.Ordinal);
        Assert.True(File.Exists(_place.At("site/a.png")));

        var render = Programs.Pantomet("render", "--rules", rules, "--out", _place.Out, _place.At("in/pipe.jpg"), _place.At("in/a.png"));
        Assert.Equal(1, render.Code);
        Assert.Contains("not a regular file", render.Error, StringComparison.Ordinal);
        Assert.True(File.Exists(Path.Combine(_place.Out, "d/a-a.jpg")) || Directory.GetFiles(Path.Combine(_place.Out, "d")).Length == 1);
    }

    [Fact]
    public void Links_within_the_folder_of_a_copy_and_of_kept_originals_are_not_written_through()
    {
        Directory.CreateDirectory(_place.At("in/deep"));
        Directory.CreateDirectory(_place.At("outside"));
        File.Copy(Workplace.Photographs[0], _place.At("in/deep/a.jpg"));
        foreach (var folder in (string[])["site", "kept", "lighter"])
        {
            Directory.CreateDirectory(_place.At(folder));
            Directory.CreateSymbolicLink(_place.At($"{folder}/deep"), _place.At("outside"));
        }

        var before = File.ReadAllBytes(_place.At("in/deep/a.jpg"));
        var kept = Programs.Pantomet("mend", _place.At("in"), "--keep", _place.At("kept"), "--max-side", "300");
        Assert.Equal((1, before.Length), (kept.Code, File.ReadAllBytes(_place.At("in/deep/a.jpg")).Length));
        Assert.Contains("link", kept.Error, StringComparison.Ordinal);
        Assert.Equal(1, Programs.Pantomet("mend", _place.At("in"), "--out", _place.At("lighter"), "--max-side", "300").Code);
        var rules = _place.Rules("""{ "key": "a", "size": { "width": 100 } }""");
        Assert.Equal(1, Programs.Pantomet("site", "--rules", rules, "--in", _place.At("in"), "--out", _place.At("site")).Code);
        Assert.Empty(Directory.EnumerateFileSystemEntries(_place.At("outside")));
    }

    [Fact]
    public void A_link_within_the_folder_of_rendered_files_is_not_written_through()
    {
        Directory.CreateDirectory(_place.At("outside"));
        Directory.CreateDirectory(_place.Out);
        Directory.CreateSymbolicLink(Path.Combine(_place.Out, "d"), _place.At("outside"));
        var rules = _place.Rules("""{ "key": "a", "size": { "width": 100 } }""");
        var answer = Programs.Pantomet("render", "--rules", rules, "--out", _place.Out, _place.Quarters("a.png", 200, 100));
        Assert.NotEqual(0, answer.Code);
        Assert.Contains("link", answer.Error, StringComparison.Ordinal);
        Assert.Empty(Directory.EnumerateFileSystemEntries(_place.At("outside")));
    }

    [Fact]
    public async Task An_archive_that_grows_is_held_while_it_is_read()
    {
        using (var zip = ZipFile.Open(_place.At("page.zip"), ZipArchiveMode.Create))
        {
            await AddAsync(zip, "index.html", Encoding.UTF8.GetBytes("<img src=bomb.jpg><img src=ok.svg>"));
            await AddAsync(zip, "bomb.jpg", new byte[40_000_000]);
            await AddAsync(zip, "large.jpg", new byte[70_000_000]);
            await AddAsync(zip, "ok.svg", Encoding.UTF8.GetBytes(string.Concat(Enumerable.Repeat("<path d='M0 0L1 1'/>\n", 2_000))));
        }

        using var source = await PageSource.OpenAsync(_place.At("page.zip"), [], null, CancellationToken.None);
        var bomb = await AskAsync(source, "bomb.jpg");
        Assert.Equal((403, 0), (bomb.Status, bomb.Body.Length));
        Assert.Contains("compressed more than any normal file", bomb.Trouble, StringComparison.Ordinal);
        Assert.Equal(413, (await AskAsync(source, "large.jpg")).Status);
        Assert.Equal(200, (await AskAsync(source, "ok.svg")).Status);
    }

    [Fact]
    public async Task A_page_reads_its_own_port_and_no_other_of_its_host()
    {
        using var page = new Host("page");
        using var secret = new Host("secret");
        using var own = await PageSource.OpenAsync(page.Address, [], null, CancellationToken.None);
        Assert.Equal(200, (await own.GetAsync(own.Start, CancellationToken.None)).Status);
        Assert.Equal(0, (await own.GetAsync(new(secret.Address), CancellationToken.None)).Status);
        Assert.Equal(0, (await own.GetAsync(new($"http://127.0.0.1/"), CancellationToken.None)).Status);
        // A name without a port allows the web's two, wherever it leads; its other ports are others' business.
        using var files = await PageSource.OpenAsync(Page(), ["localhost"], null, CancellationToken.None);
        Assert.Contains(
            "not an allowed host",
            (await files.GetAsync(new($"http://localhost:{secret.Port}/"), CancellationToken.None)).Trouble,
            StringComparison.Ordinal
        );
        Assert.Equal(0, secret.Asked);
    }

    [Fact]
    public async Task What_is_private_is_read_only_where_it_was_named_so()
    {
        using var host = new Host("page");
        // Where others use the server nobody's word is enough but its owner's.
        using var refused = await PageSource.OpenAsync(host.Address, [], [], CancellationToken.None);
        Assert.Contains(
            "private network",
            (await refused.GetAsync(refused.Start, CancellationToken.None)).Trouble,
            StringComparison.Ordinal
        );
        using var other = await PageSource.OpenAsync(host.Address, [], [$"127.0.0.1"], CancellationToken.None);
        Assert.Equal(0, (await other.GetAsync(other.Start, CancellationToken.None)).Status);
        Assert.Equal(0, host.Asked);
        using var named = await PageSource.OpenAsync(host.Address, [], [$"127.0.0.1:{host.Port}"], CancellationToken.None);
        Assert.Equal(200, (await named.GetAsync(named.Start, CancellationToken.None)).Status);
    }

    private static Task<PageAnswer> AskAsync(PageSource source, string path) =>
        source.GetAsync(new(source.Start, path), CancellationToken.None);

    private string Page()
    {
        Directory.CreateDirectory(_place.At("page"));
        _place.Write("page/index.html", "<p>words");
        return _place.At("page");
    }

    private void Pipe(string path) => Programs.Checked("mkfifo", _place.At(path));

    private static async Task AddAsync(ZipArchive zip, string name, byte[] bytes)
    {
        await using var entry = await zip.CreateEntry(name, CompressionLevel.SmallestSize).OpenAsync();
        await entry.WriteAsync(bytes);
    }

    // A host of one page that counts who comes.
    private sealed class Host : IDisposable
    {
        private readonly HttpListener _http;
        private int _asked;

        public Host(string words)
        {
            _http = LoopbackHttp.Start(out var port);
            Port = port;
            _ = ServeAsync(words);
        }

        public int Port { get; }

        public string Address => $"http://127.0.0.1:{Port}/";

        public int Asked => _asked;

        public void Dispose() => _http.Close();

        private async Task ServeAsync(string words)
        {
            try
            {
                while (true)
                {
                    var asked = await _http.GetContextAsync();
                    Interlocked.Increment(ref _asked);
                    asked.Response.ContentType = "text/html";
                    await asked.Response.OutputStream.WriteAsync(Encoding.UTF8.GetBytes($"<p>{words}"));
                    asked.Response.Close();
                }
            }
            catch (Exception closed) when (closed is ObjectDisposedException or HttpListenerException)
            {
                // The test ended.
            }
        }
    }
}

using System.Net;
using System.Net.Http.Headers;
using System.Net.Sockets;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Keeping;
using Pantomet.Data;

namespace Pantomet.Server.Tests;

/// <summary>Nothing outside is touched, nothing waits without end, and nothing goes out under a hash that it does not have.</summary>
public sealed class HeldTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    [Theory]
    [InlineData("c/d", "c/d")]
    [InlineData("c", "c/d")]
    [InlineData("c/d", "c")]
    public async Task What_a_link_leads_to_that_took_a_folders_place_is_not_touched(string scanned, string swapped)
    {
        var root = Path.Combine(server.Pictures, $"swap-{Guid.NewGuid():N}");
        var outside = Directory.CreateTempSubdirectory("pantomet-outside-").FullName;
        var picture = await File.ReadAllBytesAsync(ServerFixture.DemoPicture("barometer-from-chat.jpg"));
        foreach (var folder in (string[])[Path.Combine(root, "c/d"), outside, Path.Combine(outside, "d")])
        {
            Directory.CreateDirectory(folder);
            await File.WriteAllBytesAsync(Path.Combine(folder, "a.jpg"), picture);
        }

        var id = (await server.SendAsync(HttpMethod.Post, "/api/folders", new { folder = Path.Combine(root, scanned) }))
            .GetProperty("id")
            .GetString()!;
        await ReadyAsync(id);
        Directory.Move(Path.Combine(root, swapped), Path.Combine(root, "aside"));
        Directory.CreateSymbolicLink(Path.Combine(root, swapped), outside);
        await server.SendAsync(HttpMethod.Post, $"/api/folders/{id}/optimise", new { maxSide = 200, likeness = 0.5 });
        var after = await ReadyAsync(id);
        Assert.All(
            (string[])[Path.Combine(outside, "a.jpg"), Path.Combine(outside, "d/a.jpg")],
            path => Assert.Equal(picture, File.ReadAllBytes(path))
        );
        Assert.Equal(0, after.GetProperty("outcome").GetProperty("mended").GetInt32());
        if (scanned != "c")
        {
            Assert.Contains("link", after.GetProperty("trouble").GetString()!, StringComparison.Ordinal);
        }

        await server.SendAsync(HttpMethod.Delete, $"/api/folders/{id}");
        Directory.Delete(outside, recursive: true);
    }

    [Fact]
    public async Task A_pipe_named_like_a_picture_stops_no_scan()
    {
        var root = Path.Combine(server.Pictures, "pipes");
        Directory.CreateDirectory(root);
        File.Copy(ServerFixture.DemoPicture("barometer-from-chat.jpg"), Path.Combine(root, "a.jpg"));
        using (var made = System.Diagnostics.Process.Start("mkfifo", Path.Combine(root, "pipe.jpg")))
        {
            await made.WaitForExitAsync();
        }

        var id = (await server.SendAsync(HttpMethod.Post, "/api/folders", new { folder = root })).GetProperty("id").GetString()!;
        var figures = (await ReadyAsync(id)).GetProperty("figures");
        Assert.Equal((2, 1), (figures.GetProperty("count").GetInt32(), figures.GetProperty("unread").GetInt32()));
        await server.SendAsync(HttpMethod.Delete, $"/api/folders/{id}");
    }

    [Fact]
    public async Task A_flipped_byte_never_goes_out_under_the_old_hash()
    {
        var (job, pictures) = await server.FreshJobAsync(["barometer-from-chat.jpg"], ["newsletter/aside"]);
        await server.MadeAsync(job);
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{job}/publication", new { path = (string?)null });
        var addresses = await server.SendAsync(HttpMethod.Get, $"/api/pictures/{pictures[0]}/live-addresses");
        var address = new Uri(addresses[0].GetString()!, UriKind.Relative);
        var (whole, hash) = await FetchAsync(address);
        var path = server.Services.GetRequiredService<DataFolder>().Variants.PathOf(hash);

        // The length is the same, and so is the time that is shown: only the file system's own count tells.
        var time = File.GetLastWriteTimeUtc(path);
        Damage(path);
        File.SetLastWriteTimeUtc(path, time);
        var (again, tag) = await FetchAsync(address);
        // Made again it may weigh a little more or less.
        Assert.InRange(again.Length, whole.Length * 9 / 10, whole.Length * 11 / 10);
        Assert.True(server.Services.GetRequiredService<DataFolder>().Variants.Holds(tag));

        // Known before a restart, damaged while nobody looked: found when it is first opened.
        await server.RestartAsync();
        Damage(server.Services.GetRequiredService<DataFolder>().Variants.PathOf(tag));
        await FetchAsync(address);

        // Where the original is damaged too it is an error, not a file of whatever type.
        foreach (var file in server.Services.GetRequiredService<DataFolder>().Variants.Names().ToList())
        {
            Damage(file.Path);
        }

        var original = await OriginalAsync(pictures[0]);
        Damage(original);
        using (var refused = await server.Client.GetAsync(address))
        {
            Assert.Equal(HttpStatusCode.NotFound, refused.StatusCode);
        }

        using (var refused = await server.Client.GetAsync(new Uri($"/api/pictures/{pictures[0]}/original", UriKind.Relative)))
        {
            Assert.Equal(HttpStatusCode.Gone, refused.StatusCode);
        }

        // The same file again mends it, and what is live with it.
        await server.PictureAsync("barometer-from-chat.jpg");
        await FetchAsync(address);
        await server.SendAsync(HttpMethod.Delete, $"/api/jobs/{job}/publication");
    }

    [Fact]
    public async Task The_slow_check_has_damaged_files_made_again_and_names_damaged_originals()
    {
        var (job, pictures) = await server.FreshJobAsync(["DSC_0412.JPG"], ["newsletter/aside"]);
        await server.MadeAsync(job);
        var folder = server.Services.GetRequiredService<DataFolder>();
        var row = await QueryAsync(db => db.Variants.FirstAsync(one => one.PictureId == Guid.Parse(pictures[0])));
        Damage(folder.Variants.PathOf(row.ContentHash));
        var sweep = server.Services.GetRequiredService<IntegritySweep>();
        await sweep.RunAsync(CancellationToken.None);
        await server.MadeAsync(job);
        var now = await QueryAsync(db => db.Variants.SingleAsync(one => one.Id == row.Id));
        Assert.True(await folder.Variants.CheckAsync(now.ContentHash, null, CancellationToken.None));
        Assert.True(sweep.View().Remade >= 1);
        Assert.Equal(sweep.View().Of, sweep.View().Checked);
        Assert.NotNull(sweep.View().FinishedAt);
        Assert.Empty(sweep.View().DamagedOriginals);

        var original = await OriginalAsync(pictures[0]);
        var bytes = await File.ReadAllBytesAsync(original);
        Damage(original);
        await sweep.RunAsync(CancellationToken.None);
        var storage = await server.SendAsync(HttpMethod.Get, "/api/storage");
        var damaged = storage.GetProperty("integrity").GetProperty("damagedOriginals")[0];
        Assert.Equal(("DSC_0412.JPG", null), (damaged.GetProperty("name").GetString(), damaged.GetProperty("backup").GetString()));
        await File.WriteAllBytesAsync(original, bytes);
        await sweep.RunAsync(CancellationToken.None);
        Assert.Empty(sweep.View().DamagedOriginals);
    }

    [Fact]
    public async Task A_removed_picture_stays_live_until_it_is_withdrawn_with_it()
    {
        var (job, pictures) = await server.FreshJobAsync(["glass-falling-chart.png"], ["newsletter/aside"]);
        await server.MadeAsync(job);
        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{job}/publication", new { path = (string?)null });
        var addresses = await server.SendAsync(HttpMethod.Get, $"/api/pictures/{pictures[0]}/live-addresses");
        var address = new Uri(Assert.Single(addresses.EnumerateArray()).GetString()!, UriKind.Relative);
        await server.SendAsync(HttpMethod.Delete, $"/api/pictures/{pictures[0]}");
        Assert.Equal(HttpStatusCode.OK, (await server.Client.GetAsync(address)).StatusCode);
        await server.SendAsync(HttpMethod.Post, $"/api/pictures/{pictures[0]}/restore");
        await server.SendAsync(HttpMethod.Delete, $"/api/pictures/{pictures[0]}?unpublish=true");
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.GetAsync(address)).StatusCode);
        Assert.Empty((await server.SendAsync(HttpMethod.Get, $"/api/pictures/{pictures[0]}/live-addresses")).EnumerateArray());
    }

    [Theory]
    [InlineData("POST /api/pictures?name=a.jpg", "image/jpeg")]
    [InlineData("POST /api/jobs", "application/json")]
    public async Task A_sender_that_sends_a_burst_and_then_nothing_is_given_up(string line, string type)
    {
        using var client = new TcpClient();
        var host = server.Client.BaseAddress!;
        await client.ConnectAsync(host.Host, host.Port);
        await using var stream = client.GetStream();
        var head = $"{line} HTTP/1.1\r\nHost: {host.Authority}\r\nContent-Type: {type}\r\nContent-Length: 1500000\r\n\r\n";
        await stream.WriteAsync(Encoding.ASCII.GetBytes(head));
        // By its mean over all of it this would be fast enough for minutes.
        await stream.WriteAsync(Encoding.ASCII.GetBytes(new string(' ', 400_000)));
        using var limit = new CancellationTokenSource(TimeSpan.FromSeconds(10));
        var part = new byte[4096];
        var read = await stream.ReadAsync(part, limit.Token);
        Assert.StartsWith("HTTP/1.1 408", Encoding.ASCII.GetString(part, 0, read), StringComparison.Ordinal);
        while (await stream.ReadAsync(part, limit.Token) > 0) { }
        Assert.Empty(server.Services.GetRequiredService<DataFolder>().Originals.HalfFiles());
    }

    [Theory]
    [InlineData("")]
    [InlineData(null)]
    public async Task A_lost_database_beside_originals_is_no_new_folder(string? content)
    {
        var data = Directory.CreateTempSubdirectory("pantomet-lost-").FullName;
        Directory.CreateDirectory(Path.Combine(data, "originals/ab"));
        var original = Path.Combine(data, "originals/ab", new string('0', 62));
        await File.WriteAllTextAsync(original, "a picture");
        if (content is not null)
        {
            await File.WriteAllTextAsync(Path.Combine(data, "pantomet.db"), content);
        }

        var fault = await Assert.ThrowsAsync<InvalidDataException>(() => PantometServer.BuildAsync(new() { Data = data, Port = 0 }));
        Assert.Contains("Put a backup copy of pantomet.db there", fault.Message, StringComparison.Ordinal);
        Assert.True(File.Exists(original));
        Directory.Delete(data, recursive: true);
    }

    [Fact]
    public async Task A_broken_key_file_is_named()
    {
        var data = Directory.CreateTempSubdirectory("pantomet-keys-").FullName;
        Directory.CreateDirectory(Path.Combine(data, "keys"));
        await File.WriteAllTextAsync(Path.Combine(data, "keys/key-1.xml"), "<key");
        var fault = await Assert.ThrowsAsync<InvalidDataException>(() => PantometServer.BuildAsync(new() { Data = data, Port = 0 }));
        Assert.Contains("key-1.xml is damaged", fault.Message, StringComparison.Ordinal);
        Directory.Delete(data, recursive: true);
    }

    private Task<JsonElement> ReadyAsync(string id) =>
        server.UntilAsync($"/api/folders/{id}", view => view.GetProperty("state").GetString() == "ready");

    private async Task<(byte[] Bytes, string Hash)> FetchAsync(Uri address)
    {
        using var answer = await server.Client.GetAsync(address);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var bytes = await answer.Content.ReadAsByteArrayAsync();
        var hash = answer.Headers.ETag!.Tag.Trim('"');
        Assert.Equal(Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(bytes)), hash);
        return (bytes, hash);
    }

    private async Task<string> OriginalAsync(string picture)
    {
        var row = await QueryAsync(db => db.Pictures.SingleAsync(one => one.Id == Guid.Parse(picture)));
        return server.Services.GetRequiredService<DataFolder>().Originals.PathOf(row.ContentHash);
    }

    private static void Damage(string path)
    {
        var bytes = File.ReadAllBytes(path);
        bytes[bytes.Length / 2] ^= 0x10;
        File.WriteAllBytes(path, bytes);
    }

    private async Task<T> QueryAsync<T>(Func<PantometDb, Task<T>> query)
    {
        await using var scope = server.Services.CreateAsyncScope();
        return await query(scope.ServiceProvider.GetRequiredService<PantometDb>());
    }
}

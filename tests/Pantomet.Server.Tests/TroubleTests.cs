using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Bundles;
using Pantomet.Application.Engine;
using Pantomet.Application.Jobs;
using Pantomet.Application.Keeping;
using Pantomet.Application.Pictures;
using Pantomet.Data;
using Pantomet.Imaging.Hosting;
using Pantomet.Imaging.Reading;

namespace Pantomet.Server.Tests;

/// <summary>What is given up in the middle, by a person, a disk or a drawing, leaves nothing half done.</summary>
public sealed class TroubleTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    private const string Square = "website/grid-square";

    [Fact]
    public async Task Requests_given_up_in_the_middle_are_stored_whole_or_not_at_all()
    {
        var picture = await server.PictureAsync("barometer-from-chat.jpg");
        var id = await server.JobAsync([picture], [Square], "stopped", anew: true);
        var random = new Random(5);
        for (var i = 0; i < 150; i++)
        {
            using var cancel = new CancellationTokenSource(TimeSpan.FromMilliseconds(random.NextDouble() * 6));
            try
            {
                var commands = new object[]
                {
                    new
                    {
                        @do = "give-words",
                        picture,
                        keywords = $"words {i}",
                    },
                    new
                    {
                        @do = "give-words",
                        picture,
                        alternative = $"words {i}",
                    },
                };
                using var answer = await server.Client.PostAsJsonAsync(
                    new Uri($"/api/jobs/{id}/commands", UriKind.Relative),
                    new { commands },
                    cancel.Token
                );
            }
            catch (OperationCanceledException)
            {
                // It may have been stored all the same.
            }
        }

        // The last of them may still be under way.
        await Task.Delay(500);
        var before = (await server.JobAsync(id)).GetProperty("head");
        var decisions = before.GetProperty("pictures")[0].GetProperty("decisions");
        Assert.StartsWith("words ", decisions.GetProperty("keywords").GetString());
        Assert.Equal(decisions.GetProperty("keywords").GetString(), decisions.GetProperty("alternative").GetString());
        // What the memory says is what the tables say.
        await server.RestartAsync();
        var after = (await server.JobAsync(id)).GetProperty("head");
        Assert.Equal(before.GetProperty("sequence").GetInt64(), after.GetProperty("sequence").GetInt64());
        Assert.Equal(decisions.GetRawText(), after.GetProperty("pictures")[0].GetProperty("decisions").GetRawText());
    }

    [Fact]
    public async Task A_bundle_that_is_given_up_in_the_middle_is_no_delivery()
    {
        var picture = await server.PictureAsync("DSC_0423.JPG");
        var id = await server.JobAsync([picture], [Square, "website/opening-medium"], anew: true);
        await server.MadeAsync(id);
        var board = (await server.Services.GetRequiredService<JobRoom>().OpenAsync(Guid.Parse(id), CancellationToken.None))!;
        await using var scope = server.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        var contents = await BundleContents.OfAsync(db, board, CancellationToken.None);
        var writer = server.Services.GetRequiredService<BundleWriter>();
        await Assert.ThrowsAsync<IOException>(() => writer.WriteZipAsync(contents, new GivenUp(20_000), CancellationToken.None));
        Assert.Equal(0, await db.Deliveries.CountAsync(row => row.JobId == Guid.Parse(id)));
        await writer.WriteZipAsync(contents, new MemoryStream(), CancellationToken.None);
        Assert.Equal(1, await db.Deliveries.CountAsync(row => row.JobId == Guid.Parse(id)));
    }

    [Fact]
    public async Task A_picture_that_is_read_in_while_it_is_swept_keeps_its_original()
    {
        var sweep = server.Services.GetRequiredService<RemovalSweep>();
        var folder = server.Services.GetRequiredService<DataFolder>();
        // A small one: how they meet does not depend on its size.
        var drawing = Encoding.UTF8.GetBytes(
            """<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30"><rect width="9" height="9"/></svg>"""
        );
        async Task<Guid> ReadInAsync()
        {
            using var answer = await server.SendAsync("swept.svg", drawing);
            answer.EnsureSuccessStatusCode();
            return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("picture").GetProperty("id").GetGuid();
        }

        for (var i = 0; i < 25; i++)
        {
            var id = await ReadInAsync();
            await server.SendAsync(HttpMethod.Delete, $"/api/pictures/{id}");
            await WithDbAsync(db =>
                db.Pictures.Where(row => row.Id == id).ExecuteUpdateAsync(set => set.SetProperty(row => row.RemovedDays, 99))
            );
            var sweeping = Task.Run(() => sweep.SweepAsync(CancellationToken.None));
            var again = await ReadInAsync();
            await sweeping;
            var row = await WithDbAsync(db => db.Pictures.SingleAsync(row => row.Id == again));
            Assert.Null(row.RemovedAt);
            Assert.True(folder.Originals.Holds(row.ContentHash, row.Bytes), $"round {i}");
        }
    }

    [Fact]
    public async Task What_was_left_half_written_is_gone_after_a_start()
    {
        var folder = server.Services.GetRequiredService<DataFolder>();
        string[] left = [Path.Combine(folder.Previews, "abc-480.webp.part"), folder.Scratch()];
        foreach (var path in left)
        {
            await File.WriteAllTextAsync(path, "half");
        }

        await server.RestartAsync();
        Assert.All(left, path => Assert.False(File.Exists(path), path));
    }

    [Fact]
    public async Task On_a_full_disk_people_are_told_and_everything_is_made_once_there_is_room()
    {
        using var disk = new SmallDisk();
        await using var app = await PantometServer.BuildAsync(
            new() { Data = disk.Path, Port = 0 },
            builder => builder.Logging.ClearProviders()
        );
        await app.StartAsync();
        using var client = new HttpClient
        {
            BaseAddress = new(app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First()),
        };
        var pictures = new List<string>();
        foreach (var name in new[] { "IMG_2102.jpg", "IMG_2109.jpg" })
        {
            using var content = new ByteArrayContent(ServerFixture.SmallPicture(name));
            using var answer = await client.PostAsync(new Uri($"/api/pictures?name={name}", UriKind.Relative), content);
            var read = await answer.Content.ReadFromJsonAsync<JsonElement>();
            pictures.Add(read.GetProperty("picture").GetProperty("id").GetString()!);
        }

        disk.Fill();
        var slots = new[] { "grid-square", "opening-medium", "thumbnail" }.Select(slot => new { destination = "website", slot });
        // Deciding needs a little room, making needs more.
        disk.Give(900_000);
        using var made = await client.PostAsJsonAsync(
            new Uri("/api/jobs", UriKind.Relative),
            new
            {
                name = "Full",
                pictures,
                slots,
            }
        );
        var id = (await made.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString();
        disk.Fill();
        using (var content = new ByteArrayContent(await File.ReadAllBytesAsync(ServerFixture.DemoPicture("DSC_0440.JPG"))))
        {
            using var refused = await client.PostAsync(new Uri("/api/pictures?name=third.jpg", UriKind.Relative), content);
            Assert.Equal(HttpStatusCode.InsufficientStorage, refused.StatusCode);
            Assert.Contains("full", await refused.Content.ReadAsStringAsync(), StringComparison.OrdinalIgnoreCase);
        }

        var start = await Assert.ThrowsAsync<InvalidDataException>(() =>
            PantometServer.BuildAsync(new() { Data = Path.Combine(disk.Path, "second"), Port = 0 })
        );
        Assert.Contains("full", start.Message, StringComparison.OrdinalIgnoreCase);
        await Task.Delay(2500);
        Assert.Equal("ready", await client.GetStringAsync(new Uri("/healthz", UriKind.Relative)));
        disk.Empty();
        for (var i = 0; ; i++)
        {
            var progress = (await client.GetFromJsonAsync<JsonElement>(new Uri($"/api/jobs/{id}", UriKind.Relative))).GetProperty(
                "progress"
            );
            if (progress.GetProperty("done").GetInt32() == progress.GetProperty("files").GetInt32())
            {
                break;
            }

            Assert.True(i < 400, progress.GetRawText());
            await Task.Delay(200);
        }
    }

    [Fact]
    public async Task A_drawing_that_takes_too_long_is_refused_with_a_sentence_and_the_next_picture_is_read()
    {
        using var content = new ByteArrayContent(Encoding.UTF8.GetBytes(NestedMasks(14)));
        using var answer = await server.Client.PostAsync(new Uri("/api/pictures?name=masks.svg", UriKind.Relative), content);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Contains(DrawingTime.Refusal[..60], await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        using var plain = new ByteArrayContent(Encoding.UTF8.GetBytes(NestedMasks(2)));
        using var read = await server.Client.PostAsync(new Uri("/api/pictures?name=plain.svg", UriKind.Relative), plain);
        Assert.Equal(HttpStatusCode.Created, read.StatusCode);
    }

    [Fact]
    public async Task A_line_that_nobody_foresaw_has_its_answer_and_the_next_order_is_carried_out()
    {
        var said = new StringWriter();
        var before = Console.Error;
        Console.SetError(said);
        try
        {
            var outcomes = new StringWriter();
            var good = RequestLine.Write<ImagingRequest>(new ReadRequest(ServerFixture.DemoPicture("barometer-from-chat.jpg")));
            await RequestLine.ServeAsync(new StringReader($"nonsense\n{{\"work\":\"unknown\",\"path\":\"x\"}}\n{good}\n"), outcomes);
            var lines = outcomes
                .ToString()
                .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Select(RequestLine.Read<ImagingResponse>)
                .ToList();
            Assert.Equal(
                [ImagingFailure.Unforeseen, ImagingFailure.Unforeseen, (ImagingFailure?)null],
                lines.Select(response => response.Failure)
            );
            Assert.NotNull(lines[2].Facts);
        }
        finally
        {
            Console.SetError(before);
        }

        Assert.Contains("JsonException", said.ToString(), StringComparison.Ordinal);
    }

    private static string NestedMasks(int depth)
    {
        var text = new StringBuilder("""<svg xmlns="http://www.w3.org/2000/svg" width="900" height="600">""").Append(
            """<mask id="m0"><rect width="900" height="600" fill="#fff"/></mask>"""
        );
        for (var i = 1; i <= depth; i++)
        {
            text.Append(
                $"""
                <mask id="m{i}"><rect width="900" height="600" fill="#fff" mask="url(#m{i - 1})"/>
                <rect width="450" height="600" fill="#ccc" mask="url(#m{i - 1})"/></mask>
                """
            );
        }

        return text.Append($"""<rect width="900" height="600" fill="#246" mask="url(#m{depth})"/></svg>""").ToString();
    }

    private async Task<T> WithDbAsync<T>(Func<PantometDb, Task<T>> work)
    {
        await using var scope = server.Services.CreateAsyncScope();
        return await work(scope.ServiceProvider.GetRequiredService<PantometDb>());
    }

    /// <summary>Somebody who closes the connection after so many bytes.</summary>
    private sealed class GivenUp(long after) : Stream
    {
        private long _written;

        public override bool CanRead => false;

        public override bool CanSeek => false;

        public override bool CanWrite => true;

        public override long Length => throw new NotSupportedException();

        public override long Position
        {
            get => throw new NotSupportedException();
            set => throw new NotSupportedException();
        }

        public override void Flush() { }

        public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException();

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count)
        {
            _written += count;
            if (_written > after)
            {
                throw new IOException("The connection was closed.");
            }
        }
    }

    /// <summary>A disk of 24 MB in memory. It takes the rights to mount one.</summary>
    private sealed class SmallDisk : IDisposable
    {
        private const int Size = 24_000_000;

        public SmallDisk() => Run("mount", "-t", "tmpfs", "-o", $"size={Size}", "pantomet", Path);

        public string Path { get; } = Directory.CreateTempSubdirectory("pantomet-disk-").FullName;

        private string Filler => System.IO.Path.Combine(Path, "filler");

        public void Fill() => Run("sh", "-c", $"cat /dev/zero >> '{Filler}' 2>/dev/null; true");

        public void Give(long bytes)
        {
            using var file = new FileStream(Filler, FileMode.Open);
            file.SetLength(file.Length - bytes);
        }

        public void Empty() => File.Delete(Filler);

        public void Dispose()
        {
            SqliteConnection.ClearAllPools();
            Run("umount", "-l", Path);
            Directory.Delete(Path);
        }

        private static void Run(string program, params string[] arguments)
        {
            using var process = Process.Start(new ProcessStartInfo(program, arguments))!;
            process.WaitForExit();
            Assert.True(process.ExitCode == 0, $"{program} {string.Join(' ', arguments)}: {process.ExitCode}");
        }
    }
}

using System.Diagnostics;
using System.IO.Compression;
using System.Net;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Pantomet.Application.Engine;
using Pantomet.Application.Jobs;
using Pantomet.Application.Keeping;
using Pantomet.Application.Pictures;
using Pantomet.Data;

namespace Pantomet.Server.Tests;

/// <summary>
/// Damage, locks, kills and changes in the middle: nothing stops the server, nothing stays unmade without a word, nothing damaged
/// goes out.
/// </summary>
public sealed class FaultTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    private const string Square = "website/grid-square";
    private static readonly string[] Names = ["IMG_2102.jpg", "IMG_2109.jpg", "DSC_0423.JPG", "barometer-from-chat.jpg"];

    [Fact]
    public async Task Pictures_taken_out_and_put_in_while_they_are_made_stop_nothing()
    {
        var (id, pictures) = await server.FreshJobAsync(Names, [Square, "website/opening-medium", "social/cover"], "running");
        for (var i = 0; i < 25; i++)
        {
            await Task.WhenAll(
                server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/pictures/remove", new[] { pictures[i % 4] }),
                server.SendAsync(HttpMethod.Put, $"/api/jobs/{id}/viewport", new { pictures, slots = new[] { Square } }),
                server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/pictures", new[] { pictures[(i + 1) % 4] })
            );
        }

        await server.SendAsync(HttpMethod.Post, $"/api/jobs/{id}/pictures", pictures);
        var made = (await server.MadeAsync(id)).GetProperty("progress");
        Assert.Equal((20, 0), (made.GetProperty("done").GetInt32(), made.GetProperty("failed").GetInt32()));
        await AgreesAsync(id);
    }

    [Fact]
    public async Task A_file_that_is_short_or_gone_is_made_again_when_it_is_met_and_the_bundle_is_whole()
    {
        var (id, _) = await server.FreshJobAsync(["barometer-from-chat.jpg"], [Square, "website/thumbnail"], "running");
        await server.MadeAsync(id);
        var files = Files(await server.JobAsync(id));
        var folder = server.Services.GetRequiredService<DataFolder>();
        var rows = await QueryAsync(db => db.Variants.Where(row => files.Contains(row.Id)).ToListAsync());
        await File.WriteAllBytesAsync(folder.Variants.PathOf(rows[0].ContentHash), []);
        File.Delete(folder.Variants.PathOf(rows[1].ContentHash));
        var spoilt = await File.ReadAllBytesAsync(folder.Variants.PathOf(rows[2].ContentHash));
        spoilt[^5] ^= 1;
        await File.WriteAllBytesAsync(folder.Variants.PathOf(rows[2].ContentHash), spoilt);
        var bundle = await server.Client.GetByteArrayAsync(new Uri($"/api/jobs/{id}/bundle.zip", UriKind.Relative));
        using var zip = new ZipArchive(new MemoryStream(bundle));
        // The rows say what is there now, and that is what went out.
        rows = await QueryAsync(db => db.Variants.Where(row => files.Contains(row.Id)).ToListAsync());
        Assert.Equal(
            rows.Select(row => row.Bytes).Order(),
            zip.Entries.Where(entry => entry.FullName.EndsWith(".jpg", StringComparison.Ordinal)).Select(entry => entry.Length).Order()
        );
        Assert.All(rows, row => Assert.True(row.Bytes > 1000 && folder.Variants.Holds(row.ContentHash, row.Bytes)));
    }

    [Fact]
    public async Task A_damaged_original_is_not_handed_out_and_the_same_bytes_mend_it()
    {
        var picture = await server.PictureAsync("glass-falling-chart.png");
        var row = await QueryAsync(db => db.Pictures.SingleAsync(one => one.Id == Guid.Parse(picture)));
        var path = server.Services.GetRequiredService<DataFolder>().Originals.PathOf(row.ContentHash);
        await File.WriteAllBytesAsync(path, []);
        var address = new Uri($"/api/pictures/{picture}/original", UriKind.Relative);
        Assert.Equal(HttpStatusCode.Gone, (await server.Client.GetAsync(address)).StatusCode);
        await server.PictureAsync("glass-falling-chart.png");
        Assert.Equal(row.Bytes, (await server.Client.GetByteArrayAsync(address)).LongLength);
    }

    [Fact]
    public async Task A_database_that_is_locked_for_a_while_leaves_nothing_unmade()
    {
        var (id, pictures) = await server.FreshJobAsync(Names, [Square, "newsletter/aside"], "running");
        var folder = server.Services.GetRequiredService<DataFolder>();
        await using (var other = new SqliteConnection($"{folder.ConnectionString};Pooling=False"))
        {
            await other.OpenAsync();
            await using var begin = other.CreateCommand();
            begin.CommandText = "BEGIN EXCLUSIVE";
            await begin.ExecuteNonQueryAsync();
            // Whoever decides meanwhile is told, and nothing is half decided.
            using var words = new StringContent(
                JsonSerializer.Serialize(
                    new
                    {
                        commands = new[]
                        {
                            new
                            {
                                @do = "give-words",
                                picture = pictures[0],
                                keywords = "locked out",
                            },
                        },
                    }
                ),
                null,
                "application/json"
            );
            using var answer = await server.Client.PostAsync(new Uri($"/api/jobs/{id}/commands", UriKind.Relative), words);
            Assert.Equal(HttpStatusCode.ServiceUnavailable, answer.StatusCode);
            await Task.Delay(4000);
        }

        var made = (await server.MadeAsync(id)).GetProperty("progress");
        Assert.Equal(made.GetProperty("files").GetInt32(), made.GetProperty("done").GetInt32());
        Assert.DoesNotContain("locked out", (await server.JobAsync(id)).GetRawText(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Imaging_processes_that_are_killed_cost_a_try_and_not_the_file()
    {
        var (id, _) = await server.FreshJobAsync(
            ["DSC_0412.JPG", "DSC_0431.JPG", "IMG_2081.jpg"],
            ["website/full-width", "shop/listing", Square],
            "running"
        );
        var engine = server.Services.GetRequiredService<ImagingProcessPool>();
        for (var i = 0; i < 6; i++)
        {
            await Task.Delay(250);
            foreach (var process in engine.ProcessIds)
            {
                using var kill = Process.Start("kill", $"-KILL {process}");
                await kill.WaitForExitAsync();
            }
        }

        for (var i = 0; i < 1200; i++)
        {
            var progress = (await server.JobAsync(id)).GetProperty("progress");
            if (progress.GetProperty("done").GetInt32() == progress.GetProperty("files").GetInt32())
            {
                await AgreesAsync(id);
                Assert.Contains(server.Log.Lines, line => line.Contains("is tried again", StringComparison.Ordinal));
                return;
            }

            await Task.Delay(100);
        }

        Assert.Fail("Files were not made after their processes were killed.");
    }

    [Fact]
    public async Task A_removed_picture_that_is_read_in_again_comes_back_to_its_jobs_and_by_no_other_way()
    {
        var (id, pictures) = await server.FreshJobAsync(["IMG_2087.jpg", "P1050233.JPG"], [Square], "stopped");
        await server.SendAsync(HttpMethod.Delete, $"/api/pictures/{pictures[0]}");
        var bytes = ServerFixture.SmallPicture("IMG_2087.jpg");
        using var replaced = await server.Client.PostAsync(
            new Uri($"/api/pictures/{pictures[1]}/revisions?name=a.jpg", UriKind.Relative),
            new ByteArrayContent(bytes)
        );
        Assert.Equal(HttpStatusCode.Conflict, replaced.StatusCode);
        Assert.Single((await server.JobAsync(id)).GetProperty("cells").EnumerateArray());
        var before = (await server.JobAsync(id)).GetProperty("head").GetProperty("sequence").GetInt64();
        Assert.Equal(pictures[0], await server.PictureAsync("IMG_2087.jpg"));
        var after = await server.JobAsync(id);
        Assert.Equal(2, after.GetProperty("cells").GetArrayLength());
        Assert.True(after.GetProperty("head").GetProperty("sequence").GetInt64() > before);
    }

    [Fact]
    public async Task A_clock_that_jumps_counts_as_one_day()
    {
        var picture = await server.PictureAsync("DSC_0415.JPG");
        await server.SendAsync(HttpMethod.Delete, $"/api/pictures/{picture}");
        var clock = new ShiftedClock();
        var sweep = new RemovalSweep(server.Services.GetRequiredService<Writer>(), server.Services.GetRequiredService<DataFolder>(), clock);
        await sweep.SweepAsync(CancellationToken.None);
        clock.Days = 31;
        Assert.Equal(0, await sweep.SweepAsync(CancellationToken.None));
        Assert.Equal(0, await sweep.SweepAsync(CancellationToken.None));
        for (var day = 0; day < Revisions.GraceDays - 2; day++)
        {
            clock.Days++;
            Assert.Equal(0, await sweep.SweepAsync(CancellationToken.None));
        }

        clock.Days++;
        Assert.Equal(1, await sweep.SweepAsync(CancellationToken.None));
    }

    [Fact]
    public async Task A_bundle_counts_as_delivered_once_it_was_sent_and_each_delivery_stays()
    {
        var (id, _) = await server.FreshJobAsync(["barometer-from-chat.jpg"], [Square], "running");
        await server.MadeAsync(id);
        Task<List<int>> NumbersAsync() =>
            QueryAsync(db =>
                db.Deliveries.Where(row => row.JobId == Guid.Parse(id)).OrderBy(row => row.Number).Select(row => row.Number).ToListAsync()
            );
        using (var socket = new HttpRequestMessage(HttpMethod.Get, $"/api/jobs/{id}/hand-over"))
        {
            await server.Client.SendAsync(socket);
        }

        Assert.Empty(await NumbersAsync());
        for (var n = 1; n <= 2; n++)
        {
            await server.Client.GetByteArrayAsync(new Uri($"/api/jobs/{id}/bundle.zip", UriKind.Relative));
        }

        Assert.Equal([1, 2], await NumbersAsync());
    }

    [Fact]
    public async Task A_moved_data_folder_still_shows_what_a_file_is_compared_with()
    {
        var (id, pictures) = await server.FreshJobAsync(["barometer-from-chat.jpg"], [Square], "stopped");
        var file = (await server.TryAsync(id, pictures[0], Square, "jpeg", 71)).GetProperty("file").GetProperty("id").GetString();
        var recipe = await QueryAsync(db => db.Variants.Where(row => row.Id == file).Select(row => row.Recipe).SingleAsync());
        Assert.DoesNotContain(server.Data, recipe, StringComparison.Ordinal);
        Assert.True((await server.Client.GetByteArrayAsync(new Uri($"/api/variants/{file}/reference", UriKind.Relative))).Length > 1000);
    }

    [Fact]
    public async Task A_page_that_is_too_slow_is_cut_off_instead_of_missing_something()
    {
        var (id, _) = await server.FreshJobAsync(["barometer-from-chat.jpg"], [Square], "stopped");
        var board = (await server.Services.GetRequiredService<JobRoom>().OpenAsync(Guid.Parse(id), CancellationToken.None))!;
        var channel = board.Listen();
        var told = new JobEvent(1, null, null, null, null, [], false, new(0, 0, 0, 0, 0, null), Data.Jobs.RunState.Stopped);
        for (var i = 0; i < 5000; i++)
        {
            board.Tell(told);
        }

        var read = 0;
        while (channel.Reader.TryRead(out _))
        {
            read++;
        }

        Assert.InRange(read, 1, 4999);
        Assert.True(channel.Reader.Completion.IsCompleted);
        Assert.False(board.IsLookedAt);
    }

    [Fact]
    public async Task A_second_server_on_a_folder_and_a_database_of_a_later_version_are_told_in_a_sentence()
    {
        var second = await Assert.ThrowsAsync<InvalidDataException>(() =>
            PantometServer.BuildAsync(new() { Data = server.Data, Port = 0 })
        );
        Assert.Contains("is open in another Pantomet", second.Message, StringComparison.Ordinal);
        var later = Directory.CreateTempSubdirectory("pantomet-later-").FullName;
        await using (var app = await PantometServer.BuildAsync(new() { Data = later, Port = 0 }))
        {
            await using var scope = app.Services.CreateAsyncScope();
            await scope
                .ServiceProvider.GetRequiredService<PantometDb>()
                .Database.ExecuteSqlRawAsync("INSERT INTO __EFMigrationsHistory VALUES ('29990101000000_Later', '99.0')");
        }

        var refused = await Assert.ThrowsAsync<InvalidDataException>(() => PantometServer.BuildAsync(new() { Data = later, Port = 0 }));
        Assert.Contains("newer version", refused.Message, StringComparison.Ordinal);
        SqliteConnection.ClearAllPools();
        Directory.Delete(later, recursive: true);
    }

    [Fact]
    public async Task A_damaged_database_is_told_in_a_sentence_and_left_as_it_is()
    {
        var folder = Directory.CreateTempSubdirectory("pantomet-damaged-").FullName;
        var database = Path.Combine(folder, "pantomet.db");
        await File.WriteAllTextAsync(database, string.Concat(Enumerable.Repeat("This is no database. ", 500)));
        var refused = await Assert.ThrowsAsync<InvalidDataException>(() => PantometServer.BuildAsync(new() { Data = folder, Port = 0 }));
        Assert.Contains("is damaged and was not changed", refused.Message, StringComparison.Ordinal);
        Assert.Equal(10_500, new FileInfo(database).Length);
        SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    // What is counted must be what a count gives.
    private async Task AgreesAsync(string id)
    {
        var key = Guid.Parse(id);
        var row = await QueryAsync(db => db.Jobs.SingleAsync(job => job.Id == key));
        var wants = await QueryAsync(db => db.Wants.Where(want => want.JobId == key).ToListAsync());
        Assert.Equal(
            (wants.Count, wants.Count(want => want.State == Data.Jobs.WantRow.Made), wants.Sum(want => want.Bytes)),
            (row.Files, row.Done, row.Bytes)
        );
        Assert.Equal(0, row.Left);
        var cells = await QueryAsync(db => db.Cells.CountAsync(cell => cell.JobId == key && cell.ToReview != ""));
        Assert.Equal(cells, row.ToReview);
    }

    private async Task<T> QueryAsync<T>(Func<PantometDb, Task<T>> query)
    {
        await using var scope = server.Services.CreateAsyncScope();
        return await query(scope.ServiceProvider.GetRequiredService<PantometDb>());
    }

    private static List<string> Files(JsonElement job) =>
        [
            .. job.GetProperty("cells")
                .EnumerateArray()
                .SelectMany(cell => cell.GetProperty("files").EnumerateArray())
                .Select(file => file.GetProperty("id").GetString()!)
                .Distinct(),
        ];

    private sealed class ShiftedClock : TimeProvider
    {
        public int Days { get; set; }

        public override DateTimeOffset GetUtcNow() => base.GetUtcNow().AddDays(Days);
    }
}

using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Keeping;
using Pantomet.Application.Variants;
using Pantomet.Data;
using Pantomet.Data.Variants;

namespace Pantomet.Server.Tests;

/// <summary>What nothing wants any more is collected, the least recently wanted first; what is wanted never is.</summary>
public sealed class KeepingTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    private static readonly string[] Slots = ["website/grid-square", "website/thumbnail", "social/cover"];

    [Fact]
    public async Task The_least_recently_wanted_goes_first_and_what_is_wanted_stays()
    {
        var (job, rows) = await MadeAsync("barometer-from-chat.jpg");
        await UntickAsync(job, "website/grid-square", "website/thumbnail");
        var unwanted = await QueryAsync(db =>
            db.Variants.Where(row => row.PictureId == rows[0].PictureId && !db.Wants.Any(want => want.FileId == row.Id)).ToListAsync()
        );
        Assert.True(unwanted.Count >= 2 && unwanted.Count < rows.Count);
        await AgeAsync(rows);
        for (var i = 0; i < unwanted.Count; i++)
        {
            var (id, day) = (unwanted[i].Id, DateTime.UtcNow.Date.AddDays(-i));
            await QueryAsync(db =>
                db.Variants.Where(row => row.Id == id).ExecuteUpdateAsync(set => set.SetProperty(row => row.WantedAt, day))
            );
        }

        // There is room for all of them but one byte.
        var storage = await StorageAsync(unwanted.Sum(row => row.Bytes) - 1);
        Assert.Equal(unwanted.SkipLast(1).Sum(row => row.Bytes), storage.GetProperty("unwanted").GetInt64());
        var kept = await QueryAsync(db => db.Variants.Where(row => row.PictureId == rows[0].PictureId).Select(row => row.Id).ToListAsync());
        Assert.Equal(rows.Select(row => row.Id).Except([unwanted[^1].Id]).Order(), kept.Order());
        Assert.False(Folder.Variants.Holds(unwanted[^1].ContentHash));
        Assert.False(File.Exists(server.Services.GetRequiredService<VariantStore>().SmallPath(unwanted[^1].ContentHash)));

        var collected = await server.SendAsync(HttpMethod.Post, "/api/storage/collect");
        Assert.True(collected.GetProperty("files").GetInt32() >= unwanted.Count - 1);
        Assert.All(
            rows.Where(row => unwanted.All(one => one.Id != row.Id)),
            row => Assert.True(Folder.Variants.Holds(row.ContentHash, row.Bytes))
        );

        // Wanted again, it is made again.
        await server.CommandAsync(job, new { @do = "add-slots", slots = Slots });
        var progress = (await server.MadeAsync(job)).GetProperty("progress");
        Assert.Equal(rows.Count, progress.GetProperty("done").GetInt32());
        await server.SendAsync(HttpMethod.Put, "/api/storage", new { mostUnwanted = UnusedFileCollector.UsualMost });
    }

    [Fact]
    public async Task A_file_without_a_row_and_a_small_copy_of_what_is_gone_are_collected_once_they_are_old()
    {
        var hash = await Folder.Variants.StoreAsync("nobody's"u8.ToArray(), CancellationToken.None);
        var other = await Folder.Variants.StoreAsync("about to get its row"u8.ToArray(), CancellationToken.None);
        var preview = Path.Combine(Folder.Previews, $"{new string('a', 64)}-480.webp");
        await File.WriteAllTextAsync(preview, "old");
        Old(preview);
        var picture = await server.PictureAsync("DSC_0423.JPG");
        var content = await QueryAsync(db =>
            db.Pictures.Where(row => row.Id == Guid.Parse(picture)).Select(row => row.ContentHash).SingleAsync()
        );
        var (seen, forgotten) = (
            Path.Combine(Folder.Previews, $"{content}-480.webp"),
            Path.Combine(Folder.Previews, $"{content}-480-1.webp")
        );
        await File.WriteAllTextAsync(seen, "looked at");
        await File.WriteAllTextAsync(forgotten, "of a turn that was tried");
        File.SetLastWriteTimeUtc(seen, DateTime.UtcNow.AddDays(-29));
        File.SetLastWriteTimeUtc(forgotten, DateTime.UtcNow.AddDays(-31));
        Old(Folder.Variants.PathOf(hash));
        await server.SendAsync(HttpMethod.Post, "/api/storage/collect");
        Assert.Equal((false, true, false), (Folder.Variants.Holds(hash), Folder.Variants.Holds(other), File.Exists(preview)));
        Assert.Equal((true, false), (File.Exists(seen), File.Exists(forgotten)));
    }

    [Fact]
    public async Task How_much_is_kept_outlives_a_restart_and_nonsense_is_refused()
    {
        await StorageAsync(123_000_000);
        await server.RestartAsync();
        Assert.Equal(123_000_000, (await server.SendAsync(HttpMethod.Get, "/api/storage")).GetProperty("mostUnwanted").GetInt64());
        using var refused = await server.Client.PutAsJsonAsync(new Uri("/api/storage", UriKind.Relative), new { mostUnwanted = -1 });
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("mostUnwanted", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    private DataFolder Folder => server.Services.GetRequiredService<DataFolder>();

    private Task<JsonElement> StorageAsync(long most) => server.SendAsync(HttpMethod.Put, "/api/storage", new { mostUnwanted = most });

    private async Task<(string Job, List<VariantRow> Rows)> MadeAsync(string name)
    {
        var picture = await server.PictureAsync(name);
        var job = await server.JobAsync([picture], Slots, anew: true);
        await server.MadeAsync(job);
        var id = Guid.Parse(picture);
        return (job, await QueryAsync(db => db.Variants.Where(row => row.PictureId == id).AsNoTracking().ToListAsync()));
    }

    private Task<JsonElement> UntickAsync(string job, params string[] slots) =>
        server.CommandAsync(job, new { @do = "remove-slots", slots });

    private async Task AgeAsync(List<VariantRow> rows)
    {
        var (picture, then) = (rows[0].PictureId, DateTime.UtcNow.AddHours(-1));
        await QueryAsync(db =>
            db.Variants.Where(row => row.PictureId == picture).ExecuteUpdateAsync(set => set.SetProperty(row => row.MadeAt, then))
        );
        rows.ForEach(row => Old(Folder.Variants.PathOf(row.ContentHash)));
    }

    private static void Old(string path) => File.SetLastWriteTimeUtc(path, DateTime.UtcNow.AddHours(-1));

    private async Task<T> QueryAsync<T>(Func<PantometDb, Task<T>> query)
    {
        await using var scope = server.Services.CreateAsyncScope();
        return await query(scope.ServiceProvider.GetRequiredService<PantometDb>());
    }
}

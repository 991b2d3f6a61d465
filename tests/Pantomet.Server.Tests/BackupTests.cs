using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Backups;
using Pantomet.Cli;

namespace Pantomet.Server.Tests;

/// <summary>Backup and restore of a working server, and the check of what it keeps, by the commands that people call.</summary>
public sealed class BackupTests(ServerFixture server) : IClassFixture<ServerFixture>, IDisposable
{
    private readonly string _room = Directory.CreateTempSubdirectory("pantomet-backup-").FullName;

    public void Dispose() => Directory.Delete(_room, recursive: true);

    [Theory]
    [InlineData("all.zip")]
    [InlineData("backups/")]
    public async Task A_server_that_runs_is_backed_up_and_is_the_same_file_by_file_where_it_is_restored(string to)
    {
        var job = await JobAsync();
        var (said, _, code) = await CallAsync("backup", "--data", server.Data, "--to", Path.Combine(_room, to));
        Assert.Equal(ExitCodes.Fine, code);
        Assert.Contains("files,", said, StringComparison.Ordinal);

        var restored = Path.Combine(_room, "restored");
        (_, _, code) = await CallAsync("restore", "--from", Path.Combine(_room, to), "--data", restored);
        Assert.Equal(ExitCodes.Fine, code);
        Assert.Equal(Contents(server.Data), Contents(restored));
        Assert.Contains(Contents(restored).Keys, path => path.StartsWith("variants", StringComparison.Ordinal));

        // Another server tells of the job what this one tells.
        await using var other = await PantometServer.BuildAsync(
            new()
            {
                Data = restored,
                Port = 0,
                Engine = ServerFixture.Engine,
            }
        );
        await other.StartAsync();
        using var client = new HttpClient
        {
            BaseAddress = new(other.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First()),
        };
        using var there = JsonDocument.Parse(await client.GetStringAsync(new Uri($"/api/jobs/{job}", UriKind.Relative)));
        var here = await server.JobAsync(job);
        Assert.Equal(ServerFixture.Cells(here), ServerFixture.Cells(there.RootElement));
        await other.StopAsync();
    }

    [Fact]
    public async Task Another_backup_adds_only_what_is_new_and_each_is_of_its_moment()
    {
        await JobAsync();
        var backups = Path.Combine(_room, "backups") + Path.DirectorySeparatorChar;
        var first = await DataBackup.TakeAsync(server.Data, backups, new(2026, 11, 1, 8, 0, 0, DateTimeKind.Utc), "1", null, default);
        Assert.Equal(first.Manifest.Files.Count, first.Added);
        await server.PictureAsync("DSC_0412.JPG");
        var second = await DataBackup.TakeAsync(server.Data, backups, new(2026, 11, 2, 8, 0, 0, DateTimeKind.Utc), "1", null, default);
        // The original, the database, and what the server's own lists hold.
        Assert.InRange(second.Added, 2, 4);
        Assert.True(second.Manifest.Files.Count > first.Manifest.Files.Count);

        var early = Path.Combine(_room, "early");
        var outcome = await DataRestore.RunAsync(backups, "20261101", early, null, default);
        Assert.Equal(first.Manifest.TakenAt, outcome.Manifest.TakenAt);
        Assert.Equal(
            first.Manifest.Files.Count(IsOriginal),
            Contents(early).Keys.Count(path => path.StartsWith("originals", StringComparison.Ordinal))
        );

        // The older is removed, and what only it needed; the newer stays whole.
        var folder = new BackupFolder(backups);
        Assert.Equal(1, await folder.PruneAsync(1));
        Assert.Equal("20261102T080000Z", Assert.Single(folder.Entries()).Id);
        Assert.All(second.Manifest.Files, file => Assert.True(folder.Holds(file.Sha256, file.Bytes), file.Path));
        await Assert.ThrowsAsync<BackupException>(() =>
            DataRestore.RunAsync(backups, "20261101", Path.Combine(_room, "none"), null, default)
        );
    }

    [Fact]
    public async Task A_restore_that_was_ended_is_no_data_folder_and_goes_on()
    {
        await JobAsync();
        var zip = Path.Combine(_room, "all.zip");
        var taken = await DataBackup.TakeAsync(server.Data, zip, DateTime.UtcNow, "1", null, default);
        var data = Path.Combine(_room, "half");
        using var ending = new CancellationTokenSource();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() =>
            DataRestore.RunAsync(
                zip,
                null,
                data,
                now =>
                {
                    if (now.Files == taken.Manifest.Files.Count / 2)
                    {
                        ending.Cancel();
                    }
                },
                ending.Token
            )
        );
        Assert.False(File.Exists(Path.Combine(data, "pantomet.db")));
        await Assert.ThrowsAsync<InvalidDataException>(() => PantometServer.BuildAsync(new() { Data = data, Port = 0 }));
        await DataRestore.RunAsync(zip, null, data, null, default);
        Assert.Equal(Contents(server.Data), Contents(data));
    }

    [Fact]
    public async Task What_cannot_be_backed_up_or_restored_gets_a_sentence_and_changes_nothing()
    {
        await JobAsync();
        var zip = Path.Combine(_room, "all.zip");
        await DataBackup.TakeAsync(server.Data, zip, DateTime.UtcNow, "1", null, default);
        var full = Directory.CreateDirectory(Path.Combine(_room, "full")).FullName;
        await File.WriteAllTextAsync(Path.Combine(full, "mine.txt"), "mine");

        await RefusedAsync("is not empty", "restore", "--from", zip, "--data", full);
        await RefusedAsync("holds something else", "backup", "--data", server.Data, "--to", full);
        await RefusedAsync("no data folder", "backup", "--data", full, "--to", zip);
        await RefusedAsync("in the data folder", "backup", "--data", server.Data, "--to", Path.Combine(server.Data, "backup.zip"));
        await RefusedAsync("is no backup", "restore", "--from", Path.Combine(full, "mine.txt"), "--data", Path.Combine(_room, "new"));
        Assert.Equal("mine.txt", Path.GetFileName(Assert.Single(Directory.GetFileSystemEntries(full))));

        // A hostile list reaches nothing outside of the folder.
        var hostile = Path.Combine(_room, "hostile.zip");
        await using (var made = await ZipFile.OpenAsync(hostile, ZipArchiveMode.Create))
        {
            var list = new BackupManifest(
                BackupManifest.CurrentSchema,
                DateTime.UtcNow,
                "1",
                [new("originals/../../out.txt", 3, "00", DateTime.UtcNow)],
                []
            );
            await using var entry = await made.CreateEntry(BackupManifest.FileName).OpenAsync();
            await entry.WriteAsync(list.Write());
        }

        await RefusedAsync("names a file that no data folder has", "restore", "--from", hostile, "--data", Path.Combine(_room, "new"));
        Assert.False(File.Exists(Path.Combine(_room, "out.txt")));
    }

    [Fact]
    public async Task A_damaged_backup_says_which_file_and_restores_all_others()
    {
        await JobAsync();
        var backups = Path.Combine(_room, "backups") + Path.DirectorySeparatorChar;
        var taken = await DataBackup.TakeAsync(server.Data, backups, DateTime.UtcNow, "1", null, default);
        var original = taken.Manifest.Files.First(IsOriginal);
        Damage(new BackupFolder(backups).PathOf(original.Sha256));
        var data = Path.Combine(_room, "restored");
        var (_, wrong, code) = await CallAsync("restore", "--from", backups, "--data", data);
        Assert.Equal(ExitCodes.SomethingBroke, code);
        Assert.Contains(original.Path, wrong, StringComparison.Ordinal);
        Assert.Equal(Contents(server.Data).Count - 1, Contents(data).Count);
    }

    [Fact]
    public async Task A_check_names_what_is_gone_and_which_backup_has_it_and_repairs_it()
    {
        await JobAsync();
        var backups = Path.Combine(_room, "backups") + Path.DirectorySeparatorChar;
        var zip = Path.Combine(_room, "all.zip");
        await DataBackup.TakeAsync(server.Data, zip, DateTime.UtcNow, "1", null, default);
        var data = Path.Combine(_room, "checked");
        await DataRestore.RunAsync(zip, null, data, null, default);
        var taken = await DataBackup.TakeAsync(data, backups, new(2026, 11, 3, 9, 0, 0, DateTimeKind.Utc), "1", null, default);
        var (said, wrong, code) = await CallAsync("check", "--data", data);
        Assert.Equal((ExitCodes.Fine, ""), (code, wrong));
        Assert.Contains("Nothing is missing or damaged.", said, StringComparison.Ordinal);
        // Also of one that a server has open.
        (_, _, code) = await CallAsync("check", "--data", server.Data);
        Assert.Equal(ExitCodes.Fine, code);

        var originals = taken.Manifest.Files.Where(IsOriginal).Take(2).ToList();
        var variants = taken.Manifest.Files.Where(file => file.Path.StartsWith("variants/", StringComparison.Ordinal)).Take(2).ToList();
        Damage(Path.Combine(data, originals[0].Path));
        Damage(Path.Combine(data, variants[0].Path));
        File.Delete(Path.Combine(data, variants[1].Path));
        var stray = Path.Combine(data, "variants", "aa", new string('b', 62));
        Directory.CreateDirectory(Path.GetDirectoryName(stray)!);
        await File.WriteAllTextAsync(stray, "stray");

        (said, wrong, code) = await CallAsync("check", "--data", data, "--backups", backups);
        Assert.Equal(ExitCodes.SomethingBroke, code);
        Assert.Contains("the original is damaged. It is in the backups 20261103T090000Z.", wrong, StringComparison.Ordinal);
        Assert.Contains("2 files made are missing or damaged", wrong, StringComparison.Ordinal);
        Assert.Contains("1 file, 5 B, is not referenced", said, StringComparison.Ordinal);

        (said, _, code) = await CallAsync("check", "--data", data, "--backups", backups, "--repair");
        Assert.Equal(ExitCodes.Fine, code);
        Assert.Contains("2 of 2 missing or damaged files were made again", said, StringComparison.Ordinal);
        (_, wrong, code) = await CallAsync("check", "--data", data);
        Assert.Equal((ExitCodes.Fine, ""), (code, wrong));
        // Made again by the same recipe, a file is the same, byte for byte.
        Assert.All(
            variants.Concat(originals),
            file => Assert.Equal(file.Sha256, Convert.ToHexStringLower(SHA256.HashData(File.ReadAllBytes(Path.Combine(data, file.Path)))))
        );
    }

    [Fact]
    public async Task A_database_that_is_damaged_is_told_as_that()
    {
        await JobAsync();
        var zip = Path.Combine(_room, "all.zip");
        await DataBackup.TakeAsync(server.Data, zip, DateTime.UtcNow, "1", null, default);
        var data = Path.Combine(_room, "damaged");
        await DataRestore.RunAsync(zip, null, data, null, default);
        var path = Path.Combine(data, "pantomet.db");
        var bytes = await File.ReadAllBytesAsync(path);
        // Not the head of the file, which says that it is a database at all.
        RandomNumberGenerator.Fill(bytes.AsSpan(bytes.Length / 3, bytes.Length / 3));
        await File.WriteAllBytesAsync(path, bytes);
        var (_, wrong, code) = await CallAsync("check", "--data", data);
        Assert.Equal(ExitCodes.SomethingBroke, code);
        Assert.Contains("The database is damaged", wrong, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_job_is_exported_as_open_files_from_which_the_same_files_are_made_again()
    {
        var (job, pictures) = await server.FreshJobAsync(
            ["barometer-from-chat.jpg", "IMG_2102.jpg"],
            ["website/thumbnail", "website/grid-square"]
        );
        await server.CommandAsync(
            job,
            new
            {
                @do = "set-frame",
                picture = pictures[0],
                slot = "website/grid-square",
                frame = new
                {
                    left = 0.1,
                    top = 0.1,
                    right = 0.5,
                    bottom = 0.7,
                },
            },
            new
            {
                @do = "give-words",
                picture = pictures[1],
                keywords = "storm lantern",
                alternative = "A lantern",
            },
            new
            {
                @do = "turn",
                picture = pictures[1],
                quarters = 0,
                degrees = 0,
            }
        );
        await server.MadeAsync(job);
        var folder = Path.Combine(_room, "export");
        await using (var stream = await server.Client.GetStreamAsync(new Uri($"/api/jobs/{job}/export.zip", UriKind.Relative)))
        {
            using var bytes = new MemoryStream();
            await stream.CopyToAsync(bytes);
            bytes.Position = 0;
            await ZipFile.ExtractToDirectoryAsync(bytes, folder);
        }

        Assert.Equal(
            ["README.txt", "decisions.json", "marks.json", "report.csv", "report.json", "rules.json"],
            Directory.GetFiles(folder).Select(Path.GetFileName).Order(StringComparer.Ordinal)
        );
        Assert.Equal(
            Convert.ToHexStringLower(SHA256.HashData(ServerFixture.SmallPicture("IMG_2102.jpg"))),
            Convert.ToHexStringLower(SHA256.HashData(await File.ReadAllBytesAsync(Path.Combine(folder, "originals", "IMG_2102.jpg"))))
        );
        var made = Path.Combine(_room, "made");
        var (_, wrong, code) = await CallAsync([
            "render",
            "--rules",
            Path.Combine(folder, "rules.json"),
            "--marks",
            Path.Combine(folder, "marks.json"),
            "--out",
            made,
            .. Directory.GetFiles(Path.Combine(folder, "originals")),
        ]);
        Assert.True(code == ExitCodes.Fine, wrong);
        // Suggestions are found by both in the same way, frames by hand are taken over: the same names, and the same files but for a few bytes, as a
        // small file can be made of a copy that was read smaller already.
        var plan = await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}/hand-over");
        var files = plan.GetProperty("files")
            .EnumerateArray()
            .ToDictionary(file => file.GetProperty("path").GetString()!, file => file.GetProperty("bytes").GetInt64());
        var again = Directory
            .GetFiles(made, "*", SearchOption.AllDirectories)
            .ToDictionary(path => Path.GetRelativePath(made, path), path => new FileInfo(path).Length);
        Assert.Equal(files.Keys.Order(StringComparer.Ordinal), again.Keys.Order(StringComparer.Ordinal));
        Assert.All(files, file => Assert.InRange(again[file.Key], (long)(0.99 * file.Value), (long)(1.01 * file.Value)));
    }

    [Fact]
    public async Task The_server_makes_backups_when_asked_and_when_they_are_due_and_keeps_so_many()
    {
        await JobAsync();
        var before = await server.SendAsync(HttpMethod.Get, "/api/backups");
        Assert.Equal("never", before.GetProperty("settings").GetProperty("every").GetString());
        Assert.Equal(JsonValueKind.Null, before.GetProperty("nextAt").ValueKind);
        await server.SendAsync(HttpMethod.Post, "/api/backups");
        var made = await TakenAsync(1);
        var first = made.GetProperty("backups")[0];
        Assert.Equal(0, first.GetProperty("lost").GetArrayLength());
        var folder = made.GetProperty("folder").GetString()!;
        Assert.Equal($"{server.Data}-backups", folder);
        var data = Path.Combine(_room, "restored");
        await DataRestore.RunAsync(folder, null, data, null, default);
        Assert.Equal(Contents(server.Data), Contents(data));

        // Kept once at most: the next one takes its place. Due a day after the last.
        var set = await server.SendAsync(HttpMethod.Put, "/api/backups/settings", new { every = "daily", kept = 1 });
        Assert.Equal(
            first.GetProperty("takenAt").GetDateTime().AddDays(1),
            set.GetProperty("nextAt").GetDateTime(),
            TimeSpan.FromSeconds(1)
        );
        await server.SendAsync(HttpMethod.Post, "/api/backups");
        var second = await TakenAsync(1, first.GetProperty("id").GetString());
        Assert.Single(second.GetProperty("backups").EnumerateArray());
        using var wrong = await server.Client.PutAsync(
            new Uri("/api/backups/settings", UriKind.Relative),
            new StringContent("""{ "every": "daily", "kept": 0 }""", Encoding.UTF8, "application/json")
        );
        Assert.Equal(System.Net.HttpStatusCode.BadRequest, wrong.StatusCode);
        await server.SendAsync(HttpMethod.Put, "/api/backups/settings", new { every = "never", kept = 7 });

        // What cannot be made says why.
        Directory.Delete(folder, recursive: true);
        Directory.CreateDirectory(folder);
        await File.WriteAllTextAsync(Path.Combine(folder, "mine.txt"), "mine");
        await server.SendAsync(HttpMethod.Post, "/api/backups");
        var refused = await UntilAsync(view => view.GetProperty("fault").ValueKind != JsonValueKind.Null);
        Assert.Contains("holds something else", refused.GetProperty("fault").GetString(), StringComparison.Ordinal);
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public async Task A_damaged_original_is_found_by_a_check_that_is_asked_for_and_put_back_from_a_backup()
    {
        var (job, pictures) = await server.FreshJobAsync(["DSC_0423.JPG"], ["website/thumbnail"]);
        await server.MadeAsync(job);
        await server.SendAsync(HttpMethod.Post, "/api/backups");
        var made = await UntilAsync(view => view.GetProperty("backups").GetArrayLength() > 0);
        var original = await server.Client.GetByteArrayAsync(new Uri($"/api/pictures/{pictures[0]}/original", UriKind.Relative));
        var hash = Convert.ToHexStringLower(SHA256.HashData(original));
        var path = Path.Combine(server.Data, "originals", hash[..2], hash[2..]);
        Damage(path);
        var known = await CheckedAsync();
        var damaged = Assert.Single(known.GetProperty("damagedOriginals").EnumerateArray());
        Assert.Equal(
            (hash, made.GetProperty("backups")[0].GetProperty("id").GetString()),
            (damaged.GetProperty("sha256").GetString(), damaged.GetProperty("backup").GetString())
        );
        var restored = await server.SendAsync(HttpMethod.Post, "/api/storage/originals");
        Assert.Equal(1, restored.GetProperty("originals").GetInt32());
        Assert.Equal(original, await File.ReadAllBytesAsync(path));
        Assert.Equal(0, (await CheckedAsync()).GetProperty("damagedOriginals").GetArrayLength());
        Directory.Delete($"{server.Data}-backups", recursive: true);
    }

    // Everything was read once more after it was asked for.
    private async Task<JsonElement> CheckedAsync()
    {
        var before = (await server.SendAsync(HttpMethod.Get, "/api/storage")).GetProperty("integrity").GetProperty("finishedAt").ToString();
        await server.SendAsync(HttpMethod.Post, "/api/storage/check");
        for (var tries = 0; tries < 300; tries++)
        {
            var now = (await server.SendAsync(HttpMethod.Get, "/api/storage")).GetProperty("integrity");
            if (now.GetProperty("finishedAt").ToString() != before)
            {
                return now;
            }

            await Task.Delay(100);
        }

        throw new TimeoutException("The check did not end.");
    }

    private Task<JsonElement> TakenAsync(int count, string? not = null) =>
        UntilAsync(view =>
            view.GetProperty("progress").ValueKind == JsonValueKind.Null
            && view.GetProperty("backups").GetArrayLength() == count
            && view.GetProperty("backups")[0].GetProperty("id").GetString() != not
        );

    private async Task<JsonElement> UntilAsync(Func<JsonElement, bool> isIt)
    {
        for (var tries = 0; tries < 300; tries++)
        {
            var view = await server.SendAsync(HttpMethod.Get, "/api/backups");
            if (isIt(view))
            {
                return view;
            }

            await Task.Delay(100);
        }

        throw new TimeoutException("The backup was not made.");
    }

    private static bool IsOriginal(BackupFile file) => file.Path.StartsWith("originals/", StringComparison.Ordinal);

    private async Task<string> JobAsync()
    {
        var (job, _) = await server.FreshJobAsync(["barometer-from-chat.jpg", "IMG_2102.jpg"], ["website/thumbnail"]);
        await server.MadeAsync(job);
        return job;
    }

    private static async Task RefusedAsync(string sentence, params string[] call)
    {
        var (_, wrong, code) = await CallAsync(call);
        Assert.Equal(ExitCodes.WrongCall, code);
        Assert.Contains(sentence, wrong, StringComparison.Ordinal);
        Assert.Single(wrong.TrimEnd().Split('\n'));
    }

    private static async Task<(string Said, string Wrong, int Code)> CallAsync(params string[] call)
    {
        var (output, error) = (new StringWriter(), new StringWriter());
        var code = await Task.Run(() =>
        {
            CallOutput.Use(output, error);
            return CommandLine.RunAsync(call);
        });
        return ($"{output}", $"{error}", code);
    }

    private static void Damage(string path)
    {
        var bytes = File.ReadAllBytes(path);
        bytes[bytes.Length / 2] ^= 0xFF;
        File.WriteAllBytes(path, bytes);
    }

    // What a data folder holds, but for the database, which is another file with the same rows, and what can be made at any time.
    private static SortedDictionary<string, string> Contents(string data) =>
        new(
            Directory
                .EnumerateFiles(data, "*", SearchOption.AllDirectories)
                .Select(path => Path.GetRelativePath(data, path).Replace('\\', '/'))
                .Where(path =>
                    !path.StartsWith("pantomet.", StringComparison.Ordinal)
                    && !path.StartsWith("previews/", StringComparison.Ordinal)
                    && !path.EndsWith(".part", StringComparison.Ordinal)
                )
                .ToDictionary(path => path, path => Convert.ToHexStringLower(SHA256.HashData(File.ReadAllBytes(Path.Combine(data, path))))),
            StringComparer.Ordinal
        );
}

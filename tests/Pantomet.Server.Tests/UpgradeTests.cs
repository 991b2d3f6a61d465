using System.IO.Compression;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Data;

namespace Pantomet.Server.Tests;

/// <summary>A data folder of before there were tables, made by the program of then, with what that program said of it.</summary>
public sealed class UpgradeTests : IDisposable
{
    private readonly string _root = Directory.CreateTempSubdirectory("pantomet-upgrade-").FullName;

    private string Data => Path.Combine(_root, "data");

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(_root, recursive: true);
    }

    [Fact]
    public async Task Jobs_frames_marks_words_accepted_cells_and_files_of_then_are_all_there()
    {
        Unpack();
        var then = await ThenAsync();
        await using var app = await StartAsync();
        using var client = Client(app);
        var now = await LaidOutAsync(client, (string)then["job"]!);
        foreach (var (was, its) in then["view"]!["head"]!["pictures"]!.AsArray().Zip(now["head"]!["pictures"]!.AsArray()))
        {
            var (before, after) = (was!["decisions"]!, its!["decisions"]!);
            foreach (
                var member in new[] { "turn", "focus", "keep", "suggestionRejected", "keywords", "alternative", "otherShape", "framings" }
            )
            {
                Assert.Equal(before[member]?.ToJsonString(), after[member]?.ToJsonString());
            }

            Assert.Equal(
                before["cells"]!.AsObject().Select(cell => cell.Key).Order(),
                after["cells"]!.AsObject().Select(cell => cell.Key).Order()
            );
        }

        foreach (var (was, its) in then["view"]!["cells"]!.AsArray().Zip(now["cells"]!.AsArray()))
        {
            foreach (var member in new[] { "picture", "slot", "frame", "origin", "state", "verdict", "codes", "toReview" })
            {
                Assert.Equal(was![member]!.ToJsonString(), its![member]!.ToJsonString());
            }

            // The files are known by another hash; that each is made, and allowed anyway where it was, is what counts.
            Assert.Equal(was!["files"]!.AsArray().Select(WithoutId), its!["files"]!.AsArray().Select(WithoutId));
        }

        Assert.Equal(then["view"]!["progress"]!.ToJsonString(), now["progress"]!.ToJsonString());
        var jobs = JsonNode.Parse(await client.GetStringAsync(new Uri("/api/jobs", UriKind.Relative)))!.AsArray();
        Assert.Equal(["Put aside", "Lampglow cards", "Autumn catalogue"], jobs.Select(job => (string)job!["name"]!));
        Assert.Equal([true, false, false], jobs.Select(job => (bool)job!["archived"]!));
        var bundle = await client.GetByteArrayAsync(new Uri($"/api/jobs/{then["job"]}/bundle.zip", UriKind.Relative));
        Assert.True(bundle.Length > 100_000);
    }

    [Fact]
    public async Task A_job_that_cannot_be_read_is_set_aside_and_named_and_everything_else_starts()
    {
        Unpack();
        var then = await ThenAsync();
        await using (var db = new SqliteConnection($"Data Source={Path.Combine(Data, "pantomet.db")}"))
        {
            await db.OpenAsync();
            await using var spoil = db.CreateCommand();
            spoil.CommandText =
                "UPDATE Jobs SET Text = replace(Text, '\"choice\":null', "
                + "'\"choice\":{\"format\":\"xyz\",\"quality\":5}') WHERE Text LIKE '%Lampglow%'";
            Assert.Equal(1, await spoil.ExecuteNonQueryAsync());
        }

        await using var app = await StartAsync();
        using var client = Client(app);
        var jobs = JsonNode.Parse(await client.GetStringAsync(new Uri("/api/jobs", UriKind.Relative)))!.AsArray();
        var aside = jobs.Single(job => job!["fault"] is not null)!;
        Assert.Equal("Lampglow cards", (string)aside["name"]!);
        Assert.Contains("cannot be read", (string)aside["fault"]!, StringComparison.Ordinal);
        Assert.NotEmpty((await LaidOutAsync(client, (string)then["job"]!))["cells"]!.AsArray());
    }

    private static string WithoutId(JsonNode? file)
    {
        var bare = JsonNode.Parse(file!.ToJsonString())!.AsObject();
        bare.Remove("id");
        // A file was told by its density alone then.
        if (bare.Remove("density", out var density))
        {
            bare["descriptor"] = $"{density}x";
        }

        return string.Join(", ", bare.OrderBy(member => member.Key, StringComparer.Ordinal));
    }

    private static string Fixture(string name) => Path.Combine(Cli.Installation.Root, "tests", "Pantomet.Server.Tests", "Fixtures", name);

    private void Unpack() => ZipFile.ExtractToDirectory(Fixture("data-of-documents.zip"), _root);

    private async Task<WebApplication> StartAsync()
    {
        var app = await PantometServer.BuildAsync(new() { Data = Data, Port = 0 });
        await app.StartAsync();
        return app;
    }

    private static HttpClient Client(WebApplication app) =>
        new() { BaseAddress = new(app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First()) };

    private static async Task<JsonNode> LaidOutAsync(HttpClient client, string id)
    {
        for (var i = 0; i < 100; i++)
        {
            var job = JsonNode.Parse(await client.GetStringAsync(new Uri($"/api/jobs/{id}", UriKind.Relative)))!;
            if ((int)job["progress"]!["files"]! > 0)
            {
                return job;
            }

            await Task.Delay(100);
        }

        throw new TimeoutException("The job was not laid out.");
    }

    // What the program of then said, with the names of now.
    private static async Task<JsonNode> ThenAsync()
    {
        var text = await File.ReadAllTextAsync(Fixture("data-of-documents.json"));
        return JsonNode.Parse(OldNames.Renamed(text).Replace("\"looks\":", "\"toReview\":", StringComparison.Ordinal))!;
    }
}

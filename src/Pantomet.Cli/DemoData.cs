using System.Text.Json;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Server;

namespace Pantomet.Cli;

/// <summary>The made-up shop that the demo shows.</summary>
internal static class DemoData
{
    /// <summary>Reads in the demo's rules and pictures, the same way as a person's would be.</summary>
    public static async Task ReadInAsync(WebApplication app, string folder, CancellationToken cancel)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var seeding = scope.ServiceProvider.GetRequiredService<Seeding>();
        await seeding.RulesAsync(await File.ReadAllTextAsync(Path.Combine(folder, "rules.json"), cancel), cancel);
        foreach (var file in Directory.EnumerateFiles(Path.Combine(folder, "pictures")).Order(StringComparer.Ordinal).Reverse())
        {
            await seeding.PictureAsync(file, cancel);
        }

        await using var jobs = File.OpenRead(Path.Combine(folder, "jobs.json"));
        // The newest stands first in the list.
        foreach (
            var job in (await JsonSerializer.DeserializeAsync<List<DemoJob>>(jobs, JsonSerializerOptions.Web, cancel))!
                .AsEnumerable()
                .Reverse()
        )
        {
            await seeding.JobAsync(
                job.Name,
                job.Prefix ?? "",
                job.Slots,
                job.Pictures.Select(pair => (pair.Key, pair.Value.Keywords ?? "", pair.Value.Alternative ?? "")),
                cancel
            );
        }
    }

    private sealed record DemoJob(string Name, string? Prefix, List<string> Slots, Dictionary<string, DemoPicture> Pictures);

    private sealed record DemoPicture(string? Keywords, string? Alternative);
}

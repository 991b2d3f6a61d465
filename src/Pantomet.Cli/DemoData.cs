using System.Text.Json;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Server;

namespace Pantomet.Cli;

/// <summary>The made-up shop that the demo shows.</summary>
internal static class DemoData
{
    /// <summary>Reads in the demo's rules, receivers and pictures, the same way as a person's would be.</summary>
    /// <param name="app">The application.</param>
    /// <param name="folder">Where they lie.</param>
    /// <param name="receivers">The address of the places that take files.</param>
    /// <param name="cancel">Stops.</param>
    public static async Task ReadInAsync(WebApplication app, string folder, string receivers, CancellationToken cancel)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var seeding = scope.ServiceProvider.GetRequiredService<Seeding>();
        await seeding.RulesAsync(await File.ReadAllTextAsync(Path.Combine(folder, "rules.json"), cancel), cancel);
        await seeding.ReceiversAsync(
            (await File.ReadAllTextAsync(Path.Combine(folder, "receivers.json"), cancel)).Replace(
                "{receivers}",
                receivers,
                StringComparison.Ordinal
            )
        );
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

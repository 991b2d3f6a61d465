using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Batch.Sites;
using Pantomet.Core.Marks;
using Pantomet.Core.Rules;
using Pantomet.Server;

namespace Pantomet.Cli;

/// <summary>
/// The made-up shop's own site: two pages whose pictures are built in, and one that shows what is live. It stands there plain at once, and
/// is built while the demo runs.
/// </summary>
internal static partial class DemoSite
{
    private const string Published = "Web site, November";

    /// <summary>Where the built site lies in a data folder.</summary>
    public static string FolderIn(string data) => Path.Combine(data, "example");

    /// <summary>Puts the site there as it is before it is built, with the pictures of its pages.</summary>
    /// <param name="demo">The folder of the demo's files.</param>
    /// <param name="folder">Where to put it; made if missing.</param>
    public static void Lay(string demo, string folder) => Lay(demo, "site", folder);

    private static void Lay(string demo, string pages, string folder)
    {
        var site = Path.Combine(demo, pages);
        foreach (var file in Directory.EnumerateFiles(site, "*", SearchOption.AllDirectories))
        {
            var to = Path.Combine(folder, Path.GetRelativePath(site, file));
            Directory.CreateDirectory(Path.GetDirectoryName(to)!);
            File.Copy(file, to, overwrite: true);
            // One of them has been gone for a year.
            foreach (
                Match picture in Pictures()
                    .Matches(File.ReadAllText(file))
                    .Where(one => File.Exists(Path.Combine(demo, "pictures", one.Groups[1].Value)))
            )
            {
                Directory.CreateDirectory(Path.Combine(folder, "pictures"));
                File.Copy(
                    Path.Combine(demo, "pictures", picture.Groups[1].Value),
                    Path.Combine(folder, "pictures", picture.Groups[1].Value),
                    overwrite: true
                );
            }
        }
    }

    /// <summary>Publishes the job of the site once its files are made, and builds the site.</summary>
    public static async Task BuildAsync(WebApplication app, string demo, string data, CancellationToken cancel)
    {
        try
        {
            var source = Path.Combine(data, "example-source");
            Lay(demo, source);
            await using (var scope = app.Services.CreateAsyncScope())
            {
                var live = await scope.ServiceProvider.GetRequiredService<Seeding>().PublishAsync(Published, cancel);
                var page = Path.Combine(source, "live.html");
                await File.WriteAllTextAsync(
                    page,
                    Live().Replace(await File.ReadAllTextAsync(page, cancel), place => live.GetValueOrDefault(place.Groups[1].Value, "")),
                    cancel
                );
            }

            if (RulesReader.TryRead(await File.ReadAllTextAsync(Path.Combine(demo, "rules.json"), cancel), out var book, out _))
            {
                using var run = new SiteRun(book!, new Dictionary<string, PictureMarks>(), source, FolderIn(data), "", 1);
                await run.ExecuteAsync(cancel);
            }

            // A page of before all that, to be measured.
            var old = Path.Combine(data, "example-page");
            Lay(demo, "page", old);
            await using var last = app.Services.CreateAsyncScope();
            await last.ServiceProvider.GetRequiredService<Seeding>().PageAsync("The shop's page of last year", old, cancel);
        }
        catch (OperationCanceledException)
        {
            // The demo ends.
        }
#pragma warning disable CA1031 // An example that cannot be built must not stop the demo.
        catch (Exception fault)
#pragma warning restore CA1031
        {
            NotBuilt(app.Logger, fault);
        }
    }

    [GeneratedRegex("(?:src=|url\\()\"/?pictures/([^\"]+)\"")]
    private static partial Regex Pictures();

    [GeneratedRegex("<!-- live: ([^ ]+) -->")]
    private static partial Regex Live();

    [LoggerMessage(Level = LogLevel.Error, Message = "The demo's own site could not be built.")]
    private static partial void NotBuilt(ILogger log, Exception fault);
}

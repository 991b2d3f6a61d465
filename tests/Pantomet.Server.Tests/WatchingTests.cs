using System.Net;
using System.Text.RegularExpressions;

namespace Pantomet.Server.Tests;

/// <summary>What a server tells whoever watches it.</summary>
public sealed partial class WatchingTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    [Fact]
    public async Task What_the_server_does_is_told_in_figures()
    {
        var before = await FiguresAsync();
        var (job, _) = await server.FreshJobAsync(["barometer-from-chat.jpg"], ["website/thumbnail"]);
        await server.MadeAsync(job);
        var after = await FiguresAsync();
        Assert.True(after["pantomet_files_total{outcome=\"made\"}"] > before.GetValueOrDefault("pantomet_files_total{outcome=\"made\"}"));
        Assert.True(
            after["pantomet_commands_duration_seconds_count"] > before.GetValueOrDefault("pantomet_commands_duration_seconds_count")
        );
        // Other servers of the same run are asked as well, and the last answer stands: only that it is told can be known.
        Assert.Subset(
            after.Keys.ToHashSet(),
            new HashSet<string> { "pantomet_files_waiting", "pantomet_jobs_open", "pantomet_imaging_processes" }
        );
        // What the framework counts is there as well.
        Assert.Contains(after.Keys, key => key.StartsWith("http_server_request_duration_seconds_count", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_server_that_cannot_take_work_is_alive_and_not_ready()
    {
        Assert.Equal(HttpStatusCode.OK, (await GetAsync("/readyz")).Status);
        var incoming = Path.Combine(server.Data, "variants", "incoming");
        Directory.Move(incoming, incoming + "-away");
        var (status, said) = await GetAsync("/readyz");
        Assert.Equal(HttpStatusCode.ServiceUnavailable, status);
        Assert.Contains("The data folder cannot be used now", said, StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await GetAsync("/healthz")).Status);
        Directory.Move(incoming + "-away", incoming);
        Assert.Equal(HttpStatusCode.OK, (await GetAsync("/readyz")).Status);
    }

    private async Task<(HttpStatusCode Status, string Said)> GetAsync(string address)
    {
        using var answer = await server.Client.GetAsync(new Uri(address, UriKind.Relative));
        return (answer.StatusCode, await answer.Content.ReadAsStringAsync());
    }

    // The figures by their names and labels; who made them is left out.
    private async Task<Dictionary<string, double>> FiguresAsync()
    {
        var figures = new Dictionary<string, double>(StringComparer.Ordinal);
        var (_, said) = await GetAsync("/metrics");
        foreach (var line in said.Split('\n').Where(line => line.Length > 0 && line[0] != '#'))
        {
            var parts = Line().Match(line);
            Assert.True(parts.Success, line);
            var labels = string.Join(
                ",",
                parts
                    .Groups["labels"]
                    .Value.Split(',')
                    .Where(label => label.Length > 0 && !label.StartsWith("otel_scope", StringComparison.Ordinal))
            );
            var name = parts.Groups["name"].Value + (labels.Length > 0 ? $"{{{labels}}}" : "");
            // Several servers of one run tell of themselves under one name.
            figures[name] =
                figures.GetValueOrDefault(name)
                + double.Parse(parts.Groups["value"].Value, System.Globalization.CultureInfo.InvariantCulture);
        }

        return figures;
    }

    [GeneratedRegex(@"^(?<name>[a-zA-Z_:][a-zA-Z0-9_:]*)(\{(?<labels>.*)\})? (?<value>[-+0-9.eE]+|NaN|[+-]Inf)( \d+)?$")]
    private static partial Regex Line();
}

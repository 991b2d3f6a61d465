using System.Text.Json;
using System.Text.Json.Nodes;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Reports;

/// <summary>Puts the reports of all shares of a batch together: the report as if it had been made at once, but for its time.</summary>
public static class CombinedReport
{
    private static readonly JsonSerializerOptions Written = new() { WriteIndented = true, Encoder = RenderReport.Encoder };

    /// <summary>Puts them together.</summary>
    /// <param name="reports">The reports as JSON, in any order.</param>
    /// <param name="combined">The report of the whole as JSON; null where something is wrong.</param>
    /// <returns>What is wrong, as a sentence; null when nothing is.</returns>
    public static string? TryCombine(IReadOnlyList<string> reports, out string? combined)
    {
        ArgumentNullException.ThrowIfNull(reports);
        combined = null;
        var read = new List<(JsonObject Report, ReportedShare Share)>();
        foreach (var text in reports)
        {
            if (Read(text) is not { } one)
            {
                return CommandTexts.ThisIsNoReportOfAShare;
            }

            read.Add(one);
        }

        if (read.Count == 0 || read.Any(one => one.Share.Of != read[0].Share.Of))
        {
            return CommandTexts.TheReportsAreOfDifferentBatches;
        }

        var missing = Enumerable.Range(1, read[0].Share.Of).Except(read.Select(one => one.Share.Number)).ToList();
        if (missing.Count > 0 || read.Count != read[0].Share.Of)
        {
            return missing.Count > 0 ? CommandTexts.TheReportsOfTheseSharesAreMissing(missing) : CommandTexts.AShareIsThereTwice;
        }

        var whole = new JsonObject { ["schema"] = read[0].Report["schema"]?.GetValue<string>() };
        whole["sources"] = Ordered(read, "sources", share => share.Sources);
        var variants = Ordered(read, "variants", share => share.Variants);
        if (Twice(variants) is { } path)
        {
            return CommandTexts.TwoSharesGaveOneName(path);
        }

        whole["variants"] = variants;
        whole["totals"] = Totals(read);
        if (read.Exists(one => one.Report.ContainsKey("markup")))
        {
            whole["markup"] = Ordered(read, "markup", share => share.Markup);
        }

        combined = whole.ToJsonString(Written);
        return null;
    }

    /// <summary>How many files a report tells of.</summary>
    public static int FilesIn(string report) => JsonNode.Parse(report)?["totals"]?["files"]?.GetValue<int>() ?? 0;

    private static (JsonObject, ReportedShare)? Read(string text)
    {
        try
        {
            var report = JsonNode.Parse(text) as JsonObject;
            var share = report?["share"]?.Deserialize<ReportedShare>(JsonSerializerOptions.Web);
            return
                report is not null
                && share is { Sources: not null, Variants: not null, Markup: not null }
                && Fits(report, "sources", share.Sources.Count)
                && Fits(report, "variants", share.Variants.Count)
                && Fits(report, "markup", share.Markup.Count)
                ? (report, share)
                : null;
        }
        catch (Exception fault) when (fault is JsonException or InvalidOperationException)
        {
            return null;
        }
    }

    private static bool Fits(JsonObject report, string member, int places) => ((report[member] as JsonArray)?.Count ?? 0) == places;

    private static JsonArray Ordered(
        List<(JsonObject Report, ReportedShare Share)> reports,
        string member,
        Func<ReportedShare, IReadOnlyList<int>> places
    ) =>
        [
            .. reports
                .SelectMany(one => (one.Report[member] as JsonArray ?? []).Zip(places(one.Share)))
                .OrderBy(one => one.Second)
                .Select(one => one.First?.DeepClone()),
        ];

    // Names are given in each share by itself: two that differ by more than a number at their end can still come to the same with the slot's.
    private static string? Twice(JsonArray variants) =>
        variants
            .Select(variant => variant?["file"]?.GetValue<string>())
            .OfType<string>()
            .GroupBy(path => path, StringComparer.OrdinalIgnoreCase)
            .FirstOrDefault(same => same.Skip(1).Any())
            ?.Key;

    private static JsonObject Totals(List<(JsonObject Report, ReportedShare Share)> reports)
    {
        double Sum(string member) => reports.Sum(one => one.Report["totals"]?[member]?.GetValue<double>() ?? 0);
        return new()
        {
            ["sourceBytes"] = (long)Sum("sourceBytes"),
            ["variantBytes"] = (long)Sum("variantBytes"),
            ["files"] = (int)Sum("files"),
            // Machines worked side by side: the slowest one is how long it took.
            ["seconds"] = reports.Max(one => one.Report["totals"]?["seconds"]?.GetValue<double>() ?? 0),
        };
    }
}

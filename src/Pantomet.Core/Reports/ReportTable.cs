using System.Globalization;
using System.Text;

namespace Pantomet.Core.Reports;

/// <summary>A report as a table: comma-separated values with a head (RFC 4180).</summary>
public static class ReportTable
{
    private static readonly string[] Head =
    [
        "picture",
        "destination",
        "slot",
        "density",
        "file",
        "width",
        "height",
        "type",
        "bytes",
        "quality",
        "likeness",
        "original bytes",
        "times lighter",
        "verdict",
        "reasons",
        "alternative text",
    ];

    /// <summary>The table's text, one line for each variant.</summary>
    public static string Of(RenderReport report)
    {
        ArgumentNullException.ThrowIfNull(report);
        var sources = report.Sources.GroupBy(source => source.File).ToDictionary(group => group.Key, group => group.First());
        var text = new StringBuilder();
        Line(text, Head);
        foreach (var variant in report.Variants)
        {
            var source = sources.GetValueOrDefault(variant.Source);
            var lighter = source?.Bytes is { } before && variant.Bytes is { } after ? (double)before / after : (double?)null;
            Line(
                text,
                variant.Source,
                variant.Destination,
                variant.Slot,
                variant.Descriptor ?? Figure(variant.Density),
                variant.File,
                Figure(variant.Width),
                Figure(variant.Height),
                variant.Format,
                Figure(variant.Bytes),
                Figure(variant.Quality),
                variant.Likeness?.ToString("0.000", CultureInfo.InvariantCulture),
                Figure(source?.Bytes),
                lighter?.ToString("0.0", CultureInfo.InvariantCulture),
                variant.Verdict.ToString().ToLowerInvariant(),
                string.Join(' ', variant.Reasons.Select(reason => reason.Message)),
                source?.Alternative
            );
        }

        return text.ToString();
    }

    private static string? Figure(IFormattable? value) => value?.ToString(null, CultureInfo.InvariantCulture);

    private static void Line(StringBuilder text, params string?[] fields) => text.AppendJoin(',', fields.Select(Quoted)).Append("\r\n");

    private static string Quoted(string? field)
    {
        if (field is null or "")
        {
            return "";
        }

        // A spreadsheet takes these for formulas; a name from a stranger must not become one.
        var safe = field[0] is '=' or '+' or '-' or '@' or '\t' ? $"'{field}" : field;
        return safe.AsSpan().IndexOfAny(",\"\r\n") >= 0 ? $"\"{safe.Replace("\"", "\"\"", StringComparison.Ordinal)}\"" : safe;
    }
}

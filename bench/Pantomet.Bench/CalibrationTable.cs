using System.Globalization;
using System.Text;
using Pantomet.Core.Likeness;

namespace Pantomet.Bench;

/// <summary>
/// Makes docs/likeness.md from the lines of <see cref="Calibration"/>: rank correlations and the borders between the words.
/// </summary>
internal static class CalibrationTable
{
    // What the words mean on butteraugli's 3-norm, best first: the last word has no border.
    private static readonly (LikenessWord Word, double Most)[] Borders =
    [
        (LikenessWord.NoDifference, 0.6),
        (LikenessWord.HardToSee, 1.0),
        (LikenessWord.Slight, 1.6),
        (LikenessWord.Visible, 2.4),
    ];

    public static string Of(string csv, string column)
    {
        var lines = csv.Split('\n', StringSplitOptions.RemoveEmptyEntries);
        var heads = lines[0].Split(',');
        var rows = lines.Skip(1).Select(line => line.Split(',')).Where(row => row.Length == heads.Length).ToList();
        double Value(string[] row, string head) => double.Parse(row[Array.IndexOf(heads, head)], CultureInfo.InvariantCulture);
        var pictures = rows.GroupBy(row => row[0]).Where(group => group.Count() >= 24).ToList();
        var text = new StringBuilder();
        Line(
            text,
            $"{pictures.Count} photographs of lomiri-wallpapers-16.04, 1000 px on the longest side, 8 qualities x 3 "
                + $"types: {rows.Count} files.\n"
        );
        Line(text, $"## Rank correlation (Spearman) with butteraugli and ssimulacra\n");
        Line(text, $"| photograph | butteraugli, 3-norm | butteraugli, largest | ssimulacra |\n|---|---|---|---|");
        foreach (var picture in pictures)
        {
            Line(
                text,
                $"| {picture.Key} | {Correlation(picture, column, "butteraugli3"):0.000} | "
                    + $"{Correlation(picture, column, "butteraugli"):0.000} | "
                    + $"{Correlation(picture, column, "ssimulacra"):0.000} |"
            );
        }

        Line(
            text,
            $"| **across all** | **{Correlation(rows, column, "butteraugli3"):0.000}** | "
                + $"{Correlation(rows, column, "butteraugli"):0.000} | {Correlation(rows, column, "ssimulacra"):0.000} |\n"
        );
        Line(text, $"## Weights: share of each colour difference (s) and exponent over tiles (p), across all photographs\n");
        Line(text, $"| | butteraugli, 3-norm | butteraugli, largest | ssimulacra | least within a photograph |\n|---|---|---|---|---|");
        foreach (
            var head in heads.Where(head => head.StartsWith('s') && head.Contains('p', StringComparison.Ordinal) && head != "ssimulacra")
        )
        {
            Line(
                text,
                $"| {head}{(head == column ? " (taken)" : "")} | {Correlation(rows, head, "butteraugli3"):0.000} | "
                    + $"{Correlation(rows, head, "butteraugli"):0.000} | {Correlation(rows, head, "ssimulacra"):0.000} | "
                    + $"{pictures.Min(picture => Correlation(picture, head, "butteraugli3")):0.000} |"
            );
        }

        Line(text, $"\n## Borders between the words\n");
        Line(text, $"The likeness that parts the files best at a given butteraugli 3-norm.\n");
        Line(text, $"| word | butteraugli 3-norm up to | likeness from | files on the wrong side |\n|---|---|---|---|");
        foreach (var (word, most) in Borders)
        {
            var (border, wrong) = Border(rows, row => Value(row, column), row => Value(row, "butteraugli3") <= most);
            Line(text, $"| {Likeness.Words(word)} | {most:0.0} | {border:0.0000} | {wrong} of {rows.Count} |");
        }

        Line(text, $"\n## What the qualities give, the median over all photographs\n");
        Line(text, $"| type | quality | butteraugli 3-norm | likeness | bytes |\n|---|---|---|---|---|");
        foreach (var group in rows.GroupBy(row => (row[1], row[2])))
        {
            Line(
                text,
                $"| {group.Key.Item1} | {group.Key.Item2} | "
                    + $"{Median(group.Select(row => Value(row, "butteraugli3"))):0.00} | "
                    + $"{Median(group.Select(row => Value(row, column))):0.0000} | "
                    + $"{Median(group.Select(row => Value(row, "bytes"))):0} |"
            );
        }

        return text.ToString();

        double Correlation(IEnumerable<string[]> some, string ours, string theirs) =>
            Ranked([.. some.Select(row => Value(row, ours))], [.. some.Select(row => -Value(row, theirs))]);
    }

    // The machine's language is the invariant one (InvariantGlobalization).
    private static void Line(StringBuilder text, string line) => text.Append(line).Append('\n');

    private static (double Border, int Wrong) Border(List<string[]> rows, Func<string[], double> score, Func<string[], bool> good) =>
        rows.Select(score).Select(border => (border, rows.Count(row => score(row) >= border != good(row)))).MinBy(one => one.Item2);

    private static double Median(IEnumerable<double> values)
    {
        var sorted = values.Order().ToList();
        return sorted[sorted.Count / 2];
    }

    private static double Ranked(double[] a, double[] b)
    {
        var (ra, rb) = (Ranks(a), Ranks(b));
        var mean = (a.Length - 1) / 2.0;
        double both = 0,
            one = 0,
            other = 0;
        for (var i = 0; i < a.Length; i++)
        {
            both += (ra[i] - mean) * (rb[i] - mean);
            one += (ra[i] - mean) * (ra[i] - mean);
            other += (rb[i] - mean) * (rb[i] - mean);
        }

        return both / Math.Sqrt(one * other);
    }

    // Equal values share their mean rank.
    private static double[] Ranks(double[] values)
    {
        var order = Enumerable.Range(0, values.Length).OrderBy(i => values[i]).ToArray();
        var ranks = new double[values.Length];
        for (var from = 0; from < order.Length; )
        {
            var to = from;
            while (to < order.Length && values[order[to]] == values[order[from]])
            {
                to++;
            }

            for (var i = from; i < to; i++)
            {
                ranks[order[i]] = (from + to - 1) / 2.0;
            }

            from = to;
        }

        return ranks;
    }
}

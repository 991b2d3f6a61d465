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

    public static string Of(string csv)
    {
        var files = csv.Split('\n', StringSplitOptions.RemoveEmptyEntries).Skip(1).Select(FileOf).ToList();
        var apart = Apart(files);
        var text = new StringBuilder();
        var pictures = files.Select(file => file.Picture).Distinct().Count();
        Line(text, $"{pictures} pictures, {Calibration.Side} px on the longest side: {files.Count} files.\n");
        Line(text, $"## Across pictures\n");
        Line(
            text,
            $"| | files | rank correlation with butteraugli, 3-norm | with ssimulacra | butteraugli at one likeness, 95th to 5th of 100 |"
        );
        Line(text, $"|---|---|---|---|---|");
        Across(text, "tuned on", files.FindAll(file => !apart.Contains(file.Picture)), files);
        Across(text, "**kept apart**", files.FindAll(file => apart.Contains(file.Picture)), files);
        foreach (var kind in files.Select(file => file.Kind).Distinct())
        {
            Across(text, $"{kind}, kept apart", files.FindAll(file => file.Kind == kind && apart.Contains(file.Picture)), files);
        }

        foreach (var type in files.Select(file => file.Type).Distinct())
        {
            Across(text, type, files.FindAll(file => file.Type == type), files);
        }

        var within = files
            .GroupBy(file => (file.Picture, file.Type))
            .Select(group => Correlation(group, file => file.Butteraugli))
            .Order()
            .ToList();
        Line(
            text,
            $"\nWithin a picture and type: {within[within.Count / 2]:0.000} in the median, {within[within.Count / 20]:0.000} at the 5th of 100. "
                + $"Butteraugli and ssimulacra agree with each other by {Ranked([.. files.Select(file => file.Butteraugli)], [.. files.Select(file => file.Ssimulacra)]):0.000}.\n"
        );
        Line(text, $"## Borders between the words\n");
        Line(text, $"The likeness that parts the files best at a given butteraugli 3-norm.\n");
        Line(text, $"| word | butteraugli 3-norm up to | likeness from | files on the wrong side |\n|---|---|---|---|");
        foreach (var (word, most) in Borders)
        {
            var (border, wrong) = Border(files, most);
            Line(text, $"| {Likeness.Words(word)} | {most:0.0} | {border:0.0000} | {wrong} of {files.Count} |");
        }

        Line(text, $"\n## What the settings give, the median over photographs\n");
        Line(text, $"| type | setting | butteraugli 3-norm | likeness | bytes |\n|---|---|---|---|---|");
        foreach (var group in files.Where(file => file.Kind == "photograph").GroupBy(file => (file.Type, file.Setting)))
        {
            Line(
                text,
                $"| {group.Key.Type} | {group.Key.Setting} | {Median(group.Select(file => file.Butteraugli)):0.00} | "
                    + $"{Median(group.Select(file => file.Likeness)):0.0000} | {Median(group.Select(file => file.Bytes)):0} |"
            );
        }

        return text.ToString();
    }

    private static Measured FileOf(string line)
    {
        var values = line.Split(',');
        double Value(int at) => double.Parse(values[at], CultureInfo.InvariantCulture);
        return new(values[0], values[1], values[2], (int)Value(3), Value(4), Value(6), Value(7), Value(8));
    }

    // Every third picture of each kind, in the order of their names: no weight was chosen on them.
    private static HashSet<string> Apart(List<Measured> files) =>
        [
            .. files
                .GroupBy(file => file.Kind)
                .SelectMany(kind => kind.Select(file => file.Picture).Distinct().Order(StringComparer.Ordinal).Where((_, i) => i % 3 == 2)),
        ];

    private static void Across(StringBuilder text, string name, List<Measured> some, List<Measured> all)
    {
        // Beyond these nobody looks, or everybody sees it.
        var seen = some.FindAll(file => file.Butteraugli is > 0.3 and < 8);
        var rates = seen.Select(file => file.Butteraugli / Usual(file.Likeness, all)).Order().ToList();
        Line(
            text,
            $"| {name} | {seen.Count} | {Correlation(seen, file => file.Butteraugli):0.000} | {Correlation(seen, file => file.Ssimulacra):0.000} | "
                + $"{rates[rates.Count * 19 / 20] / rates[rates.Count / 20]:0.00} |"
        );
    }

    // What butteraugli says of files so much alike: the median of the hundred nearest.
    private static double Usual(double likeness, List<Measured> all) =>
        Median(
            all.OrderBy(file => Math.Abs(Math.Log((1 - file.Likeness + 1e-5) / (1 - likeness + 1e-5))))
                .Take(100)
                .Select(file => file.Butteraugli)
        );

    private static double Correlation(IEnumerable<Measured> some, Func<Measured, double> theirs) =>
        Ranked([.. some.Select(file => 1 - file.Likeness)], [.. some.Select(theirs)]);

    private static (double Border, int Wrong) Border(List<Measured> files, double most) =>
        files
            .Select(file => file.Likeness)
            .Select(border => (border, files.Count(file => file.Likeness >= border != file.Butteraugli <= most)))
            .MinBy(one => one.Item2);

    // The machine's language is the invariant one (InvariantGlobalization).
    private static void Line(StringBuilder text, string line) => text.Append(line).Append('\n');

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

    private readonly record struct Measured(
        string Picture,
        string Kind,
        string Type,
        int Setting,
        double Bytes,
        double Butteraugli,
        double Ssimulacra,
        double Likeness
    );
}

using System.Diagnostics;
using System.Globalization;
using Pantomet.Core;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Bench;

/// <summary>What becomes of the rules of weight on open photographs and drawings.</summary>
internal static class Weights
{
    private static readonly string[] Types = ["jpeg", "png", "webp", "avif"];

    public static void Run(string[] parts, IReadOnlyList<string> photographs, IReadOnlyList<string> drawings, TextWriter output)
    {
        foreach (var part in parts)
        {
            switch (part)
            {
                case "numbers":
                    Numbers(photographs, output);
                    break;
                case "content":
                    Content(photographs, drawings, output);
                    break;
                case "bands":
                    Bands(photographs, output);
                    break;
                case "aims":
                    Aims(photographs, output);
                    break;
                case "encodes":
                    Encodes(photographs, output);
                    break;
                default:
                    throw new ArgumentException($"no such part: {part}", nameof(parts));
            }
        }
    }

    private static void Numbers(IReadOnlyList<string> photographs, TextWriter output)
    {
        output.WriteLine(
            "## A quality number in each type\n\n| quality | files | WebP: mean, worst | AVIF: mean, worst | weight, JPEG = 1 | whole encodes of a file in the mean | samples | WebP alone: mean, worst, encodes, samples |"
        );
        output.WriteLine("|---|---|---|---|---|---|---|---|");
        foreach (var quality in (int[])[80, 60])
        {
            var (webP, avif) = (new List<double>(), new List<double>());
            var (webPBytes, avifBytes) = (new List<double>(), new List<double>());
            var (encodes, samples) = (new List<double>(), new List<double>());
            var (alone, aloneEncodes, aloneSamples) = (new List<double>(), new List<double>(), new List<double>());
            foreach (var path in photographs.Take(20))
            {
                foreach (var width in (int[])[400, 800, 1600])
                {
                    var made = Make(
                        path,
                        $$"""
                        "size": { "width": {{width}} }, "types": ["jpeg", "webp", "avif"], "each": true,
                        "aims": { "quality": [{{quality}}, {{quality}}] }
                        """
                    );
                    webP.Add(Math.Abs(Score(made[1]) - Score(made[0])));
                    avif.Add(Math.Abs(Score(made[2]) - Score(made[0])));
                    if (Math.Max(webP[^1], avif[^1]) > 0.002)
                    {
                        Console.Error.WriteLine(
                            Row(
                                $"{Path.GetFileName(path)}",
                                $"{width} at {quality}",
                                $"{Score(made[0]):F5}",
                                $"{Score(made[1]):F5}",
                                $"{Score(made[2]):F5}"
                            )
                        );
                    }

                    var one = Make(
                        path,
                        $$"""
                        "size": { "width": {{width}} }, "types": ["webp"], "aims": { "quality": [{{quality}}, {{quality}}] }
                        """
                    )[0];
                    alone.Add(Math.Abs(Score(one) - Score(made[0])));
                    aloneEncodes.Add(one.Encodes);
                    aloneSamples.Add(one.Trials);
                    encodes.AddRange(made.Skip(1).Select(file => (double)file.Encodes));
                    samples.AddRange(made.Skip(1).Select(file => (double)file.Trials));
                    webPBytes.Add((double)made[1].File!.Length / made[0].File!.Length);
                    avifBytes.Add((double)made[2].File!.Length / made[0].File!.Length);
                }
            }

            output.WriteLine(
                Row(
                    $"{quality}",
                    $"{webP.Count}",
                    $"{webP.Average():F5}, {webP.Max():F5}",
                    $"{avif.Average():F5}, {avif.Max():F5}",
                    $"WebP {webPBytes.Average():F2}, AVIF {avifBytes.Average():F2}",
                    $"{encodes.Average():F2}, {encodes.Max()} at most",
                    $"{samples.Average():F1}",
                    $"{alone.Average():F5}, {alone.Max():F5}, {aloneEncodes.Average():F2}, {aloneSamples.Average():F1}"
                )
            );
        }
    }

    private static void Content(IReadOnlyList<string> photographs, IReadOnlyList<string> drawings, TextWriter output)
    {
        output.WriteLine(
            "\n## By content\n\n`auto` against the lightest of one file of each type at the same likeness.\n\n"
                + "| picture | kind | taken | kB | likeness | lightest of each | kB | ratio | a PNG | encodes | ms |\n"
                + "|---|---|---|---|---|---|---|---|---|---|---|"
        );
        foreach (
            var (path, width) in drawings.Take(20).Select(path => (path, 600)).Concat(photographs.Take(20).Select(path => (path, 800)))
        )
        {
            var clock = Stopwatch.StartNew();
            var auto = Make(
                path,
                $$"""
                "size": { "width": {{width}} }, "types": ["auto"]
                """
            )[0];
            var took = clock.ElapsedMilliseconds;
            var facts = ContentReader.Read(path, PictureReader.ReadFacts(path).Facts!);
            var alike = Math.Min(0.9999, Score(auto) - 1e-6).ToString("R", CultureInfo.InvariantCulture);
            var types = string.Join(", ", Types.Skip(facts.HasAlpha ? 1 : 0).Select(type => $"\"{type}\""));
            var each = Make(
                path,
                $$"""
                "size": { "width": {{width}} }, "types": [{{types}}],
                "each": true, "aims": { "quality": [1, 95], "likeness": {{alike}} }
                """
            );
            var lightest = each.Where(made => Score(made) >= Score(auto) - 1e-6).MinBy(made => made.File!.Length);
            var png = each.First(made => made.Format == PictureFormat.Png).File!.Length;
            output.WriteLine(
                Row(
                    $"{Path.GetFileNameWithoutExtension(path)}",
                    $"{facts.Kind}",
                    $"{auto.Format} {auto.Quality}",
                    $"{auto.File!.Length / 1000.0:F1}",
                    $"{Score(auto):F4}",
                    $"{lightest?.Format}",
                    $"{lightest?.File!.Length / 1000.0:F1}",
                    $"{(double)auto.File.Length / (lightest?.File!.Length ?? auto.File.Length):F2}",
                    $"{png / 1000.0:F1}",
                    $"{auto.Encodes}",
                    $"{took}"
                )
            );
        }
    }

    private static void Bands(IReadOnlyList<string> photographs, TextWriter output)
    {
        output.WriteLine(
            "\n## Bands\n\n| slot | files | in the band | at the ceiling, said so | nothing more to be seen, said so "
                + "| under, at a lower quality | over |"
                + "\n|---|---|---|---|---|---|---|"
        );
        foreach (
            var (size, least, most) in (ReadOnlySpan<(string, int, int)>)
                [
                    ("\"ratio\": \"1:1\", \"width\": 300", 45, 55),
                    ("\"ratio\": \"1:1\", \"width\": 250", 24, 28),
                    ("\"ratio\": \"5:4\", \"width\": 2500", 500, 700),
                ]
        )
        {
            int files = 0,
                within = 0,
                ceiling = 0,
                seen = 0,
                lower = 0,
                over = 0;
            foreach (var path in photographs.Take(40))
            {
                if (
                    Make(
                        path,
                        $$"""
                        "size": { {{size}} }, "aims": { "bytes": ["{{least}} kB", "{{most}} kB"] }
                        """
                    )
                    is not [{ File: { } file } made]
                )
                {
                    continue;
                }

                files++;
                if (file.Length > most * 1000)
                {
                    over++;
                }
                else if (file.Length >= least * 1000)
                {
                    within++;
                }
                else
                {
                    var said = made.Reasons.Any(reason => reason.Code == "under-band");
                    ceiling += said && made.Quality >= 95 ? 1 : 0;
                    seen += said && made.Quality < 95 && Score(made) >= 0.9995 ? 1 : 0;
                    lower += said && (made.Quality >= 95 || Score(made) >= 0.9995) ? 0 : 1;
                }
            }

            output.WriteLine(
                Row(
                    $"{size.Replace('"', ' ')}, {least} to {most} kB",
                    $"{files}",
                    $"{within}",
                    $"{ceiling}",
                    $"{seen}",
                    $"{lower}",
                    $"{over}"
                )
            );
        }
    }

    private static void Aims(IReadOnlyList<string> photographs, TextWriter output)
    {
        output.WriteLine(
            "\n## A likeness aim where the limit binds\n\nThe search alone, its pixels at hand; the median of five, in turn.\n\n"
                + "| picture | without, ms | with an aim of 1, ms | ratio |\n|---|---|---|---|"
        );
        var ratios = new List<double>();
        foreach (var path in photographs.Take(12))
        {
            var limit = 90;
            var rule = $$"""
                "size": { "width": 1500 }, "limits": { "maxBytes": "{{limit}} kB" }
                """;
            var (without, with) = InTurn(path, rule, rule + """, "aims": { "likeness": 1 }""");
            ratios.Add(with / without);
            output.WriteLine(Row($"{Path.GetFileNameWithoutExtension(path)}", $"{without:F0}", $"{with:F0}", $"{with / without:F2}"));
        }

        output.WriteLine(Row($"**mean**", $"|", $"**{ratios.Average():F2}**"));
    }

    private static void Encodes(IReadOnlyList<string> photographs, TextWriter output)
    {
        output.WriteLine(
            "\n## Whole encodes for a limit\n\n| size, limit | pictures | encodes in the mean, most | samples in the mean |"
                + "\n|---|---|---|---|"
        );
        var all = new List<int>();
        foreach (var (width, limit) in (ReadOnlySpan<(int, int)>)[(1500, 150), (800, 60), (400, 20)])
        {
            var made = photographs
                .Take(10)
                .Select(path =>
                    Make(
                        path,
                        $$"""
                        "size": { "width": {{width}} }, "limits": { "maxBytes": "{{limit}} kB" }
                        """
                    )[0]
                )
                .ToList();
            all.AddRange(made.Select(one => one.Encodes));
            output.WriteLine(
                Row(
                    $"{width} px, {limit} kB",
                    $"{made.Count}",
                    $"{made.Average(one => one.Encodes):F2}, {made.Max(one => one.Encodes)}",
                    $"{made.Average(one => one.Trials):F1}"
                )
            );
        }

        output.WriteLine(Row($"**all**", $"{all.Count}", $"**{all.Average():F2}**, {all.Max()}"));
    }

    private static (double One, double Other) InTurn(string path, string one, string other)
    {
        var facts = PictureReader.ReadFacts(path).Facts!;
        var (first, second) = (SlotOf(one), SlotOf(other));
        var plan = VariantPlanner.Plan(facts.Size, first, Density.One, null, Subject.Of([], null, null));
        using var master = PictureMaster.Decode(path, facts, [plan], ProfileRule.Srgb, whole: true);
        using var held = new Held(new MasterPixels(master, first), plan);
        var (a, b) = (new List<double>(), new List<double>());
        for (var i = 0; i < 6; i++)
        {
            a.Add(Timed(() => VariantMaker.Make(held, first, plan)));
            b.Add(Timed(() => VariantMaker.Make(held, second, plan)));
        }

        return (a.Skip(1).Order().ElementAt(2), b.Skip(1).Order().ElementAt(2));
    }

    private static double Timed(Action work)
    {
        var clock = Stopwatch.StartNew();
        work();
        return clock.Elapsed.TotalMilliseconds;
    }

    private static IReadOnlyList<MadeVariant> Make(string path, string rule)
    {
        var facts = ContentReader.Read(path, PictureReader.ReadFacts(path).Facts!);
        var slot = SlotOf(rule);
        var plan = VariantPlanner.Plan(facts.Size, slot, Density.One, null, Subject.Of([], null, null));
        using var master = PictureMaster.Decode(path, facts, [plan], ProfileRule.Srgb, whole: true);
        master.Know(facts);
        return VariantMaker.Make(new MasterPixels(master, slot), slot, plan);
    }

    private static Slot SlotOf(string rule) =>
        RulesReader.TryRead(
            $$"""
            { "schema": "pantomet-rules/1",
              "destinations": [ { "key": "d", "name": "D", "slots": [ { "key": "s", "name": "S", {{rule}} } ] } ] }
            """,
            out var book,
            out var fault
        )
            ? book!.Destinations[0].Slots[0]
            : throw new ArgumentException(fault!.ToString());

    private static double Score(MadeVariant made) => made.Likeness!.Value.Score;

    private static string Row(params FormattableString[] cells) => $"| {string.Join(" | ", cells.Select(FormattableString.Invariant))} |";

    private sealed class Held(MasterPixels source, VariantPlan plan) : IPixelSource, IDisposable
    {
        private readonly RenderedPixels _pixels = source.Still(plan);

        public PictureFacts Facts => source.Facts;

        public RenderedPixels Still(VariantPlan wanted) => wanted.Size == plan.Size ? _pixels.Shared() : source.Still(wanted);

        public RenderedPixels Moving(VariantPlan wanted) => source.Moving(wanted);

        public void Dispose() => _pixels.Dispose();
    }
}

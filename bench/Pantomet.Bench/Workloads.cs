using System.Diagnostics;
using System.Text.Json;
using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Likeness;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Weight;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Rendering;
using Pantomet.Imaging.Writing;

namespace Pantomet.Bench;

/// <summary>What was asked for: a workload, its files, and for some a folder to write to.</summary>
internal sealed record Ask(string Work, string[] Files, string? Out);

/// <summary>Our side of the comparison: each workload as the product does it, warmed, one line in and one line out.</summary>
internal static class Workloads
{
    private static readonly int[] Widths = [400, 600, 800, 1000, 1280, 1600, 2000, 2500];
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    public static async Task ServeAsync()
    {
        while (await Console.In.ReadLineAsync() is { } line)
        {
            var ask = JsonSerializer.Deserialize<Ask>(line, Json)!;
            GC.Collect();
            var clock = Stopwatch.StartNew();
            var result = await DoAsync(ask);
            var ms = clock.Elapsed.TotalMilliseconds;
            Console.WriteLine(JsonSerializer.Serialize(new { ms, result }, Json));
        }
    }

    private static async Task<object> DoAsync(Ask ask) =>
        ask.Work switch
        {
            "A" => await WidthsAsync(
                ask.Files[0],
                image => [image.JpegsaveBuffer(q: 80, optimizeCoding: true, keep: Enums.ForeignKeep.None)]
            ),
            "B" => await WidthsAsync(
                ask.Files[0],
                image =>
                    [
                        image.JpegsaveBuffer(
                            q: 80,
                            optimizeCoding: true,
                            interlace: true,
                            trellisQuant: true,
                            overshootDeringing: true,
                            optimizeScans: true,
                            quantTable: 3,
                            keep: Enums.ForeignKeep.None
                        ),
                        image.WebpsaveBuffer(q: 80, effort: 4, keep: Enums.ForeignKeep.None),
                    ]
            ),
            "C1" => await LimitAsync(ask.Files[0], new SizeRule.SideAlone(Side.Width, 1500), 150_000),
            "C2" => await LimitAsync(ask.Files[0], new SizeRule.Exact(new(2500, 2000)), 1_000_000),
            "E" => Encoded(ask.Files[0], ask.Out!),
            "G" => Compared(ask.Files[0]),
            _ => throw new ArgumentException(ask.Work),
        };

    // One decode, the widths derived from it, the encodes spread over the cores.
    private static async Task<object> WidthsAsync(string path, Func<Image, byte[][]> encode)
    {
        var facts = PictureReader.ReadFacts(path).Facts!;
        var plans = Widths
            .Select(width => VariantPlanner.Plan(facts.Size, SlotOf(new SizeRule.SideAlone(Side.Width, width)), Density.One))
            .ToArray();
        var room = new WorkRoom(Environment.ProcessorCount);
        using var master = await room.RunAsync(() => PictureMaster.Decode(path, facts, plans, ProfileRule.Srgb), CancellationToken.None);
        var files = await Task.WhenAll(
            plans
                .OrderByDescending(plan => plan.Size.Area)
                .Select(plan =>
                    room.RunAsync(
                        () =>
                        {
                            using var pixels = VariantRenderer.Render(master, plan, null, Sharpening.Off);
                            return encode(pixels.Image);
                        },
                        CancellationToken.None
                    )
                )
        );
        return new { bytes = files.Sum(one => one.Sum(file => file.Length)), files = files.Sum(one => one.Length) };
    }

    private static async Task<object> LimitAsync(string path, SizeRule size, long limit)
    {
        var room = new WorkRoom(Environment.ProcessorCount);
        var slot = SlotOf(size) with
        {
            Limits = new() { MaxBytes = new ByteCount(limit) },
            Aims = new() { Quality = new(1, 95) },
            Sharpen = Sharpening.Off,
        };
        var made = (await PictureMaker.MakeAsync(path, [], new(0.5, 0.5), [new(slot, null)], room)).Made[0][0];
        return new
        {
            bytes = made.File?.Length ?? 0,
            made.Quality,
            made.Encodes,
            verdict = made.Verdict.ToString(),
            likeness = made.Likeness?.Score,
            reasons = made.Reasons.Select(reason => reason.Code),
        };
    }

    private static object Encoded(string path, string folder)
    {
        using var image = Image.NewFromFile(path);
        using var pixels = new RenderedPixels(image.CopyMemory());
        using var encoder = new VariantEncoder(
            pixels,
            SlotOf(new SizeRule.Share(1)),
            new()
            {
                Size = pixels.Size,
                Format = PictureFormat.Png,
                Bytes = 1,
            }
        );
        foreach (var quality in new[] { 45, 60, 75, 88 })
        {
            File.WriteAllBytes(Path.Combine(folder, $"jpeg-{quality}"), encoder.Dear(PictureFormat.Jpeg, JpegScale.SettingFor(quality)));
        }

        foreach (var quality in new[] { 50, 65, 80, 90 })
        {
            File.WriteAllBytes(Path.Combine(folder, $"webp-{quality}"), encoder.Dear(PictureFormat.WebP, quality));
        }

        return new { folder };
    }

    // The meter on pixels in memory, against plain JPEG encodes of the same pixels.
    private static object Compared(string path)
    {
        using var thumb = Image.Thumbnail(path, 1500, height: 1000, size: Enums.Size.Force);
        using var pixels = thumb.CopyMemory();
        using var poor = Image.NewFromBuffer(pixels.JpegsaveBuffer(q: 75));
        var (a, b) = (pixels.WriteToMemory<byte>(), poor.WriteToMemory<byte>());
        double Best(Action work)
        {
            var best = double.MaxValue;
            for (var i = 0; i < 7; i++)
            {
                var clock = Stopwatch.StartNew();
                work();
                best = Math.Min(best, clock.Elapsed.TotalMilliseconds);
            }

            return best;
        }

        return new
        {
            likeness = Best(() => LikenessMeter.Measure(new(a, 1500, 1000, 3), new(b, 1500, 1000, 3))),
            encode = Best(() => pixels.JpegsaveBuffer(q: 80, keep: Enums.ForeignKeep.None)),
        };
    }

    private static Slot SlotOf(SizeRule size) =>
        new()
        {
            Key = "a",
            Name = "A",
            Size = size,
        };
}

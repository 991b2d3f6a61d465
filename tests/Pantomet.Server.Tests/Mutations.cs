using System.Buffers.Binary;
using System.Diagnostics;
using System.Text;
using NetVips;
using Pantomet.Application.Engine;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Hosting;

namespace Pantomet.Server.Tests;

/// <summary>
/// Damaged files of each type, from a seed: flipped bits, cuts, lying headers, huge claims, blocks repeated and emptied, deep profiles.
/// Each goes
/// through reading and, if it is read, through making a variant, in a process of its own kind.
/// </summary>
internal static class Mutations
{
    public static readonly string[] Formats = ["jpeg", "png", "webp", "avif", "gif", "tiff", "svg", "heic", "bmp", "jxl"];

    private const string Rules = """
        {"schema":"pantomet-rules/1","destinations":[{"key":"d","slots":[{"key":"a","size":{"width":64},
        "types":["auto"],"metadata":"keep","limits":{"maxBytes":"6 kB"}}]}]}
        """;

    public sealed record Tally(int Inputs, int Read, int Refused, int Made, int Crashes, double Longest, IReadOnlyList<string> Faults);

    public static async Task<Tally> RunAsync(string format, int count, int seed, string folder)
    {
        Directory.CreateDirectory(folder);
        // What hangs is ended by the room itself, and told apart from what is refused.
        var limit = TimeSpan.FromSeconds(30);
        await using var room = new ImagingProcessPool(
            new()
            {
                Data = folder,
                Workers = 2,
                LongestOrder = limit,
                MostEngineBytes = 2_000_000_000,
            }
        );
        var sources = Sources(format);
        int read = 0,
            refused = 0,
            made = 0,
            crashes = 0,
            next = 0;
        double longest = 0;
        var faults = new List<string>();
        var gate = new Lock();
        async Task WorkAsync()
        {
            while (true)
            {
                var number = Interlocked.Increment(ref next) - 1;
                if (number >= count)
                {
                    return;
                }

                var random = new Random(unchecked((seed * 1_000_003) + (number * 7919)));
                var path = Path.Combine(folder, $"{format}-{seed}-{number}");
                await File.WriteAllBytesAsync(path, Mutated(sources[number % sources.Count], random, format));
                var clock = Stopwatch.StartNew();
                var response = await room.RunAsync(new ReadRequest(path), CancellationToken.None);
                VariantResponse? variant = null;
                var end = response;
                if (response.Facts is { } facts)
                {
                    end = await room.RunAsync(RequestFor(path, facts, Rules, path + ".out"), CancellationToken.None);
                    variant = end.Variant;
                }

                lock (gate)
                {
                    longest = Math.Max(longest, clock.Elapsed.TotalSeconds);
                    read += response.Facts is null ? 0 : 1;
                    refused += response.Facts is null ? 1 : 0;
                    made += variant is { HasFile: true } ? 1 : 0;
                    var crashed = end.Refusal is ImagingProcessPool.Crashed or ImagingProcessPool.TookTooLong;
                    crashes += crashed ? 1 : 0;
                    if (
                        crashed
                        || (response.Facts is null && string.IsNullOrWhiteSpace(response.Refusal))
                        || (variant is { HasFile: false, Reasons.Count: 0 })
                    )
                    {
                        faults.Add($"{Path.GetFileName(path)}: {end.Refusal ?? "no reason given"}");
                        continue;
                    }
                }

                File.Delete(path);
                File.Delete(path + ".out");
            }
        }

        await Task.WhenAll(WorkAsync(), WorkAsync());
        return new(count, read, refused, made, crashes, longest, faults);
    }

    internal static byte[] Mutated(byte[] source, Random random, string format)
    {
        var bytes = (byte[])source.Clone();
        for (var rounds = random.Next(1, 4); rounds > 0 && bytes.Length > 16; rounds--)
        {
            var at = random.Next(bytes.Length);
            switch (random.Next(8))
            {
                case 0:
                    for (var i = random.Next(1, 20); i > 0; i--)
                    {
                        bytes[random.Next(bytes.Length)] ^= (byte)(1 << random.Next(8));
                    }

                    break;
                case 1:
                    bytes = bytes[..random.Next(1, bytes.Length)];
                    break;
                case 2:
                    // A header that lies: any of the first bytes.
                    bytes[random.Next(Math.Min(bytes.Length, 200))] = (byte)random.Next(256);
                    break;
                case 3:
                    // A huge claim wherever a length or a size may stand.
                    BinaryPrimitives.WriteUInt32BigEndian(
                        bytes.AsSpan(Math.Min(random.Next(Math.Min(400, bytes.Length)), bytes.Length - 4)),
                        (uint)random.NextInt64(1L << 32)
                    );
                    break;
                case 4:
                    BinaryPrimitives.WriteInt32BigEndian(
                        bytes.AsSpan(Math.Min(at, bytes.Length - 4)),
                        random.Next(2) == 0 ? -1 : int.MaxValue
                    );
                    break;
                case 5:
                    Array.Clear(bytes, at, Math.Min(random.Next(1, 200), bytes.Length - at));
                    break;
                case 6:
                    bytes = [.. bytes[..at], .. bytes[Math.Max(0, at - random.Next(1, 500))..]];
                    break;
                default:
                    random.NextBytes(bytes.AsSpan(at, Math.Min(random.Next(1, 40), bytes.Length - at)));
                    break;
            }
        }

        return format == "svg" && random.Next(6) == 0 ? Encoding.UTF8.GetBytes(Drawing(random)) : bytes;
    }

    // Drawings that ask too much: deep nesting, huge sizes, entities, references to themselves.
    private static string Drawing(Random random) =>
        random.Next(5) switch
        {
            0 => $"<svg xmlns='http://www.w3.org/2000/svg' width='90' "
                + $"height='60'>{string.Concat(Enumerable.Repeat("<g opacity='.9'>", random.Next(5000)))}<rect width='9' "
                + "height='9'/></svg>",
            1 => $"<svg xmlns='http://www.w3.org/2000/svg' width='{random.Next()}' height='{random.Next()}'><rect width='100%' "
                + $"height='100%'/></svg>",
            2 => "<!DOCTYPE svg [<!ENTITY a 'aaaaaaaaaa'><!ENTITY b '&a;&a;&a;&a;&a;&a;&a;&a;'><!ENTITY c "
                + "'&b;&b;&b;&b;&b;&b;&b;&b;'><!ENTITY d '&c;&c;&c;&c;&c;&c;&c;&c;'>]><svg xmlns='http://www.w3.org/2000/svg' "
                + "width='9' height='9'><text>&d;&d;&d;</text></svg>",
            3 => "<svg xmlns='http://www.w3.org/2000/svg' width='90' height='60'><defs><g id='a'><use href='#a'/><use "
                + "href='#a'/></g></defs><use href='#a'/></svg>",
            _ => "<svg xmlns='http://www.w3.org/2000/svg' width='90' height='60'><image href='file:///etc/passwd' width='9' "
                + "height='9'/><filter id='f'><feGaussianBlur stdDeviation='9999'/></filter><rect filter='url(#f)' width='90' "
                + "height='60'/></svg>",
        };

    // Two sound files of each type to start from: a plain one, and one with a profile and tags.
    private static List<byte[]> Sources(string format)
    {
        if (format == "svg")
        {
            return
            [
                Encoding.UTF8.GetBytes(
                    "<svg xmlns='http://www.w3.org/2000/svg' width='120' height='90' viewBox='0 0 120 90'><defs><linearGradient "
                        + "id='g'><stop offset='0' stop-color='#963'/></linearGradient></defs><circle cx='60' cy='45' r='30' "
                        + "fill='url(#g)'/><path d='M10 10 L110 80 Z' stroke='#123'/></svg>"
                ),
            ];
        }

        using var noise = Image.Gaussnoise(160, 120, sigma: 30, mean: 128, seed: 4);
        using var wave = Image.Sines(160, 120, hfreq: 3, vfreq: 2);
        using var mixed = noise + (wave * 60);
        using var one = mixed.Cast(Enums.BandFormat.Uchar);
        using var three = one.Bandjoin([one, one]).Copy(interpretation: Enums.Interpretation.Srgb);
        using var wide = three.IccTransform("p3", inputProfile: "srgb");
        using var tagged = wide.Mutate(tags =>
        {
            tags.Set(GValue.GStrType, "exif-ifd0-Copyright", "Skerry Weatherworks");
            tags.Set(GValue.GIntType, "orientation", 6);
        });
        using var deep = format is "png" or "tiff" ? three.Colourspace(Enums.Interpretation.Rgb16) : three.Copy();
        return [Written(three, format), Written(tagged, format), Written(deep, format)];
    }

    private static byte[] Written(Image image, string format) =>
        format switch
        {
            "jpeg" => image.JpegsaveBuffer(q: 85, interlace: image.Contains("icc-profile-data")),
            "png" => image.PngsaveBuffer(interlace: image.Contains("icc-profile-data")),
            "webp" => image.WebpsaveBuffer(lossless: image.Contains("icc-profile-data"), effort: 1),
            "avif" => image.HeifsaveBuffer(q: 60, compression: Enums.ForeignHeifCompression.Av1, effort: 0),
            "gif" => image.GifsaveBuffer(),
            "heic" => ByProgram(image, "heic", (from, to) => ("heif-enc", ["-q", "60", from, "-o", to])),
            "jxl" => ByProgram(image, "jxl", (from, to) => ("cjxl", [from, to])),
            "bmp" => ByProgram(image, "bmp", (from, to) => ("convert", [from, "BMP3:" + to])),
            _ => image.TiffsaveBuffer(
                compression: image.Contains("icc-profile-data") ? Enums.ForeignTiffCompression.Deflate : Enums.ForeignTiffCompression.None
            ),
        };

    // Types that the imaging library does not write.
    private static byte[] ByProgram(Image image, string ending, Func<string, string, (string Program, string[] Arguments)> call)
    {
        var folder = Directory.CreateTempSubdirectory("pantomet-mutation-source-").FullName;
        try
        {
            var (from, to) = (Path.Combine(folder, "plain.png"), Path.Combine(folder, "written." + ending));
            image.Pngsave(from);
            var (program, arguments) = call(from, to);
            using var process = Process.Start(
                new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true }
            )!;
            process.StandardError.ReadToEnd();
            process.WaitForExit();
            return File.ReadAllBytes(to);
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>An order for the first slot of a rules file.</summary>
    public static VariantRequest RequestFor(string path, PictureFacts facts, string rules, string output)
    {
        var slot = RulesReader.TryRead(rules, out var book, out var fault)
            ? book!.Destinations[0].Slots[0]
            : throw new ArgumentException(fault!.ToString());
        return new(
            path,
            facts,
            Turn.None,
            rules,
            VariantPlanner.Plan(facts.Size, slot, Density.One, null, Subject.Of([], null, facts.Suggestion)),
            null,
            null,
            output
        );
    }
}

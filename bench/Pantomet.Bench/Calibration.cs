using System.Diagnostics;
using System.Globalization;
using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Rendering;
using Pantomet.Imaging.Writing;

namespace Pantomet.Bench;

/// <summary>
/// Measures files of many qualities with our meter and with another perceptual metric (butteraugli and ssimulacra of Debian's
/// libjxl-devtools), for choosing the meter's weights and the borders between the words. One line of figures for each file.
/// </summary>
internal static class Calibration
{
    /// <summary>The column of the weights that the meter uses.</summary>
    public const string Chosen = "s0.05p4";

    private static readonly (PictureFormat Format, int[] Qualities)[] Grid =
    [
        (PictureFormat.Jpeg, [20, 35, 50, 60, 70, 80, 88, 95]),
        (PictureFormat.WebP, [15, 30, 45, 60, 70, 80, 88, 95]),
        (PictureFormat.Avif, [15, 25, 35, 45, 55, 65, 75, 85]),
    ];

    private static readonly double[] Shares = [0, 0.05, 0.1, 0.2, 0.35];
    private static readonly double[] Poolings = [1, 2, 3, 4, 6];

    public static void Run(IReadOnlyList<string> photographs, TextWriter output)
    {
        var grid = from share in Shares from pooling in Poolings select (share, pooling);
        output.WriteLine(
            "picture,format,quality,bytes,butteraugli,butteraugli3,ssimulacra,"
                + string.Join(',', grid.Select(one => Number($"s{one.share}p{one.pooling}")))
        );
        var folder = Directory.CreateTempSubdirectory("pantomet-calibration-").FullName;
        foreach (var path in photographs)
        {
            using var pixels = Small(path);
            var reference = Path.Combine(folder, "reference.png");
            File.WriteAllBytes(reference, LosslessPng.Write(pixels));
            var planes = LikenessGauge.Planes(pixels.Image);
            using var encoder = new VariantEncoder(
                pixels,
                new()
                {
                    Key = "a",
                    Name = "a",
                    Size = new Core.Geometry.SizeRule.Share(1),
                },
                new()
                {
                    Size = pixels.Size,
                    Format = PictureFormat.Jpeg,
                    Bytes = 1,
                }
            );
            foreach (var (format, quality) in Grid.SelectMany(one => one.Qualities.Select(quality => (one.Format, quality))))
            {
                var file = encoder.Dear(format, quality);
                using var decoded = Image.NewFromBuffer(file);
                var mine = LikenessGauge.Planes(decoded);
                var shown = Path.Combine(folder, "file.png");
                decoded.Pngsave(shown, compression: 1, keep: Enums.ForeignKeep.None);
                var (most, norm) = Butteraugli(reference, shown);
                var scores = grid.Select(one => Number(LikenessMeter.Measure(planes, mine, one.share, one.pooling).Score));
                output.WriteLine(
                    $"{Path.GetFileNameWithoutExtension(path)},{format.Word()},{quality},{file.Length},{Number(most)},{Number(norm)},"
                        + $"{Number(Last(Run("ssimulacra_main", reference, shown)))},{string.Join(',', scores)}"
                );
                output.Flush();
            }
        }

        Directory.Delete(folder, recursive: true);
    }

    private static RenderedPixels Small(string path)
    {
        using var small = Image.Thumbnail(path, 1000, height: 1000, size: Enums.Size.Down, outputProfile: "srgb");
        return new(small.CopyMemory());
    }

    // It prints the largest difference and, on a line of its own, "3-norm: " with the mean.
    internal static (double Most, double Norm) Butteraugli(string reference, string file)
    {
        var lines = Run("butteraugli_main", reference, file).Split('\n', StringSplitOptions.RemoveEmptyEntries);
        return (double.Parse(lines[0], CultureInfo.InvariantCulture), double.Parse(lines[1].Split(':')[1], CultureInfo.InvariantCulture));
    }

    private static double Last(string output) => double.Parse(output.Trim().Split('\n')[^1], CultureInfo.InvariantCulture);

    private static string Run(string program, params string[] arguments)
    {
        using var process = Process.Start(
            new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true }
        )!;
        var output = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return output;
    }

    private static string Number(FormattableString text) => FormattableString.Invariant(text);

    private static string Number(double value) => value.ToString("0.######", CultureInfo.InvariantCulture);
}

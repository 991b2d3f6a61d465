using System.Diagnostics;
using System.Globalization;
using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Rendering;
using Pantomet.Imaging.Writing;

namespace Pantomet.Bench;

/// <summary>
/// Measures files of many qualities with our meter and with two other perceptual metrics (butteraugli and ssimulacra of Debian's
/// libjxl-devtools), for choosing the meter's weights and the borders between the words. One line of figures for each file.
/// </summary>
internal static class Calibration
{
    /// <summary>The longest side of the pictures.</summary>
    public const int Side = 720;

    private static readonly (string Word, PictureFormat Format, bool Full, int[] Qualities)[] Grid =
    [
        ("jpeg", PictureFormat.Jpeg, false, [20, 30, 45, 60, 70, 80, 88, 95]),
        ("webp", PictureFormat.WebP, false, [20, 40, 60, 75, 85, 95]),
        ("avif", PictureFormat.Avif, false, [20, 35, 50, 65, 80]),
        ("jpeg with full colour", PictureFormat.Jpeg, true, [60, 72, 85]),
    ];

    /// <summary>Writes the lines.</summary>
    /// <param name="pictures">Photographs, wallpapers, drawings and skies.</param>
    /// <param name="output">Where they go.</param>
    public static void Run(IReadOnlyList<string> pictures, TextWriter output)
    {
        output.WriteLine("picture,kind,type,setting,bytes,butteraugli,butteraugli3,ssimulacra,likeness");
        var folder = Directory.CreateTempSubdirectory("pantomet-calibration-").FullName;
        foreach (var path in pictures)
        {
            using var pixels = Small(path);
            var reference = Path.Combine(folder, "reference.png");
            File.WriteAllBytes(reference, LosslessPng.Write(pixels));
            foreach (var (word, format, full, qualities) in Grid)
            {
                using var encoder = EncoderOf(pixels);
                encoder.KeepsColour = full;
                foreach (var quality in qualities)
                {
                    var file = encoder.Dear(format, quality);
                    using var decoded = Image.NewFromBuffer(file);
                    var shown = Path.Combine(folder, "file.png");
                    decoded.Pngsave(shown, compression: 1, keep: Enums.ForeignKeep.None);
                    var (most, norm) = Butteraugli(reference, shown);
                    var score = LikenessGauge.Compared(pixels.Image, decoded).Together().Score;
                    output.WriteLine(
                        $"{NameOf(path)},{KindOf(path)},{word},{quality},{file.Length},{Number(most)},{Number(norm)},"
                            + $"{Number(Last(Run("ssimulacra_main", reference, shown)))},{Number(score)}"
                    );
                }
            }

            output.Flush();
        }

        Directory.Delete(folder, recursive: true);
    }

    // Wallpapers all have the name of their size; their folder has their own.
    private static string NameOf(string path) =>
        path.Split('/') is var parts && parts.Contains("wallpapers") ? parts[^4] : Path.GetFileNameWithoutExtension(path);

    private static string KindOf(string path) =>
        path.Contains("/wallpapers/", StringComparison.Ordinal) ? "wallpaper"
        : Path.GetExtension(path) != ".svg" ? "photograph"
        : NameOf(path).StartsWith("sky", StringComparison.Ordinal) ? "sky"
        : "drawing";

    private static VariantEncoder EncoderOf(RenderedPixels pixels) =>
        new(
            pixels,
            new()
            {
                Key = "a",
                Name = "a",
                Size = new SizeRule.Share(1),
            },
            new()
            {
                Size = pixels.Size,
                Format = PictureFormat.Jpeg,
                Bytes = 1,
            }
        );

    private static RenderedPixels Small(string path)
    {
        using var small = Image.Thumbnail(path, Side, height: Side, size: Enums.Size.Down, outputProfile: "srgb");
        using var opaque = small.HasAlpha() ? small.Flatten(background: [255.0]) : small.Copy();
        return new(opaque.CopyMemory());
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

    private static string Number(double value) => value.ToString("0.######", CultureInfo.InvariantCulture);
}

using System.Globalization;
using NetVips;
using Pantomet.Core.Likeness;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>
/// The meter on photographs, against other implementations: the npm package ssim.js, and butteraugli of Debian's libjxl-devtools.
/// </summary>
public sealed class LikenessTests : IDisposable
{
    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Theory]
    [InlineData(15)]
    [InlineData(50)]
    [InlineData(90)]
    public void Structural_similarity_is_what_ssim_js_says(int quality)
    {
        foreach (var photograph in Workplace.Photographs.Take(3))
        {
            using var small = Image.Thumbnail(photograph, 240, height: 240);
            using var colourless = small.Colourspace(Enums.Interpretation.Bw);
            using var grey = colourless.CopyMemory();
            using var poor = Image.NewFromBuffer(grey.JpegsaveBuffer(q: quality));
            var (a, b) = (Grey(grey, "a.raw"), Grey(poor, "b.raw"));
            var script = Path.Combine(Cli.Installation.Root, "e2e", "ssim.mjs");
            var theirs = double.Parse(
                Programs.Checked("node", script, $"{grey.Width}", $"{grey.Height}", _place.At("a.raw"), _place.At("b.raw")),
                CultureInfo.InvariantCulture
            );
            Assert.InRange(StructuralSimilarity.Mean(a, b) - theirs, -0.0005, 0.0005);
        }
    }

    [Fact]
    public void The_likeness_ranks_files_as_butteraugli_does()
    {
        // A small part of what bench/calibrate measures: one photograph, five qualities, two types.
        using var small = Image.Thumbnail(Workplace.Photographs[4], 500, height: 500, outputProfile: "srgb");
        using var pixels = small.CopyMemory();
        pixels.Pngsave(_place.At("reference.png"));
        var measured = new List<(double Ours, double Theirs)>();
        foreach (
            var file in new[] { 20, 40, 60, 80, 95 }.SelectMany(quality =>
                new[] { pixels.JpegsaveBuffer(q: quality), pixels.WebpsaveBuffer(q: quality) }
            )
        )
        {
            using var decoded = Image.NewFromBuffer(file);
            decoded.Pngsave(_place.At("file.png"));
            var norm = Programs.Checked("butteraugli_main", _place.At("reference.png"), _place.At("file.png")).Trim().Split(':')[^1];
            measured.Add((LikenessGauge.Compared(pixels, decoded).Together().Score, -double.Parse(norm, CultureInfo.InvariantCulture)));
        }

        Assert.True(Spearman(measured) >= 0.9, string.Create(CultureInfo.InvariantCulture, $"rank correlation {Spearman(measured)}"));
    }

    [Theory]
    [InlineData("#0068c8", "#e02010", true)]
    [InlineData("#8a8a8a", "#707070", false)]
    public void Colour_is_kept_at_full_size_only_where_halving_it_would_show(string ground, string bars, bool kept)
    {
        var drawing = string.Concat(Enumerable.Range(0, 12).Select(i => $"<path d='M{30 * i} 0 l20 300 h8 l-18 -300 z' fill='{bars}'/>"));
        File.WriteAllText(
            _place.At("a.svg"),
            $"<svg xmlns='http://www.w3.org/2000/svg' width='360' height='300'><path d='M0 0h360v300H0z' fill='{ground}'/>{drawing}</svg>"
        );
        var report = _place.Render(
            _place.Rules(
                """{ "key": "s", "size": { "width": 320 }, "types": ["jpeg", "webp", "avif"], "each": true, "aims": { "quality": [70, 70] } }"""
            ),
            0,
            _place.At("a.svg")
        );
        var variants = report.GetProperty("variants").EnumerateArray().ToList();
        Assert.Equal(
            [kept, false, kept],
            variants.Select(variant =>
                variant.GetProperty("reasons").EnumerateArray().Any(reason => reason.GetProperty("code").GetString() == "full-colour")
            )
        );
        var jpeg = Path.Combine(_place.Out, variants[0].GetProperty("file").GetString()!);
        Assert.Equal(kept ? "1x1,1x1,1x1" : "2x2,1x1,1x1", Programs.Identify("%[jpeg:sampling-factor]", jpeg));
    }

    private static double Spearman(List<(double Ours, double Theirs)> pairs)
    {
        var ours = pairs.Select(pair => pairs.Count(other => other.Ours < pair.Ours)).ToList();
        var theirs = pairs.Select(pair => pairs.Count(other => other.Theirs < pair.Theirs)).ToList();
        double n = pairs.Count;
        return 1 - (6 * ours.Zip(theirs).Sum(pair => Math.Pow(pair.First - pair.Second, 2)) / (n * ((n * n) - 1)));
    }

    private Plane Grey(Image image, string name)
    {
        var bytes = image.WriteToMemory<byte>();
        File.WriteAllBytes(_place.At(name), bytes);
        return Plane.LumaOf(bytes, image.Width, image.Height, 1);
    }
}

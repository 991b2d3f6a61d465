using System.Text.Json;
using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Imaging.Rendering;
using Pantomet.Imaging.Tests.Support;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Tests;

/// <summary>The types that are written, each opened by Debian's own decoder of it, and the keys that choose among them.</summary>
public sealed class RenderTypeTests : IDisposable
{
    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Fact]
    public void Every_type_is_opened_by_its_own_decoder()
    {
        var report = _place.Render(
            _place.Rules(
                """{ "key": "a", "size": { "width": 300, "height": 200 }, "types": ["jpeg", "webp", "avif", "png"], "each": true }"""
            ),
            0,
            Workplace.Photographs[1]
        );
        var files = report.GetProperty("variants").EnumerateArray().Select(FileOf).ToList();
        Programs.Checked("djpeg", "-outfile", _place.At("jpeg.ppm"), files[0]);
        Programs.Checked("dwebp", "-quiet", files[1], "-ppm", "-o", _place.At("webp.ppm"));
        Programs.Checked("avifdec", files[2], _place.At("avif.png"));
        Assert.All(
            new[] { _place.At("jpeg.ppm"), _place.At("webp.ppm"), _place.At("avif.png"), files[3] },
            file => Assert.Equal("300x200", Programs.Identify("%wx%h", file))
        );
        // All four show the same picture: within a few steps of the lossless one on the mean.
        foreach (var file in new[] { "jpeg.ppm", "webp.ppm", "avif.png" })
        {
            var difference = double.Parse(
                Programs.Checked("convert", _place.At(file), files[3], "-metric", "MAE", "-compare", "-format", "%[distortion]", "info:"),
                System.Globalization.CultureInfo.InvariantCulture
            );
            Assert.True(difference < 0.03, $"{file} is {difference} off");
        }
    }

    [Fact]
    public void A_palette_png_is_opened_by_another_reader_and_keeps_its_few_colours()
    {
        var report = _place.Render(
            _place.Rules("""{ "key": "a", "size": { "width": 300 }, "types": ["png"], "limits": { "maxBytes": "70 kB" } }"""),
            0,
            Workplace.Photographs[1]
        );
        var variant = report.GetProperty("variants")[0];
        Assert.Equal("palette", variant.GetProperty("reasons")[0].GetProperty("code").GetString());
        Assert.Equal("PaletteAlpha".Replace("Alpha", "", StringComparison.Ordinal), Programs.Identify("%[type]", FileOf(variant)));
        Assert.True(int.Parse(Programs.Identify("%k", FileOf(variant)), System.Globalization.CultureInfo.InvariantCulture) <= 256);
        Assert.InRange(variant.GetProperty("likeness").GetDouble(), 0.5, 0.9999);
    }

    [Fact]
    public void A_moving_picture_keeps_its_frames_where_the_slot_says_so()
    {
        Programs.Checked(
            "convert",
            "-delay",
            "20",
            "-size",
            "120x80",
            "xc:#804020",
            "xc:#208040",
            "xc:#402080",
            "-loop",
            "0",
            _place.At("move.gif")
        );
        var report = _place.Render(
            _place.Rules(
                """
                { "key": "all", "size": { "width": 60, "height": 60 }, "types": ["webp"], "frames": "all" },
                { "key": "first", "size": { "width": 60 }, "types": ["webp"] }
                """
            ),
            0,
            _place.At("move.gif")
        );
        Assert.Equal(3, report.GetProperty("sources")[0].GetProperty("frames").GetInt32());
        var (all, first) = (report.GetProperty("variants")[0], report.GetProperty("variants")[1]);
        using var moving = Image.NewFromFile(FileOf(all), kwargs: new VOption { { "n", -1 } });
        Assert.Equal((3, 60, 200), (moving.Get("n-pages"), moving.Get("page-height"), ((int[])moving.Get("delay"))[1]));
        AssertNear([0x20, 0x80, 0x40], moving.Getpoint(30, 90));
        Assert.Equal("first-frame", first.GetProperty("reasons").EnumerateArray().Last().GetProperty("code").GetString());
    }

    [Fact]
    public void A_moving_picture_gives_up_the_same_things_in_the_same_order_as_a_still_one()
    {
        Programs.Checked(
            "convert",
            "-delay",
            "10",
            "-size",
            "240x160",
            "-seed",
            "3",
            "plasma:red-blue",
            "plasma:green-white",
            "plasma:yellow-black",
            "-attenuate",
            "0.6",
            "+noise",
            "gaussian",
            _place.At("busy.gif")
        );
        const string moving = """ "types": ["webp"], "frames": "all" """;
        var report = _place.Render(
            _place.Rules(
                $$"""
                { "key": "free", "size": { "width": 200, "height": 120 }, {{moving}} },
                { "key": "tight", "size": { "width": 200, "height": 120 }, "limits": { "maxBytes": 6000 }, {{moving}} },
                { "key": "smaller", "size": { "within": { "width": 200, "height": 200 } }, "limits": { "maxBytes": 1500 }, {{moving}} },
                { "key": "never", "size": { "width": 200, "height": 120 }, "limits": { "maxBytes": 600 }, {{moving}} },
                { "key": "both", "size": { "width": 60, "height": 60 }, "types": ["webp", "jpeg"], "each": true, "frames": "all" }
                """
            ),
            1,
            _place.At("busy.gif")
        );
        var variants = report.GetProperty("variants").EnumerateArray().ToList();
        string[] Codes(int i) =>
            [.. variants[i].GetProperty("reasons").EnumerateArray().Select(reason => reason.GetProperty("code").GetString()!)];
        // Noise has no subject, and without a limit nothing is given up.
        Assert.Empty(Codes(0));
        Assert.Contains("low-quality", Codes(1));
        Assert.InRange(variants[1].GetProperty("bytes").GetInt64(), 1, 6000);
        Assert.Contains("fewer-pixels", Codes(2));
        Assert.InRange(variants[2].GetProperty("bytes").GetInt64(), 1, 1500);
        Assert.Equal(("breaks", false), (variants[3].GetProperty("verdict").GetString(), variants[3].TryGetProperty("file", out _)));
        Assert.Contains("still picture", variants[3].GetProperty("reasons")[0].GetProperty("message").GetString());
        Assert.Contains("first-frame", Codes(5));
        Assert.DoesNotContain("first-frame", Codes(4));
        foreach (var (variant, frames) in variants[..3].Append(variants[4]).Select(one => (one, 3)).Append((variants[5], 1)))
        {
            using var file = Image.NewFromFile(FileOf(variant));
            Assert.Equal(frames, file.Contains("n-pages") ? file.Get("n-pages") : 1);
        }
    }

    [Fact]
    public void The_quality_of_a_jpeg_is_what_another_reader_says()
    {
        // ImageMagick writes Annex K's tables scaled by its quality, and reads the quality off again.
        foreach (var quality in Enumerable.Range(1, 100).Where(quality => quality % 7 == 1 || quality > 90))
        {
            var file = _place.At($"{quality}.jpg");
            Programs.Checked("convert", "-size", "16x16", "plasma:fractal", "-quality", $"{quality}", file);
            using var stream = File.OpenRead(file);
            Assert.Equal(Programs.Identify("%Q", file), $"{JpegTables.EstimateQuality(stream)}");
        }
    }

    [Fact]
    public void Keep_boxes_and_the_subject_share_frame_what_is_rendered()
    {
        Programs.Checked(
            "convert",
            "-size",
            "1000x600",
            "xc:#dddddd",
            "-fill",
            "#aa2211",
            "-draw",
            "rectangle 700,200 899,399",
            _place.At("red.png")
        );
        var marks = _place.Write(
            "marks.json",
            """{ "schema": "pantomet-marks/1", "pictures": { "red.png": { "keep": [[0.7, 0.3333, 0.9, 0.6667]] } } }"""
        );
        var rules = _place.Rules(
            """
            { "key": "grid", "size": { "width": 200, "height": 200 }, "subjectShare": 0.8, "clear": [0, 0, 1, 1],
            "types": ["png"], "sharpen": "off" }
            """
        );
        var answer = Programs.Pantomet(
            "render",
            "--rules",
            rules,
            "--out",
            _place.Out,
            "--marks",
            marks,
            "--report",
            _place.At("report.json"),
            _place.At("red.png")
        );
        Assert.Equal(0, answer.Code);
        var variant = JsonDocument.Parse(File.ReadAllText(_place.At("report.json"))).RootElement.GetProperty("variants")[0];
        Assert.Equal([675, 175, 925, 425], variant.GetProperty("frame").EnumerateArray().Select(edge => edge.GetInt32()));
        // The red square takes 160 of the 200 pixels, in the middle.
        var file = FileOf(variant);
        Assert.All(
            new[] { (24, 100), (175, 100), (100, 24), (100, 175) },
            at => AssertNear([0xaa, 0x22, 0x11], Programs.Pixel(file, at.Item1, at.Item2).Select(value => (double)value).ToArray())
        );
        Assert.All(
            new[] { (15, 100), (184, 100), (100, 15), (100, 184) },
            at => AssertNear([0xdd, 0xdd, 0xdd], Programs.Pixel(file, at.Item1, at.Item2).Select(value => (double)value).ToArray())
        );
    }

    [Fact]
    public void A_better_quality_number_never_means_coarser_tables() =>
        Assert.Equal(Enumerable.Range(1, 100).Select(JpegScale.QualityOf), Enumerable.Range(1, 100).Select(JpegScale.QualityOf).Order());

    [Fact]
    public void Sharpening_is_the_kernel_it_says_and_leaves_even_areas_alone()
    {
        var pixels = new byte[67 * 9 * 3];
        new Random(8).NextBytes(pixels);
        var sharp = Crispness.Sharpen(pixels, 67, 9, 3, 0, 32);
        for (var y = 1; y < 8; y++)
        {
            for (var x = 3; x < 66 * 3; x++)
            {
                var around = 0;
                foreach (var (dx, dy) in new[] { (-3, -1), (0, -1), (3, -1), (-3, 0), (3, 0), (-3, 1), (0, 1), (3, 1) })
                {
                    around += pixels[((y + dy) * 67 * 3) + x + dx];
                }

                var expected = Math.Clamp(Math.Floor((((32 * pixels[(y * 67 * 3) + x]) - around) / 24.0) + 0.5), 0, 255);
                Assert.InRange(sharp[(y * 67 * 3) + x] - expected, -1, 1);
            }
        }

        byte[] even = [.. Enumerable.Repeat((byte)77, 400)];
        Assert.Equal(even, Crispness.Sharpen(even, 20, 20, 1, 0, 18));
    }

    private static void AssertNear(double[] expected, double[] actual) =>
        Assert.True(
            expected.Zip(actual).All(pair => Math.Abs(pair.First - pair.Second) <= 8),
            $"expected {string.Join(',', expected)}, got {string.Join(',', actual)}"
        );

    private string FileOf(JsonElement variant) => Path.Combine(_place.Out, variant.GetProperty("file").GetString()!);
}

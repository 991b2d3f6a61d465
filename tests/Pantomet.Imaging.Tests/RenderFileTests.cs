using System.Globalization;
using System.Text.Json;
using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>The files that render writes, checked with independent readers: ImageMagick and exiftool.</summary>
public sealed class RenderFileTests : IDisposable
{
    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    public static TheoryData<string, string> SizesOfA3000By2000Picture =>
        new()
        {
            { """{"width":900,"height":300}""", "900x300" },
            { """{"ratio":"5:4","width":1000}""", "1000x800" },
            { """{"ratio":"16:9","height":540}""", "960x540" },
            { """{"ratio":"5:4","longSide":2500}""", "2500x2000" },
            { """{"ratio":"5:4","shortSide":2000}""", "2500x2000" },
            { """{"ratio":"1:1"}""", "2000x2000" },
            { """{"width":655}""", "655x437" },
            { """{"height":300}""", "450x300" },
            { """{"longSide":600}""", "600x400" },
            { """{"shortSide":250}""", "375x250" },
            { """{"within":{"width":1024,"height":1024}}""", "1024x683" },
            { """{"share":0.25}""", "750x500" },
            { """{"maxPixels":1000000}""", "1224x816" },
            { """{"ratio":"1.91:1","width":1200}""", "1200x628" },
        };

    [Theory]
    [MemberData(nameof(SizesOfA3000By2000Picture))]
    public void Every_size_rule_gives_its_pixels(string size, string expected)
    {
        var report = _place.Render(_place.Rules($$"""{ "key": "a", "size": {{size}} }"""), 0, _place.Quarters("a.jpg", 3000, 2000));
        var variant = report.GetProperty("variants")[0];
        Assert.Equal(expected, Programs.Identify("%wx%h", FileOf(variant)));
        Assert.Equal(expected, $"{variant.GetProperty("width")}x{variant.GetProperty("height")}");
        Assert.Equal(new FileInfo(FileOf(variant)).Length, variant.GetProperty("bytes").GetInt64());
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    [InlineData(7)]
    [InlineData(8)]
    public void Every_orientation_tag_is_applied_and_dropped(int orientation)
    {
        var source = _place.Quarters("a.jpg", 400, 200, orientation);
        var report = _place.Render(_place.Rules("""{ "key": "a", "size": { "longSide": 200 } }"""), 0, source);
        var turned = orientation >= 5;
        Assert.Equal(turned ? 200 : 400, report.GetProperty("sources")[0].GetProperty("width").GetInt32());
        var file = FileOf(report.GetProperty("variants")[0]);
        Assert.Equal(turned ? "100x200" : "200x100", Programs.Identify("%wx%h", file));
        Assert.Equal("", Programs.Tag("Orientation", file));
        // ImageMagick turns the source upright on its own; all four quarters must agree.
        var upright = _place.At("upright.png");
        Programs.Checked("convert", source, "-auto-orient", "+repage", "-resize", "50%", upright);
        foreach (var (x, y) in turned ? new[] { (25, 50), (75, 50), (25, 150), (75, 150) } : [(50, 25), (150, 25), (50, 75), (150, 75)])
        {
            AssertNear(Programs.Pixel(upright, x, y), Programs.Pixel(file, x, y), 6);
        }
    }

    [Fact]
    public void Weight_limits_are_never_exceeded_over_the_photographs()
    {
        Assert.True(Workplace.Photographs.Length >= 10, "the photographs of lomiri-wallpapers-16.04 are not installed");
        var rules = _place.Rules(
            """
            { "key": "page", "size": { "width": 1500 }, "limits": { "maxBytes": "150 kB" } },
            { "key": "strip", "size": { "width": 960, "height": 190 }, "limits": { "maxBytes": "40 kB" } },
            { "key": "thumb", "size": { "width": 250, "height": 250 }, "limits": { "maxBytes": 9000 } }
            """
        );
        var report = _place.Render(rules, 0, Workplace.Photographs[..6]);
        foreach (var variant in report.GetProperty("variants").EnumerateArray())
        {
            var limit = variant.GetProperty("slot").GetString() switch
            {
                "page" => 150_000,
                "strip" => 40_000,
                _ => 9000,
            };
            var bytes = new FileInfo(FileOf(variant)).Length;
            var words = $"{variant.GetProperty("file")}: {bytes} bytes at quality {variant.GetProperty("quality")}";
            Assert.True(bytes <= limit, words);
            // Where no ceiling binds, neither the usual one nor the original's own quality, the limit is used up but for a step of quality.
            var ceiling =
                variant.GetProperty("quality").GetInt32() == 80
                || variant
                    .GetProperty("reasons")
                    .EnumerateArray()
                    .Any(reason => reason.GetProperty("code").GetString() == "original-quality");
            Assert.True(ceiling || bytes >= limit * 0.9, words);
        }
    }

    [Fact]
    public void The_density_label_is_written_and_the_location_never()
    {
        var source = _place.Quarters("a.jpg", 400, 300);
        Programs.Checked(
            "exiftool",
            "-q",
            "-overwrite_original",
            "-GPSLatitude=1.5",
            "-GPSLatitudeRef=N",
            "-GPSLongitude=2.5",
            "-GPSLongitudeRef=E",
            "-Make=Skerry",
            source
        );
        Assert.NotEqual("", Programs.Tag("GPSLatitude", source));
        var report = _place.Render(
            _place.Rules(
                """
                { "key": "print", "size": { "width": 200 }, "ppi": 300, "types": ["jpeg"] }, { "key": "drawn", "size": {
                "width": 200 }, "ppi": 144, "types": ["png"] }
                """
            ),
            0,
            source
        );
        var (jpeg, png) = (FileOf(report.GetProperty("variants")[0]), FileOf(report.GetProperty("variants")[1]));
        Assert.Equal("300", Programs.Tag("JFIF:XResolution", jpeg));
        // A PNG counts pixels to the metre: 144 ppi is 5669 of them.
        Assert.Equal("5669", Programs.Tag("PixelsPerUnitX", png));
        Assert.All([jpeg, png], file => Assert.Equal("", Programs.Tag("GPSLatitude", file) + Programs.Tag("Make", file)));
    }

    [Fact]
    public void Transparency_is_kept_in_png_and_laid_on_the_background_in_jpeg()
    {
        var source = _place.Quarters("mark.png", 400, 400, alpha: true);
        var report = _place.Render(
            _place.Rules(
                """
                { "key": "png", "size": { "width": 200 }, "types": ["png"] },
                { "key": "jpeg", "size": { "width": 200 }, "background": "#336699" },
                { "key": "white", "size": { "width": 200 } },
                { "key": "mat", "size": { "width": 400, "height": 200 }, "fit": "mat", "background": "#336699", "types": ["png"] }
                """
            ),
            0,
            source
        );
        var files = report.GetProperty("variants").EnumerateArray().Select(FileOf).ToArray();
        Assert.Equal("0", Programs.Checked("convert", files[0], "-format", "%[fx:u.p{50,50}.a]", "info:"));
        Assert.Equal("1", Programs.Checked("convert", files[0], "-format", "%[fx:u.p{150,50}.a]", "info:"));
        AssertNear([0x33, 0x66, 0x99], Programs.Pixel(files[1], 50, 50), 4);
        AssertNear([255, 255, 255], Programs.Pixel(files[2], 50, 50), 4);
        AssertNear([0x33, 0x66, 0x99], Programs.Pixel(files[3], 10, 100), 0);
        Assert.Equal("400x200", Programs.Identify("%wx%h", files[3]));
    }

    [Fact]
    public void The_edge_colour_fills_a_mat()
    {
        Programs.Checked(
            "convert",
            "-size",
            "300x300",
            "xc:#884422",
            "-fill",
            "white",
            "-draw",
            "circle 150,150 150,100",
            _place.At("dot.png")
        );
        var report = _place.Render(
            _place.Rules(
                """{ "key": "a", "size": { "width": 400, "height": 200 }, "fit": "mat", "background": "edge", "types": ["png"] }"""
            ),
            0,
            _place.At("dot.png")
        );
        AssertNear([0x88, 0x44, 0x22], Programs.Pixel(FileOf(report.GetProperty("variants")[0]), 5, 5), 1);
    }

    [Fact]
    public void A_wide_colour_profile_is_converted_before_it_is_dropped()
    {
        const string wide = "/usr/share/color/icc/colord/AdobeRGB1998.icc";
        Programs.Checked(
            "convert",
            "-size",
            "200x200",
            "xc:rgb(90,180,60)",
            "-profile",
            wide,
            "-quality",
            "98",
            "-sampling-factor",
            "1x1",
            _place.At("wide.png")
        );
        var report = _place.Render(
            _place.Rules("""{ "key": "a", "size": { "width": 100 }, "types": ["png"] }"""),
            0,
            _place.At("wide.png")
        );
        var file = FileOf(report.GetProperty("variants")[0]);
        Assert.Equal("", Programs.Tag("ProfileDescription", file));
        Programs.Checked("convert", _place.At("wide.png"), "-profile", "/usr/share/color/icc/colord/sRGB.icc", _place.At("other.png"));
        AssertNear(Programs.Pixel(_place.At("other.png"), 100, 100), Programs.Pixel(file, 50, 50), 2);
    }

    [Fact]
    public void A_grey_picture_stays_grey_and_takes_a_coloured_mat()
    {
        Programs.Checked("convert", "-size", "300x300", "gradient:", "-colorspace", "Gray", "-type", "Grayscale", _place.At("grey.png"));
        var report = _place.Render(
            _place.Rules(
                """
                { "key": "a", "size": { "width": 100 }, "types": ["png"] }, { "key": "b", "size": { "width": 100 } },
                { "key": "c", "size": { "width": 400, "height": 100 }, "fit": "mat", "background": "#336699", "types": ["png"] }
                """
            ),
            0,
            _place.At("grey.png")
        );
        var files = report.GetProperty("variants").EnumerateArray().Select(FileOf).ToArray();
        Assert.All(files.Take(2), file => Assert.Equal("Gray", Programs.Identify("%[colorspace]", file)));
        AssertNear([0x33, 0x66, 0x99], Programs.Pixel(files[2], 5, 5), 0);
    }

    [Theory]
    [InlineData("a.gif")]
    [InlineData("a.webp")]
    [InlineData("a.tif")]
    [InlineData("a.png")]
    public void Other_types_are_read_as_well(string name)
    {
        Programs.Checked("convert", Workplace.Photographs[0], "-resize", "400x", _place.At(name));
        var report = _place.Render(_place.Rules("""{ "key": "a", "size": { "width": 200 } }"""), 0, _place.At(name));
        Assert.Equal(
            Path.GetExtension(name).TrimStart('.') switch
            {
                "tif" => "tiff",
                var word => word,
            },
            report.GetProperty("sources")[0].GetProperty("format").GetString()
        );
        Assert.Equal(200, report.GetProperty("variants")[0].GetProperty("width").GetInt32());
    }

    [Theory]
    [InlineData("1x1", "dot.jpg", "1x1")]
    [InlineData("1x700", "line.jpg", "1x200")]
    [InlineData("9000x3", "thread.png", "200x1")]
    public void Pictures_of_the_oddest_sizes_are_made(string size, string name, string expected)
    {
        Programs.Checked("convert", "-size", size, "xc:#804020", _place.At(name));
        var report = _place.Render(
            _place.Rules("""{ "key": "a", "size": { "within": { "width": 200, "height": 200 } } }"""),
            0,
            _place.At(name)
        );
        Assert.Equal(expected, Programs.Identify("%wx%h", FileOf(report.GetProperty("variants")[0])));
    }

    [Fact]
    public void Marks_name_the_picture_and_frame_it()
    {
        _place.Quarters("a.jpg", 800, 400);
        var marks = _place.Write(
            "marks.json",
            """
            { "schema": "pantomet-marks/1", "pictures": { "a.jpg": { "name": "Storm vane, brass", "framings": { "d/a": [0,
            0, 0.5, 0.5] } } } }
            """
        );
        var answer = Programs.Pantomet(
            "render",
            "--rules",
            _place.Rules("""{ "key": "a", "size": { "width": 200 } }"""),
            "--out",
            _place.Out,
            "--marks",
            marks,
            _place.At("a.jpg")
        );
        Assert.Equal(0, answer.Code);
        AssertNear([220, 20, 20], Programs.Pixel(Path.Combine(_place.Out, "d/storm-vane-brass-a.jpg"), 190, 90), 8);
    }

    [Fact]
    public void Two_densities_of_one_slot_stand_beside_each_other()
    {
        var report = _place.Render(
            _place.Rules("""{ "key": "a", "size": { "width": 300 }, "densities": [1, 2, 1.5] }"""),
            0,
            _place.Quarters("a.jpg", 500, 400)
        );
        var variants = report.GetProperty("variants").EnumerateArray().ToList();
        Assert.Equal(["d/a-a.jpg", "d/a-a@1.5x.jpg", "d/a-a@2x.jpg"], variants.Select(variant => variant.GetProperty("file").GetString()));
        Assert.Equal(["meets", "meets", "concedes"], variants.Select(variant => variant.GetProperty("verdict").GetString()));
        Assert.Contains(
            "1.66x of the 2x asked",
            variants[2].GetProperty("reasons")[0].GetProperty("message").GetString(),
            StringComparison.Ordinal
        );
        Assert.Equal("500x400", Programs.Identify("%wx%h", FileOf(variants[2])));
    }

    private static void AssertNear(int[] expected, int[] actual, int most) =>
        Assert.True(
            expected.Zip(actual).All(pair => Math.Abs(pair.First - pair.Second) <= most),
            string.Create(CultureInfo.InvariantCulture, $"expected {string.Join(',', expected)}, got {string.Join(',', actual)}")
        );

    private string FileOf(JsonElement variant) => Path.Combine(_place.Out, variant.GetProperty("file").GetString()!);
}

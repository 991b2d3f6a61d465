using NetVips;
using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>
/// Colours of originals that are not sRGB, against what the colour engine lcms answers through another program (ImageMagick), with the same
/// intent; and what the types make of transparency and 16 bits.
/// </summary>
public sealed class RenderColourTests : IDisposable
{
    private const string Screen = "/usr/share/color/icc/colord/sRGB.icc";

    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Theory]
    [InlineData("p3", "a.png")]
    [InlineData("p3", "a.tif")]
    [InlineData("cmyk", "a.tif")]
    [InlineData("cmyk", "a.jpg")]
    [InlineData("adobe", "a.png")]
    public void Colours_come_out_right_in_srgb(string profile, string name)
    {
        int[][] colours =
        [
            [200, 60, 40],
            [40, 160, 70],
            [50, 70, 180],
            [128, 128, 128],
            [230, 200, 150],
            [60, 60, 70],
        ];
        using var strip = Image.Arrayjoin([.. colours.Select(colour => Flat(colour))], across: colours.Length);
        using var wide =
            profile == "adobe"
                ? strip.IccTransform("/usr/share/color/icc/colord/AdobeRGB1998.icc", inputProfile: "srgb", intent: Enums.Intent.Relative)
                : strip.IccTransform(profile, inputProfile: "srgb", intent: Enums.Intent.Relative);
        var source = _place.At(name);
        wide.WriteToFile(source);
        var report = _place.Render(
            _place.Rules($$"""{ "key": "a", "size": { "width": {{32 * colours.Length}} }, "types": ["png"] }"""),
            0,
            source
        );
        var made = Path.Combine(_place.Out, report.GetProperty("variants")[0].GetProperty("file").GetString()!);
        Programs.Checked(
            "convert",
            source,
            "-intent",
            "relative",
            "-black-point-compensation",
            "-profile",
            Screen,
            "-depth",
            "8",
            _place.At("other.png")
        );
        for (var i = 0; i < colours.Length; i++)
        {
            var (ours, theirs) = (Programs.Pixel(made, (32 * i) + 16, 16), Programs.Pixel(_place.At("other.png"), (64 * i) + 32, 32));
            Assert.True(
                ours.Zip(theirs).All(pair => Math.Abs(pair.First - pair.Second) <= 2),
                $"{profile} {string.Join(',', colours[i])}: {string.Join(',', ours)} against {string.Join(',', theirs)}"
            );
        }
    }

    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public void A_photograph_in_printing_colours_is_what_another_program_shows_down_to_its_darkest_places(int photograph)
    {
        var source = _place.At("print.tif");
        using (var small = Image.Thumbnail(Workplace.Photographs[photograph], 400))
        using (var print = small.IccTransform("cmyk", inputProfile: "srgb", intent: Enums.Intent.Relative, depth: 8))
        {
            print.WriteToFile(source);
        }

        var report = _place.Render(_place.Rules("""{ "key": "a", "size": { "width": 400 }, "types": ["png"] }"""), 0, source);
        Programs.Checked(
            "convert",
            source,
            "-intent",
            "relative",
            "-black-point-compensation",
            "-profile",
            Screen,
            "-depth",
            "8",
            _place.At("other.png")
        );
        using var ours = Image.NewFromFile(Path.Combine(_place.Out, report.GetProperty("variants")[0].GetProperty("file").GetString()!));
        using var theirs = Image.NewFromFile(_place.At("other.png"));
        using var apart = (ours - theirs).Abs();
        Assert.InRange(apart.Max(), 0, 2);
        Assert.InRange(apart.Avg(), 0, 0.75);
    }

    [Fact]
    public void A_profile_is_kept_with_its_values_where_a_slot_says_so()
    {
        using var flat = Flat(200, 60, 40);
        using var wide = flat.IccTransform("p3", inputProfile: "srgb", intent: Enums.Intent.Relative);
        wide.WriteToFile(_place.At("wide.png"));
        var report = _place.Render(
            _place.Rules(
                """
                { "key": "a", "size": { "width": 32 }, "types": ["jpeg", "png", "webp", "avif"], "each": true,
                "profile": "keep", "aims": { "quality": [90, 95] } }
                """
            ),
            0,
            _place.At("wide.png")
        );
        var stored = Programs.Pixel(_place.At("wide.png"), 32, 32);
        foreach (var variant in report.GetProperty("variants").EnumerateArray())
        {
            var file = Path.Combine(_place.Out, variant.GetProperty("file").GetString()!);
            Assert.NotEqual("", Programs.Tag("ProfileDescription", file));
            if (file.EndsWith("png", StringComparison.Ordinal))
            {
                Assert.Equal(stored, Programs.Pixel(file, 16, 16));
            }
        }
    }

    [Fact]
    public void Sixteen_bits_are_read_as_what_they_show()
    {
        Programs.Checked("convert", "-size", "64x64", "xc:rgb(64.2%,32.1%,16.4%)", "-depth", "16", _place.At("deep.png"));
        Assert.Equal("16", Programs.Identify("%z", _place.At("deep.png")));
        var report = _place.Render(_place.Rules("""{ "key": "a", "size": { "width": 32 }, "types": ["png"] }"""), 0, _place.At("deep.png"));
        var shown = Programs.Pixel(Path.Combine(_place.Out, report.GetProperty("variants")[0].GetProperty("file").GetString()!), 16, 16);
        Assert.True(new[] { 164, 82, 42 }.Zip(shown).All(pair => Math.Abs(pair.First - pair.Second) <= 1), string.Join(',', shown));
    }

    [Fact]
    public void Transparency_is_kept_by_every_type_that_can()
    {
        var source = _place.Quarters("mark.png", 200, 200, alpha: true);
        var report = _place.Render(
            _place.Rules(
                """
                { "key": "a", "size": { "width": 100 }, "types": ["png", "webp", "avif"], "each": true }, { "key": "auto",
                "size": { "width": 100 }, "types": ["auto"] }
                """
            ),
            0,
            source
        );
        foreach (var variant in report.GetProperty("variants").EnumerateArray())
        {
            using var read = Image.NewFromFile(Path.Combine(_place.Out, variant.GetProperty("file").GetString()!));
            Assert.True(read.HasAlpha(), variant.GetProperty("file").GetString());
            Assert.InRange(read.Getpoint(20, 50)[3], 0, 3);
            Assert.InRange(read.Getpoint(80, 50)[3], 252, 255);
        }
    }

    [Fact]
    public void An_alpha_channel_that_hides_nothing_is_dropped()
    {
        Programs.Checked("convert", Workplace.Photographs[0], "-resize", "300x", "-alpha", "set", _place.At("idle.png"));
        var report = _place.Render(
            _place.Rules("""{ "key": "a", "size": { "width": 100 }, "types": ["auto", "jpeg", "png"] }"""),
            0,
            _place.At("idle.png")
        );
        Assert.Equal("jpeg", report.GetProperty("variants")[0].GetProperty("format").GetString());
        Assert.DoesNotContain(
            report.GetProperty("variants")[0].GetProperty("reasons").EnumerateArray(),
            reason => reason.GetProperty("code").GetString() == "flattened"
        );
    }

    private static Image Flat(params int[] colour)
    {
        using var black = Image.Black(64, 64, bands: 3);
        using var filled = black + colour.Select(value => (double)value).ToArray();
        using var bytes = filled.Cast(Enums.BandFormat.Uchar);
        return bytes.Copy(interpretation: Enums.Interpretation.Srgb);
    }
}

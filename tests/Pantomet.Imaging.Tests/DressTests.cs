using Pantomet.Imaging.Dressing;
using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>What is put over pictures, measured again from the files by other programs and by formulas of the tests' own.</summary>
public sealed class DressTests : IDisposable
{
    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Theory]
    [InlineData("#ffffff", "#222222", "all")]
    [InlineData("#0a1420", "#ffffff", "side")]
    public void The_contrast_that_is_stated_is_in_the_file_and_no_smaller_fade_would_do(string to, string ink, string reach)
    {
        var rules = _place.Rules(
            $$"""
            { "key": "ground", "size": { "width": 900, "height": 450 },
              "dress": { "fade": { "to": "{{to}}", "ink": "{{ink}}", "contrast": 4.5, "area": [0.1, 0.2, 0.6, 0.5], "reach": "{{reach}}" } } },
            { "key": "bare", "size": { "width": 900, "height": 450 }, "types": ["png"] }
            """
        );
        var variants = _place.Render(rules, 0, Workplace.Photographs[..5]).GetProperty("variants").EnumerateArray().ToList();
        foreach (var pair in variants.GroupBy(variant => variant.GetProperty("source").GetString()))
        {
            var dressed = pair.Single(one => one.GetProperty("slot").GetString() == "ground");
            var (stated, fade) = (
                dressed.GetProperty("dress").GetProperty("contrast").GetDouble(),
                dressed.GetProperty("dress").GetProperty("fade").GetDouble()
            );
            Assert.Equal(ink, dressed.GetProperty("dress").GetProperty("ink").GetString());
            Assert.InRange(stated, 4.5, fade > 0 ? 4.75 : 21);
            var file = Programs.Rows(Path.Combine(_place.Out, dressed.GetProperty("file").GetString()!));
            Assert.InRange(Worst(file, ink, to, 0), 4.45, 21);

            // The same pixels without a fade, faded here: two steps less are too few.
            var bare = pair.Single(one => one.GetProperty("slot").GetString() == "bare");
            Assert.False(bare.TryGetProperty("dress", out _));
            var plain = Programs.Rows(Path.Combine(_place.Out, bare.GetProperty("file").GetString()!));
            if (fade > 3 / 255.0)
            {
                Assert.InRange(Worst(plain, ink, to, fade - (2.01 / 255)), 1, 4.5);
            }

            Assert.Equal(stated, Worst(plain, ink, to, fade), 0.02);
        }
    }

    [Fact]
    public void A_soft_fade_leaves_the_far_side_as_it_was()
    {
        var rules = _place.Rules(
            """
            { "key": "a", "size": { "width": 400, "height": 200 }, "types": ["png"], "sharpen": "off",
              "dress": { "fade": { "to": "#ffffff", "amount": 0.5, "area": [0, 0, 0.4, 1], "reach": "side" } } }
            """
        );
        var report = _place.Render(rules, 0, _place.Quarters("q.png", 800, 400));
        var file = Path.Combine(_place.Out, report.GetProperty("variants")[0].GetProperty("file").GetString()!);
        var plain = Programs.Pixel(_place.At("q.png"), 100, 100);
        Assert.All(plain.Zip(Programs.Pixel(file, 50, 50)), pair => Assert.Equal((pair.First + 255) / 2.0, pair.Second, 1.0));
        Assert.Equal(Programs.Pixel(_place.At("q.png"), 798, 100), Programs.Pixel(file, 399, 50));
        Assert.Equal(0.502, report.GetProperty("variants")[0].GetProperty("dress").GetProperty("fade").GetDouble(), 1e-4);
    }

    [Fact]
    public void What_no_fade_reaches_is_said_with_the_most_there_is_and_the_others_are_made()
    {
        var rules = _place.Rules(
            """
            { "key": "a", "size": { "width": 200 }, "dress": { "fade": { "to": "#999999", "ink": "#888888", "contrast": 7 } } },
            { "key": "b", "size": { "width": 200 } }
            """
        );
        var variants = _place.Render(rules, 0, Workplace.Photographs[0]).GetProperty("variants");
        Assert.Equal("concedes", variants[0].GetProperty("verdict").GetString());
        var reason = variants[0].GetProperty("reasons").EnumerateArray().Single(one => one.GetProperty("code").GetString() == "contrast");
        Assert.Matches(
            "^No fade makes #888888 readable here: [0-9.]+ : 1 at the most, 7 : 1 is wanted",
            reason.GetProperty("message").GetString()
        );
        Assert.True(variants[1].TryGetProperty("file", out _));
    }

    [Fact]
    public void A_title_has_the_pictures_own_words_and_can_be_read_in_the_file()
    {
        var marks = _place.Write(
            "marks.json",
            $$"""
            { "schema": "pantomet-marks/1", "pictures": {
              "{{Path.GetFileName(Workplace.Photographs[0])}}": { "title": "Brass that tells the weather" },
              "{{Path.GetFileName(Workplace.Photographs[1])}}": { "title": "Łódź, ñandú & <b>co</b>" } } }
            """
        );
        var rules = _place.Rules(
            """
            { "key": "strip", "size": { "width": 480, "height": 160 }, "densities": [1, 2],
              "dress": { "title": { "size": 30, "font": "Lora", "weight": 700, "area": [0.05, 0.1, 0.95, 0.9], "fade": true, "contrast": 4.5 } } },
            { "key": "bare", "size": { "width": 960, "height": 320 }, "types": ["png"] }
            """
        );
        var variants = _place
            .Render(rules, 0, ["--marks", marks, .. Workplace.Photographs[..3]])
            .GetProperty("variants")
            .EnumerateArray()
            .Where(variant => variant.GetProperty("slot").GetString() == "strip")
            .ToList();
        Assert.Equal(6, variants.Count);
        foreach (var variant in variants)
        {
            if (variant.GetProperty("source").GetString() == Workplace.Photographs[2])
            {
                // Nobody gave it a title: there is none, and nothing is faded for it.
                Assert.False(variant.TryGetProperty("dress", out _));
                continue;
            }

            var dress = variant.GetProperty("dress");
            Assert.InRange(dress.GetProperty("contrast").GetDouble(), 4.5, 21);
            var box = dress.GetProperty("titleBox").EnumerateArray().Select(edge => edge.GetInt32()).ToArray();
            var (width, height) = (variant.GetProperty("width").GetInt32(), variant.GetProperty("height").GetInt32());
            Assert.InRange(box[0], width * 0.05, width * 0.07);
            Assert.InRange((box[1] + box[3]) / 2.0, height * 0.44, height * 0.56);
            // In the box stand pixels of the ink, and what is no ink is as far from it as was stated.
            var ink = Convert.FromHexString(dress.GetProperty("ink").GetString()![1..]);
            var rows = Programs.Rows(Path.Combine(_place.Out, variant.GetProperty("file").GetString()!));
            var near = 0;
            for (var y = box[1]; y < box[3]; y++)
            {
                for (var x = box[0]; x < box[2]; x++)
                {
                    var pixel = rows.Values.AsSpan(3 * ((y * width) + x), 3);
                    near += Math.Abs(pixel[0] - ink[0]) + Math.Abs(pixel[1] - ink[1]) + Math.Abs(pixel[2] - ink[2]) < 40 ? 1 : 0;
                }
            }

            Assert.InRange(near / (double)((box[2] - box[0]) * (box[3] - box[1])), 0.1, 0.6);
        }

        // At twice the density everything is twice as large.
        var boxes = variants
            .Take(2)
            .Select(variant =>
                variant.GetProperty("dress").GetProperty("titleBox").EnumerateArray().Select(edge => edge.GetInt32()).ToArray()
            )
            .ToList();
        Assert.All(boxes[0].Zip(boxes[1]), pair => Assert.InRange(pair.Second - (2 * pair.First), -3, 3));
    }

    [Theory]
    [InlineData(
        "\"text\": \"A very long title that goes on and on\", \"size\": 90",
        "title-size",
        "^The title does not fit its area at 90 px; [0-9.]+ px is the largest"
    )]
    [InlineData("\"text\": \"Brass\", \"size\": 30, \"font\": \"No Such Font\"", "font", "There is no font \"No Such Font\"")]
    [InlineData("\"text\": \"Brass \u4e2d\", \"size\": 30", "font", "has no \u4e2d; these are drawn from another")]
    [InlineData(
        "\"text\": \"Brass\", \"size\": 30, \"ink\": \"#777777\", \"contrast\": 20",
        "contrast",
        "Let the picture be faded for it, or take another ink"
    )]
    public void What_a_title_gives_up_is_said_and_the_file_is_made(string title, string code, string says)
    {
        var rules = _place.Rules(
            $$"""{ "key": "a", "size": { "width": 400, "height": 100 }, "dress": { "title": { {{title}}, "area": [0.1, 0.1, 0.6, 0.9] } } }"""
        );
        var variant = _place.Render(rules, 0, _place.Quarters("q.png", 800, 200)).GetProperty("variants")[0];
        Assert.Equal("concedes", variant.GetProperty("verdict").GetString());
        Assert.True(variant.TryGetProperty("file", out _));
        var reason = variant.GetProperty("reasons").EnumerateArray().First(one => one.GetProperty("code").GetString() == code);
        Assert.Matches(says, reason.GetProperty("message").GetString());
        var box = variant.GetProperty("dress").GetProperty("titleBox").EnumerateArray().Select(edge => edge.GetInt32()).ToArray();
        Assert.InRange(box[0], 38, 60);
        Assert.InRange(box[2], box[0] + 10, 242);
    }

    [Fact]
    public void A_title_of_a_ladder_is_as_large_against_the_picture_on_every_rung()
    {
        var rules = _place.Rules(
            """
            { "key": "a", "size": { "ratio": "2:1" }, "responsive": { "sizes": "100vw", "viewports": [300, 900], "densities": [1], "files": 3 },
              "dress": { "title": { "text": "Storm", "size": 90, "ink": "#ffffff" } } }
            """
        );
        var variants = _place.Render(rules, 0, Workplace.Photographs[0]).GetProperty("variants").EnumerateArray().ToList();
        Assert.Equal(3, variants.Count);
        var shares = variants
            .Select(variant =>
                variant.GetProperty("dress").GetProperty("titleBox")[2].GetInt32() / (double)variant.GetProperty("width").GetInt32()
            )
            .ToList();
        Assert.All(shares, share => Assert.Equal(shares[^1], share, 0.006));
    }

    [Theory]
    [InlineData("LICENSE.txt", "no TTF or OTF")]
    [InlineData("cut", "leads? outside|damaged|lacks its table")]
    [InlineData("none", "cannot be read")]
    public void What_is_no_font_is_refused_with_a_sentence(string what, string says)
    {
        var own = Path.Combine(FontShelf.Own, "archivo");
        var path =
            what == "cut" ? _place.At("cut.ttf")
            : what == "none" ? _place.At("none.ttf")
            : Path.Combine(own, what);
        if (what == "cut")
        {
            File.WriteAllBytes(path, File.ReadAllBytes(Path.Combine(own, "Archivo_400Regular.ttf"))[..5000]);
        }

        Assert.False(FontFile.TryRead(path, out _, out var fault));
        Assert.Matches(says, fault);
    }

    [Fact]
    public void The_shelf_has_every_family_with_its_weights_and_knows_their_signs()
    {
        Assert.Equal(
            ["Archivo", "Archivo Narrow", "Caveat", "Lora", "Playfair Display", "Rubik", "Zilla Slab"],
            FontShelf.All.Select(font => font.Family).Distinct()
        );
        Assert.All(FontShelf.All.GroupBy(font => font.Family), family => Assert.Equal([400, 600, 700], family.Select(font => font.Weight)));
        Assert.Equal(600, FontShelf.Find("archivo", 650)!.Weight);
        Assert.True(FontShelf.Find("Rubik", 400)!.Has(new('\u05e9')));
        Assert.False(FontShelf.Find("Archivo", 400)!.Has(new('\u05e9')));
        Assert.True(FontShelf.Find("Archivo", 400)!.Has(new('\u0171')));
    }

    // The contrast of the worst hundredth of the area, after a fade of the test's own.
    private static double Worst((int Width, int Height, byte[] Values) picture, string ink, string to, double fade)
    {
        static double Linear(double value) => value <= 0.04045 ? value / 12.92 : Math.Pow((value + 0.055) / 1.055, 2.4);
        static double Luminance(double red, double green, double blue) =>
            (0.2126 * Linear(red / 255)) + (0.7152 * Linear(green / 255)) + (0.0722 * Linear(blue / 255));
        static double[] Colour(string text) => [.. Convert.FromHexString(text[1..]).Select(value => (double)value)];
        var (ground, veil) = (Colour(ink), Colour(to));
        var other = Luminance(ground[0], ground[1], ground[2]);
        var ratios = new List<double>();
        for (var y = (int)(0.2 * picture.Height); y < 0.5 * picture.Height; y++)
        {
            for (var x = (int)(0.1 * picture.Width); x < 0.6 * picture.Width; x++)
            {
                var at = 3 * ((y * picture.Width) + x);
                double Mixed(int band) => Math.Round(picture.Values[at + band] + ((veil[band] - picture.Values[at + band]) * fade));
                var luminance = Luminance(Mixed(0), Mixed(1), Mixed(2));
                ratios.Add((Math.Max(luminance, other) + 0.05) / (Math.Min(luminance, other) + 0.05));
            }
        }

        ratios.Sort();
        return ratios[ratios.Count / 100];
    }
}

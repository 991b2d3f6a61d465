using System.Buffers.Binary;
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
        var variants = _place.Render(rules, 0, Workplace.Photographs[..3]).GetProperty("variants").EnumerateArray().ToList();
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

            // A pixel that is rounded the other way is a step of 255, which is up to 0.07 where white text needs 4.5.
            Assert.Equal(stated, Worst(plain, ink, to, fade), 0.05);
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
    public void A_mark_lies_in_its_corner_to_the_pixel_in_the_form_that_can_be_seen_there()
    {
        const string form =
            "<svg xmlns='http://www.w3.org/2000/svg' width='20' height='10'><rect width='20' height='10' fill='{0}'/></svg>";
        _place.Write("dark.svg", form.Replace("{0}", "#101010", StringComparison.Ordinal));
        _place.Write("light.svg", form.Replace("{0}", "#f0f0f0", StringComparison.Ordinal));
        _place.Write("runs.svg", form.Replace("<rect", "<script/><rect", StringComparison.Ordinal));
        static string Slot(string key, string mark) =>
            $$"""
                { "key": "{{key}}", "size": { "width": 400, "height": 200 }, "types": ["png"], "sharpen": "off", "dress": { "mark": {{mark}} } }
                """;
        var rules = _place.Rules(
            string.Join(
                ',',
                Slot("white", """{ "file": "dark.svg", "onDark": "light.svg", "share": 0.1, "margin": 0.05 }"""),
                Slot("blue", """{ "file": "dark.svg", "onDark": "light.svg", "share": 0.1, "margin": 0.05, "at": "bottom-left" }"""),
                Slot("half", """{ "file": "dark.svg", "share": 0.1, "margin": 0, "at": "top-left", "opacity": 0.5 }"""),
                Slot("runs", """{ "file": "runs.svg" }"""),
                Slot("none", """{ "file": "none.svg" }""")
            )
        );
        var variants = _place.Render(rules, 0, _place.Quarters("q.png", 800, 400)).GetProperty("variants").EnumerateArray().ToList();
        string File(int i) => Path.Combine(_place.Out, variants[i].GetProperty("file").GetString()!);

        Assert.Equal(
            [340, 160, 380, 180],
            variants[0].GetProperty("dress").GetProperty("markBox").EnumerateArray().Select(edge => edge.GetInt32())
        );
        Assert.All(new[] { (340, 160), (379, 179) }, at => Assert.Equal([16, 16, 16], Programs.Pixel(File(0), at.Item1, at.Item2)));
        Assert.All(
            new[] { (339, 170), (380, 170), (350, 159), (350, 180) },
            at => Assert.Equal([250, 250, 250], Programs.Pixel(File(0), at.Item1, at.Item2))
        );
        Assert.Equal([240, 240, 240], Programs.Pixel(File(1), 20, 160));
        // Half of the mark over half of what was there.
        var (plain, mixed) = (Programs.Pixel(_place.At("q.png"), 10, 10), Programs.Pixel(File(2), 5, 5));
        Assert.All(plain.Zip(mixed), pair => Assert.Equal((pair.First + 16) / 2.0, pair.Second, 1.0));

        // What cannot be laid is left out, and said.
        Assert.Equal(["concedes", "concedes"], variants[3..].Select(one => one.GetProperty("verdict").GetString()));
        var said = variants[3..].Select(one => one.GetProperty("reasons")[0].GetProperty("message").GetString()!).ToList();
        Assert.Contains("<script>", said[0], StringComparison.Ordinal);
        Assert.Contains("no file \"none.svg\"", said[1], StringComparison.Ordinal);
    }

    [Fact]
    public void A_font_may_lie_beside_the_rules_and_one_that_is_none_is_said()
    {
        var font = FontStore.Find("Lora", 700)!;
        File.Copy(font.Path, _place.At("ours.ttf"));
        _place.Write("torn.otf", "OTTO and nothing more");
        File.WriteAllBytes(_place.At("empty.ttf"), WithoutOutlines(File.ReadAllBytes(font.Path)));
        static string Slot(string key, string named) =>
            $$"""
                { "key": "{{key}}", "size": { "width": 300, "height": 100 }, "types": ["png"],
                  "dress": { "title": { "text": "Brass", "size": 40, "ink": "#000000", "weight": 700, "font": "{{named}}" } } }
                """;
        var rules = _place.Rules(
            string.Join(',', Slot("own", "ours.ttf"), Slot("shelf", "Lora"), Slot("torn", "torn.otf"), Slot("empty", "empty.ttf"))
        );
        var variants = _place.Render(rules, 0, _place.Quarters("q.png", 600, 200)).GetProperty("variants").EnumerateArray().ToList();
        byte[] Bytes(int i) => File.ReadAllBytes(Path.Combine(_place.Out, variants[i].GetProperty("file").GetString()!));
        Assert.Equal(Bytes(1), Bytes(0));
        Assert.NotEqual(Bytes(1), Bytes(2));
        Assert.Equal(Bytes(2), Bytes(3));
        string? Told(int i) =>
            variants[i]
                .GetProperty("reasons")
                .EnumerateArray()
                .Single(one => one.GetProperty("code").GetString() == "font")
                .GetProperty("message")
                .GetString();
        Assert.Contains("\"torn.otf\" cannot be used", Told(2), StringComparison.Ordinal);
        Assert.Contains("\"empty.ttf\" cannot be used: This font cannot draw any text.", Told(3), StringComparison.Ordinal);
    }

    // A font whose tables are all there, and whose characters have no lines: every one ends where it begins.
    private static byte[] WithoutOutlines(byte[] font)
    {
        for (var i = 0; i < BinaryPrimitives.ReadUInt16BigEndian(font.AsSpan(4)); i++)
        {
            var entry = font.AsSpan(12 + (16 * i), 16);
            if (entry[..4].SequenceEqual("loca"u8))
            {
                font.AsSpan((int)BinaryPrimitives.ReadUInt32BigEndian(entry[8..]), (int)BinaryPrimitives.ReadUInt32BigEndian(entry[12..]))
                    .Clear();
            }
        }

        return font;
    }

    [Fact]
    public void A_canvas_is_extended_where_no_frame_holds_the_keep_box()
    {
        using (var ground = NetVips.Image.Black(800, 800, bands: 3) + new double[] { 230, 220, 210 })
        using (var box = ground.Mutate(image => image.DrawRect([40, 60, 80], 100, 200, 600, 400, fill: true)))
        using (var bytes = box.Cast(NetVips.Enums.BandFormat.Uchar))
        {
            bytes.Copy(interpretation: NetVips.Enums.Interpretation.Srgb).WriteToFile(_place.At("box.png"));
        }

        var rules = _place.Rules(
            """{ "key": "a", "size": { "width": 600, "height": 200 }, "types": ["png"], "sharpen": "off", "extend": true }"""
        );
        var marks = _place.Write(
            "marks.json",
            """{ "schema": "pantomet-marks/1", "pictures": { "box.png": { "keep": [[0.125, 0.25, 0.875, 0.75]] } } }"""
        );
        var answer = Programs.Pantomet([
            "render",
            "--rules",
            rules,
            "--out",
            _place.Out,
            "--marks",
            marks,
            "--report",
            _place.At("r.json"),
            _place.At("box.png"),
        ]);
        Assert.Equal(0, answer.Code);
        var variant = System.Text.Json.JsonDocument.Parse(File.ReadAllText(_place.At("r.json"))).RootElement.GetProperty("variants")[0];
        Assert.Equal("meets", variant.GetProperty("verdict").GetString());
        var reason = variant.GetProperty("reasons").EnumerateArray().Single(one => one.GetProperty("code").GetString() == "extended");
        Assert.Contains("its edge's colour #e6dcd2", reason.GetProperty("message").GetString(), StringComparison.Ordinal);
        var file = Path.Combine(_place.Out, variant.GetProperty("file").GetString()!);
        // The box is 600 x 400 of a frame of 1 200 x 400, at half its size, in the middle.
        Assert.All(
            new[] { (0, 100), (140, 100), (460, 100), (599, 5) },
            at => Assert.Equal([230, 220, 210], Programs.Pixel(file, at.Item1, at.Item2))
        );
        Assert.All(new[] { (162, 2), (437, 197) }, at => Assert.Equal([40, 60, 80], Programs.Pixel(file, at.Item1, at.Item2)));
    }

    [Fact]
    public void Pictures_side_by_side_have_an_exact_gap_and_a_missing_one_is_said()
    {
        var rules = _place.Rules(
            """
            { "key": "two", "size": { "width": 401, "height": 150 }, "types": ["png"], "sharpen": "off", "densities": [1, 2],
              "pair": { "count": 2, "gap": 7, "background": "#ff00ff" } },
            { "key": "one", "size": { "width": 100 } }
            """
        );
        var (first, second, torn) = (
            _place.Quarters("a.png", 1600, 1200),
            _place.Quarters("b.png", 1200, 1600),
            _place.Write("torn.jpg", "torn")
        );
        var report = _place.Render(rules, 1, first, second, first, torn);
        var pairs = report.GetProperty("variants").EnumerateArray().Where(one => one.GetProperty("slot").GetString() == "two").ToList();
        Assert.Equal(["meets", "meets", "breaks"], pairs.Select(one => one.GetProperty("verdict").GetString()));
        Assert.Contains(
            "torn.jpg cannot be read",
            pairs[2].GetProperty("reasons")[0].GetProperty("message").GetString(),
            StringComparison.Ordinal
        );
        foreach (var (pair, scale) in pairs.Take(2).Zip([1, 2]))
        {
            var file = Path.Combine(_place.Out, pair.GetProperty("file").GetString()!);
            Assert.StartsWith("a-b-two", Path.GetFileName(file), StringComparison.Ordinal);
            var pixels = Programs.Rows(file);
            var gap = Enumerable
                .Range(0, 401 * scale)
                .Where(x => pixels.Values.AsSpan(((10 * pixels.Width) + x) * 3, 3).SequenceEqual<byte>([255, 0, 255]));
            Assert.Equal(Enumerable.Range(197 * scale, 7 * scale), gap);
        }

        // Everything else is made.
        Assert.Equal(3, report.GetProperty("variants").EnumerateArray().Count(one => one.GetProperty("slot").GetString() == "one"));
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
            "^No fade makes #888888 readable here: the contrast is at most [0-9.]+ : 1, 7 : 1 is wanted",
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
        "^The title does not fit its area at 90 px. It is set at [0-9.]+ px, the largest"
    )]
    [InlineData("\"text\": \"Brass\", \"size\": 30, \"font\": \"No Such Font\"", "font", "There is no font \"No Such Font\"")]
    [InlineData("\"text\": \"Brass \u4e2d\", \"size\": 30", "font", "has no \u4e2d; another font is used")]
    [InlineData(
        "\"text\": \"Brass\", \"size\": 30, \"ink\": \"#777777\", \"contrast\": 20",
        "contrast",
        "Fade the picture, or choose another text colour"
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
    public void A_word_without_end_is_made_smaller_or_left_out_and_text_on_a_flat_ground_is_a_graphic()
    {
        var (long1, endless) = (string.Concat(Enumerable.Repeat("Wind", 20)), string.Concat(Enumerable.Repeat("Wind", 70)));
        static string Slot(string key, string text, string more = "") =>
            $$"""
                { "key": "{{key}}", "size": { "width": 400, "height": 100 }, {{more}} "dress": { "fade": { "to": "#ffffff", "amount": 1 },
                  "title": { "text": "{{text}}", "size": 60, "ink": "#000000" } } }
                """;
        var rules = _place.Rules(
            string.Join(',', Slot("long", long1), Slot("endless", endless), Slot("flat", "Wind\u202c", "\"types\": [\"auto\"],"))
        );
        var variants = _place.Render(rules, 0, Workplace.Photographs[0]).GetProperty("variants").EnumerateArray().ToList();
        string Says(int i) => variants[i].GetProperty("reasons")[0].GetProperty("message").GetString()!;
        Assert.Matches("at 60 px. It is set at [0-9.]+ px, the largest", Says(0));
        Assert.Contains("is skipped", Says(1), StringComparison.Ordinal);
        Assert.False(variants[1].GetProperty("dress").TryGetProperty("titleBox", out _));
        // What turns the direction of its neighbours is no character that a font lacks.
        Assert.Equal("meets", variants[2].GetProperty("verdict").GetString());
        Assert.Contains(variants[2].GetProperty("format").GetString(), (string[])["png", "webp"]);
        Assert.InRange(variants[2].GetProperty("likeness").GetDouble(), 0.995, 1);
    }

    [Fact]
    public void Signs_that_a_font_lacks_come_from_a_font_of_the_application_not_of_the_machine()
    {
        const string peace = "\u05e9\u05dc\u05d5\u05dd";
        var others = peace.EnumerateRunes().ToDictionary(character => character, character => FontStore.With(character, 600)!);
        Assert.All(others.Values, font => Assert.Equal("Rubik", font.Family));
        var stood = TextDrawer.Draw(FontStore.Find("Archivo", 600)!, peace, 60, 500, Core.Dressing.TextAlign.Left, others)!;
        var own = TextDrawer.Draw(FontStore.Find("Rubik", 600)!, peace, 60, 500, Core.Dressing.TextAlign.Left)!;
        Assert.Equal(
            (own.Size, own.Cover),
            (stood.Size, stood.Cover),
            (one, other) => one.Size == other.Size && one.Cover.SequenceEqual(other.Cover)
        );
        Assert.Null(FontStore.With(new System.Text.Rune(0x4e2d), 600));
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
    [InlineData("LICENSE.txt", "not a TTF or OTF")]
    [InlineData("cut", "leads? outside|damaged|has no .* table|point outside")]
    [InlineData("none", "cannot be read")]
    public void What_is_no_font_is_refused_with_a_sentence(string what, string says)
    {
        var own = Path.Combine(FontStore.Own, "archivo");
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
            FontStore.All.Select(font => font.Family).Distinct()
        );
        Assert.All(FontStore.All.GroupBy(font => font.Family), family => Assert.Equal([400, 600, 700], family.Select(font => font.Weight)));
        Assert.Equal(600, FontStore.Find("archivo", 650)!.Weight);
        Assert.True(FontStore.Find("Rubik", 400)!.Has(new('\u05e9')));
        Assert.False(FontStore.Find("Archivo", 400)!.Has(new('\u05e9')));
        Assert.True(FontStore.Find("Archivo", 400)!.Has(new('\u0171')));
    }

    // The contrast of the worst hundredth of the area, after a fade of the test's own.
    private static double Worst((int Width, int Height, byte[] Values) picture, string ink, string to, double fade)
    {
        static double Linear(double value) => value <= 0.04045 ? value / 12.92 : Math.Pow((value + 0.055) / 1.055, 2.4);
        double[] light = [.. Enumerable.Range(0, 256).Select(value => Linear(value / 255.0))];
        double Luminance(double red, double green, double blue) =>
            (0.2126 * light[(int)red]) + (0.7152 * light[(int)green]) + (0.0722 * light[(int)blue]);
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

using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>How the render command is called, and what it leaves alone.</summary>
public sealed class RenderCallTests : IDisposable
{
    private const string Column = """{ "key": "column", "size": { "width": 100 } }""";

    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Theory]
    [InlineData("""{ "key": "a", "size": { "ratio": "0:4", "width": 9 } }""", "$.destinations[0].slots[0].size.ratio")]
    [InlineData("""{ "key": "a", "size": { "width": 9 }, "subjectShare": 1.8 }""", "$.destinations[0].slots[0].subjectShare")]
    public void A_wrong_rules_file_is_said_on_one_line_and_nothing_is_written(string slots, string path)
    {
        var answer = Programs.Pantomet("render", "--rules", _place.Rules(slots), "--out", _place.Out, _place.Quarters("a.png", 40, 40));
        Assert.Equal(2, answer.Code);
        Assert.Contains(path, Assert.Single(answer.Error.TrimEnd('\n').Split('\n')), StringComparison.Ordinal);
        Assert.False(Directory.Exists(_place.Out));
    }

    [Theory]
    [InlineData("render")]
    [InlineData("render", "--rules", "nowhere.json", "--out", "x", "a.jpg")]
    [InlineData("render", "--rules", "nowhere.json", "--out", "x")]
    [InlineData("render", "--jobs", "0", "--rules", "nowhere.json", "--out", "x", "a.jpg")]
    [InlineData("render", "--colour", "--rules", "nowhere.json", "--out", "x", "a.jpg")]
    [InlineData("paint")]
    public void A_wrong_call_is_said_on_one_line(params string[] call)
    {
        var answer = Programs.Pantomet(call);
        Assert.Equal(2, answer.Code);
        Assert.Single(answer.Error.TrimEnd('\n').Split('\n'));
    }

    [Fact]
    public void Files_that_cannot_be_read_are_named_and_the_rest_is_made()
    {
        var whole = File.ReadAllBytes(Workplace.Photographs[0]);
        File.WriteAllBytes(_place.At("cut.jpg"), whole[..(whole.Length / 2)]);
        File.WriteAllBytes(_place.At("empty.jpg"), []);
        _place.Write("page.jpg", "<!doctype html><html><body>Not here</body></html>");
        _place.Write("noise.png", "\u0089PNG");
        string[] files =
        [
            _place.At("cut.jpg"),
            _place.At("empty.jpg"),
            _place.At("page.jpg"),
            _place.At("noise.png"),
            _place.At("missing.jpg"),
            _place.Quarters("good.png", 200, 100),
        ];
        var report = _place.Render(_place.Rules(Column), 1, files);
        var sources = report.GetProperty("sources").EnumerateArray().ToList();
        Assert.Equal(files, sources.Select(source => source.GetProperty("file").GetString()));
        Assert.All(sources.Take(5), source => Assert.EndsWith(".", source.GetProperty("error").GetString(), StringComparison.Ordinal));
        Assert.False(sources[5].TryGetProperty("error", out _));
        Assert.Equal("d/good-column.jpg", Assert.Single(report.GetProperty("variants").EnumerateArray()).GetProperty("file").GetString());
        Assert.Equal("100x50", Programs.Identify("%wx%h", Path.Combine(_place.Out, "d/good-column.jpg")));
    }

    [Theory]
    [InlineData("a.jpg")]
    [InlineData("a.png")]
    [InlineData("a.gif")]
    [InlineData("a.webp")]
    [InlineData("a.tif")]
    public void A_file_cut_short_is_refused_wherever_it_is_cut(string name)
    {
        Programs.Checked("convert", Workplace.Photographs[0], "-resize", "300x", _place.At(name));
        var whole = File.ReadAllBytes(_place.At(name));
        int[] lengths = [whole.Length * 4 / 10, whole.Length * 99 / 100];
        var files = lengths
            .Select(length =>
            {
                var cut = _place.At($"{length}-{name}");
                File.WriteAllBytes(cut, whole[..length]);
                return cut;
            })
            .ToArray();
        var report = _place.Render(_place.Rules(Column), 1, files);
        Assert.All(
            report.GetProperty("sources").EnumerateArray(),
            source => Assert.Contains("incomplete", source.GetProperty("error").GetString(), StringComparison.Ordinal)
        );
        Assert.Empty(report.GetProperty("variants").EnumerateArray());
    }

    [Fact]
    public void A_picture_that_claims_60000_by_60000_pixels_is_refused()
    {
        // A PNG header alone: signature, IHDR with the claimed size, its checksum (PNG, third edition, 11.2.2), an empty IDAT and IEND.
        Programs.Checked("convert", "-size", "1x1", "xc:red", _place.At("one.png"));
        var bytes = File.ReadAllBytes(_place.At("one.png"));
        System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(bytes.AsSpan(16), 60_000);
        System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(bytes.AsSpan(20), 60_000);
        System.Buffers.Binary.BinaryPrimitives.WriteUInt32BigEndian(bytes.AsSpan(29), Crc32(bytes.AsSpan(12, 17)));
        File.WriteAllBytes(_place.At("claims.png"), bytes);
        var report = _place.Render(_place.Rules(Column), 1, _place.At("claims.png"));
        Assert.Contains(
            "60\u202f000 × 60\u202f000 px",
            report.GetProperty("sources")[0].GetProperty("error").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Sources_and_files_of_others_are_left_alone()
    {
        Directory.CreateDirectory(Path.Combine(_place.Out, "d"));
        var source = Path.Combine(_place.Out, "d", "vane-column.jpg");
        Programs.Checked("convert", "-size", "300x200", "plasma:", source);
        var before = File.ReadAllBytes(source);
        File.WriteAllText(Path.Combine(_place.Out, "d", "note.txt"), "mine");
        var again = _place.At("vane.jpg");
        File.Copy(source, again);
        // The rules would name the variant of vane.jpg exactly like the source that lies in the folder.
        var report = _place.Render(_place.Rules(Column), 0, again, source);
        Assert.Equal(before, File.ReadAllBytes(source));
        Assert.Equal("mine", File.ReadAllText(Path.Combine(_place.Out, "d", "note.txt")));
        Assert.Equal(
            ["d/vane-column-2.jpg", "d/vane-column-column.jpg"],
            report.GetProperty("variants").EnumerateArray().Select(variant => variant.GetProperty("file").GetString())
        );
    }

    [Fact]
    public void A_broken_limit_delivers_no_file_and_answers_1()
    {
        var report = _place.Render(
            _place.Rules(
                """
                { "key": "a", "size": { "width": 1500 }, "limits": { "maxBytes": 900 }, "types": ["jpeg", "png"] },
                { "key": "b", "size": { "width": 300 } }
                """
            ),
            1,
            Workplace.Photographs[0]
        );
        var variants = report.GetProperty("variants").EnumerateArray().ToList();
        Assert.Equal("breaks", variants[0].GetProperty("verdict").GetString());
        Assert.False(variants[0].TryGetProperty("file", out _));
        Assert.Equal("over-weight", variants[0].GetProperty("reasons")[0].GetProperty("code").GetString());
        Assert.Equal("meets", variants[1].GetProperty("verdict").GetString());
        Assert.Single(Directory.GetFiles(_place.Out, "*", SearchOption.AllDirectories));
    }

    // ISO 3309, as PNG uses it.
    private static uint Crc32(ReadOnlySpan<byte> bytes)
    {
        var crc = 0xFFFF_FFFFu;
        foreach (var value in bytes)
        {
            crc ^= value;
            for (var bit = 0; bit < 8; bit++)
            {
                crc = (crc & 1) == 1 ? (crc >> 1) ^ 0xEDB8_8320u : crc >> 1;
            }
        }

        return ~crc;
    }
}

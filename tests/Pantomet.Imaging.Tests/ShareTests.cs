using System.Text.Json.Nodes;
using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>What several machines make in shares is what one makes at once: file by file, and the report.</summary>
public sealed class ShareTests : IDisposable
{
    private const string Slots = """
        { "key": "column", "size": { "width": 100 }, "limits": { "maxBytes": "20 kB" } },
        { "key": "square", "size": { "width": 60, "height": 60 }, "types": ["webp", "jpeg"], "each": true },
        { "key": "both", "size": { "width": 120, "height": 60 }, "pair": { "count": 2, "gap": 4 } }
        """;

    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Fact]
    public void Shares_of_render_make_the_same_files_and_their_reports_come_to_the_same()
    {
        const int of = 3;
        var files = Pictures();
        var rules = _place.Rules(Slots);
        string[] call = ["render", "--rules", rules, "--markup"];
        var whole = Programs.Pantomet([.. call, "--out", _place.At("whole"), "--report", _place.At("whole.json"), .. files]).Code;
        var shares = Enumerable
            .Range(1, of)
            .Select(number =>
                Programs
                    .Pantomet([
                        .. call,
                        "--out",
                        _place.At("shares"),
                        "--report",
                        _place.At($"{number}.json"),
                        "--share",
                        $"{number}/{of}",
                        .. files,
                    ])
                    .Code
            )
            .ToList();
        // In whatever order they end.
        var reports = Enumerable.Range(1, of).Reverse().Select(number => _place.At($"{number}.json"));
        var combined = Programs.Pantomet(["combine-reports", "--report", _place.At("combined.json"), .. reports]).Code;

        // One file cannot be read, and the last picture has no partner: so says the whole, and so says one of the shares.
        Assert.Equal(1, whole);
        Assert.Contains(1, shares);
        Assert.Equal(0, combined);
        Assert.Equal(Tree("whole"), Tree("shares"));
        Assert.Equal(Timeless("whole.json").ToJsonString(), Timeless("combined.json").ToJsonString());
    }

    [Fact]
    public void A_name_that_says_nothing_of_the_picture_is_not_for_shares()
    {
        var rules = _place.Rules("""{ "key": "plain", "size": { "width": 100 }, "name": "{slot}-{width}" }""");
        var answer = Programs.Pantomet("render", "--rules", rules, "--out", _place.Out, "--share", "1/2", _place.Quarters("a.png", 40, 40));

        Assert.Equal(2, answer.Code);
        Assert.Contains("d/plain", answer.Error, StringComparison.Ordinal);
        Assert.False(Directory.Exists(_place.Out));
    }

    [Theory]
    [InlineData("""{}""", "no report of a share")]
    [InlineData(
        """{ "schema": "pantomet-report/1", "sources": [], "variants": [], "share": { "number": 2, "of": 2, "sources": [], "variants": [], "markup": [] } }""",
        "missing: 1"
    )]
    [InlineData(
        """{ "schema": "pantomet-report/1", "sources": [ {} ], "variants": [], "share": { "number": 1, "of": 1, "sources": [], "variants": [], "markup": [] } }""",
        "no report of a share"
    )]
    public void Reports_that_are_not_all_shares_of_one_batch_are_not_combined(string report, string says)
    {
        var answer = Programs.Pantomet("combine-reports", "--report", _place.At("all.json"), _place.Write("one.json", report));

        Assert.Equal(2, answer.Code);
        Assert.Contains(says, answer.Error, StringComparison.Ordinal);
        Assert.False(File.Exists(_place.At("all.json")));
    }

    [Fact]
    public void Shares_of_a_site_make_its_pictures_and_the_last_call_makes_none_again()
    {
        Directory.CreateDirectory(_place.At("in"));
        _place.Write("in/style.css", "p { color: brown }");
        for (var i = 0; i < 6; i++)
        {
            _place.Quarters($"in/vane-{(char)('a' + i)}.png", 300 + (10 * i), 200);
        }

        var images = string.Concat(Enumerable.Range(0, 6).Select(i => $"<img data-slot=d/column src=vane-{(char)('a' + i)}.png>"));
        _place.Write("in/index.html", $"<!doctype html><title>Vanes</title>{images}");
        var rules = _place.Rules("""{ "key": "column", "size": { "width": 100 } }""");
        string[] site = ["site", "--rules", rules, "--in", _place.At("in")];
        Assert.Equal(0, Programs.Pantomet([.. site, "--out", _place.At("whole"), "--report", _place.At("whole.json")]).Code);
        foreach (var number in Enumerable.Range(1, 2))
        {
            Assert.Equal(0, Programs.Pantomet([.. site, "--out", _place.At("shares"), "--share", $"{number}/2"]).Code);
            Assert.False(File.Exists(_place.At("shares/index.html")));
        }

        var last = Programs.Pantomet([.. site, "--out", _place.At("shares"), "--report", _place.At("last.json")]);

        Assert.Equal(0, last.Code);
        Assert.Contains(", 0 of them made", last.Out, StringComparison.Ordinal);
        Assert.Equal(Tree("whole", ".known.json"), Tree("shares", ".known.json"));
        Assert.Equal(Timeless("whole.json").ToJsonString(), Timeless("last.json").ToJsonString());
    }

    // Like names, names that end in numbers, a drawing, one that cannot be read, and an odd one for the pairs.
    private string[] Pictures()
    {
        Directory.CreateDirectory(_place.At("other"));
        return
        [
            _place.Quarters("glass.png", 300, 200),
            _place.Quarters("other/glass.png", 200, 300),
            _place.Quarters("glass-2.png", 240, 240),
            _place.Quarters("vane.png", 400, 200),
            _place.Write(
                "mark.svg",
                """<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100"><rect width="100" height="100" fill="#a83"/></svg>"""
            ),
            _place.Write("broken.svg", "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"200\"><rect"),
            _place.Quarters("lantern.png", 320, 180),
            _place.Quarters("gauge.png", 180, 320),
            _place.Quarters("anemometer.png", 260, 200),
        ];
    }

    private List<(string Path, string Bytes)> Tree(string folder, string? without = null) =>
        [
            .. Directory
                .GetFiles(_place.At(folder), "*", SearchOption.AllDirectories)
                .Where(path => Path.GetFileName(path) != without)
                .Order(StringComparer.Ordinal)
                .Select(path => (Path.GetRelativePath(_place.At(folder), path), Convert.ToHexString(File.ReadAllBytes(path)))),
        ];

    private JsonObject Timeless(string report)
    {
        var read = JsonNode.Parse(File.ReadAllText(_place.At(report)))!.AsObject();
        read["totals"]!.AsObject().Remove("seconds");
        return read;
    }
}

using System.Text;
using System.Text.Json;
using Pantomet.Batch.Sites;
using Pantomet.Core.Marks;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>Building a site: what its pages get, what stays as it was, and what a second run does again.</summary>
public sealed class SiteTests : IDisposable
{
    private const string Slots = """
        { "key": "column", "size": { "ratio": "2:1" }, "types": ["webp", "jpeg"], "each": true,
          "responsive": { "sizes": "(min-width: 50em) 300px, 50vw", "viewports": [320, 900], "densities": [1], "waste": 0.6 } },
        { "key": "wide", "size": { "width": 300, "height": 100 }, "group": "opening", "media": "(min-width: 50em)" },
        { "key": "narrow", "size": { "width": 100, "height": 100 }, "group": "opening" },
        { "key": "heavy", "size": { "width": 400, "height": 200 }, "limits": { "maxBytes": "60" } }
        """;

    private readonly Workplace _place = new();

    public SiteTests()
    {
        Directory.CreateDirectory(_place.At("in/shop"));
        _place.Quarters("in/vane.png", 800, 400);
        _place.Write("in/style.css", "p { color: brown }");
    }

    private string Out => _place.At("out");

    public void Dispose() => _place.Dispose();

    [Fact]
    public void An_image_gets_its_markup_and_everything_else_stays_byte_for_byte()
    {
        var before = "<!DOCTYPE html>\r\n<title>Caf\u00e9</title>\t<!-- <img data-slot=d/column src=vane.png> -->\r\n<p>A ";
        var tag = "<IMG id=one  CLASS='a b'\n alt='caf\u00e9 &eacute; \"x\"' data-slot=\"d/column\" src = vane.png?v=3 loading=eager />";
        var after = " b</p>\n<script>var x = '<img data-slot=d/column>'</script>\n\u00ff</html";
        Directory.CreateDirectory(_place.At("in"));
        File.WriteAllBytes(_place.At("in/index.html"), Encoding.Latin1.GetBytes(before + tag + after));
        Build(0);
        var page = Encoding.Latin1.GetString(File.ReadAllBytes(Path.Combine(Out, "index.html")));
        Assert.StartsWith(before, page, StringComparison.Ordinal);
        Assert.EndsWith(after, page, StringComparison.Ordinal);
        var markup = page[before.Length..^after.Length];
        Assert.StartsWith("<picture><source type=\"image/webp\" srcset=\"_pictures/vane-column-", markup, StringComparison.Ordinal);
        Assert.EndsWith(
            " decoding=\"async\" id=one CLASS='a b' alt='caf\u00e9 &eacute; \"x\"' loading=eager></picture>",
            markup,
            StringComparison.Ordinal
        );
        Assert.DoesNotContain("data-slot", markup, StringComparison.Ordinal);
        foreach (var file in Addresses(markup))
        {
            Assert.Matches("^_pictures/vane-column-[0-9]+w-[0-9a-f]{8}[.](webp|jpg)$", file);
            Assert.True(File.Exists(Path.Combine(Out, file)), file);
        }

        Assert.Equal("p { color: brown }", File.ReadAllText(Path.Combine(Out, "style.css")));
    }

    [Fact]
    public void Addresses_lead_from_each_page_or_begin_as_asked()
    {
        Page("in/shop/a.html", "<img data-slot=d/opening src=../vane.png>");
        Build(0);
        Assert.Contains("srcset=\"../_pictures/vane-wide-", Built("shop/a.html"), StringComparison.Ordinal);
        Build(0, "--base", "https://skerry.example");
        Assert.Contains("srcset=\"https://skerry.example/_pictures/vane-wide-", Built("shop/a.html"), StringComparison.Ordinal);
    }

    [Fact]
    public void A_second_run_makes_only_what_changed()
    {
        Page("in/index.html", "<img data-slot=d/column src=vane.png><img data-slot=d/opening src=other.png>");
        _place.Quarters("in/other.png", 600, 300);
        Assert.Contains(" of them made, 3 other", Build(0), StringComparison.Ordinal);
        var before = Directory.GetFiles(Path.Combine(Out, "_pictures")).ToDictionary(path => path, File.GetLastWriteTimeUtc);
        Assert.Contains(", 0 of them made, 0 other files copied", Build(0), StringComparison.Ordinal);
        _place.Quarters("in/other.png", 640, 320);
        Assert.Contains(", 2 of them made, 1 other files copied", Build(0), StringComparison.Ordinal);
        Assert.All(
            Directory.GetFiles(Path.Combine(Out, "_pictures"), "vane-*"),
            path => Assert.Equal(before[path], File.GetLastWriteTimeUtc(path))
        );
        // That of the older picture, which stays for a week, has the same name before its hash.
        Array.ForEach(Directory.GetFiles(Path.Combine(Out, "_pictures"), "other-narrow*"), File.Delete);
        Assert.Contains(", 1 of them made", Build(0), StringComparison.Ordinal);
        // Another rule makes that slot's files anew, and no other's.
        Assert.Contains(
            ", 1 of them made",
            Build(0, Slots.Replace("\"width\": 100, \"height\": 100", "\"width\": 90, \"height\": 90", StringComparison.Ordinal)),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void What_is_known_of_a_picture_stays_known_when_only_a_part_of_its_files_is_made_anew()
    {
        Page("in/index.html", "<img data-slot=d/column src=vane.png><img data-slot=d/opening src=vane.png>");
        Build(0);
        // Its frame wants no subject; that of the other slot does.
        Array.ForEach(Directory.GetFiles(Path.Combine(Out, "_pictures"), "vane-column*"), File.Delete);
        Assert.DoesNotContain(", 0 of them made", Build(0), StringComparison.Ordinal);
        Assert.Contains(", 0 of them made", Build(0), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_the_site_has_no_more_leaves_the_copy_and_its_pictures_a_week_later()
    {
        var clock = new Clock();
        Page("in/index.html", "<img data-slot=d/opening src=vane.png>");
        Page("in/shop/old.html", "<img data-slot=d/opening src=../vane.png><img data-slot=d/heavy src=../vane.png>");
        Page("in/shop/list.html", "<img data-slot=d/opening src=../other.png>");
        _place.Quarters("in/other.png", 600, 300);
        Assert.Equal(4, (await RunAsync(clock)).Made);
        _place.Write("out/shop/mine.txt", "not of the site");
        File.Delete(_place.At("in/shop/list.html"));
        File.Delete(_place.At("in/other.png"));

        Assert.Equal(0, (await RunAsync(clock)).Made);
        Assert.False(File.Exists(_place.At("out/shop/list.html")));
        Assert.False(File.Exists(_place.At("out/other.png")));
        Assert.True(File.Exists(_place.At("out/shop/mine.txt")));
        Assert.Equal(2, Directory.GetFiles(_place.At("out/_pictures"), "other-*").Length);

        // A page that comes back finds its pictures as they were.
        clock.Now += TimeSpan.FromDays(6);
        Page("in/shop/list.html", "<img data-slot=d/opening src=../other.png>");
        _place.Quarters("in/other.png", 600, 300);
        Assert.Equal(0, (await RunAsync(clock)).Made);
        File.Delete(_place.At("in/shop/list.html"));
        File.Delete(_place.At("in/shop/old.html"));
        File.Delete(_place.At("out/shop/mine.txt"));
        await RunAsync(clock);
        Assert.False(Directory.Exists(_place.At("out/shop")));

        clock.Now += TimeSpan.FromDays(8);
        Assert.Equal(0, (await RunAsync(clock)).Made);
        Assert.Empty(Directory.GetFiles(_place.At("out/_pictures"), "other-*"));
        Assert.Equal(2, Directory.GetFiles(_place.At("out/_pictures"), "vane-*").Length);
    }

    [Fact]
    public async Task A_folder_of_the_copy_that_somebody_removed_does_not_stop_the_next_run()
    {
        Page("in/index.html", "<img data-slot=d/opening src=vane.png>");
        Page("in/shop/old.html", "<p>old");
        await RunAsync(new Clock());
        Directory.Delete(_place.At("out/shop"), recursive: true);
        Directory.Delete(_place.At("in/shop"), recursive: true);
        await RunAsync(new Clock());
        Assert.False(Directory.Exists(_place.At("out/shop")));
    }

    [Fact]
    public async Task A_run_that_is_stopped_goes_on_where_it_was()
    {
        var pictures = Enumerable.Range(0, 20).Select(i => $"many-{i}.png").ToList();
        pictures.ForEach(name => _place.Quarters($"in/{name}", 900 + (2 * pictures.IndexOf(name)), 500));
        Page("in/index.html", string.Concat(pictures.Select(name => $"<img data-slot=d/opening src={name}>")));
        using var stop = new CancellationTokenSource();
        var run = RunAsync(new Clock(), stop.Token);
        while (!Directory.Exists(_place.At("out/_pictures")) && !run.IsCompleted)
        {
            await Task.Delay(2);
        }

        await stop.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => run);
        Assert.False(File.Exists(_place.At("out/index.html")));
        Assert.InRange((await RunAsync(new Clock())).Made, 1, (2 * pictures.Count) - 1);
    }

    [Fact]
    public void One_picture_under_two_names_is_made_once_for_each()
    {
        Page("in/index.html", "<img data-slot=d/opening src=vane.png><img data-slot=d/opening src=copy.png>");
        File.Copy(_place.At("in/vane.png"), _place.At("in/copy.png"));
        Assert.Contains(" 4 of them made", Build(0), StringComparison.Ordinal);
        Assert.Contains(" 0 of them made", Build(0), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("<img data-slot=d/none src=vane.png>", "no slot or group \"d/none\"")]
    [InlineData("<img data-slot=d/wide src=vane.png>", "one slot of a group; name the group \"opening\"")]
    [InlineData("<img data-slot=d/column src=../../secret.png>", "is outside of the site's folder")]
    [InlineData("<img data-slot=d/column src=%2e%2e/secret.png>", "is outside of the site's folder")]
    [InlineData("<img data-slot=d/column src=link.png>", "a link that leads out of the site's folder")]
    [InlineData("<img data-slot=d/column src=gone.png>", "\"gone.png\" is missing")]
    [InlineData("<img data-slot=d/column src=data:image/png;base64,AAAA>", "is not a file of the site")]
    [InlineData("<img data-slot=d/column>", "The image has no src.")]
    [InlineData("<img data-slot=d/column src=broken.png>", "\"broken.png\": The file")]
    [InlineData("<picture><img data-slot=d/column src=vane.png></picture>", "these cannot be nested")]
    [InlineData("<img data-slot=d/heavy src=vane.png>", "no file was made for d/heavy")]
    public void What_cannot_be_replaced_keeps_its_tag_and_is_named_and_the_rest_is_done(string tag, string says)
    {
        _place.Quarters("secret.png", 400, 200);
        _place.Write("in/broken.png", "\u0089PNG");
        File.CreateSymbolicLink(_place.At("in/link.png"), _place.At("secret.png"));
        Page("in/index.html", $"<p>\n{tag}\n<img data-slot=d/opening src=vane.png>");
        Build(1);
        var page = Built("index.html");
        Assert.StartsWith($"<p>\n{tag}\n<picture><source media=", page, StringComparison.Ordinal);
        var told = Report().GetProperty("pages")[0];
        Assert.Equal(1, told.GetProperty("replaced").GetInt32());
        var fault = told.GetProperty("faults")[0];
        Assert.Equal(2, fault.GetProperty("line").GetInt32());
        Assert.Contains(says, fault.GetProperty("message").GetString(), StringComparison.Ordinal);
        Assert.False(File.Exists(Path.Combine(Out, "link.png")));
    }

    [Fact]
    public void A_text_from_the_marks_stands_where_the_page_has_none_and_reads_in_every_encoding()
    {
        var marks = _place.Write(
            "marks.json",
            """{ "schema": "pantomet-marks/1", "pictures": { "vane.png": { "alt": "F\u00e9 \"vane\"" } } }"""
        );
        Page("in/index.html", "<img data-slot=d/opening src=vane.png width=50><img data-slot=d/opening src=vane.png alt=''>");
        Build(0, "--marks", marks);
        var page = Built("index.html");
        Assert.Contains("width=50 height=\"50\" alt=\"F&#233; &quot;vane&quot;\"", page, StringComparison.Ordinal);
        Assert.Contains("alt=''>", page, StringComparison.Ordinal);
    }

    [Fact]
    public void A_page_too_large_to_read_is_copied_as_it_is()
    {
        var page = string.Concat(Enumerable.Repeat("<p>words and words and words\n", 600_000)) + "<img data-slot=d/opening src=vane.png>";
        Page("in/large.html", page);
        Build(1);
        Assert.Equal(page, Built("large.html"));
        Assert.Contains(
            "only pages up to",
            Report().GetProperty("pages")[0].GetProperty("faults")[0].GetProperty("message").GetString(),
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData("in/copy", "must not be inside each other")]
    [InlineData("in", "must not be inside each other")]
    [InlineData("in/style.css", "--out is a file")]
    public void Folders_that_cannot_be_are_refused_and_nothing_is_written(string output, string says)
    {
        var answer = Programs.Pantomet("site", "--rules", _place.Rules(Slots), "--in", _place.At("in"), "--out", _place.At(output));
        Assert.Equal(2, answer.Code);
        Assert.Contains(says, Assert.Single(answer.Error.TrimEnd('\n').Split('\n')), StringComparison.Ordinal);
        Assert.False(Directory.Exists(_place.At("in/copy")));
    }

    [Fact]
    public void The_site_of_the_demo_is_built_by_the_rules_of_the_demo()
    {
        var demo = Path.Combine(Cli.Installation.Root, "demo");
        Cli.DemoSite.Lay(demo, _place.At("shop-site"));
        var answer = Programs.Pantomet(
            "site",
            "--rules",
            Path.Combine(demo, "rules.json"),
            "--in",
            _place.At("shop-site"),
            "--out",
            Out,
            "--report",
            _place.At("report.json")
        );
        Assert.True(answer.Code == 0, answer.Error);
        Assert.Contains("<picture><source media=\"(min-width: 60em)\"", Built("index.html"), StringComparison.Ordinal);
        var small = Built("instruments/index.html");
        Assert.Contains("<img src=\"../_pictures/dsc-0423-grid-square-", small, StringComparison.Ordinal);
        Assert.All(Addresses(small), file => Assert.True(File.Exists(Path.Combine(Out, file)), file));
        Assert.Equal(File.ReadAllText(Path.Combine(demo, "site", "style.css")), Built("style.css"));
    }

    private Task<SiteOutcome> RunAsync(Clock clock, CancellationToken cancel = default)
    {
        Assert.True(RulesReader.TryRead(File.ReadAllText(_place.Rules(Slots)), out var book, out _));
        return new SiteRun(book!, new Dictionary<string, PictureMarks>(), _place.At("in"), Out, "", 1, clock).ExecuteAsync(cancel);
    }

    private sealed class Clock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = new(2026, 11, 2, 9, 0, 0, TimeSpan.Zero);

        public override DateTimeOffset GetUtcNow() => Now;
    }

    private static IEnumerable<string> Addresses(string markup) =>
        System.Text.RegularExpressions.Regex.Matches(markup, "_pictures/[^ \",]+").Select(match => match.Value);

    private void Page(string name, string text) => _place.Write(name, text);

    private string Built(string page) => File.ReadAllText(Path.Combine(Out, page));

    private JsonElement Report() => JsonDocument.Parse(File.ReadAllText(_place.At("report.json"))).RootElement;

    private string Build(int status, params string[] more)
    {
        var slots = more is [var one] ? one : Slots;
        var answer = Programs.Pantomet([
            "site",
            "--rules",
            _place.Rules(slots),
            "--in",
            _place.At("in"),
            "--out",
            Out,
            "--report",
            _place.At("report.json"),
            .. more.Length > 1 ? more : [],
        ]);
        Assert.True(answer.Code == status, $"exit status {answer.Code}: {answer.Error}");
        return answer.Out;
    }
}

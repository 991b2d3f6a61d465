using System.Globalization;
using System.Runtime.Versioning;
using System.Security.Cryptography;
using System.Text.Json;
using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>Pictures of a folder are lightened under their own names, and the way back is open.</summary>
[UnsupportedOSPlatform("windows")]
public sealed class MendTests : IDisposable
{
    private readonly Workplace _place = new();

    private string Library => _place.At("library");

    private string Kept => _place.At("kept");

    public void Dispose() => _place.Dispose();

    [Fact]
    public void What_is_worth_it_is_lightened_in_place_and_comes_back_byte_for_byte()
    {
        Fill();
        var before = Contents();
        var report = Mend(0, "--keep", Kept, "--max-side", "1200", "--at-least", "0.5");
        var variants = report.GetProperty("variants").EnumerateArray().ToDictionary(one => one.GetProperty("source").GetString()!);
        Assert.Equal(["deep/photograph.jpg", "light.jpg", "moves.webp", "quarters.png"], variants.Keys.Order(StringComparer.Ordinal));
        var lighter = variants["deep/photograph.jpg"];
        var path = Path.Combine(Library, "deep/photograph.jpg");
        Assert.Equal(1200, lighter.GetProperty("width").GetInt32());
        Assert.Equal(new FileInfo(path).Length, lighter.GetProperty("bytes").GetInt64());
        Assert.True(lighter.GetProperty("likeness").GetDouble() >= 0.995);
        Assert.Equal("1200", Programs.Identify("%w", path));
        // Its time and rights are those of before; what it was is kept.
        Assert.Equal(new DateTime(2024, 3, 1, 0, 0, 0, DateTimeKind.Utc), File.GetLastWriteTimeUtc(path));
        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.GroupRead, File.GetUnixFileMode(path));
        Assert.Equal(before["deep/photograph.jpg"], Hash(Path.Combine(Kept, "deep/photograph.jpg")));
        // What is light enough, moves, or is no picture stays.
        Assert.Equal("light-enough", Code(variants["light.jpg"]));
        Assert.Equal("first-frame", Code(variants["moves.webp"]));
        foreach (var same in (string[])["light.jpg", "moves.webp", "notes.txt"])
        {
            Assert.Equal(before[same], Hash(Path.Combine(Library, same)));
        }

        // A second run leaves what it knows.
        var after = Contents();
        var again = Mend(0, "--keep", Kept, "--max-side", "1200", "--at-least", "0.5");
        Assert.All(again.GetProperty("variants").EnumerateArray(), one => Assert.False(one.TryGetProperty("file", out _)));
        Assert.Equal(after, Contents());

        // What somebody changed since is not overwritten.
        File.WriteAllText(Path.Combine(Library, "quarters.png"), "another one");
        var kept = File.Exists(Path.Combine(Kept, "quarters.png"));
        var back = Programs.Pantomet(["mend", Library, "--restore", "--keep", Kept]);
        Assert.Equal(kept ? 1 : 0, back.Code);
        Assert.Equal("another one", File.ReadAllText(Path.Combine(Library, "quarters.png")));
        Assert.Equal(before["deep/photograph.jpg"], Hash(path));
        Assert.Equal(new DateTime(2024, 3, 1, 0, 0, 0, DateTimeKind.Utc), File.GetLastWriteTimeUtc(path));
    }

    [Fact]
    public void Lightened_again_by_another_rule_the_first_original_still_comes_back()
    {
        Fill();
        var path = Path.Combine(Library, "deep/photograph.jpg");
        var first = Hash(path);
        Mend(0, "--keep", Kept, "--max-side", "1200");
        Mend(0, "--keep", Kept, "--max-side", "600");
        Assert.Equal("600", Programs.Identify("%w", path));
        // Made of the original, it lost no more than it had to: it is what that rule makes of it at once.
        var again = Hash(path);
        Mend(0, "--keep", Kept, "--max-side", "600");
        Assert.Equal(again, Hash(path));
        Assert.Equal(0, Programs.Pantomet(["mend", Kept, "--out", _place.At("at-once"), "--max-side", "600"]).Code);
        Assert.Equal(again, Hash(Path.Combine(_place.At("at-once"), "deep/photograph.jpg")));
        Assert.Equal(first, Hash(Path.Combine(Kept, "deep/photograph.jpg")));
        Assert.Equal(0, Programs.Pantomet(["mend", Library, "--restore", "--keep", Kept]).Code);
        Assert.Equal(first, Hash(path));
        // And after that by the first rule once more.
        Mend(0, "--keep", Kept, "--max-side", "1200");
        Assert.Equal("1200", Programs.Identify("%w", path));
        Assert.Equal(first, Hash(Path.Combine(Kept, "deep/photograph.jpg")));
    }

    [Fact]
    public void An_original_that_was_replaced_since_is_kept_beside_the_newer_one_which_comes_back()
    {
        Fill();
        var path = Path.Combine(Library, "deep/photograph.jpg");
        var first = Hash(path);
        Mend(0, "--keep", Kept, "--max-side", "800");
        File.Copy(Workplace.Photographs[1], path, overwrite: true);
        var second = Hash(path);
        Mend(0, "--keep", Kept, "--max-side", "800");
        Assert.NotEqual(second, Hash(path));
        var files = Contents().Keys.Order(StringComparer.Ordinal).ToList();
        Assert.Equal(0, Programs.Pantomet(["mend", Library, "--restore", "--keep", Kept]).Code);
        Assert.Equal(second, Hash(path));
        // Nothing else comes into the folder, and the first one is not lost.
        Assert.Equal(files, Contents().Keys.Order(StringComparer.Ordinal));
        Assert.Contains(Directory.EnumerateFiles(Kept, "*.jpg.1", SearchOption.AllDirectories), kept => Hash(kept) == first);
    }

    [Fact]
    public void A_name_that_is_no_utf8_gets_a_sentence_and_the_rest_goes_on()
    {
        Fill();
        // é as one byte, as machines of the nineties wrote it.
        Shell("cp \"$0\" \"$1\"/$'caf\\xe9.jpg'", Workplace.Photographs[1], Library);
        var answer = Programs.Pantomet(["mend", Library, "--keep", Kept, "--max-side", "1200", "--at-least", "0.5"]);
        Assert.Equal(1, answer.Code);
        // It cannot be removed by its name either.
        Shell("rm \"$0\"/caf*", Library);
        Assert.Contains("The file name is not UTF-8", answer.Error, StringComparison.Ordinal);
        Assert.Equal("1200", Programs.Identify("%w", Path.Combine(Library, "deep/photograph.jpg")));
    }

    [Fact]
    public void A_dry_run_touches_nothing_and_another_folder_gets_every_picture()
    {
        Fill();
        var before = Contents();
        var dry = Mend(0, "--dry-run", "--max-side", "1200", "--at-least", "0.5");
        Assert.Equal(before, Contents());
        Mend(0, "--out", _place.Out, "--max-side", "1200", "--at-least", "0.5");
        Assert.Equal(before, Contents());
        var bytes = dry.GetProperty("variants")
            .EnumerateArray()
            .First(one => one.TryGetProperty("file", out _))
            .GetProperty("bytes")
            .GetInt64();
        Assert.Equal(bytes, new FileInfo(Path.Combine(_place.Out, "deep/photograph.jpg")).Length);
        Assert.Equal(before["light.jpg"], Hash(Path.Combine(_place.Out, "light.jpg")));
        Assert.False(File.Exists(Path.Combine(_place.Out, "notes.txt")));
    }

    [Fact]
    public void A_killed_run_leaves_every_picture_whole_and_its_original_kept_or_untouched()
    {
        Fill();
        for (var i = 0; i < 6; i++)
        {
            File.Copy(Workplace.Photographs[i], Path.Combine(Library, $"more-{i}.jpg"));
        }

        var before = Contents();
        for (var delay = 300; delay <= 1500; delay += 300)
        {
            Programs.Killed(["mend", Library, "--keep", Kept, "--max-side", "800"], TimeSpan.FromMilliseconds(delay));
            foreach (var (path, hash) in before)
            {
                var now = Path.Combine(Library, path);
                if (Hash(now) != hash)
                {
                    Assert.Equal(hash, Hash(Path.Combine(Kept, path)));
                    Assert.InRange(int.Parse(Programs.Identify("%[fx:max(w,h)]", now), CultureInfo.InvariantCulture), 300, 800);
                }
            }
        }

        Mend(0, "--keep", Kept, "--max-side", "800");
        Assert.Equal(0, Programs.Pantomet(["mend", Library, "--restore", "--keep", Kept]).Code);
        Assert.Equal(before, Contents().Where(pair => !pair.Key.EndsWith(".part", StringComparison.Ordinal)).ToDictionary());
    }

    [Theory]
    [InlineData("--out or --keep is needed")]
    [InlineData("must not be inside each other", "--keep", "library/kept")]
    [InlineData("--max-side takes a whole number", "--out", "o", "--max-side", "0")]
    [InlineData("--likeness takes a number from 0 to 1", "--out", "o", "--likeness", "2")]
    [InlineData("is not a weight", "--out", "o", "--max-bytes", "much")]
    [InlineData("--restore needs --keep", "--restore")]
    public void A_wrong_call_is_refused_with_a_sentence(string says, params string[] options)
    {
        Directory.CreateDirectory(Library);
        var answer = Programs.Pantomet(["mend", Library, .. options.Select(one => one.Contains('/') || one == "o" ? _place.At(one) : one)]);
        Assert.Equal(2, answer.Code);
        Assert.Contains(says, answer.Error, StringComparison.Ordinal);
    }

    private static void Shell(string script, params string[] arguments)
    {
        using var shell = System.Diagnostics.Process.Start("bash", ["-c", script, .. arguments]);
        shell.WaitForExit();
        Assert.Equal(0, shell.ExitCode);
    }

    [Fact]
    public void A_limit_alone_rules_over_the_likeness_down_to_what_is_least()
    {
        Fill();
        var asked = Mend(0, "--keep", Kept, "--dry-run", "--max-bytes", "200 kB", "--likeness", "0.995");
        Assert.Equal("likeness", Code(asked.GetProperty("variants").EnumerateArray().First(one => Source(one) == "deep/photograph.jpg")));

        var made = Mend(0, "--keep", Kept, "--max-bytes", "200 kB");
        var lighter = made.GetProperty("variants").EnumerateArray().First(one => Source(one) == "deep/photograph.jpg");
        Assert.InRange(lighter.GetProperty("likeness").GetDouble(), 0.95, 0.995);
        Assert.InRange(new FileInfo(Path.Combine(Library, "deep/photograph.jpg")).Length, 100_000, 200_000);
        Assert.Equal("meets", lighter.GetProperty("verdict").GetString());

        Programs.Pantomet(["mend", Library, "--restore", "--keep", Kept]);
        var over = Mend(0, "--keep", Kept, "--max-bytes", "10 kB").GetProperty("variants").EnumerateArray();
        lighter = over.First(one => Source(one) == "deep/photograph.jpg");
        Assert.Equal(("concedes", "over-weight"), (lighter.GetProperty("verdict").GetString(), Code(lighter)));
        Assert.InRange(lighter.GetProperty("likeness").GetDouble(), 0.95, 0.96);
        Assert.InRange(lighter.GetProperty("bytes").GetInt64(), 10_001, 150_000);
    }

    private static string Source(JsonElement variant) => variant.GetProperty("source").GetString()!;

    private void Fill()
    {
        Directory.CreateDirectory(Path.Combine(Library, "deep"));
        var photograph = Path.Combine(Library, "deep/photograph.jpg");
        File.Copy(Workplace.Photographs[0], photograph);
        File.SetUnixFileMode(photograph, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.GroupRead);
        File.SetLastWriteTimeUtc(photograph, new DateTime(2024, 3, 1, 0, 0, 0, DateTimeKind.Utc));
        using (var lazy = NetVips.Image.Thumbnail(Workplace.Photographs[1], 300))
        using (var small = lazy.CopyMemory())
        {
            small.Jpegsave(Path.Combine(Library, "light.jpg"), q: 40);
            using var other = small.Invert();
            using var both = small.Join(other, NetVips.Enums.Direction.Vertical);
            both.Webpsave(Path.Combine(Library, "moves.webp"), pageHeight: small.Height);
        }

        File.Copy(_place.Quarters("quarters.png", 900, 600), Path.Combine(Library, "quarters.png"));
        File.WriteAllText(Path.Combine(Library, "notes.txt"), "not a picture");
        // A link leads out of the folder.
        File.CreateSymbolicLink(Path.Combine(Library, "link.jpg"), Workplace.Photographs[2]);
    }

    private JsonElement Mend(int status, params string[] options)
    {
        var answer = Programs.Pantomet(["mend", Library, "--report", _place.At("mend.json"), .. options]);
        Assert.True(answer.Code == status, $"exit status {answer.Code}: {answer.Error}");
        return JsonDocument.Parse(File.ReadAllText(_place.At("mend.json"))).RootElement;
    }

    private Dictionary<string, string> Contents() =>
        Directory
            .EnumerateFiles(
                Library,
                "*",
                new EnumerationOptions { RecurseSubdirectories = true, AttributesToSkip = FileAttributes.ReparsePoint }
            )
            .ToDictionary(path => Path.GetRelativePath(Library, path), Hash);

    private static string? Code(JsonElement variant) => variant.GetProperty("reasons")[0].GetProperty("code").GetString();

    private static string Hash(string path) => Convert.ToHexStringLower(SHA256.HashData(File.ReadAllBytes(path)));
}

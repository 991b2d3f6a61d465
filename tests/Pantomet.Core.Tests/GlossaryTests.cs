using System.Text.RegularExpressions;

namespace Pantomet.Core.Tests;

/// <summary>docs/glossary.md is true: its names stand in the code, and its retired words stand in no text.</summary>
public sealed partial class GlossaryTests
{
    private static readonly string Text = File.ReadAllText(Path.Combine(Checkout.Root, "docs", "glossary.md"));

    [Fact]
    public void Each_name_that_it_gives_stands_in_the_code()
    {
        var names = Code().Matches(Text).Select(match => match.Groups[1].Value).Distinct().ToList();
        Assert.True(names.Count > 25, $"{names.Count} names");
        var code = string.Concat(Files("src", "*.cs").Concat(Files(Path.Combine("client", "src"), "*.tsx")).Select(File.ReadAllText));
        Assert.All(names, name => Assert.Matches($@"\b(class|record|struct|interface|enum|function) {name}\b", code));
    }

    [Fact]
    public void No_word_that_is_not_used_any_more_stands_on_a_screen()
    {
        var retired = Text[Text.IndexOf("| before | now |", StringComparison.Ordinal)..]
            .Split('\n')
            .Skip(2)
            .Where(line => line.StartsWith('|'))
            .Select(line => line.Split('|')[1].Trim())
            .ToList();
        Assert.True(retired.Count > 20, $"{retired.Count} words");
        var found =
            from path in Files(Path.Combine("client", "src", "texts", "en"), "*.ts")
                .Concat(Files(Path.Combine("src", "Pantomet.Core", "Texts"), "*.cs"))
                // The description of the API: addresses, names, summaries and what each member means.
                .Append(Path.Combine(Checkout.Root, "client", "openapi.json"))
            let shown = string.Join('\n', Quoted().Matches(Comments().Replace(File.ReadAllText(path), "")).Select(match => match.Value))
            from word in retired
            where Regex.IsMatch(shown, $@"\b{word.Replace(" ", @"\s+", StringComparison.Ordinal)}\b", RegexOptions.IgnoreCase)
            select $"{Path.GetFileName(path)}: {word}";
        Assert.Empty(found);
    }

    private static IEnumerable<string> Files(string folder, string pattern) =>
        Directory
            .EnumerateFiles(Path.Combine(Checkout.Root, folder), pattern, SearchOption.AllDirectories)
            .Where(path => !path.Contains("/obj/", StringComparison.Ordinal));

    [GeneratedRegex(@"^\|.*\| `([A-Za-z]+)` \|$", RegexOptions.Multiline)]
    private static partial Regex Code();

    // What people read stands in quotes: texts have catalogues of their own, and elements hold none.
    [GeneratedRegex("""\"(?:[^\"\\\n]|\\.)*\"|'(?:[^'\\\n]|\\.)*'|`[^`]*`""")]
    private static partial Regex Quoted();

    // What is read by those who write the code and by nobody else.
    [GeneratedRegex(@"/\*.*?\*/|(?<!:)//[^\n]*", RegexOptions.Singleline)]
    private static partial Regex Comments();
}

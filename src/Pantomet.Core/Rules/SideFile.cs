using Pantomet.Core.Texts;

namespace Pantomet.Core.Rules;

/// <summary>Names of files that lie beside a rules file: logos and fonts.</summary>
public static class SideFile
{
    private const int LongestName = 120;

    /// <summary>What the name of a mark's file ends with.</summary>
    public static readonly IReadOnlyList<string> MarkEndings = [".svg", ".png"];

    /// <summary>What the name of a font's file ends with.</summary>
    public static readonly IReadOnlyList<string> FontEndings = [".ttf", ".otf"];

    /// <summary>A sentence when a name is none of a file beside the rules; null when it is one.</summary>
    /// <param name="name">The name.</param>
    /// <param name="endings">One of these it must end with.</param>
    public static string? Fault(string name, IReadOnlyList<string> endings)
    {
        ArgumentNullException.ThrowIfNull(name);
        return !endings.Any(ending => name.EndsWith(ending, StringComparison.OrdinalIgnoreCase) && name.Length > ending.Length)
                ? RuleTexts.TheNameOfThisFileMust(string.Join(" or ", endings), name)
            : name.Length > LongestName
            || name[0] == '.'
            || name.Any(character => char.IsControl(character) || "/\\:*?\"<>|".Contains(character))
                ? RuleTexts.GiveTheNameOfAFile(LongestName)
            : null;
    }
}

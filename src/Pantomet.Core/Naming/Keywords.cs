using System.Text.RegularExpressions;

namespace Pantomet.Core.Naming;

/// <summary>Tells words from the numbers that cameras, phones and chat programs give.</summary>
public static partial class Keywords
{
    /// <summary>The words of a file's name that say what is on the picture; empty when there are none.</summary>
    /// <param name="fileName">As it arrived, with or without its ending.</param>
    public static string In(string fileName)
    {
        ArgumentNullException.ThrowIfNull(fileName);
        var stem = Path.GetFileNameWithoutExtension(fileName);
        var words = Word()
            .Matches(Camel().Replace(stem, " "))
            .Select(match => match.Value)
            .Where(word => !Machine().IsMatch(word) && word.Any(char.IsLetter));
        var text = string.Join(' ', words);
        return text.Count(char.IsLetter) >= 3 ? text : "";
    }

    [GeneratedRegex(@"[\p{L}\p{N}\p{M}']+")]
    private static partial Regex Word();

    [GeneratedRegex(@"(?<=\p{Ll})(?=\p{Lu})|(?<=\p{L})(?=\d{3,})")]
    private static partial Regex Camel();

    // Prefixes and words that devices and programs put before a number; common practice, a list from memory. Words with digits inside
    // (P1050233, WA0007) and bare figures are numbers whatever they begin with.
    [GeneratedRegex(
        @"^(\d+|\p{L}{1,4}\d+\w*|\d+\p{L}{1,3}"
            + @"|dscn?|dscf|dcim|imgp?|image|img|pict?|pxl|mvimg|gopr|dji|cimg|sam|sany|kodak"
            + @"|hpim|scan|photo|foto|picture|screenshot|screen|shot|bild|untitled|unnamed|download|file|copy|kopie|"
            + @"edited|final|unbenannt|wa)$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Machine();
}

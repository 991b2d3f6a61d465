using System.Text;

namespace Pantomet.Core.Naming;

/// <summary>Turns words into a name that is safe on every file system and in every URL: lower case, hyphens, no accents.</summary>
public static class Slug
{
    /// <summary>The longest a slug gets, in characters.</summary>
    public const int Longest = 80;

    // Latin letters of Unicode's Latin-1 Supplement and Latin Extended-A, without their accents; runs of one letter are
    // written as "first-last=plain". Kept as a table because the framework's own folding depends on the machine's locale data.
    private const string Table =
        "à-å=a è-ë=e ì-ï=i ò-ö=o ù-ü=u ý-ý=y ÿ-ÿ=y ç-ç=c ñ-ñ=n ø-ø=o æ-æ=ae œ-œ=oe ß-ß=ss þ-þ=th ð-ð=d "
        + "ā-ą=a ć-č=c ď-đ=d ē-ě=e ĝ-ģ=g ĥ-ħ=h ĩ-ı=i ĵ-ĵ=j ķ-ĸ=k ĺ-ł=l ń-ŋ=n ō-ő=o ŕ-ř=r ś-š=s ţ-ŧ=t ũ-ų=u ŵ-ŵ=w ŷ-ŷ=y ź-ž=z ș-ș=s ț-ț=t";

    private static readonly Dictionary<char, string> Plain = Read();

    // Names that one common file system keeps for devices.
    private static readonly HashSet<string> Reserved =
    [
        "con",
        "prn",
        "aux",
        "nul",
        .. Enumerable.Range(1, 9).SelectMany(n => new[] { $"com{n}", $"lpt{n}" }),
    ];

    /// <summary>A slug; <c>picture</c> when nothing usable is left.</summary>
    public static string From(string words)
    {
        ArgumentNullException.ThrowIfNull(words);
        var slug = new StringBuilder();
        foreach (var letter in words.ToLowerInvariant())
        {
            if (letter is (>= 'a' and <= 'z') or (>= '0' and <= '9'))
            {
                slug.Append(letter);
            }
            else if (Plain.TryGetValue(letter, out var plain))
            {
                slug.Append(plain);
            }
            else if (letter is not ('\'' or '\u2019' or (>= '\u0300' and <= '\u036f')) && slug.Length > 0 && slug[^1] != '-')
            {
                slug.Append('-');
            }
        }

        var text = slug.ToString(0, Math.Min(slug.Length, Longest)).Trim('-');
        return text.Length == 0 ? "picture"
            : Reserved.Contains(text) ? text + "-file"
            : text;
    }

    private static Dictionary<char, string> Read()
    {
        var plain = new Dictionary<char, string>();
        foreach (var entry in Table.Split(' '))
        {
            for (var letter = entry[0]; letter <= entry[2]; letter++)
            {
                plain[letter] = entry[4..];
            }
        }

        return plain;
    }
}

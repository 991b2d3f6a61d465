using System.Text;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Naming;

/// <summary>What a file name is made from.</summary>
/// <param name="Picture">The picture's name or keywords.</param>
/// <param name="Destination">The destination's key.</param>
/// <param name="Slot">The slot's key.</param>
/// <param name="Descriptor">The variant's density, or its width on a ladder.</param>
/// <param name="Size">The variant's pixel size.</param>
/// <param name="Shape">The slot's shape, if it has one.</param>
/// <param name="Hash">The file's content, SHA-256 in lower-case hexadecimal.</param>
public readonly record struct NameParts(
    string Picture,
    string Destination,
    string Slot,
    Descriptor Descriptor,
    PixelSize Size,
    Ratio? Shape,
    string Hash = ""
);

/// <summary>
/// A pattern of tokens for file names: {picture}, {slot}, {destination}, {density}, {width}, {height}, {ratio}, {hash}, with plain
/// letters, digits, hyphens, underscores and dots between them.
/// </summary>
public sealed record NamePattern
{
    /// <summary>What holds where a slot says nothing.</summary>
    public static readonly NamePattern Usual = new("{picture}-{slot}{density}");

    private static readonly string[] Tokens = ["picture", "slot", "destination", "density", "width", "height", "ratio", "hash"];

    /// <summary>As many digits of a file's hash as a name takes.</summary>
    public const int HashDigits = 8;

    private NamePattern(string text) => Text = text;

    /// <summary>The pattern as written.</summary>
    public string Text { get; }

    /// <summary>Reads a pattern, or says in a sentence what is wrong.</summary>
    public static bool TryParse(string text, out NamePattern pattern, out string? error)
    {
        ArgumentNullException.ThrowIfNull(text);
        pattern = Usual;
        error = Fault(text);
        if (error is not null)
        {
            return false;
        }

        pattern = new(text);
        return true;
    }

    /// <summary>The name without its ending.</summary>
    public string Fill(NameParts parts)
    {
        var name = new StringBuilder();
        for (var i = 0; i < Text.Length; i++)
        {
            if (Text[i] != '{')
            {
                name.Append(char.ToLowerInvariant(Text[i]));
                continue;
            }

            var end = Text.IndexOf('}', i);
            name.Append(Value(Text[(i + 1)..end], parts));
            i = end;
        }

        var text = name.ToString().Trim('-', '.', ' ');
        return text.Length == 0 ? "picture" : text;
    }

    // A ladder's files are told apart by their width, where the pattern does not name it already.
    private string Suffix(Descriptor descriptor) =>
        descriptor.Density is { } density ? density.Suffix
        : Text.Contains("{width}", StringComparison.Ordinal) ? ""
        : $"-{descriptor}";

    private string Value(string token, NameParts parts) =>
        token switch
        {
            "picture" => Slug.From(parts.Picture),
            "slot" => parts.Slot,
            "destination" => parts.Destination,
            "density" => Suffix(parts.Descriptor),
            "width" => Figure(parts.Size.Width),
            "height" => Figure(parts.Size.Height),
            "hash" => parts.Hash.Length > HashDigits ? parts.Hash[..HashDigits] : parts.Hash,
            _ => (parts.Shape ?? Ratio.Of(parts.Size)).Text.Replace(':', 'x'),
        };

    private static string Figure(int value) => value.ToString(System.Globalization.CultureInfo.InvariantCulture);

    private static string? Fault(string text)
    {
        if (text.Length is 0 or > 200)
        {
            return RuleTexts.ANamePatternHasToCharacters;
        }

        for (var i = 0; i < text.Length; i++)
        {
            if (text[i] == '{')
            {
                var end = text.IndexOf('}', i);
                var token = end < 0 ? text[(i + 1)..] : text[(i + 1)..end];
                if (end < 0 || !Tokens.Contains(token))
                {
                    return RuleTexts.IsNotATokenTheTokens(token, string.Join(", ", Tokens.Select(known => $"{{{known}}}")));
                }

                i = end;
            }
            else if (!(char.IsAsciiLetterOrDigit(text[i]) || text[i] is '-' or '_' or '.' or '@'))
            {
                return text[i] is '/' or '\\'
                    ? RuleTexts.ANameMustNotHaveA
                    : RuleTexts.ANameCanHaveLettersDigits(char.IsControl(text[i]) ? $"U+{(int)text[i]:X4}" : $"{text[i]}");
            }
        }

        return text.Contains("..", StringComparison.Ordinal) || text[0] == '.' ? RuleTexts.ANameMustNotStartWith : null;
    }
}

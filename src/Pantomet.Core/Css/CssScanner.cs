using System.Globalization;
using System.Text;

namespace Pantomet.Core.Css;

/// <summary>
/// The parts that every piece of CSS is made of (CSS Syntax Module Level 3, 4.3): names, numbers, strings, addresses, comments and brackets.
/// Each method begins at a place of the text, which it moves behind what it read.
/// </summary>
internal static class CssScanner
{
    /// <summary>At the bracket of url(; afterwards behind its end. Null where it is none.</summary>
    public static string? Url(string css, ref int at)
    {
        at = Space(css, at + 1);
        var address = at < css.Length && css[at] is '"' or '\'' ? Text(css, ref at) : Bare(css, ref at);
        at = Space(css, at);
        if (at >= css.Length || css[at] != ')')
        {
            return null;
        }

        at++;
        return address;
    }

    private static string Bare(string css, ref int at)
    {
        var text = new StringBuilder();
        while (at < css.Length && css[at] != ')' && !char.IsWhiteSpace(css[at]))
        {
            Take(css, ref at, text);
        }

        return text.ToString();
    }

    /// <summary>A string. At a quote; afterwards behind the one that ends it.</summary>
    public static string Text(string css, ref int at)
    {
        var (quote, text) = (css[at++], new StringBuilder());
        while (at < css.Length && css[at] != quote)
        {
            Take(css, ref at, text);
        }

        at = Math.Min(css.Length, at + 1);
        return text.ToString();
    }

    // One character, or what an escape stands for (4.3.7).
    private static void Take(string css, ref int at, StringBuilder text)
    {
        if (css[at] != '\\' || at + 1 >= css.Length)
        {
            text.Append(css[at++]);
            return;
        }

        var from = ++at;
        while (at < css.Length && at - from < 6 && char.IsAsciiHexDigit(css[at]))
        {
            at++;
        }

        if (at == from)
        {
            // A line that goes on below is one line.
            text.Append(css[at] is '\n' ? "" : css[at].ToString());
            at++;
            return;
        }

        var value = int.Parse(css.AsSpan(from, at - from), NumberStyles.HexNumber, CultureInfo.InvariantCulture);
        text.Append(Rune.IsValid(value) && value != 0 ? new Rune(value).ToString() : "\uFFFD");
        at = at < css.Length && char.IsWhiteSpace(css[at]) ? at + 1 : at;
    }

    /// <summary>Behind a comment or a string; null where neither begins.</summary>
    public static int? Skipped(string css, int at)
    {
        if (css[at] is '"' or '\'')
        {
            var behind = at;
            Text(css, ref behind);
            return behind;
        }

        if (Comment(css, at) is { } end)
        {
            return end < 0 ? css.Length : end;
        }

        return css[at] == '\\' ? Math.Min(css.Length, at + 2) : null;
    }

    /// <summary>At a bracket; afterwards behind the one that closes it.</summary>
    public static int Closed(string css, int at)
    {
        for (var depth = 0; at < css.Length; )
        {
            if (Skipped(css, at) is { } behind)
            {
                at = behind;
                continue;
            }

            depth += css[at] switch
            {
                '(' => 1,
                ')' => -1,
                _ => 0,
            };
            at++;
            if (depth == 0)
            {
                break;
            }
        }

        return at;
    }

    /// <summary>Behind the spaces that stand here.</summary>
    public static int Space(string css, int at)
    {
        while (at < css.Length && char.IsWhiteSpace(css[at]))
        {
            at++;
        }

        return at;
    }

    /// <summary>A name: letters, figures, hyphens. Afterwards behind it.</summary>
    public static string Name(string css, ref int at)
    {
        var from = at;
        while (at < css.Length && (IsNameStart(css[at]) || char.IsAsciiDigit(css[at])))
        {
            at++;
        }

        return css[from..at];
    }

    /// <summary>True where a name can begin with the character.</summary>
    public static bool IsNameStart(char character) => char.IsAsciiLetter(character) || character is '-' or '_' || character > '\u007F';

    /// <summary>Behind the comment that begins here; null where none does, and -1 where it has no end.</summary>
    public static int? Comment(string css, int at)
    {
        if (!css.AsSpan(at).StartsWith("/*", StringComparison.Ordinal))
        {
            return null;
        }

        var end = css.IndexOf("*/", at + 2, StringComparison.Ordinal);
        return end < 0 ? -1 : end + 2;
    }

    /// <summary>True where a number begins.</summary>
    public static bool IsNumber(string css, int at)
    {
        at = at < css.Length && css[at] is '+' or '-' ? at + 1 : at;
        return at < css.Length && (char.IsAsciiDigit(css[at]) || (css[at] == '.' && at + 1 < css.Length && char.IsAsciiDigit(css[at + 1])));
    }

    /// <summary>The digits of a number with sign and exponent, and the unit that stands on it, in lower case; <c>%</c> is a unit.</summary>
    public static (string Digits, string Unit) Number(string css, ref int at)
    {
        var from = at++;
        while (at < css.Length && (char.IsAsciiDigit(css[at]) || css[at] == '.'))
        {
            at++;
        }

        if (at < css.Length && css[at] is 'e' or 'E' && IsNumber(css, at + 1) && at + 1 < css.Length && css[at + 1] != '.')
        {
            at += 2;
            while (at < css.Length && char.IsAsciiDigit(css[at]))
            {
                at++;
            }
        }

        var (digits, unit) = (css[from..at], at);
        while (at < css.Length && (char.IsAsciiLetter(css[at]) || css[at] == '%'))
        {
            at++;
        }

        return (digits, css[unit..at].ToLowerInvariant());
    }
}

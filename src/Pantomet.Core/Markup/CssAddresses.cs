using System.Globalization;
using System.Text;

namespace Pantomet.Core.Markup;

/// <summary>A place of a style where a picture is named: <c>url()</c>, or the <c>image-set()</c> around several.</summary>
/// <param name="Start">Where it begins in the text.</param>
/// <param name="End">Where it ends, behind its bracket.</param>
/// <param name="Addresses">The addresses in it as they are meant, escapes read.</param>
public sealed record CssImage(int Start, int End, IReadOnlyList<string> Addresses);

/// <summary>Finds the pictures that a style names (CSS Syntax Module Level 3, 4.3), and leaves everything else as it is written.</summary>
public static class CssAddresses
{
    /// <summary>Every one in the order of the text; what stands in a comment or a string is none.</summary>
    /// <param name="css">The style; also the declarations of a <c>style</c> attribute.</param>
    public static IReadOnlyList<CssImage> Of(string css)
    {
        ArgumentNullException.ThrowIfNull(css);
        var images = new List<CssImage>();
        var at = 0;
        while (at < css.Length)
        {
            if (Skipped(css, at) is { } behind)
            {
                at = behind;
            }
            else if (IsNameStart(css[at]))
            {
                var name = Name(css, ref at);
                if (at < css.Length && css[at] == '(' && Image(css, at - name.Length, name, ref at) is { } image)
                {
                    images.Add(image);
                }
            }
            else
            {
                at++;
            }
        }

        return images;
    }

    /// <summary>The style with some of its pictures replaced.</summary>
    /// <param name="css">The style.</param>
    /// <param name="instead">What stands instead of one; null to leave it.</param>
    public static string With(string css, Func<CssImage, string?> instead)
    {
        ArgumentNullException.ThrowIfNull(css);
        ArgumentNullException.ThrowIfNull(instead);
        var (text, at) = (new StringBuilder(), 0);
        foreach (var image in Of(css))
        {
            if (instead(image) is { } other)
            {
                text.Append(css, at, image.Start - at).Append(other);
                at = image.End;
            }
        }

        return text.Append(css, at, css.Length - at).ToString();
    }

    // At the bracket; afterwards behind the function, or behind the bracket of one that names no picture.
    private static CssImage? Image(string css, int start, string name, ref int at)
    {
        if (name.Equals("url", StringComparison.OrdinalIgnoreCase))
        {
            var address = Url(css, ref at);
            return address is null ? null : new(start, at, [address]);
        }

        at++;
        if (!name.EndsWith("image-set", StringComparison.OrdinalIgnoreCase))
        {
            return null;
        }

        var addresses = new List<string>();
        for (var depth = 1; depth > 0 && at < css.Length; )
        {
            if (css[at] is '"' or '\'')
            {
                addresses.Add(Text(css, ref at));
            }
            else if (Skipped(css, at) is { } behind)
            {
                at = behind;
            }
            else if (IsNameStart(css[at]))
            {
                var inner = Name(css, ref at);
                if (at < css.Length && css[at] == '(')
                {
                    if (inner.Equals("url", StringComparison.OrdinalIgnoreCase))
                    {
                        if (Url(css, ref at) is { } address)
                        {
                            addresses.Add(address);
                        }
                    }
                    else
                    {
                        // A type is no address.
                        at = Closed(css, at);
                    }
                }
            }
            else
            {
                depth += css[at] switch
                {
                    '(' => 1,
                    ')' => -1,
                    _ => 0,
                };
                at++;
            }
        }

        return new(start, at, addresses);
    }

    // At the bracket of url(; afterwards behind its end. Null where it is none.
    private static string? Url(string css, ref int at)
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

    // At a quote; afterwards behind the one that ends it.
    private static string Text(string css, ref int at)
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

    // Behind a comment or a string; null where neither begins.
    private static int? Skipped(string css, int at)
    {
        if (css[at] is '"' or '\'')
        {
            var behind = at;
            Text(css, ref behind);
            return behind;
        }

        if (css.AsSpan(at).StartsWith("/*", StringComparison.Ordinal))
        {
            var end = css.IndexOf("*/", at + 2, StringComparison.Ordinal);
            return end < 0 ? css.Length : end + 2;
        }

        return css[at] == '\\' ? Math.Min(css.Length, at + 2) : null;
    }

    // At a bracket; afterwards behind the one that closes it.
    private static int Closed(string css, int at)
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

    private static int Space(string css, int at)
    {
        while (at < css.Length && char.IsWhiteSpace(css[at]))
        {
            at++;
        }

        return at;
    }

    private static string Name(string css, ref int at)
    {
        var from = at;
        while (at < css.Length && (IsNameStart(css[at]) || char.IsAsciiDigit(css[at])))
        {
            at++;
        }

        return css[from..at];
    }

    private static bool IsNameStart(char character) => char.IsAsciiLetter(character) || character is '-' or '_' || character > '\u007F';
}

using System.Text;

namespace Pantomet.Core.Css;

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
            if (CssScanner.Skipped(css, at) is { } behind)
            {
                at = behind;
            }
            else if (CssScanner.IsNameStart(css[at]))
            {
                var name = CssScanner.Name(css, ref at);
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
            var address = CssScanner.Url(css, ref at);
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
                addresses.Add(CssScanner.Text(css, ref at));
            }
            else if (CssScanner.Skipped(css, at) is { } behind)
            {
                at = behind;
            }
            else if (CssScanner.IsNameStart(css[at]))
            {
                var inner = CssScanner.Name(css, ref at);
                if (at < css.Length && css[at] == '(')
                {
                    if (inner.Equals("url", StringComparison.OrdinalIgnoreCase))
                    {
                        if (CssScanner.Url(css, ref at) is { } address)
                        {
                            addresses.Add(address);
                        }
                    }
                    else
                    {
                        // A type is no address.
                        at = CssScanner.Closed(css, at);
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
}

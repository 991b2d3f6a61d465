using Pantomet.Core.Markup;

namespace Pantomet.Batch.Sites;

/// <summary>An attribute of a tag as it is written, and where.</summary>
/// <param name="Attribute">Its name in lower case and its text.</param>
/// <param name="Start">Where it begins in the page's text.</param>
public readonly record struct WrittenAttribute(HtmlAttribute Attribute, int Start)
{
    /// <summary>Where it ends.</summary>
    public int End => Start + Attribute.Text.Length;
}

/// <summary>A tag of a page as it is written (HTML Living Standard, 13.2.5.32 to 13.2.5.40).</summary>
/// <param name="Start">Where it begins in the page's text.</param>
/// <param name="End">Where it ends, behind its bracket.</param>
/// <param name="Attributes">Its attributes; of two with one name the first counts.</param>
public sealed record TagText(int Start, int End, IReadOnlyList<WrittenAttribute> Attributes)
{
    /// <summary>The tag that begins somewhere; null where none of this name does.</summary>
    /// <param name="text">The page's text.</param>
    /// <param name="start">Where its bracket stands.</param>
    /// <param name="name">Its name.</param>
    public static TagText? At(string text, int start, string name)
    {
        if (start < 0 || start >= text.Length || !text.AsSpan(start).StartsWith($"<{name}", StringComparison.OrdinalIgnoreCase))
        {
            return null;
        }

        var at = start + 1 + name.Length;
        var attributes = new List<WrittenAttribute>();
        while (at < text.Length && text[at] != '>')
        {
            if (IsSpace(text[at]) || text[at] == '/')
            {
                at++;
                continue;
            }

            var from = at++;
            while (at < text.Length && !IsSpace(text[at]) && text[at] is not ('/' or '>' or '='))
            {
                at++;
            }

            var key = text[from..at].ToLowerInvariant();
            var equals = SkipSpace(text, at);
            if (equals < text.Length && text[equals] == '=')
            {
                at = ValueEnd(text, SkipSpace(text, equals + 1));
            }

            attributes.Add(new(new(key, text[from..at]), from));
        }

        return new(start, Math.Min(text.Length, at + 1), [.. attributes.DistinctBy(one => one.Attribute.Name)]);
    }

    private static int ValueEnd(string text, int at)
    {
        if (at < text.Length && text[at] is '"' or '\'')
        {
            var end = text.IndexOf(text[at], at + 1);
            return end < 0 ? text.Length : end + 1;
        }

        while (at < text.Length && !IsSpace(text[at]) && text[at] != '>')
        {
            at++;
        }

        return at;
    }

    private static int SkipSpace(string text, int at)
    {
        while (at < text.Length && IsSpace(text[at]))
        {
            at++;
        }

        return at;
    }

    private static bool IsSpace(char character) => character is ' ' or '\t' or '\n' or '\r' or '\f';
}

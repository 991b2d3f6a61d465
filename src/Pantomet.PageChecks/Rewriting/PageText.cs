using System.Text;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using AngleSharp.Html.Parser;
using Pantomet.Batch.Sites;
using Pantomet.Core.Markup;
using Pantomet.Core.PageChecks;

namespace Pantomet.PageChecks.Rewriting;

/// <summary>A part of a page's text that is written anew.</summary>
internal readonly record struct Edit(int Start, int End, string Text);

/// <summary>An element that holds a picture, as it is written.</summary>
/// <param name="Tag">Its tag.</param>
/// <param name="Start">Where it begins, with the <c>picture</c> around it.</param>
/// <param name="End">Where it ends, with the <c>picture</c> around it.</param>
/// <param name="Attribute">The attribute that names its file.</param>
/// <param name="IsImage">True for an <c>img</c>, which can choose between files.</param>
internal sealed record PictureTag(TagText Tag, int Start, int End, string Attribute, bool IsImage);

/// <summary>The styles that a page has within itself: an element, or an attribute.</summary>
/// <param name="Start">Where it begins.</param>
/// <param name="End">Where it ends.</param>
/// <param name="Css">What it says.</param>
/// <param name="IsAttribute">True for a <c>style</c> attribute, which is written whole.</param>
internal sealed record PageStyle(int Start, int End, string Css, bool IsAttribute);

/// <summary>
/// A page as text in which each character is a byte of the file, so that what is not mended stays as it was, whatever its encoding; a parser of
/// the standard finds the elements.
/// </summary>
internal sealed class PageText
{
    private readonly string _text;
    private readonly IHtmlDocument _document;
    private readonly HashSet<IElement> _taken = [];

    private PageText(string text, IHtmlDocument document, Uri address)
    {
        (_text, _document) = (text, document);
        Base =
            document.QuerySelector("base[href]")?.GetAttribute("href") is { } href
            && Uri.TryCreate(address, SitePage.InUtf8(href), out var at)
                ? at
                : address;
    }

    /// <summary>What its addresses are meant from.</summary>
    public Uri Base { get; }

    /// <summary>Reads a page.</summary>
    /// <param name="bytes">Its file.</param>
    /// <param name="address">Its whole address.</param>
    public static PageText Read(byte[] bytes, Uri address)
    {
        var text = Encoding.Latin1.GetString(bytes);
        var parser = new HtmlParser(new HtmlParserOptions { IsKeepingSourceReferences = true });
        return new(text, parser.ParseDocument(text), address);
    }

    /// <summary>The page with parts of it written anew; those that lie in others give way.</summary>
    public byte[] With(IEnumerable<Edit> edits)
    {
        var (page, at) = (new StringBuilder(_text.Length + 4096), 0);
        foreach (var edit in edits.OrderBy(edit => edit.Start).ThenByDescending(edit => edit.End))
        {
            if (edit.Start >= at)
            {
                page.Append(_text, at, edit.Start - at).Append(edit.Text);
                at = edit.End;
            }
        }

        return Encoding.Latin1.GetBytes(page.Append(_text, at, _text.Length - at).ToString());
    }

    /// <summary>Where a style can be added: before the end of the head, else before everything.</summary>
    public int StyleEnd
    {
        get
        {
            var end = _text.IndexOf("</head", StringComparison.OrdinalIgnoreCase);
            var body = _document.Body?.SourceReference?.Position.Position - 1 ?? -1;
            return end >= 0 && (body < 0 || end < body) ? end
                : body >= 0 ? body
                : 0;
        }
    }

    /// <summary>
    /// The element that held a picture when the page was looked at; null where the page's text has none: then a script put it there.
    /// </summary>
    /// <param name="where">The selector that found it in the browser.</param>
    /// <param name="kind">How the page holds it.</param>
    /// <param name="addresses">The whole addresses that were loaded for it.</param>
    public PictureTag? Find(string where, ImageKind kind, IReadOnlySet<string> addresses)
    {
        var there = Asked(where);
        if (there is null || _taken.Contains(there) || !Names(there, kind).Any(addresses.Contains))
        {
            // Scripts move what stands around it; where one element alone names it, that is the one.
            var others = _document.All.Where(one => !_taken.Contains(one) && Names(one, kind).Any(addresses.Contains)).Take(2).ToList();
            there = others.Count == 1 ? others[0] : null;
        }

        if (there is null || Tag(there) is not { } tag)
        {
            return null;
        }

        _taken.Add(there);
        if (there.LocalName != "img")
        {
            var attribute = there.LocalName switch
            {
                "video" => "poster",
                "input" => "src",
                _ => there.HasAttribute("href") ? "href" : "xlink:href",
            };
            return new(tag, tag.Start, tag.End, attribute, IsImage: false);
        }

        if (there.ParentElement is { LocalName: "picture" } around && Tag(around) is { } outer)
        {
            var closing = _text.IndexOf("</picture", tag.End, StringComparison.OrdinalIgnoreCase);
            var end = closing < 0 ? -1 : _text.IndexOf('>', closing);
            return end < 0 ? null : new(tag, outer.Start, end + 1, "src", IsImage: true);
        }

        return new(tag, tag.Start, tag.End, "src", IsImage: true);
    }

    /// <summary>All styles within the page, in its order.</summary>
    public IEnumerable<PageStyle> Styles()
    {
        foreach (var element in _document.All)
        {
            if (element.LocalName == "style" && Tag(element) is { } tag)
            {
                var end = _text.IndexOf("</style", tag.End, StringComparison.OrdinalIgnoreCase);
                end = end < 0 ? _text.Length : end;
                yield return new(tag.End, end, _text[tag.End..end], IsAttribute: false);
            }
            else if (
                element.GetAttribute("style") is { } css
                && css.Contains('(', StringComparison.Ordinal)
                && Tag(element)?.Attributes.FirstOrDefault(one => one.Attribute.Name == "style") is { Attribute.Text: not null } written
            )
            {
                // References beyond ASCII cannot be told from bytes once they are read.
                if (css.All(char.IsAscii) || !written.Attribute.Text.Contains('&', StringComparison.Ordinal))
                {
                    yield return new(written.Start, written.End, css, IsAttribute: true);
                }
            }
        }
    }

    private IElement? Asked(string where)
    {
        try
        {
            return _document.QuerySelector(where);
        }
        catch (DomException)
        {
            return null;
        }
    }

    private TagText? Tag(IElement element) =>
        element.SourceReference?.Position is { } position ? TagText.At(_text, position.Position - 1, element.LocalName) : null;

    // The whole addresses that an element names.
    private IEnumerable<string> Names(IElement element, ImageKind kind)
    {
        IEnumerable<string?> written = (kind, element.LocalName) switch
        {
            (ImageKind.Img, "img") =>
            [
                element.GetAttribute("src"),
                .. Candidates(element.GetAttribute("srcset")),
                .. element.ParentElement is { LocalName: "picture" } around
                    ? around.Children.Where(one => one.LocalName == "source").SelectMany(one => Candidates(one.GetAttribute("srcset")))
                    : [],
            ],
            (ImageKind.Img, "input") => [element.GetAttribute("src")],
            (ImageKind.Poster, "video") => [element.GetAttribute("poster")],
            (ImageKind.Svg, "image") => [element.GetAttribute("href"), element.GetAttribute("xlink:href")],
            _ => [],
        };
        return written.OfType<string>().Select(text => Whole(Base, SitePage.InUtf8(text))).OfType<string>();
    }

    /// <summary>A whole address as the browser tells it; null where it is none.</summary>
    public static string? Whole(Uri from, string address) =>
        address.StartsWith("data:", StringComparison.OrdinalIgnoreCase) ? address
        : Uri.TryCreate(from, address, out var at) ? at.AbsoluteUri.Split('#')[0]
        : null;

    // The addresses of a list of candidates (HTML Living Standard, 4.8.4.3.5).
    private static IEnumerable<string> Candidates(string? list)
    {
        var at = 0;
        while (list is not null && at < list.Length)
        {
            while (at < list.Length && (char.IsWhiteSpace(list[at]) || list[at] == ','))
            {
                at++;
            }

            var from = at;
            while (at < list.Length && !char.IsWhiteSpace(list[at]))
            {
                at++;
            }

            var address = list[from..at];
            if (address.Length > 0)
            {
                yield return address.TrimEnd(',');
            }

            // One that ends with a comma has no descriptor.
            if (address.EndsWith(','))
            {
                continue;
            }

            while (at < list.Length && list[at] != ',')
            {
                at++;
            }
        }
    }
}

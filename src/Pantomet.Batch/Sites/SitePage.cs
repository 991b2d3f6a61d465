using System.Text;
using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Pantomet.Core.Markup;
using Pantomet.Core.Texts;

namespace Pantomet.Batch.Sites;

/// <summary>
/// A page as text in which each character is a byte of the file, so that everything but the tags that are replaced is written again as it was,
/// whatever its encoding. A parser of the standard finds the tags: what stands in a comment or a script is none.
/// </summary>
public sealed class SitePage
{
    /// <summary>The attribute that names an image's place.</summary>
    public const string SlotAttribute = "data-slot";

    /// <summary>Pages with images to replace are read up to this size in bytes; parsing takes thirty times as much memory.</summary>
    public const int LargestPage = 16_000_000;

    // These are the markup's own.
    private static readonly HashSet<string> Replaced = ["src", "srcset", "sizes", SlotAttribute];

    private readonly string _text;

    private SitePage(string text, IReadOnlyList<SiteTag> tags) => (_text, Tags) = (text, tags);

    /// <summary>The images that name their place, in the order of the page.</summary>
    public IReadOnlyList<SiteTag> Tags { get; }

    /// <summary>Reads a page, or says in a sentence why its images cannot be replaced; both are null for a page that has none.</summary>
    /// <param name="bytes">The page's file.</param>
    /// <param name="fault">Why not.</param>
    public static SitePage? Read(byte[] bytes, out string? fault)
    {
        fault = null;
        var text = Encoding.Latin1.GetString(bytes);
        if (!text.Contains(SlotAttribute, StringComparison.OrdinalIgnoreCase))
        {
            // Every second byte of a page in UTF-16 is nought.
            fault = bytes is [0xFE, 0xFF, ..] or [0xFF, 0xFE, ..] ? PageTexts.ThePageIsUTFWhichIs : null;
            return null;
        }

        if (bytes.Length > LargestPage)
        {
            fault = PageTexts.ThePageWeighsAndOnlyPages(Core.Figures.Weight(bytes.Length), Core.Figures.Weight(LargestPage));
            return null;
        }

        var parser = new HtmlParser(new HtmlParserOptions { IsKeepingSourceReferences = true });
        using var document = parser.ParseDocument(text);
        var tags = document
            .QuerySelectorAll($"img[{SlotAttribute}]")
            .Select(image => TagOf(text, image))
            .OfType<SiteTag>()
            .OrderBy(tag => tag.Start)
            .ToList();
        return new(text, tags);
    }

    /// <summary>The page with some of its tags replaced.</summary>
    /// <param name="markup">What stands instead, by tag; only ASCII and what the tag had.</param>
    public byte[] With(IReadOnlyDictionary<SiteTag, string> markup)
    {
        var page = new StringBuilder(_text.Length + 1024);
        var at = 0;
        foreach (var tag in Tags.Where(markup.ContainsKey))
        {
            page.Append(_text, at, tag.Start - at).Append(markup[tag]);
            at = tag.End;
        }

        return Encoding.Latin1.GetBytes(page.Append(_text, at, _text.Length - at).ToString());
    }

    /// <summary>A text with everything beyond ASCII as references, which mean the same in every encoding.</summary>
    public static string Ascii(string text) =>
        string.Concat(text.EnumerateRunes().Select(rune => rune.IsAscii ? rune.ToString() : $"&#{rune.Value};"));

    private static SiteTag? TagOf(string text, IElement image)
    {
        // Positions count from 1.
        if (image.SourceReference?.Position is not { } position || TagText.At(text, position.Position - 1, "img") is not { } tag)
        {
            return null;
        }

        return new(
            tag.Start,
            tag.End,
            position.Line,
            InUtf8(image.GetAttribute(SlotAttribute)),
            InUtf8(image.GetAttribute("src")),
            [.. tag.Attributes.Select(one => one.Attribute).Where(attribute => !Replaced.Contains(attribute.Name))],
            image.Closest("picture") is not null
        );
    }

    /// <summary>A value of a page that was read as Latin-1, in UTF-8, as nearly every page writes it.</summary>
    public static string InUtf8(string? value) => value is null ? "" : Encoding.UTF8.GetString(Encoding.Latin1.GetBytes(value)).Trim();
}

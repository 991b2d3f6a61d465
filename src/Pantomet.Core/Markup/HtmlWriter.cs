using System.Globalization;
using Pantomet.Core.Facts;

namespace Pantomet.Core.Markup;

/// <summary>
/// Writes the elements by which a browser chooses (HTML Living Standard, 4.8.1 to 4.8.4): a <c>source</c> for each slot of a group by its
/// condition and for each type, the last of all as <c>img</c>.
/// </summary>
public static class HtmlWriter
{
    // A column of a letter; common practice, a value from memory.
    private const int MailColumn = 600;

    /// <summary>The element for a page.</summary>
    /// <param name="picture">The picture.</param>
    /// <param name="kept">Attributes that the <c>img</c> has already; they stand, and stand before those of the same names given here.</param>
    /// <param name="withPlaceholder">True to show the colour and the placeholder until the file is there, by the element's style.</param>
    /// <param name="inOneLine">True for a place where a space between two elements would be seen.</param>
    public static string Page(
        MarkupPicture picture,
        IReadOnlyList<HtmlAttribute>? kept = null,
        bool withPlaceholder = false,
        bool inOneLine = false
    )
    {
        ArgumentNullException.ThrowIfNull(picture);
        var (sources, attributes) = Parts(picture, withPlaceholder);
        List<HtmlAttribute> stands = [.. kept ?? []];
        var image = Element("img", [.. attributes.Where(own => stands.All(one => one.Name != own.Name)), .. stands]);
        if (sources.Count == 0)
        {
            return image;
        }

        var between = inOneLine ? "" : "\n  ";
        return $"<picture>{string.Concat(sources.Append(image).Select(element => between + element))}{(inOneLine ? "" : "\n")}</picture>";
    }

    /// <summary>
    /// What the element for a page is made of: the <c>source</c> elements, which may be none, and the attributes of the <c>img</c>.
    /// </summary>
    /// <param name="picture">The picture.</param>
    /// <param name="withPlaceholder">True to show the colour and the placeholder until the file is there.</param>
    public static (IReadOnlyList<string> Sources, IReadOnlyList<HtmlAttribute> Image) Parts(
        MarkupPicture picture,
        bool withPlaceholder = false
    )
    {
        ArgumentNullException.ThrowIfNull(picture);
        var last = picture.Slots[^1];
        var types = last.ByType;
        var sources = new List<string>();
        foreach (var slot in picture.Slots.SkipLast(1))
        {
            sources.AddRange(slot.ByType.Select(files => Source(slot, files, typed: slot.ByType.Count > 1 || types.Count > 1)));
        }

        sources.AddRange(types.SkipLast(1).Select(files => Source(last, files, typed: true)));
        return (sources, Image(picture, last, types[^1], withPlaceholder));
    }

    /// <summary>
    /// The attributes of an <c>img</c> that stands alone and chooses only by width or density: files of the type tried first.
    /// </summary>
    /// <param name="picture">The picture; of a group the slot that is shown when no other is.</param>
    public static IReadOnlyList<HtmlAttribute> Alone(MarkupPicture picture)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var last = picture.Slots[^1];
        return Image(picture, last, last.ByType[0], withPlaceholder: false);
    }

    /// <summary>
    /// The element for a mail: one file of a type that every program for mail shows, with twice the pixels where there are so many, its width
    /// in the attribute. Null where no such file was made.
    /// </summary>
    public static string? Mail(MarkupPicture picture)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var slot = picture.Slots[^1];
        var width = Math.Min(slot.Shown.Width, MailColumn);
        var files = slot
            .Files.Where(file => file.Format is PictureFormat.Jpeg or PictureFormat.Png && !IsData(file))
            .OrderBy(file => file.Size.Width)
            .ToList();
        if (files.Count == 0)
        {
            return null;
        }

        var file = files.FirstOrDefault(file => file.Size.Width >= 2 * width) ?? files[^1];
        width = Math.Min(width, file.Size.Width);
        return Element(
            "img",
            [
                HtmlAttribute.Of("src", file.Address),
                HtmlAttribute.Of("width", Figure(width)),
                HtmlAttribute.Of("height", Figure(Geometry.Ratio.Of(file.Size).HeightFor(width))),
                HtmlAttribute.Of("alt", picture.Alternative ?? ""),
                HtmlAttribute.Of("style", $"display: block; border: 0; width: 100%; max-width: {width}px; height: auto"),
            ]
        );
    }

    /// <summary>The candidates of a list, as <c>srcset</c> takes them.</summary>
    public static string Candidates(MarkupSlot slot, IReadOnlyList<MarkupFile> files)
    {
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(files);
        return string.Join(", ", files.Select(file => $"{file.Address} {DescriptorOf(slot, file)}"));
    }

    /// <summary>What a candidate says of itself: the density or the width that it really has.</summary>
    public static string DescriptorOf(MarkupSlot slot, MarkupFile file)
    {
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(file);
        return slot.Slot.Responsive is null
            ? string.Create(CultureInfo.InvariantCulture, $"{slot.DensityOf(file):0.###}x")
            : $"{Figure(file.Size.Width)}w";
    }

    /// <summary>An element without an end, as it is written.</summary>
    public static string Element(string name, IEnumerable<HtmlAttribute> attributes) =>
        $"<{name} {string.Join(' ', attributes.Select(attribute => attribute.Text))}>";

    /// <summary>A text that is safe in an element and between double quotes.</summary>
    public static string Escaped(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return text.Replace("&", "&amp;", StringComparison.Ordinal)
            .Replace("\"", "&quot;", StringComparison.Ordinal)
            .Replace("<", "&lt;", StringComparison.Ordinal)
            .Replace(">", "&gt;", StringComparison.Ordinal);
    }

    private static string Source(MarkupSlot slot, IReadOnlyList<MarkupFile> files, bool typed)
    {
        var attributes = new List<HtmlAttribute>();
        Add(attributes, "media", slot.Slot.Media?.Text);
        Add(attributes, "type", typed && files.Select(file => file.Format).Distinct().Count() == 1 ? files[0].Format.MediaType() : null);
        Add(attributes, "srcset", Candidates(slot, files));
        Add(attributes, "sizes", slot.Slot.Responsive?.Sizes.Text);
        Add(attributes, "width", Figure(slot.Shown.Width));
        Add(attributes, "height", Figure(slot.Shown.Height));
        return Element("source", attributes);
    }

    private static List<HtmlAttribute> Image(MarkupPicture picture, MarkupSlot slot, IReadOnlyList<MarkupFile> files, bool withPlaceholder)
    {
        var attributes = new List<HtmlAttribute>();
        Add(attributes, "src", slot.Plain(files).Address);
        Add(attributes, "srcset", files.Count > 1 || slot.Slot.Responsive is not null ? Candidates(slot, files) : null);
        Add(attributes, "sizes", slot.Slot.Responsive?.Sizes.Text);
        Add(attributes, "width", Figure(slot.Shown.Width));
        Add(attributes, "height", Figure(slot.Shown.Height));
        Add(attributes, "alt", picture.Alternative ?? "");
        // What the page begins with must not wait for a look at where it stands; all else may.
        Add(attributes, "loading", picture.IsFirst ? null : "lazy");
        Add(attributes, "decoding", picture.IsFirst ? null : "async");
        Add(attributes, "fetchpriority", picture.IsFirst ? "high" : null);
        Add(attributes, "style", withPlaceholder ? Waiting(picture) : null);
        return attributes;
    }

    // The plain colour is there at once; the tiny picture is drawn over it, and the file over both. Where the file shows through, neither may.
    private static string? Waiting(MarkupPicture picture) =>
        picture.Edge is not { } colour ? null
        : picture.Placeholder is { } placeholder ? $"background: {colour} url('{placeholder}') center / cover no-repeat"
        : $"background: {colour}";

    private static void Add(List<HtmlAttribute> attributes, string key, string? value)
    {
        if (value is { } text)
        {
            attributes.Add(HtmlAttribute.Of(key, text));
        }
    }

    /// <summary>True for a file that is given as data.</summary>
    internal static bool IsData(MarkupFile file) => file.Address.StartsWith("data:", StringComparison.Ordinal);

    private static string Figure(int value) => value.ToString(CultureInfo.InvariantCulture);
}

using System.Text.RegularExpressions;
using System.Xml;
using Pantomet.Core.Facts;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Dressing;

/// <summary>
/// Looks through a drawing that is to be drawn over other people's pictures: it brings everything with it, runs nothing, and is small enough
/// to be drawn for every file.
/// </summary>
public static partial class MarkCheck
{
    /// <summary>The most parts that are drawn, those counted that are used again as often as they are.</summary>
    public const int MostParts = 20_000;

    /// <summary>A sentence that says what is wrong, or null.</summary>
    /// <param name="drawing">The file from its start; it must be possible to go back in it.</param>
    public static string? Refusal(Stream drawing)
    {
        ArgumentNullException.ThrowIfNull(drawing);
        var start = drawing.Position;
        if (DrawingCheck.Refusal(drawing) is { } refusal)
        {
            return refusal;
        }

        drawing.Position = start;
        var parts = new List<Part>();
        var open = new Stack<Part>();
        var inStyle = false;
        try
        {
            using var reader = XmlReader.Create(drawing, new() { DtdProcessing = DtdProcessing.Parse, XmlResolver = null });
            while (reader.Read())
            {
                switch (reader.NodeType)
                {
                    case XmlNodeType.ProcessingInstruction when reader.Name == "xml-stylesheet":
                        return Outside(reader.Value);
                    case XmlNodeType.Element:
                        if (parts.Count == MostParts)
                        {
                            return TooMany;
                        }

                        if (reader.LocalName is "script" or "foreignObject" or "handler" or "iframe")
                        {
                            return OverlayTexts.TheDrawingHasAElementA(reader.LocalName);
                        }

                        var (leaves, name) = (reader.IsEmptyElement, reader.LocalName);
                        inStyle = !leaves && name == "style";
                        var part = new Part();
                        if (Attributes(reader, part, name) is { } fault)
                        {
                            return fault;
                        }

                        open.TryPeek(out var around);
                        around?.Inside.Add(part);
                        parts.Add(part);
                        if (!leaves)
                        {
                            open.Push(part);
                        }

                        break;
                    case XmlNodeType.EndElement:
                        open.Pop();
                        inStyle = false;
                        break;
                    case XmlNodeType.Text or XmlNodeType.CDATA when inStyle && Asks(reader.Value) is { } address:
                        return Outside(address);
                }
            }
        }
        catch (XmlException)
        {
            return OverlayTexts.TheDrawingIsDamagedOrIncomplete;
        }

        var named = parts.Where(part => part.Id is not null).GroupBy(part => part.Id!).ToDictionary(same => same.Key, same => same.First());
        return parts.Count > 0 && Drawn(parts[0], named, []) > MostParts ? TooMany : null;
    }

    private static string TooMany => OverlayTexts.TheDrawingHasMoreThanParts(Figures.Count(MostParts));

    private static string Outside(string address) =>
        OverlayTexts.TheDrawingLoadsEmbedItsPictures((address.Length > 60 ? address[..60] + "…" : address));

    private static string? Attributes(XmlReader reader, Part part, string element)
    {
        while (reader.MoveToNextAttribute())
        {
            var value = reader.Value.Trim();
            if (reader.LocalName.StartsWith("on", StringComparison.OrdinalIgnoreCase) && reader.LocalName.Length > 2)
            {
                return OverlayTexts.TheDrawingHasAScriptAt(reader.LocalName);
            }

            if (reader.Name == "id")
            {
                part.Id = value;
            }

            // A link is not followed by who draws.
            if (reader.LocalName is "href" or "src" && element != "a")
            {
                if (value.StartsWith('#'))
                {
                    part.Uses = element == "use" ? value[1..] : null;
                }
                else if (!value.StartsWith("data:image/", StringComparison.OrdinalIgnoreCase))
                {
                    return Outside(value);
                }
            }
            else if (reader.Prefix != "xmlns" && Asks(value) is { } address)
            {
                return Outside(address);
            }
        }

        reader.MoveToElement();
        return null;
    }

    // An address that a style asks for, other than a part of the drawing itself or data within it.
    private static string? Asks(string style) =>
        Import().IsMatch(style)
            ? "@import"
            : Address()
                .Matches(style)
                .Select(match => match.Groups[1].Value)
                .FirstOrDefault(address => !address.StartsWith('#') && !address.StartsWith("data:", StringComparison.OrdinalIgnoreCase));

    // How many parts are drawn for one; a part that uses itself is not drawn again by anybody.
    private static long Drawn(Part part, Dictionary<string, Part> named, HashSet<Part> around)
    {
        if (part.Drawn is { } known)
        {
            return known;
        }

        if (!around.Add(part))
        {
            return 0;
        }

        long drawn = 1;
        foreach (var inside in part.Inside)
        {
            drawn = Math.Min(MostParts + 1, drawn + Drawn(inside, named, around));
        }

        if (part.Uses is { } uses && named.TryGetValue(uses, out var used))
        {
            drawn = Math.Min(MostParts + 1, drawn + Drawn(used, named, around));
        }

        around.Remove(part);
        part.Drawn = drawn;
        return drawn;
    }

    [GeneratedRegex("""url\(\s*["']?\s*([^"')\s]*)""", RegexOptions.IgnoreCase)]
    private static partial Regex Address();

    [GeneratedRegex("@import", RegexOptions.IgnoreCase)]
    private static partial Regex Import();

    private sealed class Part
    {
        public string? Id { get; set; }

        public string? Uses { get; set; }

        public List<Part> Inside { get; } = [];

        public long? Drawn { get; set; }
    }
}

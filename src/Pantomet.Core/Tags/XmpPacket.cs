using System.Text;
using System.Xml;
using System.Xml.Linq;

namespace Pantomet.Core.Tags;

/// <summary>The XML packet of tags (ISO 16684-1) that cameras and editors write.</summary>
public static class XmpPacket
{
    private static readonly XNamespace Rdf = "http://www.w3.org/1999/02/22-rdf-syntax-ns#";
    private static readonly XNamespace Core = "http://purl.org/dc/elements/1.1/";

    // Local names that tell a place, whatever their schema: the GPS tags of exif, and the location fields of IPTC Core and Extension.
    private static readonly HashSet<string> Places = new(StringComparer.Ordinal)
    {
        "City",
        "State",
        "Country",
        "CountryCode",
        "Location",
        "LocationCreated",
        "LocationShown",
        "Sublocation",
        "ProvinceState",
        "CountryName",
        "WorldRegion",
    };

    /// <summary>
    /// Whose the picture is: the first text of dc:rights and of dc:creator; null where there is none or the packet is damaged.
    /// </summary>
    public static (string? Rights, string? Creator) Lines(ReadOnlySpan<byte> packet)
    {
        return Parse(packet) is { } document ? (First(document, Core + "rights"), First(document, Core + "creator")) : (null, null);
    }

    /// <summary>The packet without what tells a place; null when it is damaged and nothing of it can be trusted.</summary>
    public static byte[]? WithoutPlaces(ReadOnlySpan<byte> packet)
    {
        if (Parse(packet) is not { } document)
        {
            return null;
        }

        document.Descendants().Where(element => TellsPlace(element.Name)).ToList().ForEach(element => element.Remove());
        document
            .Descendants()
            .Attributes()
            .Where(attribute => !attribute.IsNamespaceDeclaration && TellsPlace(attribute.Name))
            .ToList()
            .ForEach(attribute => attribute.Remove());
        return Encoding.UTF8.GetBytes(document.ToString(SaveOptions.DisableFormatting));
    }

    private static bool TellsPlace(XName name) =>
        name.LocalName.StartsWith("GPS", StringComparison.Ordinal) || Places.Contains(name.LocalName);

    private static string? First(XDocument document, XName name)
    {
        var element = document.Descendants(name).FirstOrDefault();
        var text = (element?.Descendants(Rdf + "li").FirstOrDefault() ?? element)?.Value.Trim();
        return string.IsNullOrEmpty(text) ? null : text;
    }

    private static XDocument? Parse(ReadOnlySpan<byte> packet)
    {
        try
        {
            var text = Encoding.UTF8.GetString(packet).TrimEnd('\0').Trim('\ufeff', ' ', '\r', '\n', '\t');
            // A packet comes from a stranger: no document type, no entities, nothing fetched.
            using var reader = XmlReader.Create(
                new StringReader(text),
                new()
                {
                    DtdProcessing = DtdProcessing.Prohibit,
                    XmlResolver = null,
                    MaxCharactersInDocument = 20_000_000,
                }
            );
            return XDocument.Load(reader);
        }
        catch (XmlException)
        {
            return null;
        }
    }
}

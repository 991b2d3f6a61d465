using System.Xml;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Facts;

/// <summary>
/// Looks through a drawing (SVG) before it is drawn: a few hundred bytes can ask for minutes of work. The time for a run of text grows with
/// the square of its length, entities multiply it, and groups can be nested without end.
/// </summary>
public static class DrawingCheck
{
    /// <summary>The most that the squares of all runs of text may add up to: about two seconds of drawing (measured).</summary>
    private const long MostText = 10_000_000;

    private const int Deepest = 256;
    private const long MostFromEntities = 200_000;

    /// <summary>A sentence that says what is too much, or null. What is no XML at all is left to the drawing library to refuse.</summary>
    /// <param name="drawing">The file from its start.</param>
    public static string? Refusal(Stream drawing)
    {
        ArgumentNullException.ThrowIfNull(drawing);
        long text = 0;
        try
        {
            // Entities of the file itself are needed to see what they grow to; nothing outside of it is opened.
            using var reader = XmlReader.Create(
                drawing,
                new()
                {
                    DtdProcessing = DtdProcessing.Parse,
                    XmlResolver = null,
                    MaxCharactersFromEntities = MostFromEntities,
                }
            );
            while (reader.Read())
            {
                if (reader.Depth > Deepest)
                {
                    return PictureTexts.TheDrawingHasMoreThanLevels(Deepest);
                }

                text += reader.NodeType is XmlNodeType.Text or XmlNodeType.CDATA ? (long)reader.Value.Length * reader.Value.Length : 0;
                if (text > MostText)
                {
                    return PictureTexts.TheDrawingHasTooMuchText;
                }
            }

            return null;
        }
        catch (XmlException fault)
        {
            return fault.Message.Contains(nameof(XmlReaderSettings.MaxCharactersFromEntities), StringComparison.Ordinal)
                ? PictureTexts.TheDrawingsXMLEntitiesBecomeToo
                : null;
        }
    }
}

using Pantomet.Core.Geometry;
using Pantomet.Core.Rules.Keys;

namespace Pantomet.Core.Marks;

/// <summary>Writes a marks file, <c>"schema": "pantomet-marks/1"</c>; what nobody said has no key.</summary>
public static class MarksWriter
{
    /// <summary>The text of a marks file.</summary>
    /// <param name="marks">Marks by file name.</param>
    public static string Write(IReadOnlyDictionary<string, PictureMarks> marks)
    {
        ArgumentNullException.ThrowIfNull(marks);
        return RuleJson.Text(json =>
        {
            json.WriteStartObject();
            json.WriteString("schema", MarksReader.Schema);
            json.WriteStartObject("pictures");
            foreach (var (file, mark) in marks)
            {
                json.WriteStartObject(file);
                Write(json, mark);
                json.WriteEndObject();
            }

            json.WriteEndObject();
            json.WriteEndObject();
        });
    }

    private static void Write(System.Text.Json.Utf8JsonWriter json, PictureMarks mark)
    {
        void Text(string key, string? text)
        {
            if (text is not null)
            {
                json.WriteString(key, text);
            }
        }

        void Box(Frame box)
        {
            json.WriteStartArray();
            foreach (var edge in (double[])[box.Left, box.Top, box.Right, box.Bottom])
            {
                json.WriteNumberValue(edge);
            }

            json.WriteEndArray();
        }

        Text("name", mark.Name);
        Text("alt", mark.Alternative);
        Text("title", mark.Title);
        if (mark.Focus is { } focus)
        {
            json.WriteStartArray("focus");
            json.WriteNumberValue(focus.X);
            json.WriteNumberValue(focus.Y);
            json.WriteEndArray();
        }

        if (mark.Keep.Count > 0)
        {
            json.WriteStartArray("keep");
            foreach (var box in mark.Keep)
            {
                Box(box);
            }

            json.WriteEndArray();
        }

        if (mark.Framings.Count > 0)
        {
            json.WriteStartObject("framings");
            foreach (var (place, box) in mark.Framings)
            {
                json.WritePropertyName(place);
                Box(box);
            }

            json.WriteEndObject();
        }
    }
}

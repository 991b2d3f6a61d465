using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Unicode;

namespace Pantomet.Core.Rules.Keys;

/// <summary>JSON as all rules are written: indented, in UTF-8, letters of all languages as they are.</summary>
internal static class RuleJson
{
    private static readonly JsonWriterOptions Options = new() { Indented = true, Encoder = JavaScriptEncoder.Create(UnicodeRanges.All) };

    public static string Text(Action<Utf8JsonWriter> write)
    {
        using var stream = new MemoryStream();
        using (var json = new Utf8JsonWriter(stream, Options))
        {
            write(json);
        }

        return Encoding.UTF8.GetString(stream.ToArray());
    }

    public static JsonElement Element(Action<Utf8JsonWriter> write)
    {
        using var json = JsonDocument.Parse(Text(write));
        return json.RootElement.Clone();
    }
}

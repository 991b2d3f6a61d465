using System.Buffers;
using System.Text.Json;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.Recipes;

/// <summary>Recipes as canonical JSON. Hashes are taken over these bytes: a change of what is written here wants a new version.</summary>
internal static class RecipeJson
{
    public static byte[] Write(Recipe recipe, bool withVersion)
    {
        var buffer = new ArrayBufferWriter<byte>(1024);
        using (var json = new Utf8JsonWriter(buffer, new() { SkipValidation = true }))
        {
            json.WriteStartObject();
            if (withVersion)
            {
                json.WriteNumber("version", recipe.Version);
            }

            json.WriteStartArray("parts");
            foreach (var part in recipe.Parts)
            {
                Write(json, part);
            }

            json.WriteEndArray();
            Write(json, "size", recipe.Size);
            if (recipe.Content != recipe.Size)
            {
                Write(json, "content", recipe.Content);
            }

            if (recipe.MayShrink)
            {
                json.WriteBoolean("mayShrink", true);
            }

            if (recipe.Format is { } format)
            {
                json.WriteString("format", format.Word());
            }

            if (recipe.Quality is { } quality)
            {
                json.WriteNumber("quality", quality);
            }

            Write(json, "axes", recipe.Axes);
            if (recipe.Layers.Count > 0)
            {
                json.WriteStartArray("layers");
                foreach (var layer in recipe.Layers)
                {
                    json.WriteStartObject();
                    json.WriteString("kind", layer.Kind);
                    Write(json, "values", layer.Values);
                    json.WriteEndObject();
                }

                json.WriteEndArray();
            }

            json.WritePropertyName("rule");
            json.WriteRawValue(recipe.Rule, skipInputValidation: true);
            json.WriteEndObject();
        }

        return buffer.WrittenSpan.ToArray();
    }

    public static Recipe Read(string text)
    {
        using var document = JsonDocument.Parse(text);
        var root = document.RootElement;
        var size = Size(root.GetProperty("size"));
        return new()
        {
            Version = root.GetProperty("version").GetInt32(),
            Parts = [.. root.GetProperty("parts").EnumerateArray().Select(Part)],
            Size = size,
            Content = root.TryGetProperty("content", out var content) ? Size(content) : size,
            MayShrink = root.TryGetProperty("mayShrink", out var may) && may.GetBoolean(),
            Format = root.TryGetProperty("format", out var format)
                ? Enum.Parse<PictureFormat>(format.GetString()!, ignoreCase: true)
                : null,
            Quality = root.TryGetProperty("quality", out var quality) ? quality.GetInt32() : null,
            Axes = root.TryGetProperty("axes", out var axes) ? Values(axes) : new Dictionary<string, string>(),
            Layers = root.TryGetProperty("layers", out var layers)
                ?
                [
                    .. layers
                        .EnumerateArray()
                        .Select(layer => new RecipeLayer(
                            layer.GetProperty("kind").GetString()!,
                            layer.TryGetProperty("values", out var values) ? Values(values) : new Dictionary<string, string>()
                        )),
                ]
                : [],
            Rule = root.GetProperty("rule").GetRawText(),
        };
    }

    private static void Write(Utf8JsonWriter json, RecipePart part)
    {
        json.WriteStartObject();
        json.WriteString("content", part.Content);
        if (!part.Turn.IsNone)
        {
            json.WriteString("turn", part.Turn.ToString());
        }

        Write(json, "crop", part.Crop);
        if (part.Place is { } place)
        {
            Write(json, "place", place);
        }

        json.WriteEndObject();
    }

    private static void Write(Utf8JsonWriter json, string name, Crop crop)
    {
        json.WriteStartArray(name);
        json.WriteNumberValue(crop.Left);
        json.WriteNumberValue(crop.Top);
        json.WriteNumberValue(crop.Right);
        json.WriteNumberValue(crop.Bottom);
        json.WriteEndArray();
    }

    private static void Write(Utf8JsonWriter json, string name, PixelSize size)
    {
        json.WriteStartArray(name);
        json.WriteNumberValue(size.Width);
        json.WriteNumberValue(size.Height);
        json.WriteEndArray();
    }

    private static void Write(Utf8JsonWriter json, string name, IReadOnlyDictionary<string, string> values)
    {
        if (values.Count == 0)
        {
            return;
        }

        json.WriteStartObject(name);
        foreach (var (key, value) in values.OrderBy(pair => pair.Key, StringComparer.Ordinal))
        {
            json.WriteString(key, value);
        }

        json.WriteEndObject();
    }

    private static RecipePart Part(JsonElement part) =>
        new(
            part.GetProperty("content").GetString()!,
            part.TryGetProperty("turn", out var text) && Turn.TryParse(text.GetString(), out var turn) ? turn : Turn.None,
            Crop(part.GetProperty("crop")),
            part.TryGetProperty("place", out var place) ? Crop(place) : null
        );

    private static PixelSize Size(JsonElement pair) => new(pair[0].GetInt32(), pair[1].GetInt32());

    private static Crop Crop(JsonElement four) => new(four[0].GetInt32(), four[1].GetInt32(), four[2].GetInt32(), four[3].GetInt32());

    private static Dictionary<string, string> Values(JsonElement all) =>
        all.EnumerateObject().ToDictionary(one => one.Name, one => one.Value.GetString()!);
}

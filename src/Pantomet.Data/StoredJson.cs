using System.Text.Json;
using System.Text.Json.Serialization;

namespace Pantomet.Data;

/// <summary>How values are stored as JSON: members by their names, enumerations by theirs.</summary>
public static class StoredJson
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        AllowOutOfOrderMetadataProperties = true,
    };

    /// <summary>Writes a value.</summary>
    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    /// <summary>Reads a value.</summary>
    /// <exception cref="JsonException">It is none.</exception>
    public static T Read<T>(string text) => JsonSerializer.Deserialize<T>(text, Options) ?? throw new JsonException("an empty value");
}

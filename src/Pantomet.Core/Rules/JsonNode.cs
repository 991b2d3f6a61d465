using System.Text.Json;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Rules;

/// <summary>What is wrong in a JSON file, and where.</summary>
/// <param name="Path">The place, such as <c>$.destinations[0].slots[2].size.ratio</c>.</param>
/// <param name="Message">A sentence without its full stop.</param>
public sealed record JsonFault(string Path, string Message)
{
    /// <inheritdoc/>
    public override string ToString() => $"{Path}: {Message}";
}

/// <summary>A fault on its way out of a nested reading; never leaves this namespace.</summary>
internal sealed class JsonFaultException(JsonFault fault) : Exception(fault.ToString())
{
    public JsonFault Fault { get; } = fault;
}

/// <summary>A JSON value that knows its path, so that every error can name its place.</summary>
internal readonly struct JsonNode(JsonElement element, string path)
{
    public string Path => path;

    public JsonValueKind Kind => element.ValueKind;

    /// <summary>Parses a whole file; comments and trailing commas are errors, as the format is plain JSON.</summary>
    public static JsonNode Parse(string json)
    {
        try
        {
            return new(JsonDocument.Parse(json, new() { MaxDepth = 32 }).RootElement, "$");
        }
        catch (JsonException fault)
        {
            var place = fault.LineNumber is { } line ? RuleTexts.LineByte(line + 1, fault.BytePositionInLine + 1) : RuleTexts.TheFile;
            throw new JsonFaultException(new("$", RuleTexts.NotValidJSONAt(place)));
        }
    }

    /// <summary>A member that is known to stand there.</summary>
    public JsonNode Inner(string key) => new(element.GetProperty(key), $"{path}.{key}");

    public JsonFaultException Fault(string message) => new(new(path, message));

    /// <summary>The members of an object; an unknown or a repeated key is a fault.</summary>
    public JsonMembers Members(params ReadOnlySpan<string> known) => Members(known, null);

    /// <summary>The same, where one key may stand more than once.</summary>
    public JsonMembers Members(ReadOnlySpan<string> known, string? mayRepeat)
    {
        if (Kind != JsonValueKind.Object)
        {
            throw Fault(RuleTexts.AnObjectIsNeededHereNot(Words(Kind)));
        }

        var members = new Dictionary<string, JsonNode>(StringComparer.Ordinal);
        var repeated = new List<JsonNode>();
        foreach (var property in element.EnumerateObject())
        {
            var at = $"{path}.{property.Name}";
            if (!known.Contains(property.Name))
            {
                throw new JsonFaultException(new(at, RuleTexts.UnknownKeyKnownHereAre(property.Name, string.Join(", ", known.ToArray()))));
            }

            if (property.Name == mayRepeat)
            {
                repeated.Add(new(property.Value, at));
            }
            else if (!members.TryAdd(property.Name, new(property.Value, at)))
            {
                throw new JsonFaultException(new(at, RuleTexts.TheKeyIsGivenTwice(property.Name)));
            }
        }

        return new(members, repeated, path);
    }

    /// <summary>Every member of an object whose keys are free.</summary>
    public IEnumerable<KeyValuePair<string, JsonNode>> FreeMembers()
    {
        if (Kind != JsonValueKind.Object)
        {
            throw Fault(RuleTexts.AnObjectIsNeededHereNot(Words(Kind)));
        }

        var at = path;
        return element.EnumerateObject().Select(p => KeyValuePair.Create(p.Name, new JsonNode(p.Value, $"{at}[\"{p.Name}\"]"))).ToList();
    }

    public IReadOnlyList<JsonNode> Items(int least = 0)
    {
        if (Kind != JsonValueKind.Array)
        {
            throw Fault(RuleTexts.AListIsNeededHereNot(Words(Kind)));
        }

        var items = new List<JsonNode>();
        foreach (var item in element.EnumerateArray())
        {
            items.Add(new(item, $"{path}[{items.Count}]"));
        }

        return items.Count >= least
            ? items
            : throw Fault(RuleTexts.AtLeastNeededHere(least, (least == 1 ? RuleTexts.EntryIs : RuleTexts.EntriesAre)));
    }

    public string Text() => Kind == JsonValueKind.String ? element.GetString()! : throw Fault(RuleTexts.ATextIsNeededHereNot(Words(Kind)));

    public decimal Number() =>
        Kind != JsonValueKind.Number ? throw Fault(RuleTexts.ANumberIsNeededHereNot(Words(Kind)))
        : element.TryGetDecimal(out var value) ? value
        : throw Fault(RuleTexts.TheNumberIsOutOfRange);

    public double Fraction()
    {
        var value = Number();
        return value is >= 0 and <= 1 ? (double)value : throw Fault(RuleTexts.AFractionFromToIsNeeded(value));
    }

    public long Whole(long least, long most, string what)
    {
        var value = Number();
        return value == decimal.Truncate(value) && value >= least && value <= most
            ? (long)value
            : throw Fault(RuleTexts.MustBeAWholeNumberFrom(what, least, most, value));
    }

    public bool Flag() =>
        Kind switch
        {
            JsonValueKind.True => true,
            JsonValueKind.False => false,
            _ => throw Fault(RuleTexts.TrueOrFalseIsNeededHere(Words(Kind))),
        };

    /// <summary>One of a few words.</summary>
    public T Choice<T>(IReadOnlyDictionary<string, T> words)
    {
        var word = Text();
        return words.TryGetValue(word, out var value) ? value : throw Fault(RuleTexts.IsNotOneOf(word, string.Join(", ", words.Keys)));
    }

    private static string Words(JsonValueKind kind) =>
        kind switch
        {
            JsonValueKind.Object => RuleTexts.AnObject,
            JsonValueKind.Array => "a list",
            JsonValueKind.String => "a text",
            JsonValueKind.Number => "a number",
            JsonValueKind.True or JsonValueKind.False => RuleTexts.TrueOrFalse,
            _ => "null",
        };
}

/// <summary>The members of one object.</summary>
internal readonly struct JsonMembers(Dictionary<string, JsonNode> members, IReadOnlyList<JsonNode> repeated, string path)
{
    /// <summary>Every value of the key that may stand more than once, in order.</summary>
    public IReadOnlyList<JsonNode> Repeated => repeated;

    public JsonNode Needed(string key) =>
        members.TryGetValue(key, out var node) ? node : throw new JsonFaultException(new(path, RuleTexts.TheKeyIsMissing(key)));

    public bool Has(string key) => members.ContainsKey(key);

    /// <summary>A member, or null where it does not stand there.</summary>
    public JsonNode? Find(string key) => members.TryGetValue(key, out var node) ? node : null;

    public IEnumerable<string> Keys => members.Keys;

    /// <summary>Reads a member if it stands there.</summary>
    public T? Maybe<T>(string key, Func<JsonNode, T> read) => members.TryGetValue(key, out var node) ? read(node) : default;

    /// <summary>Reads a member if it stands there, else takes what is usual.</summary>
    public T Or<T>(string key, T usual, Func<JsonNode, T> read) => members.TryGetValue(key, out var node) ? read(node) : usual;

    public T? MaybeValue<T>(string key, Func<JsonNode, T> read)
        where T : struct => members.TryGetValue(key, out var node) ? read(node) : null;
}

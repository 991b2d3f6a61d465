using System.Text.Json;

namespace Pantomet.Core.Rules.Keys;

/// <summary>One key of a rule as other programs see it: what may stand there, and what holds where nothing does.</summary>
/// <param name="Key">The key in a rules file.</param>
/// <param name="Kind">What its value is: <c>text</c>, <c>number</c>, <c>flag</c>, <c>choice</c>, <c>weight</c>, <c>colour</c>, <c>list</c> or <c>object</c>.</param>
/// <param name="About">What it decides, as a sentence.</param>
public sealed record RuleKeyDescription(string Key, string Kind, string About)
{
    /// <summary>True where the key must be given.</summary>
    public bool? Needed { get; init; }

    /// <summary>What holds where the key is not given, as it would be written; null where nothing does.</summary>
    public JsonElement? Default { get; init; }

    /// <summary>True where the writer writes the value also when it is the default.</summary>
    public bool? Always { get; init; }

    /// <summary>The key beside which alone this one has a meaning; null where it has one alone.</summary>
    public string? With { get; init; }

    /// <summary>The least number that is accepted; null where there is none.</summary>
    public double? Least { get; init; }

    /// <summary>The greatest number that is accepted; null where there is none.</summary>
    public double? Most { get; init; }

    /// <summary>The words that are accepted; null where the value is no choice.</summary>
    public IReadOnlyList<string>? Choices { get; init; }

    /// <summary>The keys of the object that stands here; null where it is none.</summary>
    public IReadOnlyList<RuleKeyDescription>? Keys { get; init; }
}

/// <summary>One key of a rule: how it is read into the rule, written from it and described.</summary>
/// <typeparam name="TRule">The rule that has the key.</typeparam>
internal abstract class RuleKey<TRule>(string key, string about)
{
    public string Key => key;

    /// <summary>What the key decides, as a sentence.</summary>
    protected string About => about;

    /// <summary>True where the key must be given.</summary>
    public bool Needed { get; init; }

    /// <summary>True where the value is written also when it is the default.</summary>
    public bool Always { get; init; }

    /// <summary>Says where the key has no meaning and is not written; null where it always has one.</summary>
    public Func<TRule, bool>? Unless { get; init; }

    /// <summary>The key beside which alone this one has a meaning; null where it has one alone.</summary>
    public string? With { get; init; }

    /// <summary>The rule with the value that stands at the key.</summary>
    public abstract TRule Read(TRule rule, JsonNode node);

    /// <summary>Writes the key where its value is not the usual one.</summary>
    public abstract void Write(Utf8JsonWriter json, TRule rule, TRule usual);

    public abstract RuleKeyDescription Describe(TRule usual);
}

/// <summary>A key whose value has one form.</summary>
internal sealed class RuleKey<TRule, T>(string key, ValueForm<T> form, Func<TRule, T?> get, Func<TRule, T, TRule> set, string about)
    : RuleKey<TRule>(key, about)
{
    public override TRule Read(TRule rule, JsonNode node) => set(rule, form.Read(node));

    public override void Write(Utf8JsonWriter json, TRule rule, TRule usual)
    {
        if (
            get(rule) is { } value
            && Unless?.Invoke(rule) != true
            && (Always || Needed || get(usual) is not { } other || !form.Same(value, other))
        )
        {
            json.WritePropertyName(Key);
            form.Write(json, value);
        }
    }

    public override RuleKeyDescription Describe(TRule usual) =>
        new(Key, form.Kind, About)
        {
            Needed = Needed ? true : null,
            Always = Always ? true : null,
            With = With,
            Default = !Needed && get(usual) is { } value ? RuleJson.Element(json => form.Write(json, value)) : null,
            Least = form.Least,
            Most = form.Most,
            Choices = form.Choices,
            Keys = form.Keys?.Invoke(),
        };
}

/// <summary>Makes the keys of one rule.</summary>
internal static class RuleKeys<TRule>
{
    /// <summary>A key whose value is known as such where it is missing.</summary>
    public static RuleKey<TRule> Of<T>(
        string key,
        ValueForm<T> form,
        Func<TRule, T?> get,
        Func<TRule, T, TRule> set,
        string about,
        bool needed = false,
        bool always = false,
        Func<TRule, bool>? unless = null,
        string? with = null
    ) =>
        new RuleKey<TRule, T>(key, form, get, set, about)
        {
            Needed = needed,
            Always = always,
            Unless = unless,
            With = with,
        };

    /// <summary>The same for a number, a colour or another value type that may be missing.</summary>
    public static RuleKey<TRule> Maybe<T>(string key, ValueForm<T> form, Func<TRule, T?> get, Func<TRule, T, TRule> set, string about)
        where T : struct =>
        new RuleKey<TRule, T?>(
            key,
            form.As<T?>(value => value, value => value!.Value),
            get,
            (rule, value) => set(rule, value!.Value),
            about
        );
}

/// <summary>The keys of one object of a rules file, in the order in which they are written. Reader, writer and description come from it.</summary>
/// <param name="usual">The rule where no key is given; it holds the defaults.</param>
/// <param name="keys">The keys.</param>
internal sealed class RuleTable<TRule>(TRule usual, params IReadOnlyList<RuleKey<TRule>> keys)
{
    private readonly string[] _names = [.. keys.Select(key => key.Key)];

    /// <summary>The form of an object with these keys.</summary>
    /// <param name="check">Faults where keys that are right alone are wrong together, or adds what follows from them.</param>
    public ValueForm<TRule> Form(Func<TRule, JsonNode, JsonMembers, TRule>? check = null) =>
        new(
            "object",
            node =>
            {
                var (rule, members) = Read(node);
                return check is null ? rule : check(rule, node, members);
            },
            (json, rule) =>
            {
                json.WriteStartObject();
                Write(json, rule);
                json.WriteEndObject();
            }
        )
        {
            Keys = Describe,
        };

    /// <summary>Reads the object.</summary>
    /// <param name="node">The object.</param>
    /// <param name="mayRepeat">A key that may stand more than once; it is left to the caller.</param>
    public (TRule Rule, JsonMembers Members) Read(JsonNode node, string? mayRepeat = null)
    {
        var members = node.Members(_names, mayRepeat);
        var rule = usual;
        foreach (var key in keys)
        {
            if (key.Needed)
            {
                rule = key.Read(rule, members.Needed(key.Key));
            }
            else if (members.Find(key.Key) is { } value)
            {
                rule = key.Read(rule, value);
            }
        }

        return (rule, members);
    }

    /// <summary>Writes the members into an object that is open.</summary>
    public void Write(Utf8JsonWriter json, TRule rule)
    {
        foreach (var key in keys)
        {
            key.Write(json, rule, usual);
        }
    }

    /// <summary>The keys as other programs see them.</summary>
    public IReadOnlyList<RuleKeyDescription> Describe() => [.. keys.Select(key => key.Describe(usual))];
}

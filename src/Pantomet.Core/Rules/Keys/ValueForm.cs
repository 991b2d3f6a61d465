using System.Text.Json;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;
using Pantomet.Core.Weight;

namespace Pantomet.Core.Rules.Keys;

/// <summary>How one kind of value stands in a rules file.</summary>
/// <param name="Kind">Its kind, as <see cref="RuleKeyDescription.Kind"/> names it.</param>
/// <param name="Read">Reads it, with its range; faults name their place.</param>
/// <param name="Write">Writes it.</param>
internal sealed record ValueForm<T>(string Kind, Func<JsonNode, T> Read, Action<Utf8JsonWriter, T> Write)
{
    public double? Least { get; init; }

    public double? Most { get; init; }

    public IReadOnlyList<string>? Choices { get; init; }

    public Func<IReadOnlyList<RuleKeyDescription>>? Keys { get; init; }

    /// <summary>Tells whether two values are written alike.</summary>
    public Func<T, T, bool> Same { get; init; } = EqualityComparer<T>.Default.Equals;

    /// <summary>The same for a value that may be missing.</summary>
    public ValueForm<TMaybe> As<TMaybe>(Func<T, TMaybe> wrap, Func<TMaybe, T> unwrap) =>
        new(Kind, node => wrap(Read(node)), (json, value) => Write(json, unwrap(value)))
        {
            Least = Least,
            Most = Most,
            Choices = Choices,
            Keys = Keys,
        };

    /// <summary>A list of them, at least one, as <paramref name="listed"/> makes it.</summary>
    public ValueForm<IReadOnlyList<T>> List(Func<IReadOnlyList<JsonNode>, IReadOnlyList<T>>? listed = null) =>
        new(
            "list",
            node => listed is null ? [.. node.Items(1).Select(Read)] : listed(node.Items(1)),
            (json, all) =>
            {
                json.WriteStartArray();
                foreach (var one in all)
                {
                    Write(json, one);
                }

                json.WriteEndArray();
            }
        )
        {
            Least = Least,
            Most = Most,
            Choices = Choices,
            Same = (some, others) => some.SequenceEqual(others),
        };
}

/// <summary>The forms that several keys share.</summary>
internal static class Forms
{
    public static readonly ValueForm<bool> Flag = new("flag", node => node.Flag(), (json, value) => json.WriteBooleanValue(value));

    public static readonly ValueForm<double> Fraction = Number(0, 1, node => node.Fraction());

    public static readonly ValueForm<ByteCount> Weight = new(
        "weight",
        ReadWeight,
        (json, value) => json.WriteNumberValue((double)value.Bytes)
    )
    {
        Least = 1,
    };

    public static readonly ValueForm<Rgb> Colour = new(
        "colour",
        node => Rgb.TryParse(node.Text(), out var colour) ? colour : throw node.Fault(RuleTexts.IsNotAColourWriteIt(node.Text())),
        (json, value) => json.WriteStringValue(value.ToString())
    );

    public static readonly ValueForm<Ratio> Ratio = new(
        "text",
        SizeReader.RatioOf,
        (json, value) => json.WriteStringValue(value.ToString())
    );

    public static readonly ValueForm<int> Pixels = Whole(1, Rounding.LongestSide, RuleTexts.ASideInPixels);

    /// <summary>A number that a rule checks itself.</summary>
    public static ValueForm<double> Number(double least, double most, Func<JsonNode, double> read) =>
        new("number", read, (json, value) => json.WriteNumberValue(value)) { Least = least, Most = most };

    /// <summary>A number within a range, both ends in it.</summary>
    public static ValueForm<double> Number(double least, double most, Func<decimal, string> fault) =>
        Number(
            least,
            most,
            node => (double)node.Number() is var value && value >= least && value <= most ? value : throw node.Fault(fault(node.Number()))
        );

    /// <summary>A fraction that is not 0.</summary>
    public static ValueForm<double> AboveZero(string fault) =>
        Number(0, 1, node => node.Fraction() is > 0 and var value ? value : throw node.Fault(fault));

    public static ValueForm<int> Whole(int least, int most, string what) =>
        new("number", node => (int)node.Whole(least, most, what), (json, value) => json.WriteNumberValue((double)value))
        {
            Least = least,
            Most = most,
        };

    public static ValueForm<T> Choice<T>(IReadOnlyDictionary<string, T> words)
        where T : notnull =>
        new("choice", node => node.Choice(words), (json, value) => json.WriteStringValue(words.First(word => word.Value.Equals(value)).Key))
        {
            Choices = [.. words.Keys],
        };

    public static ValueForm<string> Text(Func<JsonNode, string> read) => new("text", read, (json, value) => json.WriteStringValue(value));

    /// <summary>Two values, the first not greater than the second.</summary>
    public static ValueForm<TPair> Pair<T, TPair>(
        ValueForm<T> one,
        Func<T, T, TPair> make,
        Func<TPair, (T, T)> take,
        string notTwo,
        Func<TPair, string?> fault
    ) =>
        new(
            "list",
            node =>
            {
                if (node.Items() is not [var first, var second])
                {
                    throw node.Fault(notTwo);
                }

                var pair = make(one.Read(first), one.Read(second));
                return fault(pair) is { } wrong ? throw node.Fault(wrong) : pair;
            },
            (json, pair) =>
            {
                var (first, second) = take(pair);
                json.WriteStartArray();
                one.Write(json, first);
                one.Write(json, second);
                json.WriteEndArray();
            }
        )
        {
            Least = one.Least,
            Most = one.Most,
        };

    /// <summary>A part of the slot: left, top, right and bottom as fractions.</summary>
    public static ValueForm<Frame> Area(string what) =>
        new(
            "list",
            node =>
                node.Items() is not [var left, var top, var right, var bottom] ? throw node.Fault(RuleTexts.IsAListOfFourFractions(what))
                : Frame.TryCreate(left.Fraction(), top.Fraction(), right.Fraction(), bottom.Fraction(), out var area, out _) ? area
                : throw node.Fault(RuleTexts.NeedsAWidthAndAHeight(what)),
            (json, area) =>
            {
                json.WriteStartArray();
                foreach (var edge in (ReadOnlySpan<double>)[area.Left, area.Top, area.Right, area.Bottom])
                {
                    json.WriteNumberValue(edge);
                }

                json.WriteEndArray();
            }
        )
        {
            Least = 0,
            Most = 1,
        };

    private static ByteCount ReadWeight(JsonNode node)
    {
        string? error;
        ByteCount count;
        var read =
            node.Kind == JsonValueKind.Number
                ? ByteCount.TryCreate(node.Number(), 1, out count, out error)
                : ByteCount.TryParse(node.Text(), out count, out error);
        return read ? count : throw node.Fault(error!);
    }
}

using System.Text.Json;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules.Keys;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Rules;

/// <summary>Reads and writes the <c>size</c> of a slot, whose keys decide together what it is.</summary>
internal static class SizeReader
{
    private static readonly string Known = Listed([.. SizeForms.All.Select(keys => $"{{{string.Join(",", keys)}}}")]);

    private static readonly string[] Keys = [.. SizeForms.All.SelectMany(keys => keys).Distinct()];

    private static readonly Dictionary<string, Side> Sides = new()
    {
        ["width"] = Side.Width,
        ["height"] = Side.Height,
        ["longSide"] = Side.LongSide,
        ["shortSide"] = Side.ShortSide,
    };

    /// <summary>A size as it stands in a slot.</summary>
    public static readonly ValueForm<SizeRule> Form = new(
        "object",
        Read,
        (json, size) =>
        {
            json.WriteStartObject();
            Write(json, size);
            json.WriteEndObject();
        }
    );

    private static SizeRule Read(JsonNode node)
    {
        var members = node.Members(Keys);
        var keys = members.Keys.Order(StringComparer.Ordinal).ToArray();
        return keys switch
        {
            ["height", "width"] => new SizeRule.Exact(new(Pixels(members.Needed("width")), Pixels(members.Needed("height")))),
            ["ratio"] => new SizeRule.ShapeAlone(RatioOf(members.Needed("ratio"))),
            ["within"] => new SizeRule.Within(Box(members.Needed("within"))),
            ["share"] => new SizeRule.Share(Share(members.Needed("share"))),
            ["maxPixels"] => new SizeRule.MaxPixels(members.Needed("maxPixels").Whole(1, 4_000_000_000, "maxPixels")),
            [var one] when Sides.TryGetValue(one, out var side) => new SizeRule.SideAlone(side, Pixels(members.Needed(one))),
            _ when members.Has("ratio") && keys.Length == 2 && Sides.TryGetValue(keys.First(key => key != "ratio"), out var side) =>
                new SizeRule.ShapeWithSide(
                    RatioOf(members.Needed("ratio")),
                    side,
                    Pixels(members.Needed(keys.First(key => key != "ratio")))
                ),
            [] => throw node.Fault(RuleTexts.ASizeIsMissingGiveOne(Known)),
            _ => throw node.Fault(RuleTexts.IsNotASizeGiveOne(string.Join(",", members.Keys), Known)),
        };
    }

    private static void Write(Utf8JsonWriter json, SizeRule size)
    {
        switch (size)
        {
            case SizeRule.Exact exact:
                Box(json, exact.Size);
                break;
            case SizeRule.ShapeWithSide side:
                json.WriteString("ratio", side.Ratio.Text);
                json.WriteNumber(Word(side.Side), side.Pixels);
                break;
            case SizeRule.ShapeAlone alone:
                json.WriteString("ratio", alone.Ratio.Text);
                break;
            case SizeRule.SideAlone side:
                json.WriteNumber(Word(side.Side), side.Pixels);
                break;
            case SizeRule.Within within:
                json.WriteStartObject("within");
                Box(json, within.Box);
                json.WriteEndObject();
                break;
            case SizeRule.Share share:
                json.WriteNumber("share", share.Part);
                break;
            case SizeRule.MaxPixels most:
                json.WriteNumber("maxPixels", most.Most);
                break;
        }
    }

    private static void Box(Utf8JsonWriter json, PixelSize box)
    {
        json.WriteNumber("width", box.Width);
        json.WriteNumber("height", box.Height);
    }

    private static string Word(Side side) => Sides.First(word => word.Value == side).Key;

    private static int Pixels(JsonNode node) => Forms.Pixels.Read(node);

    private static string Listed(IReadOnlyList<string> forms) => $"{string.Join(", ", forms.SkipLast(1))} or {forms[^1]}";

    private static PixelSize Box(JsonNode node)
    {
        var members = node.Members("width", "height");
        return new(Pixels(members.Needed("width")), Pixels(members.Needed("height")));
    }

    private static decimal Share(JsonNode node)
    {
        var value = node.Number();
        return value is > 0 and <= 1 ? value : throw node.Fault(RuleTexts.AShareMustBeGreaterThan(value));
    }

    /// <summary>A ratio, as a text or a number.</summary>
    public static Ratio RatioOf(JsonNode node)
    {
        string? error;
        Ratio ratio;
        var read =
            node.Kind == JsonValueKind.Number
                ? Ratio.TryParse(node.Number().ToString(System.Globalization.CultureInfo.InvariantCulture), out ratio, out error)
                : Ratio.TryParse(node.Text(), out ratio, out error);
        return read ? ratio : throw node.Fault(error!);
    }
}

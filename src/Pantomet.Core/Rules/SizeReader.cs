using System.Text.Json;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Rules;

/// <summary>Reads the <c>size</c> of a slot.</summary>
internal static class SizeReader
{
    private static readonly string Forms = Listed([.. SizeForms.All.Select(keys => $"{{{string.Join(",", keys)}}}")]);

    private static readonly string[] Keys = [.. SizeForms.All.SelectMany(keys => keys).Distinct()];

    private static readonly Dictionary<string, Side> Sides = new()
    {
        ["width"] = Side.Width,
        ["height"] = Side.Height,
        ["longSide"] = Side.LongSide,
        ["shortSide"] = Side.ShortSide,
    };

    public static SizeRule Read(JsonNode node)
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
            [] => throw node.Fault(RuleTexts.ASizeIsMissingGiveOne(Forms)),
            _ => throw node.Fault(RuleTexts.IsNotASizeGiveOne(string.Join(",", members.Keys), Forms)),
        };
    }

    /// <summary>A side in pixels.</summary>
    public static int Pixels(JsonNode node) => (int)node.Whole(1, Rounding.LongestSide, RuleTexts.ASideInPixels);

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

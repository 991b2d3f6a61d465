using Pantomet.Core.Geometry;
using Pantomet.Core.Responsive;
using Pantomet.Core.Texts;
using ResponsiveKey = Pantomet.Core.Rules.Keys.RuleKeys<Pantomet.Core.Responsive.ResponsiveRule>;

namespace Pantomet.Core.Rules.Keys;

/// <summary>The keys of responsive widths, and the form of a media condition.</summary>
internal static class ResponsiveKeys
{
    // No screen is wider; common practice, a value from memory.
    private const int WidestViewport = 20_000;

    private static readonly ValueForm<Density> OneDensity = new(
        "number",
        node =>
            node.Number() is > 0 and <= Density.Most and var value
                ? new(value)
                : throw node.Fault(RuleTexts.ADensityMustBeGreaterThan(Density.Most, node.Number())),
        // Divided so that 2.0 is written as 2.
        (json, value) => json.WriteNumberValue(value.Value / 1.000000000000000000m)
    )
    {
        Least = 0,
        Most = (double)Density.Most,
    };

    /// <summary>A list of densities, each once, ascending.</summary>
    public static readonly ValueForm<IReadOnlyList<Density>> Densities = OneDensity.List(Ascending);

    /// <summary>When a slot of a group is the one that is shown.</summary>
    public static readonly ValueForm<MediaCondition> Media = new(
        "text",
        node =>
            !MediaCondition.TryParse(node.Text(), out var media, out var error) ? throw node.Fault(error!)
            : media!.Holds.IsEmpty ? throw node.Fault(RuleTexts.TheConditionIsNeverTrue)
            : media,
        (json, value) => json.WriteStringValue(value.Text)
    );

    /// <summary>A ladder of widths.</summary>
    public static readonly ValueForm<ResponsiveRule> Form = new RuleTable<ResponsiveRule>(
        new ResponsiveRule { Sizes = null!, Needs = null! },
        ResponsiveKey.Of("sizes", SizesForm, it => it.Sizes, (it, to) => it with { Sizes = to }, RuleKeyTexts.Sizes, needed: true),
        ResponsiveKey.Of(
            "viewports",
            Forms.Pair(
                Forms.Whole(1, WidestViewport, RuleTexts.AViewport),
                (from, to) => (From: from, To: to),
                both => both,
                RuleTexts.ViewportsAreAListOfTwo,
                both => both.From <= both.To ? null : RuleTexts.TheNarrowestViewportIsWiderThan(both.From, both.To)
            ),
            it => (it.From, it.To),
            (it, to) => it with { From = to.From, To = to.To },
            RuleKeyTexts.Viewports,
            always: true
        ),
        ResponsiveKey.Of(
            "densities",
            Densities,
            it => it.Densities,
            (it, to) => it with { Densities = to },
            RuleKeyTexts.ScreenDensities,
            always: true
        ),
        ResponsiveKey.Maybe(
            "files",
            Forms.Whole(1, Ladder.Most, RuleTexts.ANumberOfFiles),
            it => it.Files,
            (it, to) => it with { Files = to, Waste = null },
            RuleKeyTexts.Files
        ),
        ResponsiveKey.Of(
            "waste",
            WasteForm,
            it => it.Waste ?? ResponsiveRule.UsualWaste,
            (it, to) => it with { Waste = to },
            RuleKeyTexts.Waste,
            always: true,
            unless: it => it.Files is not null
        )
    ).Form(Checked);

    private static ValueForm<Sizes> SizesForm =>
        new(
            "text",
            node => Sizes.TryParse(node.Text(), out var sizes, out var error) ? sizes! : throw node.Fault(error!),
            (json, value) => json.WriteStringValue(value.Text)
        );

    private static ValueForm<decimal> WasteForm =>
        new(
            "number",
            node => node.Number() is >= 0 and < 1 and var value ? value : throw node.Fault(RuleTexts.WasteIsAShareOfThe(node.Number())),
            (json, value) => json.WriteNumberValue(value)
        )
        {
            Least = 0,
            Most = 1,
        };

    private static ResponsiveRule Checked(ResponsiveRule rule, JsonNode node, JsonMembers members) =>
        members.Has("waste") && members.Has("files")
            ? throw members.Needed("files").Fault(RuleTexts.GiveWasteOrFilesNotBoth)
            : rule with
            {
                Needs = Needs.Of(rule.Sizes, ViewportRanges.Between(rule.From, rule.To), rule.Densities),
            };

    private static IReadOnlyList<Density> Ascending(IReadOnlyList<JsonNode> items)
    {
        var all = new SortedSet<Density>();
        foreach (var item in items)
        {
            if (!all.Add(OneDensity.Read(item)))
            {
                throw item.Fault(RuleTexts.TheDensityIsListedTwice(item.Number()));
            }
        }

        return [.. all];
    }
}

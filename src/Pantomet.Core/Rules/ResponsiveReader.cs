using Pantomet.Core.Geometry;
using Pantomet.Core.Responsive;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Rules;

/// <summary>Reads <c>responsive</c> and <c>media</c> of a slot.</summary>
internal static class ResponsiveReader
{
    // No screen is wider; common practice, a value from memory.
    private const int WidestViewport = 20_000;

    public static ResponsiveRule Read(JsonNode node)
    {
        var members = node.Members("sizes", "viewports", "densities", "waste", "files");
        if (members.Has("waste") && members.Has("files"))
        {
            throw members.Needed("files").Fault(RuleTexts.GiveWasteOrFilesNotBoth);
        }

        var sizesNode = members.Needed("sizes");
        if (!Sizes.TryParse(sizesNode.Text(), out var sizes, out var error))
        {
            throw sizesNode.Fault(error!);
        }

        var (from, to) = members.Or("viewports", (ResponsiveRule.UsualFrom, ResponsiveRule.UsualTo), Viewports);
        var densities = members.Or<IReadOnlyList<Density>>("densities", ResponsiveRule.UsualDensities, Densities);
        return new()
        {
            Sizes = sizes!,
            From = from,
            To = to,
            Densities = densities,
            Files = members.MaybeValue("files", n => (int)n.Whole(1, Ladder.Most, RuleTexts.ANumberOfFiles)),
            Waste = members.Has("files") ? null : members.Or("waste", ResponsiveRule.UsualWaste, Waste),
            Needs = Needs.Of(sizes!, ViewportRanges.Between(from, to), densities),
        };
    }

    /// <summary>The rule for the viewports at which its slot is shown; faults where nothing can be made by it.</summary>
    /// <param name="rule">The rule.</param>
    /// <param name="shown">Where its slot is shown.</param>
    /// <param name="slot">Where the slot was read.</param>
    public static ResponsiveRule Within(ResponsiveRule rule, ViewportRanges shown, JsonNode slot)
    {
        var node = slot.Inner("responsive");
        var viewports = ViewportRanges.Between(rule.From, rule.To).And(shown);
        if (viewports.IsEmpty)
        {
            throw node.Fault(RuleTexts.TheSlotIsNotShownAt(rule.From, rule.To));
        }

        CheckWidths(rule, viewports, node.Inner("sizes"));
        var within = rule with { Needs = Needs.Of(rule.Sizes, viewports, rule.Densities) };
        var files = within.Files is null ? within.Widths().Count : 0;
        return files <= Ladder.Most ? within : throw node.Fault(RuleTexts.SoLittleWasteNeedsFilesA(Figures.Count(files), Ladder.Most));
    }

    public static MediaCondition Media(JsonNode node)
    {
        if (!MediaCondition.TryParse(node.Text(), out var media, out var error))
        {
            throw node.Fault(error!);
        }

        return media!.Holds.IsEmpty ? throw node.Fault(RuleTexts.TheConditionIsNeverTrue) : media;
    }

    private static (int From, int To) Viewports(JsonNode node)
    {
        if (node.Items() is not [var least, var most])
        {
            throw node.Fault(RuleTexts.ViewportsAreAListOfTwo);
        }

        var (from, to) = ((int)least.Whole(1, WidestViewport, "a viewport"), (int)most.Whole(1, WidestViewport, "a viewport"));
        return from <= to ? (from, to) : throw node.Fault(RuleTexts.TheNarrowestViewportIsWiderThan(from, to));
    }

    /// <summary>A list of densities, each once, ascending.</summary>
    public static List<Density> Densities(JsonNode node)
    {
        var all = new SortedSet<Density>();
        foreach (var item in node.Items(1))
        {
            var value = item.Number();
            if (value <= 0 || value > Density.Most)
            {
                throw item.Fault(RuleTexts.ADensityMustBeGreaterThan(Density.Most, value));
            }

            if (!all.Add(new(value)))
            {
                throw item.Fault(RuleTexts.TheDensityIsListedTwice(value));
            }
        }

        return [.. all];
    }

    private static decimal Waste(JsonNode node)
    {
        var value = node.Number();
        return value is >= 0 and < 1 ? value : throw node.Fault(RuleTexts.WasteIsAShareOfThe(value));
    }

    // A width of nothing, or of more pixels than a file can have, is a mistake in writing.
    private static void CheckWidths(ResponsiveRule rule, ViewportRanges viewports, JsonNode node)
    {
        foreach (var part in rule.Sizes.Parts)
        {
            foreach (var (from, to) in part.Holds.And(viewports).Parts)
            {
                foreach (var viewport in (ReadOnlySpan<int>)[from, to])
                {
                    var width = part.Width.At(viewport);
                    if (width <= 0)
                    {
                        throw node.Fault(RuleTexts.AtAViewportOfPxThe(viewport, Figures.Number(width)));
                    }

                    var needed = width * (double)rule.Densities[^1].Value;
                    if (needed > Rounding.LongestSide)
                    {
                        throw node.Fault(
                            RuleTexts.AtAViewportOfPxAnd(
                                viewport,
                                rule.Densities[^1],
                                Figures.Number(needed, 0),
                                Figures.Count(Rounding.LongestSide)
                            )
                        );
                    }
                }
            }
        }
    }
}

using Pantomet.Core.Geometry;
using Pantomet.Core.Responsive;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Rules;

/// <summary>Holds responsive widths against the viewports at which their slot is shown.</summary>
internal static class ResponsiveCheck
{
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

using Pantomet.Core.Responsive;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Rules;

/// <summary>Puts the slots of one group together: at which viewports each is shown.</summary>
internal static class GroupReader
{
    /// <summary>The slots with their viewports; faults where a group has no last slot, or one that nobody sees.</summary>
    /// <param name="slots">The slots of one destination.</param>
    /// <param name="nodes">Where each was read.</param>
    public static IReadOnlyList<Slot> Grouped(IReadOnlyList<Slot> slots, IReadOnlyList<JsonNode> nodes)
    {
        var grouped = slots.Select((slot, i) => slot.Group is null ? Shown(slot, ViewportRanges.All, nodes[i]) : slot).ToArray();
        foreach (var group in Enumerable.Range(0, slots.Count).Where(i => slots[i].Group is not null).GroupBy(i => slots[i].Group))
        {
            if (slots.Any(slot => string.Equals(slot.Key, group.Key, StringComparison.OrdinalIgnoreCase)))
            {
                throw nodes[group.First()].Fault(RuleTexts.TheGroupHasTheKeyOf(group.Key));
            }

            Group([.. group], slots, nodes, grouped);
        }

        return grouped;
    }

    private static void Group(IReadOnlyList<int> members, IReadOnlyList<Slot> slots, IReadOnlyList<JsonNode> nodes, Slot[] grouped)
    {
        var left = ViewportRanges.All;
        foreach (var i in members)
        {
            var (slot, last) = (slots[i], i == members[^1]);
            if (last != slot.Media is null)
            {
                throw nodes[i].Fault(last ? RuleTexts.TheLastSlotOfTheGroup(slot.Group) : RuleTexts.EachSlotOfTheGroupExcept(slot.Group));
            }

            var shown = left.And(slot.Media?.Holds ?? ViewportRanges.All);
            if (shown.IsEmpty)
            {
                throw nodes[i].Fault(RuleTexts.ThisSlotIsNeverShownThe(slot.Group));
            }

            grouped[i] = Shown(slot, shown, nodes[i]);
            left = left.And(shown.Not());
        }
    }

    /// <summary>The slot as it is shown at some viewports: of a ladder, nothing is needed where another slot is shown.</summary>
    public static Slot Shown(Slot slot, ViewportRanges shown, JsonNode node) =>
        slot with
        {
            ShownAt = shown,
            Responsive = slot.Responsive is { } rule ? ResponsiveCheck.Within(rule, shown, node) : null,
        };
}

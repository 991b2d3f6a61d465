using Pantomet.Core.Framing;
using Pantomet.Core.Naming;
using Pantomet.Core.Responsive;
using Pantomet.Core.Rules.Keys;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Rules;

/// <summary>Reads a rules file, <c>"schema": "pantomet-rules/1"</c>.</summary>
public static class RulesReader
{
    /// <summary>The schema that is read and written.</summary>
    public const string Schema = "pantomet-rules/1";

    /// <summary>Every key of a slot, in the order in which it is written: kind, default, range and a sentence.</summary>
    public static IReadOnlyList<RuleKeyDescription> SlotKeys => Keys.SlotKeys.Table.Describe();

    /// <summary>Reads the text of a rules file.</summary>
    /// <param name="json">The text.</param>
    /// <param name="book">The rules, when there is no fault.</param>
    /// <param name="fault">What is wrong and where.</param>
    public static bool TryRead(string json, out RuleBook? book, out JsonFault? fault)
    {
        (book, fault) = (null, null);
        try
        {
            book = Book(JsonNode.Parse(json));
            return true;
        }
        catch (JsonFaultException wrong)
        {
            fault = wrong.Fault;
            return false;
        }
    }

    /// <summary>Faults unless the schema is the expected one.</summary>
    internal static void CheckSchema(JsonNode node, string expected)
    {
        if (node.Text() is var schema && schema != expected)
        {
            throw node.Fault(RuleTexts.TheSchemaMustBeNot(expected, schema));
        }
    }

    private static RuleBook Book(JsonNode root)
    {
        var members = root.Members("schema", "destinations", "dressings");
        CheckSchema(members.Needed("schema"), Schema);
        var keys = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        return new([.. members.Needed("destinations").Items(1).Select(node => Destination(node, keys))])
        {
            Dressings = members.Maybe("dressings", DressReader.Named) ?? [],
        };
    }

    private static Destination Destination(JsonNode node, HashSet<string> keys)
    {
        var members = node.Members("key", "name", "slots");
        var key = Keys.SlotKeys.KeyOf(members.Needed("key"));
        Unique(members.Needed("key"), key, keys, "destinations");
        var slotKeys = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var nodes = members.Needed("slots").Items(1);
        List<Slot> slots = [.. nodes.Select(slot => Slot(slot, slotKeys))];
        return new(key, members.Or("name", key, Keys.SlotKeys.NameOf), GroupReader.Grouped(slots, nodes));
    }

    /// <summary>Reads one slot on its own, as it stands in a rules file; how it stands in its group is not looked at.</summary>
    /// <param name="json">The text of the slot.</param>
    /// <param name="slot">The slot, when there is no fault.</param>
    /// <param name="fault">What is wrong and where, from the slot on.</param>
    public static bool TryReadSlot(string json, out Slot? slot, out JsonFault? fault)
    {
        (slot, fault) = (null, null);
        try
        {
            var node = JsonNode.Parse(json);
            var read = Slot(node, []);
            slot = GroupReader.Shown(read, read.Media?.Holds ?? ViewportRanges.All, node);
            return true;
        }
        catch (JsonFaultException wrong)
        {
            fault = wrong.Fault;
            return false;
        }
    }

    private static Slot Slot(JsonNode node, HashSet<string> keys)
    {
        var (slot, members) = Keys.SlotKeys.Table.Read(node, mayRepeat: "name");
        Unique(members.Needed("key"), slot.Key, keys, RuleTexts.SlotsOfOneDestination);
        var (name, pattern) = Names(members.Repeated, slot.Key);
        slot = slot with { Name = name, NamePattern = pattern };
        return Whole(slot, members);
    }

    // What is wrong only together with other keys of the slot.
    private static Slot Whole(Slot slot, JsonMembers members)
    {
        (string Key, string Fault)? wrong =
            slot.Responsive is not null && members.Has("densities") ? ("densities", RuleTexts.AResponsiveSlotHasItsDensities)
            : slot.Media is not null && slot.Group is null ? ("media", RuleTexts.AMediaConditionNeedsAGroup)
            : slot.ShownAs.Count > 0 && slot.FrameShape is null ? ("shownAs", RuleTexts.ShowAsNeedsASlotWithA)
            : slot.Extend && slot.FrameShape is null ? ("extend", RuleTexts.ExtendNeedsASlotWithA)
            : slot.Pair is not null && (slot.SetWidth is null || slot.Fit != Fit.Crop) ? ("pair", RuleTexts.CombinedPicturesNeedASlotWith)
            : null;
        return wrong is { } found ? throw members.Needed(found.Key).Fault(found.Fault)
            : slot.Dress.Title is not null && slot.SetWidth is null
                ? throw members.Needed("dress").Inner("title").Fault(RuleTexts.ATitleNeedsASlotWith)
            : slot.Common is null ? throw members.Needed("shownAs").Fault(RuleTexts.NoPartOfTheClearArea)
            : slot;
    }

    // The format has two meanings for one key: a name for people ("Listing photo") and the pattern of file names
    // ("{picture}-{slot}"). A slot may carry either or both; the one with tokens is the pattern.
    private static (string Name, NamePattern Pattern) Names(IReadOnlyList<JsonNode> nodes, string key)
    {
        string? name = null;
        NamePattern? pattern = null;
        foreach (var node in nodes)
        {
            if (!node.Text().Contains('{', StringComparison.Ordinal))
            {
                name = name is null ? Keys.SlotKeys.NameOf(node) : throw node.Fault(RuleTexts.TheSlotsNameIsGivenTwice);
            }
            else if (pattern is not null)
            {
                throw node.Fault(RuleTexts.ThePatternOfFileNamesIs);
            }
            else if (!NamePattern.TryParse(node.Text(), out pattern, out var error))
            {
                throw node.Fault(error!);
            }
        }

        return (name ?? key, pattern ?? NamePattern.Usual);
    }

    private static void Unique(JsonNode node, string key, HashSet<string> taken, string among)
    {
        if (!taken.Add(key))
        {
            throw node.Fault(RuleTexts.TheKeyIsUsedTwiceAmong(key, among));
        }
    }
}

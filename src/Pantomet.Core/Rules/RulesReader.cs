using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Naming;
using Pantomet.Core.Responsive;
using Pantomet.Core.Texts;
using Pantomet.Core.Weight;

namespace Pantomet.Core.Rules;

/// <summary>Reads a rules file, <c>"schema": "pantomet-rules/1"</c>.</summary>
public static class RulesReader
{
    /// <summary>The schema that is read and written.</summary>
    public const string Schema = "pantomet-rules/1";

    private static readonly Dictionary<string, Fit> Fits = new()
    {
        ["crop"] = Fit.Crop,
        ["whole"] = Fit.Whole,
        ["mat"] = Fit.Mat,
    };

    private static readonly Dictionary<string, WhenTooSmall> TooSmall = new()
    {
        ["cap"] = WhenTooSmall.Cap,
        ["skip"] = WhenTooSmall.Skip,
        ["break"] = WhenTooSmall.Break,
    };

    private static readonly Dictionary<string, Sharpening> Sharpenings = new()
    {
        ["off"] = Sharpening.Off,
        ["mild"] = Sharpening.Mild,
        ["firm"] = Sharpening.Firm,
    };

    private static readonly Dictionary<string, SlotType> Types = PictureFormats
        .Written.Select(format => new SlotType(format))
        .Append(SlotType.Auto)
        .ToDictionary(type => type.ToString());

    private static readonly Dictionary<string, ProfileRule> Profiles = new() { ["srgb"] = ProfileRule.Srgb, ["keep"] = ProfileRule.Keep };

    private static readonly Dictionary<string, MetadataRule> Metadatas = new()
    {
        ["drop"] = MetadataRule.Drop,
        ["copyright"] = MetadataRule.Copyright,
        ["keep"] = MetadataRule.Keep,
    };

    private static readonly Dictionary<string, bool> Frames = new() { ["first"] = false, ["all"] = true };

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
        var key = Key(members.Needed("key"), keys, "destinations");
        var slotKeys = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var nodes = members.Needed("slots").Items(1);
        List<Slot> slots = [.. nodes.Select(slot => Slot(slot, slotKeys))];
        return new(key, members.Or("name", key, Name), GroupReader.Grouped(slots, nodes));
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
        var members = node.Members(
            [
                "key",
                "name",
                "size",
                "fit",
                "densities",
                "responsive",
                "group",
                "media",
                "inline",
                "first",
                "types",
                "each",
                "limits",
                "aims",
                "clear",
                "shownAs",
                "subjectShare",
                "toward",
                "extend",
                "pair",
                "whenTooSmall",
                "background",
                "sharpen",
                "profile",
                "metadata",
                "location",
                "ppi",
                "frames",
                "dress",
            ],
            mayRepeat: "name"
        );
        var key = Key(members.Needed("key"), keys, RuleTexts.SlotsOfOneDestination);
        var (name, pattern) = Names(members.Repeated, key);
        var slot = new Slot
        {
            Key = key,
            Name = name,
            NamePattern = pattern,
            Size = SizeReader.Read(members.Needed("size")),
            Fit = members.Or("fit", Fit.Crop, n => n.Choice(Fits)),
            Densities = members.Or<IReadOnlyList<Density>>("densities", [Density.One], ResponsiveReader.Densities),
            Responsive = members.Maybe("responsive", ResponsiveReader.Read),
            Group = members.Maybe("group", n => Key(n, [], "groups")),
            Media = members.Maybe("media", ResponsiveReader.Media),
            Inline = members.MaybeValue("inline", Weight),
            First = members.Or("first", false, n => n.Flag()),
            Toward = members.MaybeValue("toward", Toward),
            Extend = members.Or("extend", false, n => n.Flag()),
            Types = members.Or<IReadOnlyList<SlotType>>("types", [new(PictureFormat.Jpeg)], TypeList),
            Each = members.Or("each", false, n => n.Flag()),
            Limits = members.Or("limits", Limits.None, LimitsOf),
            Aims = members.Or("aims", Rules.Aims.None, AimsOf),
            Clear = members.Or("clear", Frame.Whole, ClearArea),
            ShownAs = members.Or<IReadOnlyList<Ratio>>("shownAs", [], n => [.. n.Items(1).Select(SizeReader.RatioOf)]),
            SubjectShare = members.MaybeValue("subjectShare", SubjectShare),
            WhenTooSmall = members.Or("whenTooSmall", WhenTooSmall.Cap, n => n.Choice(TooSmall)),
            Background = members.Maybe("background", BackgroundOf),
            Ppi = members.MaybeValue("ppi", Ppi),
            Sharpen = members.Or("sharpen", Sharpening.Mild, n => n.Choice(Sharpenings)),
            Profile = members.Or("profile", ProfileRule.Srgb, n => n.Choice(Profiles)),
            Metadata = members.Or("metadata", MetadataRule.Drop, n => n.Choice(Metadatas)),
            Location = members.Or("location", false, n => n.Flag()),
            AllFrames = members.Or("frames", false, n => n.Choice(Frames)),
            Pair = members.Maybe("pair", DressReader.PairOf),
            Dress = members.Or("dress", Dressing.Dress.None, DressReader.Read),
        };
        if (slot.Responsive is not null && members.Has("densities"))
        {
            throw members.Needed("densities").Fault(RuleTexts.AResponsiveSlotHasItsDensities);
        }

        if (slot.Media is not null && slot.Group is null)
        {
            throw members.Needed("media").Fault(RuleTexts.AMediaConditionNeedsAGroup);
        }

        if (slot.ShownAs.Count > 0 && slot.FrameShape is null)
        {
            throw members.Needed("shownAs").Fault(RuleTexts.ShowAsNeedsASlotWithA);
        }

        if (slot.Extend && slot.FrameShape is null)
        {
            throw members.Needed("extend").Fault(RuleTexts.ExtendNeedsASlotWithA);
        }

        if (slot.Pair is not null && (slot.SetWidth is null || slot.Fit != Fit.Crop))
        {
            throw members.Needed("pair").Fault(RuleTexts.CombinedPicturesNeedASlotWith);
        }

        if (slot.Dress.Title is not null && slot.SetWidth is null)
        {
            throw members.Needed("dress").Inner("title").Fault(RuleTexts.ATitleNeedsASlotWith);
        }

        return slot.Common is null ? throw members.Needed("shownAs").Fault(RuleTexts.NoPartOfTheClearArea) : slot;
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
                name = name is null ? Name(node) : throw node.Fault(RuleTexts.TheSlotsNameIsGivenTwice);
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

    private static string Name(JsonNode node)
    {
        var name = node.Text().Trim();
        return name.Length is > 0 and <= 100 && !name.Any(char.IsControl) ? name : throw node.Fault(RuleTexts.ANameHasToCharactersAnd);
    }

    // A key becomes a folder or a part of a file name and of an address.
    private static string Key(JsonNode node, HashSet<string> taken, string among)
    {
        var key = node.Text();
        if (
            key.Length is 0 or > 60
            || !char.IsAsciiLetterOrDigit(key[0])
            || key[^1] == '.'
            || key.Contains("..", StringComparison.Ordinal)
            || !key.All(letter => char.IsAsciiLetterOrDigit(letter) || letter is '-' or '_' or '.')
        )
        {
            throw node.Fault(RuleTexts.IsNotAKeyAKey(key));
        }

        return taken.Add(key) ? key : throw node.Fault(RuleTexts.TheKeyIsUsedTwiceAmong(key, among));
    }

    private static FocusPoint Toward(JsonNode node) =>
        node.Items() is [var x, var y] ? new(x.Fraction(), y.Fraction()) : throw node.Fault(RuleTexts.TowardIsAListOfTwo);

    private static List<SlotType> TypeList(JsonNode node)
    {
        var all = new List<SlotType>();
        foreach (var item in node.Items(1))
        {
            var type = item.Choice(Types);
            if (all.Contains(type))
            {
                throw item.Fault(RuleTexts.TheTypeIsListedTwice(item.Text()));
            }

            all.Add(type);
        }

        return all;
    }

    private static Limits LimitsOf(JsonNode node)
    {
        var members = node.Members("maxBytes", "maxWidth", "maxHeight", "minWidth", "minHeight");
        var limits = new Limits
        {
            MaxBytes = members.MaybeValue("maxBytes", Weight),
            MaxWidth = members.MaybeValue("maxWidth", SizeReader.Pixels),
            MaxHeight = members.MaybeValue("maxHeight", SizeReader.Pixels),
            MinWidth = members.MaybeValue("minWidth", SizeReader.Pixels),
            MinHeight = members.MaybeValue("minHeight", SizeReader.Pixels),
        };
        if (limits.MinWidth > limits.MaxWidth)
        {
            throw members.Needed("minWidth").Fault(RuleTexts.MinWidthIsGreaterThanMaxWidth(limits.MinWidth, limits.MaxWidth));
        }

        return limits.MinHeight > limits.MaxHeight
            ? throw members.Needed("minHeight").Fault(RuleTexts.MinHeightIsGreaterThanMaxHeight(limits.MinHeight, limits.MaxHeight))
            : limits;
    }

    private static ByteCount Weight(JsonNode node)
    {
        string? error;
        ByteCount count;
        var read =
            node.Kind == System.Text.Json.JsonValueKind.Number
                ? ByteCount.TryCreate(node.Number(), 1, out count, out error)
                : ByteCount.TryParse(node.Text(), out count, out error);
        return read ? count : throw node.Fault(error!);
    }

    private static Aims AimsOf(JsonNode node)
    {
        var members = node.Members("bytes", "quality", "likeness", "belowFloor");
        return new()
        {
            Band = members.MaybeValue("bytes", Band),
            Quality = members.MaybeValue("quality", Qualities),
            Likeness = members.MaybeValue("likeness", n => n.Fraction()),
            BelowFloor = members.Or("belowFloor", false, n => n.Flag()),
        };
    }

    private static WeightBand Band(JsonNode node)
    {
        if (node.Items() is not [var least, var most])
        {
            throw node.Fault(RuleTexts.TheWeightAimIsAList);
        }

        var band = new WeightBand(Weight(least), Weight(most));
        return band.Least.Bytes <= band.Most.Bytes ? band : throw node.Fault(RuleTexts.TheLowestWeightIsGreaterThan(band.Least, band.Most));
    }

    private static QualityRange Qualities(JsonNode node)
    {
        if (node.Items() is not [var least, var most])
        {
            throw node.Fault(RuleTexts.TheQualityAimIsAList);
        }

        var (floor, ceiling) = ((int)least.Whole(1, 100, "a quality"), (int)most.Whole(1, 100, "a quality"));
        return floor <= ceiling ? new(floor, ceiling) : throw node.Fault(RuleTexts.TheLowestQualityIsGreaterThan(floor, ceiling));
    }

    private static Frame ClearArea(JsonNode node) => DressReader.Area(node, RuleTexts.AClearArea);

    private static double SubjectShare(JsonNode node) =>
        node.Fraction() is > 0 and var share ? share : throw node.Fault(RuleTexts.ASubjectShareMustBeGreater);

    private static Background BackgroundOf(JsonNode node)
    {
        var text = node.Text();
        if (text == "edge")
        {
            return Background.Edge;
        }

        return Rgb.TryParse(text, out var colour) ? new(colour) : throw node.Fault(RuleTexts.IsNotABackgroundWriteA(text));
    }

    private static double Ppi(JsonNode node)
    {
        var value = node.Number();
        return value is >= 1 and <= 10_000 ? (double)value : throw node.Fault(RuleTexts.AResolutionTagMustBeFrom(value));
    }
}

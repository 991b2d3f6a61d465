using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Naming;
using Pantomet.Core.Texts;
using Pantomet.Core.Weight;
using AimKey = Pantomet.Core.Rules.Keys.RuleKeys<Pantomet.Core.Rules.Aims>;
using LimitKey = Pantomet.Core.Rules.Keys.RuleKeys<Pantomet.Core.Rules.Limits>;
using SlotKey = Pantomet.Core.Rules.Keys.RuleKeys<Pantomet.Core.Rules.Slot>;

namespace Pantomet.Core.Rules.Keys;

/// <summary>The keys of a slot, of its limits and of its aims.</summary>
internal static class SlotKeys
{
    private static readonly ValueForm<SlotType> Type = Forms.Choice(
        PictureFormats.Written.Select(format => new SlotType(format)).Append(SlotType.Auto).ToDictionary(type => type.ToString())
    );

    private static readonly RuleTable<Limits> LimitTable = new(
        Limits.None,
        LimitKey.Maybe("maxBytes", Forms.Weight, it => it.MaxBytes, (it, to) => it with { MaxBytes = to }, RuleKeyTexts.MaxBytes),
        LimitKey.Maybe("maxWidth", Forms.Pixels, it => it.MaxWidth, (it, to) => it with { MaxWidth = to }, RuleKeyTexts.MaxWidth),
        LimitKey.Maybe("maxHeight", Forms.Pixels, it => it.MaxHeight, (it, to) => it with { MaxHeight = to }, RuleKeyTexts.MaxHeight),
        LimitKey.Maybe("minWidth", Forms.Pixels, it => it.MinWidth, (it, to) => it with { MinWidth = to }, RuleKeyTexts.MinWidth),
        LimitKey.Maybe("minHeight", Forms.Pixels, it => it.MinHeight, (it, to) => it with { MinHeight = to }, RuleKeyTexts.MinHeight)
    );

    private static readonly RuleTable<Aims> AimTable = new(
        Aims.None,
        AimKey.Maybe(
            "bytes",
            Forms.Pair(
                Forms.Weight,
                (least, most) => new WeightBand(least, most),
                band => (band.Least, band.Most),
                RuleTexts.TheWeightAimIsAList,
                band => band.Least.Bytes <= band.Most.Bytes ? null : RuleTexts.TheLowestWeightIsGreaterThan(band.Least, band.Most)
            ),
            it => it.Band,
            (it, to) => it with { Band = to },
            RuleKeyTexts.AimBytes
        ),
        AimKey.Maybe(
            "quality",
            Forms.Pair(
                Forms.Whole(1, 100, RuleTexts.AQuality),
                (floor, ceiling) => new QualityRange(floor, ceiling),
                range => (range.Floor, range.Ceiling),
                RuleTexts.TheQualityAimIsAList,
                range => range.Floor <= range.Ceiling ? null : RuleTexts.TheLowestQualityIsGreaterThan(range.Floor, range.Ceiling)
            ),
            it => it.Quality,
            (it, to) => it with { Quality = to },
            RuleKeyTexts.AimQuality
        ),
        AimKey.Maybe("likeness", Forms.Fraction, it => it.Likeness, (it, to) => it with { Likeness = to }, RuleKeyTexts.AimLikeness),
        AimKey.Of("belowFloor", Forms.Flag, it => it.BelowFloor, (it, to) => it with { BelowFloor = to }, RuleKeyTexts.BelowFloor)
    );

    /// <summary>All keys of a slot. Its pattern of file names, which shares a key with its name, is read and written beside it.</summary>
    public static readonly RuleTable<Slot> Table = new(
        new Slot
        {
            Key = "",
            Name = "",
            Size = new SizeRule.ShapeAlone(default),
        },
        SlotKey.Of("key", Forms.Text(KeyOf), it => it.Key, (it, to) => it with { Key = to }, RuleKeyTexts.Key, needed: true),
        SlotKey.Of(
            "name",
            Forms.Text(NameOf),
            it => it.Name == it.Key ? null : it.Name,
            (it, to) => it with { Name = to },
            RuleKeyTexts.Name
        ),
        SlotKey.Of("size", SizeReader.Form, it => it.Size, (it, to) => it with { Size = to }, RuleKeyTexts.Size, needed: true),
        SlotKey.Of("fit", Forms.Choice(Fits), it => it.Fit, (it, to) => it with { Fit = to }, RuleKeyTexts.Fit),
        SlotKey.Of(
            "densities",
            ResponsiveKeys.Densities,
            it => it.Densities,
            (it, to) => it with { Densities = to },
            RuleKeyTexts.Densities,
            unless: it => it.Responsive is not null
        ),
        SlotKey.Of(
            "responsive",
            ResponsiveKeys.Form,
            it => it.Responsive,
            (it, to) => it with { Responsive = to },
            RuleKeyTexts.Responsive
        ),
        SlotKey.Of("group", Forms.Text(KeyOf), it => it.Group, (it, to) => it with { Group = to }, RuleKeyTexts.Group),
        SlotKey.Of("media", ResponsiveKeys.Media, it => it.Media, (it, to) => it with { Media = to }, RuleKeyTexts.Media),
        SlotKey.Maybe("inline", Forms.Weight, it => it.Inline, (it, to) => it with { Inline = to }, RuleKeyTexts.Inline),
        SlotKey.Of("first", Forms.Flag, it => it.First, (it, to) => it with { First = to }, RuleKeyTexts.First),
        SlotKey.Of("extend", Forms.Flag, it => it.Extend, (it, to) => it with { Extend = to }, RuleKeyTexts.Extend),
        SlotKey.Of("types", Type.List(Types), it => it.Types, (it, to) => it with { Types = to }, RuleKeyTexts.Types),
        SlotKey.Of("each", Forms.Flag, it => it.Each, (it, to) => it with { Each = to }, RuleKeyTexts.Each),
        SlotKey.Of("limits", LimitTable.Form(Checked), it => it.Limits, (it, to) => it with { Limits = to }, RuleKeyTexts.Limits),
        SlotKey.Of("aims", AimTable.Form(), it => it.Aims, (it, to) => it with { Aims = to }, RuleKeyTexts.Aims),
        SlotKey.Of("clear", Forms.Area(RuleTexts.AClearArea), it => it.Clear, (it, to) => it with { Clear = to }, RuleKeyTexts.Clear),
        SlotKey.Of("shownAs", Forms.Ratio.List(), it => it.ShownAs, (it, to) => it with { ShownAs = to }, RuleKeyTexts.ShownAs),
        SlotKey.Maybe(
            "subjectShare",
            Forms.AboveZero(RuleTexts.ASubjectShareMustBeGreater),
            it => it.SubjectShare,
            (it, to) => it with { SubjectShare = to },
            RuleKeyTexts.SubjectShare
        ),
        SlotKey.Maybe(
            "toward",
            Forms.Pair(Forms.Fraction, (x, y) => new FocusPoint(x, y), at => (at.X, at.Y), RuleTexts.TowardIsAListOfTwo, _ => null),
            it => it.Toward,
            (it, to) => it with { Toward = to },
            RuleKeyTexts.Toward
        ),
        SlotKey.Of(
            "whenTooSmall",
            Forms.Choice(TooSmall),
            it => it.WhenTooSmall,
            (it, to) => it with { WhenTooSmall = to },
            RuleKeyTexts.TooSmall
        ),
        SlotKey.Of("background", BackgroundForm, it => it.Background, (it, to) => it with { Background = to }, RuleKeyTexts.Background),
        SlotKey.Of("sharpen", Forms.Choice(Sharpenings), it => it.Sharpen, (it, to) => it with { Sharpen = to }, RuleKeyTexts.Sharpen),
        SlotKey.Of("profile", Forms.Choice(Profiles), it => it.Profile, (it, to) => it with { Profile = to }, RuleKeyTexts.Profile),
        SlotKey.Of("metadata", Forms.Choice(Metadatas), it => it.Metadata, (it, to) => it with { Metadata = to }, RuleKeyTexts.Metadata),
        SlotKey.Of("location", Forms.Flag, it => it.Location, (it, to) => it with { Location = to }, RuleKeyTexts.Location),
        SlotKey.Maybe(
            "ppi",
            Forms.Number(1, 10_000, value => RuleTexts.AResolutionTagMustBeFrom(value)),
            it => it.Ppi,
            (it, to) => it with { Ppi = to },
            RuleKeyTexts.Ppi
        ),
        SlotKey.Of("frames", Forms.Choice(Frames), it => it.AllFrames, (it, to) => it with { AllFrames = to }, RuleKeyTexts.Frames),
        SlotKey.Of("pair", DressKeys.Pair, it => it.Pair, (it, to) => it with { Pair = to }, RuleKeyTexts.Pair),
        SlotKey.Of("dress", DressKeys.Form, it => it.Dress, (it, to) => it with { Dress = to }, RuleKeyTexts.Dress)
    );

    private static Dictionary<string, Fit> Fits =>
        new()
        {
            ["crop"] = Fit.Crop,
            ["whole"] = Fit.Whole,
            ["mat"] = Fit.Mat,
        };

    private static Dictionary<string, WhenTooSmall> TooSmall =>
        new()
        {
            ["cap"] = WhenTooSmall.Cap,
            ["skip"] = WhenTooSmall.Skip,
            ["break"] = WhenTooSmall.Break,
        };

    private static Dictionary<string, Sharpening> Sharpenings =>
        new()
        {
            ["off"] = Sharpening.Off,
            ["mild"] = Sharpening.Mild,
            ["firm"] = Sharpening.Firm,
        };

    private static Dictionary<string, ProfileRule> Profiles => new() { ["srgb"] = ProfileRule.Srgb, ["keep"] = ProfileRule.Keep };

    private static Dictionary<string, MetadataRule> Metadatas =>
        new()
        {
            ["drop"] = MetadataRule.Drop,
            ["copyright"] = MetadataRule.Copyright,
            ["keep"] = MetadataRule.Keep,
        };

    private static Dictionary<string, bool> Frames => new() { ["first"] = false, ["all"] = true };

    private static ValueForm<Background> BackgroundForm =>
        new(
            "colour",
            node =>
                node.Text() == "edge" ? Background.Edge
                : Rgb.TryParse(node.Text(), out var colour) ? new(colour)
                : throw node.Fault(RuleTexts.IsNotABackgroundWriteA(node.Text())),
            (json, value) => json.WriteStringValue(value.Colour is { } colour ? colour.ToString() : "edge")
        );

    /// <summary>A key becomes a folder or a part of a file name and of an address.</summary>
    public static string KeyOf(JsonNode node)
    {
        var key = node.Text();
        var right =
            key.Length is > 0 and <= 60
            && char.IsAsciiLetterOrDigit(key[0])
            && key[^1] != '.'
            && !key.Contains("..", StringComparison.Ordinal)
            && key.All(letter => char.IsAsciiLetterOrDigit(letter) || letter is '-' or '_' or '.');
        return right ? key : throw node.Fault(RuleTexts.IsNotAKeyAKey(key));
    }

    /// <summary>A name for people.</summary>
    public static string NameOf(JsonNode node)
    {
        var name = node.Text().Trim();
        return name.Length is > 0 and <= 100 && !name.Any(char.IsControl) ? name : throw node.Fault(RuleTexts.ANameHasToCharactersAnd);
    }

    private static IReadOnlyList<SlotType> Types(IReadOnlyList<JsonNode> items)
    {
        var all = new List<SlotType>();
        foreach (var item in items)
        {
            var type = Type.Read(item);
            if (all.Contains(type))
            {
                throw item.Fault(RuleTexts.TheTypeIsListedTwice(item.Text()));
            }

            all.Add(type);
        }

        return all;
    }

    private static Limits Checked(Limits limits, JsonNode node, JsonMembers members) =>
        limits.MinWidth > limits.MaxWidth
            ? throw members.Needed("minWidth").Fault(RuleTexts.MinWidthIsGreaterThanMaxWidth(limits.MinWidth, limits.MaxWidth))
        : limits.MinHeight > limits.MaxHeight
            ? throw members.Needed("minHeight").Fault(RuleTexts.MinHeightIsGreaterThanMaxHeight(limits.MinHeight, limits.MaxHeight))
        : limits;
}

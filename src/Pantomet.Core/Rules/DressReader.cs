using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.Rules;

/// <summary>Reads what a slot puts over its pictures.</summary>
public static class DressReader
{
    private static readonly Dictionary<string, FadeReach> Reaches = new() { ["all"] = FadeReach.All, ["side"] = FadeReach.Side };

    private static readonly Dictionary<string, TextAlign> Aligns = new()
    {
        ["left"] = TextAlign.Left,
        ["centre"] = TextAlign.Centre,
        ["center"] = TextAlign.Centre,
        ["right"] = TextAlign.Right,
    };

    private static readonly Dictionary<string, Corner> Corners = new()
    {
        ["bottom-right"] = Corner.BottomRight,
        ["bottom-left"] = Corner.BottomLeft,
        ["top-right"] = Corner.TopRight,
        ["top-left"] = Corner.TopLeft,
    };

    /// <summary>Reads a dress on its own, as it stands in a slot.</summary>
    /// <param name="json">The text.</param>
    /// <param name="dress">The dress, when there is no fault.</param>
    /// <param name="text">The same as it is written here, when there is no fault.</param>
    /// <param name="fault">What is wrong and where.</param>
    public static bool TryRead(string json, out Dress? dress, out string? text, out string? fault)
    {
        (dress, text, fault) = (null, null, null);
        try
        {
            dress = Read(JsonNode.Parse(json));
            text = RulesWriter.Write(dress);
            return true;
        }
        catch (JsonFaultException wrong)
        {
            fault = wrong.Fault.ToString();
            return false;
        }
    }

    /// <summary>A dress that was read before.</summary>
    /// <exception cref="InvalidDataException">It is none.</exception>
    internal static Dress Stored(string json)
    {
        try
        {
            return Read(JsonNode.Parse(json));
        }
        catch (JsonFaultException wrong)
        {
            throw new InvalidDataException($"A stored dress cannot be read: {wrong.Fault}", wrong);
        }
    }

    internal static Dress Read(JsonNode node)
    {
        var members = node.Members("fade", "title", "mark");
        return new()
        {
            Fade = members.Maybe("fade", FadeOf),
            Title = members.Maybe("title", TitleOf),
            Mark = members.Maybe("mark", MarkOf),
        };
    }

    /// <summary>The word for a corner.</summary>
    internal static string Word(Corner corner) => Corners.First(pair => pair.Value == corner).Key;

    /// <summary>Dressings by name.</summary>
    internal static List<NamedDress> Named(JsonNode node)
    {
        List<NamedDress> all = [.. node.FreeMembers().Select(member => new NamedDress(member.Key, Read(member.Value)))];
        return all.Count > RuleBook.MostDressings ? throw node.Fault($"at most {RuleBook.MostDressings} dressings are kept")
            : all.Find(one => one.Name.Trim() != one.Name || one.Name.Length is 0 or > 80 || one.Name.Any(char.IsControl)) is { } odd
                ? throw node.Fault($"a dressing's name has 1 to 80 characters and none that cannot be seen, unlike \"{odd.Name}\"")
            : all;
    }

    /// <summary>Pictures side by side.</summary>
    internal static PairRule PairOf(JsonNode node)
    {
        var members = node.Members("count", "gap", "background");
        return new(
            members.Or("count", 2, n => (int)n.Whole(PairRule.Fewest, PairRule.Most, "how many pictures stand side by side")),
            members.Or(
                "gap",
                0.0,
                n => (double)n.Number() is >= 0 and <= 1000 and var gap ? gap : throw n.Fault("a gap lies between 0 and 1000 CSS px")
            ),
            members.Or("background", Rgb.White, Colour)
        );
    }

    private static MakersMark MarkOf(JsonNode node)
    {
        var members = node.Members("file", "onDark", "at", "share", "margin", "opacity");
        return new()
        {
            File = MarkFile(members.Needed("file")),
            OnDark = members.Maybe("onDark", MarkFile),
            At = members.Or("at", Corner.BottomRight, n => n.Choice(Corners)),
            Share = members.Or("share", 0.12, n => AboveNothing(n, "the share of a mark")),
            Margin = members.Or(
                "margin",
                0.03,
                n => n.Fraction() is <= 0.5 and var margin ? margin : throw n.Fault("the margin of a mark is at most half the slot's width")
            ),
            Opacity = members.Or("opacity", 1, n => AboveNothing(n, "the opacity of a mark")),
        };
    }

    private static double AboveNothing(JsonNode node, string what) =>
        node.Fraction() is > 0 and var value ? value : throw node.Fault($"{what} is greater than 0, at most 1");

    private static string MarkFile(JsonNode node) =>
        SideFile.Fault(node.Text(), SideFile.MarkEndings) is { } fault ? throw node.Fault(fault) : node.Text();

    private static Title TitleOf(JsonNode node)
    {
        var members = node.Members("text", "font", "weight", "size", "ink", "area", "align", "contrast", "fade");
        return new()
        {
            Text = members.Or("text", Title.OwnWords, Words),
            Font = members.Or("font", "Archivo", FontName),
            Weight = members.Or("weight", 600, n => (int)n.Whole(100, 900, "a weight of letters")),
            Size = members.Needed("size").Number() is >= 4 and <= 2000 and var size
                ? (double)size
                : throw members.Needed("size").Fault("the size of letters lies between 4 and 2000 CSS px"),
            Ink = members.Maybe("ink", Ink),
            Area = members.Or("area", Frame.Whole, n => Area(n, "an area")),
            Align = members.Or("align", TextAlign.Left, n => n.Choice(Aligns)),
            Contrast = members.MaybeValue("contrast", Ratio),
            Fade = members.Or("fade", false, n => n.Flag()),
        };
    }

    private static Rgb? Ink(JsonNode node) => node.Text() == "auto" ? null : Colour(node);

    // Lines may be broken by hand; what else cannot be seen has no place in a title.
    private static string Words(JsonNode node)
    {
        var text = node.Text().Replace("\r\n", "\n", StringComparison.Ordinal);
        return text.Trim().Length is 0 or > Title.LongestText
                ? throw node.Fault($"a title has 1 to {Title.LongestText} characters, not {text.Trim().Length}")
            : text.Any(character => char.IsControl(character) && character != '\n')
                ? throw node.Fault("a title has no control characters but line breaks")
            : text;
    }

    private static string FontName(JsonNode node)
    {
        var name = node.Text().Trim();
        if (new Title { Size = 1, Font = name }.HasFontFile)
        {
            return SideFile.Fault(name, SideFile.FontEndings) is { } noFile ? throw node.Fault(noFile) : name;
        }

        return
            name.Length is > 0 and <= 80 && name.All(character => char.IsLetterOrDigit(character) || character is ' ' or '-' or '_' or '.')
            ? name
            : throw node.Fault("the name of a font has 1 to 80 letters, digits, spaces, hyphens, underscores and dots");
    }

    private static Fade FadeOf(JsonNode node)
    {
        var members = node.Members("to", "amount", "ink", "contrast", "area", "reach");
        var fade = new Fade
        {
            To = Colour(members.Needed("to")),
            Amount = members.MaybeValue("amount", n => n.Fraction()),
            Ink = members.MaybeValue("ink", Colour),
            Contrast = members.Or("contrast", Contrast.OfText, Ratio),
            Area = members.Or("area", Frame.Whole, n => Area(n, "an area")),
            Reach = members.Or("reach", FadeReach.All, n => n.Choice(Reaches)),
        };
        if (fade.Amount is null && fade.Ink is null)
        {
            throw node.Fault("a fade has an \"amount\", or an \"ink\" that has to be read over it");
        }

        return fade.Amount is not null && (members.Has("ink") || members.Has("contrast"))
            ? throw node.Fault("a fade by an amount needs no ink and no contrast; one that an ink needs finds its amount")
            : fade;
    }

    internal static Rgb Colour(JsonNode node) =>
        Rgb.TryParse(node.Text(), out var colour)
            ? colour
            : throw node.Fault($"a colour is written like #ffffff, but \"{node.Text()}\" was given");

    internal static double Ratio(JsonNode node)
    {
        var value = node.Number();
        return value is >= 1 and <= 21 ? (double)value : throw node.Fault($"a contrast lies between 1 and 21, not {value}");
    }

    internal static Frame Area(JsonNode node, string what)
    {
        if (node.Items() is not [var left, var top, var right, var bottom])
        {
            throw node.Fault($"{what} is a list of four fractions of the slot: left, top, right, bottom");
        }

        return Frame.TryCreate(left.Fraction(), top.Fraction(), right.Fraction(), bottom.Fraction(), out var area, out _)
            ? area
            : throw node.Fault($"{what} needs a width and a height greater than 0: left before right, top before bottom");
    }
}

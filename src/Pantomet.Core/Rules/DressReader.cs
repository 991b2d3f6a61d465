using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;

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
            throw new InvalidDataException(RuleTexts.AStoredStyleCannotBeRead(wrong.Fault), wrong);
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
        return all.Count > RuleBook.MostDressings ? throw node.Fault(RuleTexts.AtMostSavedStylesAreAllowed(RuleBook.MostDressings))
            : all.Find(one => one.Name.Trim() != one.Name || one.Name.Length is 0 or > 80 || one.Name.Any(char.IsControl)) is { } odd
                ? throw node.Fault(RuleTexts.TheNameOfASavedStyle(odd.Name))
            : all;
    }

    /// <summary>Pictures side by side.</summary>
    internal static PairRule PairOf(JsonNode node)
    {
        var members = node.Members("count", "gap", "background");
        return new(
            members.Or("count", 2, n => (int)n.Whole(PairRule.Fewest, PairRule.Most, RuleTexts.TheNumberOfCombinedPictures)),
            members.Or(
                "gap",
                0.0,
                n => (double)n.Number() is >= 0 and <= 1000 and var gap ? gap : throw n.Fault(RuleTexts.AGapMustBeFromTo)
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
            Share = members.Or("share", 0.12, n => AboveNothing(n, RuleTexts.TheShareOfALogo)),
            Margin = members.Or(
                "margin",
                0.03,
                n => n.Fraction() is <= 0.5 and var margin ? margin : throw n.Fault(RuleTexts.TheMarginOfALogoCan)
            ),
            Opacity = members.Or("opacity", 1, n => AboveNothing(n, RuleTexts.TheOpacityOfALogo)),
        };
    }

    private static double AboveNothing(JsonNode node, string what) =>
        node.Fraction() is > 0 and var value ? value : throw node.Fault(RuleTexts.MustBeGreaterThanAndAt(what));

    private static string MarkFile(JsonNode node) =>
        SideFile.Fault(node.Text(), SideFile.MarkEndings) is { } fault ? throw node.Fault(fault) : node.Text();

    private static Title TitleOf(JsonNode node)
    {
        var members = node.Members("text", "font", "weight", "size", "ink", "area", "align", "contrast", "fade");
        return new()
        {
            Text = members.Or("text", Title.OwnWords, Words),
            Font = members.Or("font", "Archivo", FontName),
            Weight = members.Or("weight", 600, n => (int)n.Whole(100, 900, RuleTexts.AFontWeight)),
            Size = members.Needed("size").Number() is >= 4 and <= 2000 and var size
                ? (double)size
                : throw members.Needed("size").Fault(RuleTexts.TheFontSizeMustBeFrom),
            Ink = members.Maybe("ink", Ink),
            Area = members.Or("area", Frame.Whole, n => Area(n, RuleTexts.AnArea)),
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
                ? throw node.Fault(RuleTexts.ATitleMustHaveToCharacters(Title.LongestText, text.Trim().Length))
            : text.Any(character => char.IsControl(character) && character != '\n')
                ? throw node.Fault(RuleTexts.ATitleCannotHaveControlCharacters)
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
            : throw node.Fault(RuleTexts.TheNameOfAFontHas);
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
            Area = members.Or("area", Frame.Whole, n => Area(n, RuleTexts.AnArea)),
            Reach = members.Or("reach", FadeReach.All, n => n.Choice(Reaches)),
        };
        if (fade.Amount is null && fade.Ink is null)
        {
            throw node.Fault(RuleTexts.AFadeNeedsAnAmountOr);
        }

        return fade.Amount is not null && (members.Has("ink") || members.Has("contrast"))
            ? throw node.Fault(RuleTexts.AFadeWithAnAmountCannot)
            : fade;
    }

    internal static Rgb Colour(JsonNode node) =>
        Rgb.TryParse(node.Text(), out var colour) ? colour : throw node.Fault(RuleTexts.IsNotAColourWriteIt(node.Text()));

    internal static double Ratio(JsonNode node)
    {
        var value = node.Number();
        return value is >= 1 and <= 21 ? (double)value : throw node.Fault(RuleTexts.AContrastMustBeFromTo(value));
    }

    internal static Frame Area(JsonNode node, string what)
    {
        if (node.Items() is not [var left, var top, var right, var bottom])
        {
            throw node.Fault(RuleTexts.IsAListOfFourFractions(what));
        }

        return Frame.TryCreate(left.Fraction(), top.Fraction(), right.Fraction(), bottom.Fraction(), out var area, out _)
            ? area
            : throw node.Fault(RuleTexts.NeedsAWidthAndAHeight(what));
    }
}

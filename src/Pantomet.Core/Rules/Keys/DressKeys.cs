using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;
using DressKey = Pantomet.Core.Rules.Keys.RuleKeys<Pantomet.Core.Dressing.Dress>;
using FadeKey = Pantomet.Core.Rules.Keys.RuleKeys<Pantomet.Core.Dressing.Fade>;
using LogoKey = Pantomet.Core.Rules.Keys.RuleKeys<Pantomet.Core.Dressing.MakersMark>;
using PairKey = Pantomet.Core.Rules.Keys.RuleKeys<Pantomet.Core.Rules.PairRule>;
using TitleKey = Pantomet.Core.Rules.Keys.RuleKeys<Pantomet.Core.Dressing.Title>;

namespace Pantomet.Core.Rules.Keys;

/// <summary>The keys of what a slot draws over its pictures, and of pictures side by side.</summary>
internal static class DressKeys
{
    /// <summary>The corners of a slot, as they are written.</summary>
    public static readonly IReadOnlyDictionary<string, Corner> Corners = new Dictionary<string, Corner>
    {
        ["bottom-right"] = Corner.BottomRight,
        ["bottom-left"] = Corner.BottomLeft,
        ["top-right"] = Corner.TopRight,
        ["top-left"] = Corner.TopLeft,
    };

    private static readonly Dictionary<string, FadeReach> Reaches = new() { ["all"] = FadeReach.All, ["side"] = FadeReach.Side };

    // The first word for a value is the one that is written.
    private static readonly Dictionary<string, TextAlign> Aligns = new()
    {
        ["left"] = TextAlign.Left,
        ["centre"] = TextAlign.Centre,
        ["center"] = TextAlign.Centre,
        ["right"] = TextAlign.Right,
    };

    private static readonly ValueForm<double> Ratio = Forms.Number(1, 21, value => RuleTexts.AContrastMustBeFromTo(value));

    private static readonly RuleTable<Fade> FadeTable = new(
        new Fade { To = Rgb.White },
        FadeKey.Of("to", Forms.Colour, it => it.To, (it, to) => it with { To = to }, RuleKeyTexts.FadeTo, needed: true),
        FadeKey.Maybe("amount", Forms.Fraction, it => it.Amount, (it, to) => it with { Amount = to }, RuleKeyTexts.FadeAmount),
        FadeKey.Maybe("ink", Forms.Colour, it => it.Goal?.Ink, (it, to) => it with { Ink = to }, RuleKeyTexts.FadeInk),
        FadeKey.Of(
            "contrast",
            Ratio,
            it => it.Contrast,
            (it, to) => it with { Contrast = to },
            RuleKeyTexts.FadeContrast,
            always: true,
            unless: it => it.Goal is null,
            with: "ink"
        ),
        FadeKey.Of("area", Forms.Area(RuleTexts.AnArea), it => it.Area, (it, to) => it with { Area = to }, RuleKeyTexts.FadeArea),
        FadeKey.Of("reach", Forms.Choice(Reaches), it => it.Reach, (it, to) => it with { Reach = to }, RuleKeyTexts.FadeReach)
    );

    private static readonly RuleTable<Title> TitleTable = new(
        new Title { Size = 1 },
        TitleKey.Of("text", Forms.Text(Words), it => it.Text, (it, to) => it with { Text = to }, RuleKeyTexts.TitleText, always: true),
        TitleKey.Of("font", Forms.Text(FontName), it => it.Font, (it, to) => it with { Font = to }, RuleKeyTexts.TitleFont, always: true),
        TitleKey.Of(
            "weight",
            Forms.Whole(100, 900, RuleTexts.AFontWeight),
            it => it.Weight,
            (it, to) => it with { Weight = to },
            RuleKeyTexts.TitleWeight,
            always: true
        ),
        TitleKey.Of(
            "size",
            Forms.Number(4, 2000, _ => RuleTexts.TheFontSizeMustBeFrom),
            it => it.Size,
            (it, to) => it with { Size = to },
            RuleKeyTexts.TitleSize,
            needed: true
        ),
        TitleKey.Of("ink", InkForm, it => new(it.Ink), (it, to) => it with { Ink = to.Colour }, RuleKeyTexts.TitleInk, always: true),
        TitleKey.Of("area", Forms.Area(RuleTexts.AnArea), it => it.Area, (it, to) => it with { Area = to }, RuleKeyTexts.TitleArea),
        TitleKey.Of("align", Forms.Choice(Aligns), it => it.Align, (it, to) => it with { Align = to }, RuleKeyTexts.TitleAlign),
        TitleKey.Maybe("contrast", Ratio, it => it.Contrast, (it, to) => it with { Contrast = to }, RuleKeyTexts.TitleContrast),
        TitleKey.Of("fade", Forms.Flag, it => it.Fade, (it, to) => it with { Fade = to }, RuleKeyTexts.TitleFade)
    );

    private static readonly RuleTable<MakersMark> LogoTable = new(
        new MakersMark { File = "" },
        LogoKey.Of("file", Forms.Text(LogoFile), it => it.File, (it, to) => it with { File = to }, RuleKeyTexts.LogoFile, needed: true),
        LogoKey.Of("onDark", Forms.Text(LogoFile), it => it.OnDark, (it, to) => it with { OnDark = to }, RuleKeyTexts.LogoOnDark),
        LogoKey.Of("at", Forms.Choice(Corners), it => it.At, (it, to) => it with { At = to }, RuleKeyTexts.LogoAt, always: true),
        LogoKey.Of(
            "share",
            Forms.AboveZero(RuleTexts.MustBeGreaterThanAndAt(RuleTexts.TheShareOfALogo)),
            it => it.Share,
            (it, to) => it with { Share = to },
            RuleKeyTexts.LogoShare,
            always: true
        ),
        LogoKey.Of(
            "margin",
            Forms.Number(
                0,
                0.5,
                node => node.Fraction() is <= 0.5 and var margin ? margin : throw node.Fault(RuleTexts.TheMarginOfALogoCan)
            ),
            it => it.Margin,
            (it, to) => it with { Margin = to },
            RuleKeyTexts.LogoMargin,
            always: true
        ),
        LogoKey.Of(
            "opacity",
            Forms.AboveZero(RuleTexts.MustBeGreaterThanAndAt(RuleTexts.TheOpacityOfALogo)),
            it => it.Opacity,
            (it, to) => it with { Opacity = to },
            RuleKeyTexts.LogoOpacity,
            always: true
        )
    );

    private static readonly RuleTable<PairRule> PairTable = new(
        new PairRule(PairRule.Fewest, 0, Rgb.White),
        PairKey.Of(
            "count",
            Forms.Whole(PairRule.Fewest, PairRule.Most, RuleTexts.TheNumberOfCombinedPictures),
            it => it.Count,
            (it, to) => it with { Count = to },
            RuleKeyTexts.PairCount,
            always: true
        ),
        PairKey.Of(
            "gap",
            Forms.Number(0, 1000, _ => RuleTexts.AGapMustBeFromTo),
            it => it.Gap,
            (it, to) => it with { Gap = to },
            RuleKeyTexts.PairGap,
            always: true
        ),
        PairKey.Of(
            "background",
            Forms.Colour,
            it => it.Background,
            (it, to) => it with { Background = to },
            RuleKeyTexts.PairBackground,
            always: true
        )
    );

    /// <summary>What is drawn over a picture.</summary>
    public static readonly ValueForm<Dress> Form = new RuleTable<Dress>(
        Dress.None,
        DressKey.Of("fade", FadeTable.Form(Checked), it => it.Fade, (it, to) => it with { Fade = to }, RuleKeyTexts.DressFade),
        DressKey.Of("title", TitleTable.Form(), it => it.Title, (it, to) => it with { Title = to }, RuleKeyTexts.DressTitle),
        DressKey.Of("mark", LogoTable.Form(), it => it.Mark, (it, to) => it with { Mark = to }, RuleKeyTexts.DressLogo)
    ).Form();

    /// <summary>Pictures side by side.</summary>
    public static readonly ValueForm<PairRule> Pair = PairTable.Form();

    private static ValueForm<TextColour> InkForm =>
        new(
            "colour",
            node => new(node.Text() == "auto" ? null : Forms.Colour.Read(node)),
            (json, value) => json.WriteStringValue(value.Colour?.ToString() ?? "auto")
        );

    private static Fade Checked(Fade fade, JsonNode node, JsonMembers members) =>
        fade.Amount is null && fade.Ink is null ? throw node.Fault(RuleTexts.AFadeNeedsAnAmountOr)
        : fade.Amount is not null && (members.Has("ink") || members.Has("contrast")) ? throw node.Fault(RuleTexts.AFadeWithAnAmountCannot)
        : fade;

    private static string LogoFile(JsonNode node) =>
        SideFile.Fault(node.Text(), SideFile.MarkEndings) is { } fault ? throw node.Fault(fault) : node.Text();

    // Lines may be broken by hand; other characters that cannot be seen have no place in a title.
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

    /// <summary>The colour of a title; null is the one that needs least fade.</summary>
    private readonly record struct TextColour(Rgb? Colour);
}

namespace Pantomet.Core.Texts;

/// <summary>The sentences about text and overlay: titles, fades, logos, fonts.</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class OverlayTexts
{
    public static string ThereIsNoFileBesideThe(string name) => $"There is no file \"{name}\" beside the rules.";

    public static string IsTooHeavyForALogo(string name) => $"\"{name}\" is too heavy for a logo or a font.";

    public static string CannotBeOpened(string name) => $"\"{name}\" cannot be opened.";

    public static string CannotBeUsed(string name, string wrong) => $"\"{name}\" cannot be used: {wrong}";

    public static string ALogoCanWeighAtMost(string mostBytes) => $"A logo can weigh at most {mostBytes}.";

    public static string TheFileIsNotWhatIts(string label) => $"The file is {label}, not what its name says.";

    public static string ThereIsNoFont(string font) => $"There is no font \"{font}\".";

    public const string TheFileOfTheLogoNo = "The file of the logo no longer exists.";

    public const string TheFontIsDamagedItsTables = "The font is damaged: its tables point outside of the file.";

    public const string TheFontCannotBeRead = "The font cannot be read.";

    public const string ThisIsNotATTFOr = "This is not a TTF or OTF font.";

    public static string TheFontHasNoTable(string missing) => $"The font has no \"{missing}\" table.";

    public const string TheFontHasNoOutlines = "The font has no outlines.";

    public const string TheFontsUnitsPerEmAre = "The font's units per em are not valid.";

    public const string TheFontHasNoName = "The font has no name.";

    public const string TheFontHasNoListOf = "The font has no list of its characters.";

    public const string TheFontsListOfCharactersIs = "The font's list of characters is damaged.";

    public static string TheDrawingHasAElementA(string localName) =>
        $"The drawing has a <{localName}> element. A logo may not contain scripts: save it again without it.";

    public const string TheDrawingIsDamagedOrIncomplete = "The drawing is damaged or incomplete.";

    public static string TheDrawingHasMoreThanParts(string mostParts) =>
        $"The drawing has more than {mostParts} parts. Simplify it and save it again.";

    public static string TheDrawingLoadsEmbedItsPictures(string address) =>
        $"The drawing loads \"{address}\". Embed its pictures, fonts and styles and save it again.";

    public static string TheDrawingHasAScriptAt(string localName) =>
        $"The drawing has a script at \"{localName}\". A logo may not contain scripts: save it again without it.";

    public const string AtThe = "at the";

    public const string OnThe = "on the";

    public static string InItsEdgesColour(object? colour) => $"in its edge's colour {colour}";

    public const string WithItsBlurredEdgeBecauseThe = "with its blurred edge, because the edge has no single colour";

    public static string ByPx(string pixels, string value, string side, string value2) => $"by {pixels} px {value} {side} {value2}";

    public static string NoCropHoldsTheKeepBox(string told) => $"No crop holds the keep box: the canvas is extended {told}.";

    public static string NoFadeMakesReadableHereThe(object? ink, string reaches, string wanted) =>
        $"No fade makes {ink} readable here: the contrast is at most {reaches}, {wanted} is wanted. Choose another text colour or another fade colour.";

    public static string TheContrastOfIsHereIs(object? ink, string reaches, string wanted) =>
        $"The contrast of {ink} is {reaches} here, {wanted} is wanted. Fade the picture, or choose another text colour.";

    public const string TheTitleDoesNotFitIts =
        "The title does not fit its area in any size and is skipped. Shorten it, or enlarge the area.";

    public static string TheTitleDoesNotFitIts2(string askedSize, string fits) =>
        $"The title does not fit its area at {askedSize} px. It is set at {fits} px, the largest size that fits.";

    public static string TheTitleIsSetInAnother(string missing) => $"{missing} The title is set in another font.";

    public static string TheTitlesFontHasNoAnother(string enumerateRunes) =>
        $"The title's font has no {enumerateRunes}; another font is used for them.";

    public static string TheLogoCoversOfTheKeep(string covers) =>
        $"The logo covers {covers} of the keep box: no corner is free. Use a smaller logo or a wider frame.";
}

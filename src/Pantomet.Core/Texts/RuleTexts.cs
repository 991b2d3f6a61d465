namespace Pantomet.Core.Texts;

/// <summary>The sentences about destinations, slots and the rules of a slot.</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class RuleTexts
{
    public const string GiveASlotAsDestinationSlot = "Give a slot as destination/slot, by their keys.";

    public const string KeyTheKeyOfASlot = "key: the key of a slot cannot be changed, because jobs refer to it.";

    public const string ADestinationsNameMustHaveTo = "A destination's name must have 1 to 100 characters.";

    public static string ThisJobIsStoredInA(string message) =>
        $"This job is stored in a form that cannot be read ({message}). It was not changed.";

    public const string AJobThatCannotBeRead = "A job that cannot be read";

    public const string APartOfItIsMissing = "a part of it is missing";

    public static string CannotBeUsed(string path, string refusal) => $"\"{path}\" cannot be used: {refusal}";

    public static string AnyWidth(string ladder) => $"{ladder}, any width";

    public const string AnyWidth2 = "any width";

    public static string AllPixels(object? ratio) => $"{ratio}, all pixels";

    public static string OfTheFrame(string part) => $"{part} % of the frame";

    public static string AtMostPixels(string most) => $"at most {most} pixels";

    public static string PxWide(string pixels) => $"{pixels} px wide";

    public static string PxHigh(string pixels) => $"{pixels} px high";

    public static string PxOnTheLongestSide(string pixels) => $"{pixels} px on the longest side";

    public static string PxOnTheShortestSide(string pixels) => $"{pixels} px on the shortest side";

    public static string TheStoredRulesCannotBeRead(object? fault) => $"The stored rules cannot be read: {fault}";

    public static string ThereIsNoFile(string name) => $"There is no file \"{name}\".";

    public static string AtMostLogosAndFontsCan(int mostFiles) => $"At most {mostFiles} logos and fonts can be stored. Remove some first.";

    public static string ASizeIsMissingGiveOne(string forms) => $"a size is missing; give one of {forms}";

    public static string IsNotASizeGiveOne(string keys, string forms) => $"{{{keys}}} is not a size; give one of {forms}";

    public const string ASideInPixels = "a side in pixels";

    public static string AShareMustBeGreaterThan(object? value) => $"a share must be greater than 0 and at most 1, not {value}";

    public static string TheGroupHasTheKeyOf(string? key) => $"the group \"{key}\" has the key of a slot; pages could not tell them apart";

    public static string TheLastSlotOfTheGroup(string? group) =>
        $"the last slot of the group \"{group}\" must have no media condition: it is shown where no other slot is";

    public static string EachSlotOfTheGroupExcept(string? group) =>
        $"each slot of the group \"{group}\" except the last needs a media condition; this one has none";

    public static string ThisSlotIsNeverShownThe(string? group) =>
        $"this slot is never shown: the slots before it in the group \"{group}\" cover all viewports of its condition";

    public static string AStoredStyleCannotBeRead(object? fault) => $"A stored style cannot be read: {fault}";

    public static string AtMostSavedStylesAreAllowed(int mostDressings) => $"at most {mostDressings} saved styles are allowed";

    public static string TheNameOfASavedStyle(string name) =>
        $"the name of a saved style has 1 to 80 visible characters, unlike \"{name}\"";

    public const string TheNumberOfCombinedPictures = "the number of combined pictures";

    public const string AGapMustBeFromTo = "a gap must be from 0 to 1000 CSS px";

    public const string TheShareOfALogo = "the share of a logo";

    public const string TheMarginOfALogoCan = "the margin of a logo can be at most half the slot's width";

    public const string TheOpacityOfALogo = "the opacity of a logo";

    public static string MustBeGreaterThanAndAt(string what) => $"{what} must be greater than 0 and at most 1";

    public const string AFontWeight = "a font weight";

    public const string TheFontSizeMustBeFrom = "the font size must be from 4 to 2000 CSS px";

    public const string AnArea = "an area";

    public static string ATitleMustHaveToCharacters(int longestText, int count) =>
        $"a title must have 1 to {longestText} characters, not {count}";

    public const string ATitleCannotHaveControlCharacters = "a title cannot have control characters except line breaks";

    public const string TheNameOfAFontHas = "the name of a font has 1 to 80 letters, digits, spaces, hyphens, underscores and dots";

    public const string AFadeNeedsAnAmountOr = "a fade needs an \"amount\", or an \"ink\" that must be readable over it";

    public const string AFadeWithAnAmountCannot = "a fade with an \"amount\" cannot have \"ink\" or \"contrast\"";

    public static string IsNotAColourWriteIt(string text) => $"\"{text}\" is not a colour; write it like #ffffff";

    public static string AContrastMustBeFromTo(object? value) => $"a contrast must be from 1 to 21, not {value}";

    public static string IsAListOfFourFractions(string what) => $"{what} is a list of four fractions of the slot: left, top, right, bottom";

    public static string NeedsAWidthAndAHeight(string what) =>
        $"{what} needs a width and a height greater than 0: left before right, top before bottom";

    public const string GiveWasteOrFilesNotBoth = "give \"waste\" or \"files\", not both";

    public const string ANumberOfFiles = "a number of files";

    public static string TheSlotIsNotShownAt(int from1, int to) => $"the slot is not shown at any viewport from {from1} to {to} px";

    public static string SoLittleWasteNeedsFilesA(string files, int most) =>
        $"so little waste needs {files} files; a slot can have at most {most}";

    public const string TheConditionIsNeverTrue = "the condition is never true";

    public const string ViewportsAreAListOfTwo = "viewports are a list of two widths in CSS pixels, the narrowest and the widest";

    public static string TheNarrowestViewportIsWiderThan(int from1, int to) =>
        $"the narrowest viewport {from1} is wider than the widest {to}";

    public static string ADensityMustBeGreaterThan(object? most, object? value) =>
        $"a density must be greater than 0 and at most {most}, not {value}";

    public static string TheDensityIsListedTwice(object? value) => $"the density {value} is listed twice";

    public static string WasteIsAShareOfThe(object? value) => $"waste is a share of the pixels, from 0 to less than 1, not {value}";

    public static string AtAViewportOfPxThe(int viewport, string width) =>
        $"at a viewport of {viewport} px the picture would be {width} px wide";

    public static string AtAViewportOfPxAnd(int viewport, object? densities, string needed, string longestSide) =>
        $"at a viewport of {viewport} px and {densities} the file would need {needed} px; a file can have at most {longestSide}";

    public const string TheSlotNoLongerAsksFor = "The slot no longer asks for responsive widths.";

    public const string TheSlotNowAsksForResponsive = "The slot now asks for responsive widths.";

    public static string TheSlotNoLongerAsksFor2(object? density) => $"The slot no longer asks for {density:0.##}x.";

    public static string IsNoLongerAmongTheSlots(string label) => $"{label} is no longer among the slot's types.";

    public static string IsNot(string size, object? shape) => $"{size} is not {shape}.";

    public static string InsteadOf(string size, string asked) => $"{size} instead of {asked}.";

    public static string OverTheLimitOf(string bytes, object? maxBytes) => $"{bytes}, over the limit of {maxBytes}.";

    public static string IsLargerThanTheSlotsMaximum(string size) => $"{size} is larger than the slot's maximum.";

    public static string IsSmallerThanTheSlotsMinimum(string size) => $"{size} is smaller than the slot's minimum.";

    public static string LikenessInsteadOf(string likeness, string aim) => $"Likeness {likeness} instead of {aim}.";

    public static string QualityBelow(object? quality, int floor) => $"Quality {quality}, below {floor}.";

    public static string OverTheWanted(string bytes, object? most) => $"{bytes}, over the {most} wanted.";

    public static string TheSchemaMustBeNot(string expected, string schema) => $"the schema must be \"{expected}\", not \"{schema}\"";

    public const string SlotsOfOneDestination = "slots of one destination";

    public const string AResponsiveSlotHasItsDensities = "a responsive slot has its densities in \"responsive\"; remove \"densities\"";

    public const string AMediaConditionNeedsAGroup = "a media condition needs a group; this slot has none";

    public const string ShowAsNeedsASlotWithA = "\"showAs\" needs a slot with a shape that pictures are cropped to; this slot has none";

    public const string ExtendNeedsASlotWithA = "\"extend\" needs a slot with a shape that pictures are cropped to; this slot has none";

    public const string CombinedPicturesNeedASlotWith = "combined pictures need a slot with a fixed width and \"fit\": \"crop\"";

    public const string ATitleNeedsASlotWith = "a title needs a slot with a fixed width";

    public const string NoPartOfTheClearArea = "no part of the clear area is shown in all of these shapes";

    public const string TheSlotsNameIsGivenTwice = "the slot's name is given twice";

    public const string ThePatternOfFileNamesIs = "the pattern of file names is given twice";

    public const string ANameHasToCharactersAnd = "a name has 1 to 100 characters and no control characters";

    public static string IsNotAKeyAKey(string key) =>
        $"\"{key}\" is not a key; a key has 1 to 60 letters, digits, hyphens, underscores and single dots, and starts with a letter or digit";

    public static string TheKeyIsUsedTwiceAmong(string key, string among) => $"the key \"{key}\" is used twice among the {among}";

    public const string TowardIsAListOfTwo = "\"toward\" is a list of two fractions, horizontal and vertical";

    public static string TheTypeIsListedTwice(string text) => $"the type \"{text}\" is listed twice";

    public static string MinWidthIsGreaterThanMaxWidth(object? minWidth, object? maxWidth) =>
        $"minWidth {minWidth} is greater than maxWidth {maxWidth}";

    public static string MinHeightIsGreaterThanMaxHeight(object? minHeight, object? maxHeight) =>
        $"minHeight {minHeight} is greater than maxHeight {maxHeight}";

    public const string TheWeightAimIsAList = "the weight aim is a list of two weights, lowest and highest";

    public static string TheLowestWeightIsGreaterThan(object? least, object? most) =>
        $"the lowest weight {least} is greater than the highest {most}";

    public const string TheQualityAimIsAList = "the quality aim is a list of two numbers, lowest and highest";

    public static string TheLowestQualityIsGreaterThan(int floor, int ceiling) =>
        $"the lowest quality {floor} is greater than the highest {ceiling}";

    public const string AClearArea = "a clear area";

    public const string ASubjectShareMustBeGreater = "a subject share must be greater than 0 and at most 1";

    public static string IsNotABackgroundWriteA(string text) => $"\"{text}\" is not a background; write a colour like #ffffff, or \"edge\"";

    public static string AResolutionTagMustBeFrom(object? value) => $"a resolution tag must be from 1 to 10000 ppi, not {value}";

    public static string TheNameOfThisFileMust(string endings, string name) =>
        $"the name of this file must end with {endings}, unlike \"{name}\"";

    public static string GiveTheNameOfAFile(int longestName) =>
        $"give the name of a file beside the rules: no folder, at most {longestName} characters, none of / \\ : * ? \" < > |";

    public static string LineByte(long line, object? bytePositionInLine) => $"line {line}, byte {bytePositionInLine}";

    public const string TheFile = "the file";

    public static string NotValidJSONAt(string place) => $"not valid JSON at {place}";

    public static string AnObjectIsNeededHereNot(string kind) => $"an object is needed here, not {kind}";

    public static string UnknownKeyKnownHereAre(string name, string toArray) => $"unknown key \"{name}\"; known here are {toArray}";

    public static string TheKeyIsGivenTwice(string name) => $"the key \"{name}\" is given twice";

    public static string AListIsNeededHereNot(string kind) => $"a list is needed here, not {kind}";

    public const string EntryIs = "entry is";

    public const string EntriesAre = "entries are";

    public static string AtLeastNeededHere(int least, string least2) => $"at least {least} {least2} needed here";

    public static string ATextIsNeededHereNot(string kind) => $"a text is needed here, not {kind}";

    public static string ANumberIsNeededHereNot(string kind) => $"a number is needed here, not {kind}";

    public const string TheNumberIsOutOfRange = "the number is out of range";

    public static string AFractionFromToIsNeeded(object? value) => $"a fraction from 0 to 1 is needed here, not {value}";

    public static string MustBeAWholeNumberFrom(string what, long least, long most, object? value) =>
        $"{what} must be a whole number from {least} to {most}, not {value}";

    public static string TrueOrFalseIsNeededHere(string kind) => $"true or false is needed here, not {kind}";

    public static string IsNotOneOf(string word, string keys) => $"\"{word}\" is not one of {keys}";

    public const string AnObject = "an object";

    public const string TrueOrFalse = "true or false";

    public static string TheKeyIsMissing(string key) => $"the key \"{key}\" is missing";

    public const string ACommaOrTheEndIs = "a comma or the end is needed here";

    public static string IsNotAMediaTypeFor(string word) =>
        $"\"{word}\" is not a media type for screens; write a condition like (min-width: 600px)";

    public const string UseBracketsToCombineAndAnd = "use brackets to combine \"and\" and \"or\"";

    public const string WriteAConditionLikeMinWidth = "write a condition like (min-width: 600px)";

    public static string CannotBeCalculatedOnlyConditionsOn(string word) =>
        $"\"{word}\" cannot be calculated: only conditions on the width of the viewport are supported";

    public const string WidthIsNeeded = "\"width\" is needed";

    public const string BothSignsOfARangeMust = "both signs of a range must point the same way";

    public const string AConditionOnTheViewportCannot = "a condition on the viewport cannot use vw";

    public const string OneOfIsNeeded = "one of < <= = >= > is needed";

    public const string CalcGivesANumberHereA = "calc() gives a number here, a length is needed";

    public static string IsNotASupportedLengthUse(string word) => $"\"{word}\" is not a supported length: use px, em, rem, vw or calc()";

    public const string ALengthNeedsItsUnit = "a length needs its unit";

    public const string IsMissing = "\"(\" is missing";

    public const string AndNeedASpaceOnBoth = "+ and - need a space on both sides";

    public const string ANumberAndALengthCannot = "a number and a length cannot be added";

    public const string ALengthCannotBeMultipliedBy = "a length cannot be multiplied by a length";

    public const string ALengthCannotBeDividedBy = "a length cannot be divided by a length";

    public const string NothingCanBeDividedBy = "nothing can be divided by 0";

    public const string ALengthOrANumberIs = "a length or a number is needed";

    public const string PercentagesAreNotAllowedInSizes = "percentages are not allowed in sizes; use vw, 1 % of the viewport";

    public static string IsNotASupportedUnitUse(string unit) => $"\"{unit}\" is not a supported unit: use px, em, rem or vw";

    public const string AutoIsNotSupportedOnlyThe = "\"auto\" is not supported: only the browser knows its value";

    public const string AWidthWithoutAConditionMust = "a width without a condition must be the last one";

    public const string TheConditionBeforeThisWidthIs = "the condition before this width is never true";

    public const string ThisWidthIsNeverUsedThe = "this width is never used: the conditions before it cover all viewports";

    public const string TheLastWidthMustHaveNo =
        "the last width must have no condition, so that every viewport has a width; add a comma and such a width";

    public static string AtMostWidthsAreAllowed(int mostParts) => $"at most {mostParts} widths are allowed";

    public static string AtMostCharactersAreAllowed(int longest) => $"at most {longest} characters are allowed";

    public static string AtTheEnd(string message) => $"{message}, at the end";

    public static string AtCharacter(string message, string rest, int at) => $"{message}, at \"{rest}\" (character {at})";

    public static string IsMissing2(char character, string after) => $"\"{character}\" is missing {after}";

    public static string AtMostNestedBracketsAreAllowed(int deepest) => $"at most {deepest} nested brackets are allowed";

    public const string ALengthIsNeeded = "a length is needed";

    public const string ThisIsNotANumber = "this is not a number";

    public const string ACommentHasNoEnd = "a comment has no end";

    public const string ANamePatternHasToCharacters = "a name pattern has 1 to 200 characters";

    public static string IsNotATokenTheTokens(string token, string tokens) => $"\"{{{token}\" is not a token; the tokens are {tokens}";

    public const string ANameMustNotHaveA = "a name must not have a path; files are in a folder named after the destination";

    public static string ANameCanHaveLettersDigits(string text) =>
        $"a name can have letters, digits, hyphens, underscores, dots and tokens, not \"{text}\"";

    public const string ANameMustNotStartWith = "a name must not start with a dot or have two dots in a row";

    public const string AQuality = "a quality";

    public const string AViewport = "a viewport";
}

namespace Pantomet.Core.Texts;

/// <summary>The sentences about jobs, their commands, files, bundles, markup and live links.</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class JobTexts
{
    public const string NoFileIsPublishedAtThis = "No file is published at this address.";

    public const string ThisVersionIsNoLongerPublished = "This version is no longer published, or never was.";

    public const string ThisFileCannotBeMade = "This file cannot be made.";

    public static string AWidthMustBeAWhole(int longestSide) => $"A width must be a whole number of pixels from 1 to {longestSide}.";

    public const string Missing = "Missing";

    public const string AllowedAnyway = "Breaks a limit, allowed anyway";

    public const string NoKeywords = "It has only a camera's number for a name. Enter keywords.";

    public const string NoAlternativeText = "It has no alternative text.";

    public static string FilesOnADay(int files, string weight, string day) =>
        $"{files} {(files == 1 ? "file" : "files")}, {weight}, {day}.";

    public static string ThingsAreMissing(int gaps) => $"{gaps} {(gaps == 1 ? "thing is" : "things are")} missing.";

    public static string WeightOfLimit(string weight, string limit) => $"{weight} of {limit}";

    public static string SlotOfDestination(string slot, string destination) => $"{slot}, {destination}";

    public static string PictureInPlace(string picture, string place, string descriptor) => $"{picture} in {place}, {descriptor}";

    public static string VerdictWord(Verdicts.Verdict verdict) =>
        verdict switch
        {
            Verdicts.Verdict.Meets => "Meets",
            Verdicts.Verdict.Concedes => "Concedes",
            Verdicts.Verdict.Breaks => "Breaks a limit",
            _ => "Skipped",
        };

    public const string TheJobHasNoFileTo = "The job has no file to publish.";

    public const string ThisPlaceIsNotInThe = "This place is not in the job.";

    public const string ThisJobIsNotPublished = "This job is not published.";

    public const string TheListOfCellsStartsAt = "The list of cells starts at 0 or more.";

    public static string SendAtMostCommandsAtOnce(int mostCommands) => $"Send at most {mostCommands} commands at once.";

    public static string TheTextMustHaveToCharacters(int longestWord) => $"The text must have 1 to {longestWord} characters.";

    public const string PicturesThatArrive = "pictures that arrive";

    public const string TheFileCouldNotBeMade = "The file could not be made.";

    public const string NoFileIsMadeForThis = "No file is made for this picture in this slot, so there is no text or overlay.";

    public static string ACurveCanHaveAtMost(int mostPoints) =>
        $"A curve can have at most {mostPoints} qualities, each a whole number from 1 to 100.";

    public static string ViewportsMustBeWholeCSSPixels(object? most, int mostScreens) =>
        $"Viewports must be whole CSS pixels from 1, densities greater than 0 and at most {most}, shares 0 or more. At most {mostScreens} screens are allowed at once.";

    public const string ThePictureIsSkippedInThis = "The picture is skipped in this slot.";

    public static string TheSlotDoesNotAskFor(string descriptor) => $"The slot does not ask for {descriptor}.";

    public const string FilesCanBeJpegPngWebp = "Files can be jpeg, png, webp or avif.";

    public const string AQualityMustBeAWhole = "A quality must be a whole number from 1 to 100.";

    public const string ThisFileWasMissingOrDamaged = "This file was missing or damaged and is being remade. Try again in a moment.";

    public static string ViewportsMustBeWholeCSSPixels2(object? most, int mostAsked) =>
        $"Viewports must be whole CSS pixels from 1, densities greater than 0 and at most {most}. At most {mostAsked} pairs are allowed at once.";

    public const string ThisPictureHasNoFileFor = "This picture has no file for this place.";

    public const string PictureHas = "picture has";

    public const string PicturesHave = "pictures have";

    public static string OnlyACamerasNumberForA(int asks, string asks2) =>
        $"{asks} {asks2} only a camera's number for a name. Enter keywords, or number them under the job's name.";

    public const string NoFileIsReadyToBe = "No file is ready to be handed over.";

    public static string ThisSlotCombinesPicturesButLeft(int rule, int chunk, string chunk2) =>
        $"This slot combines {rule} pictures, but {chunk} {chunk2} left.";

    public static string CannotBeReadTheCombinedPicture(string file) =>
        $"{file} cannot be read; the combined picture is not made without it.";

    public static string NoLongerInThisJobAdd(string gone, string gone2) =>
        $"{gone} {gone2} no longer in this job. Add it again, or remove this combined picture.";

    public const string IsTriedAgain = "is tried again";

    public const string IsGivenUp = "is given up";

    public static string PantometTriesAgainByItself(string reason) => $"{reason} Pantomet tries again by itself.";

    public const string TheNewerOriginalHasAnotherShape =
        "The newer original has another shape than the one for which this frame was set. Check the frame, then accept it or set a new one.";

    public static string JobOf(object? getLocalNow) => $"Job of {getLocalNow:d MMMM}";

    public const string NoFileWasMade = "No file was made.";

    public static string TheFileCouldNotBeSaved(string message) => $"The file could not be saved: {message}";

    public const string TheOriginalOfThisPictureIs =
        "The original of this picture is missing or damaged. Add the same file again to repair it.";

    public const string ThePictureCouldNotBeDrawn = "The picture could not be drawn.";

    public static string NoFileWasMadeForThere(string name) => $"No file was made for {name}: there is nothing to show.";

    public static string NoFileWasMadeForThe(string name) => $"No file was made for {name}: the next slot of its group is shown instead.";

    public const string ThePictureHasNoAlternativeText =
        "The picture has no alternative text. Write it, or mark the picture as decorative.";

    public const string TheFileIsNotMadeYet = "The file is not made yet.";

    public const string TheFileWasMissingOrDamaged = "The file was missing or damaged and could not be remade.";

    public const string ThePictureIsListedTwice = "the picture is listed twice";

    public const string ANameHasToCharacters = "a name has 1 to 200 characters";

    public static string ATextCanHaveAtMost(int longestText) =>
        $"a text can have at most {longestText} characters and no control characters";

    public const string AFocusIsAListOf = "a focus is a list of two fractions, horizontal and vertical";

    public static string TheRulesHaveNoSlot(string place) => $"the rules have no slot \"{place}\"";

    public const string ABoxIsAListOf = "a box is a list of four fractions: left, top, right, bottom";

    public static string ABaseURLCanHaveAt(int longest) => $"a base URL can have at most {longest} characters";

    public const string ABaseURLHasNoSpaces = "a base URL has no spaces, quotes, commas, brackets or backslashes";

    public const string ABaseURLHasNoOr = "a base URL has no ? or #: file names are added to its end";

    public const string PathFromThePage = "path from the page";

    public static string APictureCanBeTurnedBy(double mostDegrees) =>
        $"A picture can be turned by 0 to 3 quarter turns and straightened by at most {mostDegrees} degrees.";

    public const string AFocusIsTwoFractionsOf = "A focus is two fractions of the picture, from 0 to 1.";

    public static string APictureCanHaveAtMost(int mostBoxes) => $"A picture can have at most {mostBoxes} keep boxes.";

    public static string KeywordsAndAlternativeTextCanHave(int longestText) =>
        $"Keywords and alternative text can have at most {longestText} characters.";

    public const string KeywordsAndAlternativeTextCannotHave = "Keywords and alternative text cannot have control characters.";

    public static string ATitleCanHaveAtMost(int longestText, int title) =>
        $"A title can have at most {longestText} characters, not {title}.";

    public const string ATitleCannotHaveControlCharacters = "A title cannot have control characters except line breaks.";

    public static string AJobsNameMustHaveTo(int longestName) => $"A job's name must have 1 to {longestName} characters.";

    public static string ThisSlotCombinesPicturesTheseAre(int rule, int count) => $"This slot combines {rule} pictures; these are {count}.";

    public const string ThisSlotTakesASinglePicture = "This slot takes a single picture, not combined ones.";

    public const string TheseCodesOfReasonsAreNot = "These codes of reasons are not known.";

    public const string ThisFileBreaksNoLimitOr = "This file breaks no limit, or no longer exists. Reload the page.";

    public const string AFrameIsSetForA = "A frame is set for a slot or for a shape: one of the two.";

    public static string TheJobHasNoSlotOf(string shape) => $"The job has no slot of the shape {shape}.";

    public const string ThisPictureIsNotInThe = "This picture is not in the job, or no longer.";

    public const string ThisSlotIsNotInThe = "This slot is not in the job, or no longer.";

    public static string AJobCanHaveAtMost(int mostPictures, int pictures) =>
        $"A job can have at most {mostPictures} pictures; this one has {pictures}.";

    public static string TheRulesHaveNoSlot2(string unknown) => $"The rules have no slot \"{unknown}\".";

    public static string AJobCanHaveAtMost2(int mostSlots) => $"A job can have at most {mostSlots} slots.";

    public static string APrefixCanHaveAtMost(int longestPrefix) => $"A prefix can have at most {longestPrefix} characters.";

    public const string ItIsTooLong = "it is too long";

    public static string ThePatternForCannotBeUsed(string destination, string fault) =>
        $"The pattern for {destination} cannot be used: {fault}.";

    public static string AJobCanHaveAtMost3(int mostPatterns) => $"A job can have at most {mostPatterns} patterns.";
}

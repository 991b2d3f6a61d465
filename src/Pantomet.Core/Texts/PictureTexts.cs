namespace Pantomet.Core.Texts;

/// <summary>The sentences about pictures that are added, read and stored.</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class PictureTexts
{
    public static string TheDataFolderCannotBeWritten(string root, string message) =>
        $"The data folder {root} cannot be written to: {message}";

    public static string TheDiskOfTheDataFolder(string root) =>
        $"The disk of the data folder {root} is full. Free some space, then start again.";

    public static string TheDatabaseInTheDataFolder(string root) =>
        $"The database in the data folder {root} cannot be written to: the disk or the file is read-only.";

    public static string TheDatabaseIsDamagedAndWas(string databaseName) =>
        $"The database {databaseName} is damaged and was not changed. Replace it with a backup copy; the originals in the folder beside it are not affected.";

    public static string AnotherProgramUsesTheDatabaseIn(string root) =>
        $"Another program uses the database in the data folder {root}. Close that program, then start again.";

    public static string TheDatabaseInTheDataFolder2(string root, object? message) =>
        $"The database in the data folder {root} cannot be used: {message}";

    public static string TheDatabaseIsButTheFolder(string path, string path2, string databaseName, string root) =>
        $"The database {path} is {path2}, but the folder beside it has originals: the database was lost. Nothing was changed. Put a backup copy of {databaseName} there, then start again. To start with an empty library instead, move the folder {root} away first.";

    public static string TheKeyFileIsDamagedOr(string path) =>
        $"The key file {path} is damaged or cannot be read. Replace it with a backup copy, or move it away; then enter the passwords of the receivers again.";

    public static string TheUpgradeWasTriedAndFailed(string root, string message) =>
        $"The data folder {root} is of an earlier version, and its database cannot be upgraded: {message} Nothing was changed. "
        + "Use the earlier version, and keep the folder as it is.";

    public static string TheDataFolderWasWrittenBy(object? later) =>
        $"The data folder was written by a newer version of Pantomet ({later}). Start that version, or restore an older backup copy.";

    public static string TheDataFolderIsOpenIn(string? path) =>
        $"The data folder {path} is open in another Pantomet. Use that one, or close it first.";

    public const string ThisPictureNeedsMoreMemoryThan =
        "This picture needs more memory than is allowed for one picture. Use a smaller copy.";

    public static string AStoredDecisionOfTheJob(object? name, string message) =>
        $"A stored decision of the job \"{name}\" cannot be read: {message}";

    public const string ThisRequestIsNotKnown = "This request is not known.";

    public const string ThePictureCouldNotBeDecoded = "The picture could not be decoded or encoded.";

    public const string ThePicturesHaveDifferentSizesAnd = "The pictures have different sizes and cannot be compared.";

    public const string ThisFontCannotDrawAnyText = "This font cannot draw any text.";

    public const string OneOfTheCombinedPicturesCould = "One of the combined pictures could not be decoded.";

    public const string ThisPictureCouldNotBeProcessed = "This picture could not be processed. The log has the details.";

    public const string UnnamedProfile = "unnamed profile";

    public const string ThisDrawingTakesMoreThanSeconds =
        "This drawing takes more than 5 seconds to draw. Simplify nested masks, large filters and long dashed lines, or save the drawing as a picture.";

    public static string TheFileIsButItsPicture(string format) =>
        $"The file is {format}, but its picture data is damaged or incomplete. Get the file again.";

    public const string TheFileDoesNotExist = "The file does not exist.";

    public const string TheFileCannotBeOpened = "The file cannot be opened.";

    public static string TheFileLooksLikeButCannot(string format) =>
        $"The file looks like {format} but cannot be read: it is damaged or incomplete.";

    public static string ThePictureHasTheMostThat(string value, string most, string longestSide) =>
        $"The picture has {value}. The most that is read is {most} million pixels, and {longestSide} px on a side.";

    public static string AListStartsAtOrMore(int mostAtOnce, int longestSearch) =>
        $"A list starts at 0 or more and has 1 to {mostAtOnce} pictures; a search text has at most {longestSearch} characters.";

    public static string PreviewsAreOrPxOnThe(int small, int large) => $"Previews are {small} or {large} px on the longest side.";

    public const string ThisTurnIsNotPossible = "This turn is not possible.";

    public const string CombinedPicturesHaveNoOriginalOf = "Combined pictures have no original of their own.";

    public const string ThisPictureCannotBeDrawn = "This picture cannot be drawn.";

    public const string FilesOfThisTypeCannotBe = "Files of this type cannot be made.";

    public const string WriteAColourLikeFfffff = "Write a colour like #ffffff.";

    public static string MostUnwantedTheAmountMustBeFrom(long largestMost) =>
        $"mostUnwanted: the amount must be from 0 to {largestMost} bytes.";

    public static string IsNotThePathOfA(string path) => $"\"{path}\" is not the path of a file in a folder.";

    public static string CanHaveAtMostFiles(string what, int mostFiles) => $"{what} can have at most {mostFiles} files.";

    public static string CanHaveAtMostMB(string what, long mostBytes) => $"{what} can have at most {mostBytes} MB.";

    public static string CannotBeSaved(string path, string message) => $"\"{path}\" cannot be saved: {message}";

    public const string Stopped = "Stopped.";

    public static string FilesCouldNotBeReadOr(string message) => $"Files could not be read or written: {message}";

    public const string TheProcessForThisWorkEnded = "The process for this work ended too early.";

    public const string ThisNeededMoreMemoryThanIs =
        "This needed more memory than is allowed and was stopped. Something in it is too large, perhaps on purpose.";

    public const string OneStepTookLongerThanIs =
        "One step took longer than is allowed and was stopped. Something in it is too large, perhaps on purpose.";

    public static string ThisTookLongerThanMinutesAnd(object? totalMinutes) =>
        $"This took longer than {totalMinutes:0} minutes and was stopped.";

    public const string TheAddressIsInAPrivate = "The address is in a private network, which this server may not reach.";

    public const string TheImagingProcessEndedWhileIt = "The imaging process ended while it processed this picture. It was started again.";

    public const string ThisPictureTookLongerThanIs =
        "This picture took longer than is allowed and was stopped. It may be damaged on purpose.";

    public const string ThisPictureNeededMoreMemoryThan =
        "This picture needed more memory than is allowed and was stopped. It may be damaged on purpose.";

    public const string WhichWasRemovedItCanBe = ", which was removed; it can be restored";

    public static string TheSameFileIsInThe(string name, string value) => $"The same file is in the library already, as {name}{value}.";

    public static string CombineToPicturesSideBySide(int fewest, int most) => $"Combine {fewest} to {most} pictures side by side.";

    public const string APictureCannotBeCombinedWith = "A picture cannot be combined with itself.";

    public const string OneOfThesePicturesIsNo = "One of these pictures is no longer in the job.";

    public const string CombinedPicturesCannotBeCombinedAgain = "Combined pictures cannot be combined again.";

    public const string NoFileCouldBeMadeOf = "No file could be made of this picture.";

    public static string TheFileIsLargerThanThe(string mostUploadBytes) =>
        $"The file is larger than {mostUploadBytes}, the most that can be added here.";

    public const string TheFileCannotBeRead = "The file cannot be read.";

    public const string TheFileHasNoName = "The file has no name.";

    public static string TheFilesNameIsLongerThan(int longestName) => $"The file's name is longer than {longestName} characters.";

    public const string TheFilesNameHasControlCharacters = "The file's name has control characters. Rename the file and try again.";

    public const string TheFilesNameHasAPath = "The file's name has a path. Send the name only.";

    public static string AnEarlierOriginal(object? name) => $"{name} (an earlier original)";

    public const string TheEdgesOfAFrameMust = "the edges of a frame must be fractions of the picture, from 0 to 1";

    public const string AFrameNeedsAWidthAnd = "a frame needs a width and a height greater than 0: left before right, top before bottom";

    public static string IsNotARatioWriteIt(string text) => $"\"{text}\" is not a ratio; write it like 5:4, 1.91:1 or 1.5";

    public const string BothSidesOfARatioMust = "both sides of a ratio must be greater than 0";

    public const string ARatioMustBeBetweenAnd = "a ratio must be between 1:100 and 100:1";

    public const string TheFileIsEmpty = "The file is empty.";

    public const string TheFileIsAVideoOr = "The file is a video or another media file, not a picture.";

    public const string TheFileIsAWebPage = "The file is a web page, not a picture.";

    public const string TheFileIsAPDFDocument = "The file is a PDF document, not a picture.";

    public const string TheFileIsAZIPArchive = "The file is a ZIP archive, not a picture. Unpack it and add the pictures.";

    public const string TheFileIsNotAPicture =
        "The file is not a picture of a known type (JPEG, PNG, WebP, AVIF, GIF, TIFF, SVG, HEIC, BMP, JPEG XL).";

    public static string TheDrawingHasMoreThanLevels(int deepest) =>
        $"The drawing has more than {deepest} levels of nested parts. Flatten its groups and save it again.";

    public const string TheDrawingHasTooMuchText = "The drawing has too much text. Convert its text to outlines and save it again.";

    public const string TheDrawingsXMLEntitiesBecomeToo = "The drawing's XML entities become too large. Save it again without them.";
}

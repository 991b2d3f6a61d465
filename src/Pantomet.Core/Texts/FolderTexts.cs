namespace Pantomet.Core.Texts;

/// <summary>The sentences about folders of pictures and fixed originals.</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class FolderTexts
{
    public static string PicturesCanBeListedBy(string getNames) => $"Pictures can be listed by: {getNames}.";

    public const string AllFilesOfThisFolderWere = "All files of this folder were sent already. Send another folder for more.";

    public const string ATimeMustBeANumber = "A time must be a number of milliseconds since 1970.";

    public const string TheFolderIsBeingOptimisedOr = "The folder is being optimised or restored. Pause it first.";

    public const string TheFolderIsBeingScannedOr = "The folder is being scanned or restored.";

    public const string ThisPreviewDoesNotExist =
        "This preview does not exist. The sides are 480 and 1800 px; the files current, original and previewed.";

    public const string ThisFileIsNoLongerThere = "This file is no longer there. Scan the folder again.";

    public const string ThisFolderIsNotInThe = "This folder is not in the list.";

    public const string NoFolderIsAllowedStartThe = "No folder is allowed. Start the server with --folder and the folder.";

    public const string ThisIsNotThePathOf = "This is not the path of a folder.";

    public const string ThisFolderDoesNotExistOn = "This folder does not exist on the server's machine. Give the full path.";

    public static string OnlyTheseFoldersAndTheirSubfolders(string allowed) =>
        $"Only these folders and their subfolders are allowed: {allowed}.";

    public const string ThisFolderAndTheDataFolder =
        "This folder and the data folder of Pantomet are inside each other. Choose another folder.";

    public static string IsAlreadyInTheListThe(string folder) =>
        $"{folder} is already in the list. The same pictures cannot be in the list twice.";

    public static string IsNoLongerInAnAllowed(string folder) =>
        $"{folder} is no longer in an allowed folder. Start the program with --folder.";

    public const string TheLongerSideMustBeFrom = "The longer side must be from 16 to 65 535 pixels.";

    public const string TheWeightAtMostMustBe = "The weight at most must be 1 kB or more.";

    public const string TheLikenessMustBeFromTo = "The likeness must be from 0.5 to 1.";

    public const string TheShareMustBeFromTo = "The share must be from 0 to less than 1.";

    public static string ThePathNowContainsALink(string folder) =>
        $"The path {folder} now contains a link. Links are not followed, because they can lead out of the allowed folder. Nothing was changed.";

    public static string TheFolderNoLongerExists(string folder, string message) => $"The folder {folder} no longer exists: {message}";

    public const string TheFileCannotBeRead = "The file cannot be read.";

    public static string ThePageCannotBeRead(string message) => $"The page cannot be read: {message}";

    public const string NoOriginalsAreKept = "No originals are kept.";

    public const string TheOriginalWasRestored = "The original was restored.";

    public const string PictureWas = "picture was";

    public const string PicturesWere = "pictures were";

    public static string ChangedSinceSuchAsTheyStay(int changed, string changed2, string changed3) =>
        $"{changed} {changed2} changed since, such as {changed3}. They stay as they are, and their originals are still kept.";

    public const string ProcessedBeforeAndNotChangedSince = "Processed before and not changed since.";

    public const string TheFileNameIsNotUTF = "The file name is not UTF-8, so the file cannot be opened. Rename it.";

    public static string TheFolderDoesNotExist(string folder) => $"{folder}: the folder does not exist";

    public static string ThisIsAFileNotA(string? other) => $"{other}: this is a file, not a folder";

    public const string TheFolderOfThePicturesAnd =
        "the folder of the pictures and the folder for originals or results must not be inside each other";

    public const string TheDiskIsFullThePictures = "The disk is full. The pictures optimised so far stay; the others were not changed.";

    public static string TheFileCannotBeReadOr(string message) => $"The file cannot be read or written: {message}";

    public const string TheFileWasChangedWhileIt = "The file was changed while it was processed. It stays as it is.";

    public const string AnOriginalIsSavedAsJPEG = "An original is saved as JPEG, PNG, WebP or AVIF.";

    public const string WithABackgroundAnOriginalIs =
        "With a background an original is saved as JPEG; the other types keep the transparency.";

    public const string ADrawingHasNoPixelsTo = "A drawing has no pixels to fix.";

    public const string TheOriginalIsAnAnimationOr = "The original is an animation or has several pages. It stays as it is.";

    public const string TheOriginalIsAlreadyLikeThis = "The original is already like this.";

    public static string FilesAreNotMadeLighterThe(string label) => $"{label} files are not made lighter. The file stays as it is.";

    public const string NoLighterFileCouldBeMade = "No lighter file could be made. The file stays as it is.";

    public static string OverTheLimitAtTheLeastLikeness(string bytes, string limit, string likeness) =>
        $"{bytes}, over the limit of {limit}: a lighter file would have a likeness below {likeness}.";

    public static string AFileThatIsLightEnough(string likeness, string likeness2) =>
        $"A file that is light enough has a likeness of {likeness}; {likeness2} is wanted. The file stays as it is.";

    public static string TheFileIsLightEnoughInstead(string after, string before) =>
        $"The file is light enough: {after} instead of {before} would save too little. It stays as it is.";
}

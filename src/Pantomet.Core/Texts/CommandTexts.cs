namespace Pantomet.Core.Texts;

/// <summary>The sentences about the command line.</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class CommandTexts
{
    public const string TheDemosReceiversDidNotStart = "The demo's receivers did not start.";

    public const string WorksOnOneShareOfThePictures =
        "Works on one share of the pictures, such as 3/8: the third of eight calls that together make everything.";

    public static string ShareTakesTwoNumbers(object? wrong) => $"--share takes two numbers such as 3/8; \"{wrong}\" is not that.";

    public const string SharesAndWatchDoNotGoTogether = "--share and --watch do not go together: a share ends.";

    public static string NamesNeedThePictureOrTheHash(string slot) =>
        $"{slot}: with --share, the name of a file needs {{picture}} or {{hash}}; otherwise files of different shares get the same name.";

    public const string CombinesReportsOfShares = "Combines the reports of all shares of a batch into one.";

    public const string WhereTheCombinedReportGoes = "Where to write the combined report.";

    public const string TheReportsOfAllShares = "The reports of all shares.";

    public const string ThisIsNoReportOfAShare = "this is no report of a share; it is written by render --share K/N --report";

    public const string TheReportsAreOfDifferentBatches = "the reports are of batches with different numbers of shares";

    public static string TheReportsOfTheseSharesAreMissing(IReadOnlyList<int> missing) =>
        $"the reports of these shares are missing: {string.Join(", ", missing)}";

    public const string AShareIsThereTwice = "a share is there twice";

    public static string TwoSharesGaveOneName(string path) =>
        $"two shares wrote {path}: one file took the place of the other; name one of the pictures otherwise, or use {{hash}} in the pattern";

    public static string ReportsCombined(int reports, int files) => $"{reports} reports, {files} files";

    public const string SaysWhatThisPlatformTakesFromImaging =
        "Says what this platform takes from the processes that work on pictures: the network, other programs, memory and time.";

    public const string MemoryAndTimeAreLimited = "memory and time are limited";

    public const string NoNetwork = "no network";

    public const string NoOtherPrograms = "no other programs";

    public static string HoldsOrNot(string what, bool holds) => $"{what}: {(holds ? "yes" : "no, this platform does not give it")}";

    public const string TheAddressOfTheServer = "The address of the server.";

    public const string AsksAServerWhetherItCanTakeWork = "Asks a server whether it can take work; exit status 0 when it can.";

    public static string ThisIsNoAddress(string? address) => $"pantomet: \"{address}\" is not an address such as http://127.0.0.1:5460";

    public const string Ready = "ready";

    public const string NotReady = "not ready";

    public const string TheRulesFile = "The rules file.";

    public const string TheMarksOfPeopleOnThe = "The marks of people on the pictures: keep boxes, focus, frames, titles.";

    public const string WhereToWriteTheReport = "Where to write the report.";

    public const string HowManyPicturesAndFilesAre = "How many pictures and files are processed at once.";

    public const string JobsTakesAWholeNumberFrom = "--jobs takes a whole number from 1 to 64.";

    public static string ReportIsAFolderNotA(string path) => $"{path}: --report is a folder, not a file";

    public static string TheReportWouldOverwriteAFile(string path) => $"{path}: the report would overwrite a file that this command reads";

    public static string TheFolderOfTheReportDoes(string path) => $"{path}: the folder of the report does not exist";

    public static string TheFileCannotBeRead(string path) => $"{path}: the file cannot be read";

    public const string StartsTheApplicationWithFreshDemo = "Starts the application with fresh demo data and prints its address.";

    public static string PantometPortIsInUseChoose(object? port) => $"pantomet: port {port} is in use; choose another one with --port";

    public const string TheDataFolderCreatedIfIt = "The data folder; created if it does not exist.";

    public const string TheAddressToListenOn = "The address to listen on.";

    public const string TheLargestUploadInMegabytes = "The largest upload, in megabytes.";

    public const string MaxUploadTakesAWholeNumber = "--max-upload takes a whole number of megabytes from 1 to 10000.";

    public const string TheLowestLevelThatIsLogged = "The lowest level that is logged: trace, debug, information, warning, error.";

    public const string LogLevelTakesTraceDebugInformation = "--log-level takes trace, debug, information, warning or error.";

    public const string AFolderOfThisMachineWhose =
        "A folder of this machine whose pictures may be optimised, and to which files may be handed over; can be given more than once.";

    public static string FolderTakesAnExistingFolderDoes(object? none) => $"--folder takes an existing folder; {none} does not exist.";

    public const string AHostOfThisMachineOrItsNetwork =
        "Where people sign in: a host of this machine or its network that page checks and receivers may reach, with its port; can be given more than once.";

    public static string PrivateHostTakesAHostSuch(object? none) =>
        $"--private-host takes a host, such as intranet.example:8080; \"{none}\" is not a host.";

    public const string StartsTheApplicationOnAData = "Starts the application on a data folder.";

    public const string PrintsTheOpenAPIDescriptionOfThe = "Prints the OpenAPI description of the server.";

    public const string ThePort = "The port.";

    public const string PortTakesANumberFromTo = "--port takes a number from 0 to 65535.";

    public static string PantometIsReadyAt(string app) => $"Pantomet is ready at {app}/";

    public static string PantometTheServerCouldNotStart(string message) => $"pantomet: the server could not start: {message}";

    public const string PantometMakesEveryPictureForEvery =
        "Pantomet: makes every picture for every place, in the right shape, size and weight.";

    public static string NeedsAValue(object? name) => $"{name} needs a value.";

    public const string AValueIsEmpty = "A value is empty.";

    public static string PantometPantometHelpListsTheCommands(object? wrong) => $"pantomet: {wrong} (pantomet --help lists the commands)";

    public const string PantometStoppedEverythingWrittenSoFar =
        "pantomet: stopped. Everything written so far is complete; no file is half written.";

    public static string PantometUnexpectedError(string name, string message) => $"pantomet: unexpected error ({name}): {message}";

    public const string TheFolderOfThePictures = "The folder of the pictures.";

    public const string TheFolderForTheLighterPictures = "The folder for the lighter pictures.";

    public const string ReplacesThePicturesAndKeepsThe = "Replaces the pictures, and keeps the originals in this folder.";

    public const string TheLongerSideAtMostIn = "The longer side at most, in pixels.";

    public const string TheWeightOfAFileAt = "The weight of a file at most, such as 500 kB.";

    public const string TheLikenessToTheOriginalAt =
        "The likeness to the original at least, 0 to 1 (default 0.995; with --max-bytes as much as the weight allows, down to 0.95).";

    public const string ReplaceAFileOnlyIfIt = "Replace a file only if it becomes lighter by this share, 0 to 1 (default 0.1).";

    public const string ReportsWhatWouldBeDoneAnd = "Reports what would be done, and changes nothing.";

    public const string RestoresTheOriginalsThatAreIn = "Restores the originals that are in the folder of --keep.";

    public const string MakesThePicturesOfAFolder = "Makes the pictures of a folder lighter; names and types stay the same.";

    public const string CanBeMadeLighter = "can be made lighter";

    public static string PicturesOfInS(int sources, string sum, int lighter, string dry, string saved, string dry2, string seconds) =>
        $"{sources} pictures of {sum}: {lighter} {dry}, {saved} {dry2}, in {seconds} s";

    public static string TheFileWasChangedSinceIt(string path) =>
        $"{path}: the file was changed since; it stays as it is, and its original is still kept.";

    public static string OriginalsRestored(int restored) => $"{restored} originals restored";

    public const string RestoreNeedsKeepWithTheFolder = "--restore needs --keep with the folder of the originals";

    public static string TheFolderDoesNotExist(string keep) => $"{keep}: the folder does not exist";

    public const string OutOrKeepIsNeededThe =
        "--out or --keep is needed: the folder for the lighter pictures, or the folder for the originals";

    public static string MaxSideTakesAWholeNumber(int longestSide) => $"--max-side takes a whole number from 1 to {longestSide}.";

    public static string TakesANumberFromTo(string name) => $"{name} takes a number from 0 to 1.";

    public const string TheFolderForTheFilesCreated = "The folder for the files; created if it does not exist.";

    public const string AddsTheHTMLAndCSSFor = "Adds the HTML and CSS for the files to the report.";

    public const string TheBaseURLOfTheAddresses = "The base URL of the addresses in the markup; relative to the page if it is not given.";

    public const string ThePictures = "The pictures.";

    public const string MakesAllFilesOfAllPictures = "Makes all files of all pictures for all slots of the rules.";

    public static string FilesFromInS(int files, string variantBytes, string sourceBytes, string seconds) =>
        $"{files} files, {variantBytes} from {sourceBytes}, in {seconds} s";

    public static string OutIsAFileNotA(string output) => $"{output}: --out is a file, not a folder";

    public const string MarkupNeedsReportBecauseTheMarkup = "--markup needs --report, because the markup is written into the report";

    public const string BaseNeedsMarkupBecauseItIs = "--base needs --markup, because it is the base URL of the markup";

    public const string TheFolderOfTheBuiltSite = "The folder of the built site; it is only read.";

    public const string TheFolderForTheCopyCreated = "The folder for the copy; created if it does not exist.";

    public const string TheBaseURLOfTheSites = "The base URL of the site's pictures; relative to each page if it is not given.";

    public const string KeepsRunningAndBuildsAgainWhen =
        "Keeps running, and builds again when a file of the site, the rules or the marks changes.";

    public const string CopiesABuiltSiteEachImg = "Copies a built site; each img with data-slot is replaced by its markup and files.";

    public static string ImagesOnPagesFilesOfOf(
        int value,
        int pages,
        int files,
        string variantBytes,
        int made,
        int copied,
        string seconds
    ) =>
        $"{value} images on {pages} pages, {files} files of {variantBytes}, {made} of them made, {copied} other files copied, in {seconds} s";

    public const string ThePageAnHtmlOrMhtml = "The page: an .html or .mhtml file, a folder, a ZIP or an address.";

    public const string TheWidthsOfTheScreensIn = "The widths of the screens in CSS pixels (default 360,768,1280,1920).";

    public const string ThePixelDensitiesOfTheScreens = "The pixel densities of the screens (default 1,2).";

    public const string AnotherHostFromWhichThePage = "Another host from which the page may load files; can be given more than once.";

    public const string TheSpeedForLoadingTimesIn = "The speed for loading times, in megabits per second (default 10).";

    public const string AFolderForScreenshotsTheFiles =
        "A folder for screenshots, the files that the page loads and the files that would be enough; created if it does not exist.";

    public const string OpensAPageInABrowser = "Opens a page in a browser and compares what it loads with what it shows.";

    public static string TheFilesOfThePageNeed(string page) =>
        $"{page}: the files of the page need more memory than is allowed for a page check.";

    public static string PicturesAScreenLoadsOfThem(int images, string mean, string possible, string secondsMeasuring, string seconds) =>
        $"{images} pictures; a screen loads {mean} of them on average, {possible} would be enough; measured in {secondsMeasuring} s, all in {seconds} s";

    public const string RateTakesANumberOfMegabits = "--rate takes a number of megabits per second, greater than 0.";

    public static string AllowTakesAHostSuchAs(string none) => $"--allow takes a host, such as pictures.example; \"{none}\" is not a host";

    public static string ThisFileFolderOrAddressDoes(string page) => $"{page}: this file, folder or address does not exist";

    public static string ThisIsAFileNotA(string keep) => $"{keep}: this is a file, not a folder";

    public static string TakesNumbersFromToSeparatedBy(string name, object? least, object? most) =>
        $"{name} takes numbers from {least} to {most}, separated by commas";

    public static string TakesAtMostNumbers(string name, int mostOfEach) => $"{name} takes at most {mostOfEach} numbers";

    public const string MadeLighter = "made lighter";
}

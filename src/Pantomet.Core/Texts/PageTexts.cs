namespace Pantomet.Core.Texts;

/// <summary>The sentences about page checks, rewritten pages and the command for a whole site.</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class PageTexts
{
    public const string TheSVGDrawingsOfThePage =
        "The SVG drawings of the page were not loaded: with them the browser needs more memory than is allowed for a page.";

    public const string ThePageSendsDataWhenIt =
        "The page sends data when it opens. A page check sends nothing, so the page may look different.";

    public static string ThePageDidNotFinishLoading(double totalSeconds) =>
        $"The page did not finish loading within {totalSeconds} s. It was measured as far as it had loaded.";

    public static string ThePageCannotBeOpened(object? message) => $"The page cannot be opened: {message}";

    public static string ThePageIsLongerThanScreens(int mostSteps) =>
        $"The page is longer than {mostSteps} screens. Only these were measured.";

    public static string ThePageHasMoreThanFrames(int mostFrames) =>
        $"The page has more than {mostFrames} frames. The others were not measured.";

    public const string OneConstROneGetBoundingClientRectConst =
        "(one) => { const r = one.getBoundingClientRect(); const w = one.ownerDocument.defaultView; ";

    public const string ReturnRLeftOneClientLeftW = "return [r.left + one.clientLeft + w.scrollX, r.top + one.clientTop + w.scrollY, ";

    public static string ThePageIsPxLongThe(double height, int longestShot) =>
        $"The page is {height:0} px long; the screenshot shows the first {longestShot} px.";

    public const string NoScreenshotCouldBeTaken = "No screenshot could be taken.";

    public const string ThePageOpensOtherPagesAgain = "The page opens other pages again and again by itself. It was stopped and measured.";

    public const string APageCheckSendsNoData = "A page check sends no data.";

    public static string ThisIsNotAPageBut(string type) => $"This is not a page but a file of type {type}.";

    public static string ThePageLoadsFilesFromWhich(string host) =>
        $"The page loads files from {host}, which is not allowed. It may look different with them.";

    public const string TheBrowserProcessOfThePage =
        "The browser process of the page ended. The page may need more memory than is allowed.";

    public const string ThePageOpensOtherPagesAgain2 = "The page opens other pages again and again by itself and could not be measured.";

    public const string ThePageStoppedAnsweringItsScripts = "The page stopped answering; its scripts do not end.";

    public static string ThereWasNoTimeLeftAll(double totalMinutes) =>
        $"There was no time left: all screens together may take {totalMinutes} minutes.";

    public const string ThePageNeedsMoreMemoryThan = "The page needs more memory than is allowed, and its browser was stopped.";

    public static string TheBrowserDoesNotStart(string program, string message) => $"The browser {program} does not start: {message}";

    public static string IsSetToWhichDoesNot(string variable, string named) => $"{variable} is set to {named}, which does not exist.";

    public static string NoBrowserWasFoundInstallChromium(string variable) =>
        $"No browser was found. Install Chromium (on Debian: apt install chromium), or set {variable} to its path.";

    public const string TheBrowserDidNotStart = "The browser did not start.";

    public static string TheBrowserDidNotStartWithin(double totalSeconds) => $"The browser did not start within {totalSeconds} s.";

    public const string TheBrowserCannotRunPagesIn =
        "The browser cannot run pages in its sandbox here, and is not used without it. Allow user namespaces, or install the sandbox (on Debian: apt install chromium-sandbox).";

    public static string TheBrowserEndedBeforeItWas(string takeLast) => $"The browser ended before it was ready: {takeLast}";

    public const string TheBrowserEnded = "The browser ended.";

    public const string TheBrowserSentMoreDataThan = "The browser sent more data than can be read.";

    public const string ThisJobWasNotMadeFrom = "This job was not made from a page, or the file does not exist.";

    public const string AllFilesOfThisPageWere = "All files of this page were sent already. Add a new page check for others.";

    public const string ThisPageCheckOrThisFile = "This page check or this file does not exist.";

    public const string ThePageIsNotMeasuredYet = "The page is not measured yet.";

    public const string ThePageShowsNoPictureFor = "The page shows no picture for which a slot could be made.";

    public const string ThisFileFolderOrAddressDoes = "This file, folder or address does not exist.";

    public const string ThisIsNotAPageGive = "This is not a page. Give a folder, a ZIP, an .html or .mhtml file, or an address.";

    public static string ThePageCannotBeRead(string message) => $"The page cannot be read: {message}";

    public const string TheDataURLIsEmpty = "The data URL is empty.";

    public const string TheDataURLIsDamaged = "The data URL is damaged.";

    public const string APageCannotLoadFromThis = "A page cannot load from this address.";

    public const string TheAddressRedirectsWithoutEnd = "The address redirects without end.";

    public static string OnAScreenOfPxAt(int viewport, double density, string why) => $"On a screen of {viewport} px at {density}x: {why}";

    public static string CannotBeRead(string path, string message) => $"\"{path}\" cannot be read: {message}";

    public static string IsNotThere(string path) => $"\"{path}\" is not there.";

    public static string IsLargerThanMB(string path, string largest) => $"\"{path}\" is larger than {largest} MB.";

    public static string WasNotReadTheFilesOf(string path, string mostBytes) =>
        $"\"{path}\" was not read: the files of this page are larger than {mostBytes} MB together.";

    public const string NoPageWasFoundNoFile = "No page was found: no file ends with .html.";

    public static string ThereArePagesAndNoneIs(int pages, string pages2) =>
        $"There are {pages} pages and none is called index.html. Name one of them, such as {pages2}.";

    public static string TheZIPHasMoreThanFiles(int mostEntries) =>
        $"The ZIP has more than {mostEntries} files. Send one page with its files.";

    public const string TheZIPIsDamagedAndCannot = "The ZIP is damaged and cannot be read.";

    public const string TheFileIsLongerThanThe = "the file is longer than the ZIP says.";

    public const string TheFileIsCompressedMoreThan = "the file is compressed more than any normal file of a page.";

    public static string TheFileIsAtWhichIs(string authority) => $"The file is at {authority}, which is not an allowed host.";

    public const string TheFileOrTheWholePage = "The file or the whole page is too large.";

    public static string Answered(string authority, string statusCode) => $"{authority} answered {statusCode}.";

    public static string DidNotAnswerWithinS(string authority, double totalSeconds) =>
        $"{authority} did not answer within {totalSeconds} s.";

    public static string CannotBeReached(string authority, string message) => $"{authority} cannot be reached: {message}";

    public static string ClosedTheConnection(string authority, string message) => $"{authority} closed the connection: {message}";

    public const string TheResultOfThePageCheck = "The result of the page check could not be read.";

    public const string TheFilesOfThisPageNo = "The files of this page no longer exist.";

    public static string TheSavedPageIsLargerThan(long largest) => $"The saved page is larger than {largest} MB, which is not read.";

    public const string NoPageWasFoundNoPart = "No page was found: no part of the file is HTML.";

    public const string ThisFileWasNotSavedWith = "This file was not saved with the page.";

    public static string IsNotAHostWriteIt(string none) => $"\"{none}\" is not a host. Write it like pictures.example.";

    public static string GiveAtMostScreenWidthsEach(int least, int most, int mostOfEach) =>
        $"Give at most {mostOfEach} screen widths, each from {least} to {most} px.";

    public static string DensitiesMustBeFromTo(double least, double most) => $"Densities must be from {least} to {most}.";

    public const string TheImageHasNoSrc = "the image has no src";

    public static string IsNotAFileOfThe(string address) => $"\"{address}\" is not a file of the site";

    public static string IsOutsideOfTheSitesFolder(string address) => $"\"{address}\" is outside of the site's folder";

    public static string IsMissing(string address) => $"\"{address}\" is missing";

    public static string IsALinkThatLeadsOut(string address) => $"\"{address}\" is a link that leads out of the site's folder";

    public static string CannotBeRead2(string address) => $"\"{address}\" cannot be read";

    public static string InIsNotAFolder(string input) => $"{input}: --in is not a folder";

    public static string OutIsAFileNotA(string output) => $"{output}: --out is a file, not a folder";

    public const string InAndOutMustNotBe = "--in and --out must not be inside each other";

    public static string TheRulesHaveNoSlotOr(string place) => $"the rules have no slot or group \"{place}\"";

    public static string IsOneSlotOfAGroup(string place, string key) =>
        $"\"{place}\" is one slot of a group; name the group \"{key}\" in the page";

    public const string TheImageIsAlreadyInA = "the image is already in a picture element, and these cannot be nested";

    public static string NoFileWasMadeFor(string picture, string destination, string key) =>
        $"\"{picture}\": no file was made for {destination}/{key}.";

    public const string TheFileCannotBeRead = "The file cannot be read.";

    public const string ThePageIsUTFWhichIs = "the page is UTF-16, which is not supported; it stays as it is";

    public static string ThePageWeighsAndOnlyPages(string bytes, string largestPage) =>
        $"the page weighs {bytes}, and only pages up to {largestPage} are changed. It stays as it is";

    public const string TheFileWasNotMade = "The file was not made.";

    public const string TheJobNoLongerExists = "The job no longer exists.";

    public const string FileIs = "file is";

    public const string FilesAre = "files are";

    public static string StillToBeMade(int waiting, string waiting2) => $"{waiting} {waiting2} still to be made.";

    public const string TheJobNoLongerHasThis = "The job no longer has this picture.";

    public const string TheJobDeliversNoFileFor = "The job delivers no file for this picture.";

    public const string ThePageIsUTFWhichIs2 = "The page is UTF-16, which is not supported. Save it as UTF-8.";

    public static string ThePagesTextWeighsAndOnly(string body, string largestPage) =>
        $"The page's text weighs {body}, and only pages up to {largestPage} are changed.";

    public static string TheStylesFromDoNotBelong(string host) => $"The styles from {host} do not belong to the page and were not changed.";

    public const string EveryWayToReplaceThisPicture = "Every way to replace this picture changes how the page looks. It was not replaced.";

    public const string ThePageNoLongerShowsThis = "The page no longer shows this picture.";

    public const string ThisFileHoldsSeveralPicturesA = "This file holds several pictures (a sprite). It was not changed.";

    public const string ThePageCropsThisPictureBy = "The page crops this picture by pixels; a cropped file would be in the wrong place.";

    public const string ThePageShowsThisPictureIn =
        "The page shows this picture in its own pixel size; another file would have another size.";

    public const string NoStyleOfThePageHas = "No style of the page has this address; a script or another host's style sets it.";

    public const string ThisPictureIsNotInThe = "This picture is not in the page's HTML: a script or another document adds it.";

    public const string ThePicturesShapeChangesWithThe =
        "The picture's shape changes with the screen, and its element can have only one file.";

    public const string ThePictureWasNotLoaded = "The picture was not loaded.";

    public static string PutTheFileThereOrCorrect(string trouble) => $"{trouble} Put the file there, or correct the address.";

    public const string TheLoadedFileIsNotA = "The loaded file is not a picture that the browser can show.";

    public static string ThePictureIsLoadedButNever(string bytes) =>
        $"The picture is loaded but never shown: {bytes} for nothing. Load it only where it is shown.";

    public static string ThePictureHasAreEnoughFor(string natural, string enough) =>
        $"The picture has {natural}; {enough} are enough for its largest place.";

    public static string LooksTheSameAndWeighsOffer(string label, string bytes, string beside) =>
        $"{label} looks the same and weighs {bytes}{beside}. Offer it in a picture element.";

    public static string TheFileWeighsTimesAsMuch(string now) =>
        $"The file weighs {now} times as much as one that looks the same. Compress it again.";

    public static string ThePictureWeighsAPictureOn(string bytes) =>
        $"The picture weighs {bytes}. A picture on a page should weigh at most 1 MB.";

    public static string EveryScreenLoadsTheSameFile(string screen, string needed, string lightest) =>
        $"Every screen loads the same file; a screen of {screen} needs only {needed}.{lightest} Offer several widths in srcset.";

    public static string OnAScreenOfThePicture(string screen, string natural, string natural2, string needed) =>
        $"On a screen of {screen} the picture is enlarged {natural} times and looks soft: it has {natural2}, {needed} are needed. Use a larger original.";

    public static string OnAScreenOfThePicture2(string screen, string value, string across) =>
        $"On a screen of {screen} the picture is {value} {across} than it should be. Set one side to auto, or crop it with object-fit: cover.";

    public static string NoSpaceIsReservedForThe(string value) =>
        $"No space is reserved for the picture, so the page jumps when it loads. Add width and height{value}.";

    public const string ThePictureHasNoAlternativeText =
        "The picture has no alternative text for people who cannot see it. Add alt, or an empty alt if the picture is decorative.";

    public static string ThePictureIsVisibleAtOnce(string screen) =>
        $"The picture is visible at once on a screen of {screen}, but it loads late. Remove loading=\"lazy\".";

    public const string ThePictureIsVisibleOnlyAfter =
        "The picture is visible only after scrolling, but it loads at once. Add loading=\"lazy\".";

    public static string AsOfItWouldWeighInstead(string label, string size, string bytes, string bytes2) =>
        $" As {label} of {size} it would weigh {bytes} instead of {bytes2}.";

    public static string PxAtX(string viewport, string density) => $"{viewport} px at {density}x";

    public static string PlaceAt(int number, double width, double height, int widestAt) =>
        $"Place {number}, {width} × {height} at {widestAt}";
}

namespace Pantomet.Core.Texts;

/// <summary>The sentences about receivers and deliveries.</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class ReceiverTexts
{
    public static string NoFileForIsReady(string name) => $"No file for {name} is ready.";

    public const string NoFileOfThisJobWas = "No file of this job was sent to this receiver.";

    public const string TheReceiverDoesNotShowThis = "The receiver does not show this picture.";

    public const string TheReceiverNoLongerShowsThis = "The receiver no longer shows this picture.";

    public const string ThisCannotBeSavedInThe =
        "This cannot be saved in the slot's rule: the slot has several sizes, or no size in pixels.";

    public const string ThisIsNotAPasswordToken = "This is not a password, token or key.";

    public const string ThisReceiverDoesNotExist = "This receiver does not exist.";

    public const string TheReceiverAnswersButTheUser = "The receiver answers, but the user, password or token is wrong.";

    public const string TheReceiverAnswersWhetherItAccepts =
        "The receiver answers. Whether it accepts files is known after the first one is sent.";

    public static string TheReceiverShowsTheFileAt(string authority) =>
        $"The receiver shows the file at {authority}, another host, which was not checked.";

    public static string TheAddressWhereTheFileIs(string status) => $"The address where the file is shown answers {status}.";

    public static string TheFileThatIsShownWeighs(object? said) => $"The file that is shown weighs {said} MB and was not downloaded.";

    public static string TheFileThatIsShownDoes(int mostFetched) =>
        $"The file that is shown does not end; {mostFetched} MB were downloaded.";

    public const string TheReceiverDidNotAnswerIn = "The receiver did not answer in time.";

    public static string NoSecureConnectionCouldBeMade(string secure) => $"No secure connection could be made: {secure}";

    public const string ThereIsNoHostWithThis = "There is no host with this name.";

    public const string TheReceiverClosedTheConnectionBefore = "The receiver closed the connection before it answered.";

    public const string TheAnswerIsNotHTTP = "The answer is not HTTP.";

    public static string TheReceiverCannotBeReached(string fault) => $"The receiver cannot be reached: {fault}";

    public const string TheStoreAnswersAndAcceptsThe = "The store answers and accepts the key and the bucket.";

    public const string TheStoreDoesNotKnowThis = "The store does not know this key.";

    public const string TheSecretDoesNotMatchThe = "The secret does not match the key.";

    public const string ThisBucketDoesNotExist = "This bucket does not exist.";

    public const string TheKeyMayNotWriteInto = "The key may not write into this bucket.";

    public const string TheClockOfThisMachineAnd = "The clock of this machine and that of the store differ too much.";

    public const string TheAnswerIsNotTheAnswer = "The answer is not the answer of an object store.";

    public const string ThePasswordCanNoLongerBe = "The password can no longer be decrypted. Enter it again.";

    public const string TheJobOrTheReceiverNo = "The job or the receiver no longer exists.";

    public const string TheReceiverWasRemovedOrHas = "The receiver was removed, or has another address now.";

    public const string FileWaits = "file waits";

    public const string FilesWait = "files wait";

    public static string PantometTriesAgainInS(string said, double totalSeconds) => $"{said} Pantomet tries again in {totalSeconds:0.#} s.";

    public const string TheReceiverShowsAWebPage = "The receiver shows a web page there, not a picture.";

    public const string TheFileThatIsShownIs = "The file that is shown is not a picture, or is damaged.";

    public const string TheReceiverChangedTheShapeThe = "The receiver changed the shape: the picture is cropped or squashed.";

    public const string TheReceiverEnlargedThePicture = "The receiver enlarged the picture.";

    public const string TheReceiverHasNoTestAddress = "The receiver has no test address.";

    public const string ThisFileIsNoLongerDelivered = "This file is no longer delivered.";

    public const string TheReceiverNoLongerHasA = "The receiver no longer has a test address.";

    public const string TheFileHasChangedSinceRun = "The file has changed since; run the trials again.";

    public const string AFileForTheTrialsCould = "A file for the trials could not be made.";

    public const string TheReceiverDoesNotSayWhere = "The receiver does not say where it shows a file, so nothing can be compared.";

    public const string TheHostAnswersAndAcceptsThis = "The host answers and accepts this user.";

    public static string TheHostAcceptsThisUserWill(string root) => $"The host accepts this user; {root} will be created.";

    public static string TheHostKeyIsNotTrusted(string seen) => $"The host key is not trusted yet: {seen}.";

    public static string TheHostKeyHasChangedThis(string seen) => $"The host key has changed: {seen}. This may be another host.";

    public const string TheUserPasswordOrKeyIs = "The user, password or key is wrong.";

    public const string TheKeyHasAPassphraseUse = "The key has a passphrase; use a key without one.";

    public const string ThisUserMayNotWriteTo = "This user may not write to this folder.";

    public static string TheHostCannotBeReached(string message) => $"The host cannot be reached: {message}";

    public static string TheTransferFailed(string message) => $"The transfer failed: {message}";

    public const string ThePathContainsALinkThat = "The path contains a link that leads out of the folder.";

    public static string TheFileCouldNotBeWritten(string message) => $"The file could not be written: {message}";

    public const string FilesCanBeWrittenToThis = "Files can be written to this folder.";

    public static string FilesCannotBeWrittenToThis(string message) => $"Files cannot be written to this folder: {message}";

    public const string TheFolderAlreadyHasAnotherFile =
        "The folder already has another file with this name, which Pantomet did not write. Remove it, or change the name.";

    public const string ThisFolderDoesNotExistOn = "This folder does not exist on the server's machine.";

    public const string NoFolderIsAllowedStartThe = "No folder is allowed. Start the program with --folder to allow one.";

    public static string OnlyTheseFoldersAndTheirSubfolders(string named) =>
        $"Only these folders and their subfolders are allowed: {named}.";

    public const string ThisFolderAndTheDataFolder =
        "This folder and the data folder of Pantomet are inside each other. Choose another folder.";

    public static string TheFolderCannotBeOpened(string message) => $"The folder cannot be opened: {message}";

    public static string TheReceiverHasBytesOfA(long there, long given) => $"The receiver has {there} bytes of a file of {given} bytes.";

    public const string AReceiverNeedsANameOf = "A receiver needs a name of at most 120 characters.";

    public const string ThisIsNotAnAddress = "This is not an address.";

    public const string ABucketNameHasToLower = "A bucket name has 3 to 63 lower-case letters, digits, dots and hyphens.";

    public const string ARegionNameHasLowerCase = "A region name has lower-case letters, digits and hyphens.";

    public const string AnObjectStoreNeedsAnAccess = "An object store needs an access key.";

    public const string AFileTransferNeedsAUser = "A file transfer needs a user.";

    public const string ThisIsNotAUserName = "This is not a user name.";

    public const string GiveTheNameOfTheForm = "Give the name of the form field.";

    public const string AJSONPointerStartsWithA = "A JSON pointer starts with a slash: /sizes.";

    public const string GiveTheFullPathOfA = "Give the full path of a folder.";

    public const string EnterUserAndPasswordInTheir = "Enter user and password in their own fields, not in the address.";

    public const string TheAddressMustEndWithIts = "The address must end with its path, without ? or #.";

    public const string TheReceiverAnsweredWithAWeb =
        "The receiver answered with a web page. The address is for people or asks to sign in; use the address for files.";

    public static string TheReceiverRedirectsUseThatAddress(string value) => $"The receiver redirects{value}. Use that address instead.";

    public const string TheUserPasswordOrTokenIs = "The user, password or token is wrong.";

    public static string TheReceiverCouldNotAcceptThe(int status) => $"The receiver could not accept the file now (status {status}).";

    public static string ThisAddressDoesNotAcceptFiles(int status) => $"This address does not accept files (status {status}).";

    public const string TheFileIsTooHeavyFor = "The file is too heavy for the receiver (status 413).";

    public const string TheReceiverDoesNotAcceptThis = "The receiver does not accept this file type (status 415).";

    public static string TheReceiverRefusedTheFileWithout(int status) =>
        $"The receiver refused the file without a reason (status {status}).";
}

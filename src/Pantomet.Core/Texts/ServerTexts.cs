namespace Pantomet.Core.Texts;

/// <summary>The sentences about requests as such.</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class ServerTexts
{
    public const string PantometIsStopping = "Pantomet is stopping.";

    public static string TheDataFolderCannotBeUsed(string message) => $"The data folder cannot be used now: {message}";

    public const string ThereIsNoPageAtThis = "There is no page at this address.";

    public const string ThisPictureDoesNotExist = "This picture does not exist.";

    public static string TheRulesHaveNoSlot(string destination, string slot) => $"The rules have no slot \"{destination}/{slot}\".";

    public const string ThePictureDoesNotHaveThis = "The picture does not have this original.";

    public const string ThisDestinationDoesNotExist = "This destination does not exist.";

    public const string ThisJobDoesNotExist = "This job does not exist.";

    public const string TheJobDoesNotHaveThis = "The job does not have this picture in this slot.";

    public const string ThisFileDoesNotExist = "This file does not exist.";

    public const string TheRequestWasCancelled = "The request was cancelled.";

    public const string TheRequestBodyIsTooLarge = "The request body is too large for this address.";

    public const string TheRequestBodyDoesNotHave = "The request body does not have the expected form.";

    public const string TheRequestCannotBeRead = "The request cannot be read.";

    public const string AnotherProgramUsesTheDatabaseNothing = "Another program uses the database. Nothing was changed; try again.";

    public const string TheDiskIsFullNothingWas = "The disk is full. Nothing was changed. Free some space and try again.";

    public const string TheDiskReportsAnError =
        "The disk of the data folder reports an error. Nothing was changed. Check the disk; the log has the details.";

    public const string TheDataFolderCannotBeWritten = "The data folder cannot be written to. Nothing was changed.";

    public const string UnexpectedErrorTheLogHasThe = "Unexpected error. The log has the details under this trace id.";

    public static string NoDataArrivedForSThe(double totalSeconds) => $"No data arrived for {totalSeconds} s: the request was cancelled.";

    public const string DefaultSrcSelfImgSrcSelf =
        "default-src 'self'; img-src 'self' blob: data:; style-src 'self' 'unsafe-inline'; object-src 'none'; frame-ancestors ";

    public const string NoneBaseUriNoneFormAction = "'none'; base-uri 'none'; form-action 'self'";

    public const string ThisHostNameDoesNotBelong = "This host name does not belong to this machine.";

    public const string PagesOfOtherSitesMayNot = "Pages of other sites may not change anything here.";

    public const string TheRequestBodyMustBeApplication = "The request body must be application/json.";

    public const string SendAFileAsItsBytes = "Send a file as its bytes, with its own type or application/octet-stream.";

    public static string ATextCanHaveAtMost(int longestText) => $"A text can have at most {longestText} characters.";

    public static string AListCanHaveAtMost(int mostItems) => $"A list can have at most {mostItems} entries.";

    public const string AValueIsNeededHereNot = "A value is needed here, not null.";
}

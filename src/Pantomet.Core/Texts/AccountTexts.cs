using Pantomet.Core.Accounts;

namespace Pantomet.Core.Texts;

/// <summary>The sentences about people and what they may do.</summary>
#pragma warning disable CS1591 // Each member is its own sentence.
public static class AccountTexts
{
    public const string SignInFirst = "Sign in first.";

    public const string YouMayNotDoThis = "Your role does not include this. An owner can change that under People.";

    public const string TheTokenDoesNotInclude = "The token's scopes do not include this.";

    public const string TheTokenIsUnknown = "The token is unknown, expired or revoked.";

    public const string NameOrPasswordIsWrong = "The name or the password is wrong.";

    public static string SignInIsLocked(int minutes) =>
        $"Too many wrong passwords. This account can sign in again in {minutes} minute{(minutes == 1 ? "" : "s")}; an owner can make a link that sets a new password.";

    public const string TheCodeIsWrong = "The code is wrong, or too old. Use the one that the app shows now.";

    public const string SignInAgainWithThePassword = "The first step was too long ago. Sign in with the password again.";

    public const string TheLinkDoesNotWork = "This link was used, revoked, or is too old. Ask whoever sent it for another one.";

    public static string APasswordMustBeLonger(int least) => $"A password needs at least {least} characters; any characters, also spaces.";

    public static string APasswordMustBeShorter(int most) => $"A password can have at most {most} characters.";

    public const string ThePasswordIsOneOfTheMostUsed =
        "This password is one of the most used, and is guessed first. Take several words that nobody else puts together.";

    public const string ThePasswordHoldsTheName = "The password must not hold your name.";

    public const string TheNameIsTaken = "Somebody has this sign-in name already. Choose another one.";

    public static string ASignInNameNeeds(int most) =>
        $"A sign-in name has 2 to {most} characters: letters, digits, and . _ - @ between them.";

    public static string ANameNeeds(int most) => $"Enter a name of at most {most} characters.";

    public const string ThisPersonDoesNotExist = "This person does not exist.";

    public const string ThereMustBeAnOwner = "There must be an owner. Make somebody else an owner first.";

    public const string ThePasswordIsWrong = "The password is wrong.";

    public static string ALinkLasts(int most) => $"A link can last 1 to {most} days.";

    public static string ATokenLasts(int most) => $"A token can last 1 to {most} days.";

    public const string ATokenNeedsAScope = "Choose at least one scope.";

    public const string ThisTokenDoesNotExist = "This token does not exist.";

    public const string ThisLinkDoesNotExist = "This link does not exist.";

    public const string TwoStepIsOnAlready = "The second step is on already. Switch it off first to set it up again.";

    public const string OnlyTheseRightsCanBeGiven = "Only page checks, folders and receivers can be given to a role.";

    public const string NobodySignsInHere =
        "Nobody signs in to this server: only this machine reaches it. Start it with --accounts, or on another address, for people to sign in.";

    public static string TooManyRequests(int seconds) => $"Too many requests. Try again in {seconds} s.";

    public const string GuestsSeeOneJob = "This link shows one job only.";

    public const string GuestsAcceptAndComment = "Guests can comment and accept, not change the job.";

    public static string GuestNamed(string name) => $"{name} (guest)";

    public static string RightsGiven(IReadOnlyList<Right> editors, IReadOnlyList<Right> viewers) =>
        $"editors: {NamesOf(editors)}; viewers: {NamesOf(viewers)}";

    public static string ACommentNeeds(int most) => $"Write a comment of at most {most} characters.";

    public static string TheJobHasAllComments(int most) => $"A job can have at most {most} comments.";

    public const string ThereIsNoWayBackTo = "The picture cannot go back to this moment: it was not in the job all the time since.";

    public const string ThisCommentDoesNotExist = "This comment does not exist.";

    public static string OpenToBecomeOwner(string address) =>
        $"No owner yet. Open this address within an hour, once, to become the owner:\n  {address}";

    public static string OpenToBecomeAnotherOwner(string address) =>
        $"Open this address within an hour, once, to become another owner:\n  {address}";

    public const string ThePasswordsAreSentInTheClear =
        "Passwords and pictures are sent in the clear. Add --certificate FILE for TLS, or put a proxy with TLS in front (--proxy ADDRESS).";

    public const string PeopleSignIn = "People sign in, although only this machine reaches the server.";

    public const string ACertificate =
        "A certificate for TLS: a PEM file, or a PFX file whose password is in PANTOMET_CERTIFICATE_PASSWORD.";

    public const string TheKeyOfTheCertificate = "The private key of a PEM certificate, when it is in another file.";

    public const string AProxy =
        "The address of a proxy in front of the server, such as 10.0.0.2 or 10.0.0.0/24: its X-Forwarded headers are believed, nobody else's; can be given more than once.";

    public const string AnotherOwner = "Prints a one-time address for another owner, for when no owner can sign in.";

    public static string ProxyTakesAnAddress(object? none) =>
        $"--proxy takes an address such as 10.0.0.2, or a network such as 10.0.0.0/24; \"{none}\" is neither.";

    public static string TheCertificateCannotBeRead(string path, string message) => $"{path}: the certificate cannot be read: {message}";

    private static string NamesOf(IReadOnlyList<Right> rights) =>
        rights.Count == 0
            ? "nothing more"
            : string.Join(
                ", ",
                rights
                    .Order()
                    .Select(right =>
                        right switch
                        {
                            Right.CheckPages => "page checks",
                            Right.UseFolders => "folders",
                            Right.UseReceivers => "receivers",
                            _ => right.ToString(),
                        }
                    )
            );
}

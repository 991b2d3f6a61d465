using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Deliveries;

/// <summary>How files come to a receiver.</summary>
public enum ReceiverWay
{
    /// <summary>Into a folder of this machine, which may be a disk of the network.</summary>
    Folder,

    /// <summary>Each put under its own address (HTTP PUT, RFC 9110, 9.3.4).</summary>
    Put,

    /// <summary>Each in a form of its own (multipart/form-data, RFC 7578).</summary>
    Form,

    /// <summary>Each as an object of a store with the S3 interface.</summary>
    S3,

    /// <summary>Over SSH's file transfer.</summary>
    Sftp,
}

/// <summary>What is to be known of a receiver to hand files to it; what is secret of it is kept apart.</summary>
public sealed partial record ReceiverRule
{
    /// <summary>The longest name and address, in characters.</summary>
    public const int Longest = 1_000;

    /// <summary>What people call it.</summary>
    public required string Name { get; init; }

    /// <summary>How files come to it.</summary>
    public required ReceiverWay Way { get; init; }

    /// <summary>
    /// Where it is: a folder's whole path; the address under which files are put, to which forms are sent, or of the store; or
    /// <c>sftp://host:port/folder</c>, or <c>sftp://host/~/folder</c> from where the user begins.
    /// </summary>
    public required string Address { get; init; }

    /// <summary>Keys of the destinations whose files it takes; empty for all.</summary>
    public IReadOnlyList<string> Destinations { get; init; } = [];

    /// <summary>The user, or the key of a store; null where the secret alone says who sends, or nobody asks.</summary>
    public string? User { get; init; }

    /// <summary>The form's field that holds the file.</summary>
    public string Field { get; init; } = "file";

    /// <summary>
    /// Where the answer to a form, as JSON, names what the receiver shows: a JSON pointer (RFC 6901) to an address, or to a list of them; null
    /// where it says that as a location (RFC 9110, 10.2.2), or not at all.
    /// </summary>
    public string? ShownAt { get; init; }

    /// <summary>
    /// The address of a test receiver for it, or of an account that nobody sees, where files may be tried; null where nothing is tried.
    /// </summary>
    public string? TrialAddress { get; init; }

    /// <summary>The store's bucket.</summary>
    public string? Bucket { get; init; }

    /// <summary>The store's region, as it stands in the signature.</summary>
    public string Region { get; init; } = "us-east-1";

    /// <summary>The SHA-256 digest of the host's key that was seen and accepted, as <c>SHA256:...</c>; null until then.</summary>
    public string? HostKey { get; init; }

    /// <summary>True where it is reached over HTTP and may show what it was given.</summary>
    [JsonIgnore]
    public bool IsHttp => Way is ReceiverWay.Put or ReceiverWay.Form;

    /// <summary>True where it takes files of a destination.</summary>
    public bool Takes(string destination) =>
        Destinations.Count == 0 || Destinations.Contains(destination, StringComparer.OrdinalIgnoreCase);

    /// <summary>What is wrong with it, as the member and a sentence; null when nothing is.</summary>
    public (string Member, string Sentence)? Fault() =>
        string.IsNullOrWhiteSpace(Name) || Name.Length > 120 || Name.Any(char.IsControl) ? ("name", ReceiverTexts.AReceiverNeedsANameOf)
        : Address.Length > Longest || Address.Any(char.IsControl) ? ("address", ReceiverTexts.ThisIsNotAnAddress)
        : AddressFault(Address) is { } address ? ("address", address)
        : TrialAddress is { } trial && !(IsHttp && trial.Length <= Longest && AddressFault(trial) is null)
            ? ("trialAddress", "What is tried goes to an address such as https://trial.example/pictures.")
        : Way == ReceiverWay.S3 && !BucketName().IsMatch(Bucket ?? "") ? ("bucket", ReceiverTexts.ABucketNameHasToLower)
        : Way == ReceiverWay.S3 && !RegionName().IsMatch(Region) ? ("region", ReceiverTexts.ARegionNameHasLowerCase)
        : Way == ReceiverWay.S3 && string.IsNullOrEmpty(User) ? ("user", ReceiverTexts.AnObjectStoreNeedsAnAccess)
        : Way == ReceiverWay.Sftp && string.IsNullOrEmpty(User) ? ("user", ReceiverTexts.AFileTransferNeedsAUser)
        : User is { } user && (user.Length > 200 || user.Any(char.IsControl) || (IsHttp && user.Contains(':', StringComparison.Ordinal)))
            ? ("user", ReceiverTexts.ThisIsNotAUserName)
        : Way == ReceiverWay.Form && (Field.Length is 0 or > 100 || Field.Any(character => char.IsControl(character) || character == '"'))
            ? ("field", ReceiverTexts.GiveTheNameOfTheForm)
        : ShownAt is { Length: > 0 } pointer && (pointer[0] != '/' || pointer.Length > 300)
            ? ("shownAt", ReceiverTexts.AJSONPointerStartsWithA)
        : null;

    private string? AddressFault(string given)
    {
        if (Way == ReceiverWay.Folder)
        {
            return Path.IsPathRooted(given) ? null : ReceiverTexts.GiveTheFullPathOfA;
        }

        if (!Uri.TryCreate(given, UriKind.Absolute, out var address) || address.Host.Length == 0)
        {
            return Way == ReceiverWay.Sftp
                ? "An address such as sftp://files.example/pictures is wanted."
                : "An address such as https://files.example/pictures is wanted.";
        }

        return Way == ReceiverWay.Sftp && address.Scheme != "sftp" ? "An address that begins with sftp:// is wanted."
            : Way != ReceiverWay.Sftp && address.Scheme is not ("http" or "https")
                ? "An address that begins with https:// or http:// is wanted."
            : address.UserInfo.Length > 0 ? ReceiverTexts.EnterUserAndPasswordInTheir
            : address.Fragment.Length > 0 || (Way is ReceiverWay.Put or ReceiverWay.S3 && address.Query.Length > 0)
                ? ReceiverTexts.TheAddressMustEndWithIts
            : null;
    }

    [GeneratedRegex(@"^[a-z0-9][a-z0-9.-]{1,61}[a-z0-9]$")]
    private static partial Regex BucketName();

    [GeneratedRegex(@"^[a-z0-9-]{1,40}$")]
    private static partial Regex RegionName();
}

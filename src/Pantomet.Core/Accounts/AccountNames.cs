using System.Text.RegularExpressions;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Accounts;

/// <summary>Which names people can have.</summary>
public static partial class AccountNames
{
    /// <summary>The most characters of a name.</summary>
    public const int Most = 60;

    /// <summary>What is wrong with a sign-in name, as a sentence; null when nothing is.</summary>
    public static string? SignInFault(string? name) =>
        name is not null && name.Length <= Most && SignIn().IsMatch(name) ? null : AccountTexts.ASignInNameNeeds(Most);

    /// <summary>What is wrong with a name for people, as a sentence; null when nothing is.</summary>
    public static string? Fault(string? name) =>
        string.IsNullOrWhiteSpace(name) || name.Trim().Length > Most || name.Any(char.IsControl) ? AccountTexts.ANameNeeds(Most) : null;

    [GeneratedRegex(@"\A[\p{L}\p{Nd}](?:[\p{L}\p{Nd}._@-]*[\p{L}\p{Nd}])\z")]
    private static partial Regex SignIn();
}

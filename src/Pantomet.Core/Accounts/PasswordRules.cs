using System.Collections.Frozen;
using System.Text;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Accounts;

/// <summary>
/// Which passwords are taken: long ones of any characters that are not among the most used. No mix of characters is asked for (OWASP ASVS 5.0,
/// 6.2.1 to 6.2.12; NIST SP 800-63B, 3.1.1).
/// </summary>
public static class PasswordRules
{
    /// <summary>The fewest characters.</summary>
    public const int Least = 10;

    /// <summary>The most characters: hashing a longer one would be work for nothing.</summary>
    public const int Most = 200;

    private const int FewestDifferent = 4;
    private const int LongName = 4;

    private static readonly Lazy<FrozenSet<string>> MostUsed = new(Read);

    /// <summary>What is wrong with a password, as a sentence; null when nothing is.</summary>
    /// <param name="password">The password.</param>
    /// <param name="name">The sign-in name, which the password must not hold.</param>
    public static string? Fault(string? password, string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        var text = password ?? "";
        // Characters as people count them, not as they are stored.
        var length = text.EnumerateRunes().Count();
        if (length < Least)
        {
            return AccountTexts.APasswordMustBeLonger(Least);
        }

        if (length > Most)
        {
            return AccountTexts.APasswordMustBeShorter(Most);
        }

        var small = text.ToLowerInvariant();
        if (MostUsed.Value.Contains(small) || small.EnumerateRunes().Distinct().Count() < FewestDifferent)
        {
            return AccountTexts.ThePasswordIsOneOfTheMostUsed;
        }

        return name.Length >= LongName && small.Contains(name.ToLowerInvariant(), StringComparison.Ordinal)
            ? AccountTexts.ThePasswordHoldsTheName
            : null;
    }

    private static FrozenSet<string> Read()
    {
        using var stream = typeof(PasswordRules).Assembly.GetManifestResourceStream("common-passwords.txt")!;
        using var reader = new StreamReader(stream, Encoding.UTF8);
        return reader.ReadToEnd().Split('\n', StringSplitOptions.RemoveEmptyEntries).ToFrozenSet(StringComparer.Ordinal);
    }
}

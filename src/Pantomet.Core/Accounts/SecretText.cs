using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;

namespace Pantomet.Core.Accounts;

/// <summary>
/// A secret that is shown once and stored as its hash only: a link, or a token of a program. It has 256 random bits, so that a plain hash is
/// enough: there is nothing to guess (OWASP ASVS 5.0, 6.5.2 asks for at least 112 bits).
/// </summary>
public static class SecretText
{
    private const int Bytes = 32;

    /// <summary>How programs' tokens begin, so that one that was left in a file is found by search.</summary>
    public const string TokenPrefix = "pmt_";

    /// <summary>A new secret: 43 letters, digits, "-" and "_".</summary>
    public static string Make() => Base64Url.EncodeToString(RandomNumberGenerator.GetBytes(Bytes));

    /// <summary>What is stored of a secret: its SHA-256 in hexadecimal.</summary>
    public static string Hash(string secret) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(secret)));

    /// <summary>True when a secret is the one of a hash; takes the same time for each that is wrong.</summary>
    public static bool Is(string secret, string hash)
    {
        ArgumentNullException.ThrowIfNull(hash);
        return CryptographicOperations.FixedTimeEquals(Encoding.ASCII.GetBytes(Hash(secret)), Encoding.ASCII.GetBytes(hash));
    }
}

using Pantomet.Core.Texts;

namespace Pantomet.Core.Markup;

/// <summary>How the addresses of files begin on a page.</summary>
public static class BaseAddress
{
    private const int Longest = 500;

    /// <summary>Reads the beginning of addresses, or says in a sentence what is wrong.</summary>
    /// <param name="text">A whole address, <c>https://site.example/pictures</c>, a path from the root, <c>/pictures</c>, or from the page.</param>
    /// <param name="address">The same with a slash at its end; empty for addresses beside the page.</param>
    /// <param name="error">What is wrong, without a full stop.</param>
    public static bool TryParse(string text, out string address, out string? error)
    {
        ArgumentNullException.ThrowIfNull(text);
        address = text.Trim();
        error =
            address.Length > Longest ? JobTexts.ABaseURLCanHaveAt(Longest)
            : address.Any(letter =>
                char.IsControl(letter) || char.IsWhiteSpace(letter) || letter is '"' or '\'' or '<' or '>' or '\\' or ',' or '(' or ')'
            )
                ? JobTexts.ABaseURLHasNoSpaces
            : address.Contains('?', StringComparison.Ordinal) || address.Contains('#', StringComparison.Ordinal) ? JobTexts.ABaseURLHasNoOr
            : HasScheme(address)
            && !(Uri.TryCreate(address, UriKind.Absolute, out var uri) && uri is { Scheme: "http" or "https", Host.Length: > 0 })
                ? $"\"{address}\" is no address of the web: it begins with http:// or https://, with / for a path of the site, or is a "
                    + JobTexts.PathFromThePage
            : null;
        if (error is null && address.Length > 0 && address[^1] != '/')
        {
            address += "/";
        }

        return error is null;
    }

    // A colon before the first slash ends the name of a scheme (RFC 3986, 4.2).
    private static bool HasScheme(string address) =>
        address.IndexOf(':', StringComparison.Ordinal) is >= 0 and var colon
            && (address.IndexOf('/', StringComparison.Ordinal) is var slash && (slash < 0 || colon < slash))
        || address.StartsWith("//", StringComparison.Ordinal) && address.Length < 3;
}

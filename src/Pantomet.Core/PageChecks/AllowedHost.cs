using System.Globalization;

namespace Pantomet.Core.PageChecks;

/// <summary>
/// A host whose files a page may read: a name with the ports of the web's two schemes. One port of a name says nothing of the others: another
/// program listens there.
/// </summary>
/// <param name="Name">The name or address, in small letters; an address of IPv6 in its brackets.</param>
/// <param name="Scheme">The scheme; null for both.</param>
/// <param name="Port">The port; null for the usual one of the scheme: 80 or 443.</param>
public readonly record struct AllowedHost(string Name, string? Scheme, int? Port)
{
    private const int Http = 80;
    private const int Https = 443;

    /// <summary>The host of an address, with both schemes where the address names no port of its own.</summary>
    /// <param name="address">A whole address of http or https.</param>
    public static AllowedHost Of(Uri address)
    {
        ArgumentNullException.ThrowIfNull(address);
        return address.IsDefaultPort ? new(NameOf(address), null, null) : new(NameOf(address), address.Scheme, address.Port);
    }

    /// <summary>Reads <c>name</c>, <c>name:port</c> or <c>scheme://name:port</c>; false for anything else.</summary>
    /// <param name="text">The text.</param>
    /// <param name="host">The host.</param>
    public static bool TryParse(string? text, out AllowedHost host)
    {
        host = default;
        var trimmed = text?.Trim() ?? "";
        var named = trimmed.Contains("://", StringComparison.Ordinal);
        if (
            trimmed.Any(character => char.IsWhiteSpace(character) || character is '@' or '?' or '#' or ',' or '*')
            || !Uri.TryCreate(named ? trimmed : $"http://{trimmed}", UriKind.Absolute, out var address)
            || address.Scheme is not ("http" or "https")
            || address.Host.Length == 0
            || address.AbsolutePath != "/"
            || (trimmed.EndsWith('/') && !named)
        )
        {
            return false;
        }

        try
        {
            host = new(NameOf(address), named ? address.Scheme : null, PortOf(trimmed));
            return true;
        }
        catch (UriFormatException)
        {
            // Its name is none in any script.
            return false;
        }
    }

    /// <summary>True for an address at this host.</summary>
    /// <param name="address">A whole address.</param>
    public bool Allows(Uri address)
    {
        ArgumentNullException.ThrowIfNull(address);
        return address.Scheme is "http" or "https"
            && (Scheme is null || Scheme == address.Scheme)
            && Name == NameOf(address)
            && address.Port == (Port ?? (address.Scheme == "https" ? Https : Http));
    }

    /// <summary>True for a connection to this host, whatever is spoken through it.</summary>
    /// <param name="name">The name or address.</param>
    /// <param name="port">The port.</param>
    public bool IsAt(string name, int port)
    {
        ArgumentNullException.ThrowIfNull(name);
        return string.Equals(Name.Trim('[', ']'), name.Trim('[', ']'), StringComparison.OrdinalIgnoreCase)
            && (
                Port is { } own ? port == own
                : Scheme is { } scheme ? port == (scheme == "https" ? Https : Http)
                : port is Http or Https
            );
    }

    /// <summary>As people write it.</summary>
    public override string ToString() =>
        $"{(Scheme is null ? "" : Scheme + "://")}{Name}{(Port is { } port ? string.Create(CultureInfo.InvariantCulture, $":{port}") : "")}";

    private static string NameOf(Uri address) =>
        address.IdnHost.Contains(':', StringComparison.Ordinal) ? $"[{address.IdnHost}]" : address.IdnHost.ToLowerInvariant();

    // As it was written: an address with the usual port leaves out which.
    private static int? PortOf(string text)
    {
        var authority = text.Contains("://", StringComparison.Ordinal) ? text[(text.IndexOf("://", StringComparison.Ordinal) + 3)..] : text;
        var end = authority.TrimEnd('/');
        var colon = end.LastIndexOf(':');
        return
            colon > end.LastIndexOf(']') && int.TryParse(end[(colon + 1)..], NumberStyles.None, CultureInfo.InvariantCulture, out var port)
            ? port
            : null;
    }
}

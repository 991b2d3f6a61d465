using Microsoft.Extensions.Logging;
using Pantomet.Application;

namespace Pantomet.Server;

/// <summary>How a server is to run.</summary>
public sealed record ServerOptions : WorkOptions
{
    /// <summary>The folder of the built client; null serves the API alone.</summary>
    public string? Client { get; init; }

    /// <summary>A folder that is shown under <c>/example/</c>, as a web server would; null for none.</summary>
    public string? Example { get; init; }

    /// <summary>The address to listen on.</summary>
    public string Host { get; init; } = "127.0.0.1";

    /// <summary>The port; 0 takes a free one.</summary>
    public int Port { get; init; } = 5460;

    /// <summary>How long a sender of a request may send nothing before it is given up.</summary>
    public TimeSpan LongestSilence { get; init; } = TimeSpan.FromSeconds(15);

    /// <summary>What is logged: this and worse.</summary>
    public LogLevel LogLevel { get; init; } = LogLevel.Warning;

    /// <summary>True when people sign in although only this machine reaches the server.</summary>
    public bool Accounts { get; init; }

    /// <summary>The certificate for TLS: a PEM or PFX file; null to answer without TLS.</summary>
    public string? Certificate { get; init; }

    /// <summary>The private key of a PEM certificate, when it is in another file.</summary>
    public string? CertificateKey { get; init; }

    /// <summary>The addresses of proxies in front of the server, as networks; whatever others say of where a request came from is not believed.</summary>
    public IReadOnlyList<System.Net.IPNetwork> Proxies { get; init; } = [];

    /// <summary>How many requests are answered, where people sign in.</summary>
    public RequestLimits Limits { get; init; } = new();

    /// <summary>True when people sign in: others than this machine reach the server, or it was asked for.</summary>
    public bool PeopleSignIn => Accounts || !IsLocal || Proxies.Count > 0;

    /// <summary>True when the server itself answers with TLS.</summary>
    public bool HasTls => Certificate is not null;

    /// <summary>True when only this machine can reach the server.</summary>
    public bool IsLocal => Host is "127.0.0.1" or "localhost" or "::1" or "[::1]";
}

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

    /// <summary>True when only this machine can reach the server.</summary>
    public bool IsLocal => Host is "127.0.0.1" or "localhost" or "::1" or "[::1]";
}

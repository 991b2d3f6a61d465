namespace Pantomet.Server;

/// <summary>How a server is to run.</summary>
public sealed record ServerOptions
{
    /// <summary>The data folder, made if missing.</summary>
    public required string Data { get; init; }

    /// <summary>The folder of the built client; null serves the API alone.</summary>
    public string? Client { get; init; }

    /// <summary>The address to listen on.</summary>
    public string Host { get; init; } = "127.0.0.1";

    /// <summary>The port; 0 takes a free one.</summary>
    public int Port { get; init; } = 5460;

    /// <summary>The most bytes of one upload: 200 MB unless set otherwise.</summary>
    public long MostUploadBytes { get; init; } = 200_000_000;

    /// <summary>The program whose <c>work</c> call carries out imaging orders in a process of its own.</summary>
    public string Engine { get; init; } = Path.Combine(AppContext.BaseDirectory, "pantomet.dll");

    /// <summary>How many imaging processes work at once.</summary>
    public int Workers { get; init; } = Environment.ProcessorCount;

    /// <summary>How long one order may take before its process is ended: two minutes unless set otherwise.</summary>
    public TimeSpan LongestOrder { get; init; } = TimeSpan.FromMinutes(2);

    /// <summary>The most memory one imaging process may take, in bytes: 3 GB unless set otherwise.</summary>
    public long MostEngineBytes { get; init; } = 3_000_000_000;

    /// <summary>True when only this machine can reach the server.</summary>
    public bool IsLocal => Host is "127.0.0.1" or "localhost" or "::1" or "[::1]";
}

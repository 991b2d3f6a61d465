namespace Pantomet.Server;

/// <summary>How many requests are answered of one address, or of one person: each kind has its own limit, so that one does not use up another.</summary>
public sealed record RequestLimits
{
    /// <summary>Sign-ins, links and changes of one's account, in a minute and from one address.</summary>
    public int SignIns { get; init; } = 20;

    /// <summary>Pictures and files that are sent, in a minute and by one person.</summary>
    public int Uploads { get; init; } = 1200;

    /// <summary>Fetches of live links, in a minute and from one address. One page can have hundreds of pictures.</summary>
    public int LiveLinks { get; init; } = 6000;
}

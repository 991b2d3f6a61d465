using System.Collections.Concurrent;
using System.Net;
using System.Net.Sockets;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Texts;

namespace Pantomet.Application.Background;

/// <summary>Which hosts of this machine, or of its own network, may be reached.</summary>
public sealed class PrivateHosts
{
    private readonly IReadOnlyList<AllowedHost>? _only;

    private PrivateHosts(IReadOnlyList<AllowedHost>? only) => _only = only;

    /// <summary>All: whoever names one sits at this machine.</summary>
    public static PrivateHosts All { get; } = new(null);

    /// <summary>These, and none else.</summary>
    public static PrivateHosts Only(IEnumerable<AllowedHost> hosts) => new([.. hosts]);

    /// <summary>Those that the owner of a server allowed.</summary>
    public static PrivateHosts Of(WorkOptions options) => options.ReachesPrivate ? All : Only(Hosts(options.PrivateHosts));

    /// <summary>The hosts that texts name.</summary>
    public static IEnumerable<AllowedHost> Hosts(IEnumerable<string> texts) =>
        texts.Select(text => AllowedHost.TryParse(text, out var host) ? host : default).Where(host => host.Name is not null);

    /// <summary>True for a port of a host that may be reached though it is private.</summary>
    public bool Allow(string host, int port) => _only is null || _only.Any(one => one.IsAt(host, port));
}

/// <summary>
/// Connections to hosts that the user named. Each name is looked up once and stays what it was: an answer that changes leads nowhere else. Private
/// addresses are connected to only at hosts that may be private, whatever a name leads to.
/// </summary>
/// <param name="allowed">The hosts that may be private.</param>
public sealed class HostReach(PrivateHosts allowed)
{
    /// <summary>What is said where a host lies in a private network.</summary>
    public const string IsPrivate = PictureTexts.TheAddressIsInAPrivate;

    private readonly ConcurrentDictionary<string, Lazy<Task<IPAddress[]>>> _found = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>The addresses of a host that may be connected to.</summary>
    /// <exception cref="IOException">All are private, and none of those may be reached.</exception>
    public async Task<IPAddress[]> AddressesAsync(string host, int port, CancellationToken cancel)
    {
        var plain = host.Trim('[', ']');
        var pinned = _found.GetOrAdd(plain, name => new(() => Dns.GetHostAddressesAsync(name, CancellationToken.None)));
        IPAddress[] addresses;
        try
        {
            addresses = await pinned.Value.WaitAsync(cancel);
        }
        catch (SocketException)
        {
            // That nothing was found is no answer to hold to.
            _found.TryRemove(new(plain, pinned));
            throw;
        }

        var reached = allowed.Allow(plain, port) ? addresses : [.. addresses.Where(address => !PrivateAddress.Is(address))];
        return reached.Length > 0 ? reached : throw new IOException(IsPrivate);
    }

    /// <summary>How such hosts are asked over HTTP: no other place is followed, and nothing is remembered.</summary>
    /// <param name="longest">How long a connection may take.</param>
    public SocketsHttpHandler Handler(TimeSpan longest) =>
        new()
        {
            AllowAutoRedirect = false,
            UseCookies = false,
            UseProxy = false,
            ConnectTimeout = longest,
            ConnectCallback = (context, cancel) => ConnectAsync(context.DnsEndPoint, cancel),
        };

    /// <summary>Reads what was answered; null beyond what is taken, whatever length was told.</summary>
    /// <param name="content">What was answered.</param>
    /// <param name="most">The most bytes of it.</param>
    /// <param name="takes">Told how many bytes came; false where they are too many for another reason.</param>
    /// <param name="cancel">Stops.</param>
    public static async Task<byte[]?> ReadAsync(HttpContent content, long most, Func<int, bool> takes, CancellationToken cancel)
    {
        await using var stream = await content.ReadAsStreamAsync(cancel);
        using var held = new MemoryStream();
        var part = new byte[81_920];
        int read;
        while ((read = await stream.ReadAsync(part, cancel)) > 0)
        {
            if (held.Length + read > most || !takes(read))
            {
                return null;
            }

            held.Write(part, 0, read);
        }

        return held.ToArray();
    }

    private async ValueTask<Stream> ConnectAsync(DnsEndPoint to, CancellationToken cancel)
    {
        var reached = await AddressesAsync(to.Host, to.Port, cancel);
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync(reached, to.Port, cancel);
            return new NetworkStream(socket, ownsSocket: true);
        }
        catch
        {
            socket.Dispose();
            throw;
        }
    }
}

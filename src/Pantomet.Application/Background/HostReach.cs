using System.Net;
using System.Net.Sockets;
using Pantomet.Application.PageChecks;

namespace Pantomet.Application.Background;

/// <summary>
/// Connections to hosts that the user named: each name is looked up once a connection, and where private addresses are not allowed none of those
/// is connected to, whatever a name leads to.
/// </summary>
internal static class HostReach
{
    /// <summary>What is said where a host lies in a private network.</summary>
    public const string IsPrivate = "It lies in a private network, which is not reached from here.";

    /// <summary>The addresses of a host that may be connected to.</summary>
    /// <exception cref="IOException">All are private, and none of those may be reached.</exception>
    public static async Task<IPAddress[]> AddressesAsync(string host, bool reachesPrivate, CancellationToken cancel)
    {
        var addresses = await Dns.GetHostAddressesAsync(host.Trim('[', ']'), cancel);
        var reached = addresses.Where(address => reachesPrivate || !PrivateAddress.Is(address)).ToArray();
        return reached.Length > 0 ? reached : throw new IOException(IsPrivate);
    }

    /// <summary>How such hosts are asked over HTTP: no other place is followed, and nothing is remembered.</summary>
    /// <param name="longest">How long a connection may take.</param>
    /// <param name="reachesPrivate">True where hosts of the machine's own network may be reached.</param>
    public static SocketsHttpHandler Handler(TimeSpan longest, bool reachesPrivate) =>
        new()
        {
            AllowAutoRedirect = false,
            UseCookies = false,
            UseProxy = false,
            ConnectTimeout = longest,
            ConnectCallback = (context, cancel) => ConnectAsync(context.DnsEndPoint, reachesPrivate, cancel),
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

    private static async ValueTask<Stream> ConnectAsync(DnsEndPoint to, bool reachesPrivate, CancellationToken cancel)
    {
        var reached = await AddressesAsync(to.Host, reachesPrivate, cancel);
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

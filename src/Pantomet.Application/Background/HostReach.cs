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

    /// <summary>Connects to a host.</summary>
    public static async ValueTask<Stream> ConnectAsync(DnsEndPoint to, bool reachesPrivate, CancellationToken cancel)
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

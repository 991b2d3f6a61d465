using System.Net;
using System.Net.Sockets;

namespace Pantomet.Application.Background;

/// <summary>Tells addresses that only a machine or its own network reaches (IANA special-purpose address registries, RFC 6890).</summary>
public static class PrivateAddress
{
    private static readonly IPNetwork[] Networks =
    [
        .. new[]
        {
            "0.0.0.0/8",
            "10.0.0.0/8",
            "100.64.0.0/10",
            "127.0.0.0/8",
            "169.254.0.0/16",
            "172.16.0.0/12",
            "192.0.0.0/24",
            "192.168.0.0/16",
            "198.18.0.0/15",
            "224.0.0.0/3",
            "::/128",
            "::1/128",
            "64:ff9b::/96",
            "64:ff9b:1::/48",
            "fc00::/7",
            "fe80::/10",
            "ff00::/8",
        }.Select(IPNetwork.Parse),
    ];

    /// <summary>True for one that is not reached from everywhere.</summary>
    public static bool Is(IPAddress address)
    {
        var plain = address.IsIPv4MappedToIPv6 ? address.MapToIPv4() : address;
        return plain.AddressFamily is not (AddressFamily.InterNetwork or AddressFamily.InterNetworkV6)
            || Networks.Any(network => network.BaseAddress.AddressFamily == plain.AddressFamily && network.Contains(plain));
    }
}

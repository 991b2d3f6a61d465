using System.Net;
using System.Net.Sockets;

namespace Pantomet.Tests.Shared;

/// <summary>Starts a small HTTP listener of a test on a free port of this machine.</summary>
internal static class LoopbackHttp
{
    private const int MostTries = 20;

    /// <summary>A started listener for every path under <c>http://127.0.0.1:port/</c>.</summary>
    /// <param name="port">The port that was free.</param>
    /// <exception cref="HttpListenerException">No port could be had in 20 tries.</exception>
    internal static HttpListener Start(out int port)
    {
        for (var tries = 1; ; tries++)
        {
            port = FreePort();
            // A listener whose start failed cannot be started again: each try has its own.
            var listener = new HttpListener();
            try
            {
                listener.Prefixes.Add($"http://127.0.0.1:{port}/");
                listener.Start();
                return listener;
            }
            catch (HttpListenerException) when (tries < MostTries)
            {
                // Another program took the port between the question and the start.
                listener.Close();
            }
        }
    }

    // A listener of HTTP cannot ask the system for a free port, so a plain one asks for it.
    private static int FreePort()
    {
        using var free = new TcpListener(IPAddress.Loopback, 0);
        free.Start();
        return ((IPEndPoint)free.LocalEndpoint).Port;
    }
}

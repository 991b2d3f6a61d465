using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Pantomet.Server.Tests;

/// <summary>A receiver over HTTP that behaves as it is told: it reads a request and writes whatever bytes it likes, or none.</summary>
internal sealed class OddReceiver : IDisposable
{
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly CancellationTokenSource _stop = new();
    private readonly List<string> _requests = [];

    /// <param name="answer">Given the count of a request from 1 and its first line; gives what is written, null to say nothing at all.</param>
    public OddReceiver(Func<int, string, string?> answer)
    {
        _listener.Start();
        _ = Task.Run(async () =>
        {
            while (!_stop.IsCancellationRequested)
            {
                var client = await _listener.AcceptTcpClientAsync(_stop.Token);
                _ = Task.Run(() => ServeAsync(client, answer));
            }
        });
    }

    public string Address => $"http://{_listener.LocalEndpoint}";

    /// <summary>The first lines of what was asked.</summary>
    public IReadOnlyList<string> Requests
    {
        get
        {
            lock (_requests)
            {
                return [.. _requests];
            }
        }
    }

    public void Dispose()
    {
        _stop.Cancel();
        _listener.Dispose();
        _stop.Dispose();
    }

    private async Task ServeAsync(TcpClient client, Func<int, string, string?> answer)
    {
        using (client)
        {
            var stream = client.GetStream();
            var (head, length) = await HeadAsync(stream);
            var body = new byte[81_920];
            while (length > 0 && await stream.ReadAsync(body.AsMemory(0, (int)Math.Min(length, body.Length))) is > 0 and var read)
            {
                length -= read;
            }

            int count;
            lock (_requests)
            {
                _requests.Add(head);
                count = _requests.Count;
            }

            if (answer(count, head) is not { } text)
            {
                await Task.Delay(TimeSpan.FromSeconds(30), _stop.Token).ContinueWith(_ => { }, TaskScheduler.Default);
                return;
            }

            await stream.WriteAsync(Encoding.Latin1.GetBytes(text));
            client.Client.Shutdown(SocketShutdown.Send);
            await Task.Delay(50);
        }
    }

    private static async Task<(string First, long Length)> HeadAsync(NetworkStream stream)
    {
        var head = new StringBuilder();
        var one = new byte[1];
        while (!head.ToString().EndsWith("\r\n\r\n", StringComparison.Ordinal) && await stream.ReadAsync(one) == 1)
        {
            head.Append((char)one[0]);
        }

        var lines = head.ToString().Split("\r\n");
        var length = lines.FirstOrDefault(line => line.StartsWith("Content-Length:", StringComparison.OrdinalIgnoreCase));
        return (lines[0], length is null ? 0 : long.Parse(length.Split(':')[1].Trim(), System.Globalization.CultureInfo.InvariantCulture));
    }
}

using Pantomet.Core.Texts;
using PuppeteerSharp.Transport;

namespace Pantomet.Browsing;

/// <summary>
/// Speaks with a browser through its pipes, a message ending with a zero byte. No port is opened: nothing else on the machine can speak with it,
/// and it needs no network.
/// </summary>
/// <param name="told">What the browser says.</param>
/// <param name="asked">What is said to it.</param>
internal sealed class PipeTransport(Stream told, Stream asked) : IConnectionTransport
{
    // A message with a picture of a long page in it; what is longer is none of ours.
    private const int LongestMessage = 400_000_000;

#pragma warning disable CA2213 // Both hold no handles, and whoever is still at it may use them.
    private readonly SemaphoreSlim _one = new(1);
    private readonly CancellationTokenSource _stop = new();
#pragma warning restore CA2213

    public event EventHandler<MessageReceivedEventArgs>? MessageReceived;

    public event EventHandler<TransportClosedEventArgs>? Closed;

    public bool IsClosed { get; private set; }

    /// <summary>Begins to listen.</summary>
    public void Start() => _ = Task.Run(ListenAsync);

    public async Task SendAsync(byte[] message)
    {
        await _one.WaitAsync();
        try
        {
            await asked.WriteAsync((byte[])[.. message, 0]);
            await asked.FlushAsync();
        }
        finally
        {
            _one.Release();
        }
    }

    public void StopReading() => _stop.Cancel();

    // Called more than once; what it holds are no handles.
    public void Dispose()
    {
        IsClosed = true;
        _stop.Cancel();
    }

    private async Task ListenAsync()
    {
        var reason = PageTexts.TheBrowserEnded;
        try
        {
            var part = new byte[65_536];
            using var message = new MemoryStream();
            int read;
            while ((read = await told.ReadAsync(part, _stop.Token)) > 0)
            {
                var rest = part.AsMemory(0, read);
                while (rest.Span.IndexOf((byte)0) is >= 0 and var end)
                {
                    message.Write(rest.Span[..end]);
                    MessageReceived?.Invoke(this, new(message.ToArray()));
                    message.SetLength(0);
                    rest = rest[(end + 1)..];
                }

                message.Write(rest.Span);
                if (message.Length > LongestMessage)
                {
                    reason = PageTexts.TheBrowserSentMoreDataThan;
                    break;
                }

                if (message.Length == 0 && message.Capacity > part.Length)
                {
                    message.Capacity = 0;
                }
            }
        }
        catch (Exception fault) when (fault is IOException or OperationCanceledException or ObjectDisposedException)
        {
            reason = fault.Message;
        }

        IsClosed = true;
        Closed?.Invoke(this, new(reason));
    }
}

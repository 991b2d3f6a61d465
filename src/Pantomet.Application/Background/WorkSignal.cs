using System.Threading.Channels;

namespace Pantomet.Application.Background;

/// <summary>Wakes who waits for work; ringing it twice wakes once.</summary>
public class WorkSignal
{
    private readonly Channel<bool> _rings = Channel.CreateBounded<bool>(
        new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite }
    );

    /// <summary>Says that there may be work.</summary>
    public void Ring() => _rings.Writer.TryWrite(true);

    /// <summary>Waits until it rings, or so long.</summary>
    public async Task WaitAsync(TimeSpan most, CancellationToken cancel)
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        either.CancelAfter(most);
        try
        {
            await _rings.Reader.ReadAsync(either.Token);
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            // Nothing rang.
        }
    }
}

using System.Threading.Channels;

namespace Pantomet.Application.Jobs;

/// <summary>Wakes who waits for work; ringing it twice wakes once.</summary>
public sealed class JobNotifier
{
    private readonly Channel<bool> _rings = Channel.CreateBounded<bool>(
        new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite }
    );

    /// <summary>Takes over what was stored, tells it, and rings.</summary>
    public void Take(JobChange change)
    {
        ArgumentNullException.ThrowIfNull(change);
        change.Take();
        Ring();
    }

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

namespace Pantomet.Imaging.Making;

/// <summary>
/// Where heavy work is done: never more of it at once than there are cores, and never more decoded pixels held than a set amount. What
/// waits holds nothing.
/// </summary>
public sealed class WorkRoom
{
    /// <summary>The most bytes of decoded pixels that are held at once: 500 million.</summary>
    public const long UsualBytes = 500_000_000;

    private readonly TaskFactory _factory;
    private readonly long _most;
    private readonly Lock _gate = new();
    private readonly Queue<(long Bytes, TaskCompletionSource Ready)> _waiting = new();
    private long _held;

    /// <summary>Makes a room.</summary>
    /// <param name="workers">How many pieces of work are done at once.</param>
    /// <param name="mostBytes">The most bytes of decoded pixels; one picture alone may be larger.</param>
    public WorkRoom(int workers, long mostBytes = UsualBytes)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(workers, 1);
        ArgumentOutOfRangeException.ThrowIfLessThan(mostBytes, 1);
        _most = mostBytes;
        Workers = workers;
        _factory = new(new ConcurrentExclusiveSchedulerPair(TaskScheduler.Default, workers).ConcurrentScheduler);
    }

    /// <summary>How many pieces of work are done at once.</summary>
    public int Workers { get; }

    /// <summary>Bytes of decoded pixels that are held now.</summary>
    public long Held
    {
        get
        {
            lock (_gate)
            {
                return _held;
            }
        }
    }

    /// <summary>Does a piece of work when a worker is free.</summary>
    public Task<T> RunAsync<T>(Func<T> work, CancellationToken cancel) => _factory.StartNew(work, cancel);

    /// <summary>Waits until so many bytes may be held, in the order of asking; dispose the result to give them back.</summary>
    public async Task<IDisposable> HoldAsync(long bytes, CancellationToken cancel)
    {
        var ready = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        lock (_gate)
        {
            _waiting.Enqueue((bytes, ready));
            LetIn();
        }

        using (cancel.Register(() => ready.TrySetCanceled(cancel)))
        {
            await ready.Task;
        }

        return new Holding(this, bytes);
    }

    // A picture larger than the whole amount goes in when it is alone.
    private void LetIn()
    {
        while (_waiting.TryPeek(out var next) && (_held == 0 || _held + next.Bytes <= _most))
        {
            _waiting.Dequeue();
            if (next.Ready.TrySetResult())
            {
                _held += next.Bytes;
            }
        }
    }

    private void GiveBack(long bytes)
    {
        lock (_gate)
        {
            _held -= bytes;
            LetIn();
        }
    }

    private sealed class Holding(WorkRoom room, long bytes) : IDisposable
    {
        private int _given;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref _given, 1) == 0)
            {
                room.GiveBack(bytes);
            }
        }
    }
}

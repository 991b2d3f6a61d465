using Pantomet.Imaging.Hosting;

namespace Pantomet.Server.Engine;

/// <summary>
/// The imaging library at work, in processes of their own: strangers' files are decoded there, and a crash, a hang or a flood of memory
/// ends that process and the one order, not the server. As many as there are cores for the background and as many for what a
/// person waits for; each does one order at a time.
/// </summary>
internal sealed class EngineRoom(ServerOptions options) : IAsyncDisposable
{
    /// <summary>What is said when the process ended under an order.</summary>
    public const string Crashed = "The imaging library failed on this picture and was started again. The picture is probably damaged on purpose or by accident.";

    private readonly SemaphoreSlim _free = new(options.Workers, options.Workers);
    // What a person waits for does not stand in line behind the background's work.
    private readonly SemaphoreSlim _urgent = new(options.Workers, options.Workers);
    private readonly Lock _gate = new();
    private readonly LinkedList<EngineProcess> _idle = new();
    private readonly HashSet<EngineProcess> _all = [];
    private bool _closed;

    /// <summary>The processes that run now.</summary>
    public IReadOnlyList<int> ProcessIds
    {
        get
        {
            lock (_gate)
            {
                return [.. _all.Select(engine => engine.Id)];
            }
        }
    }

    /// <summary>Has an order carried out. An order that ends its process comes back as a refusal.</summary>
    /// <param name="order">The order.</param>
    /// <param name="cancel">Stops between encodes.</param>
    /// <param name="urgent">True when a person waits for it.</param>
    /// <param name="meanwhile">Told what is known before the outcome is.</param>
    public async Task<Outcome> RunAsync(Order order, CancellationToken cancel, bool urgent = false, Action<Outcome>? meanwhile = null)
    {
        var line = urgent ? _urgent : _free;
        await line.WaitAsync(cancel);
        EngineProcess? engine = null;
        try
        {
            engine = Take(order is VariantOrder or CurveOrder ? order.Path : null);
            // Alone, it may use every core.
            var alone = _free.CurrentCount + _urgent.CurrentCount == 2 * options.Workers - 1;
            var outcome = await engine.RunAsync(order with { Threads = alone ? options.Workers : 1 }, meanwhile, cancel);
            if (outcome is not null)
            {
                Return(engine);
                engine = null;
                cancel.ThrowIfCancellationRequested();
                return outcome;
            }

            return new() { Refusal = Crashed };
        }
        finally
        {
            if (engine is not null)
            {
                lock (_gate)
                {
                    _all.Remove(engine);
                }

                await engine.DisposeAsync();
            }

            line.Release();
        }
    }

    public async ValueTask DisposeAsync()
    {
        List<EngineProcess> all;
        lock (_gate)
        {
            _closed = true;
            all = [.. _all];
            _all.Clear();
            _idle.Clear();
        }

        foreach (var engine in all)
        {
            await engine.DisposeAsync();
        }

        _free.Dispose();
        _urgent.Dispose();
    }

    // The process that worked on the same picture last still has its pixels at hand; what needs no pixels leaves them there.
    private EngineProcess Take(string? path)
    {
        lock (_gate)
        {
            ObjectDisposedException.ThrowIf(_closed, this);
            DropTheDead();
            var node = path is null ? null : _idle.First;
            while (node is not null && node.Value.Holds != path)
            {
                node = node.Next;
            }

            // Starting one costs more than a decode.
            node ??= _idle.Last;
            if (node is not null)
            {
                _idle.Remove(node);
                return node.Value;
            }

            var engine = EngineProcess.Start(options);
            _all.Add(engine);
            return engine;
        }
    }

    // One that ended while it had nothing to do must not cost the next order.
    private void DropTheDead()
    {
        foreach (var dead in _idle.Where(engine => !engine.IsAlive).ToList())
        {
            _idle.Remove(dead);
            _all.Remove(dead);
        }
    }

    private void Return(EngineProcess engine)
    {
        lock (_gate)
        {
            if (!_closed)
            {
                _idle.AddFirst(engine);
            }
        }
    }
}

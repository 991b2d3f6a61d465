using Microsoft.Extensions.Logging;
using Microsoft.Extensions.Logging.Abstractions;
using Pantomet.Core.Texts;
using Pantomet.Imaging;
using Pantomet.Imaging.Hosting;

namespace Pantomet.Application.Engine;

/// <summary>
/// The imaging library at work, in processes of their own: strangers' files are decoded there, and a crash, a hang or a flood of memory
/// ends that process and the one order, not the server. As many as there are cores for the background and as many for what a
/// person waits for; each does one order at a time. One more has the network that looks for subjects: it is held once, and lets reading in
/// go first.
/// </summary>
public sealed partial class ImagingProcessPool(WorkOptions options, ILogger<ImagingProcessPool>? log = null, TimeProvider? clock = null)
    : IAsyncDisposable
{
    /// <summary>What is said when the process ended under an order.</summary>
    public const string Crashed = PictureTexts.TheImagingProcessEndedWhileIt;

    /// <summary>What is said when an order took too long.</summary>
    public const string TookTooLong = PictureTexts.ThisPictureTookLongerThanIs;

    /// <summary>What is said when an order took too much memory.</summary>
    public const string TookTooMuch = PictureTexts.ThisPictureNeededMoreMemoryThan;

    private const int MostTries = 3;

    private readonly SemaphoreSlim _free = new(options.Workers, options.Workers);

    // What a person waits for does not stand in line behind the background's work.
    private readonly SemaphoreSlim _urgent = new(options.Workers, options.Workers);
    private readonly SemaphoreSlim _looking = new(1, 1);
    private readonly Lock _gate = new();
    private readonly LinkedList<ImagingProcess> _idle = new();
    private readonly HashSet<ImagingProcess> _all = [];
    private ImagingProcess? _looker;
    private int _reading;
    private readonly ILogger _log = log ?? (ILogger)NullLogger.Instance;
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

    /// <summary>
    /// Has an order carried out. An order that ends its process comes back as a failure; what keeps no file is given to another process
    /// first, since it may have been
    /// none of its fault.
    /// </summary>
    /// <param name="request">The order.</param>
    /// <param name="cancel">Stops between encodes.</param>
    /// <param name="urgent">True when a person waits for it.</param>
    /// <param name="meanwhile">Told what is known before the outcome is.</param>
    public async Task<ImagingResponse> RunAsync(
        ImagingRequest request,
        CancellationToken cancel,
        bool urgent = false,
        Action<ImagingResponse>? meanwhile = null
    )
    {
        var reads = request is ReadRequest ? 1 : 0;
        Interlocked.Add(ref _reading, reads);
        try
        {
            for (var tries = 1; ; tries++)
            {
                var response = await TryAsync(request, urgent, meanwhile, cancel);
                if (request is VariantRequest || response.Failure != ImagingFailure.Crashed || tries == MostTries)
                {
                    return response;
                }
            }
        }
        finally
        {
            Interlocked.Add(ref _reading, -reads);
        }
    }

    private async Task<ImagingResponse> TryAsync(
        ImagingRequest request,
        bool urgent,
        Action<ImagingResponse>? meanwhile,
        CancellationToken cancel
    )
    {
        var line =
            request is DetectSubjectRequest ? _looking
            : urgent ? _urgent
            : _free;
        await line.WaitAsync(cancel);
        ImagingProcess? engine = null;
        try
        {
            if (request is DetectSubjectRequest)
            {
                await LetReadingGoFirstAsync(cancel);
            }

            engine = request is DetectSubjectRequest ? TakeLooker() : Take(request is VariantRequest or CurveRequest ? request.Path : null);
            // Alone, it may use every core.
            var alone = request is DetectSubjectRequest || _free.CurrentCount + _urgent.CurrentCount == 2 * options.Workers - 1;
            var (response, failure) = await engine.RunAsync(
                request with
                {
                    Threads = alone ? options.Workers : 1,
                    SideFiles = options.SideFiles,
                },
                meanwhile,
                cancel
            );
            if (response is not null)
            {
                if (!response.Ends)
                {
                    Return(engine, request);
                    engine = null;
                }

                cancel.ThrowIfCancellationRequested();
                return response;
            }

            ProcessEnded(_log, engine.Id, failure, request.GetType().Name);
            return ImagingResponse.Failed(
                failure,
                failure switch
                {
                    ImagingFailure.TimedOut => TookTooLong,
                    ImagingFailure.TooLarge => TookTooMuch,
                    _ => Crashed,
                }
            );
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

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        List<ImagingProcess> all;
        lock (_gate)
        {
            _closed = true;
            all = [.. _all];
            _all.Clear();
            _idle.Clear();
            _looker = null;
        }

        foreach (var engine in all)
        {
            await engine.DisposeAsync();
        }

        _free.Dispose();
        _urgent.Dispose();
        _looking.Dispose();
    }

    // The process that worked on the same picture last still has its pixels at hand; what needs no pixels leaves them there.
    private ImagingProcess Take(string? path)
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

            return Begin();
        }
    }

    // For a while: somebody who reads in without end must not wait for subjects without end.
    private async Task LetReadingGoFirstAsync(CancellationToken cancel)
    {
        const int looks = 20;
        for (var i = 0; i < looks && Volatile.Read(ref _reading) > 0; i++)
        {
            await Task.Delay(TimeSpan.FromMilliseconds(100), cancel);
        }
    }

    private ImagingProcess TakeLooker()
    {
        lock (_gate)
        {
            ObjectDisposedException.ThrowIf(_closed, this);
            var looker = _looker;
            _looker = null;
            if (looker is { IsAlive: true })
            {
                return looker;
            }

            if (looker is not null)
            {
                _all.Remove(looker);
            }

            return Begin();
        }
    }

    private ImagingProcess Begin()
    {
        var engine = ImagingProcess.Start(options, clock ?? TimeProvider.System, (id, line) => Says(id, line));
        _all.Add(engine);
        return engine;
    }

    // What the library says of a file that is refused is no trouble of ours.
    private void Says(int process, string line)
    {
        if (line.StartsWith(ImagingFault.Prefix, StringComparison.Ordinal))
        {
            LibrarySays(_log, process, line);
        }
        else
        {
            ProcessSays(_log, process, line);
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

    private void Return(ImagingProcess engine, ImagingRequest request)
    {
        lock (_gate)
        {
            if (_closed)
            {
                return;
            }

            if (request is DetectSubjectRequest)
            {
                _looker = engine;
            }
            else
            {
                _idle.AddFirst(engine);
            }
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "Imaging process {Process}: {Line}")]
    private static partial void ProcessSays(ILogger log, int process, string line);

    [LoggerMessage(Level = LogLevel.Information, Message = "Imaging process {Process}: {Line}")]
    private static partial void LibrarySays(ILogger log, int process, string line);

    [LoggerMessage(Level = LogLevel.Warning, Message = "Imaging process {Process} was given up ({Failure}) during {Request}.")]
    private static partial void ProcessEnded(ILogger log, int process, ImagingFailure failure, string request);
}

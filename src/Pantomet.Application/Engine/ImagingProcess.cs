using System.ComponentModel;
using System.Diagnostics;
using System.Text.Json;
using Pantomet.Imaging;
using Pantomet.Imaging.Hosting;
using Pantomet.Platform;

namespace Pantomet.Application.Engine;

/// <summary>One process that carries out orders: a line in, a line out.</summary>
public sealed class ImagingProcess : IAsyncDisposable
{
    private static readonly TimeSpan Look = TimeSpan.FromMilliseconds(200);

    private readonly Process _process;
    private readonly WorkOptions _options;
    private readonly TimeProvider _clock;

    private volatile bool _outOfMemory;

    private ImagingProcess(Process process, WorkOptions options, TimeProvider clock) =>
        (_process, _options, _clock) = (process, options, clock);

    /// <summary>The process id.</summary>
    public int Id => _process.Id;

    /// <summary>False when the process ended, whatever ended it.</summary>
    public bool IsAlive => !_process.HasExited;

    /// <summary>The picture whose pixels it holds.</summary>
    public string? Holds { get; private set; }

    /// <summary>Starts one.</summary>
    /// <param name="options">Its limits.</param>
    /// <param name="clock">Tells how long it takes.</param>
    /// <param name="says">Told what it says besides its outcomes, line by line.</param>
    public static ImagingProcess Start(WorkOptions options, TimeProvider clock, Action<int, string> says)
    {
        var start = Call(options.Engine, "work");
        start.RedirectStandardInput = true;
        start.RedirectStandardOutput = true;
        start.RedirectStandardError = true;
        start.UseShellExecute = false;
        // The pixels live in native memory: fewer arenas give more of it back.
        start.Environment["MALLOC_ARENA_MAX"] = "2";
        start.Environment["DOTNET_gcConcurrent"] = "0";
        // The system holds what is looked at here too, and a little more: who is looked at in time is told why.
        HelperProcess.Limit(start.Environment, options.MostEngineBytes + WorkOptions.Reserve, options.LongestOrder + WorkOptions.Grace);
        var process = Process.Start(start) ?? throw new InvalidOperationException("The imaging process did not start.");
        var engine = new ImagingProcess(process, options, clock);
        process.ErrorDataReceived += (_, said) =>
        {
            if (!string.IsNullOrWhiteSpace(said.Data))
            {
                // What the library says of one picture that was refused is told with that picture, and ends no process.
                engine._outOfMemory |=
                    !said.Data.StartsWith(ImagingFault.Prefix, StringComparison.Ordinal) && HelperProcess.SaysOutOfMemory(said.Data);
                says(process.Id, said.Data);
            }
        };
        process.BeginErrorReadLine();
        return engine;
    }

    /// <summary>
    /// Has an order carried out; without an outcome when the process ended, hung or grew over its limit and must not be used again.
    /// </summary>
    /// <param name="request">The order.</param>
    /// <param name="meanwhile">Told what is known before the outcome is.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public async Task<(ImagingResponse? ImagingResponse, ImagingFailure Failure)> RunAsync(
        ImagingRequest request,
        Action<ImagingResponse>? meanwhile,
        CancellationToken cancel
    )
    {
        if (request is VariantRequest or CurveRequest)
        {
            Holds = request.Path;
        }

        try
        {
            await _process.StandardInput.WriteLineAsync(RequestLine.Write(request));
            await _process.StandardInput.FlushAsync(CancellationToken.None);
            var answer = AnswerAsync(meanwhile);
            if (await WatchAsync(answer, cancel) is { } failure)
            {
                return (null, failure);
            }

            return await answer is { } outcome ? (outcome, default) : (null, await WhyAsync());
        }
        catch (Exception ended) when (ended is IOException or JsonException)
        {
            // The pipe is closed, or what came through it last is half a line.
            return (null, await WhyAsync());
        }
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        await EndAsync(_process);
        _process.Dispose();
    }

    /// <summary>Ends a process with all that it started, and waits until it is gone.</summary>
    public static async Task EndAsync(Process process)
    {
        try
        {
            process.Kill(entireProcessTree: true);
            await process.WaitForExitAsync(CancellationToken.None);
        }
        catch (Exception gone) when (gone is InvalidOperationException or Win32Exception)
        {
            // It ended by itself.
        }
    }

    // The first line that is an outcome; null when the process ended before.
    private async Task<ImagingResponse?> AnswerAsync(Action<ImagingResponse>? meanwhile)
    {
        while (await _process.StandardOutput.ReadLineAsync(CancellationToken.None) is { } line)
        {
            var response = RequestLine.Read<ImagingResponse>(line);
            if (response.Weighed is null)
            {
                return response;
            }

            meanwhile?.Invoke(response);
        }

        return null;
    }

    // Waits for the answer; why, when the process must be given up.
    private async Task<ImagingFailure?> WatchAsync(Task answer, CancellationToken cancel)
    {
        var began = _clock.GetTimestamp();
        var stopped = false;
        while (await Task.WhenAny(answer, Task.Delay(Look, _clock, CancellationToken.None)) != answer)
        {
            if (cancel.IsCancellationRequested && !stopped)
            {
                stopped = true;
                await _process.StandardInput.WriteLineAsync();
                await _process.StandardInput.FlushAsync(CancellationToken.None);
            }

            if (_process.HasExited)
            {
                // Its last line may still be on the way.
                return await Task.WhenAny(answer, Task.Delay(Look, _clock, CancellationToken.None)) == answer ? null : await WhyAsync();
            }

            var isLate = _clock.GetElapsedTime(began) > _options.LongestOrder;
            if (isLate || Memory() > _options.MostEngineBytes)
            {
                return isLate ? ImagingFailure.TimedOut : ImagingFailure.TooLarge;
            }
        }

        return null;
    }

    // A process that got no more memory says so last of all, which may still be on its way.
    private async Task<ImagingFailure> WhyAsync()
    {
        for (var i = 0; i < 5 && !_outOfMemory; i++)
        {
            await Task.Delay(Look / 4, _clock, CancellationToken.None);
        }

        return _outOfMemory ? ImagingFailure.TooLarge : ImagingFailure.Crashed;
    }

    // Bytes in memory; 0 when it ended since it was looked at, which the next look finds.
    private long Memory()
    {
        try
        {
            _process.Refresh();
            return _process.WorkingSet64;
        }
        catch (InvalidOperationException)
        {
            return 0;
        }
    }

    /// <summary>A call of this very program: by itself where it brings its runtime, by the .NET host where it does not.</summary>
    /// <param name="program">The program; one that is a library is run by the host.</param>
    /// <param name="words">What it is called with.</param>
    public static ProcessStartInfo Call(string program, params IEnumerable<string> words) =>
        Path.GetExtension(program) == ".dll" ? new(Host(), [program, .. words]) : new(program, words);

    /// <summary>This very program: what stands beside a program that brings its runtime is not run by another one.</summary>
    public static string Self() =>
        Environment.ProcessPath is { } self && Path.GetFileNameWithoutExtension(self) == "pantomet"
            ? self
            : Path.Combine(AppContext.BaseDirectory, "pantomet.dll");

    // The server itself was started by the host, or it is on the path.
    private static string Host() =>
        Environment.ProcessPath is { } self && Path.GetFileNameWithoutExtension(self) == "dotnet"
            ? self
            : Environment.GetEnvironmentVariable("DOTNET_HOST_PATH") ?? "dotnet";
}

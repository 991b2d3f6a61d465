using System.Diagnostics;
using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Engine;
using Pantomet.Core.Texts;
using Pantomet.Platform;

namespace Pantomet.Application.Background;

/// <summary>A line of a process that does long work: how far it is, or how it ended.</summary>
/// <typeparam name="T">How far it is.</typeparam>
/// <param name="Progress">How far it is; null in the last line.</param>
/// <param name="Trouble">Why it could not be done: a sentence; null when it was.</param>
public sealed record WorkLine<T>(T? Progress, string? Trouble)
    where T : class;

/// <summary>Long work in a process of its own: a line in, lines out. The lines are an inner matter and change as they need.</summary>
public static class WorkLines
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    /// <summary>A line.</summary>
    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    /// <summary>Reads a line back.</summary>
    /// <exception cref="JsonException">The line is none of ours.</exception>
    public static T Read<T>(string line) => JsonSerializer.Deserialize<T>(line, Options) ?? throw new JsonException("an empty line");

    /// <summary>Reads what is asked and does it; stops when the reader ends, whatever is under way.</summary>
    /// <typeparam name="TOrder">What is asked.</typeparam>
    /// <typeparam name="T">How far it is.</typeparam>
    /// <param name="asked">What is asked.</param>
    /// <param name="told">Where it is told how far it is.</param>
    /// <param name="does">Does it; gives a sentence where it could not.</param>
    public static async Task ServeAsync<TOrder, T>(
        TextReader asked,
        TextWriter told,
        Func<TOrder, Action<T>, CancellationToken, Task<string?>> does
    )
        where T : class
    {
        ArgumentNullException.ThrowIfNull(asked);
        ArgumentNullException.ThrowIfNull(told);
        ArgumentNullException.ThrowIfNull(does);
        if (await asked.ReadLineAsync() is not { } line)
        {
            return;
        }

        using var stop = new CancellationTokenSource();
        _ = Task.Run(async () =>
        {
            while (await asked.ReadLineAsync(CancellationToken.None) is not null) { }

            await stop.CancelAsync();
        });
        var gate = new Lock();
        HelperProcess.Step();
        void Tell(WorkLine<T> one)
        {
            lock (gate)
            {
                HelperProcess.Step();
                told.WriteLine(Write(one));
                told.Flush();
            }
        }

        string? trouble;
        try
        {
            trouble = await does(Read<TOrder>(line), progress => Tell(new(progress, null)), stop.Token);
        }
        catch (OperationCanceledException)
        {
            trouble = PictureTexts.Stopped;
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            trouble = PictureTexts.FilesCouldNotBeReadOr(fault.Message);
        }

        Tell(new(null, trouble));
        HelperProcess.Done();
    }
}

/// <summary>Has long work done in a process of its own, which ends when it takes too long.</summary>
public sealed partial class WorkCall(WorkOptions options, ILogger<WorkCall> log)
{
    private const string Ended = PictureTexts.TheProcessForThisWorkEnded;
    private const string TooLarge = PictureTexts.ThisNeededMoreMemoryThanIs;
    private const string TooLong = PictureTexts.OneStepTookLongerThanIs;

    /// <summary>Has it done.</summary>
    /// <param name="call">What the process is called with.</param>
    /// <param name="order">What is asked.</param>
    /// <param name="longest">How long it may take; null for as long as it needs.</param>
    /// <param name="tells">Told how far it is.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Why it could not be: a sentence; null when it was.</returns>
    public async Task<string?> RunAsync<TOrder, T>(string call, TOrder order, TimeSpan? longest, Action<T> tells, CancellationToken cancel)
        where T : class
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        if (longest is { } most)
        {
            limit.CancelAfter(most);
        }

        var start = ImagingProcess.Call(options.Engine, call);
        start.RedirectStandardInput = true;
        start.RedirectStandardOutput = true;
        start.RedirectStandardError = true;
        start.UseShellExecute = false;
        start.Environment["MALLOC_ARENA_MAX"] = "2";
        // What it lays down for the time being lies where it can be removed with it.
        var temporary = TemporaryFolder.Make("work", isPassed: true);
        start.Environment["TMPDIR"] = temporary;
        HelperProcess.Limit(
            start.Environment,
            options.MostEngineBytes + WorkOptions.Reserve,
            (longest ?? options.LongestPicture) + WorkOptions.Grace
        );
        using var process = Process.Start(start) ?? throw new InvalidOperationException($"The process for {call} did not start.");
        var outOfMemory = false;
        process.ErrorDataReceived += (_, said) =>
        {
            if (!string.IsNullOrWhiteSpace(said.Data))
            {
                outOfMemory |= HelperProcess.SaysOutOfMemory(said.Data);
                Says(log, call, said.Data);
            }
        };
        process.BeginErrorReadLine();
        try
        {
            await process.StandardInput.WriteLineAsync(WorkLines.Write(order).AsMemory(), limit.Token);
            await process.StandardInput.FlushAsync(limit.Token);
            while (await process.StandardOutput.ReadLineAsync(limit.Token) is { } line)
            {
                var told = WorkLines.Read<WorkLine<T>>(line);
                if (told.Progress is not { } progress)
                {
                    return told.Trouble;
                }

                tells(progress);
            }

            return await WhyAsync(process, () => outOfMemory);
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            return PictureTexts.ThisTookLongerThanMinutesAnd(longest?.TotalMinutes);
        }
        catch (OperationCanceledException)
        {
            return PictureTexts.Stopped;
        }
        catch (Exception fault) when (fault is IOException or JsonException)
        {
            return await WhyAsync(process, () => outOfMemory);
        }
        finally
        {
            // Whatever it started hangs on it and ends with it.
            await ImagingProcess.EndAsync(process);
            TemporaryFolder.Remove(temporary);
        }
    }

    // Why a process ended before it was done: the system ends one that takes too long by a signal of its own.
    private static async Task<string> WhyAsync(Process process, Func<bool> outOfMemory)
    {
        const int alarm = 128 + 14;
        using var limit = new CancellationTokenSource(TimeSpan.FromSeconds(2));
        try
        {
            // What it said last is read to its end first.
            await process.WaitForExitAsync(limit.Token);
        }
        catch (OperationCanceledException)
        {
            return Ended;
        }

        return outOfMemory() ? TooLarge
            : process.ExitCode == alarm ? TooLong
            : Ended;
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "The process for {Call} says: {Said}")]
    private static partial void Says(ILogger log, string call, string said);
}

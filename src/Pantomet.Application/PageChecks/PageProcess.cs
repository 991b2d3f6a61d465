using System.Diagnostics;
using System.Text.Json;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Engine;

namespace Pantomet.Application.PageChecks;

/// <summary>Has a page opened in a process of its own, which ends when it takes too long.</summary>
internal sealed partial class PageProcess(WorkOptions options, ILogger<PageProcess> log)
{
    /// <summary>Has it done.</summary>
    /// <returns>Why it could not be: a sentence; null when it was.</returns>
    public async Task<string?> RunAsync(PageOrder order, Action<PageProgress> tells, CancellationToken cancel)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(options.LongestPageCheck);
        var start = new ProcessStartInfo(EngineProcess.Host(), [options.Engine, PageWork.Call])
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            UseShellExecute = false,
        };
        start.Environment["MALLOC_ARENA_MAX"] = "2";
        using var process = Process.Start(start) ?? throw new InvalidOperationException("The process that measures pages did not start.");
        process.ErrorDataReceived += (_, said) =>
        {
            if (!string.IsNullOrWhiteSpace(said.Data))
            {
                Says(log, said.Data);
            }
        };
        process.BeginErrorReadLine();
        try
        {
            await process.StandardInput.WriteLineAsync(PageWork.Write(order).AsMemory(), limit.Token);
            await process.StandardInput.FlushAsync(limit.Token);
            while (await process.StandardOutput.ReadLineAsync(limit.Token) is { } line)
            {
                var told = PageWork.Read<PageLine>(line);
                if (told.Progress is not { } progress)
                {
                    return told.Trouble;
                }

                tells(progress);
            }

            return "The process that opened it ended before it was done.";
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            return $"It took longer than {options.LongestPageCheck.TotalMinutes:0} minutes, and was ended.";
        }
        catch (OperationCanceledException)
        {
            return "It was stopped.";
        }
        catch (Exception fault) when (fault is IOException or JsonException)
        {
            return "The process that opened it ended before it was done.";
        }
        finally
        {
            // The browser hangs on it and ends with it.
            await EngineProcess.EndAsync(process);
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "The process that opens a page says: {Said}")]
    private static partial void Says(ILogger log, string said);
}

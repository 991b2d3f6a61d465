using System.Text.Json;
using System.Text.Json.Serialization;
using Pantomet.Application.PageMends;
using Pantomet.Browsing;
using Pantomet.Core.PageChecks;

namespace Pantomet.Application.PageChecks;

/// <summary>A line of a process that measures a page: how far it is, or how it ended.</summary>
/// <param name="Progress">How far it is; null in the last line.</param>
/// <param name="Trouble">Why it could not be measured: a sentence; null when it was.</param>
public sealed record PageLine(PageProgress? Progress, string? Trouble);

/// <summary>What is asked of such a process: one of both.</summary>
/// <param name="Check">A page to measure.</param>
/// <param name="Mend">A page to mend.</param>
public sealed record PageOrder(PageWish? Check, PageMendWish? Mend)
{
    /// <summary>The folder of what comes of it.</summary>
    public string Folder => (Check ?? Mend!.Page).Keep!;
}

/// <summary>Measures a page, or mends it, in a process of its own: a line in, lines out. The lines are an inner matter and change as they need.</summary>
public static class PageWork
{
    /// <summary>What the process is called with.</summary>
    public const string Call = "page-work";

    /// <summary>The name of the report in the folder that is kept.</summary>
    public const string ReportName = "report.json";

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    /// <summary>A line.</summary>
    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    /// <summary>Reads a line back.</summary>
    /// <exception cref="JsonException">The line is none of ours.</exception>
    public static T Read<T>(string line) => JsonSerializer.Deserialize<T>(line, Options) ?? throw new JsonException("an empty line");

    /// <summary>Reads what is asked and does it; ends when the reader does, whatever is under way.</summary>
    public static async Task ServeAsync(TextReader asked, TextWriter told)
    {
        ArgumentNullException.ThrowIfNull(asked);
        ArgumentNullException.ThrowIfNull(told);
        if (await asked.ReadLineAsync() is not { } line)
        {
            return;
        }

        using var stop = new CancellationTokenSource();
        var watch = Task.Run(async () =>
        {
            while (await asked.ReadLineAsync(CancellationToken.None) is not null) { }

            await stop.CancelAsync();
        });
        var gate = new Lock();
        void Tell(PageLine one)
        {
            lock (gate)
            {
                told.WriteLine(Write(one));
                told.Flush();
            }
        }

        Tell(new(null, await TroubleAsync(Read<PageOrder>(line), progress => Tell(new(progress, null)), stop.Token)));
    }

    private static async Task<string?> TroubleAsync(PageOrder order, Action<PageProgress> tells, CancellationToken cancel)
    {
        try
        {
            Directory.CreateDirectory(order.Folder);
            var (name, text) = order.Check is { } check
                ? (ReportName, (await new PageRun(check, tells).ExecuteAsync(cancel)).ToJson())
                : (MendedNames.Report, Write(await new PageMendRun(order.Mend!, tells).ExecuteAsync(cancel)));
            await File.WriteAllTextAsync(Path.Combine(order.Folder, name), text, cancel);
            return null;
        }
        catch (Exception fault) when (fault is PageFaultException or NoBrowserException)
        {
            return fault.Message;
        }
        catch (OperationCanceledException)
        {
            return "It was stopped.";
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return $"Files could not be written: {fault.Message}";
        }
    }
}

using Pantomet.Application.Background;
using Pantomet.Browsing;
using Pantomet.PageChecks.Rewriting;

namespace Pantomet.PageChecks;

/// <summary>What is asked of a process that opens pages: one of both.</summary>
/// <param name="Check">A page to measure.</param>
/// <param name="Mend">A page to mend.</param>
public sealed record PageOrder(PageCheckRequest? Check, PageRewriteRequest? Mend)
{
    /// <summary>The folder of what comes of it.</summary>
    public string Folder => (Check ?? Mend!.Page).Keep!;
}

/// <summary>Measures a page, or mends it, in a process of its own.</summary>
public static class PageWork
{
    /// <summary>What the process is called with.</summary>
    public const string Call = "page-work";

    /// <summary>The name of the report in the folder that is kept.</summary>
    public const string ReportName = "report.json";

    /// <summary>Does what is asked.</summary>
    /// <returns>Why it could not: a sentence; null when it did.</returns>
    public static async Task<string?> DoAsync(PageOrder order, Action<PageProgress> tells, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(order);
        try
        {
            Directory.CreateDirectory(order.Folder);
            var (name, text) = order.Check is { } check
                ? (ReportName, (await new PageRun(check, tells).ExecuteAsync(cancel)).ToJson())
                : (MendedNames.Report, WorkLines.Write(await new PageRewrite(order.Mend!, tells).ExecuteAsync(cancel)));
            WholeFile.Write(Path.Combine(order.Folder, name), text);
            return null;
        }
        catch (Exception fault) when (fault is PageFaultException or NoBrowserException)
        {
            return fault.Message;
        }
    }
}

using System.CommandLine;
using Pantomet.Batch.Sites;
using Pantomet.Core;
using Pantomet.Core.Sharing;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;

namespace Pantomet.Cli.Site;

/// <summary><c>site</c>: copies a built site and gives its images their markup and files.</summary>
internal static class SiteCommand
{
    public static Command Build()
    {
        var rules = CallFiles.RulesOption();
        var input = new Option<string>("--in")
        {
            Description = CommandTexts.TheFolderOfTheBuiltSite,
            HelpName = "DIR",
            Required = true,
        };
        var output = new Option<string>("--out")
        {
            Description = CommandTexts.TheFolderForTheCopyCreated,
            HelpName = "DIR",
            Required = true,
        };
        var address = new Option<string?>("--base") { Description = CommandTexts.TheBaseURLOfTheSites, HelpName = "URL" };
        var watch = new Option<bool>("--watch") { Description = CommandTexts.KeepsRunningAndBuildsAgainWhen };
        var share = CallFiles.ShareOption();
        var (marks, report, jobs) = (CallFiles.MarksOption(), CallFiles.ReportOption(), CallFiles.JobsOption());
        var command = new Command("site", CommandTexts.CopiesABuiltSiteEachImg)
        {
            rules,
            input,
            output,
            marks,
            address,
            report,
            jobs,
            share,
            watch,
        };
        command.Validators.Add(result =>
        {
            if (result.GetValue(watch) && result.GetValue(share) is not null)
            {
                result.AddError(CommandTexts.SharesAndWatchDoNotGoTogether);
            }
        });
        command.SetAction(
            (call, cancel) =>
            {
                var request = new Call(
                    call.GetRequiredValue(rules),
                    call.GetRequiredValue(input),
                    call.GetRequiredValue(output),
                    call.GetValue(marks),
                    call.GetValue(address),
                    call.GetValue(report),
                    call.GetValue(jobs),
                    CallFiles.ShareOf(call.GetValue(share))
                );
                return call.GetValue(watch) ? WatchAsync(request, cancel) : RunAsync(request, cancel);
            }
        );
        return command;
    }

    private static async Task<int> WatchAsync(Call call, CancellationToken cancel)
    {
        if (Prepare(call, out _) is not null)
        {
            return await RunAsync(call, cancel);
        }

        using var change = new SemaphoreSlim(0);
        using var site = Watch(call.In, "*", change);
        using var rules = Watch(Path.GetDirectoryName(Path.GetFullPath(call.Rules))!, Path.GetFileName(call.Rules), change);
        using var marks = call.Marks is { } path
            ? Watch(Path.GetDirectoryName(Path.GetFullPath(path))!, Path.GetFileName(path), change)
            : null;
        var status = ExitCodes.Fine;
        try
        {
            while (true)
            {
                status = await RunAsync(call, cancel);
                await change.WaitAsync(cancel);
                // What builds a site writes many files at once: it is waited for.
                while (await change.WaitAsync(Rest, cancel)) { }
            }
        }
        catch (OperationCanceledException)
        {
            return status;
        }
    }

    private static readonly TimeSpan Rest = TimeSpan.FromMilliseconds(200);

    private static FileSystemWatcher Watch(string folder, string filter, SemaphoreSlim change)
    {
        var watcher = new FileSystemWatcher(folder, filter) { IncludeSubdirectories = filter == "*", InternalBufferSize = 65_536 };
        void Tell(object? sender, EventArgs told) => change.Release();
        watcher.Changed += Tell;
        watcher.Created += Tell;
        watcher.Deleted += Tell;
        watcher.Renamed += Tell;
        watcher.Error += Tell;
        watcher.EnableRaisingEvents = true;
        return watcher;
    }

    private static async Task<int> RunAsync(Call call, CancellationToken cancel)
    {
        if (Prepare(call, out var begin) is { } wrong)
        {
            await CallOutput.Error.WriteLineAsync($"pantomet: {wrong}");
            return ExitCodes.WrongCall;
        }

        try
        {
            using var run = await begin!(cancel);
            var outcome = await run.ExecuteAsync(cancel);
            await TellAsync(outcome);
            if (call.Report is not null)
            {
                await File.WriteAllTextAsync(call.Report, outcome.Report.ToJson() + "\n", cancel);
            }

            return outcome.Broke ? ExitCodes.SomethingBroke : ExitCodes.Fine;
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            await CallOutput.Error.WriteLineAsync($"pantomet: {fault.Message}");
            return ExitCodes.SomethingBroke;
        }
    }

    private static async Task TellAsync(SiteOutcome outcome)
    {
        var report = outcome.Report;
        foreach (var page in report.Pages!)
        {
            foreach (var fault in page.Faults)
            {
                await CallOutput.Error.WriteLineAsync($"{page.Page}{(fault.Line is { } line ? $", line {line}" : "")}: {fault.Message}");
            }
        }

        foreach (var sentence in outcome.NotCopied)
        {
            await CallOutput.Error.WriteLineAsync(sentence);
        }

        await CallFiles.TellBrokenAsync(report);

        CallOutput.Out.WriteLine(
            CommandTexts.ImagesOnPagesFilesOfOf(
                report.Pages.Sum(page => page.Replaced),
                report.Pages.Count,
                report.Totals.Files,
                Figures.Weight(report.Totals.VariantBytes),
                outcome.Made,
                outcome.Copied,
                Figures.Number(report.Totals.Seconds, 1)
            )
        );
    }

    // Everything that can be wrong with the call is found before anything is written.
    private static string? Prepare(Call call, out Func<CancellationToken, Task<SiteRun>>? begin)
    {
        begin = null;
        if (CallFiles.Read(call.Rules, call.Marks, out var book, out var marks) is { } wrong)
        {
            return wrong;
        }

        if (SiteRun.Fault(call.In, call.Out) is { } noFolder)
        {
            return noFolder;
        }

        if (call.Report is not null && CallFiles.NoReport(call.Report, call.Out, [call.Rules, call.Marks]) is { } noReport)
        {
            return noReport;
        }

        if (CallFiles.Address(call.Base, out var address) is { } noAddress)
        {
            return noAddress;
        }

        begin = async cancel =>
            new(await CallFiles.WithFilesAsync(call.Rules, book!, cancel), marks, call.In, call.Out, address, call.Jobs, share: call.Share);
        return null;
    }

    private sealed record Call(string Rules, string In, string Out, string? Marks, string? Base, string? Report, int Jobs, Share? Share);
}

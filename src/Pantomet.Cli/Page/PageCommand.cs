using System.CommandLine;
using System.Globalization;
using Pantomet.Browsing;
using Pantomet.Core;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Texts;
using Pantomet.PageChecks;
using Pantomet.Platform;

namespace Pantomet.Cli.Page;

/// <summary><c>page</c>: measures what a page loads against what it shows.</summary>
internal static class PageCommand
{
    public static Command Build()
    {
        var page = new Option<string>("--page")
        {
            Description = CommandTexts.ThePageAnHtmlOrMhtml,
            HelpName = "FILE|DIR|URL",
            Required = true,
        };
        var viewports = new Option<string?>("--viewports") { Description = CommandTexts.TheWidthsOfTheScreensIn, HelpName = "LIST" };
        var densities = new Option<string?>("--densities") { Description = CommandTexts.ThePixelDensitiesOfTheScreens, HelpName = "LIST" };
        var allow = new Option<string[]>("--allow") { Description = CommandTexts.AnotherHostFromWhichThePage, HelpName = "HOST" };
        var rate = new Option<string?>("--rate") { Description = CommandTexts.TheSpeedForLoadingTimesIn, HelpName = "N" };
        var keep = new Option<string?>("--keep") { Description = CommandTexts.AFolderForScreenshotsTheFiles, HelpName = "DIR" };
        var (report, jobs) = (CallFiles.ReportOption(), CallFiles.JobsOption());
        var command = new Command("page", CommandTexts.OpensAPageInABrowser)
        {
            page,
            viewports,
            densities,
            allow,
            rate,
            keep,
            report,
            jobs,
        };
        command.SetAction(
            (call, cancel) =>
                RunAsync(
                    new(
                        call.GetRequiredValue(page),
                        call.GetValue(viewports),
                        call.GetValue(densities),
                        call.GetValue(allow) ?? [],
                        call.GetValue(rate),
                        call.GetValue(keep),
                        call.GetValue(report),
                        call.GetValue(jobs)
                    ),
                    cancel
                )
        );
        return command;
    }

    private static async Task<int> RunAsync(Call call, CancellationToken cancel)
    {
        if (Fault(call, out var request) is { } wrong)
        {
            await CallOutput.Error.WriteLineAsync($"pantomet: {wrong}");
            return ExitCodes.WrongCall;
        }

        TemporaryFolder.Sweep();
        try
        {
            if (call.Keep is not null)
            {
                Directory.CreateDirectory(call.Keep);
            }

            var report = await new PageRun(request!).ExecuteAsync(cancel);
            await TellAsync(report);
            if (call.Report is not null)
            {
                await File.WriteAllTextAsync(call.Report, report.ToJson() + "\n", cancel);
            }

            return ExitCodes.Fine;
        }
        catch (Exception fault) when (fault is PageFaultException or NoBrowserException)
        {
            await CallOutput.Error.WriteLineAsync($"{call.Page}: {fault.Message}");
            return ExitCodes.SomethingBroke;
        }
        catch (OutOfMemoryException)
        {
            await CallOutput.Error.WriteLineAsync(CommandTexts.TheFilesOfThePageNeed(call.Page));
            return ExitCodes.SomethingBroke;
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            await CallOutput.Error.WriteLineAsync($"pantomet: {fault.Message}");
            return ExitCodes.SomethingBroke;
        }
    }

    private static async Task TellAsync(PageReport report)
    {
        foreach (var note in report.Notes)
        {
            await CallOutput.Error.WriteLineAsync(note);
        }

        foreach (var image in report.Images)
        {
            foreach (var fault in image.Faults)
            {
                CallOutput.Out.WriteLine($"{image.Address}: {fault.Message}");
            }
        }

        var totals = report.Totals;
        CallOutput.Out.WriteLine(
            CommandTexts.PicturesAScreenLoadsOfThem(
                totals.Images,
                Figures.Weight(totals.Mean),
                Figures.Weight(totals.Possible),
                Figures.Number(totals.SecondsMeasuring, 1),
                Figures.Number(totals.Seconds, 1)
            )
        );
    }

    // Everything that can be wrong with the call is found before a browser is started.
    private static string? Fault(Call call, out PageCheckRequest? request)
    {
        request = null;
        if (List("--viewports", call.Viewports, Screen.UsualViewports, PageCheckRequest.Widths, out var viewports) is { } noViewports)
        {
            return noViewports;
        }

        if (List("--densities", call.Densities, Screen.UsualDensities, PageCheckRequest.Dense, out var densities) is { } noDensities)
        {
            return noDensities;
        }

        var rate = PageCheckRequest.UsualRate;
        if (
            call.Rate is not null
            && !(double.TryParse(call.Rate, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out rate) && rate > 0)
        )
        {
            return CommandTexts.RateTakesANumberOfMegabits;
        }

        if (call.Allow.FirstOrDefault(host => !PageCheckRequest.IsHost(host)) is { } none)
        {
            return CommandTexts.AllowTakesAHostSuchAs(none);
        }

        request = new()
        {
            Page = call.Page,
            Viewports = viewports,
            Densities = densities,
            Allowed = call.Allow,
            Rate = rate,
            Jobs = call.Jobs,
            Keep = call.Keep is null ? null : Path.GetFullPath(call.Keep),
        };
        return !PageCheckRequest.Exists(call.Page) ? CommandTexts.ThisFileFolderOrAddressDoes(call.Page)
            : File.Exists(call.Keep) ? CommandTexts.ThisIsAFileNotA(call.Keep)
            : call.Report is null ? null
            : CallFiles.NoReport(call.Report, call.Keep, [call.Page]);
    }

    private static string? List<T>(string name, string? text, IReadOnlyList<T> usual, (T Least, T Most) range, out IReadOnlyList<T> list)
        where T : struct, System.Numerics.INumber<T>
    {
        list = usual;
        if (text is null)
        {
            return null;
        }

        var read = new List<T>();
        foreach (var part in text.Split(',', StringSplitOptions.TrimEntries))
        {
            if (
                !T.TryParse(part, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
                || !(number >= range.Least && number <= range.Most)
            )
            {
                return CommandTexts.TakesNumbersFromToSeparatedBy(name, range.Least, range.Most);
            }

            read.Add(number);
        }

        list = [.. read.Distinct()];
        return list.Count > PageCheckRequest.MostOfEach ? CommandTexts.TakesAtMostNumbers(name, PageCheckRequest.MostOfEach) : null;
    }

    private sealed record Call(
        string Page,
        string? Viewports,
        string? Densities,
        IReadOnlyList<string> Allow,
        string? Rate,
        string? Keep,
        string? Report,
        int Jobs
    );
}

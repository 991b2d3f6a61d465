using System.CommandLine;
using System.Globalization;
using Pantomet.Application.PageChecks;
using Pantomet.Browsing;
using Pantomet.Core;
using Pantomet.Core.PageChecks;
using Pantomet.Platform;

namespace Pantomet.Cli.Page;

/// <summary><c>page</c>: measures what a page loads against what it shows.</summary>
internal static class PageCommand
{
    public static Command Build()
    {
        var page = new Option<string>("--page")
        {
            Description = "The page: an .html or .mhtml file, a folder, a zip, or an address.",
            HelpName = "FILE|DIR|URL",
            Required = true,
        };
        var viewports = new Option<string?>("--viewports")
        {
            Description = "The widths of screens in CSS pixels (360,768,1280,1920 where they are not given).",
            HelpName = "LIST",
        };
        var densities = new Option<string?>("--densities")
        {
            Description = "The densities of screens (1,2 where they are not given).",
            HelpName = "LIST",
        };
        var allow = new Option<string[]>("--allow")
        {
            Description = "Another host that the page's files may come from; can be given several times.",
            HelpName = "HOST",
        };
        var rate = new Option<string?>("--rate")
        {
            Description = "The rate at which times are told, in megabits a second (10 where it is not given).",
            HelpName = "N",
        };
        var keep = new Option<string?>("--keep")
        {
            Description = "A folder for pictures of the page, the files it loads and the files that would be enough; made if missing.",
            HelpName = "DIR",
        };
        var (report, jobs) = (CallFiles.ReportOption(), CallFiles.JobsOption());
        var command = new Command("page", "Opens a page in a browser and measures what it loads against what it shows.")
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
            await CallOutput.Error.WriteLineAsync($"{call.Page}: its files need more memory than the check of a page may take.");
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
            $"{totals.Images} pictures; a screen loads {Figures.Weight(totals.Mean)} of them on average, {Figures.Weight(totals.Possible)} would be enough; "
                + $"measured in {Figures.Number(totals.SecondsMeasuring, 1)} s, all in {Figures.Number(totals.Seconds, 1)} s"
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
            return "--rate takes a number of megabits a second, above 0.";
        }

        if (call.Allow.FirstOrDefault(host => !PageCheckRequest.IsHost(host)) is { } none)
        {
            return $"--allow takes a host, such as pictures.example; \"{none}\" is none";
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
        return !PageCheckRequest.Exists(call.Page) ? $"{call.Page}: there is no such file, folder or address"
            : File.Exists(call.Keep) ? $"{call.Keep}: this is a file, not a folder"
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
                return $"{name} takes numbers from {range.Least} to {range.Most} with commas between";
            }

            read.Add(number);
        }

        list = [.. read.Distinct()];
        return list.Count > PageCheckRequest.MostOfEach ? $"{name} takes at most {PageCheckRequest.MostOfEach} numbers" : null;
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

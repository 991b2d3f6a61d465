using System.CommandLine;
using Pantomet.Batch.Renders;
using Pantomet.Core;
using Pantomet.Core.Marks;
using Pantomet.Core.Markup;
using Pantomet.Core.Rules;
using Pantomet.Core.Sharing;
using Pantomet.Core.Texts;
using Pantomet.Imaging;

namespace Pantomet.Cli.Render;

/// <summary><c>render</c>: every variant of every file for every slot of a rules file, without a server.</summary>
internal static class RenderCommand
{
    public static Command Build()
    {
        var rules = CallFiles.RulesOption();
        var output = new Option<string>("--out")
        {
            Description = CommandTexts.TheFolderForTheFilesCreated,
            HelpName = "DIR",
            Required = true,
        };
        var (marks, report, jobs) = (CallFiles.MarksOption(), CallFiles.ReportOption(), CallFiles.JobsOption());
        var markup = new Option<bool>("--markup") { Description = CommandTexts.AddsTheHTMLAndCSSFor };
        var address = new Option<string?>("--base") { Description = CommandTexts.TheBaseURLOfTheAddresses, HelpName = "ADDRESS" };
        var share = CallFiles.ShareOption();
        var files = new Argument<string[]>("FILE") { Description = CommandTexts.ThePictures, Arity = ArgumentArity.OneOrMore };
        var command = new Command("render", CommandTexts.MakesAllFilesOfAllPictures)
        {
            rules,
            output,
            marks,
            report,
            jobs,
            markup,
            address,
            share,
            files,
        };
        command.SetAction(
            (call, cancel) =>
                RunAsync(
                    new(
                        call.GetRequiredValue(rules),
                        call.GetRequiredValue(output),
                        call.GetValue(marks),
                        call.GetValue(report),
                        call.GetValue(jobs),
                        call.GetValue(markup),
                        call.GetValue(address),
                        CallFiles.ShareOf(call.GetValue(share)),
                        call.GetRequiredValue(files)
                    ),
                    cancel
                )
        );
        return command;
    }

    private static async Task<int> RunAsync(Call call, CancellationToken cancel)
    {
        // The imaging library is loaded on another core while the rules are read; what goes wrong with it is told where it is used first.
        _ = Task.Run(ImagingEngine.Start, CancellationToken.None);
        if (Prepare(call, out var begin) is { } wrong)
        {
            await CallOutput.Error.WriteLineAsync($"pantomet: {wrong}");
            return ExitCodes.WrongCall;
        }

        try
        {
            var report = await (await begin!(cancel)).ExecuteAsync(cancel);
            foreach (var source in report.Sources.Where(source => source.Error is not null))
            {
                await CallOutput.Error.WriteLineAsync($"{source.File}: {source.Error}");
            }

            await CallFiles.TellBrokenAsync(report);

            if (call.Report is not null)
            {
                await File.WriteAllTextAsync(call.Report, report.ToJson() + "\n", cancel);
            }

            CallOutput.Out.WriteLine(
                CommandTexts.FilesFromInS(
                    report.Totals.Files,
                    Figures.Weight(report.Totals.VariantBytes),
                    Figures.Weight(report.Totals.SourceBytes),
                    Figures.Number(report.Totals.Seconds, 1)
                )
            );
            return RenderRun.Broke(report) ? ExitCodes.SomethingBroke : ExitCodes.Fine;
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            await CallOutput.Error.WriteLineAsync($"pantomet: {fault.Message}");
            return ExitCodes.SomethingBroke;
        }
    }

    // Everything that can be wrong with the call is found before anything is written.
    private static string? Prepare(Call call, out Func<CancellationToken, Task<RenderRun>>? begin)
    {
        begin = null;
        if (CallFiles.Read(call.Rules, call.Marks, out var book, out var marks) is { } wrong)
        {
            return wrong;
        }

        if (File.Exists(call.Output))
        {
            return CommandTexts.OutIsAFileNotA(call.Output);
        }

        if (
            call.Report is not null
            && CallFiles.NoReport(call.Report, call.Output, call.Files.Append(call.Rules).Append(call.Marks)) is { } noReport
        )
        {
            return noReport;
        }

        if (call.Markup && call.Report is null)
        {
            return CommandTexts.MarkupNeedsReportBecauseTheMarkup;
        }

        if (!call.Markup && call.Base is not null)
        {
            return CommandTexts.BaseNeedsMarkupBecauseItIs;
        }

        if (call.Share is not null && RenderRun.NotToShare(book!) is { } slot)
        {
            return CommandTexts.NamesNeedThePictureOrTheHash(slot);
        }

        if (CallFiles.Address(call.Base, out var address) is { } noAddress)
        {
            return noAddress;
        }

        begin = async cancel =>
            new(
                await CallFiles.WithFilesAsync(call.Rules, book!, cancel),
                marks,
                call.Output,
                call.Jobs,
                call.Files,
                call.Markup ? address : null,
                call.Share
            );
        return null;
    }

    private sealed record Call(
        string Rules,
        string Output,
        string? Marks,
        string? Report,
        int Jobs,
        bool Markup,
        string? Base,
        Share? Share,
        string[] Files
    );
}

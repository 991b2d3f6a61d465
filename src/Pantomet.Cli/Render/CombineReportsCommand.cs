using System.CommandLine;
using Pantomet.Core.Reports;
using Pantomet.Core.Texts;

namespace Pantomet.Cli.Render;

/// <summary><c>combine-reports</c>: one report of those that the shares of a batch wrote.</summary>
internal static class CombineReportsCommand
{
    public static Command Build()
    {
        var output = new Option<string>("--report")
        {
            Description = CommandTexts.WhereTheCombinedReportGoes,
            HelpName = "REPORT.json",
            Required = true,
        };
        var reports = new Argument<string[]>("SHARE.json")
        {
            Description = CommandTexts.TheReportsOfAllShares,
            Arity = ArgumentArity.OneOrMore,
        };
        var command = new Command("combine-reports", CommandTexts.CombinesReportsOfShares) { output, reports };
        command.SetAction(
            async (call, cancel) =>
            {
                var (path, shares) = (call.GetRequiredValue(output), call.GetRequiredValue(reports));
                if (CallFiles.NoReport(path, null, shares) is { } noReport)
                {
                    return await WrongAsync(noReport);
                }

                var texts = new List<string>();
                foreach (var share in shares)
                {
                    try
                    {
                        texts.Add(await File.ReadAllTextAsync(share, cancel));
                    }
                    catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
                    {
                        return await WrongAsync(CommandTexts.TheFileCannotBeRead(share));
                    }
                }

                if (CombinedReport.TryCombine(texts, out var combined) is { } wrong)
                {
                    return await WrongAsync(wrong);
                }

                await File.WriteAllTextAsync(path, combined + "\n", cancel);
                CallOutput.Out.WriteLine(CommandTexts.ReportsCombined(shares.Length, CombinedReport.FilesIn(combined!)));
                return ExitCodes.Fine;
            }
        );
        return command;
    }

    private static async Task<int> WrongAsync(string sentence)
    {
        await CallOutput.Error.WriteLineAsync($"pantomet: {sentence}");
        return ExitCodes.WrongCall;
    }
}

using System.CommandLine;
using System.Globalization;
using Pantomet.Batch.Mending;
using Pantomet.Core;
using Pantomet.Core.Geometry;
using Pantomet.Core.Mending;
using Pantomet.Core.Reports;
using Pantomet.Core.Texts;
using Pantomet.Core.Weight;
using Pantomet.Platform;

namespace Pantomet.Cli.Mend;

/// <summary><c>mend</c>: lightens the pictures of a folder under their own names and types.</summary>
internal static class MendCommand
{
    public static Command Build()
    {
        var folder = new Argument<string>("DIR") { Description = CommandTexts.TheFolderOfThePictures };
        var output = new Option<string?>("--out") { Description = CommandTexts.TheFolderForTheLighterPictures, HelpName = "DIR2" };
        var keep = new Option<string?>("--keep") { Description = CommandTexts.ReplacesThePicturesAndKeepsThe, HelpName = "DIR2" };
        var side = new Option<string?>("--max-side") { Description = CommandTexts.TheLongerSideAtMostIn, HelpName = "N" };
        var weight = new Option<string?>("--max-bytes") { Description = CommandTexts.TheWeightOfAFileAt, HelpName = "W" };
        var likeness = new Option<string?>("--likeness") { Description = CommandTexts.TheLikenessToTheOriginalAt, HelpName = "L" };
        var share = new Option<string?>("--at-least") { Description = CommandTexts.ReplaceAFileOnlyIfIt, HelpName = "S" };
        var dry = new Option<bool>("--dry-run") { Description = CommandTexts.ReportsWhatWouldBeDoneAnd };
        var restore = new Option<bool>("--restore") { Description = CommandTexts.RestoresTheOriginalsThatAreIn };
        var (report, jobs) = (CallFiles.ReportOption(), CallFiles.JobsOption());
        var command = new Command("mend", CommandTexts.MakesThePicturesOfAFolder)
        {
            folder,
            output,
            keep,
            side,
            weight,
            likeness,
            share,
            dry,
            restore,
            report,
            jobs,
        };
        command.SetAction(
            (call, cancel) =>
                RunAsync(
                    new(
                        call.GetRequiredValue(folder),
                        call.GetValue(output),
                        call.GetValue(keep),
                        call.GetValue(side),
                        call.GetValue(weight),
                        call.GetValue(likeness),
                        call.GetValue(share),
                        call.GetValue(dry),
                        call.GetValue(restore),
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
        if (Fault(call, out var rule) is { } wrong)
        {
            await CallOutput.Error.WriteLineAsync($"pantomet: {wrong}");
            return ExitCodes.WrongCall;
        }

        try
        {
            return call.Restore ? await RestoreAsync(call) : await LightenAsync(call, rule, cancel);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            await CallOutput.Error.WriteLineAsync($"pantomet: {fault.Message}");
            return ExitCodes.SomethingBroke;
        }
    }

    private static async Task<int> LightenAsync(Call call, MendRule rule, CancellationToken cancel)
    {
        using var folder = FolderHandle.OpenNamed(call.Folder);
        var report = await new FolderOptimisation(folder, call.Out, call.Keep, rule, call.Dry, call.Jobs).ExecuteAsync(cancel);
        foreach (var source in report.Sources.Where(source => source.Error is not null))
        {
            await CallOutput.Error.WriteLineAsync($"{source.File}: {source.Error}");
        }

        await CallFiles.TellBrokenAsync(report);
        if (call.Report is not null)
        {
            await File.WriteAllTextAsync(call.Report, report.ToJson() + "\n", cancel);
        }

        CallOutput.Out.WriteLine(Summary(report, call.Dry));
        return report.Sources.Any(source => source.Error is not null) ? ExitCodes.SomethingBroke : ExitCodes.Fine;
    }

    private static string Summary(RenderReport report, bool dry)
    {
        var weights = report
            .Sources.Where(source => source.Bytes is not null)
            .ToDictionary(source => source.File, source => source.Bytes!.Value);
        var lighter = report.Variants.Where(variant => variant.File is not null).ToList();
        var saved = lighter.Sum(variant => weights[variant.Source] - variant.Bytes!.Value);
        return CommandTexts.PicturesOfInS(
            report.Sources.Count,
            Figures.Weight(weights.Values.Sum()),
            lighter.Count,
            (dry ? CommandTexts.CanBeMadeLighter : CommandTexts.MadeLighter),
            Figures.Weight(saved),
            (dry ? "less" : "saved"),
            Figures.Number(report.Totals.Seconds, 1)
        );
    }

    private static async Task<int> RestoreAsync(Call call)
    {
        using var folder = FolderHandle.OpenNamed(call.Folder);
        var (restored, changed) = FolderOptimisation.Restore(folder, call.Keep!);
        foreach (var path in changed)
        {
            await CallOutput.Error.WriteLineAsync(CommandTexts.TheFileWasChangedSinceIt(path));
        }

        CallOutput.Out.WriteLine(CommandTexts.OriginalsRestored(restored));
        return changed.Count > 0 ? ExitCodes.SomethingBroke : ExitCodes.Fine;
    }

    // Everything that can be wrong with the call is found before anything is written.
    private static string? Fault(Call call, out MendRule rule)
    {
        rule = new();
        if (call.Restore)
        {
            return call.Keep is null ? CommandTexts.RestoreNeedsKeepWithTheFolder
                : !Directory.Exists(call.Keep) ? CommandTexts.TheFolderDoesNotExist(call.Keep)
                : FolderOptimisation.Fault(call.Folder, call.Keep);
        }

        if ((call.Out is not null && call.Keep is not null) || (call.Out is null && call.Keep is null && !call.Dry))
        {
            return CommandTexts.OutOrKeepIsNeededThe;
        }

        if (Side(call.Side, out var side) is { } noSide)
        {
            return noSide;
        }

        if (Weight(call.Weight, out var weight) is { } noWeight)
        {
            return noWeight;
        }

        if (Share("--likeness", call.Likeness, MendRule.UsualLikeness, out var likeness) is { } noLikeness)
        {
            return noLikeness;
        }

        if (Share("--at-least", call.AtLeast, MendRule.UsualShare, out var least) is { } noShare)
        {
            return noShare;
        }

        rule = new()
        {
            MaxSide = side,
            MaxBytes = weight,
            Likeness = call.Likeness is null ? null : likeness,
            AtLeast = least,
        };
        return FolderOptimisation.Fault(call.Folder, call.Out ?? call.Keep)
            ?? (call.Report is null ? null : CallFiles.NoReport(call.Report, call.Out ?? call.Keep ?? call.Folder, []));
    }

    private static string? Side(string? text, out int? side)
    {
        side = null;
        if (text is null)
        {
            return null;
        }

        if (!int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var pixels) || pixels is < 1 or > Rounding.LongestSide)
        {
            return CommandTexts.MaxSideTakesAWholeNumber(Rounding.LongestSide);
        }

        side = pixels;
        return null;
    }

    private static string? Weight(string? text, out ByteCount? weight)
    {
        weight = null;
        if (text is null)
        {
            return null;
        }

        if (!ByteCount.TryParse(text, out var count, out var error))
        {
            return $"--max-bytes: {error}";
        }

        weight = count;
        return null;
    }

    private static string? Share(string name, string? text, double usual, out double share)
    {
        share = usual;
        return
            text is null
            || (double.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out share) && share is >= 0 and <= 1)
            ? null
            : CommandTexts.TakesANumberFromTo(name);
    }

    private sealed record Call(
        string Folder,
        string? Out,
        string? Keep,
        string? Side,
        string? Weight,
        string? Likeness,
        string? AtLeast,
        bool Dry,
        bool Restore,
        string? Report,
        int Jobs
    );
}

using System.CommandLine;
using Pantomet.Application.Destinations;
using Pantomet.Core.Marks;
using Pantomet.Core.Markup;
using Pantomet.Core.Reports;
using Pantomet.Core.Rules;
using Pantomet.Core.Sharing;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;

namespace Pantomet.Cli;

/// <summary>What the calls have in common: files that they read before anything is written, and options.</summary>
internal static class CallFiles
{
    public static Option<string> RulesOption() =>
        new("--rules")
        {
            Description = CommandTexts.TheRulesFile,
            HelpName = "RULES.json",
            Required = true,
        };

    public static Option<string?> MarksOption() =>
        new("--marks") { Description = CommandTexts.TheMarksOfPeopleOnThe, HelpName = "MARKS.json" };

    public static Option<string?> ReportOption() =>
        new("--report") { Description = CommandTexts.WhereToWriteTheReport, HelpName = "REPORT.json" };

    public static Option<string?> ShareOption()
    {
        var share = new Option<string?>("--share") { Description = CommandTexts.WorksOnOneShareOfThePictures, HelpName = "K/N" };
        share.Validators.Add(result =>
        {
            if (result.Tokens is [var token] && !Share.TryParse(token.Value, out _))
            {
                result.AddError(CommandTexts.ShareTakesTwoNumbers(token.Value));
            }
        });
        return share;
    }

    /// <summary>The share that a call names; null for the whole.</summary>
    public static Share? ShareOf(string? text) => Share.TryParse(text, out var share) ? share : null;

    public static Option<int> JobsOption()
    {
        var jobs = new Option<int>("--jobs")
        {
            Description = CommandTexts.HowManyPicturesAndFilesAre,
            HelpName = "N",
            DefaultValueFactory = _ => Environment.ProcessorCount,
        };
        jobs.Validators.Add(result =>
        {
            if (result.Tokens is [var token] && (!int.TryParse(token.Value, out var number) || number is < 1 or > 64))
            {
                result.AddError(CommandTexts.JobsTakesAWholeNumberFrom);
            }
        });
        return jobs;
    }

    /// <summary>The rules with the files that lie beside them.</summary>
    public static Task<RuleBook> WithFilesAsync(string rules, RuleBook book, CancellationToken cancel) =>
        RuleFiles.BesideAsync(book, Path.GetDirectoryName(Path.GetFullPath(rules))!, cancel);

    /// <summary>Reads rules and marks; a sentence when one of them is wrong.</summary>
    public static string? Read(string rules, string? marks, out RuleBook? book, out IReadOnlyDictionary<string, PictureMarks> said)
    {
        book = null;
        said = new Dictionary<string, PictureMarks>();
        if (Text(rules, out var rulesText) is { } noRules)
        {
            return noRules;
        }

        if (!RulesReader.TryRead(rulesText, out book, out var fault))
        {
            return $"{rules}: {fault}";
        }

        if (marks is null)
        {
            return null;
        }

        if (Text(marks, out var marksText) is { } noMarks)
        {
            return noMarks;
        }

        if (!MarksReader.TryRead(marksText, book!, out var read, out fault))
        {
            return $"{marks}: {fault}";
        }

        said = read!;
        return null;
    }

    /// <summary>Why a report cannot be written; null when it can.</summary>
    /// <param name="path">The report.</param>
    /// <param name="output">The folder that the call writes to, made if missing; null where it writes to none.</param>
    /// <param name="read">Files that the call reads.</param>
    public static string? NoReport(string path, string? output, IEnumerable<string?> read)
    {
        var report = Path.GetFullPath(path);
        return Directory.Exists(report) ? CommandTexts.ReportIsAFolderNotA(path)
            : read.OfType<string>().Any(file => Path.GetFullPath(file) == report) ? CommandTexts.TheReportWouldOverwriteAFile(path)
            : Directory.Exists(Path.GetDirectoryName(report))
            || (output is not null && report.StartsWith(Path.GetFullPath(output), StringComparison.Ordinal))
                ? null
            : CommandTexts.TheFolderOfTheReportDoes(path);
    }

    /// <summary>Reads how addresses begin; a sentence when that is none.</summary>
    public static string? Address(string? text, out string address) =>
        BaseAddress.TryParse(text ?? "", out address, out var error) ? null : $"--base: {error}";

    /// <summary>Says on standard error what broke a limit, a line each.</summary>
    public static async Task TellBrokenAsync(RenderReport report)
    {
        foreach (var variant in report.Variants.Where(variant => variant.Verdict == Verdict.Breaks))
        {
            var rung = variant.Descriptor is { } descriptor ? $" {descriptor}" : "";
            await CallOutput.Error.WriteLineAsync(
                $"{variant.Source}: {variant.Destination}/{variant.Slot}{rung}: "
                    + string.Join(" ", variant.Reasons.Select(reason => reason.Message))
            );
        }
    }

    private static string? Text(string path, out string text)
    {
        text = "";
        try
        {
            text = File.ReadAllText(path);
            return null;
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException or NotSupportedException or ArgumentException)
        {
            return CommandTexts.TheFileCannotBeRead(path);
        }
    }
}

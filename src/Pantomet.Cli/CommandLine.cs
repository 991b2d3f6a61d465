using System.CommandLine;
using System.CommandLine.Parsing;
using Pantomet.Cli.Backup;
using Pantomet.Cli.Mend;
using Pantomet.Cli.Page;
using Pantomet.Cli.Render;
using Pantomet.Cli.Site;
using Pantomet.Core.Texts;

namespace Pantomet.Cli;

/// <summary>All that can be called, and how a call ends: a sentence and an exit status, whatever happens.</summary>
internal static class CommandLine
{
    // A picture that is being made is given up between two encodes, which may take a few seconds.
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    /// <summary>The most memory that the check of a page may take here, its browser not counted.</summary>
    public const long MostPageBytes = 4_000_000_000;

    /// <summary>Every command with its options.</summary>
    public static RootCommand Build() =>
        new(CommandTexts.PantometMakesEveryPictureForEvery)
        {
            RenderCommand.Build(),
            CombineReportsCommand.Build(),
            SiteCommand.Build(),
            MendCommand.Build(),
            PageCommand.Build(),
            ServeCommands.Demo(),
            ServeCommands.Serve(),
            ServeCommands.OpenApi(),
            BackupCommands.Backup(),
            BackupCommands.Restore(),
            CheckCommand.Build(),
            HealthCommand.Build(),
            SandboxCommand.Build(),
        };

    // A value that is empty is one that a script lost: no option means anything by it.
    private static string? Empty(ParseResult parsed) =>
        parsed
            .CommandResult.Children.SelectMany(child =>
                child.Tokens.Where(token => string.IsNullOrWhiteSpace(token.Value)).Select(_ => Name(child))
            )
            .FirstOrDefault();

    private static string Name(SymbolResult result) =>
        result switch
        {
            OptionResult option => CommandTexts.NeedsAValue(option.Option.Name),
            ArgumentResult argument => CommandTexts.NeedsAValue(argument.Argument.Name),
            _ => CommandTexts.AValueIsEmpty,
        };

    /// <summary>Carries out a call.</summary>
    /// <param name="args">What was written behind the program's name.</param>
    /// <returns>The exit status.</returns>
    public static async Task<int> RunAsync(IReadOnlyList<string> args)
    {
        var parsed = Build().Parse(args);
        if ((parsed.Errors.Count > 0 ? parsed.Errors[0].Message : Empty(parsed)) is { } wrong)
        {
            // One line, whatever is wrong with the call; the rest is one --help away.
            await CallOutput.Error.WriteLineAsync(CommandTexts.PantometPantometHelpListsTheCommands(wrong));
            return ExitCodes.WrongCall;
        }

        try
        {
            return await parsed.InvokeAsync(
                new()
                {
                    EnableDefaultExceptionHandler = false,
                    ProcessTerminationTimeout = Patience,
                    Output = CallOutput.Out,
                    Error = CallOutput.Error,
                }
            );
        }
        catch (OperationCanceledException)
        {
            await CallOutput.Error.WriteLineAsync(CommandTexts.PantometStoppedEverythingWrittenSoFar);
            return ExitCodes.Stopped;
        }
#pragma warning disable CA1031 // Whatever nobody foresaw is told in a line, as everything else.
        catch (Exception fault)
#pragma warning restore CA1031
        {
            await CallOutput.Error.WriteLineAsync(CommandTexts.PantometUnexpectedError(fault.GetType().Name, fault.Message));
            return ExitCodes.Unforeseen;
        }
    }
}

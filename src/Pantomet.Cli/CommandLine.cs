using System.CommandLine;
using System.CommandLine.Parsing;
using Pantomet.Cli.Mend;
using Pantomet.Cli.Page;
using Pantomet.Cli.Render;
using Pantomet.Cli.Site;

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
        new("Pantomet: every picture in every place it must go, at the right shape, size and weight.")
        {
            RenderCommand.Build(),
            SiteCommand.Build(),
            MendCommand.Build(),
            PageCommand.Build(),
            ServeCommands.Demo(),
            ServeCommands.Serve(),
            ServeCommands.OpenApi(),
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
            OptionResult option => $"{option.Option.Name} is given no value.",
            ArgumentResult argument => $"{argument.Argument.Name} is given no value.",
            _ => "A value is empty.",
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
            await CallOutput.Error.WriteLineAsync($"pantomet: {wrong} (pantomet --help lists the calls)");
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
            await CallOutput.Error.WriteLineAsync("pantomet: it was stopped. What was done so far is whole; nothing is half written.");
            return ExitCodes.Stopped;
        }
#pragma warning disable CA1031 // Whatever nobody foresaw is told in a line, as everything else.
        catch (Exception fault)
#pragma warning restore CA1031
        {
            await CallOutput.Error.WriteLineAsync(
                $"pantomet: something went wrong that nobody foresaw ({fault.GetType().Name}): {fault.Message}"
            );
            return ExitCodes.Unforeseen;
        }
    }
}

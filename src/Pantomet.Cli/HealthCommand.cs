using System.CommandLine;
using Pantomet.Core.Texts;

namespace Pantomet.Cli;

/// <summary><c>health</c>: asks a server whether it can take work; for whatever watches over it and has no other client.</summary>
internal static class HealthCommand
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(5);

    public static Command Build()
    {
        var address = new Option<string>("--address")
        {
            Description = CommandTexts.TheAddressOfTheServer,
            HelpName = "URL",
            DefaultValueFactory = _ => "http://127.0.0.1:5460",
        };
        var command = new Command("health", CommandTexts.AsksAServerWhetherItCanTakeWork) { address };
        command.SetAction(
            async (call, cancel) =>
            {
                if (!Uri.TryCreate(call.GetValue(address)!.TrimEnd('/') + "/readyz", UriKind.Absolute, out var ready))
                {
                    await CallOutput.Error.WriteLineAsync(CommandTexts.ThisIsNoAddress(call.GetValue(address)));
                    return ExitCodes.WrongCall;
                }

                // The certificate is of a name, and it is asked by its number: nothing secret is sent.
                using var handler = new HttpClientHandler
                {
                    ServerCertificateCustomValidationCallback = HttpClientHandler.DangerousAcceptAnyServerCertificateValidator,
                };
                using var client = new HttpClient(handler) { Timeout = Longest };
                try
                {
                    using var answer = await client.GetAsync(ready, cancel);
                    CallOutput.Out.WriteLine(answer.IsSuccessStatusCode ? CommandTexts.Ready : CommandTexts.NotReady);
                    return answer.IsSuccessStatusCode ? ExitCodes.Fine : ExitCodes.SomethingBroke;
                }
                catch (Exception fault) when (fault is HttpRequestException or TaskCanceledException && !cancel.IsCancellationRequested)
                {
                    CallOutput.Out.WriteLine(CommandTexts.NotReady);
                    return ExitCodes.SomethingBroke;
                }
            }
        );
        return command;
    }
}

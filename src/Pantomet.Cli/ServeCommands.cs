using System.CommandLine;
using System.Net;
using System.Net.Sockets;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Texts;
using Pantomet.Platform;
using Pantomet.Server;

namespace Pantomet.Cli;

/// <summary>
/// The commands that start the application: <c>demo</c> and <c>serve</c>; and <c>openapi</c>, which prints its description.
/// </summary>
internal static class ServeCommands
{
    private const int UsualPort = 5460;

    public static Command Demo()
    {
        var port = Port();
        var command = new Command("demo", CommandTexts.StartsTheApplicationWithFreshDemo) { port };
        command.SetAction(
            async (call, cancel) =>
            {
                // A demo that runs already keeps its data.
                if (IsTaken(call.GetValue(port)))
                {
                    await CallOutput.Error.WriteLineAsync(CommandTexts.PantometPortIsInUseChoose(call.GetValue(port)));
                    return ExitCodes.WrongCall;
                }

                var root = Installation.Root;
                // A demo on another port, such as the tests', has data of its own.
                var number = call.GetValue(port);
                var data = Path.Combine(Installation.Data, number == UsualPort ? "demo" : $"demo-{number}");
                foreach (var old in new[] { data, data + "-receivers", data + "-backups" }.Where(Directory.Exists))
                {
                    Directory.Delete(old, recursive: true);
                }

                var demo = Path.Combine(root, "demo");
                DemoSite.Lay(demo, DemoSite.FolderIn(data));
                // Beside the data, as everybody's pictures are.
                var folder = data + "-pictures";
                DemoFolder.Lay(demo, folder);
                await using var receivers = await TestReceiverProcess.StartAsync(data + "-receivers");
                return await RunAsync(
                    new()
                    {
                        Data = data,
                        Client = Installation.Client,
                        Port = call.GetValue(port),
                        Example = DemoSite.FolderIn(data),
                        PictureFolders = [folder],
                    },
                    app => DemoData.ReadInAsync(app, demo, receivers.Address, cancel),
                    cancel,
                    app => DemoSite.BuildAsync(app, demo, data, app.Lifetime.ApplicationStopping)
                );
            }
        );
        return command;
    }

    public static Command Serve()
    {
        var data = new Option<string>("--data")
        {
            Description = CommandTexts.TheDataFolderCreatedIfIt,
            HelpName = "DIR",
            Required = true,
        };
        var host = new Option<string>("--host")
        {
            Description = CommandTexts.TheAddressToListenOn,
            HelpName = "H",
            DefaultValueFactory = _ => "127.0.0.1",
        };
        var upload = new Option<long>("--max-upload")
        {
            Description = CommandTexts.TheLargestUploadInMegabytes,
            HelpName = "MB",
            DefaultValueFactory = _ => 200,
        };
        upload.Validators.Add(result =>
        {
            if (result.Tokens is [var token] && (!long.TryParse(token.Value, out var number) || number is < 1 or > 10_000))
            {
                result.AddError(CommandTexts.MaxUploadTakesAWholeNumber);
            }
        });
        var sign = new SignInCall();
        // By its name: what only runs in a server is not loaded to build the call.
        var level = new Option<string>("--log-level")
        {
            Description = CommandTexts.TheLowestLevelThatIsLogged,
            HelpName = "LEVEL",
            DefaultValueFactory = _ => "warning",
        };
        level.Validators.Add(result =>
        {
            if (result.Tokens is [var token] && token.Value is not ("trace" or "debug" or "information" or "warning" or "error"))
            {
                result.AddError(CommandTexts.LogLevelTakesTraceDebugInformation);
            }
        });
        var folders = new Option<string[]>("--folder")
        {
            Description = CommandTexts.AFolderOfThisMachineWhose,
            HelpName = "DIR",
            DefaultValueFactory = _ => [],
        };
        folders.Validators.Add(result =>
        {
            if (result.Tokens.FirstOrDefault(token => !Directory.Exists(token.Value)) is { } none)
            {
                result.AddError(CommandTexts.FolderTakesAnExistingFolderDoes(none.Value));
            }
        });
        var privateHosts = new Option<string[]>("--private-host")
        {
            Description = CommandTexts.AHostOfThisMachineOrItsNetwork,
            HelpName = "HOST[:PORT]",
            DefaultValueFactory = _ => [],
        };
        privateHosts.Validators.Add(result =>
        {
            if (result.Tokens.FirstOrDefault(token => !AllowedHost.TryParse(token.Value, out _)) is { } none)
            {
                result.AddError(CommandTexts.PrivateHostTakesAHostSuch(none.Value));
            }
        });
        var backups = new Option<string?>("--backups") { Description = BackupTexts.WhereTheServersBackupsGo, HelpName = "DIR" };
        var port = Port();
        var command = new Command("serve", CommandTexts.StartsTheApplicationOnAData)
        {
            data,
            port,
            host,
            upload,
            level,
            folders,
            privateHosts,
            backups,
        };
        sign.AddTo(command);
        command.SetAction(
            async (call, cancel) =>
            {
                var options = sign.Of(call) with
                {
                    Data = call.GetRequiredValue(data),
                    Client = Installation.Client,
                    Port = call.GetValue(port),
                    Host = call.GetValue(host)!,
                    PictureFolders = call.GetValue(folders)!,
                    PrivateHosts = call.GetValue(privateHosts)!,
                    Backups = call.GetValue(backups),
                    MostUploadBytes = call.GetValue(upload) * 1_000_000,
                    LogLevel = Enum.Parse<LogLevel>(call.GetValue(level)!, ignoreCase: true),
                };
                return await RunAsync(
                    // Whoever is not at this machine reaches its network through it only where the call says so.
                    options with
                    {
                        ReachesPrivate = !options.PeopleSignIn,
                    },
                    _ => Task.CompletedTask,
                    cancel,
                    app => sign.TellAsync(call, app, options)
                );
            }
        );
        return command;
    }

    /// <summary>Prints the OpenAPI document, from which the client's types are generated.</summary>
    public static Command OpenApi()
    {
        var command = new Command("openapi", CommandTexts.PrintsTheOpenAPIDescriptionOfThe) { Hidden = true };
        command.SetAction(
            async (_, cancel) =>
            {
                var scratch = TemporaryFolder.Make("openapi");
                try
                {
                    await using var app = await PantometServer.BuildAsync(new() { Data = scratch, Port = 0 });
                    await app.StartAsync(cancel);
                    using var client = new HttpClient();
                    CallOutput.Out.WriteLine(await client.GetStringAsync(new Uri($"{Address(app)}/openapi/v1.json"), cancel));
                    await app.StopAsync(cancel);
                }
                finally
                {
                    Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
                    TemporaryFolder.Remove(scratch);
                }

                return ExitCodes.Fine;
            }
        );
        return command;
    }

    private static bool IsTaken(int port)
    {
        try
        {
            using var listener = new TcpListener(IPAddress.Loopback, port);
            listener.Start();
            return false;
        }
        catch (SocketException)
        {
            return true;
        }
    }

    private static Option<int> Port()
    {
        var port = new Option<int>("--port")
        {
            Description = CommandTexts.ThePort,
            HelpName = "N",
            DefaultValueFactory = _ => UsualPort,
        };
        port.Validators.Add(result =>
        {
            if (result.Tokens is [var token] && (!int.TryParse(token.Value, out var number) || number is < 0 or > 65535))
            {
                result.AddError(CommandTexts.PortTakesANumberFromTo);
            }
        });
        return port;
    }

    private static async Task<int> RunAsync(
        ServerOptions options,
        Func<WebApplication, Task> prepare,
        CancellationToken cancel,
        Func<WebApplication, Task>? meanwhile = null
    )
    {
        try
        {
            await using var app = await PantometServer.BuildAsync(options);
            await prepare(app);
            await app.StartAsync(cancel);
            CallOutput.Out.WriteLine(CommandTexts.PantometIsReadyAt(Address(app)));
            var work = meanwhile is null ? Task.CompletedTask : Task.Run(() => meanwhile(app), cancel);
            await app.WaitForShutdownAsync(cancel);
            await work;
            // Nobody asked it to stop: whoever watches over it is told by the exit status.
            return PantometServer.StoppedByItself(app) ? ExitCodes.SomethingBroke : ExitCodes.Fine;
        }
        catch (Exception fault)
            when (fault
                    is IOException
                        or UnauthorizedAccessException
                        or SocketException
                        or UriFormatException
                        or FormatException
                        or InvalidDataException
                        or System.Data.Common.DbException
            )
        {
            await CallOutput.Error.WriteLineAsync(CommandTexts.PantometTheServerCouldNotStart(fault.Message));
            return ExitCodes.WrongCall;
        }
    }

    private static string Address(WebApplication app) =>
        app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First();
}

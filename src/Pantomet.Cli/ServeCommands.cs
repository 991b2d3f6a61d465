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
        var command = new Command("demo", "Starts the application with fresh demo data and prints its address.") { port };
        command.SetAction(
            async (call, cancel) =>
            {
                // A demo that runs already keeps its data.
                if (IsTaken(call.GetValue(port)))
                {
                    await CallOutput.Error.WriteLineAsync(
                        $"pantomet: something listens on port {call.GetValue(port)} already; choose another with --port"
                    );
                    return ExitCodes.WrongCall;
                }

                var root = Installation.Root;
                // A demo on another port, such as the tests', has data of its own.
                var number = call.GetValue(port);
                var data = Path.Combine(root, "data", number == UsualPort ? "demo" : $"demo-{number}");
                foreach (var old in new[] { data, data + "-receivers" }.Where(Directory.Exists))
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
            Description = "The data folder; made if missing.",
            HelpName = "DIR",
            Required = true,
        };
        var host = new Option<string>("--host")
        {
            Description = "The address to listen on.",
            HelpName = "H",
            DefaultValueFactory = _ => "127.0.0.1",
        };
        var upload = new Option<long>("--max-upload")
        {
            Description = "The most megabytes of one upload.",
            HelpName = "MB",
            DefaultValueFactory = _ => 200,
        };
        upload.Validators.Add(result =>
        {
            if (result.Tokens is [var token] && (!long.TryParse(token.Value, out var number) || number is < 1 or > 10_000))
            {
                result.AddError("--max-upload takes a whole number of megabytes from 1 to 10000.");
            }
        });
        var everyone = new Option<bool>("--open-to-everyone")
        {
            Description = "Listen where other machines can reach it, though nobody has to sign in.",
        };
        // By its name: what only runs in a server is not loaded to build the call.
        var level = new Option<string>("--log-level")
        {
            Description = "What is logged, and all that is worse: trace, debug, information, warning, error.",
            HelpName = "LEVEL",
            DefaultValueFactory = _ => "warning",
        };
        level.Validators.Add(result =>
        {
            if (result.Tokens is [var token] && token.Value is not ("trace" or "debug" or "information" or "warning" or "error"))
            {
                result.AddError("--log-level takes trace, debug, information, warning or error.");
            }
        });
        var folders = new Option<string[]>("--folder")
        {
            Description =
                "A folder of this machine whose pictures may be optimised, and into which files may be handed over; can be given more than once.",
            HelpName = "DIR",
            DefaultValueFactory = _ => [],
        };
        folders.Validators.Add(result =>
        {
            if (result.Tokens.FirstOrDefault(token => !Directory.Exists(token.Value)) is { } none)
            {
                result.AddError($"--folder takes a folder that is there; {none.Value} is none.");
            }
        });
        var privateHosts = new Option<string[]>("--private-host")
        {
            Description =
                "With --open-to-everyone: a host of this machine or its network that page checks and receivers may reach, with its port; "
                + "can be given more than once.",
            HelpName = "HOST[:PORT]",
            DefaultValueFactory = _ => [],
        };
        privateHosts.Validators.Add(result =>
        {
            if (result.Tokens.FirstOrDefault(token => !AllowedHost.TryParse(token.Value, out _)) is { } none)
            {
                result.AddError($"--private-host takes a host, such as intranet.example:8080; \"{none.Value}\" is none.");
            }
        });
        var port = Port();
        var command = new Command("serve", "Starts the application on a data folder.")
        {
            data,
            port,
            host,
            upload,
            everyone,
            level,
            folders,
            privateHosts,
        };
        command.SetAction(
            async (call, cancel) =>
            {
                var options = new ServerOptions
                {
                    Data = call.GetRequiredValue(data),
                    Client = Installation.Client,
                    Port = call.GetValue(port),
                    Host = call.GetValue(host)!,
                    PictureFolders = call.GetValue(folders)!,
                    PrivateHosts = call.GetValue(privateHosts)!,
                    MostUploadBytes = call.GetValue(upload) * 1_000_000,
                    LogLevel = Enum.Parse<LogLevel>(call.GetValue(level)!, ignoreCase: true),
                };
                if (!options.IsLocal && !call.GetValue(everyone))
                {
                    await CallOutput.Error.WriteLineAsync(
                        $"pantomet: {options.Host} can be reached by other machines, and there is no sign-in yet: "
                            + $"whoever reaches it can see and "
                            + "change everything. If that is what you want, add --open-to-everyone."
                    );
                    return ExitCodes.WrongCall;
                }

                return await RunAsync(options with { ReachesPrivate = options.IsLocal }, _ => Task.CompletedTask, cancel);
            }
        );
        return command;
    }

    /// <summary>Prints the OpenAPI document, from which the client's types are generated.</summary>
    public static Command OpenApi()
    {
        var command = new Command("openapi", "Prints the description of the server's interface.") { Hidden = true };
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
            Description = "The port.",
            HelpName = "N",
            DefaultValueFactory = _ => UsualPort,
        };
        port.Validators.Add(result =>
        {
            if (result.Tokens is [var token] && (!int.TryParse(token.Value, out var number) || number is < 0 or > 65535))
            {
                result.AddError("--port takes a number from 0 to 65535.");
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
            CallOutput.Out.WriteLine($"Pantomet is ready at {Address(app)}/");
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
            await CallOutput.Error.WriteLineAsync($"pantomet: it could not start: {fault.Message}");
            return ExitCodes.WrongCall;
        }
    }

    private static string Address(WebApplication app) =>
        app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First();
}

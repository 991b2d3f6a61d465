using System.CommandLine;
using System.ComponentModel;
using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using Pantomet.Core.Texts;
using Pantomet.Platform;

namespace Pantomet.Cli;

/// <summary><c>sandbox</c>: tries on itself what this platform takes from the processes that work on pictures, and says it.</summary>
internal static class SandboxCommand
{
    public static Command Build()
    {
        var command = new Command("sandbox", CommandTexts.SaysWhatThisPlatformTakesFromImaging);
        command.SetAction(_ => Try());
        return command;
    }

    private static int Try()
    {
        var port = Listen(out var listener);
        using (listener)
        {
            Say(CommandTexts.MemoryAndTimeAreLimited, Posix64);
            if (!Sandbox.TryEnter())
            {
                Say(CommandTexts.NoNetwork, false);
                Say(CommandTexts.NoOtherPrograms, false);
                return ExitCodes.SomethingBroke;
            }

            var (network, programs) = (IsRefused(() => Connect(port)), IsRefused(Start));
            Say(CommandTexts.NoNetwork, network);
            Say(CommandTexts.NoOtherPrograms, programs);
            return network && programs ? ExitCodes.Fine : ExitCodes.SomethingBroke;
        }
    }

    private static bool Posix64 => OperatingSystem.IsLinux() && Environment.Is64BitProcess;

    private static int Listen(out TcpListener listener)
    {
        listener = new(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    private static void Connect(int port)
    {
        using var client = new TcpClient();
        client.Connect(IPAddress.Loopback, port);
    }

    private static void Start()
    {
        using var started = Process.Start(new ProcessStartInfo("/bin/true"));
        started?.WaitForExit();
    }

    private static bool IsRefused(Action act)
    {
        try
        {
            act();
            return false;
        }
        catch (Exception refused) when (refused is SocketException or Win32Exception)
        {
            return true;
        }
    }

    private static void Say(string what, bool holds) => CallOutput.Out.WriteLine(CommandTexts.HoldsOrNot(what, holds));
}

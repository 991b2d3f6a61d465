using System.Diagnostics;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.Hosting;
using Pantomet.Application.Engine;
using Pantomet.Core.Texts;
using Pantomet.TestReceivers;

namespace Pantomet.Cli;

/// <summary>The places of the demo that take files, in a process of their own.</summary>
internal sealed class TestReceiverProcess : IAsyncDisposable
{
    /// <summary>What that process is called with.</summary>
    public const string Call = "test-receivers";

    private readonly Process _process;

    private TestReceiverProcess(Process process, string address) => (_process, Address) = (process, address);

    /// <summary>Where they are: without a slash at its end.</summary>
    public string Address { get; }

    /// <summary>Starts them.</summary>
    /// <param name="folder">Where they keep what they are given.</param>
    /// <exception cref="IOException">They did not start.</exception>
    public static async Task<TestReceiverProcess> StartAsync(string folder)
    {
        var start = ImagingProcess.Call(ImagingProcess.Self(), Call, folder);
        start.RedirectStandardInput = true;
        start.RedirectStandardOutput = true;
        start.UseShellExecute = false;
        var process = Process.Start(start) ?? throw new IOException(CommandTexts.TheDemosReceiversDidNotStart);
        if (await process.StandardOutput.ReadLineAsync() is { Length: > 0 } address)
        {
            return new(process, address);
        }

        await ImagingProcess.EndAsync(process);
        throw new IOException(CommandTexts.TheDemosReceiversDidNotStart);
    }

    /// <summary>Is that process: tells its address and ends when whoever started it does.</summary>
    public static async Task ServeAsync(string folder)
    {
        TestReceiverServer.Guard();
        await using var app = TestReceiverServer.Build(folder, port: 0);
        await app.StartAsync();
        Console.WriteLine(TestReceiverServer.AddressOf(app));
        while (await Console.In.ReadLineAsync() is not null) { }

        await app.StopAsync();
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        await ImagingProcess.EndAsync(_process);
        _process.Dispose();
    }
}

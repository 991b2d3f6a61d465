using System.ComponentModel;
using System.Diagnostics;
using PuppeteerSharp;

namespace Pantomet.Browsing;

/// <summary>There is no browser that pages can be opened in; the message says what to do.</summary>
/// <param name="message">A sentence.</param>
public sealed class NoBrowserException(string message) : Exception(message);

/// <summary>
/// A headless Chromium in processes of its own: without a way to the network, confined by its own sandbox, and ended with this object or
/// with the program that started it.
/// </summary>
internal sealed class Chromium : IAsyncDisposable
{
    /// <summary>The variable that names a browser where none is on the path.</summary>
    public const string Variable = "PANTOMET_BROWSER";

    // Nothing is reached but through the requests that are answered here: no name is found, and the way out leads nowhere.
    private static readonly string[] Flags =
    [
        "--headless=new",
        "--remote-debugging-port=0",
        "--remote-debugging-address=127.0.0.1",
        "--proxy-server=http://127.0.0.1:9",
        "--proxy-bypass-list=<-loopback>",
        "--host-resolver-rules=MAP * ~NOTFOUND",
        "--force-webrtc-ip-handling-policy=disable_non_proxied_udp",
        "--disable-features=IsolateOrigins,site-per-process,Translate,MediaRouter,OptimizationHints,AutofillServerCommunication",
        "--disable-site-isolation-trials",
        "--disable-gpu",
        "--disable-quic",
        "--disable-background-networking",
        "--disable-background-timer-throttling",
        "--disable-backgrounding-occluded-windows",
        "--disable-renderer-backgrounding",
        "--disable-component-update",
        "--disable-default-apps",
        "--disable-dev-shm-usage",
        "--disable-extensions",
        "--disable-popup-blocking",
        "--block-new-web-contents",
        "--disable-sync",
        "--hide-scrollbars",
        "--mute-audio",
        "--no-default-browser-check",
        "--no-first-run",
        "--force-color-profile=srgb",
    ];

    private static readonly string[] Names = ["chromium", "chromium-browser"];
    private static readonly TimeSpan Start = TimeSpan.FromSeconds(30);

    // Ends the browser when the pipe closes, whatever ended who holds its other end, and takes its folder away.
    private const string Guard = """
        exec 3<&0
        profile=$1; shift
        "$@" </dev/null &
        browser=$!
        { cat <&3 >/dev/null; kill "$browser" 2>/dev/null; } &
        wait "$browser"
        sleep 0.2
        rm -rf "$profile"
        """;

    private readonly Process _process;
    private readonly string _profile;

    private Chromium(Process process, string profile, IBrowser browser) => (_process, _profile, Browser) = (process, profile, browser);

    public IBrowser Browser { get; }

    /// <summary>Starts one.</summary>
    /// <exception cref="NoBrowserException">None is installed, or it does not start.</exception>
    public static async Task<Chromium> StartAsync(CancellationToken cancel)
    {
        var program = Find();
        var profile = Directory.CreateTempSubdirectory("pantomet-browser-").FullName;
        Process? process = null;
        try
        {
            process = Run(program, profile);
            var address = await AddressAsync(process, cancel);
            var browser = await Puppeteer.ConnectAsync(new ConnectOptions { BrowserWSEndpoint = address, DefaultViewport = null });
            return new(process, profile, browser);
        }
        catch (Exception fault)
        {
            if (process is not null)
            {
                await EndAsync(process);
            }

            Remove(profile);
            if (fault is NoBrowserException or OperationCanceledException)
            {
                throw;
            }

            throw new NoBrowserException($"The browser {program} does not start: {fault.Message}");
        }
    }

    public async ValueTask DisposeAsync()
    {
        Browser.Disconnect();
        await EndAsync(_process);
        Remove(_profile);
    }

    private static string Find()
    {
        if (Environment.GetEnvironmentVariable(Variable) is { Length: > 0 } named)
        {
            return File.Exists(named) ? named : throw new NoBrowserException($"{Variable} names {named}, and there is no such file.");
        }

        return (Environment.GetEnvironmentVariable("PATH") ?? "")
                .Split(Path.PathSeparator, StringSplitOptions.RemoveEmptyEntries)
                .SelectMany(folder => Names.Select(name => Path.Combine(folder, name)))
                .FirstOrDefault(File.Exists)
            ?? throw new NoBrowserException(
                "No browser was found to open the page in. Install Chromium (on Debian: apt install chromium), or name its file in "
                    + $"{Variable}."
            );
    }

    private static Process Run(string program, string profile)
    {
        // The browser confines its pages only where it does not run as the root user: it is run as nobody then.
        string[] asNobody = Environment.UserName == "root" ? ["setpriv", "--reuid=65534", "--regid=65534", "--clear-groups"] : [];
        if (asNobody.Length > 0)
        {
            Give(profile);
        }

        var start = new ProcessStartInfo("/bin/sh")
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            UseShellExecute = false,
            WorkingDirectory = profile,
        };
        foreach (
            var word in (string[])["-c", Guard, "sh", profile, .. asNobody, program, .. Flags, $"--user-data-dir={profile}", "about:blank"]
        )
        {
            start.ArgumentList.Add(word);
        }

        // Nothing of what the program was told is the page's business.
        start.Environment.Clear();
        start.Environment["PATH"] = Environment.GetEnvironmentVariable("PATH");
        start.Environment["HOME"] = profile;
        start.Environment["LANG"] = "C.UTF-8";
        return Process.Start(start) ?? throw new NoBrowserException("The browser did not start.");
    }

    private static void Give(string folder)
    {
        using var chown = Process.Start("chown", ["65534:65534", folder]);
        chown.WaitForExit();
    }

    // Where it listens stands on its standard error; what else it says there is of use only when it does not come up.
    private static async Task<string> AddressAsync(Process process, CancellationToken cancel)
    {
        const string Listening = "DevTools listening on ";
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(Start);
        var said = new Queue<string>();
        try
        {
            while (await process.StandardError.ReadLineAsync(limit.Token) is { } line)
            {
                if (line.StartsWith(Listening, StringComparison.Ordinal))
                {
                    _ = process.StandardError.BaseStream.CopyToAsync(Stream.Null, CancellationToken.None);
                    _ = process.StandardOutput.BaseStream.CopyToAsync(Stream.Null, CancellationToken.None);
                    return line[Listening.Length..].Trim();
                }

                said.Enqueue(line);
                if (said.Count > 5)
                {
                    said.Dequeue();
                }
            }
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            throw new NoBrowserException($"The browser did not come up within {Start.TotalSeconds} s.");
        }

        var sandbox = said.Any(line => line.Contains("sandbox", StringComparison.OrdinalIgnoreCase));
        throw new NoBrowserException(
            sandbox
                ? "The browser cannot confine pages here, and is not used without that. Allow user namespaces, or install its sandbox (on "
                    + "Debian: apt install chromium-sandbox)."
                : $"The browser ended before it was ready: {string.Join(" ", said)}"
        );
    }

    private static async Task EndAsync(Process process)
    {
        try
        {
            process.Kill(entireProcessTree: true);
            await process.WaitForExitAsync();
        }
        catch (Exception gone) when (gone is InvalidOperationException or Win32Exception)
        {
            // It ended by itself.
        }

        process.Dispose();
    }

    // Its last processes may still write while it goes.
    private static void Remove(string folder)
    {
        for (var tries = 0; tries < 5 && Directory.Exists(folder); tries++)
        {
            try
            {
                Directory.Delete(folder, recursive: true);
            }
            catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
            {
                Thread.Sleep(50);
            }
        }
    }
}

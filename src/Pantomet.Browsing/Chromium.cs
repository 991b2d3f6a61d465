using System.Collections.Concurrent;
using System.ComponentModel;
using System.Diagnostics;
using System.Globalization;
using Pantomet.Core.Texts;
using Pantomet.Platform;
using PuppeteerSharp;
using PuppeteerSharp.Transport;

namespace Pantomet.Browsing;

/// <summary>There is no browser that pages can be opened in; the message says what to do.</summary>
/// <param name="message">A sentence.</param>
public sealed class NoBrowserException(string message) : Exception(message);

/// <summary>
/// A headless Chromium in processes of its own: without a network, confined by its own sandbox, held to so much memory, and ended with this
/// object or with the program that started it.
/// </summary>
internal sealed class Chromium : IAsyncDisposable
{
    /// <summary>The variable that names a browser where none is on the path.</summary>
    public const string Variable = "PANTOMET_BROWSER";

    /// <summary>What is said when it grew over its limit.</summary>
    public const string TooLarge = PageTexts.ThePageNeedsMoreMemoryThan;

    // Nothing is reached but through the requests that are answered here: no name is found, and the way out leads nowhere. Where the machine
    // gives a network of its own to it, there is no way out at all.
    private static readonly string[] Flags =
    [
        "--headless=new",
        "--remote-debugging-pipe",
        "--proxy-server=http://127.0.0.1:9",
        "--proxy-bypass-list=<-loopback>",
        "--host-resolver-rules=MAP * ~NOTFOUND",
        "--force-webrtc-ip-handling-policy=disable_non_proxied_udp",
        "--webrtc-ip-handling-policy=disable_non_proxied_udp",
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

    // The one without windows first: it is the same engine, and starts in half the time.
    private static readonly string[] Names = ["chromium-headless-shell", "chromium", "chromium-browser"];
    private static readonly TimeSpan Start = TimeSpan.FromSeconds(30);
    private static readonly TimeSpan Ending = TimeSpan.FromSeconds(3);
    private const int MostSaid = 100;
    private const long Untouched = 1L << 30;
    private const long Even = 1L << 26;

    // Holds the browser to its limits, and ends it when whoever started it is gone, whatever ended that; then takes its folder away.
    private const string Guard = """
        parent=$PPID profile=$1 data=$2 members=$3; shift 3
        [ -z "$members" ] || echo $$ >"$members" || exit 1
        ulimit -c 0; ulimit -d "$data"
        exec 3<&0 4>&1 </dev/null >/dev/null
        "$@" &
        browser=$!
        exec 3<&- 4>&-
        while kill -0 "$browser" 2>/dev/null && kill -0 "$parent" 2>/dev/null; do sleep 0.3; done
        kill -KILL "$browser" 2>/dev/null
        wait "$browser" 2>/dev/null
        rm -rf "$profile"
        """;

    private static readonly TimeSpan Look = TimeSpan.FromMilliseconds(100);

    // How a program is started without the machine's network, the tightest way first. A space of its own for processes ends with its first,
    // and takes all others with it.
    private static readonly string[][] WaysIn =
    [
        ["unshare", "--net", "--pid", "--fork", "--kill-child"],
        ["unshare", "--map-current-user", "--net", "--pid", "--fork", "--kill-child"],
        ["unshare", "--map-current-user", "--net"],
    ];

    private static readonly Lazy<string[]> WayIn = new(() => WaysIn.FirstOrDefault(Works) ?? []);

    private readonly Process _process;
    private readonly string _profile;
    private readonly MemoryGroup? _group;
    private readonly long _mostBytes;
    private readonly CancellationTokenSource _end = new();
    private volatile bool _grew;

    private Chromium(Process process, string profile, MemoryGroup? group, long mostBytes, IBrowser browser)
    {
        (_process, _profile, _group, _mostBytes, Browser) = (process, profile, group, mostBytes, browser);
        _ = Task.Run(WatchAsync);
    }

    public IBrowser Browser { get; }

    /// <summary>True where it has a network of its own, in which nothing is; false where it shares the machine's and is only told not to use it.</summary>
    public static bool IsCutOff => !SharesNetwork && WayIn.Value.Length > 0;

    /// <summary>True to start it as on a machine that gives no network of its own; what holds there too is measured so.</summary>
    internal static bool SharesNetwork { get; set; }

    /// <summary>True once it was ended, or ended itself, or lost a process, because it took too much memory.</summary>
    public bool Grew => _grew || _group?.HasRunOut() == true || (!_end.IsCancellationRequested && _process.HasExited);

    /// <summary>The number of its first process.</summary>
    internal int ProcessId => _process.Id;

    /// <summary>Starts one.</summary>
    /// <param name="mostBytes">The most memory of all its processes together.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="NoBrowserException">None is installed, or it does not start.</exception>
    public static async Task<Chromium> StartAsync(long mostBytes, CancellationToken cancel)
    {
        var program = Find();
        var profile = TemporaryFolder.Make("browser");
        var group = MemoryGroup.TryMake(mostBytes);
        Process? process = null;
        try
        {
            process = Run(program, profile, group, mostBytes);
            var browser = await ConnectAsync(process, cancel);
            return new(process, profile, group, mostBytes, browser);
        }
        catch (Exception fault)
        {
            if (process is not null)
            {
                await EndAsync(process);
            }

            group?.Dispose();
            TemporaryFolder.Remove(profile);
            if (fault is NoBrowserException or OperationCanceledException)
            {
                throw;
            }

            throw new NoBrowserException(PageTexts.TheBrowserDoesNotStart(program, fault.Message));
        }
    }

    public async ValueTask DisposeAsync()
    {
        await _end.CancelAsync();
        Browser.Disconnect();
        await EndAsync(_process);
        _group?.Dispose();
        TemporaryFolder.Remove(_profile);
        _end.Dispose();
    }

    // What a group of the system holds is held there; here the sum is looked at too, so that it is told apart, and held where there is no group.
    private async Task WatchAsync()
    {
        try
        {
            while (!_process.HasExited)
            {
                if (ProcessTree.Memory(_process.Id) > _mostBytes)
                {
                    _grew = true;
                    _process.Kill(entireProcessTree: true);
                    return;
                }

                await Task.Delay(Look, _end.Token);
            }
        }
        catch (Exception fault) when (fault is OperationCanceledException or InvalidOperationException or Win32Exception)
        {
            // It ended.
        }
    }

    private static bool Works(string[] way)
    {
        try
        {
            using var tried = Process.Start(
                new ProcessStartInfo(way[0], [.. way[1..], "true"]) { RedirectStandardError = true, RedirectStandardOutput = true }
            )!;
            return tried.WaitForExit(TimeSpan.FromSeconds(5)) && tried.ExitCode == 0;
        }
        catch (Win32Exception)
        {
            return false;
        }
    }

    private static string Find()
    {
        if (Environment.GetEnvironmentVariable(Variable) is { Length: > 0 } named)
        {
            return File.Exists(named) ? named : throw new NoBrowserException(PageTexts.IsSetToWhichDoesNot(Variable, named));
        }

        var folders = (Environment.GetEnvironmentVariable("PATH") ?? "").Split(Path.PathSeparator, StringSplitOptions.RemoveEmptyEntries);
        return Names.SelectMany(name => folders.Select(folder => Path.Combine(folder, name))).FirstOrDefault(File.Exists)
            ?? throw new NoBrowserException(PageTexts.NoBrowserWasFoundInstallChromium(Variable));
    }

    private static Process Run(string program, string profile, MemoryGroup? group, long mostBytes)
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
            var word in (string[])
                [
                    "-c",
                    Guard,
                    "sh",
                    profile,
                    EachKilobytes(mostBytes).ToString(CultureInfo.InvariantCulture),
                    group?.Members ?? "",
                    .. IsCutOff ? WayIn.Value : [],
                    .. asNobody,
                    program,
                    .. Flags,
                    $"--user-data-dir={profile}",
                    "about:blank",
                ]
        )
        {
            start.ArgumentList.Add(word);
        }

        // Nothing of what the program was told is the page's business.
        start.Environment.Clear();
        start.Environment["PATH"] = Environment.GetEnvironmentVariable("PATH");
        start.Environment["HOME"] = profile;
        // What it lays down for the time being goes with its profile.
        start.Environment["TMPDIR"] = profile;
        start.Environment["LANG"] = "C.UTF-8";
        return Process.Start(start) ?? throw new NoBrowserException(PageTexts.TheBrowserDidNotStart);
    }

    // What one process may take of its own, as the system counts it: 0.7 GB of what an empty page asks for are never touched (measured). The engine
    // of scripts reads the limit, and wants it even.
    private static long EachKilobytes(long mostBytes) => (mostBytes + Untouched) / Even * Even / 1024;

    private static void Give(string folder)
    {
        using var chown = Process.Start("chown", ["65534:65534", folder]);
        chown.WaitForExit();
    }

    // It is up once it answers; what it says on its error stream is of use only when it does not come up.
    private static async Task<IBrowser> ConnectAsync(Process process, CancellationToken cancel)
    {
        var said = new ConcurrentQueue<string>();
        process.ErrorDataReceived += (_, one) =>
        {
            if (!string.IsNullOrWhiteSpace(one.Data) && said.Count < MostSaid)
            {
                said.Enqueue(one.Data);
            }
        };
        process.BeginErrorReadLine();
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(Start);
        try
        {
            var transport = new PipeTransport(process.StandardOutput.BaseStream, process.StandardInput.BaseStream);
            var up = Puppeteer.ConnectAsync(
                new ConnectOptions
                {
                    BrowserWSEndpoint = "ws://pipe/",
                    DefaultViewport = null,
                    TransportFactory = (_, _, _) =>
                    {
                        transport.Start();
                        return Task.FromResult<IConnectionTransport>(transport);
                    },
                }
            );
            var first = await Task.WhenAny(up, process.WaitForExitAsync(limit.Token)).WaitAsync(limit.Token);
            if (first == up)
            {
                return await up;
            }
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            throw new NoBrowserException(PageTexts.TheBrowserDidNotStartWithin(Start.TotalSeconds));
        }
        catch (Exception fault) when (fault is PuppeteerException or ProcessException)
        {
            // The pipe of a browser that ends closes a little before the process is gone; what it said tells more.
            using var rest = new CancellationTokenSource(Ending);
            await process.WaitForExitAsync(rest.Token).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            if (!process.HasExited)
            {
                throw;
            }
        }

        throw new NoBrowserException(
            said.Any(line => line.Contains("sandbox", StringComparison.OrdinalIgnoreCase))
                ? PageTexts.TheBrowserCannotRunPagesIn
                : PageTexts.TheBrowserEndedBeforeItWas(string.Join(" ", said.TakeLast(5)))
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
}

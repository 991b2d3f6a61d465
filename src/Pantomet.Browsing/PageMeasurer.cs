using System.Collections.Concurrent;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Texts;
using PuppeteerSharp;

namespace Pantomet.Browsing;

/// <summary>A page as it was on one screen.</summary>
/// <param name="Screen">The screen.</param>
/// <param name="Height">How long it is, in CSS pixels.</param>
/// <param name="Images">Its pictures.</param>
/// <param name="Elements">Its elements, where a picture of it was wanted.</param>
/// <param name="Asked">The addresses that it asked for.</param>
/// <param name="Shot">What it looks like: a PNG at density 1; null where none was wanted or it could not be taken.</param>
/// <param name="Notes">What could not be seen, a sentence each.</param>
public sealed record LookedAt(
    Screen Screen,
    double Height,
    IReadOnlyList<SeenImage> Images,
    IReadOnlyList<PageElement> Elements,
    IReadOnlySet<string> Asked,
    byte[]? Shot,
    IReadOnlyList<string> Notes
);

/// <summary>Opens a page in a browser on many screens and tells what pictures it shows.</summary>
/// <param name="files">All that the page can read.</param>
/// <param name="limits">How long it may take.</param>
public sealed class PageMeasurer(IPageFiles files, PageLimits limits)
{
    /// <summary>Looks at the page on each screen, each time as if for the first time.</summary>
    /// <param name="screens">The screens.</param>
    /// <param name="shots">The screens on which a picture of it is taken.</param>
    /// <param name="done">Told after each screen what the page is like there; null where it could not be seen.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>The screens on which it could be seen, in their order, and why not on the others, a sentence each.</returns>
    /// <exception cref="NoBrowserException">There is no browser.</exception>
    public async Task<(IReadOnlyList<LookedAt> Seen, IReadOnlyList<(Screen Screen, string Why)> Failed)> LookAsync(
        IReadOnlyList<Screen> screens,
        IReadOnlySet<Screen> shots,
        Func<LookedAt?, Task> done,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(screens);
        ArgumentNullException.ThrowIfNull(shots);
        ArgumentNullException.ThrowIfNull(done);
        var seen = new LookedAt?[screens.Count];
        var failed = new string?[screens.Count];
        using var whole = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        whole.CancelAfter(limits.Whole);
        var broken = await PassAsync([.. Enumerable.Range(0, screens.Count)], drawings: true);
        if (broken.Count > 0)
        {
            // A drawing of a few hundred bytes can ask for all the memory there is: what is left of the page is measured without them.
            await PassAsync(broken, drawings: false);
        }

        return (
            [.. seen.OfType<LookedAt>()],
            [.. screens.Zip(failed).Where(one => one.Second is not null).Select(one => (one.First, one.Second!))]
        );

        // Gives the screens at which the browser broke down.
        async Task<IReadOnlyCollection<int>> PassAsync(IReadOnlyCollection<int> which, bool drawings)
        {
            var (open, broken) = (new ConcurrentQueue<int>(which), new ConcurrentBag<int>());
            await using var chromium = await Chromium.StartAsync(limits.MostBytes, cancel);
            await Task.WhenAll(
                Enumerable
                    .Range(0, Math.Min(Environment.ProcessorCount, which.Count))
                    .Select(_ => WorkAsync(chromium, open, broken, drawings))
            );
            return [.. broken.Order()];
        }

        async Task WorkAsync(Chromium chromium, ConcurrentQueue<int> open, ConcurrentBag<int> broken, bool drawings)
        {
            IPage? tab = null;
            while (open.TryDequeue(out var i))
            {
                var later = false;
                for (var again = true; again; )
                {
                    cancel.ThrowIfCancellationRequested();
                    PageMeasurement? look = null;
                    try
                    {
                        tab ??= await TabAsync(chromium.Browser, whole.Token);
                        look = new(tab, files, limits, screens[i], drawings);
                        seen[i] = await look.LookAsync(shots.Contains(screens[i]), whole.Token);
                        (failed[i], again) = (null, false);
                    }
                    catch (Exception fault) when (Words(fault, chromium, look, cancel) is not null)
                    {
                        // A tab that hangs before it asks for anything is no fault of the page: another one is tried, once.
                        again =
                            drawings
                            && failed[i] is null
                            && look?.HasBegun != true
                            && !chromium.Grew
                            && fault is not OperationCanceledException;
                        failed[i] = Words(fault, chromium, look, cancel);
                        later = !again && drawings && (chromium.Grew || IsCrash(fault));
                        if (later)
                        {
                            broken.Add(i);
                        }

                        // What hangs is left to the end of the browser.
                        tab = null;
                    }
                }

                if (!later)
                {
                    await done(seen[i]);
                }
            }
        }
    }

    // Why a screen could not be seen; null for what nobody foresaw.
    private string? Words(Exception fault, Chromium chromium, PageMeasurement? look, CancellationToken cancel) =>
        fault switch
        {
            NoPageException
            or PuppeteerException
            or TimeoutException
            or IOException
            or OperationCanceledException when chromium.Grew && !cancel.IsCancellationRequested => Chromium.TooLarge,
            NoPageException => fault.Message,
            PuppeteerException when IsCrash(fault) => PageTexts.TheBrowserProcessOfThePage,
            PuppeteerException or TimeoutException when look?.Wanders == true => PageTexts.ThePageOpensOtherPagesAgain2,
            PuppeteerException or TimeoutException => PageTexts.ThePageStoppedAnsweringItsScripts,
            OperationCanceledException when !cancel.IsCancellationRequested => PageTexts.ThereWasNoTimeLeftAll(limits.Whole.TotalMinutes),
            _ => null,
        };

    private static bool IsCrash(Exception fault) =>
        fault.Message.Contains("crash", StringComparison.OrdinalIgnoreCase) || (fault.InnerException is { } inner && IsCrash(inner));

    // Tabs share nothing with each other.
    private async Task<IPage> TabAsync(IBrowser browser, CancellationToken cancel)
    {
        var context = await browser.CreateBrowserContextAsync().WaitAsync(limits.Opening, cancel);
        return await context.NewPageAsync().WaitAsync(limits.Opening, cancel);
    }
}

/// <summary>What was opened is no page; the message says what it is.</summary>
/// <param name="message">A sentence.</param>
internal sealed class NoPageException(string message) : Exception(message);

using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Text.Json;
using Pantomet.Core.Facts;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Texts;
using PuppeteerSharp;

namespace Pantomet.Browsing;

/// <summary>One page on one screen, opened in a tab in which nothing of an earlier look is left.</summary>
internal sealed class PageMeasurement(IPage page, IPageFiles files, PageLimits limits, Screen screen, bool drawings)
{
    private static readonly string Measure = Script("measure.js");
    private const int Large = 4_000_000;

    private static readonly SemaphoreSlim Larges = new(1);
    private static readonly TimeSpan Look = TimeSpan.FromMilliseconds(50);
    private static readonly TimeSpan Quiet = TimeSpan.FromMilliseconds(250);

    private static readonly JsonSerializerOptions Facts = new(JsonSerializerDefaults.Web);

    private readonly ConcurrentDictionary<string, bool> _asked = new(StringComparer.Ordinal);
    private readonly ConcurrentDictionary<string, bool> _notRead = new(StringComparer.OrdinalIgnoreCase);
    private readonly ConcurrentQueue<string> _notes = new();
    private int _underWay;
    private int _moves;
    private string? _noPage;
    private volatile bool _sends;
    private volatile bool _withoutDrawings;
    private long _lastAnswer = Stopwatch.GetTimestamp();

    /// <summary>True once the page asked for anything.</summary>
    public bool HasBegun => !_asked.IsEmpty;

    /// <summary>True once the page went elsewhere by itself more than once.</summary>
    public bool Wanders => Volatile.Read(ref _moves) > 2;

    public async Task<LookedAt> LookAsync(bool shot, CancellationToken cancel)
    {
        page.Dialog += OnDialog;
        page.Popup += OnPopup;
        page.Request += OnRequest;
        try
        {
            await PrepareAsync(cancel);
            await OpenAsync(cancel);
            await ScrollAsync(cancel);
            var (images, elements) = await SeenAsync(shot, cancel);
            var height = await AskAsync<double>(page.MainFrame, "() => document.documentElement.getBoundingClientRect().height", cancel);
            // Taking the picture changes the window for a moment, and a page may then ask for other sizes of its pictures.
            var asked = _asked.Keys.ToHashSet(StringComparer.Ordinal);
            var picture = shot ? await ShotAsync(height, cancel) : null;
            // Nothing of this look is left for the next one.
            await page
                .Client.SendAsync(
                    "Storage.clearDataForOrigin",
                    new { origin = files.Start.GetLeftPart(UriPartial.Authority), storageTypes = "all" }
                )
                .WaitAsync(limits.Answering, cancel);
            await page.GoToAsync("about:blank").WaitAsync(limits.Answering, cancel);
            if (_withoutDrawings)
            {
                _notes.Enqueue(PageTexts.TheSVGDrawingsOfThePage);
            }

            if (_sends)
            {
                _notes.Enqueue(PageTexts.ThePageSendsDataWhenIt);
            }

            return new(screen, height, images, elements, asked, picture, [.. _notes, .. NotRead()]);
        }
        finally
        {
            page.Dialog -= OnDialog;
            page.Popup -= OnPopup;
            page.Request -= OnRequest;
        }

        async void OnDialog(object? sender, DialogEventArgs opened) => await Quietly(opened.Dialog.Dismiss());
        async void OnPopup(object? sender, PopupEventArgs opened) => await Quietly(opened.PopupPage.CloseAsync());
        async void OnRequest(object? sender, RequestEventArgs asked) => await Quietly(AnswerAsync(asked.Request, cancel));
    }

    private async Task PrepareAsync(CancellationToken cancel)
    {
        page.DefaultTimeout = (int)limits.Answering.TotalMilliseconds;
        await page.SetRequestInterceptionAsync(true).WaitAsync(limits.Opening, cancel);
        await page.SetViewportAsync(
            new()
            {
                Width = screen.Viewport,
                Height = screen.Height,
                DeviceScaleFactor = screen.Density,
            }
        );
        await page.Client.SendAsync("Page.setDownloadBehavior", new { behavior = "deny" });
    }

    // A page that never ends loading is looked at as far as it came.
    private async Task OpenAsync(CancellationToken cancel)
    {
        try
        {
            await page.GoToAsync(files.Start.AbsoluteUri, (int)limits.Loading.TotalMilliseconds, [WaitUntilNavigation.Load])
                .WaitAsync(limits.Loading + limits.Answering, cancel);
        }
        catch (Exception fault) when (fault is NavigationException or TimeoutException && _noPage is null && !IsEmpty())
        {
            _notes.Enqueue(PageTexts.ThePageDidNotFinishLoading(limits.Loading.TotalSeconds));
        }
        catch (NavigationException fault)
        {
            throw new NoPageException(_noPage ?? PageTexts.ThePageCannotBeOpened(fault.Message));
        }

        if (_noPage is not null)
        {
            throw new NoPageException(_noPage);
        }
    }

    private bool IsEmpty() => page.Url is "" or "about:blank" || page.Url.StartsWith("chrome-error:", StringComparison.Ordinal);

    // Down to the end and back, so that what is loaded late is there.
    private async Task ScrollAsync(CancellationToken cancel)
    {
        var script = $$"""
            async () => {
              const step = innerHeight;
              const rest = () => new Promise((go) => { requestAnimationFrame(() => requestAnimationFrame(go)); setTimeout(go, 200); });
              let steps = 0;
              for (let y = 0; y < document.documentElement.scrollHeight && steps < {{limits.MostSteps}}; y += step, steps++) {
                scrollTo({ top: y, behavior: "instant" });
                await rest();
              }
              const cut = document.documentElement.scrollHeight > (steps + 1) * step;
              return cut;
            }
            """;
        if (await AskAsync<bool>(page.MainFrame, script, cancel))
        {
            _notes.Enqueue(PageTexts.ThePageIsLongerThanScreens(limits.MostSteps));
        }

        await SettleAsync(cancel);
        await AskAsync<bool>(page.MainFrame, "() => { scrollTo({ top: 0, left: 0, behavior: 'instant' }); return true; }", cancel);
        await SettleAsync(cancel);
    }

    // Until nothing is on its way and every image is there, or for so long.
    private async Task SettleAsync(CancellationToken cancel)
    {
        const string Pending =
            "() => [...document.images].some((one) => !one.complete && one.getClientRects().length > 0 && (one.currentSrc || one.src))";
        var clock = Stopwatch.StartNew();
        while (clock.Elapsed < limits.Settling)
        {
            if (_underWay == 0 && Stopwatch.GetElapsedTime(_lastAnswer) > Quiet && !await AskAsync<bool>(page.MainFrame, Pending, cancel))
            {
                return;
            }

            await Task.Delay(Look, cancel);
        }
    }

    private async Task<(IReadOnlyList<SeenImage> Images, IReadOnlyList<PageElement> Elements)> SeenAsync(
        bool withElements,
        CancellationToken cancel
    )
    {
        var (seen, elements) = (new List<SeenImage>(), (IReadOnlyList<PageElement>)[]);
        var frames = 0;
        // What the browser says where a document could not be loaded is not the page's.
        foreach (var frame in page.Frames.Where(frame => !frame.Url.StartsWith("chrome-error:", StringComparison.Ordinal)))
        {
            if (++frames > limits.MostFrames)
            {
                _notes.Enqueue(PageTexts.ThePageHasMoreThanFrames(limits.MostFrames));
                break;
            }

            try
            {
                var isWhole = withElements && frame.ParentFrame is null;
                var told = await AskAsync<string>(frame, $"() => ({Measure})({(isWhole ? "true" : "false")})", cancel);
                var (images, found) = JsonSerializer.Deserialize<Measured>(told, Facts)!;
                if (frame.ParentFrame is null)
                {
                    seen.AddRange(images);
                    elements = found;
                }
                else if (await OfFrameAsync(frame, cancel) is { } at)
                {
                    seen.AddRange(images.Select(one => one with { Where = at.Where + one.Where, Place = Moved(one.Place, at.X, at.Y) }));
                }
            }
            catch (Exception fault) when (fault is PuppeteerException && frame.ParentFrame is not null)
            {
                // A document that went away meanwhile shows nothing.
            }
        }

        return (seen, elements);
    }

    private static PageBox Moved(PageBox box, double x, double y) => box.Width > 0 ? box with { X = box.X + x, Y = box.Y + y } : box;

    // Where a document within the page lies on it, and by what its element is found.
    private async Task<(string Where, double X, double Y)?> OfFrameAsync(IFrame frame, CancellationToken cancel)
    {
        var (where, x, y) = ("", 0.0, 0.0);
        for (var at = frame; at.ParentFrame is { } parent; at = parent)
        {
            var element = await at.FrameElementAsync().WaitAsync(limits.Answering, cancel);
            if (element is null)
            {
                return null;
            }

            var corner = await element
                .EvaluateFunctionAsync<double[]>(
                    PageTexts.OneConstROneGetBoundingClientRectConst
                        + PageTexts.ReturnRLeftOneClientLeftW
                        + "[...one.ownerDocument.querySelectorAll(one.localName)].indexOf(one)]; }"
                )
                .WaitAsync(limits.Answering, cancel);
            (x, y) = (x + corner[0], y + corner[1]);
            where = string.Create(CultureInfo.InvariantCulture, $"iframe({corner[2] + 1}) >>> ") + where;
        }

        return (where, x, y);
    }

    private async Task<byte[]?> ShotAsync(double height, CancellationToken cancel)
    {
        try
        {
            if (height > limits.LongestShot)
            {
                _notes.Enqueue(PageTexts.ThePageIsPxLongThe(height, limits.LongestShot));
            }

            return await page.ScreenshotDataAsync(
                    new()
                    {
                        Type = ScreenshotType.Png,
                        CaptureBeyondViewport = true,
                        Clip = new()
                        {
                            Width = screen.Viewport,
                            Height = (decimal)Math.Clamp(height, 1, limits.LongestShot),
                            Scale = 1,
                        },
                    }
                )
                .WaitAsync(limits.Answering, cancel);
        }
        catch (Exception fault) when (fault is PuppeteerException or TimeoutException)
        {
            _notes.Enqueue(PageTexts.NoScreenshotCouldBeTaken);
            return null;
        }
    }

    // Asked in a world of its own: what the page did to its own one is of no matter.
    private async Task<T> AskAsync<T>(IFrame frame, string function, CancellationToken cancel)
    {
        for (var (tries, moves) = (0, -1); ; tries++)
        {
            var before = moves;
            moves = Volatile.Read(ref _moves);
            try
            {
                var world = await frame
                    .Page.Client.SendAsync<World>("Page.createIsolatedWorld", new { frameId = frame.Id, worldName = "pantomet" })
                    .WaitAsync(limits.Answering, cancel);
                var answer = await frame
                    .Page.Client.SendAsync<JsonElement>(
                        "Runtime.evaluate",
                        new
                        {
                            expression = $"({function})()",
                            contextId = world.ExecutionContextId,
                            awaitPromise = true,
                            returnByValue = true,
                        }
                    )
                    .WaitAsync(limits.Answering, cancel);
                return answer.TryGetProperty("exceptionDetails", out var thrown)
                    ? throw new PuppeteerException(thrown.ToString())
                    : answer.GetProperty("result").GetProperty("value").Deserialize<T>(Facts)!;
            }
            catch (PuppeteerException) when (frame.ParentFrame is null && (tries < 2 || moves != before))
            {
                // It went elsewhere while it was asked. It may do so only so often; until it is held it is asked again.
                await Task.Delay(Quiet, cancel);
            }
        }
    }

    private async Task AnswerAsync(IRequest request, CancellationToken cancel)
    {
        Interlocked.Increment(ref _underWay);
        try
        {
            var main = request.IsNavigationRequest && request.Frame == page.MainFrame;
            if (main && Interlocked.Increment(ref _moves) > limits.MostMoves + 1)
            {
                _notes.Enqueue(PageTexts.ThePageOpensOtherPagesAgain);
                await request.AbortAsync(RequestAbortErrorCode.Aborted);
                return;
            }

            var address = new Uri(request.Url.Split('#')[0]);
            PageAnswer answer;
            if (request.Method == HttpMethod.Get)
            {
                _asked[address.AbsoluteUri] = true;
                answer = await files.GetAsync(address, cancel);
            }
            else
            {
                // A page that is measured changes nothing at its host: what it sends goes nowhere, and is not asked for in another way either.
                _sends = true;
                answer = PageAnswer.None((int)HttpStatusCode.MethodNotAllowed, PageTexts.APageCheckSendsNoData);
            }

            if (main && answer.Moved is null && NotAPage(answer) is { } sentence)
            {
                _noPage = sentence;
                await request.AbortAsync();
                return;
            }

            if (!drawings && IsDrawing(answer))
            {
                _withoutDrawings = true;
                await request.AbortAsync(RequestAbortErrorCode.BlockedByClient);
                return;
            }

            if (answer.Status == 0)
            {
                if (request.ResourceType is ResourceType.StyleSheet or ResourceType.Script or ResourceType.Font or ResourceType.Document)
                {
                    _notRead[address.Authority] = true;
                }

                await request.AbortAsync(RequestAbortErrorCode.BlockedByClient);
                return;
            }

            var headers = new Dictionary<string, object> { ["Access-Control-Allow-Origin"] = "*" };
            if (answer.Moved is { } moved)
            {
                headers["Location"] = moved.AbsoluteUri;
            }

            var response = new ResponseData
            {
                Status = (HttpStatusCode)answer.Status,
                ContentType = answer.Type,
                Headers = headers,
                BodyData = answer.Body,
            };
            if (answer.Body.Length < Large)
            {
                await request.RespondAsync(response);
                return;
            }

            // On its way to the browser a file takes several times its size: large ones go one after the other.
            await Larges.WaitAsync(cancel);
            try
            {
                await request.RespondAsync(response);
            }
            finally
            {
                Larges.Release();
            }
        }
        finally
        {
            Volatile.Write(ref _lastAnswer, Stopwatch.GetTimestamp());
            Interlocked.Decrement(ref _underWay);
        }
    }

    private static bool IsDrawing(PageAnswer answer) =>
        answer.Type?.StartsWith("image/svg", StringComparison.OrdinalIgnoreCase) == true
        || (
            answer.Type?.StartsWith("text/html", StringComparison.OrdinalIgnoreCase) != true
            && FileSignature.Recognise(answer.Body.AsSpan(0, Math.Min(answer.Body.Length, FileSignature.HeadLength)), out _)
                == PictureFormat.Svg
        );

    private static string? NotAPage(PageAnswer answer) =>
        answer.Trouble is { } trouble ? trouble
        : answer.Type is null
        || answer.Type.StartsWith("text/html", StringComparison.OrdinalIgnoreCase)
        || answer.Type.StartsWith("application/xhtml", StringComparison.OrdinalIgnoreCase)
            ? null
        : PageTexts.ThisIsNotAPageBut(answer.Type);

    // The page went away while it was answered, or what was to be answered did.
    private static async Task Quietly(Task task)
    {
        try
        {
            await task;
        }
        catch (Exception fault)
            when (fault is PuppeteerException or OperationCanceledException or ObjectDisposedException or UriFormatException) { }
    }

    private static string Script(string name)
    {
        using var stream = typeof(PageMeasurement).Assembly.GetManifestResourceStream(name)!;
        using var reader = new StreamReader(stream);
        var text = reader.ReadToEnd();
        return text[text.IndexOf("(withElements) =>", StringComparison.Ordinal)..].TrimEnd();
    }

    // Pictures tell their own trouble; without a style or a script the whole page may look otherwise.
    private IEnumerable<string> NotRead() =>
        _notRead.Keys.Order(StringComparer.Ordinal).Select(host => PageTexts.ThePageLoadsFilesFromWhich(host));

    private sealed record World(int ExecutionContextId);

    private sealed record Measured(IReadOnlyList<SeenImage> Images, IReadOnlyList<PageElement> Elements);
}

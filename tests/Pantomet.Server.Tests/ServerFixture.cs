using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Data;

namespace Pantomet.Server.Tests;

/// <summary>The real server on a free port and a data folder of its own.</summary>
public class ServerFixture : IAsyncLifetime
{
    private const int SmallSide = 1800;

    private static readonly System.Collections.Concurrent.ConcurrentDictionary<string, byte[]> Small = new(StringComparer.Ordinal);

    private WebApplication? _app;

    /// <summary>The program whose processes decode pictures: the published one, which starts in half the time, where the run has named it.</summary>
    public static string Engine { get; } =
        Environment.GetEnvironmentVariable("PANTOMET_PROGRAM") is { Length: > 0 } published && File.Exists(published)
            ? published
            : Path.Combine(AppContext.BaseDirectory, "pantomet.dll");

    public const int MostUploadBytes = 3_000_000;

    public string Data { get; } = Directory.CreateTempSubdirectory("pantomet-server-").FullName;

    /// <summary>The folder whose pictures may be optimised.</summary>
    public string Pictures { get; } = Directory.CreateTempSubdirectory("pantomet-folder-").FullName;

    public HttpClient Client { get; private set; } = new();

    public IServiceProvider Services => _app!.Services;

    /// <summary>Everything the server logged as a warning or worse.</summary>
    public LogKeeper Log { get; } = new();

    public virtual async Task InitializeAsync()
    {
        _app = await PantometServer.BuildAsync(
            Adjusted(
                new()
                {
                    Data = Data,
                    Port = 0,
                    MostUploadBytes = MostUploadBytes,
                    PictureFolders = [Pictures],
                    LongestAnswer = TimeSpan.FromSeconds(1),
                    LongestSilence = TimeSpan.FromSeconds(2),
                    // It would read files that a test has damaged, and mend them before the test looks.
                    IntegrityBegins = TimeSpan.FromHours(1),
                    Engine = Engine,
                    DeliveryPauses = [TimeSpan.FromMilliseconds(50)],
                }
            ),
            builder => builder.Logging.ClearProviders().AddProvider(Log)
        );
        await _app.StartAsync();
        Client.Dispose();
        Client = new()
        {
            BaseAddress = new(_app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First()),
        };
    }

    /// <summary>How the server is to run, where a class of tests wants it otherwise.</summary>
    protected virtual ServerOptions Adjusted(ServerOptions options) => options;

    /// <summary>Stops the server and starts another on the same folder.</summary>
    public async Task RestartAsync()
    {
        await _app!.DisposeAsync();
        await InitializeAsync();
    }

    public Task<HttpResponseMessage> SendAsync(string name, byte[] bytes) =>
        Client.PostAsync(new Uri($"/api/pictures?name={Uri.EscapeDataString(name)}", UriKind.Relative), new ByteArrayContent(bytes));

    /// <summary>Reads one of the demo's pictures in and gives its id once its subject was sought.</summary>
    public async Task<string> PictureAsync(string name)
    {
        var answer = await SendAsync(name, SmallPicture(name));
        answer.EnsureSuccessStatusCode();
        var id = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("picture").GetProperty("id").GetString()!;
        await SoughtAsync(Guid.Parse(id));
        return id;
    }

    /// <summary>Waits until a picture was looked at for its subject.</summary>
    public async Task SoughtAsync(Guid picture)
    {
        for (var tries = 0; tries < 3000; tries++)
        {
            await using var scope = Services.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            if (await db.Pictures.AnyAsync(row => row.Id == picture && row.SubjectSought))
            {
                return;
            }

            await Task.Delay(100);
        }

        throw new TimeoutException("Its subject was not sought within five minutes.");
    }

    /// <summary>Makes a job and gives its id.</summary>
    public async Task<string> JobAsync(
        IEnumerable<string> pictures,
        IEnumerable<string> slots,
        string run = "running",
        string name = "A job",
        bool anew = false
    )
    {
        var places = slots
            .Select(address => address.Split('/'))
            .Select(parts => new
            {
                destination = parts[0],
                slot = parts[1],
                choice = (object?)null,
            });
        var made = await SendAsync(
            HttpMethod.Post,
            "/api/jobs",
            new
            {
                name,
                pictures = Array.Empty<string>(),
                slots = Array.Empty<object>(),
            }
        );
        var id = made.GetProperty("id").GetString()!;
        await SendAsync(HttpMethod.Put, $"/api/jobs/{id}/run", new { run });
        // What an earlier test decided about a picture is not where this one begins.
        await CommandAsync(
            id,
            [new { @do = "add-pictures", pictures }, .. pictures.Where(_ => anew).Select(picture => new { @do = "forget", picture })]
        );
        await SendAsync(HttpMethod.Put, $"/api/jobs/{id}/slots", places);
        return id;
    }

    /// <summary>A job of its own of the demo's pictures, read in if they are not yet.</summary>
    public async Task<(string Id, List<string> Pictures)> FreshJobAsync(string[] names, string[] slots, string run = "running")
    {
        List<string> pictures = [];
        foreach (var name in names)
        {
            pictures.Add(await PictureAsync(name));
        }

        return (await JobAsync(pictures, slots, run, anew: true), pictures);
    }

    /// <summary>The cells of a job as text, in a fixed order, without what changes from answer to answer.</summary>
    public static List<string> Cells(JsonElement job) =>
        [.. job.GetProperty("cells").EnumerateArray().Select(Bare).Order(StringComparer.Ordinal)];

    /// <summary>Sends JSON and gives the JSON that comes back; a refusal fails the test.</summary>
    public async Task<JsonElement> SendAsync(HttpMethod method, string address, object? body = null)
    {
        using var request = new HttpRequestMessage(method, address) { Content = body is null ? null : JsonContent.Create(body) };
        using var answer = await Client.SendAsync(request);
        Assert.True(answer.IsSuccessStatusCode, $"{method} {address}: {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync()}");
        return answer.Content.Headers.ContentLength == 0 || answer.StatusCode == System.Net.HttpStatusCode.NoContent
            ? default
            : await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    /// <summary>Sends commands to a job; a refusal fails the test.</summary>
    public Task<JsonElement> CommandAsync(string job, params object[] commands) =>
        SendAsync(HttpMethod.Post, $"/api/jobs/{job}/commands", new { commands });

    /// <summary>A cell without the sequence at which it was read.</summary>
    public static string Bare(JsonElement cell)
    {
        var bare = System.Text.Json.Nodes.JsonNode.Parse(cell.GetRawText())!.AsObject();
        bare.Remove("sequence");
        return bare.ToJsonString();
    }

    public Task<JsonElement> JobAsync(string id) => SendAsync(HttpMethod.Get, $"/api/jobs/{id}");

    /// <summary>Waits until every file of a job is made.</summary>
    public async Task<JsonElement> MadeAsync(string id)
    {
        for (var i = 0; i < 600; i++)
        {
            var job = await JobAsync(id);
            var progress = job.GetProperty("progress");
            if (
                progress.GetProperty("done").GetInt32() + progress.GetProperty("failed").GetInt32()
                == progress.GetProperty("files").GetInt32()
            )
            {
                return job;
            }

            await Task.Delay(100);
        }

        throw new TimeoutException("The job was not made.");
    }

    public Task<JsonElement> TryAsync(string job, string picture, string slot, string? format, int? quality, string descriptor = "1x") =>
        SendAsync(
            HttpMethod.Post,
            $"/api/jobs/{job}/cells/{picture}/{slot}/trial",
            new
            {
                descriptor,
                format,
                quality,
            }
        );

    /// <summary>
    /// One of the demo's pictures, no longer than 1 800 px: what is decided, counted and told about a picture does not depend on its size, and
    /// making files of it takes a quarter of the time.
    /// </summary>
    public static byte[] SmallPicture(string name) =>
        Small.GetOrAdd(
            name,
            _ =>
            {
                Imaging.ImagingEngine.Start();
                using var whole = NetVips.Image.NewFromFile(DemoPicture(name));
                if (
                    Math.Max(whole.Width, whole.Height) <= SmallSide
                    || !whole.Get("vips-loader").ToString()!.StartsWith("jpeg", StringComparison.Ordinal)
                )
                {
                    return File.ReadAllBytes(DemoPicture(name));
                }

                using var small = NetVips.Image.Thumbnail(DemoPicture(name), SmallSide, height: SmallSide, noRotate: true);
                return small.JpegsaveBuffer(q: 92);
            }
        );

    public static string DemoPicture(string name) => Path.Combine(Cli.Installation.Root, "demo", "pictures", name);

    /// <summary>Stops the server; its data folder stays until it is disposed of.</summary>
    public async Task StopAsync()
    {
        await _app!.DisposeAsync();
        Client.Dispose();
        SqliteConnection.ClearAllPools();
    }

    public async Task DisposeAsync()
    {
        await _app!.DisposeAsync();
        Client.Dispose();
        SqliteConnection.ClearAllPools();
        Directory.Delete(Data, recursive: true);
        Directory.Delete(Pictures, recursive: true);
    }
}

/// <summary>
/// A server whose data folder already holds the demo's pictures, with their subjects sought. They are added once for all classes of tests;
/// each class gets a copy of that folder, so that nothing one of them does is met by another.
/// </summary>
public sealed class StockedServerFixture : ServerFixture
{
    private static readonly Lazy<Task<string>> Stock = new(FillAsync);

    private bool _isStocked;

    public override async Task InitializeAsync()
    {
        if (!_isStocked)
        {
            Copy(await Stock.Value, Data);
            _isStocked = true;
        }

        await base.InitializeAsync();
    }

    private static async Task<string> FillAsync()
    {
        var stock = Directory.CreateTempSubdirectory("pantomet-stock-").FullName;
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(stock, recursive: true);
        var server = new ServerFixture();
        await server.InitializeAsync();
        var pictures = Directory.GetFiles(DemoPicture("")).Select(Path.GetFileName).Order(StringComparer.Ordinal);
        var added = new List<Guid>();
        foreach (var name in pictures)
        {
            using var answer = await server.SendAsync(name!, SmallPicture(name!));
            answer.EnsureSuccessStatusCode();
            added.Add((await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("picture").GetProperty("id").GetGuid());
        }

        foreach (var picture in added)
        {
            await server.SoughtAsync(picture);
        }

        // Only once it is stopped, its folder is whole.
        await server.StopAsync();
        Copy(server.Data, stock);
        await server.DisposeAsync();
        return stock;
    }

    private static void Copy(string from, string to)
    {
        foreach (var folder in Directory.EnumerateDirectories(from, "*", SearchOption.AllDirectories).Prepend(from))
        {
            // Keys lie where nobody else may read.
            var copy = Directory.CreateDirectory(Path.Combine(to, Path.GetRelativePath(from, folder)));
            if (!OperatingSystem.IsWindows())
            {
                copy.UnixFileMode = File.GetUnixFileMode(folder);
            }

            foreach (var file in Directory.EnumerateFiles(folder))
            {
                File.Copy(file, Path.Combine(copy.FullName, Path.GetFileName(file)));
            }
        }
    }
}

/// <summary>Keeps what is logged.</summary>
public sealed class LogKeeper : ILoggerProvider, ILogger
{
    private readonly List<string> _lines = [];

    public IReadOnlyList<string> Lines
    {
        get
        {
            lock (_lines)
            {
                return [.. _lines];
            }
        }
    }

    public ILogger CreateLogger(string categoryName) => this;

    public IDisposable? BeginScope<TState>(TState state)
        where TState : notnull => null;

    public bool IsEnabled(LogLevel logLevel) => logLevel >= LogLevel.Warning;

    public void Log<TState>(
        LogLevel logLevel,
        EventId eventId,
        TState state,
        Exception? exception,
        Func<TState, Exception?, string> formatter
    )
    {
        if (IsEnabled(logLevel))
        {
            lock (_lines)
            {
                _lines.Add($"{logLevel}: {formatter(state, exception)} {exception}");
            }
        }
    }

    public void Dispose() { }
}

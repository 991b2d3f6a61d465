using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.FileProviders;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;
using Microsoft.Extensions.Logging.Console;
using Microsoft.OpenApi;
using Pantomet.Application;
using Pantomet.Application.Jobs;
using Pantomet.Application.Live;
using Pantomet.Application.Pictures;
using Pantomet.Application.Upgrades;
using Pantomet.Batch;
using Pantomet.Core.Accounts;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;
using Pantomet.Deliveries;
using Pantomet.PageChecks;
using Pantomet.Server.Accounts;
using Pantomet.Server.Bundles;
using Pantomet.Server.Deliveries;
using Pantomet.Server.Destinations;
using Pantomet.Server.Door;
using Pantomet.Server.Folders;
using Pantomet.Server.Fonts;
using Pantomet.Server.Jobs;
using Pantomet.Server.Keeping;
using Pantomet.Server.Live;
using Pantomet.Server.PageChecks;
using Pantomet.Server.Pages;
using Pantomet.Server.Pictures;
using Pantomet.Server.Variants;

namespace Pantomet.Server;

/// <summary>Puts the web application together.</summary>
public static class PantometServer
{
    // Within this time a server that was asked to end has ended.
    private static readonly TimeSpan LongestEnd = TimeSpan.FromSeconds(10);

    /// <summary>Builds the application on a data folder; the caller runs it.</summary>
    public static async Task<WebApplication> BuildAsync(ServerOptions options, Action<WebApplicationBuilder>? adjust = null)
    {
        ArgumentNullException.ThrowIfNull(options);
        var builder = WebApplication.CreateSlimBuilder();
        AddLog(builder, options);
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.Limits.MaxRequestBodySize = Gatekeeper.MostBody;
            kestrel.AddServerHeader = false;
        });
        AddTls(builder, options);
        var host = options.Host.Contains(':', StringComparison.Ordinal) && options.Host[0] != '[' ? $"[{options.Host}]" : options.Host;
        builder.WebHost.UseUrls($"{(options.HasTls ? "https" : "http")}://{host}:{options.Port}");
        AddServices(builder.Services, options);
        adjust?.Invoke(builder);
        var app = builder.Build();
        try
        {
            await PrepareAsync(app);
        }
        catch
        {
            await app.DisposeAsync();
            throw;
        }

        Map(app, options);
        return app;
    }

    /// <summary>True when the application ended because a part of it failed, not because it was asked to.</summary>
    public static bool StoppedByItself(WebApplication app)
    {
        ArgumentNullException.ThrowIfNull(app);
        return app
            .Services.GetServices<IHostedService>()
            .OfType<BackgroundService>()
            .Any(service => service.ExecuteTask is { IsFaulted: true });
    }

    private static void AddTls(WebApplicationBuilder builder, ServerOptions options)
    {
        if (options.Certificate is not { } path)
        {
            return;
        }

        var certificates = new Certificates(path, options.CertificateKey, TimeProvider.System);
        builder.WebHost.UseKestrelHttpsConfiguration();
        builder.WebHost.ConfigureKestrel(kestrel =>
            kestrel.ConfigureHttpsDefaults(https => https.ServerCertificateSelector = (_, _) => certificates.Current)
        );
    }

    // One line of JSON an event, with its time, level, request and trace; on standard error, so that what is printed for people
    // stays apart.
    private static void AddLog(WebApplicationBuilder builder, ServerOptions options)
    {
        builder.Logging.ClearProviders();
        builder
            .Logging.SetMinimumLevel(options.LogLevel)
            .AddFilter("Microsoft.EntityFrameworkCore", options.LogLevel > LogLevel.Debug ? LogLevel.Critical : LogLevel.Debug)
            .AddFilter("Microsoft", options.LogLevel > LogLevel.Debug ? LogLevel.Warning : LogLevel.Debug)
            // That keys lie unsealed on the owner's own disk is decided (docs/decisions/0017-deliveries.md), not news.
            .AddFilter("Microsoft.AspNetCore.DataProtection", LogLevel.Error)
            // A port that is taken is told to the caller in one line.
            .AddFilter("Microsoft.Extensions.Hosting.Internal.Host", LogLevel.Critical)
            .AddJsonConsole(json =>
            {
                json.IncludeScopes = true;
                json.TimestampFormat = "O";
                json.UseUtcTimestamp = true;
            });
        builder.Services.Configure<ConsoleLoggerOptions>(console => console.LogToStandardErrorThreshold = LogLevel.Trace);
        builder.Services.Configure<LoggerFactoryOptions>(log => log.ActivityTrackingOptions = ActivityTrackingOptions.TraceId);
    }

    private static async Task PrepareAsync(WebApplication app)
    {
        await using (var scope = app.Services.CreateAsyncScope())
        {
            scope.ServiceProvider.GetRequiredService<DataFolder>();
            await scope
                .ServiceProvider.GetRequiredService<DataFolder>()
                .PrepareAsync(scope.ServiceProvider.GetRequiredService<PantometDb>(), CancellationToken.None);
            await scope.ServiceProvider.GetRequiredService<FromDocuments>().RunAsync(CancellationToken.None);
        }
    }

    private static void AddServices(IServiceCollection services, ServerOptions options)
    {
        services
            .AddSingleton(options)
            .AddSingleton<WorkOptions>(options)
            .AddSingleton(_ => new DataFolder(options.Data))
            .AddSingleton(TimeProvider.System);
        services.AddDbContextPool<PantometDb>((own, db) => db.UseSqlite(own.GetRequiredService<DataFolder>().ConnectionString));
        services.AddApplication().AddPictureFolders().AddPageChecks().AddDeliveries();
        services.AddScoped(own => new Seeding(
            own.GetRequiredService<PictureIntake>(),
            own.GetRequiredService<Writer>(),
            own.GetRequiredService<OpenJobs>(),
            own.GetRequiredService<JobRoom>(),
            own.GetRequiredService<PictureQueries>(),
            own.GetRequiredService<HandOverQueries>(),
            own.GetRequiredService<PublicationReader>(),
            own.GetRequiredService<Publishing>(),
            own.GetRequiredService<PageCheckStore>(),
            own.GetRequiredService<PageChecker>(),
            own.GetRequiredService<ReceiverStore>()
        ));
        services.AddSingleton<RulesDoor>();
        services.AddWatching();
        services.AddAccounts(options);
        services.AddRateLimits(options);
        services.AddCompression();
        // What is under way is given back when the server ends: all parts end at once, and none is waited for longer.
        services.Configure<HostOptions>(host =>
        {
            host.ShutdownTimeout = LongestEnd;
            host.ServicesStopConcurrently = true;
        });
        services.AddProblemDetails();
        services.AddOpenApi(
            "v1",
            api =>
                api.AddDocumentTransformer(
                    (document, _, _) =>
                    {
                        // The address differs from run to run; the document must not.
                        document.Servers?.Clear();
                        document.Info.Title = "Pantomet";
                        // A command without the member that tells which it is, is none.
                        foreach (
                            var schema in document
                                .Components?.Schemas?.Values.OfType<OpenApiSchema>()
                                .Where(schema => schema.Properties?.ContainsKey("do") == true)
                                ?? []
                        )
                        {
                            (schema.Required ??= new HashSet<string>()).Add("do");
                        }

                        ClosedLists.Tell(document);
                        return Task.CompletedTask;
                    }
                )
        );
        services.ConfigureHttpJsonOptions(json =>
        {
            json.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
            json.SerializerOptions.RespectNullableAnnotations = true;
            json.SerializerOptions.RespectRequiredConstructorParameters = true;
            json.SerializerOptions.AllowOutOfOrderMetadataProperties = true;
            json.SerializerOptions.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase));
        });
        services.AddExceptionHandler<Faults>();
        services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
    }

    // The last proxy alone is asked: what stands before its own entry was said by whoever sent the request.
    private static ForwardedHeadersOptions Forwarded(ServerOptions options)
    {
        var forwarded = new ForwardedHeadersOptions
        {
            ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto | ForwardedHeaders.XForwardedHost,
            ForwardLimit = 1,
        };
        forwarded.KnownProxies.Clear();
        forwarded.KnownIPNetworks.Clear();
        foreach (var network in options.Proxies)
        {
            forwarded.KnownIPNetworks.Add(network);
        }

        return forwarded;
    }

    private static void Map(WebApplication app, ServerOptions options)
    {
        app.UseExceptionHandler();
        app.UseStatusCodePages();
        if (options.Proxies.Count > 0)
        {
            app.UseForwardedHeaders(Forwarded(options));
        }

        app.UseCompression();
        app.UseGatekeeper(options);
        app.UseAuthentication();
        app.UseRateLimiter();
        app.UseAuthorization();
        if (options.Example is { } example && Directory.Exists(example))
        {
            var pages = new PhysicalFileProvider(Path.GetFullPath(example));
            app.UseStaticFiles(new StaticFileOptions { FileProvider = pages, RequestPath = "/example" });
            // A folder's page: without this the client's own would answer, as it does everywhere else.
            app.MapGet(
                    "/example/{**folder:nonfile}",
                    (string? folder) => TypedResults.LocalRedirect($"/example/{(folder is null ? "" : folder.Trim('/') + "/")}index.html")
                )
                .ExcludeFromDescription();
        }

        app.MapOpenApi("/openapi/{documentName}.json").NeedsRight(Right.Look).RequireAuthorization(Needs.Policy);
        app.MapGet("/healthz", () => TypedResults.Text("ready")).ExcludeFromDescription();
        Watching.Map(app);
        var api = app.MapGroup("").AddEndpointFilter(BodyCheck.FilterAsync);
        api.Guard();
        SignInEndpoints.Map(api);
        MyAccountEndpoints.Map(api);
        PeopleEndpoints.Map(api);
        GuestEndpoints.Map(api);
        ActivityEndpoints.Map(api);
        PictureEndpoints.Map(api);
        DestinationEndpoints.Map(api);
        JobEndpoints.Map(api);
        CellEndpoints.Map(api);
        BundleEndpoints.Map(api);
        ReceiverEndpoints.Map(api);
        ReceiverDeliveryEndpoints.Map(api);
        PageEndpoints.Map(api);
        PageCheckEndpoints.Map(api);
        PageRewriteEndpoints.Map(api);
        PictureFolderEndpoints.Map(api);
        FontEndpoints.Map(api);
        SideFileEndpoints.Map(api);
        StyleEndpoints.Map(api);
        VariantEndpoints.Map(api);
        StorageEndpoints.Map(api);
        BackupEndpoints.Map(api);
        PublicationEndpoints.Map(api);
        LiveEndpoints.Map(app);
        if (options.Client is not null && Directory.Exists(options.Client))
        {
            var files = new PhysicalFileProvider(Path.GetFullPath(options.Client));
            app.UseDefaultFiles(new DefaultFilesOptions { FileProvider = files });
            app.UseStaticFiles(new StaticFileOptions { FileProvider = files });
            // Any address of the client is answered by its page; unknown addresses of the API stay 404.
            app.Map(
                    "/api/{**rest}",
                    () => Problems.Problem.Of(StatusCodes.Status404NotFound, "no-such-address", ServerTexts.ThereIsNoPageAtThis)
                )
                .ExcludeFromDescription();
            app.MapFallbackToFile("index.html", new StaticFileOptions { FileProvider = files });
        }
    }
}

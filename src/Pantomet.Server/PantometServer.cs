using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.FileProviders;
using Microsoft.Extensions.Logging;
using Pantomet.Data;
using Pantomet.Server.Bundles;
using Pantomet.Server.Destinations;
using Pantomet.Server.Engine;
using Pantomet.Server.Jobs;
using Pantomet.Server.Pictures;
using Pantomet.Server.Variants;

namespace Pantomet.Server;

/// <summary>Puts the web application together.</summary>
public static class PantometServer
{
    /// <summary>Builds the application on a data folder; the caller runs it.</summary>
    public static async Task<WebApplication> BuildAsync(ServerOptions options, Action<WebApplicationBuilder>? adjust = null)
    {
        ArgumentNullException.ThrowIfNull(options);
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.SetMinimumLevel(LogLevel.Warning).AddFilter("Microsoft.EntityFrameworkCore", LogLevel.Critical)
            // A port that is taken is told to the caller in one line.
            .AddFilter("Microsoft.Extensions.Hosting.Internal.Host", LogLevel.Critical);
        builder.WebHost.ConfigureKestrel(kestrel => kestrel.Limits.MaxRequestBodySize = null);
        builder.WebHost.UseUrls($"http://{(options.Host.Contains(':', StringComparison.Ordinal) && options.Host[0] != '[' ? $"[{options.Host}]" : options.Host)}:{options.Port}");
        AddServices(builder.Services, options);
        adjust?.Invoke(builder);
        var app = builder.Build();
        await using (var scope = app.Services.CreateAsyncScope())
        {
            await DataFolder.PrepareAsync(scope.ServiceProvider.GetRequiredService<PantometDb>(), CancellationToken.None);
        }

        Map(app, options);
        return app;
    }

    private static void AddServices(IServiceCollection services, ServerOptions options)
    {
        var folder = new DataFolder(options.Data);
        services.AddSingleton(options).AddSingleton(folder).AddSingleton(TimeProvider.System).AddSingleton<PreviewMaker>().AddSingleton<EngineRoom>();
        services.AddDbContext<PantometDb>(db => db.UseSqlite(folder.ConnectionString));
        services.AddScoped(own => new Seeding(own.GetRequiredService<PictureIntake>(), own.GetRequiredService<RuleShelf>(), own.GetRequiredService<JobRoom>(), own.GetRequiredService<PantometDb>()));
        services.AddScoped<PictureIntake>().AddScoped<RuleShelf>().AddScoped<Revisions>().AddScoped<BundleWriter>();
        services.AddSingleton<VariantStore>().AddSingleton<JobRoom>().AddHostedService<JobRunner>().AddHostedService<RemovalSweep>();
        services.AddProblemDetails();
        services.AddOpenApi("v1", api => api.AddDocumentTransformer((document, _, _) =>
        {
            // The address differs from run to run; the document must not.
            document.Servers?.Clear();
            document.Info.Title = "Pantomet";
            return Task.CompletedTask;
        }));
        services.ConfigureHttpJsonOptions(json =>
        {
            json.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
            json.SerializerOptions.RespectNullableAnnotations = true;
            json.SerializerOptions.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase));
        });
        if (options.IsLocal)
        {
            // A page elsewhere that gives this machine's address another name gets no answer.
            services.AddHostFiltering(filter => filter.AllowedHosts = ["127.0.0.1", "localhost", "[::1]"]);
        }
        else
        {
            services.AddHostFiltering(filter => filter.AllowedHosts = ["*"]);
        }
    }

    private static void Map(WebApplication app, ServerOptions options)
    {
        app.UseHostFiltering();
        app.UseExceptionHandler(new ExceptionHandlerOptions
        {
            StatusCodeSelector = Status, SuppressDiagnosticsCallback = context => Status(context.Exception) < StatusCodes.Status500InternalServerError,
        });
        app.UseStatusCodePages();
        app.Use((context, next) =>
        {
            context.Response.Headers.ContentSecurityPolicy =
                "default-src 'self'; img-src 'self' blob: data:; style-src 'self' 'unsafe-inline'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'";
            context.Response.Headers.XContentTypeOptions = "nosniff";
            return next(context);
        });
        app.MapOpenApi("/openapi/{documentName}.json");
        app.MapGet("/healthz", () => TypedResults.Text("ready")).ExcludeFromDescription();
        PictureEndpoints.Map(app);
        DestinationEndpoints.Map(app);
        JobEndpoints.Map(app);
        CellEndpoints.Map(app);
        BundleEndpoints.Map(app);
        VariantEndpoints.Map(app);
        if (options.Client is not null && Directory.Exists(options.Client))
        {
            var files = new PhysicalFileProvider(Path.GetFullPath(options.Client));
            app.UseDefaultFiles(new DefaultFilesOptions { FileProvider = files });
            app.UseStaticFiles(new StaticFileOptions { FileProvider = files });
            // Any address of the client is answered by its page; unknown addresses of the API stay 404.
            app.Map("/api/{**rest}", () => Problems.Problem.Of(StatusCodes.Status404NotFound, "no-such-address", "There is nothing at this address.")).ExcludeFromDescription();
            app.MapFallbackToFile("index.html", new StaticFileOptions { FileProvider = files });
        }
    }

    // A call that went away or that cannot be read is no failure of the server.
    private static int Status(Exception fault) => fault switch
    {
        BadHttpRequestException bad => bad.StatusCode,
        OperationCanceledException => StatusCodes.Status499ClientClosedRequest,
        _ => StatusCodes.Status500InternalServerError,
    };
}

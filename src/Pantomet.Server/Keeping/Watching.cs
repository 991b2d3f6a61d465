using System.Diagnostics.Metrics;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using OpenTelemetry.Metrics;
using Pantomet.Application.Background;
using Pantomet.Application.Engine;
using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Keeping;

/// <summary>For whoever watches a server: that it is ready, and what it does in figures.</summary>
internal static class Watching
{
    // The name of the figures that are asked for, not counted.
    private const string Gauges = "Pantomet.Server";

    /// <summary>Adds the figures, in the form that Prometheus reads.</summary>
    public static IServiceCollection AddWatching(this IServiceCollection services)
    {
        services
            .AddOpenTelemetry()
            .WithMetrics(figures =>
                figures
                    .AddMeter(WorkMetrics.Name, Gauges, "Microsoft.AspNetCore.Hosting", "System.Runtime")
                    .AddPrometheusExporter(form => form.DisableTotalNameSuffixForCounters = false)
            );
        return services;
    }

    /// <summary>Adds the addresses.</summary>
    public static void Map(WebApplication app)
    {
        var meter = app.Services.GetRequiredService<IMeterFactory>().Create(Gauges);
        var (jobs, processes) = (app.Services.GetRequiredService<OpenJobs>(), app.Services.GetRequiredService<ImagingProcessPool>());
        meter.CreateObservableGauge(
            "pantomet.files.waiting",
            () => jobs.All.Select(board => board.State).Where(state => state.IsAtWork).Sum(Waiting),
            "{file}",
            "Files of open jobs that are still to be made."
        );
        meter.CreateObservableGauge("pantomet.jobs.open", () => jobs.All.Count(), "{job}", "Jobs that are held in memory.");
        meter.CreateObservableGauge(
            "pantomet.imaging.processes",
            () => processes.ProcessIds.Count,
            "{process}",
            "Imaging processes that run."
        );
        app.MapPrometheusScrapingEndpoint("/metrics").ExcludeFromDescription().NeedsRight(Right.Look).RequireAuthorization(Needs.Policy);
        app.MapGet("/readyz", ReadyAsync).ExcludeFromDescription();
    }

    private static int Waiting(BoardState state) => Math.Max(0, state.Tally.Files - state.Tally.Done - state.Tally.Failed);

    // Ready is who can take work: the database answers, and a file can be written. Whoever ends takes no more.
    private static async Task<Results<ContentHttpResult, ProblemHttpResult>> ReadyAsync(
        PantometDb db,
        DataFolder folder,
        IHostApplicationLifetime lifetime,
        CancellationToken cancel
    )
    {
        try
        {
            if (lifetime.ApplicationStopping.IsCancellationRequested)
            {
                return NotReady(ServerTexts.PantometIsStopping);
            }

            await db.Database.ExecuteSqlAsync($"SELECT 1", cancel);
            var part = folder.Scratch();
            await File.WriteAllBytesAsync(part, [1], cancel);
            File.Delete(part);
            return TypedResults.Text("ready");
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException or System.Data.Common.DbException)
        {
            return NotReady(ServerTexts.TheDataFolderCannotBeUsed(fault.Message));
        }
    }

    private static ProblemHttpResult NotReady(string why) => Problem.Of(StatusCodes.Status503ServiceUnavailable, "not-ready", why);
}

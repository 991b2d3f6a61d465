using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.DataProtection.KeyManagement;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Background;
using Pantomet.Application.Bundles;
using Pantomet.Application.Destinations;
using Pantomet.Application.Engine;
using Pantomet.Application.Jobs;
using Pantomet.Application.Keeping;
using Pantomet.Application.Live;
using Pantomet.Application.Pages;
using Pantomet.Application.Pictures;
using Pantomet.Application.Upgrades;
using Pantomet.Application.Variants;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;
using Pantomet.Data.Variants;

namespace Pantomet.Application;

/// <summary>The parts of the application, put together.</summary>
public static class ApplicationServices
{
    /// <summary>Adds jobs, pictures, variants, bundles, live links and destinations.</summary>
    public static IServiceCollection AddApplication(this IServiceCollection services)
    {
        services
            .AddSingleton<ImagingProcessPool>()
            .AddSingleton<PreviewMaker>()
            .AddSingleton<VariantStore>()
            .AddSingleton<PreviewCache>()
            .AddSingleton<AlikePictureStore>();
        services
            .AddSingleton<Writer>()
            .AddSingleton<UnderWay>()
            .AddSingleton<CellJudge>()
            .AddSingleton<JobChanges>()
            .AddSingleton<OpenJobs>()
            .AddSingleton<JobNotifier>();
        services
            .AddSingleton<JobLayout>()
            .AddSingleton<JobFiles>()
            .AddSingleton<JobsOfPicture>()
            .AddSingleton<JobRoom>()
            .AddSingleton<PictureTimeline>()
            .AddSingleton<JobPresence>()
            .AddSingleton<JobList>()
            .AddSingleton<FileDesk>()
            .AddSingleton<VariantRepair>()
            .AddSingleton<JobQueue>();
        services
            .AddSingleton<RuleStore>()
            .AddSingleton<SideFileStore>()
            .AddSingleton<RuleTrials>()
            .AddSingleton<PairStore>()
            .AddSingleton<PictureIntake>()
            .AddScoped<Revisions>()
            .AddScoped<OriginalFix>()
            .AddSingleton<BundleWriter>()
            .AddSingleton<ContactSheetWriter>()
            .AddSingleton<JobExport>();
        services.AddSingleton<LiveLinkStore>().AddSingleton<LiveMaker>().AddSingleton<Publishing>();
        services.AddSingleton<FetchCounts>().AddHostedService(provider => provider.GetRequiredService<FetchCounts>());
        services.AddSingleton<FromDocuments>().AddSingleton<RemovalSweep>().AddSingleton<UnusedFileCollector>();
        services.AddSingleton<IntegritySweep>().AddHostedService(provider => provider.GetRequiredService<IntegritySweep>());
        services.AddSingleton<BackupKeeper>().AddHostedService(provider => provider.GetRequiredService<BackupKeeper>());
        services.AddSingleton<SubjectDetection>().AddHostedService(provider => provider.GetRequiredService<SubjectDetection>());
        services.AddSingleton<WorkCall>().AddSingleton<AllowedFolders>();
        services
            .AddSingleton<DeliveredFiles>()
            .AddScoped<PictureQueries>()
            .AddScoped<VariantQueries>()
            .AddScoped<HandOverQueries>()
            .AddScoped<BundleReader>()
            .AddScoped<PublicationReader>()
            .AddScoped<ResponsivePreview>();
        services.AddSealing();
        return services.AddHostedService<JobRunner>().AddHostedService<Housekeeping>();
    }

    // The keys lie with the data, readable by its owner alone; a copy of the data without them has no secrets to give away.
    private static void AddSealing(this IServiceCollection services)
    {
        services.AddDataProtection().SetApplicationName("Pantomet");
        services
            .AddOptions<KeyManagementOptions>()
            .Configure<DataFolder, ILoggerFactory>((keys, folder, log) => keys.XmlRepository = new KeyFiles(folder.MakeKeys(), log));
    }
}

using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.DataProtection.KeyManagement;
using Microsoft.AspNetCore.DataProtection.Repositories;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Background;
using Pantomet.Application.Bundles;
using Pantomet.Application.Deliveries;
using Pantomet.Application.Destinations;
using Pantomet.Application.Engine;
using Pantomet.Application.Folders;
using Pantomet.Application.Jobs;
using Pantomet.Application.Keeping;
using Pantomet.Application.Live;
using Pantomet.Application.PageChecks;
using Pantomet.Application.PageMends;
using Pantomet.Application.Pictures;
using Pantomet.Application.Upgrades;
using Pantomet.Application.Variants;
using Pantomet.Data;

namespace Pantomet.Application;

/// <summary>The parts of the application, put together.</summary>
internal static class ApplicationServices
{
    public static IServiceCollection AddApplication(this IServiceCollection services)
    {
        services.AddSingleton<EngineRoom>().AddSingleton<PreviewMaker>().AddSingleton<VariantStore>().AddSingleton<LookShelf>();
        services.AddSingleton<Writer>().AddSingleton<UnderWay>().AddSingleton<CellJudge>().AddSingleton<OpenJobs>().AddSingleton<JobBell>();
        services
            .AddSingleton<JobLayout>()
            .AddSingleton<JobFiles>()
            .AddSingleton<JobsOfPicture>()
            .AddSingleton<JobRoom>()
            .AddSingleton<JobList>()
            .AddSingleton<FileDesk>()
            .AddSingleton<JobQueue>();
        services
            .AddSingleton<RuleShelf>()
            .AddSingleton<SideShelf>()
            .AddSingleton<PairShelf>()
            .AddSingleton<PictureIntake>()
            .AddScoped<Revisions>()
            .AddScoped<PuttingRight>()
            .AddSingleton<BundleWriter>();
        services.AddSingleton<LiveShelf>().AddSingleton<LiveMaker>().AddSingleton<Publishing>();
        services.AddSingleton<FetchCounts>().AddHostedService(provider => provider.GetRequiredService<FetchCounts>());
        services.AddSingleton<FromDocuments>().AddSingleton<RemovalSweep>().AddSingleton<Keeper>();
        services.AddSingleton<IntegritySweep>().AddHostedService(provider => provider.GetRequiredService<IntegritySweep>());
        services.AddSingleton<SubjectSeeker>().AddHostedService(provider => provider.GetRequiredService<SubjectSeeker>());
        services
            .AddSingleton<PageShelf>()
            .AddSingleton<PageJob>()
            .AddSingleton<WorkCall>()
            .AddSingleton<PageMendShelf>()
            .AddSingleton<PageChecker>()
            .AddHostedService(provider => provider.GetRequiredService<PageChecker>());
        services
            .AddSingleton<AllowedFolders>()
            .AddSingleton<PictureFolderShelf>()
            .AddSingleton<PictureFolderKeeper>()
            .AddHostedService(provider => provider.GetRequiredService<PictureFolderKeeper>());
        services
            .AddSingleton<ReceiverShelf>()
            .AddSingleton<ReceiverLines>()
            .AddSingleton<ShownLook>()
            .AddSingleton<SendingShelf>()
            .AddSingleton<Sender>()
            .AddHostedService(provider => provider.GetRequiredService<Sender>())
            .AddSingleton<SurvivalKeeper>()
            .AddHostedService(provider => provider.GetRequiredService<SurvivalKeeper>());
        services.AddSealing();
        return services.AddHostedService<JobRunner>().AddHostedService<Housekeeping>();
    }

    // The keys lie with the data, readable by its owner alone; a copy of the data without them has no secrets to give away.
    private static void AddSealing(this IServiceCollection services)
    {
        services.AddDataProtection().SetApplicationName("Pantomet");
        services
            .AddOptions<KeyManagementOptions>()
            .Configure<DataFolder, ILoggerFactory>(
                (keys, folder, log) => keys.XmlRepository = new FileSystemXmlRepository(folder.MakeKeys(), log)
            );
    }
}

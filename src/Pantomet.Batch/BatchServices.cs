using Microsoft.Extensions.DependencyInjection;
using Pantomet.Batch.Folders;

namespace Pantomet.Batch;

/// <summary>The parts of a server's picture folders, put together. What runs without a server needs none.</summary>
public static class BatchServices
{
    /// <summary>Adds folders of pictures that are optimised; the application must have been added.</summary>
    public static IServiceCollection AddPictureFolders(this IServiceCollection services) =>
        services
            .AddSingleton<PictureFolderStore>()
            .AddSingleton<FolderOptimiser>()
            .AddHostedService(provider => provider.GetRequiredService<FolderOptimiser>());
}

using Microsoft.Extensions.DependencyInjection;
using Pantomet.PageChecks.Rewriting;

namespace Pantomet.PageChecks;

/// <summary>The parts of page checks, put together.</summary>
public static class PageCheckServices
{
    /// <summary>Adds page checks, jobs made of a page and rewritten pages; the application must have been added.</summary>
    public static IServiceCollection AddPageChecks(this IServiceCollection services) =>
        services
            .AddSingleton<PageCheckStore>()
            .AddSingleton<PageJob>()
            .AddSingleton<PageRewriteStore>()
            .AddSingleton<PageChecker>()
            .AddHostedService(provider => provider.GetRequiredService<PageChecker>());
}

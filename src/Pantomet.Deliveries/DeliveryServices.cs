using Microsoft.Extensions.DependencyInjection;

namespace Pantomet.Deliveries;

/// <summary>The parts of receivers and deliveries, put together.</summary>
public static class DeliveryServices
{
    /// <summary>Adds receivers, deliveries and the trials of what survives; the application must have been added.</summary>
    public static IServiceCollection AddDeliveries(this IServiceCollection services) =>
        services
            .AddSingleton<ReceiverStore>()
            .AddSingleton<ReceiverLines>()
            .AddSingleton<DeliveryVerification>()
            .AddSingleton<ReceiverDeliveryStore>()
            .AddSingleton<DeliveryWorker>()
            .AddHostedService(provider => provider.GetRequiredService<DeliveryWorker>())
            .AddSingleton<SurvivalTrials>()
            .AddHostedService(provider => provider.GetRequiredService<SurvivalTrials>());
}

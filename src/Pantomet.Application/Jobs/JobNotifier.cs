using Pantomet.Application.Background;

namespace Pantomet.Application.Jobs;

/// <summary>Wakes <see cref="JobRunner"/> when a job may want files that it did not want before.</summary>
public sealed class JobNotifier : WorkSignal;

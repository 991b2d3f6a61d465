using System.Collections.Concurrent;
using Pantomet.Imaging.Making;

namespace Pantomet.Application.Jobs;

/// <summary>What is being made right now; it is not stored, since it ends with the program.</summary>
internal sealed class UnderWay
{
    private readonly ConcurrentDictionary<string, (Guid Job, Guid Picture)> _making = new();
    private readonly ConcurrentDictionary<string, WeighedFile> _weighed = new();

    /// <summary>The files that are being made.</summary>
    public IReadOnlyCollection<string> Files => [.. _making.Keys];

    /// <summary>The pictures that workers have at hand.</summary>
    public IReadOnlySet<Guid> Pictures => _making.Values.Select(one => one.Picture).ToHashSet();

    public bool IsMaking(string file) => _making.ContainsKey(file);

    public WeighedFile? Weighed(string file) => _weighed.GetValueOrDefault(file);

    public int MakingFor(Guid job) => _making.Values.Count(one => one.Job == job);

    public bool Begin(string file, Guid job, Guid picture) => _making.TryAdd(file, (job, picture));

    public void Weigh(string file, WeighedFile found) => _weighed[file] = found;

    public void End(string file)
    {
        _making.TryRemove(file, out _);
        _weighed.TryRemove(file, out _);
    }
}

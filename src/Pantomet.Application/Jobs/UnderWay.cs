using System.Collections.Concurrent;
using Pantomet.Imaging.Making;

namespace Pantomet.Application.Jobs;

/// <summary>What is being made right now; it is not stored, since it ends with the program.</summary>
public sealed class UnderWay
{
    private readonly ConcurrentDictionary<string, (Guid Job, Guid Picture)> _making = new();
    private readonly ConcurrentDictionary<string, WeighedFile> _weighed = new();

    /// <summary>The files that are being made.</summary>
    public IReadOnlyCollection<string> Files => [.. _making.Keys];

    /// <summary>The pictures that workers have at hand.</summary>
    public IReadOnlySet<Guid> Pictures => _making.Values.Select(one => one.Picture).ToHashSet();

    /// <summary>True while the file with this key is being made.</summary>
    public bool IsMaking(string file) => _making.ContainsKey(file);

    /// <summary>The file that was just weighed; null where it was not.</summary>
    public WeighedFile? Weighed(string file) => _weighed.GetValueOrDefault(file);

    /// <summary>How many files of a job are being made.</summary>
    public int MakingFor(Guid job) => _making.Values.Count(one => one.Job == job);

    /// <summary>Claims a file for a job; false where it is being made already.</summary>
    public bool Begin(string file, Guid job, Guid picture) => _making.TryAdd(file, (job, picture));

    /// <summary>Tells the size of a file that is not stored yet.</summary>
    public void Weigh(string file, WeighedFile found) => _weighed[file] = found;

    /// <summary>Says that the file is made or given up.</summary>
    public void End(string file)
    {
        _making.TryRemove(file, out _);
        _weighed.TryRemove(file, out _);
    }
}

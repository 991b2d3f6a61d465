using System.Globalization;

namespace Pantomet.Platform;

/// <summary>
/// A group of processes that together get no more than so much memory: a control group of Linux, where this process may make one. Elsewhere there
/// is none, and each process has only its own limit.
/// </summary>
public sealed class MemoryGroup : IDisposable
{
    private const string Root = "/sys/fs/cgroup";

    private static readonly string[] Counts = ["memory.events", "memory.oom_control"];

    private readonly string _folder;

    private MemoryGroup(string folder) => _folder = folder;

    /// <summary>The file into which the number of a process is written that is to belong to it, with all that it starts.</summary>
    public string Members => Path.Combine(_folder, "cgroup.procs");

    /// <summary>Makes one; null where that is not allowed.</summary>
    /// <param name="bytes">The most memory of all its processes together.</param>
    public static MemoryGroup? TryMake(long bytes)
    {
        if (!Posix.IsLinux)
        {
            return null;
        }

        try
        {
            return Candidates().Select(parent => Made(parent, bytes)).FirstOrDefault(made => made is not null);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }

    /// <summary>True once the system ended one of its processes for want of memory.</summary>
    public bool HasRunOut()
    {
        try
        {
            // Version 2 tells it in memory.events, version 1 in memory.oom_control.
            return Counts
                .Select(name => Path.Combine(_folder, name))
                .Where(File.Exists)
                .SelectMany(File.ReadLines)
                .Any(line => line.StartsWith("oom_kill ", StringComparison.Ordinal) && line != "oom_kill 0");
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return false;
        }
    }

    /// <summary>Removes it; its processes must have ended.</summary>
    public void Dispose()
    {
        for (var tries = 0; tries < 20 && Directory.Exists(_folder); tries++)
        {
            try
            {
                // Its files are the system's own: the folder goes as it is.
                Directory.Delete(_folder);
            }
            catch (IOException)
            {
                Thread.Sleep(25);
            }
        }
    }

    // Version 1 has a tree for memory alone, version 2 one for all.
    private static IEnumerable<string> Candidates()
    {
        foreach (var line in File.ReadLines("/proc/self/cgroup"))
        {
            var parts = line.Split(':', 3);
            if (parts[1].Split(',').Contains("memory"))
            {
                yield return $"{Root}/memory{parts[2]}";
            }
            else if (parts[0] == "0")
            {
                yield return Root + parts[2];
            }
        }
    }

    private static MemoryGroup? Made(string parent, long bytes)
    {
        if (!File.Exists(Path.Combine(parent, "cgroup.procs")))
        {
            return null;
        }

        var folder = Path.Combine(
            parent,
            string.Create(CultureInfo.InvariantCulture, $"pantomet-{Environment.ProcessId}-{Guid.NewGuid():N}")
        );
        try
        {
            Directory.CreateDirectory(folder);
            foreach (var name in (string[])["memory.max", "memory.limit_in_bytes"])
            {
                if (File.Exists(Path.Combine(folder, name)))
                {
                    File.WriteAllText(Path.Combine(folder, name), bytes.ToString(CultureInfo.InvariantCulture));
                    return new(folder);
                }
            }
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            // Not allowed here.
        }

        if (Directory.Exists(folder))
        {
            Directory.Delete(folder);
        }

        return null;
    }
}

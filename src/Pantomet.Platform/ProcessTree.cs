using System.Globalization;

namespace Pantomet.Platform;

/// <summary>A process with all that it started, and what those started (proc(5)).</summary>
public static class ProcessTree
{
    /// <summary>The memory that a tree of processes takes: what is each process' own, and the largest part that they share.</summary>
    /// <param name="root">The first of them.</param>
    /// <returns>Bytes; 0 where the system does not tell.</returns>
    public static long Memory(int root)
    {
        var (own, shared) = (0L, 0L);
        foreach (var process in Of(root))
        {
            var (mine, ours) = MemoryOf(process);
            own += mine;
            shared = Math.Max(shared, ours);
        }

        return own + shared;
    }

    /// <summary>The processes of a tree that run now, the first of them included.</summary>
    /// <param name="root">The first of them.</param>
    public static IReadOnlyList<int> Of(int root)
    {
        var children = All().ToLookup(one => one.Parent, one => one.Process);
        var tree = new List<int> { root };
        for (var i = 0; i < tree.Count; i++)
        {
            tree.AddRange(children[tree[i]].Where(child => !tree.Contains(child)));
        }

        return tree;
    }

    private static IEnumerable<(int Process, int Parent)> All()
    {
        if (!Posix.IsLinux)
        {
            yield break;
        }

        foreach (var folder in Directory.EnumerateDirectories("/proc"))
        {
            if (int.TryParse(Path.GetFileName(folder), NumberStyles.None, CultureInfo.InvariantCulture, out var process))
            {
                // What stands before the last bracket is the program's name, which may hold anything.
                var text = Text(Path.Combine(folder, "stat"));
                var rest = text[(text.LastIndexOf(')') + 1)..].Split(' ', StringSplitOptions.RemoveEmptyEntries);
                if (rest.Length > 1 && int.TryParse(rest[1], NumberStyles.None, CultureInfo.InvariantCulture, out var parent))
                {
                    yield return (process, parent);
                }
            }
        }
    }

    private static (long Own, long Shared) MemoryOf(int process)
    {
        var (own, shared) = (0L, 0L);
        foreach (var line in Text($"/proc/{process}/status").Split('\n'))
        {
            if (line.StartsWith("RssAnon:", StringComparison.Ordinal) || line.StartsWith("VmSwap:", StringComparison.Ordinal))
            {
                own += Kilobytes(line);
            }
            else if (line.StartsWith("RssShmem:", StringComparison.Ordinal))
            {
                shared = Kilobytes(line);
            }
        }

        return (own * 1024, shared * 1024);
    }

    private static long Kilobytes(string line) =>
        long.TryParse(
            line.Split(' ', '\t').FirstOrDefault(part => part.Length > 0 && char.IsAsciiDigit(part[0])),
            NumberStyles.None,
            CultureInfo.InvariantCulture,
            out var number
        )
            ? number
            : 0;

    private static string Text(string path)
    {
        try
        {
            return File.ReadAllText(path);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return "";
        }
    }
}

namespace Pantomet.Core.Naming;

/// <summary>Hands out names that are unique without regard to case: the second of a kind gets <c>-2</c>.</summary>
public sealed class UniqueNames
{
    private readonly HashSet<string> _taken = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>Keeps a name from being given.</summary>
    /// <param name="folder">The folder.</param>
    /// <param name="file">The name with its ending.</param>
    public void Keep(string folder, string file) => _taken.Add($"{folder}/{file}");

    /// <summary>A free name in a folder, with its ending, as <c>folder/name.ending</c>.</summary>
    public string Take(string folder, string name, string ending)
    {
        for (var n = 1; ; n++)
        {
            var path = $"{folder}/{name}{(n == 1 ? "" : $"-{n}")}.{ending}";
            if (_taken.Add(path))
            {
                return path;
            }
        }
    }
}

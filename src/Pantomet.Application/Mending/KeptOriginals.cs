using Pantomet.Application.Background;
using Pantomet.Data;

namespace Pantomet.Application.Mending;

/// <summary>What is known of a picture that was looked at: known again by its size and time.</summary>
/// <param name="Path">From the folder's root.</param>
/// <param name="Bytes">The file's weight as it is now.</param>
/// <param name="Changed">When it was changed, UTC.</param>
/// <param name="By">The rule that it was looked at by.</param>
internal sealed record MendedFile(string Path, long Bytes, DateTime Changed, string By);

/// <summary>
/// The originals of pictures that were lightened in place, under the same paths in a folder of their own, and a list of what was looked at,
/// a line each. Each original is there, whole and flushed, before its picture is touched.
/// </summary>
/// <param name="folder">The folder; made when the first is kept.</param>
internal sealed class KeptOriginals(string folder)
{
    private const string ListName = ".mended.jsonl";

    // What was kept before another original came under its name.
    private const string Older = ".older";

    private readonly Lock _gate = new();
    private readonly LineFile<MendedFile> _list = new(Path.Combine(folder, ListName));

    /// <summary>What earlier runs looked at, by path; a line that was cut off by a crash is passed over.</summary>
    public Dictionary<string, MendedFile> Known()
    {
        var known = new Dictionary<string, MendedFile>();
        foreach (var file in _list.Read().Where(file => file.Path is not null))
        {
            known[file.Path] = file;
        }

        return known;
    }

    /// <summary>True where an original is kept under a path.</summary>
    public bool Has(string path) => File.Exists(At(path));

    /// <summary>Where the original of a path is kept.</summary>
    public string At(string path) => Path.Combine(folder, path);

    /// <summary>Keeps an original. One that was kept before under its path is another: it moves aside, and none is lost.</summary>
    /// <param name="path">From the folder's root.</param>
    /// <param name="from">Where it lies.</param>
    public void Keep(string path, string from)
    {
        var kept = Path.Combine(folder, path);
        if (File.Exists(kept) && !SameBytes(kept, from))
        {
            var aside = Enumerable
                .Range(1, int.MaxValue)
                .Select(n => Path.Combine(folder, Older, $"{path}.{n}"))
                .First(name => !File.Exists(name));
            Durable.Move(kept, aside);
        }

        if (!File.Exists(kept))
        {
            WholeFile.Copy(from, kept);
        }
    }

    /// <summary>Writes down that a picture was looked at.</summary>
    public void Note(MendedFile file)
    {
        lock (_gate)
        {
            Directory.CreateDirectory(folder);
            using var list = _list.Append();
            list.Add(file);
        }
    }

    /// <summary>The paths of all that is kept.</summary>
    public IEnumerable<string> Paths() =>
        Directory
            .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
            .Select(path => Path.GetRelativePath(folder, path))
            .Where(path =>
                path != ListName
                && !path.StartsWith(Older + Path.DirectorySeparatorChar, StringComparison.Ordinal)
                && !path.EndsWith(".part", StringComparison.Ordinal)
            );

    /// <summary>True where the original of a picture is what lies somewhere.</summary>
    public bool Holds(string path, string file) => SameBytes(Path.Combine(folder, path), file);

    /// <summary>Puts an original back, byte for byte, with its time and rights; it is not kept any longer then.</summary>
    /// <param name="path">From the folder's root.</param>
    /// <param name="to">Where it belongs.</param>
    public void PutBack(string path, string to)
    {
        WholeFile.Copy(Path.Combine(folder, path), to);
        File.Delete(Path.Combine(folder, path));
    }

    private static bool SameBytes(string one, string other) =>
        new FileInfo(one).Length == new FileInfo(other).Length && File.ReadAllBytes(one).AsSpan().SequenceEqual(File.ReadAllBytes(other));
}

using System.Diagnostics.CodeAnalysis;
using Pantomet.Application.Background;
using Pantomet.Data;
using Pantomet.Platform;

namespace Pantomet.Batch.Mending;

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
internal sealed class KeptOriginals(string folder) : IDisposable
{
    private const string ListName = ".mended.jsonl";

    // What was kept before another original came under its name.
    private const string Older = ".older";

    private readonly Lock _gate = new();
    private FolderHandle? _folder;

    /// <summary>What earlier runs looked at, by path; a line that was cut off by a crash is passed over.</summary>
    public Dictionary<string, MendedFile> Known()
    {
        var known = new Dictionary<string, MendedFile>();
        if (TryOpen(out var held))
        {
            foreach (var file in ListIn(held).Read().Where(file => file.Path is not null))
            {
                known[file.Path] = file;
            }
        }

        return known;
    }

    /// <summary>Opens the original that is kept under a path; null where none is.</summary>
    public RegularFile? Open(string path)
    {
        if (!TryOpen(out var held))
        {
            return null;
        }

        try
        {
            return held.OpenFile(path);
        }
        catch (FileNotFoundException)
        {
            return null;
        }
    }

    /// <summary>Keeps an original. One that was kept before under its path is another: it moves aside, and none is lost.</summary>
    /// <param name="path">From the folder's root.</param>
    /// <param name="original">The original.</param>
    public void Keep(string path, RegularFile original)
    {
        var held = Made();
        using var place = held.Place(path, create: true);
        if (place.Exists)
        {
            if (Holds(place, original))
            {
                return;
            }

            for (var n = 1; ; n++)
            {
                using var aside = held.Place($"{Older}/{path}.{n}", create: true);
                if (!aside.Exists)
                {
                    Durable.Move(place.Path, aside.Path);
                    break;
                }
            }
        }

        WholeFile.Copy(original, place);
    }

    /// <summary>Writes down that a picture was looked at.</summary>
    public void Note(MendedFile file)
    {
        lock (_gate)
        {
            using var list = ListIn(Made()).Append();
            list.Add(file);
        }
    }

    /// <summary>The paths of all that is kept.</summary>
    public IEnumerable<string> Paths() =>
        TryOpen(out var held)
            ? held.Files().Where(path => path != ListName && !path.StartsWith(Older + "/", StringComparison.Ordinal) && !PartFile.Is(path))
            : [];

    /// <summary>True where the original of a path is what a file holds.</summary>
    public bool Holds(string path, RegularFile file)
    {
        using var kept = Open(path);
        return kept is not null && SameBytes(kept, file);
    }

    /// <summary>Puts an original back, byte for byte, with its time and rights; it is not kept any longer then.</summary>
    /// <param name="path">From the folder's root.</param>
    /// <param name="to">Where it belongs.</param>
    public void PutBack(string path, FilePlace to)
    {
        using var place = Made().Place(path);
        using (var kept = place.Open())
        {
            WholeFile.Copy(kept, to);
        }

        File.Delete(place.Path);
    }

    /// <summary>Lets the folder go.</summary>
    public void Dispose() => _folder?.Dispose();

    private static LineFile<MendedFile> ListIn(FolderHandle held) => new(Path.Combine(held.Path, ListName));

    private bool TryOpen([NotNullWhen(true)] out FolderHandle? held)
    {
        held = Directory.Exists(folder) ? Made() : null;
        return held is not null;
    }

    private FolderHandle Made()
    {
        lock (_gate)
        {
            return _folder ??= FolderHandle.OpenNamed(folder, create: true);
        }
    }

    private static bool Holds(FilePlace place, RegularFile original)
    {
        using var kept = place.Open();
        return SameBytes(kept, original);
    }

    private static bool SameBytes(RegularFile one, RegularFile other) =>
        one.Facts.Bytes == other.Facts.Bytes && one.ReadAll().AsSpan().SequenceEqual(other.ReadAll());
}

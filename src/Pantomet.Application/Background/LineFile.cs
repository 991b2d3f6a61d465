using System.Text;
using System.Text.Json;
using Pantomet.Platform;

namespace Pantomet.Application.Background;

/// <summary>A list in a file, a line each; a line that was cut off by a crash is passed over.</summary>
/// <typeparam name="T">What a line holds.</typeparam>
/// <param name="path">The file.</param>
public sealed class LineFile<T>(string path)
{
    /// <summary>Begins it anew.</summary>
    public LineWriter<T> Begin() => new(path, append: false);

    /// <summary>As it is read again and again.</summary>
    /// <param name="isOnlyAdded">True where lines are only ever added to it, and it is never begun anew.</param>
    public GrowingList<T> Growing(bool isOnlyAdded) => new(path, isOnlyAdded);

    /// <summary>Adds to it.</summary>
    public LineWriter<T> Append() => new(path, append: true);

    /// <summary>All lines in their order; none where there is no file.</summary>
    public IEnumerable<T> Read()
    {
        if (!File.Exists(path))
        {
            yield break;
        }

        // Somebody may be writing it.
        using var reader = new StreamReader(new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete));
        while (reader.ReadLine() is { } line)
        {
            T? one;
            try
            {
                one = WorkLines.Read<T>(line);
            }
            catch (JsonException)
            {
                continue;
            }

            yield return one;
        }
    }
}

/// <summary>
/// A list in a file, as it is read again and again: nothing is read where nothing changed, and of one that is only added to what came since.
/// </summary>
/// <typeparam name="T">What a line holds.</typeparam>
/// <param name="path">The file.</param>
/// <param name="isOnlyAdded">
/// True where lines are only ever added to it. One that is begun anew may be longer than before when it is looked at next, and nothing tells the two
/// apart: it is read from its start.
/// </param>
public sealed class GrowingList<T>(string path, bool isOnlyAdded)
{
    private readonly Lock _gate = new();
    private List<T> _lines = [];
    private FileFacts? _read;
    private long _at;

    /// <summary>All lines that are there now, in their order; never changed afterwards.</summary>
    public IReadOnlyList<T> Now()
    {
        lock (_gate)
        {
            if (FileFacts.Of(path) is not { } facts)
            {
                (_lines, _read, _at) = ([], null, 0);
                return _lines;
            }

            if (_read == facts)
            {
                return _lines;
            }

            var goesOn = isOnlyAdded && _read is { } before && before.Identity == facts.Identity && before.Bytes <= facts.Bytes && _at > 0;
            // Whoever has the list goes on to read it: what comes is added to another.
            _lines = goesOn ? [.. _lines] : [];
            _at = Read(goesOn ? _at : 0);
            _read = facts;
            return _lines;
        }
    }

    // Up to the last whole line; half a line is still being written, or was cut off.
    private long Read(long from)
    {
        using var file = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
        file.Position = from;
        using var held = new MemoryStream();
        file.CopyTo(held);
        var bytes = held.GetBuffer().AsSpan(0, (int)held.Length);
        var end = bytes.LastIndexOf((byte)'\n') + 1;
        foreach (var range in bytes[..end].Split((byte)'\n'))
        {
            try
            {
                if (bytes[range] is { Length: > 0 } line)
                {
                    _lines.Add(WorkLines.Read<T>(Encoding.UTF8.GetString(line)));
                }
            }
            catch (JsonException)
            {
                // It was cut off by a crash.
            }
        }

        return from + end;
    }
}

/// <summary>Writes a list, a line each.</summary>
public sealed class LineWriter<T>(string path, bool append) : IDisposable
{
    private readonly StreamWriter _writer = new(
        new FileStream(path, append ? FileMode.Append : FileMode.Create, FileAccess.Write, FileShare.ReadWrite | FileShare.Delete)
    );
    private readonly Lock _gate = new();

    /// <summary>Adds one.</summary>
    public void Add(T one)
    {
        lock (_gate)
        {
            _writer.WriteLine(WorkLines.Write(one));
            if (append)
            {
                _writer.Flush();
            }
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _writer.Dispose();
}

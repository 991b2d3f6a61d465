using System.Text.Json;

namespace Pantomet.Application.Background;

/// <summary>A list in a file, a line each; a line that was cut off by a crash is passed over.</summary>
/// <typeparam name="T">What a line holds.</typeparam>
/// <param name="path">The file.</param>
internal sealed class LineFile<T>(string path)
{
    /// <summary>Begins it anew.</summary>
    public LineWriter<T> Begin() => new(path, append: false);

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

/// <summary>Writes a list, a line each.</summary>
internal sealed class LineWriter<T>(string path, bool append) : IDisposable
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

    public void Dispose() => _writer.Dispose();
}

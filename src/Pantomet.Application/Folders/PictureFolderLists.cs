using System.Text.Json;
using Pantomet.Application.Background;
using Pantomet.Application.Mending;
using Pantomet.Core.Mending;

namespace Pantomet.Application.Folders;

/// <summary>What trying some pictures of a folder came to.</summary>
/// <param name="Forecast">What the whole would come to.</param>
/// <param name="Rule">By which rule.</param>
/// <param name="Pictures">What was tried, the heaviest first.</param>
public sealed record PictureFolderTrial(MendForecast Forecast, PictureFolderRule Rule, IReadOnlyList<MendedPicture> Pictures);

/// <summary>What is known of a folder of pictures, in files of a folder of its own; the pictures themselves are never listed in memory.</summary>
/// <param name="work">That folder.</param>
internal sealed class PictureFolderLists(string work)
{
    /// <summary>The code of a picture whose original was put back.</summary>
    public const string PutBack = "put-back";

    private string FiguresPath => Path.Combine(work, "figures.json");

    private string TrialPath => Path.Combine(work, "trial.json");

    /// <summary>Where the originals are kept.</summary>
    public string Kept => Path.Combine(work, "kept");

    /// <summary>The pictures as they were when it was looked through.</summary>
    public LineFile<SurveyedPicture> Pictures => new(Path.Combine(work, "pictures.jsonl"));

    /// <summary>What became of pictures, the newest last.</summary>
    public LineFile<MendedPicture> Results => new(Path.Combine(work, "results.jsonl"));

    /// <summary>How many originals are kept.</summary>
    public int KeptCount() => Directory.Exists(Kept) ? new KeptOriginals(Kept).Paths().Count() : 0;

    /// <summary>Puts down what the folder comes to; nothing that was tried before is true any more.</summary>
    public void WriteFigures(PictureFolderFigures figures)
    {
        File.Delete(TrialPath);
        File.WriteAllText(FiguresPath, WorkLines.Write(figures));
    }

    /// <summary>Puts down what was tried.</summary>
    public void WriteTrial(PictureFolderTrial trial) => File.WriteAllText(TrialPath, WorkLines.Write(trial));

    /// <summary>What the folder comes to; null until it was looked through.</summary>
    public PictureFolderFigures? Figures() =>
        File.Exists(FiguresPath) ? WorkLines.Read<PictureFolderFigures>(File.ReadAllText(FiguresPath)) : null;

    /// <summary>What was tried; null until something was.</summary>
    public PictureFolderTrial? Trial() => File.Exists(TrialPath) ? WorkLines.Read<PictureFolderTrial>(File.ReadAllText(TrialPath)) : null;
}

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

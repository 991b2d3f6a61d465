using Pantomet.Application.Background;
using Pantomet.Batch.Mending;
using Pantomet.Core.Mending;

namespace Pantomet.Batch.Folders;

/// <summary>What trying some pictures of a folder came to.</summary>
/// <param name="Forecast">What the whole would come to.</param>
/// <param name="Rule">By which rule.</param>
/// <param name="Pictures">What was tried, the heaviest first.</param>
public sealed record PictureFolderTrial(OptimisationForecast Forecast, PictureFolderRule Rule, IReadOnlyList<MendedPicture> Pictures);

/// <summary>What is known of a folder of pictures, in files of a folder of its own; the pictures themselves are never listed in memory.</summary>
/// <param name="work">That folder.</param>
public sealed class PictureFolderLists(string work)
{
    /// <summary>The code of a picture whose original was restored.</summary>
    public const string PutBack = "put-back";

    private string FiguresPath => Path.Combine(work, "figures.json");

    private string TrialPath => Path.Combine(work, "trial.json");

    /// <summary>Where the originals are kept.</summary>
    public string Kept => Path.Combine(work, "kept");

    /// <summary>Where the files of the last preview lie, under the paths of their pictures.</summary>
    public string Tried => Path.Combine(work, "tried");

    /// <summary>The pictures as they were when it was scanned.</summary>
    public LineFile<SurveyedPicture> Pictures => new(Path.Combine(work, "pictures.jsonl"));

    /// <summary>What became of pictures, the newest last.</summary>
    public LineFile<MendedPicture> Results => new(Path.Combine(work, "results.jsonl"));

    /// <summary>How many originals are kept.</summary>
    public int KeptCount()
    {
        using var kept = new KeptOriginals(Kept);
        return kept.Paths().Count();
    }

    /// <summary>Puts down what the folder comes to; nothing that was tried before is true any more.</summary>
    public void WriteFigures(PictureFolderFigures figures)
    {
        ForgetTrial();
        WholeFile.Write(FiguresPath, WorkLines.Write(figures));
    }

    /// <summary>Forgets what was tried, with its files.</summary>
    public void ForgetTrial()
    {
        File.Delete(TrialPath);
        if (Directory.Exists(Tried))
        {
            Directory.Delete(Tried, recursive: true);
        }
    }

    /// <summary>Puts down what was tried.</summary>
    public void WriteTrial(PictureFolderTrial trial) => WholeFile.Write(TrialPath, WorkLines.Write(trial));

    /// <summary>What the folder comes to; null until it was scanned.</summary>
    public PictureFolderFigures? Figures() => WholeFile.Text(FiguresPath) is { } text ? WorkLines.Read<PictureFolderFigures>(text) : null;

    /// <summary>What was tried; null until something was.</summary>
    public PictureFolderTrial? Trial() => WholeFile.Text(TrialPath) is { } text ? WorkLines.Read<PictureFolderTrial>(text) : null;
}

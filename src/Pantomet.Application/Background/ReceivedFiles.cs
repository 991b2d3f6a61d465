using System.Collections.Concurrent;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Platform;

namespace Pantomet.Application.Background;

/// <summary>Takes the files of folders that are sent, one by one, into folders of their own.</summary>
/// <param name="folder">The data folder.</param>
/// <param name="what">What such a folder is called in sentences, with its article.</param>
/// <param name="mostFiles">How many files one may have.</param>
/// <param name="mostBytes">How many bytes all files of one may have.</param>
public sealed class ReceivedFiles(DataFolder folder, string what, int mostFiles, long mostBytes)
{
    private const int LongestPath = 1_000;
    private const int LongestName = 250;

    // Counted on while files come, so that the thousandth does not count those before it.
    private readonly ConcurrentDictionary<Guid, (int Files, long Bytes)> _received = new();

    /// <summary>Takes one file; a sentence when it cannot be.</summary>
    /// <param name="id">Whose folder it is.</param>
    /// <param name="root">The folder.</param>
    /// <param name="path">Where the file lies within it.</param>
    /// <param name="content">What it holds.</param>
    /// <param name="changed">When it was changed, UTC; null where that is not known.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<string?> PutAsync(Guid id, string root, string path, Stream content, DateTime? changed, CancellationToken cancel)
    {
        if (!IsPath(path) || Path.GetFullPath(Path.Combine(root, path)) is not { } full || !RealPath.IsInside(full, root))
        {
            return PictureTexts.IsNotThePathOfA(path);
        }

        var (count, bytes) = _received.GetOrAdd(id, _ => Counted(root));
        if (count >= mostFiles)
        {
            return PictureTexts.CanHaveAtMostFiles(what, mostFiles);
        }

        using var received = await folder.Variants.ReceiveAsync(content, mostBytes - bytes, cancel);
        if (received is null)
        {
            return PictureTexts.CanHaveAtMostMB(what, mostBytes / 1_000_000);
        }

        try
        {
            Directory.CreateDirectory(Path.GetDirectoryName(full)!);
            File.Move(received.Path, full, overwrite: true);
            if (changed is { } at)
            {
                File.SetLastWriteTimeUtc(full, at);
            }

            _received.AddOrUpdate(id, _ => Counted(root), (_, now) => (now.Files + 1, now.Bytes + received.Bytes));
            return null;
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return PictureTexts.CannotBeSaved(path, fault.Message);
        }
    }

    /// <summary>Nothing more comes into a folder.</summary>
    public void Forget(Guid id) => _received.TryRemove(id, out _);

    private static (int Files, long Bytes) Counted(string root)
    {
        var files = new DirectoryInfo(root).EnumerateFiles("*", SearchOption.AllDirectories).ToList();
        return (files.Count, files.Sum(file => file.Length));
    }

    private static bool IsPath(string path) =>
        path.Length is > 0 and <= LongestPath
        && !path.Any(character => char.IsControl(character) || character == '\\')
        && path.Split('/').All(part => part is not ("" or "." or "..") && part.Length <= LongestName);
}

using Microsoft.AspNetCore.StaticFiles;

namespace Pantomet.TestReceivers;

/// <summary>What a place was given, as files in a folder.</summary>
internal sealed class GivenFiles
{
    private static readonly FileExtensionContentTypeProvider Types = new();

    private readonly string _root;

    public GivenFiles(string folder)
    {
        _root = Path.GetFullPath(folder);
        Directory.CreateDirectory(_root);
    }

    /// <summary>Keeps a file under a name.</summary>
    /// <returns>False for a name that leads elsewhere.</returns>
    public async Task<bool> KeepAsync(string name, byte[] bytes, CancellationToken cancel)
    {
        if (PathOf(name) is not { } path)
        {
            return false;
        }

        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        var part = $"{path}.part";
        await File.WriteAllBytesAsync(part, bytes, cancel);
        File.Move(part, path, overwrite: true);
        return true;
    }

    /// <summary>The path of a file that is there; null for none.</summary>
    public string? Find(string name) => PathOf(name) is { } path && File.Exists(path) ? path : null;

    /// <summary>The type that a file's ending tells.</summary>
    public static string TypeOf(string name) => Types.TryGetContentType(name, out var type) ? type : "application/octet-stream";

    private string? PathOf(string name)
    {
        var path = Path.GetFullPath(Path.Combine(_root, name));
        return path.StartsWith(_root + Path.DirectorySeparatorChar, StringComparison.Ordinal) ? path : null;
    }
}

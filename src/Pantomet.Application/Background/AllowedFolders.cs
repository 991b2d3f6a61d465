using Pantomet.Data;
using Pantomet.Platform;

namespace Pantomet.Application.Background;

/// <summary>
/// The folders of this machine that the owner allowed, as they were when the program started: a link that takes the place of one later leads
/// nowhere.
/// </summary>
public sealed class AllowedFolders(WorkOptions options, DataFolder data)
{
    private readonly IReadOnlyList<string> _real = [.. options.PictureFolders.Select(Path.GetFullPath).Select(RealPath.Of)];
    private readonly string _data = RealPath.Of(data.Root);

    /// <summary>As whole paths, as the owner named them.</summary>
    public IReadOnlyList<string> Named { get; } = [.. options.PictureFolders.Select(Path.GetFullPath)];

    /// <summary>The allowed folder in which a path lies, no part of it a link; null where none is.</summary>
    public string? RootOf(string real) => _real.FirstOrDefault(allowed => RealPath.IsInside(real, allowed));

    /// <summary>True for a folder with this program's own data in it, or one within that.</summary>
    public bool HoldsData(string real) => RealPath.IsInside(_data, real) || RealPath.IsInside(real, _data);
}

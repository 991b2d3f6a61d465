namespace Pantomet.Platform;

/// <summary>Where a file lies or will lie: its folder, held open, and its name there.</summary>
public sealed class FilePlace : IDisposable
{
    private readonly FolderHandle _root;
    private readonly string _way;
    private readonly FolderHandle _folder;

    internal FilePlace(FolderHandle root, string way, FolderHandle folder, string name) =>
        (_root, _way, _folder, Name) = (root, way, folder, name);

    /// <summary>Its name in its folder.</summary>
    public string Name { get; }

    /// <summary>A path to it that holds as long as this object does. A link under the name itself would be followed by whoever opens it.</summary>
    public string Path => System.IO.Path.Combine(_folder.Path, Name);

    /// <summary>What stands there, a link as itself; null where nothing does.</summary>
    public FileFacts? Facts() => _folder.FactsOf(Name);

    /// <summary>True where a file, link or anything else stands there.</summary>
    public bool Exists => Facts() is not null;

    /// <summary>Opens the regular file that stands there.</summary>
    /// <exception cref="IOException">None does, or it may not be read.</exception>
    public RegularFile Open() => _folder.OpenName(Name);

    /// <summary>Makes sure that its folder still lies where it lay: one that was moved away meanwhile is not written into.</summary>
    /// <exception cref="LinkedPathException">Another folder, a link or nothing lies there now.</exception>
    public void MustBeStillThere()
    {
        var parts = _way.Split(System.IO.Path.DirectorySeparatorChar, StringSplitOptions.RemoveEmptyEntries);
        if (!_root.StillLeadsTo(string.Join('/', parts[..^1]), _folder.Identity))
        {
            throw new LinkedPathException(_way);
        }
    }

    /// <summary>Lets it go.</summary>
    public void Dispose() => _folder.Dispose();
}

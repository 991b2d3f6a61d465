using System.IO.Enumeration;
using System.Runtime.InteropServices;
using Microsoft.Win32.SafeHandles;

namespace Pantomet.Platform;

/// <summary>
/// A folder that is held open. A path is only text: between the moment it was checked and the moment it is used, somebody can put a link in the
/// place of any part of it. A folder that is held stays the same, and what is reached from it is reached part by part, links never followed.
/// </summary>
/// <remarks>
/// On Linux by descriptors (openat(2) with O_NOFOLLOW). Elsewhere parts are checked for links just before they are used.
/// </remarks>
public sealed class FolderHandle : IDisposable
{
    // A tree deeper than this is no folder of pictures.
    private const int Deepest = 100;

    private readonly SafeFileHandle? _handle;
    private readonly string _path;

    private FolderHandle(SafeFileHandle? handle, string path, FileIdentity identity) =>
        (_handle, _path, Identity) = (handle, path, identity);

    /// <summary>Which folder it is.</summary>
    public FileIdentity Identity { get; }

    /// <summary>A path to it that holds as long as this object does.</summary>
    public string Path => _handle is null ? _path : $"/proc/{Environment.ProcessId}/fd/{Number}";

    private int Number => (int)_handle!.DangerousGetHandle();

    /// <summary>Opens a folder by its whole path, of which no part may be a link.</summary>
    /// <exception cref="LinkedPathException">A part of it is a link.</exception>
    /// <exception cref="IOException">It is not there, or may not be entered.</exception>
    public static FolderHandle Open(string path)
    {
        var full = System.IO.Path.GetFullPath(path);
        if (!Posix.IsLinux)
        {
            return full == RealPath.Of(full) && Directory.Exists(full) ? new(null, full, default) : throw new LinkedPathException(full);
        }

        using var root = At(Posix.Here, "/", "/");
        return root.Folder(full.TrimStart('/'));
    }

    /// <summary>Opens the folder that a path leads to. Links are followed now and never again: who named the path meant what they lead to.</summary>
    /// <param name="path">The path.</param>
    /// <param name="create">True to make it where it is missing.</param>
    /// <exception cref="IOException">It is not there, or may not be entered.</exception>
    public static FolderHandle OpenNamed(string path, bool create = false)
    {
        if (create)
        {
            Directory.CreateDirectory(path);
        }

        return Open(RealPath.Of(System.IO.Path.GetFullPath(path)));
    }

    /// <summary>A folder within this one.</summary>
    /// <param name="path">The way from here, parts separated by a slash; empty for this one.</param>
    /// <param name="create">True to make what is missing.</param>
    /// <exception cref="LinkedPathException">A part of the way is a link.</exception>
    /// <exception cref="IOException">A part is missing or may not be entered, or the way leads up.</exception>
    public FolderHandle Folder(string path, bool create = false)
    {
        ArgumentNullException.ThrowIfNull(path);
        var at = Again();
        foreach (var name in Parts(path))
        {
            var next = at.Child(name, create);
            at.Dispose();
            at = next;
        }

        return at;
    }

    /// <summary>The place of a file within this folder: the folder it lies in, held, and its name there.</summary>
    /// <param name="path">The way from here.</param>
    /// <param name="create">True to make missing folders on the way.</param>
    /// <exception cref="IOException">As with <see cref="Folder"/>.</exception>
    public FilePlace Place(string path, bool create = false)
    {
        var parts = Parts(path);
        return parts.Length > 0
            ? new(this, path, Folder(string.Join('/', parts[..^1]), create), parts[^1])
            : throw new IOException(PlatformTexts.ThePathNamesNoFile);
    }

    /// <summary>Opens a regular file within this folder.</summary>
    /// <param name="path">The way from here.</param>
    /// <exception cref="LinkedPathException">A part of the way, or the file, is a link.</exception>
    /// <exception cref="NotRegularException">It is a pipe, a socket or a device.</exception>
    /// <exception cref="IOException">It is not there or may not be read.</exception>
    public RegularFile OpenFile(string path)
    {
        using var place = Place(path);
        return place.Open();
    }

    /// <summary>
    /// The ways from here to all that lies in this folder and in those within it, folders left out. Links are not followed and not listed; what
    /// may not be entered is passed over.
    /// </summary>
    /// <param name="links">True to list links too, without following them.</param>
    public IEnumerable<string> Files(bool links = false) => Files("", links, 0);

    /// <summary>True where a way from here still leads to a folder that was opened before.</summary>
    /// <param name="path">The way.</param>
    /// <param name="identity">Which folder it was.</param>
    public bool StillLeadsTo(string path, FileIdentity identity)
    {
        try
        {
            using var now = Folder(path);
            return now.Identity == identity;
        }
        catch (IOException)
        {
            return false;
        }
    }

    /// <summary>Lets it go.</summary>
    public void Dispose() => _handle?.Dispose();

    /// <summary>What stands under a name in it, a link as itself; null where nothing does.</summary>
    internal FileFacts? FactsOf(string name)
    {
        if (_handle is not null)
        {
            return Posix.Facts(Number, name);
        }

        var file = new FileInfo(System.IO.Path.Combine(_path, name));
        return file.Exists ? new(default, file.Length, file.LastWriteTimeUtc, 0) : null;
    }

    /// <summary>Opens a regular file in it by its name.</summary>
    internal RegularFile OpenName(string name) =>
        _handle is not null ? RegularFile.Open(Number, name, links: false)
        : new FileInfo(System.IO.Path.Combine(_path, name)) is { LinkTarget: not null } ? throw new LinkedPathException(name)
        : RegularFile.Plain(System.IO.Path.Combine(_path, name));

    private IEnumerable<string> Files(string way, bool links, int depth)
    {
        FolderHandle here;
        List<(string Name, bool IsFolder)> names;
        try
        {
            here = way.Length == 0 ? Again() : Folder(way);
        }
        catch (IOException) when (way.Length > 0)
        {
            yield break;
        }

        using (here)
        {
            names = here.Names(links);
        }

        foreach (var (name, isFolder) in names)
        {
            var path = way.Length == 0 ? name : $"{way}/{name}";
            if (!isFolder)
            {
                yield return path;
            }
            else if (depth < Deepest)
            {
                foreach (var file in Files(path, links, depth + 1))
                {
                    yield return file;
                }
            }
        }
    }

    private List<(string Name, bool IsFolder)> Names(bool links)
    {
        try
        {
            return
            [
                .. new FileSystemEnumerable<(string Name, bool IsFolder)>(
                    // With its dot: the path of a descriptor is itself a link.
                    Path + "/.",
                    (ref FileSystemEntry entry) => (entry.FileName.ToString(), entry.IsDirectory && !IsLink(ref entry)),
                    new EnumerationOptions { AttributesToSkip = links ? 0 : FileAttributes.ReparsePoint, IgnoreInaccessible = true }
                ),
            ];
        }
        catch (UnauthorizedAccessException)
        {
            return [];
        }
    }

    private static bool IsLink(ref FileSystemEntry entry) => entry.Attributes.HasFlag(FileAttributes.ReparsePoint);

    private FolderHandle Again() => _handle is null ? new(null, _path, Identity) : At(Number, ".", ".");

    private FolderHandle Child(string name, bool create)
    {
        if (_handle is null)
        {
            var path = System.IO.Path.Combine(_path, name);
            if (create)
            {
                Directory.CreateDirectory(path);
            }

            return new DirectoryInfo(path) is { Exists: true, LinkTarget: null }
                ? new(null, path, default)
                : throw new LinkedPathException(name);
        }

        if (create)
        {
            // What is there already is opened below, and refused where it is no folder.
            _ = Posix.MakeFolderAt(Number, name, 0x1ff);
        }

        return At(Number, name, name);
    }

    private static FolderHandle At(int folder, string name, string called)
    {
        var opened = Posix.OpenAt(folder, name, Posix.PathOnly | Posix.Directory | Posix.NoFollow | Posix.CloseOnExec);
        return opened < 0
            ? throw Posix.Fault(Marshal.GetLastPInvokeError(), called)
            : new(new(opened, ownsHandle: true), called, Posix.Facts(opened).Identity);
    }

    private static string[] Parts(string path)
    {
        var parts = path.Split(System.IO.Path.DirectorySeparatorChar, StringSplitOptions.RemoveEmptyEntries);
        return parts.All(part => part is not ("." or "..")) ? parts : throw new IOException(PlatformTexts.IsOutsideOfItsFolder(path));
    }
}

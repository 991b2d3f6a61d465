namespace Pantomet.Platform;

/// <summary>Which file or folder it is, whatever its name: two with one identity are the same.</summary>
/// <param name="Device">The file system.</param>
/// <param name="Inode">Its number there.</param>
public readonly record struct FileIdentity(ulong Device, ulong Inode);

/// <summary>What the file system tells of a file.</summary>
/// <param name="Identity">Which it is.</param>
/// <param name="Bytes">Its weight in bytes.</param>
/// <param name="Changed">When it was changed, UTC.</param>
/// <param name="Mode">Its type and rights, as stat(2) tells them; 0 where there are none.</param>
/// <param name="Touched">When anything of it changed, its name and its times included, in ticks; nobody can set it back. 0 where it is not told.</param>
public readonly record struct FileFacts(FileIdentity Identity, long Bytes, DateTime Changed, ushort Mode, long Touched = 0)
{
    /// <summary>What stands at a path, links followed; null where nothing does.</summary>
    /// <param name="path">The path.</param>
    public static FileFacts? Of(string path)
    {
        if (Posix.IsLinux)
        {
            return Posix.Facts(Posix.Here, path, links: true);
        }

        var file = new FileInfo(path);
        return file.Exists ? new(default, file.Length, file.LastWriteTimeUtc, 0) : null;
    }

    private const ushort RightsMask = 0xfff;

    /// <summary>True for a regular file: no folder, link, pipe, socket or device.</summary>
    public bool IsRegular => Mode == 0 || Posix.IsRegular(Mode);

    /// <summary>True for a link.</summary>
    public bool IsLink => Posix.IsLink(Mode);

    /// <summary>True for a folder.</summary>
    public bool IsFolder => Posix.IsFolder(Mode);

    /// <summary>Who may read, write and run it.</summary>
    public UnixFileMode Rights => (UnixFileMode)(Mode & RightsMask);
}

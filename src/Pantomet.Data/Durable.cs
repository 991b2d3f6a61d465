using System.Runtime.InteropServices;

namespace Pantomet.Data;

/// <summary>
/// Makes sure that what was written outlives a loss of power: the bytes of a file, and that its name stands in its folder.
/// </summary>
public static partial class Durable
{
    private const int ReadOnly = 0;

    /// <summary>Flushes a file that another process wrote.</summary>
    public static void Flush(string path)
    {
        using var file = new FileStream(path, FileMode.Open, FileAccess.ReadWrite, FileShare.Read, 1);
        file.Flush(flushToDisk: true);
    }

    /// <summary>Moves a file to another name on the same disk, in the place of what stands there, and flushes both folders.</summary>
    public static void Move(string from, string to)
    {
        var folder = Path.GetDirectoryName(to)!;
        var isNew = !Directory.Exists(folder);
        Directory.CreateDirectory(folder);
        File.Move(from, to, overwrite: true);
        FlushFolder(folder);
        if (isNew)
        {
            FlushFolder(Path.GetDirectoryName(folder)!);
        }
    }

    // POSIX fsync(2): the names in a folder are flushed apart from the files. Other systems have no such call and need none.
    private static void FlushFolder(string folder)
    {
        if (OperatingSystem.IsWindows())
        {
            return;
        }

        var handle = Open(folder, ReadOnly);
        if (handle >= 0)
        {
            _ = Sync(handle);
            _ = Close(handle);
        }
    }

    [LibraryImport("libc", EntryPoint = "open", StringMarshalling = StringMarshalling.Utf8)]
    private static partial int Open(string path, int flags);

    [LibraryImport("libc", EntryPoint = "fsync")]
    private static partial int Sync(int handle);

    [LibraryImport("libc", EntryPoint = "close")]
    private static partial int Close(int handle);
}

using Pantomet.Data;

namespace Pantomet.Application.Mending;

/// <summary>Puts a file in its place whole: whoever looks sees what was there before or all of it, whenever the machine stops.</summary>
internal static class WholeFile
{
    /// <summary>Writes beside the place, gives the file another's time and rights, flushes it and renames it.</summary>
    /// <param name="to">The place; its folder is made if missing.</param>
    /// <param name="like">The file whose time and rights it gets.</param>
    /// <param name="write">Writes the file under the name it is given.</param>
    public static void Put(string to, FileInfo like, Action<string> write)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(to)!);
        var part = $"{to}.{Guid.NewGuid():N}.part";
        try
        {
            write(part);
            if (!OperatingSystem.IsWindows())
            {
                File.SetUnixFileMode(part, like.UnixFileMode);
            }

            File.SetLastWriteTimeUtc(part, like.LastWriteTimeUtc);
            Durable.Flush(part);
            Durable.Move(part, to);
        }
        finally
        {
            File.Delete(part);
        }
    }

    /// <summary>Copies a file.</summary>
    public static void Copy(string from, string to) => Put(to, new FileInfo(from), part => File.Copy(from, part));
}

using Pantomet.Data;
using Pantomet.Platform;

namespace Pantomet.Application.Background;

/// <summary>Puts a file in its place whole: whoever looks sees what was there before or all of it, whenever the machine stops.</summary>
internal static class WholeFile
{
    /// <summary>Writes beside the place, gives the file another's time and rights, flushes it and renames it.</summary>
    /// <param name="to">The place, whose folder is held.</param>
    /// <param name="like">The file whose time and rights it gets; null for those of a new file.</param>
    /// <param name="write">Writes the file under the name it is given.</param>
    /// <exception cref="LinkedPathException">The folder was moved away, or a link stands on the way to it now.</exception>
    public static void Put(FilePlace to, FileFacts? like, Action<string> write)
    {
        var part = PartFile.For(to.Path);
        try
        {
            write(part);
            if (like is { } facts)
            {
                if (!OperatingSystem.IsWindows() && facts.Mode != 0)
                {
                    File.SetUnixFileMode(part, facts.Rights);
                }

                File.SetLastWriteTimeUtc(part, facts.Changed);
            }

            Durable.Flush(part);
            to.MustBeStillThere();
            Durable.Move(part, to.Path);
        }
        finally
        {
            File.Delete(part);
        }
    }

    /// <summary>Copies a file, with its time and rights.</summary>
    public static void Copy(RegularFile from, FilePlace to) =>
        Put(
            to,
            from.Facts,
            part =>
            {
                using var source = from.Read();
                using var target = new FileStream(part, FileMode.CreateNew, FileAccess.Write);
                source.CopyTo(target);
            }
        );
}

using System.Text;
using Pantomet.Data;
using Pantomet.Platform;

namespace Pantomet.Application.Background;

/// <summary>Puts a file in its place whole: whoever looks sees what was there before or all of it, whenever the machine stops.</summary>
public static class WholeFile
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

    /// <summary>
    /// Writes a file of the data folder: whoever reads it meanwhile finds the former one or this one, and never a part of it.
    /// </summary>
    /// <param name="path">The file, whose folder is there.</param>
    /// <param name="bytes">What it holds.</param>
    public static void Write(string path, byte[] bytes)
    {
        var part = PartFile.For(path);
        try
        {
            File.WriteAllBytes(part, bytes);
            Durable.Flush(part);
            Durable.Move(part, path);
        }
        finally
        {
            File.Delete(part);
        }
    }

    /// <summary>Writes a text, as UTF-8, as <see cref="Write(string, byte[])"/> does.</summary>
    /// <param name="path">The file, whose folder is there.</param>
    /// <param name="text">What it holds.</param>
    public static void Write(string path, string text) => Write(path, Encoding.UTF8.GetBytes(text));

    /// <summary>The text of a file; null where there is none, or none any more.</summary>
    /// <param name="path">The file.</param>
    public static string? Text(string path)
    {
        try
        {
            return File.ReadAllText(path);
        }
        catch (Exception fault) when (fault is FileNotFoundException or DirectoryNotFoundException)
        {
            return null;
        }
    }

    /// <summary>The text of a file, as <see cref="Text"/> gives it.</summary>
    /// <param name="path">The file.</param>
    /// <param name="cancel">Stops.</param>
    public static async Task<string?> TextAsync(string path, CancellationToken cancel)
    {
        try
        {
            return await File.ReadAllTextAsync(path, cancel);
        }
        catch (Exception fault) when (fault is FileNotFoundException or DirectoryNotFoundException)
        {
            return null;
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

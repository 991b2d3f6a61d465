using System.IO.Compression;
using System.Text;

namespace Pantomet.Batch.Folders;

/// <summary>Writes a folder as a zip while it is sent.</summary>
public static class PictureFolderZip
{
    /// <summary>Writes all its files, with their times. What goes away meanwhile is passed over.</summary>
    /// <param name="folder">The folder.</param>
    /// <param name="output">Where it goes.</param>
    /// <param name="cancel">Stops.</param>
    public static async Task WriteAsync(string folder, Stream output, CancellationToken cancel)
    {
        await using var zip = await ZipArchive.CreateAsync(output, ZipArchiveMode.Create, leaveOpen: true, Encoding.UTF8, cancel);
        foreach (var path in Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories).Order(StringComparer.Ordinal))
        {
            byte[] bytes;
            try
            {
                bytes = await File.ReadAllBytesAsync(path, cancel);
            }
            catch (FileNotFoundException)
            {
                continue;
            }

            // Pictures are packed already.
            var entry = zip.CreateEntry(Path.GetRelativePath(folder, path).Replace('\\', '/'), CompressionLevel.NoCompression);
            var changed = File.GetLastWriteTime(path);
            entry.LastWriteTime = changed.Year is >= 1980 and <= 2107 ? changed : new DateTime(1980, 1, 1, 0, 0, 0, DateTimeKind.Local);
            await using var target = await entry.OpenAsync(cancel);
            await target.WriteAsync(bytes, cancel);
        }
    }
}

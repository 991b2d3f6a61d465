using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Geometry;
using Pantomet.Core.Naming;
using Pantomet.Core.Reports;
using Pantomet.Core.Rules;
using Pantomet.Data;

namespace Pantomet.Server.Bundles;

/// <summary>Writes bundles: as a zip while it is sent, or as a folder. File by file, so that no more than a buffer of each is held.</summary>
internal sealed class BundleWriter(DataFolder folder, TimeProvider clock)
{
    private const int Buffer = 1 << 16;

    /// <summary>The name of the bundle, without an ending.</summary>
    public static string NameOf(BundleContents contents) => Slug.From(contents.Board.Job.Name);

    public async Task WriteZipAsync(BundleContents contents, Stream output, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(contents);
        await using var zip = await ZipArchive.CreateAsync(output, ZipArchiveMode.Create, leaveOpen: true, Encoding.UTF8, cancel);
        var now = clock.GetLocalNow();
        foreach (var file in contents.Going)
        {
            // The files are packed already: packing them again would only take time.
            var entry = zip.CreateEntry(file.Path!, CompressionLevel.NoCompression);
            entry.LastWriteTime = now;
            await using var target = await entry.OpenAsync(cancel);
            await using var source = new FileStream(folder.Variants.PathOf(file.File.Row!.ContentHash), FileMode.Open, FileAccess.Read, FileShare.Read, Buffer, FileOptions.Asynchronous);
            await source.CopyToAsync(target, Buffer, cancel);
        }

        foreach (var (name, text) in Reports(contents))
        {
            var entry = zip.CreateEntry(name, CompressionLevel.Fastest);
            entry.LastWriteTime = now;
            await using var target = await entry.OpenAsync(cancel);
            await target.WriteAsync(Encoding.UTF8.GetBytes(text), cancel);
        }
    }

    /// <summary>Writes the same as a folder of the data folder; what an earlier bundle of this name left there and this one has not is taken away.</summary>
    /// <returns>The folder.</returns>
    public async Task<string> WriteFolderAsync(BundleContents contents, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(contents);
        var root = Path.Combine(folder.Root, "bundles", $"{NameOf(contents)}-{contents.Board.Id.ToString("n", CultureInfo.InvariantCulture)[^6..]}");
        var fresh = $"{root}.part";
        if (Directory.Exists(fresh))
        {
            Directory.Delete(fresh, recursive: true);
        }

        foreach (var file in contents.Going)
        {
            cancel.ThrowIfCancellationRequested();
            var path = Path.Combine(fresh, file.Path!);
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            File.Copy(folder.Variants.PathOf(file.File.Row!.ContentHash), path);
        }

        Directory.CreateDirectory(fresh);
        foreach (var (name, text) in Reports(contents))
        {
            await File.WriteAllTextAsync(Path.Combine(fresh, name), text, cancel);
        }

        if (Directory.Exists(root))
        {
            Directory.Delete(root, recursive: true);
        }

        Directory.Move(fresh, root);
        return root;
    }

    /// <summary>Remembers what was handed over, so that a changed rule can be held against it.</summary>
    public async Task RememberAsync(BundleContents contents, PantometDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(contents);
        var id = contents.Board.Id;
        await db.Deliveries.Where(row => row.JobId == id).ExecuteDeleteAsync(cancel);
        var now = clock.GetUtcNow().UtcDateTime;
        db.Deliveries.AddRange(contents.Going.Select(file =>
        {
            var row = file.File.Row!;
            var delivered = new DeliveredFile(
                file.File.Wanted.Wish.Plan.Crop.Size, file.Density.Value, new PixelSize(row.Width, row.Height), row.Format, row.Bytes, row.Quality, row.Likeness);
            return new Data.Jobs.DeliveryRow
            {
                JobId = id, At = now, Path = file.Path!, Destination = file.Cell.Place.Destination, Slot = file.Cell.Place.Slot, File = JsonSerializer.Serialize(delivered, JsonSerializerOptions.Web),
            };
        }));
        await db.SaveChangesAsync(cancel);
    }

    private static IEnumerable<(string Name, string Text)> Reports(BundleContents contents)
    {
        var report = contents.Report();
        return [("report.json", report.ToJson()), ("report.csv", ReportTable.Of(report))];
    }
}

using System.Globalization;
using System.IO.Compression;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Jobs;
using Pantomet.Application.Pages;
using Pantomet.Core.Geometry;
using Pantomet.Core.Markup;
using Pantomet.Core.Naming;
using Pantomet.Core.Reports;
using Pantomet.Core.Rules;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Bundles;

/// <summary>
/// Writes bundles: as a zip while it is sent, or as a folder. File by file, so that no more than a buffer of each is held.
/// </summary>
public sealed class BundleWriter(DataFolder folder, FileDesk desk, Writer writer, TimeProvider clock)
{
    /// <summary>The name of the bundle, without an ending.</summary>
    public static string NameOf(BundleContents contents) => Slug.From(contents.State.Job.Name);

    /// <summary>Writes everything that goes out as a zip, with the report; then puts down what was delivered.</summary>
    public async Task WriteZipAsync(BundleContents contents, Stream output, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(contents);
        var handed = new Dictionary<string, VariantRow>();
        await using (var zip = await ZipArchive.CreateAsync(output, ZipArchiveMode.Create, leaveOpen: true, Encoding.UTF8, cancel))
        {
            var now = clock.GetLocalNow();
            foreach (var file in contents.Going)
            {
                if (await desk.ReadAsync(file.File.Wanted, file.File.Row!, cancel) is not var (bytes, row))
                {
                    continue;
                }

                handed[file.Path!] = row;

                // The files are packed already: packing them again would only take time.
                await WriteAsync(zip, file.Path!, CompressionLevel.NoCompression, now, bytes, cancel);
            }

            foreach (var (name, text) in await PapersAsync(contents.AsHanded(handed), cancel))
            {
                await WriteAsync(zip, name, CompressionLevel.Fastest, now, Encoding.UTF8.GetBytes(text), cancel);
            }
        }

        await output.FlushAsync(cancel);
        contents = contents.AsHanded(handed);
        await RememberAsync(contents, "zip", [.. contents.Going]);
    }

    /// <summary>
    /// Writes the same as a folder of the data folder; what an earlier bundle of this name left there and this one has not is removed.
    /// </summary>
    /// <returns>The folder, and how many files it holds.</returns>
    public async Task<(string Folder, int Files)> WriteFolderAsync(BundleContents contents, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(contents);
        var root = Path.Combine(
            folder.Root,
            "bundles",
            $"{NameOf(contents)}-{contents.State.Id.ToString("n", CultureInfo.InvariantCulture)[^6..]}"
        );
        var fresh = $"{root}.part";
        var handed = new Dictionary<string, VariantRow>();
        if (Directory.Exists(fresh))
        {
            Directory.Delete(fresh, recursive: true);
        }

        foreach (var file in contents.Going)
        {
            cancel.ThrowIfCancellationRequested();
            var path = Path.Combine(fresh, file.Path!);
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            if (await desk.ReadAsync(file.File.Wanted, file.File.Row!, cancel) is var (bytes, row))
            {
                await File.WriteAllBytesAsync(path, bytes, cancel);
                handed[file.Path!] = row;
            }
        }

        contents = contents.AsHanded(handed);
        foreach (var (name, text) in await PapersAsync(contents, cancel))
        {
            await File.WriteAllTextAsync(Path.Combine(fresh, name), text, cancel);
        }

        if (Directory.Exists(root))
        {
            Directory.Delete(root, recursive: true);
        }

        Directory.Move(fresh, root);
        await RememberAsync(contents, "folder", [.. contents.Going]);
        return (root, contents.Going.Count());
    }

    /// <summary>Puts down what was handed over, as a version of its own, so that a changed rule can be held against it.</summary>
    /// <param name="contents">The job.</param>
    /// <param name="kind">How: "zip", "folder" or "sent".</param>
    /// <param name="files">The files.</param>
    public Task<bool> RememberAsync(BundleContents contents, string kind, IReadOnlyList<BundleFile> files) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                var id = contents.State.Id;
                var delivery = new DeliveryRow
                {
                    Id = Guid.CreateVersion7(),
                    JobId = id,
                    Kind = kind,
                    At = clock.GetUtcNow().UtcDateTime,
                    Number = 1 + (await db.Deliveries.Where(row => row.JobId == id).MaxAsync(row => (int?)row.Number) ?? 0),
                };
                db.Deliveries.Add(delivery);
                db.DeliveredFiles.AddRange(files.Select(file => RowOf(delivery.Id, file)));
                await db.SaveChangesAsync();
                return (true, null);
            },
            CancellationToken.None
        );

    private static DeliveredFileRow RowOf(Guid delivery, BundleFile file)
    {
        var row = file.File.Row!;
        var delivered = new DeliveredFile(
            file.File.Wanted.Request.Plan.Crop.Size,
            file.Descriptor.Density?.Value,
            new PixelSize(row.Width, row.Height),
            row.Format,
            row.Bytes,
            row.Quality,
            row.Likeness
        );
        return new()
        {
            DeliveryId = delivery,
            Path = file.Path!,
            Destination = file.Cell.Place.Destination,
            Slot = file.Cell.Place.Slot,
            ContentHash = row.ContentHash,
            File = StoredJson.Write(delivered),
        };
    }

    /// <summary>Writes a file into a zip.</summary>
    internal static async Task WriteAsync(
        ZipArchive zip,
        string name,
        CompressionLevel level,
        DateTimeOffset at,
        byte[] bytes,
        CancellationToken cancel
    )
    {
        var entry = zip.CreateEntry(name, level);
        entry.LastWriteTime = at;
        await using var target = await entry.OpenAsync(cancel);
        await target.WriteAsync(bytes, cancel);
    }

    // What goes beside the files: what was made and why, how a page shows it, and the same for programs.
    private async Task<IReadOnlyList<(string Name, string Text)>> PapersAsync(BundleContents contents, CancellationToken cancel)
    {
        var report = contents.Report();
        var pages = (await JobPages.OfAsync(contents, "", folder, null, cancel)).Where(page => page.Picture is not null).ToList();
        var name = contents.State.Job.Name;
        return
        [
            ("report.json", report.ToJson()),
            ("report.csv", ReportTable.Of(report)),
            (
                "manifest.json",
                new Manifest(
                    name,
                    [.. pages.Select(page => ManifestPlace.Of(page.Row.Name, page.Place.Destination, page.Place.Key, page.Picture!))]
                ).ToJson()
            ),
            (
                "preview.html",
                PreviewPage.Write(
                    name,
                    [
                        .. pages.Select(page => new PreviewItem(
                            contents.State.WordsOf(page.Mine) ?? page.Row.Name,
                            $"{page.Place.Destination}: {(page.Place.IsGroup ? page.Place.Key : page.Place.Slots[0].Name)}",
                            page.Picture!
                        )),
                    ]
                )
            ),
        ];
    }
}

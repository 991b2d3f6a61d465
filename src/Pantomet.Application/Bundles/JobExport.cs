using System.IO.Compression;
using System.Text;
using Pantomet.Application.Destinations;
using Pantomet.Application.Jobs;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Marks;
using Pantomet.Core.Reports;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Data;

namespace Pantomet.Application.Bundles;

/// <summary>
/// Writes what is known of a job as open files, so that nobody needs Pantomet to read it: the originals under their names, the rules, the marks, all
/// that was decided, and the report. From rules and marks the command line makes the same files again.
/// </summary>
public sealed class JobExport(DataFolder folder, SideFileStore sideFiles, TimeProvider clock)
{
    /// <summary>Writes the export as a zip.</summary>
    /// <param name="contents">The job.</param>
    /// <param name="board">The same job, open.</param>
    /// <param name="output">Where to.</param>
    /// <param name="cancel">Stops between two files.</param>
    public async Task WriteAsync(BundleContents contents, JobBoard board, Stream output, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(contents);
        ArgumentNullException.ThrowIfNull(board);
        var state = contents.State;
        var names = NamesOf(state);
        await using var zip = await ZipArchive.CreateAsync(output, ZipArchiveMode.Create, leaveOpen: true, Encoding.UTF8, cancel);
        foreach (var (id, name) in names)
        {
            await CopyAsync(zip, $"originals/{name}", folder.Originals.PathOf(state.Rows[id].ContentHash), cancel);
        }

        var book = BookOf(state);
        foreach (
            var file in book.Destinations.SelectMany(one => one.Slots).SelectMany(slot => slot.Dress.Files).Distinct(StringComparer.Ordinal)
        )
        {
            if (await sideFiles.PathOfAsync(file, cancel) is { } path)
            {
                await CopyAsync(zip, file, path, cancel);
            }
        }

        var marks = names.ToDictionary(one => one.Value, one => MarksOf(state, board, one.Key), StringComparer.Ordinal);
        var turned = names.Where(one => !state.Job.Find(one.Key)!.Decisions.Turn.IsNone).Select(one => one.Value).ToList();
        await TextAsync(zip, "rules.json", RulesWriter.Write(book), cancel);
        await TextAsync(zip, "marks.json", MarksWriter.Write(marks), cancel);
        await TextAsync(
            zip,
            "decisions.json",
            StoredJson.Write(names.ToDictionary(one => one.Value, one => state.Job.Find(one.Key)!.Decisions, StringComparer.Ordinal)),
            cancel
        );
        var report = contents.Report();
        await TextAsync(zip, "report.json", report.ToJson(), cancel);
        await TextAsync(zip, "report.csv", ReportTable.Of(report), cancel);
        await TextAsync(zip, "README.txt", BackupTexts.WhatAnExportHolds(state.Job.Name, turned), cancel);
    }

    // The names as they arrived, each once: pictures side by side are two of them.
    private static List<KeyValuePair<Guid, string>> NamesOf(BoardState state)
    {
        var taken = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var names = new List<KeyValuePair<Guid, string>>();
        foreach (var mine in state.Shown.Where(one => state.Rows[one.Id].Parts is null))
        {
            var arrived = Path.GetFileName(state.Rows[mine.Id].Name);
            var name = arrived;
            for (var n = 2; !taken.Add(name); n++)
            {
                name = $"{Path.GetFileNameWithoutExtension(arrived)}-{n}{Path.GetExtension(arrived)}";
            }

            names.Add(new(mine.Id, name));
        }

        return names;
    }

    // Only the slots of the job, in the order of the book.
    private static RuleBook BookOf(BoardState state) =>
        new([
            .. state
                .Slots.Values.OrderBy(slot => slot.Rank)
                .GroupBy(slot => slot.Destination.Key)
                .Select(same => same.First().Destination with { Slots = [.. same.Select(slot => slot.Asked)] }),
        ]);

    // Marks are of the picture as it lies in its file: of a turned picture they would be elsewhere, and stand in the decisions alone.
    private static PictureMarks MarksOf(BoardState state, JobBoard board, Guid picture)
    {
        var decisions = state.Job.Find(picture)!.Decisions;
        var words = new PictureMarks
        {
            Name = decisions.Keywords.Length > 0 ? decisions.Keywords : null,
            Alternative =
                decisions.Decorative ? ""
                : decisions.Alternative is { Length: > 0 } text ? text
                : null,
            Title = decisions.Title.Length > 0 ? decisions.Title : null,
        };
        if (!decisions.Turn.IsNone)
        {
            return words;
        }

        var byHand = new Dictionary<string, Frame>(StringComparer.Ordinal);
        foreach (var place in state.Job.Slots)
        {
            if (board.Cell(state, picture, place.Address) is { Plan: { Skipped: false, Solved.Origin: FrameOrigin.Hand } plan })
            {
                byHand[place.Address] = plan.Frame;
            }
        }

        return words with
        {
            Focus = decisions.Focus,
            Keep = decisions.Keep,
            Framings = byHand,
        };
    }

    private static async Task CopyAsync(ZipArchive zip, string name, string path, CancellationToken cancel)
    {
        if (!File.Exists(path))
        {
            return;
        }

        await using var source = File.OpenRead(path);
        await using var target = await zip.CreateEntry(name, CompressionLevel.NoCompression).OpenAsync(cancel);
        await source.CopyToAsync(target, cancel);
    }

    private Task TextAsync(ZipArchive zip, string name, string text, CancellationToken cancel) =>
        BundleWriter.WriteAsync(zip, name, CompressionLevel.Fastest, clock.GetLocalNow(), Encoding.UTF8.GetBytes(text), cancel);
}

using System.Text;
using Pantomet.Application.Variants;
using Pantomet.Core.Facts;
using Pantomet.Core.Reports;
using Pantomet.Core.Texts;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Bundles;

/// <summary>Writes the contact sheet of a job: every file as a picture with its figures, and what is missing.</summary>
/// <param name="variants">The files.</param>
/// <param name="clock">The time.</param>
public sealed class ContactSheetWriter(VariantStore variants, TimeProvider clock)
{
    /// <summary>Writes the sheet, picture by picture; a file that cannot be read has no picture on it.</summary>
    /// <param name="contents">What goes out of the job, and what does not.</param>
    /// <param name="pictures">The pictures that are shown; null for all.</param>
    /// <param name="output">Where to.</param>
    /// <param name="cancel">Stops.</param>
    public async Task WriteAsync(BundleContents contents, IReadOnlySet<Guid>? pictures, Stream output, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(contents);
        await using var text = new StreamWriter(output, new UTF8Encoding(false), leaveOpen: true);
        var mine = contents.Files.Where(file => pictures?.Contains(file.Cell.Picture.Id) != false).ToList();
        var shown = mine.Where(file => file.File.Row is not null).ToList();
        var gaps = Gaps(contents, mine, pictures);
        var day = DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
        await text.WriteAsync(
            ContactSheet.Head(contents.State.Job.Name, day, shown.Count, shown.Sum(file => file.File.Row!.Bytes), gaps.Count)
        );
        // The bundle is in the order of its slots; people look at one picture after the other.
        foreach (var picture in shown.GroupBy(file => file.Cell.Picture.Id))
        {
            var cell = picture.First().Cell;
            var alternative = cell.Mine.Decisions.Alternative;
            await text.WriteAsync(ContactSheet.Picture(NameOf(contents, cell), alternative));
            foreach (var file in picture)
            {
                cancel.ThrowIfCancellationRequested();
                var (mediaType, small) = await SmallAsync(file.File.Row!, cancel);
                await text.WriteAsync(ContactSheet.File(Of(file), mediaType, small, alternative));
            }

            await text.WriteAsync(ContactSheet.PictureEnd);
            await text.FlushAsync(cancel);
        }

        await text.WriteAsync(ContactSheet.Tail(gaps));
    }

    private static string NameOf(BundleContents contents, Jobs.BoardCell cell) => contents.State.WordsOf(cell.Mine) ?? cell.Picture.Name;

    private static string PlaceOf(BundleFile file) => JobTexts.SlotOfDestination(file.Cell.Slot.Slot.Name, file.Cell.Slot.Destination.Name);

    private static ContactFile Of(BundleFile file)
    {
        var row = file.File.Row!;
        return new(
            PlaceOf(file),
            file.Descriptor.ToString(),
            file.State == HandOver.Goes ? file.Path : null,
            new(row.Width, row.Height),
            row.Format.Label(),
            row.Bytes,
            file.Cell.Slot.Slot.Limits.MaxBytes?.Bytes,
            file.File.Verdict,
            file.File.Allowed,
            [.. file.Reasons.Select(reason => reason.Message)]
        );
    }

    private async Task<(string MediaType, byte[] Small)> SmallAsync(VariantRow row, CancellationToken cancel)
    {
        var path = variants.SmallOf(row);
        try
        {
            return (VariantStore.IsSmallCopy(path) ? "image/webp" : row.Format.MediaType(), await File.ReadAllBytesAsync(path, cancel));
        }
        catch (IOException)
        {
            return (row.Format.MediaType(), []);
        }
    }

    private static List<ContactGap> Gaps(BundleContents contents, List<BundleFile> files, IReadOnlySet<Guid>? pictures)
    {
        var gaps = files
            .Where(file => file.State != HandOver.Goes)
            .Select(file => new ContactGap(
                JobTexts.PictureInPlace(NameOf(contents, file.Cell), PlaceOf(file), file.Descriptor.ToString()),
                file.State == HandOver.Waiting
                    ? JobTexts.TheFileIsNotMadeYet
                    : string.Join(' ', file.Reasons.Select(reason => reason.Message))
            ))
            .ToList();
        var asks = contents.Asks.ToHashSet();
        foreach (var mine in contents.State.Shown.Where(one => pictures?.Contains(one.Id) != false))
        {
            var name = contents.State.WordsOf(mine) ?? contents.State.Rows[mine.Id].Name;
            if (asks.Contains(mine.Id))
            {
                gaps.Add(new(name, JobTexts.NoKeywords));
            }

            if (mine.Decisions.Alternative.Length == 0 && !mine.Decisions.Decorative)
            {
                gaps.Add(new(name, JobTexts.NoAlternativeText));
            }
        }

        return gaps;
    }
}

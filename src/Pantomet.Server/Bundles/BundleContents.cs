using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Naming;
using Pantomet.Core.Reports;
using Pantomet.Core.Verdicts;
using Pantomet.Server.Jobs;

namespace Pantomet.Server.Bundles;

/// <summary>Whether a file goes out.</summary>
public enum HandOver
{
    /// <summary>It goes out.</summary>
    Goes,

    /// <summary>It breaks a limit and is held back, until it is let through.</summary>
    Held,

    /// <summary>It is still to be made.</summary>
    Waiting,

    /// <summary>It cannot be made.</summary>
    Missing,
}

/// <summary>One file of a bundle.</summary>
internal sealed record BundleFile(BoardCell Cell, JudgedFile File, HandOver State, string? Path)
{
    /// <summary>What was planned and came to nothing has a plan that is not made.</summary>
    public required IReadOnlyList<Reason> Reasons { get; init; }

    public required Density Density { get; init; }
}

/// <summary>What of a job goes out, under which names, and what does not, and why.</summary>
internal sealed class BundleContents
{
    private BundleContents(JobBoard board, IReadOnlyList<BundleFile> files, IReadOnlyList<Guid> asks) => (Board, Files, Asks) = (board, files, asks);

    public JobBoard Board { get; }

    public IReadOnlyList<BundleFile> Files { get; }

    /// <summary>Pictures that have files to hand over and nothing but a camera's number for a name.</summary>
    public IReadOnlyList<Guid> Asks { get; }

    public IEnumerable<BundleFile> Going => Files.Where(file => file.State == HandOver.Goes);

    public static IReadOnlyDictionary<Guid, string> FileNames(JobBoard board) => board.Rows.ToDictionary(pair => pair.Key, pair => pair.Value.Name);

    public static BundleContents Of(JobBoard board, CellJudge judge)
    {
        ArgumentNullException.ThrowIfNull(board);
        ArgumentNullException.ThrowIfNull(judge);
        List<BundleFile> files = [];
        lock (board.Gate)
        {
            var order = board.Job.Pictures.Select((one, index) => (one.Id, index)).ToDictionary(pair => pair.Id, pair => pair.index);
            var slots = board.Job.Slots.Select((one, index) => (one.Address, index)).GroupBy(pair => pair.Address).ToDictionary(group => group.Key, group => group.First().index);
            foreach (var cell in board.Cells.Values.OrderBy(cell => slots[cell.Place.Address]).ThenBy(cell => order[cell.Picture.Id]).Where(cell => !cell.Plan.Skipped))
            {
                files.AddRange(judge.Files(cell).Select(file => new BundleFile(cell, file, StateOf(file, judge), null) { Reasons = file.Reasons, Density = file.Wanted.Wish.Plan.Density }));
                files.AddRange(cell.Plan.Wishes.Where(wish => !wish.Plan.IsMade).Select(wish => new BundleFile(
                    cell, new(Variants.VariantStore.Wanted(cell.Picture, cell.Mine.Decisions.Turn, cell.Slot.Slot, cell.Slot.BytesKey, wish), null, wish.Plan.Verdict, wish.Plan.Reasons, false),
                    HandOver.Missing, null)
                { Reasons = wish.Plan.Reasons, Density = wish.Plan.Density }));
            }
        }

        var named = files.Where(file => file.File.Row is not null).OrderBy(file => file.State).ToList();
        var names = BundleNames.For(
            board.Job,
            named.Select(file => new NamedFile(
                file.Cell.Picture.Id, file.Cell.Place.Destination, file.Cell.Slot.Slot, file.Density, new(file.File.Row!.Width, file.File.Row.Height), file.File.Row.Format.Ending())),
            FileNames(board));
        var paths = new Dictionary<BundleFile, string>(ReferenceEqualityComparer.Instance);
        for (var i = 0; i < named.Count; i++)
        {
            paths[named[i]] = names[i];
        }

        List<BundleFile> all = [.. files.Select(file => paths.TryGetValue(file, out var path) ? file with { Path = path } : file)];
        var asks = all.Where(file => file.State != HandOver.Missing).Select(file => file.Cell.Mine).DistinctBy(mine => mine.Id)
            .Where(mine => BundleNames.WordsFor(board.Job, mine, board.Rows[mine.Id].Name) is null).Select(mine => mine.Id);
        return new(board, all, [.. asks]);
    }

    /// <summary>The same as a report: what was made, at which sizes, how much lighter, and what is missing and why.</summary>
    public RenderReport Report()
    {
        var sources = Board.Job.Pictures.Where(one => Board.Rows.ContainsKey(one.Id)).Select(one => Source(one, Board.Rows[one.Id])).ToList();
        return new(
            sources, [.. Files.Select(Variant)],
            new(sources.Sum(source => source.Bytes ?? 0), Going.Sum(file => file.File.Row!.Bytes), Going.Count(), 0));
    }

    private static ReportedSource Source(Core.Jobs.JobPicture mine, Data.Pictures.PictureRow row)
    {
        var facts = row.Facts;
        return new()
        {
            File = row.Name, Width = facts.Size.Width, Height = facts.Size.Height, Format = facts.Format.Word(), Bytes = facts.Bytes, Alpha = facts.HasAlpha,
            Frames = facts.Frames, Profile = facts.Profile, Ppi = facts.Ppi, JpegQuality = facts.JpegQuality, Kind = facts.Kind,
            Alternative = mine.Decisions.Alternative.Length > 0 ? mine.Decisions.Alternative : null,
        };
    }

    private static ReportedVariant Variant(BundleFile file)
    {
        var (row, crop) = (file.File.Row, file.File.Wanted.Wish.Plan.Crop);
        return new()
        {
            Source = file.Cell.Picture.Name, Destination = file.Cell.Place.Destination, Slot = file.Cell.Place.Slot, Density = file.Density.Value,
            File = file.State == HandOver.Goes ? file.Path : null, Width = row?.Width, Height = row?.Height, Format = row?.Format.Word(), Bytes = row?.Bytes,
            Quality = row?.Quality, Likeness = row?.Likeness, Frame = [crop.Left, crop.Top, crop.Right, crop.Bottom], Encodes = row?.Encodes ?? 0,
            Verdict = file.File.Verdict, Reasons = file.State == HandOver.Waiting ? [.. file.Reasons, new(ReasonCodes.Waiting, "It is still to be made.")] : file.Reasons,
        };
    }

    private static HandOver StateOf(JudgedFile file, CellJudge judge) =>
        file.Row is null ? judge.HasFailed(file.Wanted.Id) ? HandOver.Missing : HandOver.Waiting
        : file.Verdict == Verdict.Breaks && !file.LetThrough ? HandOver.Held
        : HandOver.Goes;
}

using System.Globalization;
using System.Runtime.CompilerServices;
using Pantomet.Application.Jobs;
using Pantomet.Application.Variants;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Naming;
using Pantomet.Core.Planning;
using Pantomet.Core.Reports;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Bundles;

/// <summary>Whether a file is handed over.</summary>
public enum HandOver
{
    /// <summary>It goes out.</summary>
    Goes,

    /// <summary>It breaks a limit and is held back, until it is allowed anyway.</summary>
    Held,

    /// <summary>It is still to be made.</summary>
    Waiting,

    /// <summary>It cannot be made.</summary>
    Missing,
}

/// <summary>One file of a bundle.</summary>
public sealed record BundleFile(BoardCell Cell, JudgedFile File, HandOver State, string? Path)
{
    /// <summary>What was planned and came to nothing has a plan that is not made.</summary>
    public required IReadOnlyList<Reason> Reasons { get; init; }

    /// <summary>The descriptor of the file: "2x", "640w".</summary>
    public required Descriptor Descriptor { get; init; }

    /// <summary>
    /// The path that it will have once it is made; its extension is "…" where the type is found by content. Null for other files, and where a
    /// name depends on what the file holds.
    /// </summary>
    public string? ExpectedPath { get; init; }
}

/// <summary>What of a job goes out, under which names, and what does not, and why.</summary>
public sealed class BundleContents
{
    private BundleContents(BoardState state, IReadOnlyList<BundleFile> files, IReadOnlyList<Guid> asks) =>
        (State, Files, Asks) = (state, files, asks);

    /// <summary>The job as it stands.</summary>
    public BoardState State { get; }

    /// <summary>All files that the job asks for, in the order of the bundle.</summary>
    public IReadOnlyList<BundleFile> Files { get; private init; }

    /// <summary>Pictures that have files to hand over and nothing but a camera's number for a name.</summary>
    public IReadOnlyList<Guid> Asks { get; }

    /// <summary>The files that are delivered.</summary>
    public IEnumerable<BundleFile> Going => Files.Where(file => file.State == HandOver.Goes);

    /// <summary>Puts together what goes out of a job as it stands.</summary>
    public static async Task<BundleContents> OfAsync(PantometDb db, JobBoard board, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(board);
        var state = board.State;
        // Whoever asks for one path, or each second how far it is, asks for the same: a change gives the job another state.
        if (Last.TryGetValue(board, out var known) && ReferenceEquals(known.State, state))
        {
            return known;
        }

        var contents = await PutTogetherAsync(db, board, state, cancel);
        Last.AddOrUpdate(board, contents);
        return contents;
    }

    private static readonly ConditionalWeakTable<JobBoard, BundleContents> Last = [];

    private static async Task<BundleContents> PutTogetherAsync(PantometDb db, JobBoard board, BoardState state, CancellationToken cancel)
    {
        var standings = await FileStandings.OfJobAsync(db, state.Id, whole: true, cancel);
        List<BundleFile> files = [];
        foreach (
            var cell in state
                .Job.Slots.SelectMany(place => state.Shown.Select(mine => board.Cell(state, mine, place)))
                .OfType<BoardCell>()
                .Where(cell => !cell.Plan.Skipped)
        )
        {
            files.AddRange(
                CellJudge
                    .Files(cell, standings)
                    .Select(file => new BundleFile(cell, file, StateOf(file), null)
                    {
                        Reasons = file.Reasons,
                        Descriptor = file.Wanted.Request.Plan.Descriptor,
                    })
            );
            files.AddRange(cell.Plan.Requests.Where(request => !request.Plan.IsMade).Select(request => NotMade(cell, request)));
        }

        var named = files.Where(file => file.File.Row is not null).OrderBy(file => file.State).ToList();
        // Those that are still to be made take the names that are left.
        named.AddRange(files.Where(file => file is { State: HandOver.Waiting, File.Row: null } && !DependsOnContent(state.Job, file)));
        var names = BundleNames.For(state.Job, named.Select(Named), state.FileNames);
        var paths = new Dictionary<BundleFile, string>(ReferenceEqualityComparer.Instance);
        for (var i = 0; i < named.Count; i++)
        {
            paths[named[i]] = names[i];
        }

        List<BundleFile> all =
        [
            .. files.Select(file =>
                !paths.TryGetValue(file, out var path) ? file
                : file.File.Row is null ? file with { ExpectedPath = path }
                : file with { Path = path }
            ),
        ];
        var asks = all.Where(file => file.State != HandOver.Missing)
            .Select(file => file.Cell.Mine)
            .DistinctBy(mine => mine.Id)
            .Where(mine => state.WordsOf(mine) is null)
            .Select(mine => mine.Id);
        return new(state, all, [.. asks]);
    }

    private static NamedFile Named(BundleFile file)
    {
        var (row, request, slot) = (file.File.Row, file.File.Wanted.Request, file.Cell.Slot.Slot);
        var format = row?.Format ?? request.Format ?? (slot is { ByContent: false, Formats.Count: 1 } ? slot.Formats[0] : null);
        return new(
            file.Cell.Picture.Id,
            file.Cell.Place.Destination,
            slot,
            file.Descriptor,
            row is null ? request.Plan.Size : new(row.Width, row.Height),
            format?.Ending() ?? "…",
            row?.ContentHash ?? ""
        );
    }

    private static bool DependsOnContent(Job job, BundleFile file) =>
        (job.Patterns.GetValueOrDefault(file.Cell.Place.Destination) ?? file.Cell.Slot.Slot.NamePattern.Text).Contains(
            "{hash}",
            StringComparison.Ordinal
        );

    /// <summary>The same as it was really handed over.</summary>
    /// <param name="handed">The figures of the files that were, by path; a file that goes and is not among them could not be read.</param>
    public BundleContents AsHanded(IReadOnlyDictionary<string, VariantRow> handed) =>
        new(
            State,
            [
                .. Files.Select(file =>
                    file.State != HandOver.Goes ? file
                    : handed.TryGetValue(file.Path!, out var row) ? file with { File = file.File with { Row = row } }
                    : Lost(file)
                ),
            ],
            Asks
        );

    /// <summary>The same as a report: what was made, at which sizes, how much lighter, and what is missing and why.</summary>
    public RenderReport Report()
    {
        // Pictures side by side are no originals; their parts are told with each file.
        var sources = State.Shown.Where(one => State.Rows[one.Id].Parts is null).Select(one => Source(one, State.Rows[one.Id])).ToList();
        return RenderReport.Of(sources, [.. Files.Select(Variant)], TimeSpan.Zero);
    }

    // A suggestion is a matter of the job: what was made of it is in the frames.
    private static ReportedSource Source(JobPicture mine, PictureRow row) =>
        ReportedSource.Of(row.Name, row.Facts with { Suggestion = null }) with
        {
            Alternative = mine.Decisions.Alternative.Length > 0 ? mine.Decisions.Alternative : null,
        };

    private static ReportedVariant Variant(BundleFile file)
    {
        var row = file.File.Row;
        return ReportedVariant.Of(
            file.Cell.Picture.Parts?[0].Name ?? file.Cell.Picture.Name,
            file.Cell.Place.Destination,
            file.Cell.Place.Slot,
            file.Descriptor,
            file.File.Wanted.Request.Plan.Crop,
            file.State == HandOver.Goes ? Figures(file.Path!, row!) : null,
            row?.Encodes ?? 0,
            file.File.Verdict,
            file.State == HandOver.Waiting ? [.. file.Reasons, new(ReasonCodes.Waiting, JobTexts.TheFileIsNotMadeYet)] : file.Reasons
        ) with
        {
            Parts = file.Cell.Picture.Parts is { } parts
                ? [.. parts.Select((part, i) => PartOf(part.Name, file.File.Wanted.Request.Plan, i))]
                : null,
        };
    }

    private static ReportedPart PartOf(string name, VariantPlan plan, int at) =>
        plan.Parts is { } placed ? ReportedPart.Of(name, placed[at]) : new(name, null, null);

    private static ReportedFile Figures(string path, VariantRow row) =>
        new(path, new(row.Width, row.Height), row.Format, row.Bytes, row.Quality, row.Likeness, row.Worst, VariantStore.DressedOf(row));

    private static BundleFile NotMade(BoardCell cell, FileRequest request)
    {
        var wanted = cell.Wanted(request);
        return new(cell, new(wanted, null, null, request.Plan.Verdict, request.Plan.Reasons, false), HandOver.Missing, null)
        {
            Reasons = request.Plan.Reasons,
            Descriptor = request.Plan.Descriptor,
        };
    }

    private static BundleFile Lost(BundleFile file) =>
        file with
        {
            State = HandOver.Missing,
            Reasons = [.. file.Reasons, new(ReasonCodes.Unreadable, JobTexts.TheFileWasMissingOrDamaged)],
        };

    private static HandOver StateOf(JudgedFile file) =>
        file.Row is null
            ? file.Failure is null
                ? HandOver.Waiting
                : HandOver.Missing
            : file.Verdict == Verdict.Breaks && !file.Allowed
                ? HandOver.Held
                : HandOver.Goes;
}

using System.Text.Json;
using Pantomet.Application.Variants;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Planning;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Data.Jobs;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Jobs;

/// <summary>A file of a cell with everything that is known of it.</summary>
public sealed record JudgedFile(
    WantedFile Wanted,
    VariantRow? Row,
    FailureRow? Failure,
    Verdict Verdict,
    IReadOnlyList<Reason> Reasons,
    bool Allowed
);

/// <summary>What a cell comes to, as it is stored and counted.</summary>
public sealed record JudgedCell(
    string State,
    Verdict Verdict,
    IReadOnlyList<Reason> Reasons,
    IReadOnlyList<string> ToReview,
    IReadOnlyList<JudgedFile> Files
);

/// <summary>Puts together what a cell's frame and its files came to.</summary>
public sealed class CellJudge(UnderWay underWay)
{
    private const string OtherShapeSentence = JobTexts.TheNewerOriginalHasAnotherShape;

    /// <summary>The files of a cell that were or will be made.</summary>
    public static IReadOnlyList<JudgedFile> Files(BoardCell cell, FileStandings standings) =>
        [.. cell.Files.Select(file => Judge(file, cell, standings))];

    /// <summary>How many files are being made for a job.</summary>
    public int MakingFor(Guid job) => underWay.MakingFor(job);

    /// <summary>How far a job is.</summary>
    public JobProgress Progress(JobBoard board) => Progress(board, board.State);

    /// <summary>How far a job was at a state of it: what is told beside cells must not know more than they do.</summary>
    public JobProgress Progress(JobBoard board, BoardState state)
    {
        var tally = state.Tally;
        return new(
            tally.Files,
            tally.Done,
            tally.Failed,
            MakingFor(state.Id),
            tally.Bytes,
            tally.Left > 0 && state.Run == RunState.Running ? board.Pace.SecondsFor(tally.Left) : null
        );
    }

    /// <summary>What a cell comes to.</summary>
    public static JudgedCell Standing(BoardCell cell, FileStandings standings)
    {
        var files = Files(cell, standings);
        var reasons = Reasons(cell, files);
        if (cell.Plan.Skipped)
        {
            return new("skipped", Verdict.Skipped, reasons, [], files);
        }

        var verdict = cell
            .Plan.Requests.Select(request => request.Plan.Verdict)
            .Concat(files.Select(file => file.Verdict))
            .Aggregate(Verdict.Meets, Judgement.Graver);
        var suggested =
            cell.Plan.Solved.Origin == FrameOrigin.Suggested ? CellPlan.SuggestionOf(cell.Picture.Facts, cell.Mine.Decisions.Turn) : null;
        var state =
            files.Count == 0 ? "planned"
            : files.Any(file => file.Row is null && file.Failure is null) ? "waiting"
            : files.Any(file => file.Row is null) ? "failed"
            : "made";
        return new(state, verdict, reasons, Judgement.ToReview(reasons, suggested, cell.Plan.Frame, cell.Decision.Accepted), files);
    }

    /// <summary>The reasons of a cell as a whole, each code once, the gravest file's first.</summary>
    public static IReadOnlyList<Reason> Reasons(BoardCell cell, IReadOnlyList<JudgedFile> files)
    {
        // Asked for every cell of a job: a few reasons are told apart faster by looking than by hashing.
        var reasons = new List<Reason>(4);
        void Add(IReadOnlyList<Reason> some, Descriptor? rung = null)
        {
            foreach (var reason in some)
            {
                if (!reasons.Exists(known => known.Code == reason.Code))
                {
                    reasons.Add(rung is { } one ? reason with { Message = $"{one}: {reason.Message}" } : reason);
                }
            }
        }

        if (cell.Mine.Decisions.OtherShape && cell.Plan.Solved.Origin == FrameOrigin.Hand)
        {
            reasons.Add(new(ReasonCodes.OtherShape, OtherShapeSentence));
        }

        foreach (var request in cell.Plan.Requests)
        {
            Add(request.Plan.Reasons);
        }

        foreach (var breaks in (bool[])[true, false])
        {
            foreach (var file in files)
            {
                if (file.Verdict == Verdict.Breaks == breaks)
                {
                    // Of a ladder, what happened to one width is said of that one.
                    Add(file.Reasons, cell.Slot.Slot.Responsive is null ? null : file.Wanted.Request.Plan.Descriptor);
                }
            }
        }

        return ReasonCodes.InOrder(reasons);
    }

    /// <summary>A cell as it is told.</summary>
    /// <param name="cell">The cell.</param>
    /// <param name="standings">How its files stand.</param>
    /// <param name="sequence">The job's sequence then.</param>
    public CellView View(BoardCell cell, FileStandings standings, long sequence)
    {
        var judged = Standing(cell, standings);
        var state =
            cell.Plan.Skipped ? CellState.Skipped
            // What is stored is made, though whoever made it has not put it down yet.
            : judged.Files.Any(file => file.Row is null && underWay.IsMaking(file.Wanted.Id)) ? CellState.Making
            : judged.Files.Any(file => file.Row is null && (file.Failure is null || file.Failure.NextAt is not null)) ? CellState.Waiting
            : CellState.Done;
        var frame = cell.Plan.Frame;
        return new(
            cell.Picture.Id,
            cell.Place.Address,
            sequence,
            [frame.Left, frame.Top, frame.Right, frame.Bottom],
            cell.Plan.Asked.Width,
            cell.Plan.Asked.Height,
            cell.Plan.Solved.Origin,
            state,
            judged.Verdict,
            [.. judged.Reasons.Select(reason => reason.Code)],
            judged.ToReview,
            [.. judged.Files.Select(View)]
        );
    }

    private CellFile View(JudgedFile file)
    {
        var (id, request) = (file.Wanted.Id, file.Wanted.Request);
        var descriptor = request.Plan.Descriptor.ToString();
        return file.Row is { } row
                ? new(
                    row.Id,
                    descriptor,
                    row.Width,
                    row.Height,
                    row.Format.Word(),
                    row.Bytes,
                    row.Quality,
                    row.Likeness,
                    true,
                    file.Verdict,
                    file.Allowed
                )
            : underWay.Weighed(id) is { } found
                ? new(
                    id,
                    descriptor,
                    found.Size.Width,
                    found.Size.Height,
                    found.Format.Word(),
                    found.Bytes,
                    found.Quality,
                    null,
                    false,
                    file.Verdict,
                    file.Allowed
                )
            : new(
                id,
                descriptor,
                request.Plan.Size.Width,
                request.Plan.Size.Height,
                request.Format?.Word(),
                null,
                null,
                null,
                false,
                file.Verdict,
                file.Allowed
            );
    }

    /// <summary>What a plan and the file that was made for it come to together.</summary>
    public static (Verdict Verdict, IReadOnlyList<Reason> Reasons) Of(VariantPlan plan, VariantRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return Judgement.Of(plan, row.Verdict, row.Reasons == "[]" ? [] : JsonSerializer.Deserialize<List<Reason>>(row.Reasons) ?? []);
    }

    private static JudgedFile Judge(WantedFile file, BoardCell cell, FileStandings standings)
    {
        var plan = file.Request.Plan;
        var allowed = cell.Decision.Allowed is { Count: > 0 } files && files.Contains(file.Want);
        if (standings.Made(file.Id) is { } row)
        {
            var (verdict, reasons) = Of(plan, row);
            return new(file, row, null, verdict, reasons, allowed);
        }

        return standings.Failure(file.Id) is { } failure
            ? new(file, null, failure, Verdict.Breaks, [.. plan.Reasons, new(ReasonCodes.Unreadable, failure.Reason)], false)
            : new(file, null, null, plan.Verdict, plan.Reasons, allowed);
    }
}

using System.Text.Json;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Jobs;
using Pantomet.Core.Verdicts;
using Pantomet.Data.Variants;
using Pantomet.Imaging.Making;
using Pantomet.Server.Variants;

namespace Pantomet.Server.Jobs;

/// <summary>A file of a cell with everything that is known of it.</summary>
internal sealed record JudgedFile(WantedFile Wanted, VariantRow? Row, Verdict Verdict, IReadOnlyList<Reason> Reasons, bool LetThrough);

/// <summary>Puts together what a cell's frame and its files came to.</summary>
internal sealed class CellJudge(VariantStore store, Func<string, bool> isMaking, Func<string, WeighedFile?> weighed)
{
    /// <summary>True when a file was tried and could not be made.</summary>
    public bool HasFailed(string id) => store.Failure(id) is not null;

    /// <summary>The files of a cell that were or will be made.</summary>
    public IReadOnlyList<JudgedFile> Files(BoardCell cell) => [.. cell.Files.Select(file => Judge(file, cell))];

    /// <summary>The reasons of a cell as a whole, each code once, the gravest file's first.</summary>
    public IReadOnlyList<Reason> Reasons(BoardCell cell) => Reasons(cell, Files(cell));

    private static IReadOnlyList<Reason> Reasons(BoardCell cell, IReadOnlyList<JudgedFile> files)
    {
        var reasons = new List<Reason>();
        if (cell.Mine.Decisions.OtherShape && cell.Plan.Solved.Origin == FrameOrigin.Hand)
        {
            reasons.Add(new(ReasonCodes.OtherShape, "The newer original has another shape than the one this frame was set on. Look whether it still fits, and accept it or set it anew."));
        }

        reasons.AddRange(cell.Plan.Wishes.SelectMany(wish => wish.Plan.Reasons));
        reasons.AddRange(files.OrderByDescending(file => file.Verdict == Verdict.Breaks).SelectMany(file => file.Reasons));
        return ReasonCodes.InOrder(reasons.DistinctBy(reason => reason.Code));
    }

    public CellView View(BoardCell cell)
    {
        var files = Files(cell);
        var reasons = Reasons(cell, files);
        var verdict = cell.Plan.Skipped ? Verdict.Skipped
            : cell.Plan.Wishes.Select(wish => wish.Plan.Verdict).Concat(files.Select(file => file.Verdict)).Aggregate(Verdict.Meets, Judgement.Graver);
        var state = cell.Plan.Skipped ? CellState.Skipped
            : files.Any(file => isMaking(file.Wanted.Id)) ? CellState.Making
            : files.Any(file => file.Row is null && store.Failure(file.Wanted.Id) is null) ? CellState.Waiting
            : CellState.Done;
        var suggested = cell.Plan.Solved.Origin == FrameOrigin.Suggested ? CellPlan.SuggestionOf(cell.Picture.Facts, cell.Mine.Decisions.Turn)?.Kind : null;
        var frame = cell.Plan.Frame;
        return new(
            cell.Picture.Id, cell.Place.Address, [frame.Left, frame.Top, frame.Right, frame.Bottom], cell.Plan.Asked.Width, cell.Plan.Asked.Height, cell.Plan.Solved.Origin, state, verdict,
            [.. reasons.Select(reason => reason.Code)], cell.Plan.Skipped ? [] : Judgement.WantsALook(reasons, suggested, frame, cell.Decision.Accepted), [.. files.Select(View)]);
    }

    private CellFile View(JudgedFile file) =>
        file.Row is { } row
            ? new(row.Id, file.Wanted.Wish.Plan.Density.Value, row.Width, row.Height, row.Format.Word(), row.Bytes, row.Quality, row.Likeness, true, file.Verdict, file.LetThrough)
            : weighed(file.Wanted.Id) is { } found
            ? new(file.Wanted.Id, file.Wanted.Wish.Plan.Density.Value, found.Size.Width, found.Size.Height, found.Format.Word(), found.Bytes, found.Quality, null, false, file.Verdict, file.LetThrough)
            : new(file.Wanted.Id, file.Wanted.Wish.Plan.Density.Value, file.Wanted.Wish.Plan.Size.Width, file.Wanted.Wish.Plan.Size.Height,
                file.Wanted.Wish.Format?.Word(), null, null, null, false, file.Verdict, file.LetThrough);

    private JudgedFile Judge(WantedFile file, BoardCell cell)
    {
        var plan = file.Wish.Plan;
        var through = cell.Decision.LetThrough.Contains(file.Id);
        if (store.Known(file.Id) is { } row)
        {
            var own = JsonSerializer.Deserialize<List<Reason>>(row.Reasons) ?? [];
            return new(file, row, Judgement.Graver(plan.Verdict, row.Verdict), ReasonCodes.InOrder([.. plan.Reasons, .. own]), through);
        }

        return store.Failure(file.Id) is { } failure
            ? new(file, null, Verdict.Breaks, [.. plan.Reasons, new(ReasonCodes.Unreadable, failure)], false)
            : new(file, null, plan.Verdict, plan.Reasons, through);
    }
}

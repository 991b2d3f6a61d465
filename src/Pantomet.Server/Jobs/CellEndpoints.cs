using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Bundles;
using Pantomet.Application.Destinations;
using Pantomet.Application.Jobs;
using Pantomet.Application.Pages;
using Pantomet.Application.Variants;
using Pantomet.Core.Accounts;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Naming;
using Pantomet.Core.Responsive;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Data.Variants;
using Pantomet.Imaging.Hosting;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Jobs;

/// <summary>A file to compare, before anything is decided.</summary>
/// <param name="Descriptor">One of the slot's densities, or a width of its ladder: 2x, 800w.</param>
/// <param name="Format">A type chosen by hand; null leaves it to the slot.</param>
/// <param name="Quality">A quality chosen by hand, 1 to 100; null finds it.</param>
public sealed record TrialRequest(string Descriptor, string? Format, int? Quality);

/// <summary>Decisions that are to be weighed before they are made.</summary>
/// <param name="Commands">The commands of these decisions.</param>
public sealed record WeighRequest(IReadOnlyList<JobCommand> Commands);

/// <summary>Text and overlay that are to be previewed.</summary>
/// <param name="Commands">The commands that would decide it.</param>
/// <param name="Colours">True to find the colours that lead, the edge's, and inks.</param>
public sealed record ViewportRequest(IReadOnlyList<JobCommand> Commands, bool Colours);

/// <summary>Points of a curve that are asked for.</summary>
/// <param name="Descriptor">One of the slot's densities, or a width of its ladder: 2x, 800w.</param>
/// <param name="Format">jpeg, png, webp or avif.</param>
/// <param name="Qualities">The qualities, each 1 to 100.</param>
public sealed record CurvesRequest(string Descriptor, string Format, IReadOnlyList<int> Qualities);

/// <summary>One cell of a job: its reasons, and weighing it.</summary>
internal static class CellEndpoints
{
    private const int MostPoints = 12;
    private const int MostScreens = 2000;

    public static void Map(IEndpointRouteBuilder routes)
    {
        var cells = routes
            .MapGroup("/api/jobs/{id:guid}/cells/{picture:guid}/{destination}/{slot}")
            .NeedsRight(Right.Look)
            .WithTags("Cells")
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status400BadRequest);
        cells.MapGet("/", GetAsync).WithName("getCell").AlsoForGuests().WithSummary("A cell with its reasons and files in full.");
        cells
            .MapPost("/trial", TryAsync)
            .WithName("tryCell")
            .NotLogged()
            .WithSummary("Makes a file for comparison, without deciding anything.");
        cells
            .MapPost("/weigh", WeighAsync)
            .WithName("weighCell")
            .NotLogged()
            .WithSummary("What the slot's first file weighs under other decisions, while the frame is still being moved.");
        cells
            .MapPost("/preview", PreviewAsync)
            .WithName("previewCell")
            .NotLogged()
            .WithSummary("A preview of the slot's file under other decisions about text and overlay, before they are sent.");
        routes
            .MapGet("/api/previews/{look}", (string look, PreviewCache shelf) => LookFile(shelf.PathOf(look)))
            .WithTags("Cells")
            .WithName("getCellPreview")
            .NeedsRight(Right.Look)
            .WithSummary("The pixels of a preview, as PNG.");
        cells
            .MapPost("/responsive", ResponsiveAsync)
            .WithName("previewResponsive")
            .NotLogged()
            .WithSummary("What visitors load of the slot and its group, by its rule or by a changed one.");
        cells
            .MapPost("/curve", CurveAsync)
            .WithName("weighCurve")
            .NotLogged()
            .WithSummary("Weight and likeness of one type at several qualities.");
    }

    private static async Task<Results<Ok<CellDetail>, ProblemHttpResult>> GetAsync(
        Guid id,
        Guid picture,
        string destination,
        string slot,
        JobRoom room,
        JobList list,
        CancellationToken cancel
    )
    {
        if (await FindAsync(id, picture, destination, slot, room, list, cancel) is not { } at)
        {
            return Problem.NoCell();
        }

        var (cell, standings) = (at.Cell, at.Standings);
        var judged = CellJudge.Standing(cell, standings);
        return TypedResults.Ok(
            new CellDetail(
                room.Judge.View(cell, standings, at.State.Sequence),
                judged.Reasons,
                [.. cell.Plan.Requests.DistinctBy(request => request.Plan.Descriptor).Select(request => PlanView.Of(request.Plan))],
                [
                    .. judged
                        .Files.Where(file => file.Row is not null)
                        .Select(file => VariantFileView.Of(file.Row!, NameOf(at.State, cell, file.Wanted, file.Row!))),
                ]
            )
        );
    }

    private static async Task<Results<Ok<TrialView>, ProblemHttpResult>> TryAsync(
        Guid id,
        Guid picture,
        string destination,
        string slot,
        TrialRequest request,
        JobRoom room,
        JobList list,
        FileDesk desk,
        CancellationToken cancel
    )
    {
        if (await FindAsync(id, picture, destination, slot, room, list, cancel) is not { } at)
        {
            return Problem.NoCell();
        }

        if (Fault(at.Cell, request.Descriptor, request.Format, request.Quality) is { } fault)
        {
            return fault;
        }

        var plan = PlanAt(at.Cell, request.Descriptor);
        if (!plan.IsMade)
        {
            return TypedResults.Ok(new TrialView(plan.Verdict, plan.Reasons, null));
        }

        var wanted = at.Cell.Wanted(new(plan, FormatOf(request.Format), request.Quality));
        var standings = await desk.MakeAsync(wanted, urgent: true, cancel);
        var judged = CellJudge.Files(at.Cell with { Files = [wanted] }, standings)[0];
        return TypedResults.Ok(
            judged.Row is { } row
                ? new TrialView(judged.Verdict, judged.Reasons, VariantFileView.Of(row, NameOf(at.State, at.Cell, wanted, row)))
                : new TrialView(
                    Verdict.Breaks,
                    [new(ReasonCodes.Unreadable, judged.Failure?.Reason ?? JobTexts.TheFileCouldNotBeMade)],
                    null
                )
        );
    }

    private static async Task<Results<Ok<IReadOnlyList<CellFile>>, ProblemHttpResult>> WeighAsync(
        Guid id,
        Guid picture,
        string destination,
        string slot,
        WeighRequest request,
        JobRoom room,
        JobList list,
        FileDesk desk,
        CancellationToken cancel
    )
    {
        var (at, cell, fault) = await UnderAsync(new(id, picture, destination, slot), request.Commands, room, list, cancel);
        if (cell is null)
        {
            return fault!;
        }

        if (cell.Files.Count == 0)
        {
            return TypedResults.Ok<IReadOnlyList<CellFile>>([]);
        }

        cell = cell with { Files = [.. cell.Files.Where(file => file.Request.Plan.Descriptor == cell.Files[0].Request.Plan.Descriptor)] };
        foreach (var file in cell.Files)
        {
            await desk.MakeAsync(file, urgent: true, cancel);
        }

        return TypedResults.Ok(room.Judge.View(cell, await list.StandingsAsync([cell], cancel), at!.State.Sequence).Files);
    }

    private static async Task<Results<Ok<PreviewView>, ProblemHttpResult>> PreviewAsync(
        Guid id,
        Guid picture,
        string destination,
        string slot,
        ViewportRequest request,
        JobRoom room,
        JobList list,
        PreviewCache shelf,
        CancellationToken cancel
    )
    {
        var (_, cell, fault) = await UnderAsync(new(id, picture, destination, slot), request.Commands, room, list, cancel);
        if (cell is null)
        {
            return fault!;
        }

        // At density 1 letters are as large as they are asked for; on a ladder the widest shown comes nearest.
        var shown = cell.Files.OrderBy(file => Math.Abs(file.Request.Plan.Size.Width - cell.Plan.Asked.Width)).FirstOrDefault();
        if (shown is null)
        {
            return Problem.Of(StatusCodes.Status409Conflict, "no-file", JobTexts.NoFileIsMadeForThis);
        }

        var (look, refusal) = await shelf.LookAsync(shown, request.Colours, cell.KeptIn(shown.Request.Plan), cancel);
        return look is null ? Problem.Of(StatusCodes.Status409Conflict, "not-drawn", refusal!) : TypedResults.Ok(look);
    }

    private static Results<PhysicalFileHttpResult, NotFound> LookFile(string? path) =>
        path is null ? TypedResults.NotFound() : TypedResults.PhysicalFile(path, "image/png");

    private static async Task<Results<Ok<IReadOnlyList<CurvePoint>>, ProblemHttpResult>> CurveAsync(
        Guid id,
        Guid picture,
        string destination,
        string slot,
        CurvesRequest request,
        JobRoom room,
        JobList list,
        VariantStore store,
        CancellationToken cancel
    )
    {
        if (await FindAsync(id, picture, destination, slot, room, list, cancel) is not { } at)
        {
            return Problem.NoCell();
        }

        if (request.Qualities.Count > MostPoints || request.Qualities.Any(quality => quality is < 1 or > 100))
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-quality", JobTexts.ACurveCanHaveAtMost(MostPoints), "$.qualities");
        }

        if (Fault(at.Cell, request.Descriptor, request.Format, null) is { } fault)
        {
            return fault;
        }

        var plan = PlanAt(at.Cell, request.Descriptor);
        if (!plan.IsMade)
        {
            return TypedResults.Ok<IReadOnlyList<CurvePoint>>([]);
        }

        var format = FormatOf(request.Format)!.Value;
        return TypedResults.Ok(await store.CurveAsync(at.Cell.Wanted(new(plan, format, null)), format, request.Qualities, cancel) ?? []);
    }

    private static async Task<Results<Ok<ResponsiveView>, ProblemHttpResult>> ResponsiveAsync(
        Guid id,
        Guid picture,
        string destination,
        string slot,
        ResponsiveWidthsRequest request,
        JobRoom room,
        JobList list,
        ResponsivePreview previews,
        CancellationToken cancel
    )
    {
        if (await FindAsync(id, picture, destination, slot, room, list, cancel) is not { } at)
        {
            return Problem.NoCell();
        }

        var bad =
            request.Viewports.Count * request.Densities.Count > MostScreens
            || request.Visitors.Count > MostScreens
            || request
                .Viewports.Concat(request.Visitors.Select(one => one.Viewport))
                .Any(viewport => viewport is < 1 or > ViewportRanges.Widest)
            || request.Densities.Concat(request.Visitors.Select(one => one.Density)).Any(density => density is <= 0 or > Density.Most)
            || request.Visitors.Any(one => one.Share is not (>= 0 and <= 1e9));
        return bad
            ? Problem.Of(StatusCodes.Status400BadRequest, "bad-viewport", JobTexts.ViewportsMustBeWholeCSSPixels(Density.Most, MostScreens))
            : TypedResults.Ok(await previews.OfAsync(at.Cell, request, cancel));
    }

    // A cell as it would be once some commands were sent.
    private static async Task<(At? At, BoardCell? Cell, ProblemHttpResult? Fault)> UnderAsync(
        Asked asked,
        IReadOnlyList<JobCommand> commands,
        JobRoom room,
        JobList list,
        CancellationToken cancel
    )
    {
        if (await FindAsync(asked.Job, asked.Picture, asked.Destination, asked.Slot, room, list, cancel) is not { } at)
        {
            return (null, null, Problem.NoCell());
        }

        var (decisions, refused) = await room.AheadAsync(at.Board, asked.Picture, commands, cancel);
        return refused is null ? (at, at.Cell.With(decisions!), null) : (at, null, Problem.Of(refused, "$.commands"));
    }

    private readonly record struct Asked(Guid Job, Guid Picture, string Destination, string Slot);

    private static ProblemHttpResult? Fault(BoardCell cell, string descriptor, string? format, int? quality) =>
        cell.Plan.Requests.All(request => request.Plan.Descriptor.ToString() != descriptor)
            ? Problem.Of(
                StatusCodes.Status400BadRequest,
                "no-such-descriptor",
                cell.Plan.Skipped ? JobTexts.ThePictureIsSkippedInThis : JobTexts.TheSlotDoesNotAskFor(descriptor)
            )
        : format is not (null or "jpeg" or "png" or "webp" or "avif")
            ? Problem.Of(StatusCodes.Status400BadRequest, "bad-type", JobTexts.FilesCanBeJpegPngWebp)
        : quality is < 1 or > 100 ? Problem.Of(StatusCodes.Status400BadRequest, "bad-quality", JobTexts.AQualityMustBeAWhole)
        : null;

    private static Core.Planning.VariantPlan PlanAt(BoardCell cell, string descriptor) =>
        cell.Plan.Requests.First(request => request.Plan.Descriptor.ToString() == descriptor).Plan;

    private static PictureFormat? FormatOf(string? word) => word is null ? null : Enum.Parse<PictureFormat>(word, ignoreCase: true);

    private static string NameOf(BoardState state, BoardCell cell, WantedFile wanted, Data.Variants.VariantRow row)
    {
        var file = new NamedFile(
            cell.Picture.Id,
            cell.Place.Destination,
            cell.Slot.Slot,
            wanted.Request.Plan.Descriptor,
            new(row.Width, row.Height),
            row.Format.Ending(),
            row.ContentHash
        );
        return Path.GetFileName(BundleNames.For(state.Job, [file], state.FileNames)[0]);
    }

    private static async Task<At?> FindAsync(
        Guid id,
        Guid picture,
        string destination,
        string slot,
        JobRoom room,
        JobList list,
        CancellationToken cancel
    )
    {
        if (await room.OpenAsync(id, cancel) is not { } board)
        {
            return null;
        }

        var state = board.State;
        return board.Cell(state, picture, $"{destination}/{slot}") is { } cell
            ? new(board, state, cell, await list.StandingsAsync([cell], cancel))
            : null;
    }

    private sealed record At(JobBoard Board, BoardState State, BoardCell Cell, FileStandings Standings);
}

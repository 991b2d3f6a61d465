using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Accounts;
using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Core.Texts;
using Pantomet.Server.Jobs;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Accounts;

/// <summary>After which entry of its history a picture is to stand as it did.</summary>
/// <param name="Entry">The entry.</param>
public sealed record ReturnRequest(long Entry);

/// <summary>Who did what, and when: the log of all, and the history of one picture.</summary>
internal static class ActivityEndpoints
{
    public static void Map(IEndpointRouteBuilder routes)
    {
        routes
            .MapGet("/api/activity", ReadAsync)
            .WithTags("Accounts")
            .WithName("getActivity")
            .WithSummary("Who did what, the newest first, in parts.")
            .NeedsRight(Right.Administer);
        var picture = routes
            .MapGroup("/api/jobs/{id:guid}/pictures/{picture:guid}")
            .WithTags("Jobs")
            .NeedsRight(Right.Look, Right.Edit)
            .ProducesProblem(StatusCodes.Status404NotFound);
        picture
            .MapGet("/history", HistoryAsync)
            .WithName("getPictureHistory")
            .WithSummary("What was done with a picture of the job, who did it and when, the newest first.");
        picture
            .MapPost("/return", ReturnAsync)
            .WithName("returnPicture")
            .WithSummary("Takes a picture back to how it was decided about after an entry of its history; a step that can be undone.")
            .NotLogged();
    }

    private static async Task<Ok<ActivityPage>> ReadAsync(
        ActivityReader reader,
        CancellationToken cancel,
        DateTimeOffset? before = null,
        Guid? job = null,
        string? actor = null
    ) => TypedResults.Ok(await reader.ReadAsync(before?.UtcDateTime, job, actor, cancel));

    private static async Task<Results<Ok<IReadOnlyList<HistoryEntry>>, ProblemHttpResult>> HistoryAsync(
        Guid id,
        Guid picture,
        PictureTimeline timeline,
        CancellationToken cancel
    ) => await timeline.OfAsync(id, picture, cancel) is { } entries ? TypedResults.Ok(entries) : Problem.NoJob();

    private static async Task<Results<Ok<Reached>, ProblemHttpResult>> ReturnAsync(
        Guid id,
        Guid picture,
        ReturnRequest request,
        HttpContext context,
        PictureTimeline timeline,
        CancellationToken cancel
    ) =>
        await timeline.ReturnAsync(id, picture, request.Entry, context.Actor(), cancel) is { } result
            ? TypedResults.Ok(new Reached(result.Sequence))
            : Problem.Of(StatusCodes.Status404NotFound, "no-such-moment", AccountTexts.ThereIsNoWayBackTo);
}

using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Jobs;
using Pantomet.Application.Live;
using Pantomet.Core.Accounts;
using Pantomet.Core.Markup;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Live;

/// <summary>What is to be published.</summary>
/// <param name="Path">One place; null for all of the job.</param>
public sealed record PublishRequest(string? Path);

/// <summary>Publishing a job, and taking it back.</summary>
internal static class PublicationEndpoints
{
    public static void Map(IEndpointRouteBuilder routes)
    {
        var publication = routes
            .MapGroup("/api/jobs/{id:guid}/publication")
            .NeedsRight(Right.Look, Right.Publish)
            .WithTags("Live links")
            .ProducesProblem(StatusCodes.Status404NotFound);
        publication
            .MapGet("/", GetAsync)
            .WithName("getPublication")
            .WithSummary("What is published of the job, compared with the job as it is now.")
            .ProducesProblem(StatusCodes.Status400BadRequest);
        publication
            .MapPost("/", PublishAsync)
            .WithName("publish")
            .WithSummary("Publishes the job as it is now, or one cell of it.")
            .ProducesProblem(StatusCodes.Status409Conflict);
        publication.MapDelete("/", UnpublishAsync).WithName("unpublish").WithSummary("Unpublishes all live links of the job.");
    }

    private static async Task<Results<Ok<PublicationView>, ProblemHttpResult>> GetAsync(
        Guid id,
        string? @base,
        JobRoom room,
        LiveLinkStore store,
        PublicationReader publications,
        CancellationToken cancel
    )
    {
        if (!BaseAddress.TryParse(@base ?? "", out var address, out var error))
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-address", $"{char.ToUpperInvariant(error![0])}{error[1..]}.", "base");
        }

        return await room.OpenAsync(id, cancel) is { } board
            ? TypedResults.Ok(await publications.OfAsync(board, address.Length > 0 ? address : "/", cancel))
            : Problem.NoJob();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> PublishAsync(
        Guid id,
        PublishRequest request,
        JobRoom room,
        Publishing publishing,
        CancellationToken cancel
    )
    {
        if (await room.OpenAsync(id, cancel) is not { } board)
        {
            return Problem.NoJob();
        }

        return await publishing.PublishAsync(board, request.Path, cancel)
            ? TypedResults.NoContent()
            : Problem.Of(
                StatusCodes.Status409Conflict,
                "nothing-to-publish",
                request.Path is null ? JobTexts.TheJobHasNoFileTo : JobTexts.ThisPlaceIsNotInThe
            );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> UnpublishAsync(
        Guid id,
        Publishing publishing,
        CancellationToken cancel
    ) =>
        await publishing.UnpublishAsync(id, cancel)
            ? TypedResults.NoContent()
            : Problem.Of(StatusCodes.Status404NotFound, "not-published", JobTexts.ThisJobIsNotPublished);
}

using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Accounts;
using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Texts;
using Pantomet.Data.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Accounts;

/// <summary>A link for a guest.</summary>
/// <param name="Name">For whom it is.</param>
/// <param name="Days">For how many days it works.</param>
public sealed record GuestLinkRequest(string Name, int Days = 14);

/// <summary>A comment at a cell.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
/// <param name="Text">What is said; may be empty where the cell is accepted.</param>
/// <param name="Accepts">True to accept the cell: the reasons that are to review are found good.</param>
public sealed record CommentRequest(Guid Picture, string Slot, string Text = "", bool Accepts = false);

/// <summary>Whether a comment is resolved.</summary>
/// <param name="Resolved">True when it was.</param>
public sealed record ResolvedRequest(bool Resolved);

/// <summary>What people who do not work in a job say about it: guests by a link, and comments.</summary>
internal static class GuestEndpoints
{
    private const int LongestGuest = 90;

    public static void Map(IEndpointRouteBuilder routes)
    {
        var job = routes
            .MapGroup("/api/jobs/{id:guid}")
            .WithTags("Jobs")
            .ProducesProblem(StatusCodes.Status400BadRequest)
            .ProducesProblem(StatusCodes.Status404NotFound);
        job.MapGet("/guests", ListAsync).WithName("listGuestLinks").WithSummary("The links of guests of a job.").NeedsRight(Right.Publish);
        job.MapPost("/guests", InviteAsync)
            .WithName("inviteGuest")
            .WithSummary("Makes a link by which a guest sees this job, comments and accepts; it is shown once.")
            .NeedsRight(Right.Publish);
        job.MapDelete("/guests/{link:guid}", RevokeAsync)
            .WithName("revokeGuestLink")
            .WithSummary("Revokes a guest's link; whoever came by it is out.")
            .NeedsRight(Right.Publish);
        job.MapGet("/comments", CommentsAsync)
            .WithName("listComments")
            .WithSummary("The comments of a job, the oldest first.")
            .NeedsRight(Right.Look)
            .AlsoForGuests();
        job.MapPost("/comments", CommentAsync)
            .WithName("comment")
            .WithSummary("Comments at a cell, accepts it, or both.")
            .NeedsRight(Right.Comment)
            .AlsoForGuests();
        job.MapPut("/comments/{comment:guid}", ResolveAsync)
            .WithName("resolveComment")
            .WithSummary("Says that a comment is resolved, or open again.")
            .NeedsRight(Right.Edit);
    }

    private static async Task<Ok<IReadOnlyList<LinkView>>> ListAsync(Guid id, LinkStore links, CancellationToken cancel) =>
        TypedResults.Ok(await links.ListAsync(id, cancel));

    private static async Task<Results<Ok<LinkMade>, ProblemHttpResult>> InviteAsync(
        Guid id,
        GuestLinkRequest request,
        HttpContext context,
        JobRoom room,
        LinkStore links,
        ServerOptions options,
        CancellationToken cancel
    )
    {
        if (!options.PeopleSignIn)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "no-accounts", AccountTexts.NobodySignsInHere);
        }

        if (await room.OpenAsync(id, cancel) is null)
        {
            return Problem.NoJob();
        }

        if (AccountNames.Fault(request.Name) is { } fault)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-name", fault, "$.name");
        }

        if (request.Days is < 1 or > LongestGuest)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-days", AccountTexts.ALinkLasts(LongestGuest), "$.days");
        }

        context.IsAbout(request.Name.Trim());
        return TypedResults.Ok(
            await PeopleEndpoints.MakeAsync(
                context,
                links,
                new()
                {
                    Hash = "",
                    Kind = LinkKind.Guest,
                    Name = request.Name.Trim(),
                    Role = Role.Viewer,
                    JobId = id,
                },
                TimeSpan.FromDays(request.Days),
                cancel
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RevokeAsync(
        Guid id,
        Guid link,
        LinkStore links,
        CancellationToken cancel
    ) =>
        await links.RevokeAsync(link, id, cancel)
            ? TypedResults.NoContent()
            : Problem.Of(StatusCodes.Status404NotFound, "no-such-link", AccountTexts.ThisLinkDoesNotExist);

    private static async Task<Ok<IReadOnlyList<CommentView>>> CommentsAsync(Guid id, CommentStore comments, CancellationToken cancel) =>
        TypedResults.Ok(await comments.ListAsync(id, cancel));

    private static async Task<Results<Ok<CommentView>, ProblemHttpResult>> CommentAsync(
        Guid id,
        CommentRequest request,
        HttpContext context,
        JobRoom room,
        CommentStore comments,
        CancellationToken cancel
    )
    {
        if (await room.OpenAsync(id, cancel) is not { } board)
        {
            return Problem.NoJob();
        }

        if (board.Cell(board.State, request.Picture, request.Slot) is null)
        {
            return Problem.NoCell();
        }

        var text = request.Text.Trim();
        if (text.Length > CommentStore.LongestText || (text.Length == 0 && !request.Accepts))
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-text", AccountTexts.ACommentNeeds(CommentStore.LongestText), "$.text");
        }

        if (request.Accepts)
        {
            var accepted = await room.SendAsync(id, new([new Accept(request.Picture, request.Slot)], Actor: context.Actor()), cancel);
            if (accepted?.Refused is { } refused)
            {
                return Problem.Of(refused, place: null);
            }
        }

        if (await comments.AddAsync(id, request.Picture, request.Slot, context.Actor(), text, request.Accepts, cancel) is { } made)
        {
            room.TellOfComments(board);
            return TypedResults.Ok(made);
        }

        return Problem.Of(StatusCodes.Status409Conflict, "too-many", AccountTexts.TheJobHasAllComments(CommentStore.MostOfJob));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ResolveAsync(
        Guid id,
        Guid comment,
        ResolvedRequest request,
        JobRoom room,
        CommentStore comments,
        CancellationToken cancel
    )
    {
        if (!await comments.ResolveAsync(id, comment, request.Resolved, cancel))
        {
            return Problem.Of(StatusCodes.Status404NotFound, "no-such-comment", AccountTexts.ThisCommentDoesNotExist);
        }

        if (await room.OpenAsync(id, cancel) is { } board)
        {
            room.TellOfComments(board);
        }

        return TypedResults.NoContent();
    }
}

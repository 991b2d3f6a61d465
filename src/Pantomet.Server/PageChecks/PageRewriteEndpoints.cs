using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Core.Accounts;
using Pantomet.Core.Texts;
using Pantomet.Data.Pages;
using Pantomet.PageChecks;
using Pantomet.PageChecks.Rewriting;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.PageChecks;

/// <summary>The page that a job was made of, with the job's files in it.</summary>
internal static class PageRewriteEndpoints
{
    /// <summary>Adds the addresses.</summary>
    public static void Map(IEndpointRouteBuilder routes)
    {
        var page = routes
            .MapGroup("/api/jobs/{id:guid}/page")
            .NeedsRight(Right.CheckPages)
            .WithTags("Handing over")
            .ProducesProblem(StatusCodes.Status404NotFound);
        page.MapGet("/", OneAsync)
            .WithName("getPageOfJob")
            .WithSummary(
                "The page that the job was made from, and how far it is rewritten with the job's files; nothing if the job was made from no page."
            );
        page.MapPost("/rewrite", RewriteAsync)
            .WithName("rewritePageOfJob")
            .WithSummary("Rewrites the page: replaces its pictures by the job's files, and compares it with what it was.")
            .ProducesProblem(StatusCodes.Status409Conflict);
        page.MapPost("/stop", StopAsync).WithName("stopRewritingPage").WithSummary("Stops rewriting the page.");
        page.MapGet("/rewritten.zip", ZipAsync)
            .WithName("getRewrittenPage")
            .Logged()
            .WithSummary("The rewritten page with its files, as a ZIP.");
        page.MapGet("/pictures/{viewport:int}/{side}", PictureAsync)
            .WithName("getRewrittenPagePicture")
            .WithSummary("What the page looks like on a screen of a width: before, after, or the difference; a PNG at density 1.");
    }

    private static async Task<Results<Ok<PageRewriteView>, NoContent>> OneAsync(
        Guid id,
        PageRewriteStore mends,
        PageChecker checker,
        CancellationToken cancel
    ) =>
        await mends.OneAsync(id, cancel) is { } row && await mends.ViewAsync(row, checker.ProgressOf(id), cancel) is { } view
            ? TypedResults.Ok(view)
            : TypedResults.NoContent();

    private static async Task<Results<NoContent, ProblemHttpResult>> RewriteAsync(
        Guid id,
        PageRewriteStore mends,
        PageChecker checker,
        CancellationToken cancel
    )
    {
        if (await mends.OneAsync(id, cancel) is null)
        {
            return None();
        }

        if (await mends.AskAsync(id, cancel) is { } fault)
        {
            return Problem.Of(StatusCodes.Status409Conflict, "cannot-mend", fault);
        }

        checker.Ring();
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> StopAsync(Guid id, PageRewriteStore mends, PageChecker checker)
    {
        var known = await mends.ChangeAsync(
            id,
            row => row.State = row.State == PageCheckState.Waiting ? PageCheckState.Stopped : row.State
        );
        await checker.StopAsync(id);
        return known ? TypedResults.NoContent() : None();
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> ZipAsync(
        Guid id,
        PageRewriteStore mends,
        CancellationToken cancel
    ) =>
        await KeptAsync(id, MendedNames.Zip, mends, cancel) is { } path
            ? TypedResults.PhysicalFile(path, "application/zip", "mended-page.zip")
            : None();

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> PictureAsync(
        Guid id,
        int viewport,
        string side,
        PageRewriteStore mends,
        CancellationToken cancel
    )
    {
        var name = side switch
        {
            "before" => MendedNames.Before(viewport),
            "after" => MendedNames.After(viewport),
            "difference" => MendedNames.Difference(viewport),
            _ => null,
        };
        return name is not null && await KeptAsync(id, name, mends, cancel) is { } path
            ? TypedResults.PhysicalFile(path, "image/png")
            : None();
    }

    private static async Task<string?> KeptAsync(Guid id, string name, PageRewriteStore mends, CancellationToken cancel)
    {
        if (await mends.OneAsync(id, cancel) is not { State: PageCheckState.Done } row)
        {
            return null;
        }

        var path = Path.Combine(mends.FolderOf(row), name);
        return File.Exists(path) ? path : null;
    }

    private static ProblemHttpResult None() => Problem.Of(StatusCodes.Status404NotFound, "no-such-page", PageTexts.ThisJobWasNotMadeFrom);
}

using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Background;
using Pantomet.Core.Accounts;
using Pantomet.Core.Facts;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Texts;
using Pantomet.Data.Pages;
using Pantomet.PageChecks;
using Pantomet.Server.Accounts;
using Pantomet.Server.Door;
using Pantomet.Server.Problems;

namespace Pantomet.Server.PageChecks;

/// <summary>The job that was made of a page.</summary>
/// <param name="Id">Its identity.</param>
internal sealed record JobOfPage(Guid Id);

/// <summary>Pages measured in a browser.</summary>
internal static class PageCheckEndpoints
{
    /// <summary>Adds the addresses.</summary>
    public static void Map(IEndpointRouteBuilder routes)
    {
        var checks = routes.MapGroup("/api/page-checks").NeedsRight(Right.CheckPages).WithTags("page checks");
        checks.MapGet("/", AllAsync).WithName("listPageChecks").WithSummary("All page checks, the newest first.");
        checks
            .MapPost("/", AddAsync)
            .WithName("addPageCheck")
            .WithSummary(
                "Adds a page check. A page with an address is measured at once, a page of files when its files are there and it is started."
            );
        checks.MapGet("/{id:guid}", OneAsync).WithName("getPageCheck").WithSummary("A page check with what was measured.");
        checks
            .MapPut("/{id:guid}/files", PutAsync)
            .Accepts<byte[]>("application/octet-stream")
            .WithName("putPageFile")
            .NotLogged()
            .RequireRateLimiting(RateLimits.Uploads)
            .WithSummary("Adds one file of a page; the body is the file. A ZIP or a saved page can be the only one.");
        checks.MapPost("/{id:guid}/start", StartAsync).WithName("startPageCheck").WithSummary("Measures a page, or measures it again.");
        checks.MapPost("/{id:guid}/stop", StopAsync).WithName("stopPageCheck").WithSummary("Stops measuring a page.");
        checks
            .MapPost("/{id:guid}/job", JobAsync)
            .WithName("makeJobOfPage")
            .WithSummary(
                "Makes a destination with a slot for each kind of place on the page, and a job of its pictures in the frames it shows."
            );
        checks.MapDelete("/{id:guid}", RemoveAsync).WithName("deletePageCheck").WithSummary("Removes a page check, with its files.");
        checks
            .MapGet("/{id:guid}/pages/{viewport:int}", ShotAsync)
            .WithName("getPagePicture")
            .WithSummary("What the page looks like on a screen of a width, a PNG at density 1.");
        checks
            .MapGet("/{id:guid}/elements/{viewport:int}", ElementsAsync)
            .WithName("getPageElements")
            .WithSummary("The elements of the page on a screen of a width, with the room that each has for a picture.");
        checks
            .MapGet("/{id:guid}/files/{**path}", FileAsync)
            .WithName("getPageCheckFile")
            .WithSummary("A picture that the page loads, or one that was made for it, by its path in the report.");
    }

    private static async Task<IReadOnlyList<PageCheckView>> AllAsync(PageCheckStore store, PageChecker checker, CancellationToken cancel) =>
        [.. (await store.AllAsync(cancel)).Select(row => PageCheckStore.ViewOf(row, checker.ProgressOf(row.Id)))];

    private static async Task<Results<Ok<PageCheckView>, ProblemHttpResult>> AddAsync(
        PageDraft draft,
        PageCheckStore store,
        PageChecker checker,
        CancellationToken cancel
    )
    {
        var (row, fault) = await store.AddAsync(draft, cancel);
        if (row is null)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-page", fault!);
        }

        checker.Ring();
        return TypedResults.Ok(PageCheckStore.ViewOf(row, null));
    }

    private static async Task<Results<Ok<PageCheckDetail>, ProblemHttpResult>> OneAsync(
        Guid id,
        PageCheckStore store,
        PageChecker checker,
        CancellationToken cancel
    ) =>
        await store.OneAsync(id, cancel) is { } row
            ? TypedResults.Ok(new PageCheckDetail(PageCheckStore.ViewOf(row, checker.ProgressOf(id)), await store.ReportAsync(row, cancel)))
            : None();

    private static async Task<Results<NoContent, ProblemHttpResult>> PutAsync(
        Guid id,
        string path,
        HttpRequest request,
        PageCheckStore store,
        CancellationToken cancel
    ) =>
        await store.OneAsync(id, cancel) is not { } row ? None()
        : row.State != PageCheckState.Receiving
            ? Problem.Of(StatusCodes.Status409Conflict, "not-receiving", PageTexts.AllFilesOfThisPageWere)
        : await store.PutAsync(id, path, request.Body, cancel) is { } fault
            ? Problem.Of(StatusCodes.Status422UnprocessableEntity, "bad-page-file", fault)
        : TypedResults.NoContent();

    private static async Task<Results<NoContent, ProblemHttpResult>> StartAsync(
        Guid id,
        PageCheckStore store,
        PageChecker checker,
        CancellationToken cancel
    )
    {
        var known = await store.ChangeAsync(id, row => (row.State, row.Trouble) = (PageCheckState.Waiting, null), cancel);
        checker.Ring();
        return known ? TypedResults.NoContent() : None();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> StopAsync(
        Guid id,
        PageCheckStore store,
        PageChecker checker,
        CancellationToken cancel
    )
    {
        var known = await store.ChangeAsync(
            id,
            row => row.State = row.State == PageCheckState.Waiting ? PageCheckState.Stopped : row.State,
            cancel
        );
        await checker.StopAsync(id);
        return known ? TypedResults.NoContent() : None();
    }

    private static async Task<Results<Ok<JobOfPage>, ProblemHttpResult>> JobAsync(
        Guid id,
        PageCheckStore store,
        PageJob job,
        CancellationToken cancel
    )
    {
        if (await store.OneAsync(id, cancel) is not { } row)
        {
            return None();
        }

        var (made, fault) = await job.MakeAsync(row, cancel);
        return made is { } known && fault is null
            ? TypedResults.Ok(new JobOfPage(known))
            : Problem.Of(StatusCodes.Status409Conflict, "no-job-of-page", fault!);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(
        Guid id,
        PageCheckStore store,
        PageChecker checker,
        CancellationToken cancel
    )
    {
        await checker.StopAsync(id);
        return await store.RemoveAsync(id, cancel) ? TypedResults.NoContent() : None();
    }

    private static Results<PhysicalFileHttpResult, ProblemHttpResult> ShotAsync(Guid id, int viewport, PageCheckStore store) =>
        Kept(store, id, PageRun.ShotName(viewport)) is { } path ? TypedResults.PhysicalFile(path, "image/png") : None();

    private static async Task<Results<Ok<IReadOnlyList<PageElement>>, ProblemHttpResult>> ElementsAsync(
        Guid id,
        int viewport,
        PageCheckStore store,
        CancellationToken cancel
    ) =>
        Kept(store, id, PageRun.ElementsName(viewport)) is { } path
            ? TypedResults.Ok(WorkLines.Read<IReadOnlyList<PageElement>>(await File.ReadAllTextAsync(path, cancel)))
            : None();

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> FileAsync(
        Guid id,
        string path,
        PageCheckStore store,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        if (Kept(store, id, path) is not { } full)
        {
            return None();
        }

        var head = new byte[FileSignature.HeadLength];
        await using var file = File.OpenRead(full);
        var read = await file.ReadAtLeastAsync(head, head.Length, throwOnEndOfStream: false, cancel);
        if (FileSignature.Recognise(head.AsSpan(0, read), out _) is not { } format)
        {
            return None();
        }

        // Drawn as a picture it runs nothing; opened as a page of its own it must not either.
        response.Headers.ContentSecurityPolicy = Gatekeeper.PolicyOfFiles;
        return TypedResults.PhysicalFile(full, format.MediaType());
    }

    // What lies in the folder of what came of a check, and nowhere else.
    private static string? Kept(PageCheckStore store, Guid id, string path)
    {
        var root = store.CheckOf(id);
        var full = Path.GetFullPath(Path.Combine(root, path));
        return full.StartsWith(root + Path.DirectorySeparatorChar, StringComparison.Ordinal) && File.Exists(full) ? full : null;
    }

    private static ProblemHttpResult None() =>
        Problem.Of(StatusCodes.Status404NotFound, "no-such-page-check", PageTexts.ThisPageCheckOrThisFile);
}

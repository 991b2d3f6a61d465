using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Destinations;
using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Server.Accounts;
using Pantomet.Server.Door;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Destinations;

/// <summary>Marks and fonts that rules name.</summary>
internal static class SideFileEndpoints
{
    /// <summary>Adds the addresses.</summary>
    public static void Map(IEndpointRouteBuilder routes)
    {
        var files = routes.MapGroup("/api/side-files").NeedsRight(Right.Look, Right.Edit).WithTags("destinations");
        files
            .MapGet("/", async (SideFileStore store, CancellationToken cancel) => await store.AllAsync(cancel))
            .WithName("listSideFiles")
            .WithSummary("The logos and fonts that rules can name.");
        files.MapGet("/{name}", FileAsync).WithName("getSideFile").WithSummary("The content of a logo or a font.");
        files
            .MapPut("/{name}", AddAsync)
            .Accepts<byte[]>("application/octet-stream")
            .WithName("putSideFile")
            .WithSummary("Adds a logo (SVG, PNG) or a font (TTF, OTF), or replaces the one of this name; the body is the file.");
        files.MapDelete("/{name}", RemoveAsync).WithName("deleteSideFile").WithSummary("Removes a logo or a font.");
    }

    private static async Task<Results<PhysicalFileHttpResult, NotFound>> FileAsync(
        string name,
        SideFileStore store,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        if (await store.PathOfAsync(name, cancel) is not { } path)
        {
            return TypedResults.NotFound();
        }

        // Drawn as a picture it runs nothing; opened as a page of its own it must not either.
        response.Headers.ContentSecurityPolicy = Gatekeeper.PolicyOfFiles;
        response.Headers.CacheControl = "no-cache";
        return TypedResults.PhysicalFile(
            path,
            Path.GetExtension(name).ToLowerInvariant() switch
            {
                ".svg" => "image/svg+xml",
                ".png" => "image/png",
                ".otf" => "font/otf",
                _ => "font/ttf",
            }
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AddAsync(
        string name,
        HttpRequest request,
        SideFileStore store,
        Writer writer,
        OpenJobs jobs,
        JobLayout layout,
        CancellationToken cancel
    )
    {
        if (await store.AddAsync(name, request.Body, writer, jobs, cancel) is { } fault)
        {
            return Problem.Of(StatusCodes.Status422UnprocessableEntity, "bad-side-file", fault);
        }

        // Whoever asked may be gone by now: what follows from the file is carried out.
        await layout.LayOutAsync(CancellationToken.None);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound>> RemoveAsync(
        string name,
        SideFileStore store,
        Writer writer,
        OpenJobs jobs,
        JobLayout layout,
        CancellationToken cancel
    )
    {
        if (!await store.RemoveAsync(name, writer, jobs, cancel))
        {
            return TypedResults.NotFound();
        }

        await layout.LayOutAsync(CancellationToken.None);
        return TypedResults.NoContent();
    }
}

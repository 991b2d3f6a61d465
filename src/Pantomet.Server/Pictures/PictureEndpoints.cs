using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Facts;
using Pantomet.Data;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Pictures;

/// <summary>The library: reading in, looking at, the originals untouched.</summary>
internal static class PictureEndpoints
{
    public static void Map(IEndpointRouteBuilder routes)
    {
        var pictures = routes.MapGroup("/api/pictures").WithTags("Pictures");
        pictures.MapPost("/", TakeAsync).WithName("readPictureIn").WithSummary("Reads one file in: its bytes are the body, its name stands in the query.")
            .Accepts<IFormFile>("application/octet-stream")
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status413PayloadTooLarge).ProducesProblem(StatusCodes.Status422UnprocessableEntity);
        pictures.MapGet("/", ListAsync).WithName("listPictures").WithSummary("All pictures, the newest first.");
        pictures.MapGet("/{id:guid}", GetAsync).WithName("getPicture").WithSummary("One picture.").ProducesProblem(StatusCodes.Status404NotFound);
        pictures.MapGet("/{id:guid}/preview/{side:int}", PreviewAsync).WithName("getPreview").WithSummary("A small copy for the screen: 480 or 1800 px on the longest side.")
            .ProducesProblem(StatusCodes.Status404NotFound);
        pictures.MapGet("/{id:guid}/original", OriginalAsync).WithName("getOriginal").WithSummary("The original, byte for byte.").ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<Results<Created<Intake>, Ok<Intake>, ProblemHttpResult>> TakeAsync(
        string? name, HttpRequest request, PictureIntake intake, CancellationToken cancel)
    {
        var result = await intake.TakeAsync(name, request.Body, request.ContentLength, cancel);
        if (result.Row is not { } row)
        {
            return Problem.Of(result.Status, result.Code!, result.Refusal!);
        }

        var view = PictureView.Of(row);
        return result.AlreadyHere ? TypedResults.Ok(new Intake(view, true)) : TypedResults.Created($"/api/pictures/{row.Id}", new Intake(view, false));
    }

    private static async Task<Ok<IReadOnlyList<PictureView>>> ListAsync(PantometDb db, CancellationToken cancel)
    {
        var rows = await db.Pictures.AsNoTracking().OrderByDescending(row => row.AddedAt).ThenBy(row => row.Name).ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<PictureView>>([.. rows.Select(PictureView.Of)]);
    }

    private static async Task<Results<Ok<PictureView>, ProblemHttpResult>> GetAsync(Guid id, PantometDb db, CancellationToken cancel) =>
        await db.Pictures.FindAsync([id], cancel) is { } row ? TypedResults.Ok(PictureView.Of(row)) : Problem.NoPicture();

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> PreviewAsync(
        Guid id, int side, PantometDb db, PreviewMaker previews, HttpResponse response, CancellationToken cancel)
    {
        if (!PreviewMaker.Knows(side))
        {
            return Problem.Of(StatusCodes.Status404NotFound, "no-such-preview", $"Previews are {PreviewMaker.Small} or {PreviewMaker.Large} px on the longest side.");
        }

        if (await db.Pictures.FindAsync([id], cancel) is not { } row)
        {
            return Problem.NoPicture();
        }

        if (await previews.MakeAsync(row, side, cancel) is not { } path)
        {
            return Problem.Of(StatusCodes.Status404NotFound, "no-preview", "This picture cannot be drawn.");
        }

        response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.PhysicalFile(path, "image/webp");
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> OriginalAsync(
        Guid id, PantometDb db, DataFolder folder, CancellationToken cancel) =>
        await db.Pictures.FindAsync([id], cancel) is { } row
            ? TypedResults.PhysicalFile(folder.Originals.PathOf(row.ContentHash), row.Format.MediaType(), row.Name)
            : Problem.NoPicture();
}

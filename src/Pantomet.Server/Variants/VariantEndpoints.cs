using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Net.Http.Headers;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Data;
using Pantomet.Server.Destinations;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Variants;

/// <summary>Files made from pictures.</summary>
internal static class VariantEndpoints
{
    public static void Map(IEndpointRouteBuilder routes)
    {
        var variants = routes.MapGroup("/api/variants").WithTags("Variants");
        variants.MapPost("/", MakeAsync).WithName("makeVariant").WithSummary("Makes one variant, or finds it again.")
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound);
        variants.MapGet("/{id}/file", FileAsync).WithName("getVariantFile").WithSummary("The file, byte for byte; as a download when asked so.")
            .ProducesProblem(StatusCodes.Status404NotFound);
        variants.MapGet("/{id}/reference", ReferenceAsync).WithName("getVariantReference").WithSummary("The same pixels without loss, as PNG.")
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<Results<Ok<VariantView>, ProblemHttpResult>> MakeAsync(
        VariantWish wish, PantometDb db, RuleShelf shelf, WeighingBench bench, CancellationToken cancel)
    {
        if (await db.Pictures.FindAsync([wish.PictureId], cancel) is not { } picture)
        {
            return Problem.NoPicture();
        }

        if (await shelf.FindAsync(wish.Destination, wish.Slot, cancel) is not { } place)
        {
            return Problem.NoSlot(wish.Destination, wish.Slot);
        }

        if (place.Slot.Densities.All(density => density.Value != wish.Density))
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "no-such-density", $"The slot asks for {string.Join(", ", place.Slot.Densities)}, not for {wish.Density}x.");
        }

        if (wish.Quality is < 1 or > 100)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-quality", "A quality is a whole number from 1 to 100.");
        }

        PictureFormat? format = null;
        if (wish.Format is not null)
        {
            if (wish.Format is not ("jpeg" or "png" or "webp" or "avif"))
            {
                return Problem.Of(StatusCodes.Status400BadRequest, "bad-type", "The types that are written here are jpeg, png, webp and avif.");
            }

            format = Enum.Parse<PictureFormat>(wish.Format, ignoreCase: true);
        }

        return TypedResults.Ok(await bench.MakeAsync(picture, place.Destination, place.Slot, new Density(wish.Density), format, wish.Quality, cancel));
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> FileAsync(
        string id, bool? download, PantometDb db, DataFolder folder, HttpResponse response, CancellationToken cancel)
    {
        if (await db.Variants.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, cancel) is not { } row || !folder.Variants.Holds(row.ContentHash))
        {
            return Problem.NoVariant();
        }

        response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.PhysicalFile(
            folder.Variants.PathOf(row.ContentHash), row.Format.MediaType(), download == true ? row.FileName : null, entityTag: new EntityTagHeaderValue($"\"{row.ContentHash}\""));
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> ReferenceAsync(
        string id, PantometDb db, WeighingBench bench, CancellationToken cancel)
    {
        if (await db.Variants.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, cancel) is not { } row
            || await bench.ReferenceAsync(row, cancel) is not { } png)
        {
            return Problem.NoVariant();
        }

        return TypedResults.File(png, "image/png");
    }
}

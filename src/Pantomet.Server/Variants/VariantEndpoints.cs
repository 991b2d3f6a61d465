using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Microsoft.Net.Http.Headers;
using Pantomet.Application.Jobs;
using Pantomet.Application.Variants;
using Pantomet.Core.Accounts;
using Pantomet.Core.Facts;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Data.Variants;
using Pantomet.Server.Accounts;
using Pantomet.Server.Door;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Variants;

/// <summary>Files made from pictures.</summary>
internal static class VariantEndpoints
{
    public static void Map(IEndpointRouteBuilder routes)
    {
        var variants = routes
            .MapGroup("/api/variants/{id}")
            .NeedsRight(Right.Look)
            .WithTags("Variants")
            .ProducesProblem(StatusCodes.Status404NotFound);
        variants
            .MapGet("/file", FileAsync)
            .WithName("getVariantFile")
            .AlsoForGuests()
            .WithSummary("The file, byte for byte; as a download where a name is given.");
        variants
            .MapGet("/small", SmallAsync)
            .WithName("getVariantSmall")
            .AlsoForGuests()
            .WithSummary("A small copy of the file for the screen.");
        variants.MapGet("/reference", ReferenceAsync).WithName("getVariantReference").WithSummary("The same pixels uncompressed, as PNG.");
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> FileAsync(
        string id,
        string? name,
        VariantQueries variants,
        VariantStore store,
        JobFiles files,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        if (await variants.OneAsync(id, cancel) is not { } row)
        {
            return Problem.NoVariant();
        }

        if (await store.ReadAsync(row, cancel) is not { } bytes)
        {
            // It is made again for whoever wants it; nobody gets a damaged one meanwhile.
            await files.ForgetAsync([id], CancellationToken.None);
            return Problem.Of(StatusCodes.Status404NotFound, "damaged", JobTexts.ThisFileWasMissingOrDamaged);
        }

        Keep(response);
        var download = name is { Length: > 0 and < 300 } && !name.Any(char.IsControl) ? Path.GetFileName(name) : null;
        var tag = new EntityTagHeaderValue($"\"{row.ContentHash}\"");
        return TypedResults.File(bytes, row.Format.MediaType(), download, enableRangeProcessing: true, entityTag: tag);
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> SmallAsync(
        string id,
        VariantQueries variants,
        DataFolder folder,
        VariantStore store,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        if (await FindAsync(id, variants, folder, cancel) is not { } row)
        {
            return Problem.NoVariant();
        }

        Keep(response);
        var path = store.SmallOf(row);
        return TypedResults.PhysicalFile(path, VariantStore.IsSmallCopy(path) ? "image/webp" : row.Format.MediaType());
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> ReferenceAsync(
        string id,
        VariantQueries variants,
        PictureQueries pictures,
        DataFolder folder,
        VariantStore store,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        if (
            await FindAsync(id, variants, folder, cancel) is not { } row
            || await pictures.OneAsync(row.PictureId, cancel) is not { } picture
            || await store.ReferenceAsync(row, picture, cancel) is not { } png
        )
        {
            return Problem.NoVariant();
        }

        Keep(response);
        return TypedResults.File(png, "image/png");
    }

    // An id is a hash of all that the file depends on.
    private static void Keep(HttpResponse response)
    {
        response.Headers.CacheControl = "private, max-age=31536000, immutable";
        response.Headers.ContentSecurityPolicy = Gatekeeper.PolicyOfFiles;
    }

    private static async Task<VariantRow?> FindAsync(string id, VariantQueries variants, DataFolder folder, CancellationToken cancel) =>
        await variants.OneAsync(id, cancel) is { } row && await folder.Variants.IsWholeAsync(row.ContentHash, cancel) ? row : null;
}

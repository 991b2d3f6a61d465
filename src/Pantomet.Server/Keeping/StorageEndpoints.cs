using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Keeping;
using Pantomet.Core.Accounts;
using Pantomet.Core.Texts;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Keeping;

/// <summary>How many bytes of files that no job needs are kept.</summary>
/// <param name="MostUnwanted">Bytes, from 0.</param>
public sealed record StorageRequest(long MostUnwanted);

/// <summary>What was restored.</summary>
/// <param name="Originals">How many originals are whole again.</param>
public sealed record RestoredOriginals(int Originals);

/// <summary>What lies in the data folder, and how much of it is kept.</summary>
internal static class StorageEndpoints
{
    public static void Map(IEndpointRouteBuilder routes)
    {
        var storage = routes.MapGroup("/api/storage").NeedsRight(Right.Administer).WithTags("Storage");
        storage.MapGet("/", LookAsync).WithName("getStorage").WithSummary("How much the data folder weighs, and what for.");
        storage
            .MapPut("/", SetAsync)
            .WithName("setStorage")
            .WithSummary("Sets how many bytes of files that no job needs are kept; more is deleted at once.")
            .ProducesProblem(StatusCodes.Status400BadRequest);
        storage
            .MapPost("/collect", CollectAsync)
            .WithName("collectUnwanted")
            .WithSummary("Deletes all files that no job needs; each is made again when it is needed.");
        storage
            .MapPost("/check", Check)
            .WithName("checkStorage")
            .WithSummary("Reads every stored file now and compares it with its checksum; damaged files of jobs are made again.");
        storage
            .MapPost("/originals", RestoreAsync)
            .WithName("restoreOriginals")
            .WithSummary("Restores missing and damaged originals from the server's backups.");
    }

    private static async Task<Ok<StorageView>> LookAsync(UnusedFileCollector collector, CancellationToken cancel) =>
        TypedResults.Ok(await collector.LookAsync(cancel));

    private static async Task<Results<Ok<StorageView>, ProblemHttpResult>> SetAsync(
        StorageRequest request,
        UnusedFileCollector collector,
        CancellationToken cancel
    )
    {
        if (request.MostUnwanted is < 0 or > UnusedFileCollector.LargestMost)
        {
            return Problem.Of(
                StatusCodes.Status400BadRequest,
                "wrong-amount",
                PictureTexts.MostUnwantedTheAmountMustBeFrom(UnusedFileCollector.LargestMost)
            );
        }

        await collector.SetMostAsync(request.MostUnwanted, cancel);
        await collector.CollectAsync(null, cancel);
        return TypedResults.Ok(await collector.LookAsync(cancel));
    }

    private static NoContent Check(IntegritySweep sweep)
    {
        sweep.CheckNow();
        return TypedResults.NoContent();
    }

    private static async Task<Ok<RestoredOriginals>> RestoreAsync(IntegritySweep sweep, CancellationToken cancel) =>
        TypedResults.Ok(new RestoredOriginals(await sweep.RestoreOriginalsAsync(cancel)));

    private static async Task<Ok<Collected>> CollectAsync(UnusedFileCollector collector, CancellationToken cancel) =>
        TypedResults.Ok(await collector.CollectAsync(0, cancel));
}

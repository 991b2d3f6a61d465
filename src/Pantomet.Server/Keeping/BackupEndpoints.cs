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

/// <summary>The backups of this server: made by themselves, or when they are asked for.</summary>
internal static class BackupEndpoints
{
    public static void Map(IEndpointRouteBuilder routes)
    {
        var backups = routes.MapGroup("/api/backups").NeedsRight(Right.Administer).WithTags("Storage");
        backups
            .MapGet("/", LookAsync)
            .WithName("listBackups")
            .WithSummary("The backups that there are, how far the one is that is being made, and when the next is due.");
        backups.MapPost("/", Take).WithName("makeBackup").WithSummary("Makes a backup now; it is made while the server works.");
        backups
            .MapPost("/stop", Stop)
            .WithName("stopBackup")
            .WithSummary("Stops the backup that is being made; those that there are stay.");
        backups
            .MapPut("/settings", SetAsync)
            .WithName("setBackups")
            .WithSummary("Sets how often backups are made by themselves, and how many are kept.")
            .ProducesProblem(StatusCodes.Status400BadRequest);
    }

    private static async Task<Ok<BackupView>> LookAsync(BackupKeeper keeper, CancellationToken cancel) =>
        TypedResults.Ok(await keeper.ViewAsync(cancel));

    private static NoContent Take(BackupKeeper keeper)
    {
        keeper.Ask();
        return TypedResults.NoContent();
    }

    private static NoContent Stop(BackupKeeper keeper)
    {
        keeper.Stop();
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<BackupView>, ProblemHttpResult>> SetAsync(
        BackupSettings settings,
        BackupKeeper keeper,
        CancellationToken cancel
    )
    {
        if (settings.Kept is < 1 or > BackupSettings.MostKept)
        {
            return Problem.Of(
                StatusCodes.Status400BadRequest,
                "wrong-amount",
                BackupTexts.KeepFromOneTo(BackupSettings.MostKept),
                "$.kept"
            );
        }

        await keeper.SetAsync(settings, cancel);
        return TypedResults.Ok(await keeper.ViewAsync(cancel));
    }
}

using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Bundles;
using Pantomet.Application.Destinations;
using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Core.Facts;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Deliveries;
using Pantomet.Server.Accounts;
using Pantomet.Server.Bundles;
using Pantomet.Server.Door;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Deliveries;

/// <summary>The rule by which what survives best is made.</summary>
/// <param name="Slot">The slot's address.</param>
/// <param name="Draft">Its rule.</param>
public sealed record SurvivalRule(string Slot, SlotDraft Draft);

/// <summary>A job's files on their way to receivers.</summary>
internal static class ReceiverDeliveryEndpoints
{
    /// <summary>Adds the addresses.</summary>
    public static void Map(IEndpointRouteBuilder routes)
    {
        var job = routes
            .MapGroup("/api/jobs/{id:guid}/deliveries")
            .NeedsRight(Right.Look, Right.UseReceivers)
            .WithTags("Handing over")
            .ProducesProblem(StatusCodes.Status404NotFound);
        job.MapGet("/", AllAsync)
            .WithName("listReceiverDeliveries")
            .WithSummary("Each receiver, the standing of the job's files with it, and what it answered.");
        job.MapGet("/said", SaidAsync)
            .WithName("listAnswers")
            .WithSummary("What receivers answered about the files that the job's cells have now.");
        job.MapPost("/{receiver:guid}", SendAsync)
            .WithName("sendToReceiver")
            .WithSummary("Sends the job's files to a receiver: those that it does not have, and those that changed.")
            .ProducesProblem(StatusCodes.Status409Conflict);
        job.MapPost("/{receiver:guid}/stop", StopAsync)
            .WithName("stopReceiverDelivery")
            .WithSummary("Stops sending; the files that were sent stay there.");
        job.MapGet("/{receiver:guid}/shown", ShownAsync)
            .WithName("getShown")
            .WithSummary("A picture that the receiver shows of the file at a path, fetched from it now.")
            .ProducesProblem(StatusCodes.Status502BadGateway);
        job.MapPost("/{receiver:guid}/survival", TryAsync)
            .WithName("trySurvival")
            .WithSummary("Tries on the test receiver which file it shows best, instead of the one at a path.")
            .ProducesProblem(StatusCodes.Status409Conflict);
        job.MapGet("/{receiver:guid}/survival", SurvivalAsync)
            .WithName("getSurvival")
            .WithSummary("What was tried with the file at a path, and the result; nothing if nothing was tried.");
        job.MapGet("/{receiver:guid}/survival/rule", RuleAsync)
            .WithName("getSurvivalRule")
            .WithSummary("The rule of the file's slot that makes the file which survives best; it is saved as any other rule is.");
    }

    private static async Task<Results<Ok<IReadOnlyList<ReceiverDeliveryView>>, ProblemHttpResult>> AllAsync(
        Guid id,
        JobRoom room,
        BundleReader bundles,
        ReceiverDeliveryStore store,
        ReceiverStore receivers,
        DeliveryWorker worker,
        CancellationToken cancel
    ) =>
        await room.OpenAsync(id, cancel) is not { } board
            ? Problem.NoJob()
            : TypedResults.Ok(
                await store.ViewsAsync(await bundles.OfAsync(board, cancel), await receivers.AllAsync(cancel), worker.ProgressOf, cancel)
            );

    private static async Task<Results<Ok<IReadOnlyList<CellAnswer>>, ProblemHttpResult>> SaidAsync(
        Guid id,
        JobRoom room,
        ReceiverDeliveryStore store,
        CancellationToken cancel
    ) => await room.OpenAsync(id, cancel) is null ? Problem.NoJob() : TypedResults.Ok(await store.SaidAsync(id, cancel));

    private static async Task<Results<NoContent, ProblemHttpResult>> SendAsync(
        Guid id,
        Guid receiver,
        JobRoom room,
        BundleReader bundles,
        ReceiverStore receivers,
        DeliveryWorker worker,
        CancellationToken cancel
    )
    {
        if (await room.OpenAsync(id, cancel) is not { } board)
        {
            return Problem.NoJob();
        }

        if (await receivers.OneAsync(receiver, cancel) is not { } row)
        {
            return ReceiverEndpoints.None();
        }

        var contents = await bundles.OfAsync(board, cancel);
        if (BundleEndpoints.Unnamed(contents) is { } refusal)
        {
            return refusal;
        }

        var rule = ReceiverStore.RuleOf(row);
        if (!contents.Going.Any(file => rule.Takes(file.Cell.Place.Destination)))
        {
            return Problem.Of(StatusCodes.Status409Conflict, "nothing-to-hand-over", ReceiverTexts.NoFileForIsReady(rule.Name));
        }

        await worker.AskAsync(id, receiver);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> StopAsync(Guid id, Guid receiver, DeliveryWorker worker) =>
        await worker.StopAsync(id, receiver)
            ? TypedResults.NoContent()
            : Problem.Of(StatusCodes.Status404NotFound, "not-sent", ReceiverTexts.NoFileOfThisJobWas);

    private static async Task<IResult> ShownAsync(
        Guid id,
        Guid receiver,
        string path,
        ReceiverDeliveryStore store,
        ReceiverStore receivers,
        ReceiverLines lines,
        HttpResponse response,
        CancellationToken cancel,
        int at = 0
    )
    {
        if (
            await receivers.OneAsync(receiver, cancel) is not { } row
            || await store.ShownAsync(id, receiver, path, at, cancel) is not { Format: { } format } shown
            || format == PictureFormat.Svg
        )
        {
            return Problem.Of(StatusCodes.Status404NotFound, "not-shown", ReceiverTexts.TheReceiverDoesNotShowThis);
        }

        receivers.TryOpen(row, out var secret);
        await using var line = lines.Open(ReceiverStore.RuleOf(row), secret);
        if (line is not HttpLine http || await http.FetchAsync(new(shown.Address), cancel) is not { Bytes: { } bytes })
        {
            return Problem.Of(StatusCodes.Status502BadGateway, "not-shown", ReceiverTexts.TheReceiverNoLongerShowsThis);
        }

        // It came from elsewhere: whatever it is, a browser takes it for a picture or for nothing.
        response.Headers.ContentSecurityPolicy = Gatekeeper.PolicyOfFiles;
        return TypedResults.Bytes(bytes, format.MediaType());
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> TryAsync(
        Guid id,
        Guid receiver,
        string path,
        SurvivalTrials keeper,
        CancellationToken cancel
    ) =>
        await keeper.AskAsync(id, receiver, path, cancel) is { } fault
            ? Problem.Of(StatusCodes.Status409Conflict, "cannot-try", fault)
            : TypedResults.NoContent();

    private static async Task<Results<Ok<SurvivalView>, NoContent>> SurvivalAsync(
        Guid id,
        Guid receiver,
        string path,
        SurvivalTrials keeper,
        CancellationToken cancel
    ) => await keeper.ViewAsync(id, receiver, path, cancel) is { } view ? TypedResults.Ok(view) : TypedResults.NoContent();

    private static async Task<Results<Ok<SurvivalRule>, ProblemHttpResult>> RuleAsync(
        Guid id,
        Guid receiver,
        string path,
        SurvivalTrials keeper,
        CancellationToken cancel
    ) =>
        await keeper.RuleAsync(id, receiver, path, cancel) is var (address, slot)
            ? TypedResults.Ok(new SurvivalRule(address, SlotDraft.Of(slot)))
            : Problem.Of(StatusCodes.Status404NotFound, "no-rule", ReceiverTexts.ThisCannotBeSavedInThe);
}

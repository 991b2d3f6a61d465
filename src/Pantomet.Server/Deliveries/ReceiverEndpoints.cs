using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Core.Accounts;
using Pantomet.Core.Deliveries;
using Pantomet.Core.Texts;
using Pantomet.Deliveries;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Deliveries;

/// <summary>A receiver to add or to change.</summary>
/// <param name="Rule">What is to be known of it.</param>
/// <param name="Secret">
/// Its password, token or key, which is never given out again: null to keep what it has, empty for none. Another host never gets what was
/// entered for one.
/// </param>
public sealed record ReceiverDraft(ReceiverRule Rule, string? Secret = null);

/// <summary>The places that files are handed to.</summary>
internal static class ReceiverEndpoints
{
    private const int LongestSecret = 20_000;

    /// <summary>Adds the addresses.</summary>
    public static void Map(IEndpointRouteBuilder routes)
    {
        var receivers = routes.MapGroup("/api/receivers").NeedsRight(Right.UseReceivers).WithTags("Handing over");
        receivers.MapGet("/", AllAsync).WithName("listReceivers").WithSummary("All receivers.");
        receivers
            .MapPost("/", AddAsync)
            .WithName("addReceiver")
            .WithSummary("Adds a receiver.")
            .ProducesProblem(StatusCodes.Status400BadRequest);
        receivers
            .MapPut("/{id:guid}", ChangeAsync)
            .WithName("changeReceiver")
            .WithSummary("Changes a receiver; at another address it has none of the files yet.")
            .ProducesProblem(StatusCodes.Status400BadRequest)
            .ProducesProblem(StatusCodes.Status404NotFound);
        receivers
            .MapDelete("/{id:guid}", RemoveAsync)
            .WithName("deleteReceiver")
            .WithSummary("Removes a receiver; the files that it has stay there.")
            .ProducesProblem(StatusCodes.Status404NotFound);
        receivers
            .MapPost("/{id:guid}/try", TryAsync)
            .WithName("tryReceiver")
            .WithSummary("Tries whether a receiver can be reached; no file is sent.")
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<IReadOnlyList<ReceiverView>> AllAsync(ReceiverStore store, CancellationToken cancel) =>
        [.. (await store.AllAsync(cancel)).Select(ReceiverStore.ViewOf)];

    private static async Task<Results<Ok<ReceiverView>, ProblemHttpResult>> AddAsync(ReceiverDraft draft, ReceiverStore store) =>
        Refusal(draft) is { } refusal ? refusal : TypedResults.Ok(ReceiverStore.ViewOf(await store.AddAsync(draft.Rule, draft.Secret)));

    private static async Task<Results<Ok<ReceiverView>, ProblemHttpResult>> ChangeAsync(
        Guid id,
        ReceiverDraft draft,
        ReceiverStore store,
        DeliveryWorker worker
    )
    {
        if (Refusal(draft) is { } refusal)
        {
            return refusal;
        }

        // What is under way would put down what another place said.
        await worker.StopAllAsync(id);
        return await store.ChangeAsync(id, draft.Rule, draft.Secret) is { } row ? TypedResults.Ok(ReceiverStore.ViewOf(row)) : None();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(Guid id, ReceiverStore store, DeliveryWorker worker)
    {
        await worker.StopAllAsync(id);
        return await store.RemoveAsync(id) ? TypedResults.NoContent() : None();
    }

    private static async Task<Results<Ok<ReceiverTrial>, ProblemHttpResult>> TryAsync(
        Guid id,
        ReceiverStore store,
        ReceiverLines lines,
        CancellationToken cancel
    )
    {
        if (await store.OneAsync(id, cancel) is not { } row)
        {
            return None();
        }

        if (!store.TryOpen(row, out var secret))
        {
            return TypedResults.Ok(new ReceiverTrial(false, DeliveryWorker.Unsealed));
        }

        await using var line = lines.Open(ReceiverStore.RuleOf(row), secret);
        return TypedResults.Ok(await line.TryAsync(cancel));
    }

    private static ProblemHttpResult? Refusal(ReceiverDraft draft) =>
        draft.Rule.Fault() is var (member, sentence)
            ? Problem.Of(StatusCodes.Status400BadRequest, "bad-receiver", sentence, $"$.rule.{member}")
        : draft.Secret?.Length > LongestSecret
        || draft.Secret?.Any(character => char.IsControl(character) && character is not ('\r' or '\n' or '\t')) == true
            ? Problem.Of(StatusCodes.Status400BadRequest, "bad-receiver", ReceiverTexts.ThisIsNotAPasswordToken, "$.secret")
        : null;

    internal static ProblemHttpResult None() =>
        Problem.Of(StatusCodes.Status404NotFound, "no-such-receiver", ReceiverTexts.ThisReceiverDoesNotExist);
}

using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Destinations;
using Pantomet.Core.Accounts;
using Pantomet.Core.Rules;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Destinations;

/// <summary>A saved style.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Dress">The value of <c>dress</c> as a rules file has it.</param>
public sealed record SavedStyle(string Name, string Dress);

/// <summary>A style to save.</summary>
/// <param name="Dress">The value of <c>dress</c> as a rules file has it.</param>
public sealed record SavedStyleRequest(string Dress);

/// <summary>Dressings with names, kept with the book of rules, to be put on any slot.</summary>
internal static class StyleEndpoints
{
    public static void Map(IEndpointRouteBuilder routes)
    {
        var dressings = routes
            .MapGroup("/api/styles")
            .NeedsRight(Right.Look, Right.Edit)
            .WithTags("destinations")
            .ProducesProblem(StatusCodes.Status400BadRequest)
            .ProducesProblem(StatusCodes.Status404NotFound);
        dressings
            .MapGet("/", async (RuleStore store, CancellationToken cancel) => Of(await store.BookAsync(cancel)))
            .WithName("listStyles")
            .WithSummary("All saved styles.");
        dressings.MapPut("/{name}", PutAsync).WithName("putStyle").WithSummary("Saves a style under a name.");
        dressings
            .MapDelete(
                "/{name}",
                (string name, RulesDoor door, RuleStore store, CancellationToken cancel) =>
                    ChangeAsync(door, store, book => Without(book, name), cancel)
            )
            .WithName("deleteStyle")
            .WithSummary("Removes a saved style; slots that have it keep it.");
    }

    private static async Task<Results<Ok<IReadOnlyList<SavedStyle>>, ProblemHttpResult>> PutAsync(
        string name,
        SavedStyleRequest request,
        RulesDoor door,
        RuleStore store,
        CancellationToken cancel
    ) =>
        DressReader.TryRead(request.Dress, out var dress, out _, out var fault)
            ? await ChangeAsync(
                door,
                store,
                book => book with { Dressings = [.. Without(book, name).Dressings, new(name.Trim(), dress!)] },
                cancel
            )
            : Problem.Of(StatusCodes.Status400BadRequest, "bad-value", fault!, "$.dress");

    private static RuleBook Without(RuleBook book, string name) =>
        book with
        {
            Dressings = [.. book.Dressings.Where(one => one.Name != name.Trim())],
        };

    private static async Task<Results<Ok<IReadOnlyList<SavedStyle>>, ProblemHttpResult>> ChangeAsync(
        RulesDoor door,
        RuleStore store,
        Func<RuleBook, RuleBook> change,
        CancellationToken cancel
    ) =>
        (await door.ChangeAsync(change, cancel)).Result is ProblemHttpResult problem
            ? problem
            : TypedResults.Ok(Of(await store.BookAsync(CancellationToken.None)));

    private static IReadOnlyList<SavedStyle> Of(RuleBook book) =>
        [.. book.Dressings.Select(one => new SavedStyle(one.Name, RulesWriter.Write(one.Dress)))];
}

using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Core.Rules;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Destinations;

/// <summary>The book of rules.</summary>
internal static class DestinationEndpoints
{
    private const int MostRuleBytes = 2_000_000;

    public static void Map(IEndpointRouteBuilder routes)
    {
        var destinations = routes.MapGroup("/api/destinations").WithTags("Destinations");
        destinations.MapGet("/", ListAsync).WithName("listDestinations").WithSummary("All destinations with their slots.");
        destinations.MapPut("/", ReplaceAsync).WithName("replaceDestinations").WithSummary("Replaces the book by a rules file.")
            .Accepts<object>("application/json").ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status413PayloadTooLarge);
    }

    private static async Task<Ok<IReadOnlyList<DestinationView>>> ListAsync(RuleShelf shelf, CancellationToken cancel)
    {
        var book = await shelf.BookAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<DestinationView>>([.. book.Destinations.Select(DestinationView.Of)]);
    }

    private static async Task<Results<Ok<IReadOnlyList<DestinationView>>, ProblemHttpResult>> ReplaceAsync(
        HttpRequest request, RuleShelf shelf, CancellationToken cancel)
    {
        if (request.ContentLength > MostRuleBytes)
        {
            return Problem.Of(StatusCodes.Status413PayloadTooLarge, "too-large", "A rules file holds at most 2 MB.");
        }

        using var reader = new StreamReader(request.Body);
        var json = await reader.ReadToEndAsync(cancel);
        if (!RulesReader.TryRead(json, out _, out var fault))
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-rules", fault!.ToString());
        }

        await shelf.ReplaceAsync(json, cancel);
        return await ListAsync(shelf, cancel);
    }
}

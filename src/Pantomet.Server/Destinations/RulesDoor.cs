using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Pantomet.Application.Destinations;
using Pantomet.Application.Jobs;
using Pantomet.Core.Rules;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Destinations;

/// <summary>Changes of the book as they come over HTTP: stored, then every job that is touched is laid out anew.</summary>
internal sealed class RulesDoor(RuleStore store, Writer writer, OpenJobs jobs, JobLayout layout)
{
    /// <summary>Changes the book as it is now; null from the change means that there is no such destination.</summary>
    public async Task<Results<Ok<IReadOnlyList<DestinationView>>, ProblemHttpResult>> ChangeAsync(
        Func<RuleBook, RuleBook?> change,
        CancellationToken cancel
    )
    {
        const string gone = "no-such-destination";
        var changed = await RuleStore.ChangeAsync(
            writer,
            jobs,
            book => change(book) is { } next ? new(next, null, null) : RulesChange.Refused(gone, ""),
            cancel
        );
        if (changed.Code is { } code)
        {
            return code == gone ? Problem.NoDestination() : Problem.Of(StatusCodes.Status400BadRequest, code, changed.Refusal!);
        }

        // Whoever asked may be gone by now; the change stands, and what follows from it is carried out.
        await layout.LayOutAsync(CancellationToken.None);
        return TypedResults.Ok(await ViewAsync(CancellationToken.None));
    }

    public Task RetireAsync(IReadOnlyList<string> slots, bool retired, CancellationToken cancel) =>
        RuleStore.RetireAsync(writer, slots, retired, cancel);

    public async Task<IReadOnlyList<DestinationView>> ViewAsync(CancellationToken cancel)
    {
        var book = await store.BookAsync(cancel);
        var retired = await store.RetiredAsync(cancel);
        return [.. book.Destinations.Select(destination => DestinationView.Of(destination, retired))];
    }
}

using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Libraries;
using Pantomet.Data.Libraries;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Libraries;

/// <summary>A folder of pictures to add.</summary>
/// <param name="Folder">Its whole path on the server's machine.</param>
public sealed record LibraryDraft(string Folder);

/// <summary>Which originals are put back.</summary>
/// <param name="Paths">Their paths from the folder's root; null for all.</param>
public sealed record LibraryRestore(IReadOnlyList<string>? Paths);

/// <summary>The folders of pictures that are put right.</summary>
/// <param name="Allowed">The folders that the owner allowed, with all that lies in them.</param>
/// <param name="Libraries">Those that were added, the newest first.</param>
public sealed record LibraryList(IReadOnlyList<string> Allowed, IReadOnlyList<LibraryView> Libraries);

/// <summary>Folders of pictures put right: looked through, tried, lightened under their own names, and put back.</summary>
internal static class LibraryEndpoints
{
    /// <summary>Adds the addresses.</summary>
    public static void Map(IEndpointRouteBuilder routes)
    {
        var libraries = routes.MapGroup("/api/libraries").WithTags("libraries");
        libraries.MapGet("/", AllAsync).WithName("listLibraries").WithSummary("The folders of pictures that are put right.");
        libraries
            .MapPost("/", AddAsync)
            .WithName("addLibrary")
            .WithSummary("Adds a folder of this machine, within those that the owner allowed, and has it looked through.");
        libraries.MapGet("/{id:guid}", OneAsync).WithName("getLibrary").WithSummary("A folder with its figures and what was done to it.");
        libraries
            .MapGet("/{id:guid}/pictures", PicturesAsync)
            .WithName("listLibraryPictures")
            .WithSummary("A part of a folder's pictures, the heaviest first, and what became of each.");
        libraries.MapPost("/{id:guid}/look", LookAsync).WithName("lookThroughLibrary").WithSummary("Has a folder looked through anew.");
        libraries
            .MapPost("/{id:guid}/try", TryAsync)
            .WithName("tryLibrary")
            .WithSummary("Makes some of its pictures by a rule, touches nothing, and tells what all would come to.");
        libraries
            .MapPost("/{id:guid}/mend", MendAsync)
            .WithName("mendLibrary")
            .WithSummary("Puts it right by a rule, with the originals kept; what was done before stays done.");
        libraries.MapPost("/{id:guid}/pause", PauseAsync).WithName("pauseLibrary").WithSummary("Holds what is under way; it can go on.");
        libraries.MapPost("/{id:guid}/stop", StopAsync).WithName("stopLibrary").WithSummary("Ends what is under way; what was done stays.");
        libraries
            .MapPost("/{id:guid}/restore", RestoreAsync)
            .WithName("restoreLibrary")
            .WithSummary("Puts originals back, byte for byte: some, or all.");
        libraries
            .MapDelete("/{id:guid}", RemoveAsync)
            .WithName("deleteLibrary")
            .WithSummary("Takes a folder out of the list; the originals that are kept go with it, the folder itself stays as it is.");
    }

    private static async Task<LibraryList> AllAsync(LibraryShelf shelf, LibraryKeeper keeper, CancellationToken cancel) =>
        new(shelf.Allowed, [.. (await shelf.AllAsync(cancel)).Select(row => shelf.ViewOf(row, keeper.ProgressOf(row.Id)))]);

    private static async Task<Results<Ok<LibraryView>, ProblemHttpResult>> AddAsync(
        LibraryDraft draft,
        LibraryShelf shelf,
        LibraryKeeper keeper,
        CancellationToken cancel
    )
    {
        var (row, fault) = await shelf.AddAsync(draft.Folder, cancel);
        if (row is null)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-folder", fault!);
        }

        keeper.Ring();
        return TypedResults.Ok(shelf.ViewOf(row, null));
    }

    private static async Task<Results<Ok<LibraryView>, ProblemHttpResult>> OneAsync(
        Guid id,
        LibraryShelf shelf,
        LibraryKeeper keeper,
        CancellationToken cancel
    ) => await shelf.OneAsync(id, cancel) is { } row ? TypedResults.Ok(shelf.ViewOf(row, keeper.ProgressOf(id))) : None();

    private static async Task<Results<Ok<LibraryPage>, ProblemHttpResult>> PicturesAsync(
        Guid id,
        LibraryShelf shelf,
        CancellationToken cancel,
        string show = nameof(LibraryShow.All),
        int from = 0,
        int count = 100
    ) =>
        !Enum.TryParse<LibraryShow>(show, ignoreCase: true, out var wanted)
            ? Problem.Of(
                StatusCodes.Status400BadRequest,
                "bad-kind",
                $"Pictures are shown by: {string.Join(", ", Enum.GetNames<LibraryShow>().Select(name => char.ToLowerInvariant(name[0]) + name[1..]))}."
            )
        : await shelf.OneAsync(id, cancel) is null ? None()
        : TypedResults.Ok(shelf.Page(id, wanted, from, count));

    private static Task<Results<NoContent, ProblemHttpResult>> LookAsync(Guid id, LibraryKeeper keeper) =>
        AskAsync(keeper.AskAsync(id, LibraryState.Looking));

    private static Task<Results<NoContent, ProblemHttpResult>> TryAsync(
        Guid id,
        LibraryRule rule,
        LibraryShelf shelf,
        LibraryKeeper keeper,
        CancellationToken cancel
    ) => ByRuleAsync(id, LibraryState.Trying, rule, shelf, keeper, cancel);

    private static Task<Results<NoContent, ProblemHttpResult>> MendAsync(
        Guid id,
        LibraryRule rule,
        LibraryShelf shelf,
        LibraryKeeper keeper,
        CancellationToken cancel
    ) => ByRuleAsync(id, LibraryState.Mending, rule, shelf, keeper, cancel);

    private static Task<Results<NoContent, ProblemHttpResult>> PauseAsync(Guid id, LibraryKeeper keeper) =>
        AskAsync(keeper.AskAsync(id, LibraryState.Paused));

    private static Task<Results<NoContent, ProblemHttpResult>> StopAsync(Guid id, LibraryKeeper keeper) =>
        AskAsync(keeper.AskAsync(id, LibraryState.Ready));

    private static async Task<Results<NoContent, ProblemHttpResult>> RestoreAsync(
        Guid id,
        LibraryRestore restore,
        LibraryShelf shelf,
        LibraryKeeper keeper,
        CancellationToken cancel
    )
    {
        if (await shelf.OneAsync(id, cancel) is not { } row)
        {
            return None();
        }

        // Putting right and putting back at once would keep what is new as an original.
        return row.State is LibraryState.Mending or LibraryState.Restoring
            ? Problem.Of(StatusCodes.Status409Conflict, "under-way", "It is being put right or back just now. Hold it first.")
            : await AskAsync(keeper.AskAsync(id, LibraryState.Restoring, paths: restore.Paths));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(
        Guid id,
        LibraryShelf shelf,
        LibraryKeeper keeper,
        CancellationToken cancel
    )
    {
        if (!await keeper.AskAsync(id, LibraryState.Paused))
        {
            return None();
        }

        return await shelf.RemoveAsync(id, cancel) ? TypedResults.NoContent() : None();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ByRuleAsync(
        Guid id,
        LibraryState state,
        LibraryRule rule,
        LibraryShelf shelf,
        LibraryKeeper keeper,
        CancellationToken cancel
    )
    {
        if (rule.Fault() is { } fault)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-rule", fault);
        }

        if (await shelf.OneAsync(id, cancel) is not { } row)
        {
            return None();
        }

        return row.State is LibraryState.Looking or LibraryState.Restoring || shelf.Lists(id).Figures() is null
            ? Problem.Of(StatusCodes.Status409Conflict, "under-way", "It is looked through or put back just now.")
            : await AskAsync(keeper.AskAsync(id, state, rule));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AskAsync(Task<bool> asked) =>
        await asked ? TypedResults.NoContent() : None();

    private static ProblemHttpResult None() =>
        Problem.Of(StatusCodes.Status404NotFound, "no-such-library", "There is no such folder in the list.");
}

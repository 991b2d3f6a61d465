using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Destinations;
using Pantomet.Core.Accounts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Naming;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Destinations;

/// <summary>The book of rules: made, copied, edited, retired, imported and exported.</summary>
internal static class DestinationEndpoints
{
    private const int MostAddress = 200;

    public static void Map(IEndpointRouteBuilder routes)
    {
        var destinations = routes
            .MapGroup("/api/destinations")
            .NeedsRight(Right.Look, Right.Edit)
            .WithTags("Destinations")
            .ProducesProblem(StatusCodes.Status400BadRequest);
        destinations.MapGet("/", ListAsync).WithName("listDestinations").WithSummary("All destinations with their slots.");
        destinations
            .MapPut(
                "/",
                (HttpRequest request, RulesDoor door, CancellationToken cancel) => TakeFileAsync(request, door, merge: false, cancel)
            )
            .WithName("replaceDestinations")
            .WithSummary("Replaces all destinations by those of a rules file.")
            .Accepts<object>(isOptional: true, "application/json", "*/*")
            .ProducesProblem(StatusCodes.Status413PayloadTooLarge);
        destinations
            .MapPost(
                "/import",
                (HttpRequest request, RulesDoor door, CancellationToken cancel) => TakeFileAsync(request, door, merge: true, cancel)
            )
            .WithName("importRules")
            .WithSummary("Imports the slots of a rules file; those of the same key are replaced, all others stay.")
            .Accepts<object>(isOptional: true, "application/json", "*/*")
            .ProducesProblem(StatusCodes.Status413PayloadTooLarge);
        destinations
            .MapGet("/uses", UsesAsync)
            .WithName("listSlotUses")
            .WithSummary("Which jobs have which slots, the newest job first; archived ones are left out.");
        destinations
            .MapGet("/rules.json", ExportAsync)
            .WithName("exportRules")
            .WithSummary("All destinations, or one of them, as a rules file.")
            .ProducesProblem(StatusCodes.Status404NotFound);
        destinations.MapPost("/", MakeAsync).WithName("makeDestination").WithSummary("Adds a destination with one slot.");
        destinations
            .MapPut("/{destination}/name", NameAsync)
            .WithName("nameDestination")
            .WithSummary("Names a destination.")
            .ProducesProblem(StatusCodes.Status404NotFound);
        destinations
            .MapPost("/{destination}/copy", CopyAsync)
            .WithName("copyDestination")
            .WithSummary("Makes another destination with the same slots.")
            .ProducesProblem(StatusCodes.Status404NotFound);
        destinations
            .MapPut("/retired", RetireAsync)
            .WithName("retireSlots")
            .WithSummary("Retires slots, or uses them again. Jobs that have them keep them.");
        destinations
            .MapGet("/{destination}/slots/{slot}", GetSlotAsync)
            .WithName("getSlot")
            .WithSummary("A slot's rule for editing.")
            .ProducesProblem(StatusCodes.Status404NotFound);
        destinations
            .MapPut("/{destination}/slots/{slot}", PutSlotAsync)
            .WithName("putSlot")
            .WithSummary("Adds a slot, or changes its rule.")
            .ProducesProblem(StatusCodes.Status404NotFound);
        destinations
            .MapPost("/{destination}/slots/{slot}/check", CheckAsync)
            .WithName("checkSlot")
            .NotLogged()
            .WithSummary("Checks a rule without saving it: what is wrong with it, and which delivered files no longer meet it.");
        destinations
            .MapPost("/{destination}/slots/{slot}/trial/{picture:guid}", TryAsync)
            .WithName("trySlot")
            .NotLogged()
            .WithSummary("Makes the first file of a rule of a picture, without saving the rule.")
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<Ok<IReadOnlyList<DestinationView>>> ListAsync(RulesDoor door, CancellationToken cancel) =>
        TypedResults.Ok(await door.ViewAsync(cancel));

    private static async Task<Results<Ok<IReadOnlyList<DestinationView>>, ProblemHttpResult>> TakeFileAsync(
        HttpRequest request,
        RulesDoor door,
        bool merge,
        CancellationToken cancel
    )
    {
        using var reader = new StreamReader(request.Body);
        var json = await reader.ReadToEndAsync(cancel);
        return !RulesReader.TryRead(json, out var book, out var fault)
            ? Problem.Of(StatusCodes.Status400BadRequest, RuleStore.BadRules, fault!.ToString(), fault.Path)
            : await door.ChangeAsync(now => merge ? RuleBooks.Merged(now, book!) : book!, cancel);
    }

    private static async Task<Results<ContentHttpResult, ProblemHttpResult>> ExportAsync(
        string? destination,
        RuleStore store,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        var book = await store.BookAsync(cancel);
        var chosen = destination is null ? book : book with { Destinations = [.. book.Destinations.Where(one => one.Key == destination)] };
        if (chosen.Destinations.Count == 0)
        {
            return Problem.NoDestination();
        }

        response.Headers.ContentDisposition = $"attachment; filename=\"{destination ?? "rules"}.json\"";
        return TypedResults.Text(RulesWriter.Write(chosen), "application/json", Encoding.UTF8);
    }

    private static async Task<Results<Ok<IReadOnlyList<DestinationView>>, ProblemHttpResult>> MakeAsync(
        DestinationName name,
        RulesDoor door,
        CancellationToken cancel
    )
    {
        if (NameFault(name.Name) is { } fault)
        {
            return fault;
        }

        var slot = new Slot
        {
            Key = "first",
            Name = "First slot",
            Size = new SizeRule.SideAlone(Side.Width, 1200),
        };
        return await door.ChangeAsync(
            book =>
                book with
                {
                    Destinations = [.. book.Destinations, new(RuleStore.FreeKey(Slug.From(name.Name), book), name.Name.Trim(), [slot])],
                },
            cancel
        );
    }

    private static async Task<Results<Ok<IReadOnlyList<DestinationView>>, ProblemHttpResult>> NameAsync(
        string destination,
        DestinationName name,
        RulesDoor door,
        CancellationToken cancel
    )
    {
        if (NameFault(name.Name) is { } fault)
        {
            return fault;
        }

        return await door.ChangeAsync(
            book =>
                book.Destinations.Any(one => one.Key == destination)
                    ? book with
                    {
                        Destinations =
                        [
                            .. book.Destinations.Select(one => one.Key == destination ? one with { Name = name.Name.Trim() } : one),
                        ],
                    }
                    : null,
            cancel
        );
    }

    private static Task<Results<Ok<IReadOnlyList<DestinationView>>, ProblemHttpResult>> CopyAsync(
        string destination,
        RulesDoor door,
        CancellationToken cancel
    ) =>
        door.ChangeAsync(
            book =>
                book.Destinations.FirstOrDefault(one => one.Key == destination) is { } found
                    ? book with
                    {
                        Destinations =
                        [
                            .. book.Destinations,
                            found with
                            {
                                Key = RuleStore.FreeKey($"{found.Key}-copy", book),
                                Name = $"{found.Name}, copy",
                            },
                        ],
                    }
                    : null,
            cancel
        );

    private static async Task<Results<Ok<IReadOnlyList<DestinationView>>, ProblemHttpResult>> RetireAsync(
        RetireRequest request,
        RulesDoor door,
        CancellationToken cancel
    )
    {
        if (request.Slots.Any(address => address.Length > MostAddress || address.Contains('\n', StringComparison.Ordinal)))
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-value", RuleTexts.GiveASlotAsDestinationSlot, "$.slots");
        }

        await door.RetireAsync(request.Slots, request.Retired, cancel);
        return TypedResults.Ok(await door.ViewAsync(cancel));
    }

    private static async Task<Results<Ok<SlotDraft>, ProblemHttpResult>> GetSlotAsync(
        string destination,
        string slot,
        RuleStore store,
        CancellationToken cancel
    ) =>
        await store.FindAsync(destination, slot, cancel) is { } place
            ? TypedResults.Ok(SlotDraft.Of(place.Slot))
            : Problem.NoSlot(destination, slot);

    private static async Task<Results<Ok<IReadOnlyList<DestinationView>>, ProblemHttpResult>> PutSlotAsync(
        string destination,
        string slot,
        SlotDraft draft,
        RulesDoor door,
        CancellationToken cancel
    )
    {
        if (!draft.TryRead(out var read, out var fault))
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-rule", fault!.ToString(), fault.Path);
        }

        if (read!.Key != slot)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-rule", RuleTexts.KeyTheKeyOfASlot, "key");
        }

        return await door.ChangeAsync(
            book =>
                book.Destinations.FirstOrDefault(one => one.Key == destination) is { } place
                    ? book with
                    {
                        Destinations = [.. book.Destinations.Select(one => one.Key == destination ? With(place, read) : one)],
                    }
                    : null,
            cancel
        );
    }

    private static Destination With(Destination place, Slot slot) =>
        place with
        {
            Slots = place.Slots.Any(one => one.Key == slot.Key)
                ? [.. place.Slots.Select(one => one.Key == slot.Key ? slot : one)]
                : WithNew(place.Slots, slot),
        };

    private static async Task<Ok<DraftCheck>> CheckAsync(
        string destination,
        string slot,
        SlotDraft draft,
        HandOverQueries queries,
        DeliveredFiles files,
        CancellationToken cancel
    )
    {
        if (!draft.TryRead(out var read, out var fault))
        {
            return TypedResults.Ok(
                new DraftCheck(new(fault!.Path, char.ToUpperInvariant(fault.Message[0]) + fault.Message[1..] + "."), null, 0, [])
            );
        }

        var delivered = await files.OfAsync(destination, slot, queries, cancel);
        var breaches = delivered
            .Select(one => (one, reasons: DeliveredCheck.Against(read!, one.File)))
            .Where(one => one.reasons.Count > 0)
            .ToList();
        var jobs = breaches.Select(one => one.one.Job).Distinct().ToList();
        var names = await queries.JobNamesAsync(jobs, cancel);
        return TypedResults.Ok(
            new DraftCheck(
                null,
                SlotView.Of(read!),
                delivered.Count,
                [
                    .. breaches
                        .Where(one => names.ContainsKey(one.one.Job))
                        .Select(one => new DeliveredBreach(one.one.Job, names[one.one.Job], one.one.Path, one.reasons)),
                ]
            )
        );
    }

    private static async Task<Ok<List<SlotUse>>> UsesAsync(HandOverQueries queries, CancellationToken cancel) =>
        TypedResults.Ok(await queries.UsesAsync(cancel));

    private static async Task<Results<Ok<TrialView>, ProblemHttpResult>> TryAsync(
        Guid picture,
        SlotDraft draft,
        PictureQueries pictures,
        RuleTrials trials,
        CancellationToken cancel
    ) =>
        !draft.TryRead(out var read, out var fault) ? Problem.Of(StatusCodes.Status400BadRequest, "bad-rule", fault!.ToString(), fault.Path)
        : await pictures.OneAsync(picture, cancel) is not { Parts: null } row ? Problem.NoPicture()
        : TypedResults.Ok(await trials.MakeAsync(row, read!, cancel));

    private static ProblemHttpResult? NameFault(string? name) =>
        string.IsNullOrWhiteSpace(name) || name.Trim().Length > 100 || name.Any(char.IsControl)
            ? Problem.Of(StatusCodes.Status400BadRequest, "bad-name", RuleTexts.ADestinationsNameMustHaveTo)
            : null;

    // A slot that is shown under a condition comes before the one of its group that is shown otherwise.
    private static List<Slot> WithNew(IReadOnlyList<Slot> slots, Slot slot)
    {
        var all = slots.ToList();
        var last = slot.Media is null ? -1 : all.FindLastIndex(one => one.Group == slot.Group);
        all.Insert(last < 0 ? all.Count : last, slot);
        return all;
    }
}

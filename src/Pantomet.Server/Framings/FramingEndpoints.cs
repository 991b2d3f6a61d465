using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Data;
using Pantomet.Data.Framings;
using Pantomet.Data.Pictures;
using Pantomet.Server.Destinations;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Framings;

/// <summary>The frame of one picture for one slot.</summary>
internal static class FramingEndpoints
{
    public static void Map(IEndpointRouteBuilder routes)
    {
        var framings = routes.MapGroup("/api/pictures/{id:guid}/framings/{destination}/{slot}").WithTags("Framings");
        framings.MapGet("/", GetAsync).WithName("getFraming").WithSummary("The frame and what each density gets from it.").ProducesProblem(StatusCodes.Status404NotFound);
        framings.MapPut("/", SetAsync).WithName("setFraming").WithSummary("Sets the frame by hand.")
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound);
        framings.MapDelete("/", ResetAsync).WithName("resetFraming").WithSummary("Goes back to the frame that is found automatically.")
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static Task<Results<Ok<FramingView>, ProblemHttpResult>> GetAsync(
        Guid id, string destination, string slot, PantometDb db, RuleShelf shelf, CancellationToken cancel) =>
        AtAsync(id, destination, slot, db, shelf, (_, row) => Task.FromResult(row?.Frame), cancel);

    private static async Task<Results<Ok<FramingView>, ProblemHttpResult>> SetAsync(
        Guid id, string destination, string slot, FrameWish wish, PantometDb db, RuleShelf shelf, CancellationToken cancel)
    {
        if (wish.Frame is not [var left, var top, var right, var bottom])
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-frame", "A frame has four numbers: left, top, right, bottom.");
        }

        if (!Frame.TryCreate(left, top, right, bottom, out var frame, out var fault))
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-frame", Sentence(fault!));
        }

        return await AtAsync(id, destination, slot, db, shelf, async (picture, row) =>
        {
            if (row is null)
            {
                row = new() { PictureId = picture.Id, Destination = destination, Slot = slot };
                db.Framings.Add(row);
            }

            row.Set(frame);
            await db.SaveChangesAsync(cancel);
            return frame;
        }, cancel);
    }

    private static Task<Results<Ok<FramingView>, ProblemHttpResult>> ResetAsync(
        Guid id, string destination, string slot, PantometDb db, RuleShelf shelf, CancellationToken cancel) =>
        AtAsync(id, destination, slot, db, shelf, async (_, row) =>
        {
            if (row is not null)
            {
                db.Framings.Remove(row);
                await db.SaveChangesAsync(cancel);
            }

            return null;
        }, cancel);

    private static async Task<Results<Ok<FramingView>, ProblemHttpResult>> AtAsync(
        Guid id, string destination, string slot, PantometDb db, RuleShelf shelf, Func<PictureRow, FramingRow?, Task<Frame?>> act, CancellationToken cancel)
    {
        if (await db.Pictures.FindAsync([id], cancel) is not { } picture)
        {
            return Problem.NoPicture();
        }

        if (await shelf.FindAsync(destination, slot, cancel) is not { } place)
        {
            return Problem.NoSlot(destination, slot);
        }

        var hand = await act(picture, await db.Framings.FindAsync([id, destination, slot], cancel));
        return TypedResults.Ok(View(picture, place.Slot, hand));
    }

    private static FramingView View(PictureRow picture, Slot slot, Frame? hand)
    {
        var size = picture.Facts.Size;
        var subject = Subject.Of([], null, picture.Suggestion);
        return FramingView.Of(
            VariantPlanner.Framed(size, slot, hand, subject), size, slot.Densities.Select(density => VariantPlanner.Plan(size, slot, density, hand, subject)));
    }

    private static string Sentence(string clause) => char.ToUpperInvariant(clause[0]) + clause[1..] + ".";
}

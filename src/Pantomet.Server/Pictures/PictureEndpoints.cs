using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Live;
using Pantomet.Application.Pictures;
using Pantomet.Application.Variants;
using Pantomet.Core.Accounts;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Mending;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Server.Accounts;
using Pantomet.Server.Door;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Pictures;

/// <summary>What an original is fixed to, beside being turned upright and losing the place where it was taken.</summary>
/// <param name="MaxSide">The most pixels of the longer side; null leaves them all.</param>
/// <param name="Type">The type; null for its own.</param>
/// <param name="Background">The colour that fills transparent parts, as #ffffff; null keeps them transparent.</param>
public sealed record OriginalFixRequest(int? MaxSide, string? Type, string? Background);

/// <summary>The library: reading in, looking at, the originals untouched.</summary>
internal static class PictureEndpoints
{
    public static void Map(IEndpointRouteBuilder routes)
    {
        var pictures = routes.MapGroup("/api/pictures").NeedsRight(Right.Look, Right.Edit).WithTags("Pictures");
        pictures
            .MapPost("/", TakeAsync)
            .WithName("addPicture")
            .RequireRateLimiting(RateLimits.Uploads)
            .WithSummary("Adds one picture: the body is the file, its name is in the query.")
            .Accepts<IFormFile>(isOptional: true, "application/octet-stream", "*/*")
            .ProducesProblem(StatusCodes.Status400BadRequest)
            .ProducesProblem(StatusCodes.Status413PayloadTooLarge)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity);
        pictures.MapGet("/", ListAsync).WithName("listPictures").WithSummary("All pictures, the newest first.");
        pictures
            .MapGet("/page", LibraryPages.GetAsync)
            .WithName("getLibraryPage")
            .WithSummary(
                "Some pictures of the library, the newest first; only those whose name or words hold every word that is searched for."
            )
            .ProducesProblem(StatusCodes.Status400BadRequest);
        pictures
            .MapGet("/{id:guid}", GetAsync)
            .WithName("getPicture")
            .AlsoForGuests()
            .WithSummary("One picture.")
            .ProducesProblem(StatusCodes.Status404NotFound);
        pictures
            .MapGet("/{id:guid}/preview/{side:int}", PreviewAsync)
            .WithName("getPreview")
            .AlsoForGuests()
            .WithSummary("A small copy for the screen: 480 or 1800 px on the longest side.")
            .ProducesProblem(StatusCodes.Status404NotFound);
        pictures.MapGet("/removed", RemovedAsync).WithName("listRemoved").WithSummary("Removed pictures that can still be restored.");
        pictures
            .MapGet("/{id:guid}/live-addresses", LiveAddressesAsync)
            .WithName("getLiveAddresses")
            .WithSummary("The addresses at which a picture is live, of whatever job.");
        pictures
            .MapDelete("/{id:guid}", RemoveAsync)
            .WithName("removePicture")
            .WithSummary(
                "Removes a picture; it can be restored for 30 days. Its live links stay live, unless they are unpublished with it."
            )
            .ProducesProblem(StatusCodes.Status404NotFound);
        pictures
            .MapPost("/{id:guid}/restore", RestoreAsync)
            .WithName("restorePicture")
            .WithSummary("Restores a removed picture.")
            .ProducesProblem(StatusCodes.Status404NotFound);
        pictures
            .MapGet("/{id:guid}/revisions", RevisionsAsync)
            .WithName("listRevisions")
            .WithSummary("The originals that a picture has or had, the newest first.")
            .ProducesProblem(StatusCodes.Status404NotFound);
        pictures
            .MapPost("/{id:guid}/revisions", ReplaceAsync)
            .WithName("replaceOriginal")
            .RequireRateLimiting(RateLimits.Uploads)
            .WithSummary("Adds a newer original of the picture.")
            .Accepts<IFormFile>(isOptional: true, "application/octet-stream", "*/*")
            .ProducesProblem(StatusCodes.Status400BadRequest)
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status413PayloadTooLarge)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity);
        pictures
            .MapPost("/{id:guid}/fix", PutRightAsync)
            .WithName("fixOriginal")
            .WithSummary(
                "Makes a newer original of a picture's own: upright, and as asked smaller, of another type, with a filled background."
            )
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity);
        pictures
            .MapPost("/{id:guid}/revisions/{number:int}/restore", PutBackAsync)
            .WithName("restoreOriginal")
            .WithSummary("Restores an earlier original.")
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status409Conflict);
        pictures
            .MapGet("/{id:guid}/original", OriginalAsync)
            .WithName("getOriginal")
            .WithSummary("The original, byte for byte.")
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<Results<Created<Intake>, Ok<Intake>, ProblemHttpResult>> TakeAsync(
        string? name,
        HttpRequest request,
        PictureIntake intake,
        CancellationToken cancel
    )
    {
        var result = await intake.TakeAsync(name, request.Body, request.ContentLength, cancel);
        if (result.Row is not { } row)
        {
            return Refused(result);
        }

        var view = PictureView.Of(row);
        return result.AlreadyHere
            ? TypedResults.Ok(new Intake(view, true))
            : TypedResults.Created($"/api/pictures/{row.Id}", new Intake(view, false));
    }

    private static async Task<Ok<IReadOnlyList<PictureView>>> ListAsync(PictureQueries pictures, CancellationToken cancel)
    {
        var rows = await pictures.LibraryAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<PictureView>>([.. rows.Select(PictureView.Of)]);
    }

    private static async Task<Results<Ok<PictureView>, ProblemHttpResult>> GetAsync(
        Guid id,
        PictureQueries pictures,
        CancellationToken cancel
    ) => await pictures.OneAsync(id, cancel) is { } row ? TypedResults.Ok(PictureView.Of(row)) : Problem.NoPicture();

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> PreviewAsync(
        Guid id,
        int side,
        string? turn,
        PictureQueries pictures,
        PreviewMaker previews,
        PairStore pairs,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        if (!PreviewMaker.Knows(side))
        {
            return Problem.Of(
                StatusCodes.Status404NotFound,
                "no-such-preview",
                PictureTexts.PreviewsAreOrPxOnThe(PreviewMaker.Small, PreviewMaker.Large)
            );
        }

        if (await pictures.OneAsync(id, cancel) is not { } row)
        {
            return Problem.NoPicture();
        }

        if (row.Parts is not null)
        {
            return Previewed(await pairs.PreviewAsync(pictures, row, side, turn, cancel), response);
        }

        if (!Turn.TryParse(turn ?? Turn.None.ToString(), out var turned))
        {
            return Problem.Of(StatusCodes.Status404NotFound, "no-such-preview", PictureTexts.ThisTurnIsNotPossible);
        }

        return Previewed(await previews.MakeAsync(row, side, turned, cancel), response);
    }

    private static ProblemHttpResult NoOriginal() =>
        Problem.Of(StatusCodes.Status404NotFound, "no-original", PictureTexts.CombinedPicturesHaveNoOriginalOf);

    /// <summary>Answers with a small copy, which never changes under its address.</summary>
    internal static Results<PhysicalFileHttpResult, ProblemHttpResult> Previewed(string? path, HttpResponse response)
    {
        if (path is null)
        {
            return Problem.Of(StatusCodes.Status404NotFound, "no-preview", PictureTexts.ThisPictureCannotBeDrawn);
        }

        response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.PhysicalFile(path, "image/webp");
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> OriginalAsync(
        Guid id,
        int? revision,
        PictureQueries pictures,
        DataFolder folder,
        Revisions revisions,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        response.Headers.ContentSecurityPolicy = Gatekeeper.PolicyOfFiles;
        if (await pictures.OneAsync(id, cancel) is not { } row)
        {
            return Problem.NoPicture();
        }

        if (row.Parts is not null)
        {
            return NoOriginal();
        }

        if (revision is null)
        {
            return await FileOfAsync(folder, row.ContentHash, row.Format.MediaType(), row.Name, cancel);
        }

        return (await revisions.OfAsync(row, cancel)).FirstOrDefault(one => one.Number == revision) is { } wanted
            ? await FileOfAsync(folder, wanted.ContentHash, "application/octet-stream", wanted.Name, cancel)
            : Problem.NoRevision();
    }

    private static async Task<Ok<IReadOnlyList<RemovedPicture>>> RemovedAsync(
        PictureQueries pictures,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var rows = await pictures.RemovedAsync(cancel);
        var now = clock.GetUtcNow().UtcDateTime;
        return TypedResults.Ok<IReadOnlyList<RemovedPicture>>([
            .. rows.Select(row => new RemovedPicture(
                PictureView.Of(row),
                DateTime.SpecifyKind(now.AddDays(Math.Max(0, Revisions.GraceDays - row.RemovedDays)), DateTimeKind.Utc)
            )),
        ]);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(
        Guid id,
        bool? unpublish,
        Revisions revisions,
        Publishing publishing,
        CancellationToken cancel
    )
    {
        if (!await revisions.RemoveAsync(id, cancel))
        {
            return Problem.NoPicture();
        }

        if (unpublish == true)
        {
            await publishing.UnpublishPictureAsync(id, CancellationToken.None);
        }

        return TypedResults.NoContent();
    }

    private static async Task<Ok<IReadOnlyList<string>>> LiveAddressesAsync(Guid id, Publishing publishing, CancellationToken cancel) =>
        TypedResults.Ok(await publishing.AddressesAsync(id, cancel));

    private static async Task<Results<Ok<PictureView>, ProblemHttpResult>> RestoreAsync(
        Guid id,
        PictureQueries pictures,
        Revisions revisions,
        CancellationToken cancel
    ) =>
        await revisions.RestoreAsync(id, cancel) && await pictures.OneAsync(id, CancellationToken.None) is { } row
            ? TypedResults.Ok(PictureView.Of(row))
            : Problem.NoPicture();

    private static async Task<Results<Ok<IReadOnlyList<RevisionView>>, ProblemHttpResult>> RevisionsAsync(
        Guid id,
        PictureQueries pictures,
        Revisions revisions,
        CancellationToken cancel
    )
    {
        if (await pictures.OneAsync(id, cancel) is not { } row)
        {
            return Problem.NoPicture();
        }

        var all = await revisions.OfAsync(row, cancel);
        return TypedResults.Ok<IReadOnlyList<RevisionView>>([
            .. all.Select(one => new RevisionView(
                one.Number,
                one.Name,
                DateTime.SpecifyKind(one.AddedAt, DateTimeKind.Utc),
                one.Number == row.Revision
            )),
        ]);
    }

    private static async Task<Results<Ok<Intake>, ProblemHttpResult>> ReplaceAsync(
        Guid id,
        string? name,
        HttpRequest request,
        PictureQueries pictures,
        Revisions revisions,
        CancellationToken cancel
    ) =>
        await pictures.OneAsync(id, cancel) is not { } row ? Problem.NoPicture()
        : row.Parts is not null ? NoOriginal()
        : await revisions.ReplaceAsync(id, name, request.Body, request.ContentLength, cancel) is { } result ? Answer(result)
        : Problem.NoPicture();

    private static async Task<Results<Ok<Intake>, ProblemHttpResult>> PutRightAsync(
        Guid id,
        OriginalFixRequest request,
        PictureQueries pictures,
        OriginalFix putting,
        CancellationToken cancel
    )
    {
        if (await pictures.OneAsync(id, cancel) is not { } row)
        {
            return Problem.NoPicture();
        }

        if (row.Parts is not null)
        {
            return NoOriginal();
        }

        var types = PictureFormats.Written.Where(format => format.Word() == request.Type).ToList();
        var rule = new OriginalFixRule
        {
            MaxSide = request.MaxSide,
            Format = types.Count > 0 ? types[0] : null,
            Background = Rgb.TryParse(request.Background, out var background) ? background : null,
        };
        var fault =
            request.Type is not null && rule.Format is null ? PictureTexts.FilesOfThisTypeCannotBe
            : request.Background is not null && rule.Background is null ? PictureTexts.WriteAColourLikeFfffff
            : rule.Fault();
        return fault is not null ? Problem.Of(StatusCodes.Status422UnprocessableEntity, "bad-rule", fault)
            : await putting.DoAsync(row, rule, cancel) is { } result ? Answer(result)
            : Problem.NoPicture();
    }

    private static async Task<Results<Ok<Intake>, ProblemHttpResult>> PutBackAsync(
        Guid id,
        int number,
        PictureQueries pictures,
        Revisions revisions,
        CancellationToken cancel
    ) =>
        await pictures.OneAsync(id, cancel) is null ? Problem.NoPicture()
        : await revisions.PutBackAsync(id, number, cancel) is { } result ? Answer(result)
        : Problem.NoRevision();

    private static Results<Ok<Intake>, ProblemHttpResult> Answer(IntakeResult result) =>
        result.Row is { } row ? TypedResults.Ok(new Intake(PictureView.Of(row), result.AlreadyHere)) : Refused(result);

    private static ProblemHttpResult Refused(IntakeResult result) =>
        Problem.Of(
            result.Code switch
            {
                IntakeResult.BadName => StatusCodes.Status400BadRequest,
                IntakeResult.TooLarge => StatusCodes.Status413PayloadTooLarge,
                IntakeResult.AnotherPicture => StatusCodes.Status409Conflict,
                IntakeResult.NotNow => StatusCodes.Status503ServiceUnavailable,
                _ => StatusCodes.Status422UnprocessableEntity,
            },
            result.Code!,
            result.Refusal!
        );

    // What lies on the disk may have been changed by somebody else, or by the disk itself; a damaged original is not handed out as if it were whole.
    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> FileOfAsync(
        DataFolder folder,
        string hash,
        string media,
        string name,
        CancellationToken cancel
    ) =>
        await folder.Originals.IsWholeAsync(hash, cancel)
            ? TypedResults.PhysicalFile(folder.Originals.PathOf(hash), media, name)
            : Problem.Of(StatusCodes.Status410Gone, "damaged", VariantStore.DamagedOriginal);
}

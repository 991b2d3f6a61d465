using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Pictures;
using Pantomet.Batch.Folders;
using Pantomet.Core.Accounts;
using Pantomet.Core.Naming;
using Pantomet.Core.Texts;
using Pantomet.Data.Folders;
using Pantomet.Server.Accounts;
using Pantomet.Server.Door;
using Pantomet.Server.Pictures;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Folders;

/// <summary>A folder of pictures to add.</summary>
/// <param name="Folder">Its whole path on the server's machine; null where its files are sent.</param>
/// <param name="Name">What people call one whose files are sent.</param>
public sealed record PictureFolderDraft(string? Folder = null, string? Name = null);

/// <summary>Which originals are restored.</summary>
/// <param name="Paths">Their paths from the folder's root; null for all.</param>
public sealed record PictureFolderRestore(IReadOnlyList<string>? Paths);

/// <summary>The folders of pictures that are optimised.</summary>
/// <param name="Allowed">The folders that the owner allowed, with all that lies in them.</param>
/// <param name="Folders">Those that were added, the newest first.</param>
public sealed record PictureFolderList(IReadOnlyList<string> Allowed, IReadOnlyList<PictureFolderView> Folders);

/// <summary>Folders of pictures put right: scanned, tried, lightened under their own names, and restored.</summary>
internal static class PictureFolderEndpoints
{
    // The end of the year 9999.
    private const long LatestChange = 253_402_300_799_999;

    /// <summary>Adds the addresses.</summary>
    public static void Map(IEndpointRouteBuilder routes)
    {
        var folders = routes.MapGroup("/api/folders").NeedsRight(Right.UseFolders).WithTags("folders");
        folders.MapGet("/", AllAsync).WithName("listFolders").WithSummary("All folders of pictures.");
        folders
            .MapPost("/", AddAsync)
            .WithName("addFolder")
            .WithSummary(
                "Adds a folder of this machine, within those that are allowed, and scans it; or a folder whose files are uploaded."
            );
        folders.MapGet("/{id:guid}", OneAsync).WithName("getFolder").WithSummary("A folder with its figures and what was done in it.");
        folders
            .MapGet("/{id:guid}/pictures", PicturesAsync)
            .WithName("listFolderPictures")
            .WithSummary(
                "A part of a folder's pictures and what became of each: the least alike first where files were made, else the heaviest."
            );
        folders
            .MapGet("/{id:guid}/preview/{side:int}", PreviewOfAsync)
            .WithName("getFolderPreview")
            .WithSummary("A small copy of a picture of a folder: as it lies there, its original, or what the last preview made.");
        folders
            .MapPut("/{id:guid}/files", PutAsync)
            .Accepts<byte[]>("application/octet-stream")
            .WithName("putFolderFile")
            .NotLogged()
            .RequireRateLimiting(RateLimits.Uploads)
            .WithSummary("Uploads one file of a folder; the body is the file.");
        folders
            .MapGet("/{id:guid}/folder.zip", ZipAsync)
            .WithName("getFolderFiles")
            .Logged()
            .WithSummary("All files of an uploaded folder as they are now, as a ZIP.");
        folders.MapPost("/{id:guid}/scan", ScanAsync).WithName("scanFolder").WithSummary("Scans a folder again.");
        folders
            .MapPost("/{id:guid}/preview", PreviewAsync)
            .WithName("previewFolder")
            .WithSummary("Previews a rule: makes some of the pictures, changes nothing, and estimates the result for all.");
        folders
            .MapPost("/{id:guid}/optimise", OptimiseAsync)
            .WithName("optimiseFolder")
            .WithSummary("Optimises the pictures by a rule and keeps the originals; pictures that are optimised already stay so.");
        folders.MapPost("/{id:guid}/pause", PauseAsync).WithName("pauseFolder").WithSummary("Pauses the work; it can go on.");
        folders.MapPost("/{id:guid}/stop", StopAsync).WithName("stopFolder").WithSummary("Stops the work; what was done stays.");
        folders
            .MapPost("/{id:guid}/restore", RestoreAsync)
            .WithName("restoreFolder")
            .WithSummary("Restores originals, byte for byte: some, or all.");
        folders
            .MapDelete("/{id:guid}", RemoveAsync)
            .WithName("deleteFolder")
            .WithSummary("Removes a folder from the list and deletes the originals that are kept of it; the folder itself stays as it is.");
    }

    private static async Task<PictureFolderList> AllAsync(PictureFolderStore store, FolderOptimiser keeper, CancellationToken cancel) =>
        new(store.Allowed, [.. (await store.AllAsync(cancel)).Select(row => store.ViewOf(row, keeper.ProgressOf(row.Id)))]);

    private static async Task<Results<Ok<PictureFolderView>, ProblemHttpResult>> AddAsync(
        PictureFolderDraft draft,
        PictureFolderStore store,
        FolderOptimiser keeper,
        CancellationToken cancel
    )
    {
        if (draft.Folder is null)
        {
            return TypedResults.Ok(store.ViewOf(await store.ReceiveAsync(draft.Name ?? "", cancel), null));
        }

        var (row, fault) = await store.AddAsync(draft.Folder, cancel);
        if (row is null)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-folder", fault!);
        }

        keeper.Ring();
        return TypedResults.Ok(store.ViewOf(row, null));
    }

    private static async Task<Results<Ok<PictureFolderView>, ProblemHttpResult>> OneAsync(
        Guid id,
        PictureFolderStore store,
        FolderOptimiser keeper,
        CancellationToken cancel
    ) => await store.OneAsync(id, cancel) is { } row ? TypedResults.Ok(store.ViewOf(row, keeper.ProgressOf(id))) : None();

    private static async Task<Results<Ok<PictureFolderPage>, ProblemHttpResult>> PicturesAsync(
        Guid id,
        PictureFolderStore store,
        CancellationToken cancel,
        string show = nameof(PictureFolderShow.All),
        int from = 0,
        int count = 100
    ) =>
        !Enum.TryParse<PictureFolderShow>(show, ignoreCase: true, out var wanted)
            ? Problem.Of(
                StatusCodes.Status400BadRequest,
                "bad-kind",
                FolderTexts.PicturesCanBeListedBy(
                    string.Join(", ", Enum.GetNames<PictureFolderShow>().Select(name => char.ToLowerInvariant(name[0]) + name[1..]))
                )
            )
        : await store.OneAsync(id, cancel) is null ? None()
        : TypedResults.Ok(store.Page(id, wanted, from, count));

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> PreviewOfAsync(
        Guid id,
        int side,
        string path,
        PictureFolderStore store,
        PreviewMaker previews,
        HttpResponse response,
        CancellationToken cancel,
        string file = nameof(PictureFolderFile.Current)
    )
    {
        if (!PreviewMaker.Knows(side) || !Enum.TryParse<PictureFolderFile>(file, ignoreCase: true, out var wanted))
        {
            return Problem.Of(StatusCodes.Status404NotFound, "no-such-preview", FolderTexts.ThisPreviewDoesNotExist);
        }

        if (await store.OneAsync(id, cancel) is not { } row)
        {
            return None();
        }

        using var held = store.Open(row, path, wanted);
        if (held is null)
        {
            return Problem.Of(StatusCodes.Status404NotFound, "no-such-file", FolderTexts.ThisFileIsNoLongerThere);
        }

        // What stands for the file: its place, weight and time. A file that is changed gets another copy.
        var name = PairStore.HashOf([$"{id:N}", $"{wanted}", path, $"{held.Facts.Bytes}", $"{held.Facts.Changed.Ticks}"]);
        return PictureEndpoints.Previewed(await previews.MakeAsync($"folder-{name}", held.Path, side, cancel), response);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> PutAsync(
        Guid id,
        string path,
        HttpRequest request,
        PictureFolderStore store,
        CancellationToken cancel,
        long? changed = null
    ) =>
        await store.OneAsync(id, cancel) is not { } row ? None()
        : row.State != PictureFolderState.Receiving
            ? Problem.Of(StatusCodes.Status409Conflict, "not-receiving", FolderTexts.AllFilesOfThisFolderWere)
        : changed is < 0 or > LatestChange
            ? Problem.Of(StatusCodes.Status400BadRequest, "bad-time", FolderTexts.ATimeMustBeANumber, "changed")
        : await store.PutAsync(
            row,
            path,
            request.Body,
            changed is { } at ? DateTimeOffset.FromUnixTimeMilliseconds(at).UtcDateTime : null,
            cancel
        )
            is { } fault
            ? Problem.Of(StatusCodes.Status422UnprocessableEntity, "bad-folder-file", fault)
        : TypedResults.NoContent();

    private static async Task<IResult> ZipAsync(Guid id, PictureFolderStore store, HttpContext context, CancellationToken cancel)
    {
        if (await store.OneAsync(id, cancel) is not { IsSent: true } row || row.State == PictureFolderState.Receiving)
        {
            return None();
        }

        // The framework's zip closes each entry synchronously; what it writes still waits for the receiver.
        context.Features.GetRequiredFeature<IHttpBodyControlFeature>().AllowSynchronousIO = true;
        return TypedResults.Stream(
            stream => PictureFolderZip.WriteAsync(row.Folder, stream, context.RequestAborted),
            "application/zip",
            $"{(Slug.From(row.Name) is { Length: > 0 } name ? name : "pictures")}.zip"
        );
    }

    private static Task<Results<NoContent, ProblemHttpResult>> ScanAsync(Guid id, FolderOptimiser keeper) =>
        AskAsync(keeper.AskAsync(id, PictureFolderState.Scanning));

    private static Task<Results<NoContent, ProblemHttpResult>> PreviewAsync(
        Guid id,
        PictureFolderRule rule,
        PictureFolderStore store,
        FolderOptimiser keeper,
        CancellationToken cancel
    ) => ByRuleAsync(id, PictureFolderState.Previewing, rule, store, keeper, cancel);

    private static Task<Results<NoContent, ProblemHttpResult>> OptimiseAsync(
        Guid id,
        PictureFolderRule rule,
        PictureFolderStore store,
        FolderOptimiser keeper,
        CancellationToken cancel
    ) => ByRuleAsync(id, PictureFolderState.Optimising, rule, store, keeper, cancel);

    private static Task<Results<NoContent, ProblemHttpResult>> PauseAsync(Guid id, FolderOptimiser keeper) =>
        AskAsync(keeper.AskAsync(id, PictureFolderState.Paused));

    private static Task<Results<NoContent, ProblemHttpResult>> StopAsync(Guid id, FolderOptimiser keeper) =>
        AskAsync(keeper.AskAsync(id, PictureFolderState.Ready));

    private static async Task<Results<NoContent, ProblemHttpResult>> RestoreAsync(
        Guid id,
        PictureFolderRestore restore,
        PictureFolderStore store,
        FolderOptimiser keeper,
        CancellationToken cancel
    )
    {
        if (await store.OneAsync(id, cancel) is not { } row)
        {
            return None();
        }

        // Putting right and putting back at once would keep what is new as an original.
        return row.State is PictureFolderState.Optimising or PictureFolderState.Restoring
            ? Problem.Of(StatusCodes.Status409Conflict, "under-way", FolderTexts.TheFolderIsBeingOptimisedOr)
            : await AskAsync(keeper.AskAsync(id, PictureFolderState.Restoring, paths: restore.Paths));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(
        Guid id,
        PictureFolderStore store,
        FolderOptimiser keeper,
        CancellationToken cancel
    )
    {
        if (!await keeper.AskAsync(id, PictureFolderState.Paused))
        {
            return None();
        }

        return await store.RemoveAsync(id, cancel) ? TypedResults.NoContent() : None();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ByRuleAsync(
        Guid id,
        PictureFolderState state,
        PictureFolderRule rule,
        PictureFolderStore store,
        FolderOptimiser keeper,
        CancellationToken cancel
    )
    {
        if (rule.Fault() is { } fault)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-rule", fault);
        }

        if (await store.OneAsync(id, cancel) is not { } row)
        {
            return None();
        }

        return row.State is PictureFolderState.Scanning or PictureFolderState.Restoring || store.Lists(id).Figures() is null
            ? Problem.Of(StatusCodes.Status409Conflict, "under-way", FolderTexts.TheFolderIsBeingScannedOr)
            : await AskAsync(keeper.AskAsync(id, state, rule));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AskAsync(Task<bool> asked) =>
        await asked ? TypedResults.NoContent() : None();

    private static ProblemHttpResult None() =>
        Problem.Of(StatusCodes.Status404NotFound, "no-such-folder", FolderTexts.ThisFolderIsNotInThe);
}

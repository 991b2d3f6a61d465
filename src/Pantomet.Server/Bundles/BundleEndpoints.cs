using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Bundles;
using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Core.Facts;
using Pantomet.Core.Reports;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Bundles;

/// <summary>One file as it is handed over, or is not.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The slot's address.</param>
/// <param name="Id">Identity of the file.</param>
/// <param name="Descriptor">The density, or the width of the ladder: 2x, 800w.</param>
/// <param name="State">Whether it is handed over.</param>
/// <param name="Path">Its path in the bundle; null before it is made.</param>
/// <param name="ExpectedPath">
/// The path that a file that waits will have; its extension is "…" where the type is found by content. Null for other files, and where the name depends
/// on what the file holds.
/// </param>
/// <param name="Width">Pixels across.</param>
/// <param name="Height">Pixels down.</param>
/// <param name="Format">Its type.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Verdict">The verdict.</param>
/// <param name="Allowed">True when it breaks a limit and is handed over anyway.</param>
/// <param name="Reasons">Why it is not handed over, or which aims were not met.</param>
public sealed record HandOverFile(
    Guid Picture,
    string Slot,
    string Id,
    string Descriptor,
    HandOver State,
    string? Path,
    string? ExpectedPath,
    int Width,
    int Height,
    string? Format,
    long? Bytes,
    Verdict Verdict,
    bool Allowed,
    IReadOnlyList<Reason> Reasons
);

/// <summary>What is handed over of a job.</summary>
/// <param name="Name">The bundle's name.</param>
/// <param name="Files">Every file.</param>
/// <param name="Asks">Pictures that have nothing but a camera's number for a name.</param>
/// <param name="Going">How many files are handed over.</param>
/// <param name="Bytes">What they weigh together.</param>
/// <param name="OriginalBytes">What the originals would weigh in their places: each as often as a file of it goes out.</param>
public sealed record HandOverView(
    string Name,
    IReadOnlyList<HandOverFile> Files,
    IReadOnlyList<Guid> Asks,
    int Going,
    long Bytes,
    long OriginalBytes
);

/// <summary>Where a bundle was written.</summary>
/// <param name="Folder">The folder on this machine.</param>
/// <param name="Files">How many files it holds.</param>
public sealed record WrittenFolder(string Folder, int Files);

/// <summary>Names and handing over.</summary>
internal static class BundleEndpoints
{
    public static void Map(IEndpointRouteBuilder routes)
    {
        var job = routes
            .MapGroup("/api/jobs/{id:guid}")
            .NeedsRight(Right.Look)
            .WithTags("Handing over")
            .ProducesProblem(StatusCodes.Status404NotFound);
        job.MapGet("/hand-over", GetAsync)
            .WithName("getHandOver")
            .WithSummary("Which files are handed over, under which names, and which are not, and why.");
        job.MapGet("/bundle.zip", ZipAsync)
            .WithName("getBundle")
            .NeedsRight(Right.Publish)
            .Logged()
            .WithSummary("All files that are handed over, as a ZIP.")
            .ProducesProblem(StatusCodes.Status409Conflict);
        job.MapPost("/folder", FolderAsync)
            .WithName("writeFolder")
            .NeedsRight(Right.UseFolders)
            .WithSummary("The same as a folder in the data folder.")
            .ProducesProblem(StatusCodes.Status409Conflict);
        job.MapGet("/report.json", ReportJsonAsync).WithName("getReport").WithSummary("The report.");
        job.MapGet("/contact-sheet.html", ContactSheetAsync)
            .WithName("getContactSheet")
            .WithSummary(
                "Every file as a picture with its place, pixels, weight and verdict, and what is missing: one page that holds everything itself."
            );
        job.MapGet("/export.zip", ExportAsync)
            .WithName("exportJob")
            .NeedsRight(Right.Publish)
            .Logged()
            .WithSummary("The job as open files: its originals, rules, marks, decisions and the report.");
        job.MapGet("/report.csv", ReportCsvAsync).WithName("getReportTable").WithSummary("The report as a table.");
    }

    private static async Task<Results<Ok<HandOverView>, ProblemHttpResult>> GetAsync(
        Guid id,
        BundleReader bundles,
        CancellationToken cancel
    ) => await bundles.OfJobAsync(id, cancel) is { } contents ? TypedResults.Ok(View(contents)) : Problem.NoJob();

    private static async Task<IResult> ZipAsync(
        Guid id,
        JobRoom room,
        BundleWriter writer,
        BundleReader bundles,
        HttpContext context,
        CancellationToken cancel
    )
    {
        if (await bundles.OfJobAsync(id, cancel) is not { } contents)
        {
            return Problem.NoJob();
        }

        if (Unnamed(contents) is { } refusal)
        {
            return refusal;
        }

        // The framework's zip closes each entry synchronously; what it writes still waits for the receiver.
        context.Features.GetRequiredFeature<IHttpBodyControlFeature>().AllowSynchronousIO = true;
        return TypedResults.Stream(
            stream => writer.WriteZipAsync(contents, stream, context.RequestAborted),
            "application/zip",
            $"{BundleWriter.NameOf(contents)}.zip"
        );
    }

    private static async Task<Results<Ok<WrittenFolder>, ProblemHttpResult>> FolderAsync(
        Guid id,
        JobRoom room,
        BundleWriter writer,
        BundleReader bundles,
        CancellationToken cancel
    )
    {
        if (await bundles.OfJobAsync(id, cancel) is not { } contents)
        {
            return Problem.NoJob();
        }

        if (Unnamed(contents) is { } refusal)
        {
            return refusal;
        }

        var (folder, files) = await writer.WriteFolderAsync(contents, cancel);
        return TypedResults.Ok(new WrittenFolder(folder, files));
    }

    private static async Task<IResult> ReportJsonAsync(Guid id, BundleReader bundles, CancellationToken cancel) =>
        await bundles.OfJobAsync(id, cancel) is { } contents
            ? TypedResults.File(
                Encoding.UTF8.GetBytes(contents.Report().ToJson()),
                "application/json",
                $"{BundleWriter.NameOf(contents)}-report.json"
            )
            : Problem.NoJob();

    private static async Task<IResult> ReportCsvAsync(Guid id, BundleReader bundles, CancellationToken cancel) =>
        await bundles.OfJobAsync(id, cancel) is { } contents
            ? TypedResults.File(
                Encoding.UTF8.GetBytes(ReportTable.Of(contents.Report())),
                "text/csv; charset=utf-8",
                $"{BundleWriter.NameOf(contents)}-report.csv"
            )
            : Problem.NoJob();

    private static async Task<IResult> ContactSheetAsync(
        Guid id,
        BundleReader bundles,
        ContactSheetWriter writer,
        HttpContext context,
        CancellationToken cancel,
        [FromQuery(Name = "picture")] Guid[]? pictures = null
    ) =>
        await bundles.OfJobAsync(id, cancel) is { } contents
            ? TypedResults.Stream(
                stream =>
                    writer.WriteAsync(
                        contents,
                        pictures is { Length: > 0 } chosen ? chosen.ToHashSet() : null,
                        stream,
                        context.RequestAborted
                    ),
                "text/html; charset=utf-8",
                $"{BundleWriter.NameOf(contents)}-contact-sheet.html"
            )
            : Problem.NoJob();

    private static async Task<IResult> ExportAsync(
        Guid id,
        JobRoom room,
        BundleReader bundles,
        JobExport export,
        HttpContext context,
        CancellationToken cancel
    )
    {
        if (await room.OpenAsync(id, cancel) is not { } board)
        {
            return Problem.NoJob();
        }

        var contents = await bundles.OfAsync(board, cancel);
        context.Features.GetRequiredFeature<IHttpBodyControlFeature>().AllowSynchronousIO = true;
        return TypedResults.Stream(
            stream => export.WriteAsync(contents, board, stream, context.RequestAborted),
            "application/zip",
            $"{BundleWriter.NameOf(contents)}-export.zip"
        );
    }

    /// <summary>Why a job cannot be handed over; null when it can.</summary>
    internal static ProblemHttpResult? Unnamed(BundleContents contents) =>
        contents.Asks.Count > 0
            ? Problem.Of(
                StatusCodes.Status409Conflict,
                "needs-names",
                JobTexts.OnlyACamerasNumberForA(
                    contents.Asks.Count,
                    (contents.Asks.Count == 1 ? JobTexts.PictureHas : JobTexts.PicturesHave)
                )
            )
        : !contents.Going.Any() ? Problem.Of(StatusCodes.Status409Conflict, "nothing-to-hand-over", JobTexts.NoFileIsReadyToBe)
        : null;

    private static HandOverView View(BundleContents contents) =>
        new(
            BundleWriter.NameOf(contents),
            [.. contents.Files.Select(View)],
            contents.Asks,
            contents.Going.Count(),
            contents.Going.Sum(file => file.File.Row!.Bytes),
            contents.Going.Sum(file => file.Cell.Picture.Bytes)
        );

    private static HandOverFile View(BundleFile file)
    {
        var (row, plan) = (file.File.Row, file.File.Wanted.Request.Plan);
        return new(
            file.Cell.Picture.Id,
            file.Cell.Place.Address,
            file.File.Wanted.Id,
            file.Descriptor.ToString(),
            file.State,
            file.Path,
            file.ExpectedPath,
            row?.Width ?? plan.Size.Width,
            row?.Height ?? plan.Size.Height,
            row?.Format.Word(),
            row?.Bytes,
            file.File.Verdict,
            file.File.Allowed,
            file.Reasons
        );
    }
}

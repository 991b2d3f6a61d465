using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Bundles;
using Pantomet.Application.Jobs;
using Pantomet.Application.Pages;
using Pantomet.Core.Accounts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Markup;
using Pantomet.Core.Naming;
using Pantomet.Core.Responsive;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Pages;

/// <summary>One picture in one place of a page.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Destination">The destination's key.</param>
/// <param name="Key">The name of the group, or the key of a slot of its own.</param>
/// <param name="Name">The name for people.</param>
/// <param name="Slots">Addresses of its slots.</param>
/// <param name="Html">The element; null where there is nothing to show.</param>
/// <param name="Waiting">The same with the colour and the placeholder until the file is there.</param>
/// <param name="Css">A rule that shows it as a background.</param>
/// <param name="Mail">An element for a mail; null where no file of a type for mail goes out.</param>
/// <param name="Placeholder">The placeholder as a data address.</param>
/// <param name="Colour">The colour that continues its edge.</param>
/// <param name="Reasons">What is missing.</param>
public sealed record PageView(
    Guid Picture,
    string Destination,
    string Key,
    string Name,
    IReadOnlyList<string> Slots,
    string? Html,
    string? Waiting,
    string? Css,
    string? Mail,
    string? Placeholder,
    string? Colour,
    IReadOnlyList<Reason> Reasons
);

/// <summary>The file that a browser loads.</summary>
/// <param name="Viewport">The width of the viewport, in CSS pixels.</param>
/// <param name="Density">The density of the screen.</param>
/// <param name="Slot">The slot that is shown.</param>
/// <param name="Address">The file's address.</param>
/// <param name="Width">The file's pixels across.</param>
/// <param name="Needed">The pixels that are needed.</param>
/// <param name="Waste">The share of the file's pixels that are not used.</param>
/// <param name="Bytes">The file's weight.</param>
public sealed record BrowserLoad(
    int Viewport,
    decimal Density,
    string Slot,
    string Address,
    int Width,
    int Needed,
    double Waste,
    long Bytes
);

/// <summary>How pages show a job's pictures.</summary>
internal static class PageEndpoints
{
    private const int MostAsked = 40;

    public static void Map(IEndpointRouteBuilder routes)
    {
        var job = routes
            .MapGroup("/api/jobs/{id:guid}")
            .NeedsRight(Right.Look)
            .WithTags("Pages")
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status400BadRequest);
        job.MapGet("/pages", GetAsync).WithName("getPages").WithSummary("HTML and CSS for the pictures of the job, or for one of them.");
        job.MapGet("/pages.html", TextAsync).WithName("getPagesText").WithSummary("The elements of all pictures as one text.");
        job.MapGet("/loads", ForetoldAsync)
            .WithName("getLoads")
            .WithSummary("Which file a browser loads of a picture, by viewport and density.");
    }

    private static async Task<Results<Ok<IReadOnlyList<PageView>>, ProblemHttpResult>> GetAsync(
        Guid id,
        Guid? picture,
        string? @base,
        BundleReader bundles,
        DataFolder folder,
        CancellationToken cancel
    )
    {
        if (Address(@base, out var address) is { } fault)
        {
            return fault;
        }

        return await PagesAsync(id, picture, address, bundles, folder, cancel) is { } pages
            ? TypedResults.Ok<IReadOnlyList<PageView>>([.. pages.Select(View)])
            : Problem.NoJob();
    }

    private static async Task<IResult> TextAsync(Guid id, string? @base, BundleReader bundles, DataFolder folder, CancellationToken cancel)
    {
        if (Address(@base, out var address) is { } fault)
        {
            return fault;
        }

        return await PagesAsync(id, null, address, bundles, folder, cancel) is { } pages
            ? TypedResults.Text(AllOf(pages), "text/plain; charset=utf-8", Encoding.UTF8)
            : Problem.NoJob();
    }

    private static async Task<Results<Ok<IReadOnlyList<BrowserLoad>>, ProblemHttpResult>> ForetoldAsync(
        Guid id,
        Guid picture,
        string place,
        string? @base,
        int[] viewports,
        decimal[] densities,
        BundleReader bundles,
        DataFolder folder,
        CancellationToken cancel
    )
    {
        if (
            viewports.Length * densities.Length > MostAsked * MostAsked
            || viewports.Any(viewport => viewport is < 1 or > ViewportRanges.Widest)
            || densities.Any(density => density is <= 0 or > Density.Most)
        )
        {
            return Problem.Of(
                StatusCodes.Status400BadRequest,
                "bad-viewport",
                JobTexts.ViewportsMustBeWholeCSSPixels2(Density.Most, MostAsked * MostAsked)
            );
        }

        if (Address(@base, out var address) is { } fault)
        {
            return fault;
        }

        if (await PagesAsync(id, picture, address, bundles, folder, cancel) is not { } pages)
        {
            return Problem.NoJob();
        }

        return pages.FirstOrDefault(page => $"{page.Place.Destination}/{page.Place.Key}" == place)?.Picture is { } shown
            ? TypedResults.Ok<IReadOnlyList<BrowserLoad>>([
                .. viewports.SelectMany(viewport => densities.Select(density => Taken(shown, viewport, density))),
            ])
            : Problem.Of(StatusCodes.Status404NotFound, "nothing-to-show", JobTexts.ThisPictureHasNoFileFor);
    }

    private static BrowserLoad Taken(MarkupPicture picture, int viewport, decimal density)
    {
        var taken = Foretold.Of(picture, viewport, new(density));
        return new(
            viewport,
            density,
            taken.Slot.Slot.Key,
            taken.File.Address,
            taken.File.Size.Width,
            taken.Needed,
            Ladder.Waste(taken.File.Size.Width, taken.Needed),
            taken.File.Bytes
        );
    }

    private static async Task<IReadOnlyList<JobPage>?> PagesAsync(
        Guid id,
        Guid? picture,
        string address,
        BundleReader bundles,
        DataFolder folder,
        CancellationToken cancel
    ) => await bundles.OfJobAsync(id, cancel) is { } contents ? await JobPages.OfAsync(contents, address, folder, picture, cancel) : null;

    private static ProblemHttpResult? Address(string? text, out string address) =>
        BaseAddress.TryParse(text ?? "", out address, out var error)
            ? null
            : Problem.Of(StatusCodes.Status400BadRequest, "bad-address", $"{char.ToUpperInvariant(error![0])}{error[1..]}.", "base");

    private static string AllOf(IReadOnlyList<JobPage> pages)
    {
        var text = new StringBuilder();
        foreach (var page in pages.Where(page => page.Picture is not null))
        {
            text.Append("<!-- ")
                .Append(Slug.From(page.Row.Name))
                .Append(", ")
                .Append(page.Place.Destination)
                .Append('/')
                .Append(page.Place.Key)
                .Append(" -->\n")
                .Append(HtmlWriter.Page(page.Picture!))
                .Append("\n\n");
        }

        return text.ToString();
    }

    private static PageView View(JobPage page) =>
        new(
            page.Row.Id,
            page.Place.Destination,
            page.Place.Key,
            page.Place.IsGroup ? page.Place.Key : page.Place.Slots[0].Name,
            [.. page.Place.Slots.Select(slot => $"{page.Place.Destination}/{slot.Key}")],
            page.Picture is null ? null : HtmlWriter.Page(page.Picture),
            page.Picture is null ? null : HtmlWriter.Page(page.Picture, withPlaceholder: true),
            page.Picture is null ? null : CssWriter.Background(page.Picture),
            page.Picture is null ? null : HtmlWriter.Mail(page.Picture),
            page.Picture?.Placeholder,
            page.Picture?.Edge?.ToString(),
            page.Reasons
        );
}

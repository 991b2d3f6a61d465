using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Destinations;
using Pantomet.Core.Accounts;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Dressing;
using Pantomet.Server.Accounts;

namespace Pantomet.Server.Fonts;

/// <summary>A font that titles can be set in.</summary>
/// <param name="Family">The family's name, or that of a font's file which somebody added.</param>
/// <param name="Weight">100 to 900.</param>
public sealed record FontView(string Family, int Weight);

/// <summary>The fonts that titles are set in, for a list and for drawing words with them on the screen.</summary>
internal static class FontEndpoints
{
    /// <summary>Adds the addresses.</summary>
    public static void Map(IEndpointRouteBuilder routes)
    {
        var fonts = routes.MapGroup("/api/fonts").NeedsRight(Right.Look).WithTags("fonts");
        fonts
            .MapGet(
                "/",
                async (SideFileStore store, CancellationToken cancel) =>
                    FontStore
                        .All.Select(font => new FontView(font.Family, font.Weight))
                        .Concat(
                            from own in await store.AllAsync(cancel)
                            where SideFile.Fault(own.Name, SideFile.FontEndings) is null
                            select new FontView(own.Name, FontStore.Find(own.Content, 0)?.Weight ?? 400)
                        )
                        .ToList()
            )
            .WithName("listFonts")
            .WithSummary("Every font that titles can be set in, by family and weight.");
        fonts.MapGet("/{family}/{weight:int}", File).WithName("getFont").WithSummary("The file of a font, the nearest to the weight.");
    }

    private static async Task<Results<PhysicalFileHttpResult, NotFound>> File(
        string family,
        int weight,
        SideFileStore store,
        CancellationToken cancel
    ) =>
        FontStore.Find((await store.NamesAsync(cancel)).NameOf(family), weight) is { } font
            ? TypedResults.PhysicalFile(font.Path, "font/ttf")
            : TypedResults.NotFound();
}

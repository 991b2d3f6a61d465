using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Imaging.Dressing;

namespace Pantomet.Server.Fonts;

/// <summary>A font that titles can be set in.</summary>
/// <param name="Family">The family's name.</param>
/// <param name="Weight">100 to 900.</param>
public sealed record FontView(string Family, int Weight);

/// <summary>The fonts that titles are set in, for a list and for drawing words with them on the screen.</summary>
public static class FontEndpoints
{
    /// <summary>Adds the addresses.</summary>
    public static void Map(IEndpointRouteBuilder routes)
    {
        var fonts = routes.MapGroup("/api/fonts").WithTags("fonts");
        fonts
            .MapGet("/", () => FontShelf.All.Select(font => new FontView(font.Family, font.Weight)).ToList())
            .WithName("listFonts")
            .WithSummary("Every font that titles can be set in, by family and weight.");
        fonts.MapGet("/{family}/{weight:int}", File).WithName("getFont").WithSummary("The file of a font, the nearest to the weight.");
    }

    private static Results<PhysicalFileHttpResult, NotFound> File(string family, int weight) =>
        FontShelf.Find(family, weight) is { } font ? TypedResults.PhysicalFile(font.Path, "font/ttf") : TypedResults.NotFound();
}

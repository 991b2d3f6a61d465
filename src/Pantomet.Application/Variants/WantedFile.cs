using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Recipes;
using Pantomet.Core.Rules;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Variants;

/// <summary>One file that is wanted: its recipe, and what it is made from.</summary>
/// <param name="Id">The recipe's identity.</param>
/// <param name="Recipe">Everything it depends on.</param>
/// <param name="Picture">The original.</param>
/// <param name="Slot">The slot.</param>
/// <param name="Request">The plan, and what was chosen by hand.</param>
public sealed record WantedFile(string Id, Recipe Recipe, PictureRow Picture, Slot Slot, FileRequest Request)
{
    /// <summary>What it is wanted as, whatever version makes it; worked out when it is asked for.</summary>
    public string Want => Recipe.Want;

    /// <summary>The file that a slot asks for of a picture.</summary>
    public static WantedFile Of(PictureRow picture, Turn turn, Slot slot, string bytesKey, FileRequest request)
    {
        var recipe = Recipe.Of(picture.ContentHash, turn, request.Plan, bytesKey, request.Format, request.Quality);
        return new(recipe.Id, recipe, picture, slot, request);
    }

    /// <summary>A file of pictures side by side.</summary>
    /// <param name="pair">Their entry in the library.</param>
    /// <param name="parts">Each original and how it is turned, from left to right.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="bytesKey">The slot's rule as far as bytes depend on it.</param>
    /// <param name="request">The plan, with parts.</param>
    public static WantedFile OfPair(
        PictureRow pair,
        IReadOnlyList<(string Content, Turn Turn)> parts,
        Slot slot,
        string bytesKey,
        FileRequest request
    )
    {
        var recipe = Recipe.OfPair(parts, request.Plan, bytesKey, request.Format, request.Quality);
        return new(recipe.Id, recipe, pair, slot, request);
    }
}

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
/// <param name="Wish">The plan, and what was chosen by hand.</param>
internal sealed record WantedFile(string Id, Recipe Recipe, PictureRow Picture, Slot Slot, Wish Wish)
{
    /// <summary>What it is wanted as, whatever version makes it; worked out when it is asked for.</summary>
    public string Want => Recipe.Want;

    public static WantedFile Of(PictureRow picture, Turn turn, Slot slot, string bytesKey, Wish wish)
    {
        var recipe = Recipe.Of(picture.ContentHash, turn, wish.Plan, bytesKey, wish.Format, wish.Quality);
        return new(recipe.Id, recipe, picture, slot, wish);
    }
}

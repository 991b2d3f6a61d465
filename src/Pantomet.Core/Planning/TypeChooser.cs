using Pantomet.Core.Facts;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Planning;

/// <summary>Which file types come into question for a picture in a slot.</summary>
public static class TypeChooser
{
    // Every type that browsers show and that is written here.
    private static readonly PictureFormat[] Written = [PictureFormat.Jpeg, PictureFormat.Png, PictureFormat.WebP, PictureFormat.Avif];

    /// <summary>
    /// The types, each once: those the slot names, in its order; where it leaves the choice to the content and names none, all that are
    /// written. A choice by content never loses the transparency where a type can keep it.
    /// </summary>
    /// <param name="slot">The slot.</param>
    /// <param name="transparent">True when something shows through.</param>
    public static IReadOnlyList<PictureFormat> Resolve(Slot slot, bool transparent)
    {
        ArgumentNullException.ThrowIfNull(slot);
        IReadOnlyList<PictureFormat> types = slot.Formats.Count > 0 ? slot.Formats : Written;
        return slot.ByContent && transparent && types.Any(type => type != PictureFormat.Jpeg)
            ? [.. types.Where(type => type != PictureFormat.Jpeg)]
            : types;
    }
}

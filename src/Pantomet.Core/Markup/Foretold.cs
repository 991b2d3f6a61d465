using Pantomet.Core.Geometry;
using Pantomet.Core.Responsive;

namespace Pantomet.Core.Markup;

/// <summary>What a browser takes of a picture's markup.</summary>
/// <param name="Slot">The slot that is shown.</param>
/// <param name="File">The file.</param>
/// <param name="Needed">The width that is needed, in pixels.</param>
public sealed record Foretold(MarkupSlot Slot, MarkupFile File, int Needed)
{
    /// <summary>
    /// What a browser takes that knows every type and has nothing loaded yet: the slot whose condition holds, its first type, and of that the
    /// narrowest file that is wide enough, else the widest. The standard leaves the last to the browser; checked against one in the tests.
    /// </summary>
    /// <param name="picture">The picture.</param>
    /// <param name="viewport">The width of the viewport in CSS pixels.</param>
    /// <param name="density">The density of the screen.</param>
    public static Foretold Of(MarkupPicture picture, int viewport, Density density)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var slot = picture.Slots.FirstOrDefault(one => one.Slot.Media?.Holds.Contains(viewport) ?? true) ?? picture.Slots[^1];
        var files = slot.ByType[0];
        if (slot.Slot.Responsive is { } rule)
        {
            var need = Needs.Of(rule.Sizes.WidthAt(viewport), density);
            var taken = Ladder.Taken([.. files.Select(file => file.Size.Width)], need);
            return new(slot, files.First(file => file.Size.Width == taken), need);
        }

        return new(
            slot,
            files.FirstOrDefault(file => slot.DensityOf(file) >= density.Value) ?? files[^1],
            Needs.Of(slot.Shown.Width, density)
        );
    }
}

using Pantomet.Core.Facts;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Planning;

/// <summary>Chooses file types by content where a slot leaves it to that.</summary>
public static class TypeChooser
{
    /// <summary>The types to try, in order, each once.</summary>
    /// <param name="types">What the slot takes.</param>
    /// <param name="kind">Photograph or flat graphic.</param>
    /// <param name="transparent">True when something shows through.</param>
    public static IReadOnlyList<PictureFormat> Resolve(IReadOnlyList<SlotType> types, PictureKind kind, bool transparent)
    {
        ArgumentNullException.ThrowIfNull(types);
        return [.. types.SelectMany(type => type.Format is { } format ? [format] : ByContent(kind, transparent)).Distinct()];
    }

    // Common practice: JPEG for photographs, PNG where there is transparency or few colours. The second type of each is for weights
    // that the first cannot reach; it never loses the transparency.
    private static PictureFormat[] ByContent(PictureKind kind, bool transparent) =>
        (kind, transparent) switch
        {
            (PictureKind.FlatGraphic, _) => [PictureFormat.Png, PictureFormat.WebP],
            (_, true) => [PictureFormat.WebP, PictureFormat.Png],
            _ => [PictureFormat.Jpeg, PictureFormat.WebP],
        };
}

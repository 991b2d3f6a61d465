using System.Globalization;
using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Variants;

/// <summary>A file that was made. Its figures are those of the very bytes that are downloaded.</summary>
/// <param name="Id">Identity in addresses.</param>
/// <param name="Name">The name it is handed over under.</param>
/// <param name="Format">jpeg, png, webp, avif.</param>
/// <param name="FormatLabel">JPEG, PNG, WebP, AVIF.</param>
/// <param name="Width">Pixels across.</param>
/// <param name="Height">Pixels down.</param>
/// <param name="Bytes">Weight.</param>
/// <param name="Quality">1 to 100; null where the type has none.</param>
/// <param name="Likeness">0 to 1: how much it looks like the same pixels uncompressed.</param>
/// <param name="LikenessWord">The same as people read it.</param>
/// <param name="WorstPlace">Where it differs most, in pixels of the file: left, top, right, bottom.</param>
/// <param name="Encodes">How many trial encodes it took.</param>
/// <param name="Dress">What became of what is drawn over the picture; null where nothing is.</param>
/// <param name="Sha256">Hash of the file, lower-case hexadecimal.</param>
public sealed record VariantFileView(
    string Id,
    string Name,
    string Format,
    string FormatLabel,
    int Width,
    int Height,
    long Bytes,
    int? Quality,
    double? Likeness,
    LikenessWord? LikenessWord,
    IReadOnlyList<int>? WorstPlace,
    int Encodes,
    DressView? Dress,
    string Sha256
)
{
    /// <summary>The view of a file under a name.</summary>
    public static VariantFileView Of(VariantRow row, string name)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new(
            row.Id,
            name,
            row.Format.Word(),
            row.Format.Label(),
            row.Width,
            row.Height,
            row.Bytes,
            row.Quality,
            row.Likeness,
            row.Likeness is { } score ? Core.Likeness.Likeness.WordFor(score) : null,
            row.Worst is { } worst ? [worst.Left, worst.Top, worst.Right, worst.Bottom] : null,
            row.Encodes,
            DressView.Of(VariantStore.DressedOf(row)),
            row.ContentHash
        );
    }
}

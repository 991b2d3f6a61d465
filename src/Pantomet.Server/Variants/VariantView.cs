using System.Globalization;
using System.Text.Json;
using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Core.Verdicts;
using Pantomet.Data.Variants;

namespace Pantomet.Server.Variants;

/// <summary>A wish for one variant.</summary>
/// <param name="PictureId">The picture.</param>
/// <param name="Destination">The destination's key.</param>
/// <param name="Slot">The slot's key.</param>
/// <param name="Density">One of the slot's densities.</param>
/// <param name="Format">A type chosen by hand (jpeg, png, webp, avif); null leaves it to the slot.</param>
/// <param name="Quality">A quality chosen by hand, 1 to 100; null finds it automatically.</param>
public sealed record VariantWish(Guid PictureId, string Destination, string Slot, decimal Density, string? Format, int? Quality);

/// <summary>What came of a wish: a file, or the reasons why there is none.</summary>
/// <param name="Verdict">The verdict.</param>
/// <param name="Reasons">Why.</param>
/// <param name="File">The file, when one was made.</param>
public sealed record VariantView(Verdict Verdict, IReadOnlyList<Reason> Reasons, VariantFileView? File)
{
    /// <summary>The view of a stored variant.</summary>
    public static VariantView Of(VariantRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new(
            row.Verdict, JsonSerializer.Deserialize<List<Reason>>(row.Reasons) ?? [],
            new(row.Id, row.FileName, row.Format.Word(), row.Format.Label(), row.Width, row.Height, row.Bytes, row.Quality,
                row.Likeness, row.Likeness is { } score ? Likeness.WordFor(score) : null, row.WorstPlace?.Split(',').Select(edge => int.Parse(edge, CultureInfo.InvariantCulture)).ToArray(),
                row.Encodes, row.ContentHash));
    }
}

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
/// <param name="Sha256">Hash of the file, lower-case hexadecimal.</param>
public sealed record VariantFileView(
    string Id, string Name, string Format, string FormatLabel, int Width, int Height, long Bytes, int? Quality, double? Likeness, LikenessWord? LikenessWord,
    IReadOnlyList<int>? WorstPlace, int Encodes, string Sha256);

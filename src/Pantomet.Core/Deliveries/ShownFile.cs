using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;

namespace Pantomet.Core.Deliveries;

/// <summary>A file that a receiver shows of one that it was given.</summary>
/// <param name="Address">Where it shows it.</param>
/// <param name="Bytes">Its weight; null where it could not be fetched.</param>
/// <param name="Format">Its type; null where it is no picture.</param>
/// <param name="Width">Pixels across; null where it is no picture.</param>
/// <param name="Height">Pixels down; null where it is no picture.</param>
/// <param name="Quality">The quality that its tables stand for; null for other types than JPEG.</param>
/// <param name="IsSame">True where it is the file, byte for byte.</param>
/// <param name="Likeness">How much it looks like the picture's own pixels at its size, 0 to 1; null where it shows another part of it.</param>
/// <param name="Trouble">Why it could not be looked at, or what is odd about it: a sentence.</param>
public sealed record ShownFile(
    string Address,
    long? Bytes = null,
    PictureFormat? Format = null,
    int? Width = null,
    int? Height = null,
    int? Quality = null,
    bool IsSame = false,
    double? Likeness = null,
    string? Trouble = null
)
{
    /// <summary>What people read instead of the likeness; null where there is none.</summary>
    public LikenessWord? LikenessWord => Likeness is { } likeness ? Core.Likeness.Likeness.WordFor(likeness) : null;
}

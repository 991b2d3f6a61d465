using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.PageChecks;

/// <summary>A file that was made for a place.</summary>
/// <param name="Format">Its type.</param>
/// <param name="Size">Its pixels.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Likeness">How much it looks like the same pixels uncompressed, 0 to 1; null where it was not measured.</param>
public sealed record MadeFile(PictureFormat Format, PixelSize Size, long Bytes, double? Likeness);

/// <summary>What was made for a place.</summary>
/// <param name="Place">The place.</param>
/// <param name="Same">The file in the type that the page has now; null where none could be made or it was not asked for.</param>
/// <param name="Lightest">The lightest of any type that browsers show; null where none could be made.</param>
/// <param name="Path">Where the lightest lies in the folder that is kept; null where none is.</param>
public sealed record PossibleFile(PossiblePlace Place, MadeFile? Same, MadeFile? Lightest, string? Path = null)
{
    /// <summary>What its screens would load: the lightest, or what there is where nothing is lighter.</summary>
    /// <param name="now">What they load now, in bytes.</param>
    public long BytesBeside(long now) => Math.Min(now, Lightest?.Bytes ?? now);
}

using NetVips;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Writing;

/// <summary>Pixels as they are, quickly written, for a browser on the same machine to compare with.</summary>
public static class LosslessPng
{
    /// <summary>A lossless PNG with little compression: speed counts, not weight.</summary>
    public static byte[] Write(RenderedPixels pixels)
    {
        ArgumentNullException.ThrowIfNull(pixels);
        return pixels.Image.PngsaveBuffer(compression: 1, filter: Enums.ForeignPngFilter.Sub, keep: Enums.ForeignKeep.None);
    }
}

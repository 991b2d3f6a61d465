using NetVips;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Writing;

/// <summary>Pixels as they are, quickly written, for a browser on the same machine to compare with.</summary>
public static class LosslessPng
{
    /// <summary>A lossless PNG with little compression: speed counts, not weight.</summary>
    /// <param name="pixels">The pixels.</param>
    /// <param name="compression">0 for none, to 9.</param>
    public static byte[] Write(RenderedPixels pixels, int compression = 1)
    {
        ArgumentNullException.ThrowIfNull(pixels);
        return pixels.Image.PngsaveBuffer(
            compression: compression,
            filter: compression == 0 ? Enums.ForeignPngFilter.None : Enums.ForeignPngFilter.Sub,
            keep: Enums.ForeignKeep.None
        );
    }
}

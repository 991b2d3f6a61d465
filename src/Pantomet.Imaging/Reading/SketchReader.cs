using NetVips;
using Pantomet.Core.Likeness;

namespace Pantomet.Imaging.Reading;

/// <summary>Reads a picture as a sketch.</summary>
public static class SketchReader
{
    /// <summary>The mean colours of a picture's cells, laid on white: <see cref="PictureSketch.Length"/> bytes.</summary>
    /// <param name="path">The picture, or a small copy of it that lies upright in sRGB.</param>
    /// <exception cref="VipsException">It cannot be read.</exception>
    public static byte[] Read(string path)
    {
        using var small = Image.Thumbnail(path, PictureSketch.Side, height: PictureSketch.Side, size: Enums.Size.Force);
        using var colour = small.Colourspace(Enums.Interpretation.Srgb);
        using var flat = colour.HasAlpha() ? colour.Flatten(background: [255, 255, 255]) : colour.Copy();
        using var three = flat.ExtractBand(0, n: 3);
        using var bytes = three.Cast(Enums.BandFormat.Uchar);
        return bytes.WriteToMemory<byte>();
    }
}

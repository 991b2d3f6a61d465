using NetVips;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Writing;

/// <summary>Writes pixels as files. Nothing of the original's tags is carried over; the density label is written as asked.</summary>
public sealed class VariantEncoder : IDisposable
{
    private const double MillimetresToInch = 25.4;

    /// <summary>The label that is written when a slot asks for none (common practice).</summary>
    private const double UsualPpi = 72;

    private readonly Image _image;
    private readonly double _ppi;
    private Image? _opaque;

    /// <summary>Prepares to encode.</summary>
    /// <param name="pixels">The pixels; they must outlive this.</param>
    /// <param name="background">What transparency is laid on where the type has none; null means white.</param>
    /// <param name="ppi">The density label in pixels for an inch; null writes 72.</param>
    public VariantEncoder(RenderedPixels pixels, Background? background, double? ppi)
    {
        ArgumentNullException.ThrowIfNull(pixels);
        _ppi = ppi ?? UsualPpi;
        var label = _ppi / MillimetresToInch;
        _image = pixels.Image.Copy(xres: label, yres: label);
        Flattened = pixels.HasAlpha;
        Fill = background is null ? Rgb.White : background.Colour ?? VariantRenderer.EdgeColour(pixels);
    }

    /// <summary>True when writing a type without transparency lays it on a background.</summary>
    public bool Flattened { get; }

    private Rgb Fill { get; }

    private Image Opaque => _opaque ??= Flattened ? Flatten() : _image;

    /// <summary>A JPEG from the dear encoder: trellis quantisation, optimised progressive scans.</summary>
    /// <param name="quality">1 to 100.</param>
    public byte[] Jpeg(int quality) => JfifLabel.Write(
        Opaque.JpegsaveBuffer(
            q: quality, optimizeCoding: true, interlace: true, trellisQuant: true, overshootDeringing: true, optimizeScans: true,
            quantTable: 3, keep: Enums.ForeignKeep.None),
        _ppi);

    /// <summary>The weight of a plain JPEG with the same tables: a twenty-fifth of the work, and it moves with the dear one's.</summary>
    /// <param name="quality">1 to 100.</param>
    public long CheapJpegWeight(int quality) =>
        Opaque.JpegsaveBuffer(q: quality, quantTable: 3, keep: Enums.ForeignKeep.None).LongLength + JfifLabel.Length;

    /// <summary>A lossless PNG.</summary>
    public byte[] Png() => _image.PngsaveBuffer(compression: 9, filter: Enums.ForeignPngFilter.All, keep: Enums.ForeignKeep.None);

    /// <summary>A PNG with a palette of at most 256 colours, dithered.</summary>
    public byte[] PalettePng() => _image.PngsaveBuffer(compression: 9, palette: true, q: 100, dither: 1, effort: 7, keep: Enums.ForeignKeep.None);

    /// <summary>Frees what this made; the pixels stay.</summary>
    public void Dispose()
    {
        _opaque?.Dispose();
        _image.Dispose();
    }

    private Image Flatten()
    {
        using var flat = _image.Flatten(background: [Fill.Red, Fill.Green, Fill.Blue]);
        return flat.CopyMemory();
    }
}

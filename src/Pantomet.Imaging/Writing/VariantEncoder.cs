using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Writing;

/// <summary>Writes pixels as files of each type. The density label is written as asked; tags and profile as the slot says.</summary>
public sealed class VariantEncoder : IDisposable
{
    internal const double MillimetresToInch = 25.4;

    /// <summary>The label that is written when a slot asks for none (common practice).</summary>
    private const double UsualPpi = 72;

    private readonly Image _image;
    private readonly Enums.ForeignKeep _keep;
    private readonly Enums.ForeignKeep _keepWithLabel;
    private readonly double _ppi;
    private readonly Rgb _fill;
    private Image? _opaque;

    /// <summary>Prepares to encode. WebP and AVIF have no place for a density label but EXIF, which is written where a slot asks for one.</summary>
    /// <param name="pixels">The pixels; they must outlive this.</param>
    /// <param name="slot">The slot: its background, density label, tags and profile.</param>
    /// <param name="facts">The picture's facts.</param>
    public VariantEncoder(RenderedPixels pixels, Slot slot, PictureFacts facts)
    {
        ArgumentNullException.ThrowIfNull(pixels);
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(facts);
        _ppi = slot.Ppi ?? UsualPpi;
        var keepsProfile = slot.Profile == ProfileRule.Keep && facts.Colours != "CMYK";
        (_image, _keep) = TagRules.Apply(pixels.Image, slot, keepsProfile, _ppi);
        _keepWithLabel = slot.Ppi is null ? _keep : _keep | Enums.ForeignKeep.Exif;
        HasAlpha = pixels.HasAlpha;
        _fill = slot.Background is null ? Rgb.White : slot.Background.Colour ?? VariantRenderer.EdgeColour(pixels);
    }

    /// <summary>True when writing a type without transparency lays it on a background.</summary>
    public bool HasAlpha { get; }

    /// <summary>The pixels that a file of a type is compared with.</summary>
    internal Image Reference(PictureFormat format) => format == PictureFormat.Jpeg ? Opaque : _image;

    private Image Opaque => _opaque ??= HasAlpha ? Flatten() : _image;

    /// <summary>The file as it is delivered: trellis JPEG in optimised progressive scans, WebP and AVIF at effort 4.</summary>
    /// <param name="format">jpeg, webp or avif.</param>
    /// <param name="quality">1 to 100, on the type's own scale.</param>
    /// <exception cref="ArgumentOutOfRangeException">The type has no quality.</exception>
    public byte[] Dear(PictureFormat format, int quality) => format switch
    {
        PictureFormat.Jpeg => Labelled(Opaque.JpegsaveBuffer(
            q: quality, optimizeCoding: true, interlace: true, trellisQuant: true, overshootDeringing: true, optimizeScans: true,
            quantTable: JpegScale.Table, keep: _keep)),
        PictureFormat.WebP => _image.WebpsaveBuffer(q: quality, effort: 4, keep: _keepWithLabel),
        PictureFormat.Avif => _image.HeifsaveBuffer(q: quality, compression: Enums.ForeignHeifCompression.Av1, effort: 4, keep: _keepWithLabel),
        _ => throw new ArgumentOutOfRangeException(nameof(format), format, "this type has no quality"),
    };

    /// <summary>The same type and quality with a fraction of the work; weight and likeness move with the delivered one's.</summary>
    /// <param name="format">jpeg, webp or avif.</param>
    /// <param name="quality">1 to 100, on the type's own scale.</param>
    /// <exception cref="ArgumentOutOfRangeException">The type has no quality.</exception>
    public byte[] Cheap(PictureFormat format, int quality) => format switch
    {
        PictureFormat.Jpeg => Opaque.JpegsaveBuffer(q: quality, quantTable: JpegScale.Table, keep: _keep),
        PictureFormat.WebP => _image.WebpsaveBuffer(q: quality, effort: 0, keep: _keepWithLabel),
        PictureFormat.Avif => _image.HeifsaveBuffer(q: quality, compression: Enums.ForeignHeifCompression.Av1, effort: 0, keep: _keepWithLabel),
        _ => throw new ArgumentOutOfRangeException(nameof(format), format, "this type has no quality"),
    };

    /// <summary>A lossless PNG.</summary>
    public byte[] Png() => _image.PngsaveBuffer(compression: 9, filter: Enums.ForeignPngFilter.All, keep: _keep);

    /// <summary>A PNG with a palette, dithered.</summary>
    /// <param name="bits">Bits for each pixel: 8, 4, 2 or 1 give at most 256, 16, 4 or 2 colours.</param>
    /// <param name="quality">1 to 100: how near the colours must stay; less needs fewer of them.</param>
    public byte[] PalettePng(int bits, int quality) =>
        _image.PngsaveBuffer(compression: 9, palette: true, q: quality, dither: 1, effort: 7, bitdepth: bits, keep: _keep);

    /// <summary>A lossless WebP.</summary>
    public byte[] LosslessWebP() => _image.WebpsaveBuffer(lossless: true, effort: 4, keep: _keepWithLabel);

    /// <summary>Frees what this made; the pixels stay.</summary>
    public void Dispose()
    {
        _opaque?.Dispose();
        _image.Dispose();
    }

    private byte[] Labelled(byte[] jpeg) => JfifLabel.Write(jpeg, _ppi);

    private Image Flatten()
    {
        using var flat = _image.Flatten(background: [_fill.Red, _fill.Green, _fill.Blue]);
        return flat.CopyMemory();
    }
}

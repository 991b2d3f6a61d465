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

    /// <summary>Below this many pixels a picture is its own sample.</summary>
    private const long SmallestSampled = 400_000;

    private const int FinestHalved = 60;
    private const int SampleBand = 16;
    private const int SampleStride = 192;

    private readonly Image _image;
    private readonly Enums.ForeignKeep _keep;
    private readonly Enums.ForeignKeep _keepWithLabel;
    private readonly bool _flat;
    private readonly double _ppi;
    private readonly Rgb _fill;
    private readonly int _frames;
    private readonly Dictionary<Image, Image> _samples = [];
    private Image? _opaque;
    private Image? _first;

    /// <summary>
    /// Prepares to encode. WebP and AVIF have no place for a density label but EXIF, which is written where a slot asks for one.
    /// </summary>
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
        _flat = facts.Kind == PictureKind.FlatGraphic;
        _frames = pixels.Frames;
        HasAlpha = pixels.HasAlpha;
        _fill = slot.Background is null ? Rgb.White : slot.Background.Colour ?? VariantRenderer.EdgeColour(pixels);
    }

    /// <summary>True when writing a type without transparency lays it on a background.</summary>
    public bool HasAlpha { get; }

    /// <summary>The pixels that are encoded as a type.</summary>
    internal Image Pixels(PictureFormat format) => format == PictureFormat.Jpeg ? Opaque : _image;

    /// <summary>
    /// The pixels that a file of a type is compared with. The first frame stands for all: their pixels are alike in kind.
    /// </summary>
    internal Image Reference(PictureFormat format) =>
        _frames == 1 ? Pixels(format) : _first ??= _image.Crop(0, 0, _image.Width, _image.Height / _frames);

    /// <summary>The pixels that a trial on a sample is compared with.</summary>
    internal Image SampleReference(PictureFormat format) => _frames == 1 ? Sample(format) : Reference(format);

    private Image Opaque => _opaque ??= HasAlpha ? Flatten() : _image;

    /// <summary>The file as it is delivered: trellis JPEG in optimised progressive scans, WebP and AVIF at effort 4.</summary>
    /// <param name="format">jpeg, webp or avif.</param>
    /// <param name="quality">1 to 100: the encoder's own setting; for JPEG see <see cref="JpegScale"/>.</param>
    /// <exception cref="ArgumentOutOfRangeException">The type has no quality.</exception>
    public byte[] Dear(PictureFormat format, int quality) => Encode(Pixels(format), format, quality, dear: true);

    /// <summary>The same type and quality with a fraction of the work; weight and likeness move with the delivered one's.</summary>
    /// <param name="format">jpeg, webp or avif.</param>
    /// <param name="quality">1 to 100: the encoder's own setting; for JPEG see <see cref="JpegScale"/>.</param>
    /// <exception cref="ArgumentOutOfRangeException">The type has no quality.</exception>
    public byte[] Cheap(PictureFormat format, int quality) => Encode(Pixels(format), format, quality, dear: false);

    /// <summary>
    /// Bands of the pixels from top to bottom, a twelfth of them, on which trials cost a twelfth; all of a small picture, and of a moving
    /// one, whose frames are packed by what differs.
    /// </summary>
    internal Image Sample(PictureFormat format)
    {
        var whole = Pixels(format);
        if (_samples.TryGetValue(whole, out var known))
        {
            return known;
        }

        if (_frames > 1 || (long)whole.Width * whole.Height < SmallestSampled)
        {
            return _samples[whole] = whole;
        }

        using var scope = new Scope();
        var bands = new List<Image>();
        for (var top = (SampleStride - SampleBand) / 2; top + SampleBand <= whole.Height; top += SampleStride)
        {
            bands.Add(scope.Own(whole.Crop(0, top, whole.Width, SampleBand)));
        }

        return _samples[whole] = scope.Own(Image.Arrayjoin([.. bands], across: 1)).CopyMemory();
    }

    /// <summary>A trial on a sample.</summary>
    internal byte[] TrySample(PictureFormat format, int quality, bool dear) => Encode(Sample(format), format, quality, dear);

    // Colour at half size costs a photograph nothing that is seen; the coloured lines of a drawing fray, so there it ends at good
    // qualities.
    private Enums.ForeignSubsample Subsampling(int setting) =>
        _flat && setting >= FinestHalved ? Enums.ForeignSubsample.Off : Enums.ForeignSubsample.On;

    private byte[] Encode(Image image, PictureFormat format, int quality, bool dear) =>
        format switch
        {
            PictureFormat.Jpeg when dear => Labelled(
                image.JpegsaveBuffer(
                    q: quality,
                    optimizeCoding: true,
                    interlace: true,
                    trellisQuant: true,
                    overshootDeringing: true,
                    optimizeScans: true,
                    quantTable: JpegScale.Table,
                    subsampleMode: Subsampling(quality),
                    keep: _keep
                )
            ),
            PictureFormat.Jpeg => image.JpegsaveBuffer(
                q: quality,
                quantTable: JpegScale.Table,
                subsampleMode: Subsampling(quality),
                keep: _keep
            ),
            PictureFormat.WebP => image.WebpsaveBuffer(q: quality, effort: dear ? 4 : 0, keep: _keepWithLabel),
            PictureFormat.Avif => image.HeifsaveBuffer(
                q: quality,
                compression: Enums.ForeignHeifCompression.Av1,
                effort: dear ? 4 : 0,
                keep: _keepWithLabel
            ),
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
        foreach (var (whole, sample) in _samples)
        {
            if (!ReferenceEquals(whole, sample))
            {
                sample.Dispose();
            }
        }

        _first?.Dispose();
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

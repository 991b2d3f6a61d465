using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Writing;

/// <summary>Writes pixels as files of each type. The resolution tag is written as asked; tags and profile as the slot says.</summary>
public sealed class VariantEncoder : IDisposable
{
    internal const double MillimetresToInch = 25.4;

    /// <summary>The label that is written when a slot asks for none (common practice).</summary>
    private const double UsualPpi = 72;

    /// <summary>Below this many tiles a picture is its own sample of them.</summary>
    private const int FewestTiles = 12;

    /// <summary>From this many pixels on a picture is large.</summary>
    private const long SmallestLarge = 400_000;

    /// <summary>Below this many pixels on a side it is its own sample of bands.</summary>
    private const int SmallestSampled = 64;

    // One more wins 3 to 11 % of the weight at 4 times the time: five seconds for each million pixels (decision 8).
    private const int AvifEffort = 3;

    private const int SampleBand = 16;

    // From band to band, by the pixels of the picture: a twelfth of a large one tells as much as a third of a small one.
    private static readonly (long Area, int Stride)[] Strides = [(SmallestLarge, 192), (100_000, 96), (0, 48)];

    private const int Patch = LikenessMeter.Tile;

    private readonly Image _image;
    private readonly Enums.ForeignKeep _keep;
    private readonly Enums.ForeignKeep _keepWithLabel;
    private readonly double _ppi;
    private readonly Rgb _fill;
    private readonly int _frames;
    private readonly Dictionary<Image, Image> _samples = [];
    private Image? _opaque;
    private Image? _first;

    /// <summary>
    /// Prepares to encode. WebP and AVIF have no place for a resolution tag but EXIF, which is written where a slot asks for one.
    /// </summary>
    /// <param name="pixels">The pixels; they must outlive this.</param>
    /// <param name="slot">The slot: its background, resolution tag, tags and profile.</param>
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
        IsDrawing = facts.Kind == PictureKind.FlatGraphic;
        _frames = pixels.Frames;
        HasAlpha = pixels.HasAlpha;
        _fill = slot.Background is null ? Rgb.White : slot.Background.Colour ?? VariantRenderer.EdgeColour(pixels);
    }

    /// <summary>True when writing a type without transparency lays it on a background.</summary>
    public bool HasAlpha { get; }

    /// <summary>
    /// True where squares stand for the whole; a small picture costs no more than they do, and a moving one is packed by what differs.
    /// </summary>
    internal bool IsPatched => _frames == 1 && Grid.Columns * Grid.Rows >= FewestTiles && Math.Min(Grid.Columns, Grid.Rows) > 1;

    /// <summary>True where trials on its tiles cost much less than those on the whole.</summary>
    internal bool IsLarge => IsPatched && (long)_image.Width * _image.Height >= SmallestLarge;

    /// <summary>True for a drawing, a chart or a mark.</summary>
    internal bool IsDrawing { get; }

    /// <summary>True where JPEG and AVIF keep colour at full size; WebP knows only half of it. To be said before the first file.</summary>
    internal bool KeepsColour { get; set; }

    /// <summary>True for the frames of a moving picture.</summary>
    public bool Moves => _frames > 1;

    /// <summary>The pixels that are encoded as a type.</summary>
    internal Image Pixels(PictureFormat format) => format == PictureFormat.Jpeg ? Opaque : _image;

    /// <summary>
    /// The pixels that a file of a type is compared with. The first frame stands for all: their pixels are alike in kind.
    /// </summary>
    internal Image Reference(PictureFormat format) =>
        _frames == 1 ? Pixels(format) : _first ??= _image.Crop(0, 0, _image.Width, _image.Height / _frames);

    private Image Opaque => _opaque ??= HasAlpha ? Flatten() : _image;

    /// <summary>The file as it is delivered: trellis JPEG in optimised progressive scans, WebP at effort 4, AVIF at 3.</summary>
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
    /// Bands of the pixels from top to bottom, a third to a twelfth of them, on which trials cost as much less; all of a tiny picture, and
    /// of a moving one, whose frames are packed by what differs.
    /// </summary>
    internal Image Sample(PictureFormat format)
    {
        var whole = Pixels(format);
        if (_samples.TryGetValue(whole, out var known))
        {
            return known;
        }

        if (_frames > 1 || Math.Min(whole.Width, whole.Height) < SmallestSampled)
        {
            return _samples[whole] = whole;
        }

        using var scope = new Scope();
        var bands = new List<Image>();
        var stride = Strides.First(one => (long)whole.Width * whole.Height >= one.Area).Stride;
        for (var top = (stride - SampleBand) / 2; top + SampleBand <= whole.Height; top += stride)
        {
            bands.Add(scope.Own(whole.Crop(0, top, whole.Width, SampleBand)));
        }

        return _samples[whole] = scope.Own(Image.Arrayjoin([.. bands], across: 1)).CopyMemory();
    }

    /// <summary>Whole tiles of the likeness across and down; 1 of what is smaller than one.</summary>
    internal (int Columns, int Rows) Grid => (Math.Max(1, _image.Width / Patch), Math.Max(1, _image.Height / Patch));

    /// <summary>A trial with the cheap encoder on some of the pixels.</summary>
    internal byte[] Plain(Image pixels, PictureFormat format, int quality) => Encode(pixels, format, quality, dear: false);

    /// <summary>A trial on a sample.</summary>
    internal byte[] TrySample(PictureFormat format, int quality, bool dear) => Encode(Sample(format), format, quality, dear);

    /// <summary>A plain JPEG of some pixels, with colour at full or at half size.</summary>
    internal byte[] PlainJpeg(Image pixels, int quality, bool full) => PlainJpeg(pixels, quality, Subsampled(full));

    private byte[] PlainJpeg(Image pixels, int quality, Enums.ForeignSubsample colour) =>
        pixels.JpegsaveBuffer(q: JpegScale.Plain(quality), quantTable: JpegScale.Table, subsampleMode: colour, keep: _keep);

    private Enums.ForeignSubsample Subsampling(int setting) => Subsampled(KeepsColour || JpegScale.IsFullColour(setting));

    private static Enums.ForeignSubsample Subsampled(bool full) => full ? Enums.ForeignSubsample.Off : Enums.ForeignSubsample.On;

    private byte[] Encode(Image image, PictureFormat format, int quality, bool dear) =>
        format switch
        {
            PictureFormat.Jpeg when dear => Labelled(
                image.JpegsaveBuffer(
                    q: JpegScale.Plain(quality),
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
            PictureFormat.Jpeg => PlainJpeg(image, quality, Subsampling(quality)),
            PictureFormat.WebP => image.WebpsaveBuffer(q: quality, effort: dear ? 4 : 0, keep: _keepWithLabel),
            PictureFormat.Avif => image.HeifsaveBuffer(
                q: quality,
                compression: Enums.ForeignHeifCompression.Av1,
                effort: dear ? AvifEffort : 0,
                subsampleMode: KeepsColour ? Enums.ForeignSubsample.Off : Enums.ForeignSubsample.Auto,
                keep: _keepWithLabel
            ),
            _ => throw new ArgumentOutOfRangeException(nameof(format), format, "this type has no quality"),
        };

    /// <summary>A lossless PNG.</summary>
    public byte[] Png() => Png(_image);

    private byte[] Png(Image image) => image.PngsaveBuffer(compression: 9, filter: Enums.ForeignPngFilter.All, keep: _keep);

    /// <summary>A PNG with a palette, dithered.</summary>
    /// <param name="bits">Bits for each pixel: 8, 4, 2 or 1 give at most 256, 16, 4 or 2 colours.</param>
    /// <param name="quality">1 to 100: how near the colours must stay; less needs fewer of them.</param>
    public byte[] PalettePng(int bits, int quality) =>
        _image.PngsaveBuffer(compression: 9, palette: true, q: quality, dither: 1, effort: 7, bitdepth: bits, keep: _keep);

    /// <summary>A lossless WebP.</summary>
    public byte[] LosslessWebP() => LosslessWebP(_image);

    private byte[] LosslessWebP(Image image) => image.WebpsaveBuffer(lossless: true, effort: 4, keep: _keepWithLabel);

    /// <summary>What the whole is expected to weigh without loss, from a sample of it.</summary>
    /// <param name="format">png or webp.</param>
    internal double ExpectedLossless(PictureFormat format)
    {
        var sample = Sample(format);
        var file = format == PictureFormat.Png ? Png(sample) : LosslessWebP(sample);
        return (double)file.Length * _image.Height / sample.Height;
    }

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

using NetVips;
using Pantomet.Core;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;
using Pantomet.Platform;

namespace Pantomet.Imaging.Reading;

/// <summary>What came of reading a file: its facts, or a sentence that says why it cannot be read.</summary>
/// <param name="Facts">The facts, when it can be read.</param>
/// <param name="Refusal">A sentence, when it cannot.</param>
public readonly record struct ReadResult(PictureFacts? Facts, string? Refusal)
{
    /// <summary>A refusal.</summary>
    public static ReadResult Refused(string sentence) => new(null, sentence);
}

/// <summary>Reads what a file says about itself, from its header.</summary>
public static class PictureReader
{
    /// <summary>The most pixels a picture may have: 400 million, six times the largest camera in common use.</summary>
    public const long MostPixels = 400_000_000;

    /// <summary>The most pixels a drawing is rendered at: 50 million. It claims its size in a few bytes and costs all of it.</summary>
    public const long MostDrawnPixels = 50_000_000;

    /// <summary>
    /// The longest side that is read: no camera and no scanner makes one, and a thread of pixels that long takes minutes.
    /// </summary>
    public const int LongestSide = 250_000;

    private const double MillimetresToInch = 25.4;

    /// <summary>Reads the facts, checks that the whole file can be decoded, and looks at the content on the way.</summary>
    public static ReadResult ReadWhole(string path)
    {
        var read = ReadFacts(path);
        if (read.Facts is not { } facts)
        {
            return read;
        }

        try
        {
            using var watch = DrawingTime.Watch(facts.Format);
            var whole = ContentReader.Read(path, facts);
            return IsCutShort(path, facts) ? Damaged(facts.Format) : new(whole, null);
        }
        catch (VipsException fault)
        {
            return ReadResult.Refused(ImagingFault.Sentence(fault, Damaged(facts.Format).Refusal!));
        }
    }

    /// <summary>What is said of a file whose pixels cannot all be decoded.</summary>
    internal static ReadResult Damaged(PictureFormat format) => ReadResult.Refused(PictureTexts.TheFileIsButItsPicture(Article(format)));

    /// <summary>
    /// True where the decoder is content but the file has lost its end: a PNG is whole only with its closing chunk (PNG, third edition,
    /// 11.2.4).
    /// </summary>
    internal static bool IsCutShort(string path, PictureFacts facts) => facts.Format == PictureFormat.Png && !HasPngEnd(path);

    /// <summary>True for a file that begins like a drawing; false too for one that cannot be opened.</summary>
    public static bool IsDrawing(string path)
    {
        try
        {
            return HeadOf(path).Format == PictureFormat.Svg;
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return false;
        }
    }

    /// <summary>Reads the facts from the header alone.</summary>
    public static ReadResult ReadFacts(string path)
    {
        ImagingEngine.Start();
        PictureFormat format;
        long bytes;
        try
        {
            (var known, var reason, bytes) = HeadOf(path);
            if (known is null)
            {
                return ReadResult.Refused(reason!);
            }

            format = known.Value;
        }
        catch (Exception fault) when (fault is FileNotFoundException or DirectoryNotFoundException)
        {
            return ReadResult.Refused(PictureTexts.TheFileDoesNotExist);
        }
        catch (NotRegularException fault)
        {
            return ReadResult.Refused(fault.Message);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return ReadResult.Refused(PictureTexts.TheFileCannotBeOpened);
        }

        if (format == PictureFormat.Svg)
        {
            using var drawing = File.OpenRead(path);
            if (DrawingCheck.Refusal(drawing) is { } tooMuch)
            {
                return ReadResult.Refused(tooMuch);
            }
        }

        try
        {
            using var watch = DrawingTime.Watch(format);
            using var image = format.IsOther()
                ? SecondReader.Open(path, format, Enums.Access.Sequential)
                : Image.NewFromFile(path, access: Enums.Access.Sequential);
            return Describe(image, format, bytes, format == PictureFormat.Jpeg ? QualityOf(path) : null);
        }
        catch (VipsException fault)
        {
            return ReadResult.Refused(ImagingFault.Sentence(fault, PictureTexts.TheFileLooksLikeButCannot(Article(format))));
        }
    }

    private static (PictureFormat? Format, string? Reason, long Bytes) HeadOf(string path)
    {
        // A pipe has no first bytes until somebody writes them: it is not waited for.
        using var opened = RegularFile.Open(path);
        using var file = opened.Read();
        Span<byte> head = stackalloc byte[FileSignature.HeadLength];
        var length = file.ReadAtLeast(head, head.Length, throwOnEndOfStream: false);
        return (FileSignature.Recognise(head[..length], out var reason), reason, file.Length);
    }

    private static int? QualityOf(string path)
    {
        using var file = File.OpenRead(path);
        return JpegTables.EstimateQuality(file);
    }

    private static ReadResult Describe(Image image, PictureFormat format, long bytes, int? jpegQuality)
    {
        var frames = image.Contains("n-pages") && image.Get("n-pages") is int pages ? Math.Max(1, pages) : 1;
        var most = format == PictureFormat.Svg ? MostDrawnPixels : MostPixels;
        if ((long)image.Width * image.Height > most || Math.Max(image.Width, image.Height) > LongestSide)
        {
            return ReadResult.Refused(
                PictureTexts.ThePictureHasTheMostThat(
                    Figures.Size(new(image.Width, image.Height)),
                    Figures.Count(most / 1_000_000),
                    Figures.Count(LongestSide)
                )
            );
        }

        var orientation = image.Contains("orientation") && image.Get("orientation") is int tag and >= 1 and <= 8 ? tag : 1;
        var stored = new PixelSize(image.Width, image.Height);
        return new(
            new PictureFacts
            {
                Size = orientation >= 5 ? new(stored.Height, stored.Width) : stored,
                Format = format,
                Bytes = bytes,
                HasAlpha = image.HasAlpha(),
                Frames = frames,
                Orientation = orientation,
                Profile = image.Contains("icc-profile-data") ? IccProfile.Description((byte[])image.Get("icc-profile-data")) : null,
                Colours = image.Interpretation switch
                {
                    Enums.Interpretation.Cmyk => "CMYK",
                    Enums.Interpretation.Bw or Enums.Interpretation.Grey16 => "grey",
                    _ => "RGB",
                },
                Bits = image.Format is Enums.BandFormat.Ushort or Enums.BandFormat.Short ? 16 : 8,
                Ppi = Math.Abs(image.Xres - 1) < 1e-9 || format == PictureFormat.Svg ? null : Math.Round(image.Xres * MillimetresToInch, 1),
                JpegQuality = jpegQuality,
                HasLocation = image.GetFields().Any(field => field.StartsWith("exif-ifd3-GPSL", StringComparison.Ordinal)),
            },
            null
        );
    }

    private static bool HasPngEnd(string path)
    {
        using var file = File.OpenRead(path);
        var tail = new byte[Math.Min(file.Length, 65_536)];
        file.Seek(-tail.Length, SeekOrigin.End);
        file.ReadExactly(tail);
        return tail.AsSpan().LastIndexOf((ReadOnlySpan<byte>)[(byte)'I', (byte)'E', (byte)'N', (byte)'D', 0xAE, 0x42, 0x60, 0x82]) >= 0;
    }

    /// <summary>Opens a picture's pixels, failing where data is missing.</summary>
    internal static Image Open(string path, PictureFormat format, int shrink, Enums.Access access, int frame = 0)
    {
        ImagingEngine.Start();
        return format switch
        {
            PictureFormat.Jpeg => Image.Jpegload(path, shrink: shrink, access: access, failOn: Enums.FailOn.Truncated),
            PictureFormat.Gif => Image.Gifload(path, page: frame, access: access, failOn: Enums.FailOn.Truncated),
            PictureFormat.WebP => Image.Webpload(path, page: frame, access: access, failOn: Enums.FailOn.Truncated),
            _ when format.IsOther() => SecondReader.Open(path, format, access),
            _ => Image.NewFromFile(path, access: access, failOn: Enums.FailOn.Truncated),
        };
    }

    /// <summary>A small copy, upright and in sRGB.</summary>
    /// <param name="path">The file.</param>
    /// <param name="side">The longest side in pixels; a smaller picture stays as it is.</param>
    /// <exception cref="VipsException">It cannot be decoded.</exception>
    internal static Image Small(string path, int side)
    {
        ImagingEngine.Start();
        if (HeadOf(path).Format is not { } format || !format.IsOther())
        {
            return Image.Thumbnail(path, side, height: side, size: Enums.Size.Down, outputProfile: "srgb");
        }

        using var whole = SecondReader.Open(path, format, Enums.Access.Sequential);
        return whole.ThumbnailImage(side, height: side, size: Enums.Size.Down, outputProfile: "srgb");
    }

    private static string Article(PictureFormat format) =>
        format is PictureFormat.Avif or PictureFormat.Svg ? $"an {format.Label()}" : $"a {format.Label()}";
}

using System.Text;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Facts;

/// <summary>Tells a file's type by its first bytes, whatever its name says.</summary>
public static class FileSignature
{
    /// <summary>How many first bytes are enough.</summary>
    public const int HeadLength = 1024;

    /// <summary>The type, or null with a sentence that says what the file seems to be.</summary>
    /// <param name="head">The first bytes of the file, up to <see cref="HeadLength"/>.</param>
    /// <param name="reason">Why it is no picture that can be read.</param>
    public static PictureFormat? Recognise(ReadOnlySpan<byte> head, out string? reason)
    {
        reason = null;
        if (head.IsEmpty)
        {
            reason = PictureTexts.TheFileIsEmpty;
            return null;
        }

        if (head.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xD8, 0xFF]))
        {
            return PictureFormat.Jpeg;
        }

        if (head.StartsWith((ReadOnlySpan<byte>)[0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]))
        {
            return PictureFormat.Png;
        }

        if (head.StartsWith("GIF87a"u8) || head.StartsWith("GIF89a"u8))
        {
            return PictureFormat.Gif;
        }

        if (head.StartsWith("RIFF"u8) && head.Length >= 12 && head[8..12].SequenceEqual("WEBP"u8))
        {
            return PictureFormat.WebP;
        }

        if (head.StartsWith("II*\0"u8) || head.StartsWith("MM\0*"u8) || head.StartsWith("II+\0"u8) || head.StartsWith("MM\0+"u8))
        {
            return PictureFormat.Tiff;
        }

        if (head.Length >= 12 && head[4..8].SequenceEqual("ftyp"u8))
        {
            return Brand(head, out reason);
        }

        // Two letters alone are no type: the second header begins with its own length, one of these.
        if (
            head.StartsWith("BM"u8)
            && head.Length >= 26
            && head[14] is 12 or 40 or 52 or 56 or 64 or 108 or 124
            && head[7] == 0
            && head[9] == 0
        )
        {
            return PictureFormat.Bmp;
        }

        // ISO/IEC 18181-2: a bare codestream, or the box that a file begins with.
        if (
            head.StartsWith((ReadOnlySpan<byte>)[0xFF, 0x0A])
            || head.StartsWith((ReadOnlySpan<byte>)[0, 0, 0, 0x0C, 0x4A, 0x58, 0x4C, 0x20, 0x0D, 0x0A, 0x87, 0x0A])
        )
        {
            return PictureFormat.Jxl;
        }

        return FromText(head, out reason);
    }

    // ISO base media file: the brands stand in the first box (ISO/IEC 14496-12, 4.3).
    private static PictureFormat? Brand(ReadOnlySpan<byte> head, out string? reason)
    {
        var length = Math.Min(head.Length, (head[2] << 8) | head[3]);
        var brands = Encoding.Latin1.GetString(head[8..Math.Max(12, length)]);
        reason = null;
        if (brands.Contains("avif", StringComparison.Ordinal))
        {
            return PictureFormat.Avif;
        }

        if (
            brands.Contains("hei", StringComparison.Ordinal)
            || brands.Contains("hev", StringComparison.Ordinal)
            || brands.Contains("mif1", StringComparison.Ordinal)
        )
        {
            return PictureFormat.Heic;
        }

        reason = PictureTexts.TheFileIsAVideoOr;
        return null;
    }

    private static PictureFormat? FromText(ReadOnlySpan<byte> head, out string? reason)
    {
        var text = Encoding.UTF8.GetString(head).TrimStart('\ufeff', ' ', '\t', '\r', '\n');
        reason = null;
        if (
            text.StartsWith("<!doctype html", StringComparison.OrdinalIgnoreCase)
            || text.StartsWith("<html", StringComparison.OrdinalIgnoreCase)
        )
        {
            reason = PictureTexts.TheFileIsAWebPage;
            return null;
        }

        if (text.StartsWith('<') && text.Contains("<svg", StringComparison.OrdinalIgnoreCase))
        {
            return PictureFormat.Svg;
        }

        reason =
            text.StartsWith("%PDF", StringComparison.Ordinal) ? PictureTexts.TheFileIsAPDFDocument
            : text.StartsWith("PK", StringComparison.Ordinal) ? PictureTexts.TheFileIsAZIPArchive
            : PictureTexts.TheFileIsNotAPicture;
        return null;
    }
}

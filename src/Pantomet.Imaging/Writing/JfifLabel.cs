using System.Buffers.Binary;

namespace Pantomet.Imaging.Writing;

/// <summary>
/// Writes the resolution tag into a JPEG: the JFIF segment of ITU-T T.871, 10.1, right behind the start of the image.
/// The encoder leaves it out when it keeps no metadata.
/// </summary>
public static class JfifLabel
{
    /// <summary>How many bytes the label adds to a file.</summary>
    public const int Length = 18;

    private const byte PerInch = 1;

    /// <summary>The same file with the label in front.</summary>
    /// <param name="jpeg">A JPEG that begins with its start marker; a JFIF segment that stands first already gets the label.</param>
    /// <param name="ppi">Pixels for an inch, 1 to 65535; rounded to whole ones, as the segment holds no others.</param>
    public static byte[] Write(byte[] jpeg, double ppi)
    {
        ArgumentNullException.ThrowIfNull(jpeg);
        var density = (ushort)Math.Clamp(Math.Round(ppi), 1, ushort.MaxValue);
        const int segment = 2,
            unit = 13,
            across = 14,
            down = 16;
        if (jpeg.Length > Length + 2 && jpeg.AsSpan(segment).StartsWith((ReadOnlySpan<byte>)[0xFF, 0xE0]))
        {
            jpeg[unit] = PerInch;
            BinaryPrimitives.WriteUInt16BigEndian(jpeg.AsSpan(across), density);
            BinaryPrimitives.WriteUInt16BigEndian(jpeg.AsSpan(down), density);
            return jpeg;
        }

        var labelled = new byte[jpeg.Length + Length];
        jpeg.AsSpan(0, 2).CopyTo(labelled);
        ReadOnlySpan<byte> head = [0xFF, 0xE0, 0x00, 0x10, (byte)'J', (byte)'F', (byte)'I', (byte)'F', 0x00, 0x01, 0x02, PerInch];
        head.CopyTo(labelled.AsSpan(segment));
        BinaryPrimitives.WriteUInt16BigEndian(labelled.AsSpan(across), density);
        BinaryPrimitives.WriteUInt16BigEndian(labelled.AsSpan(down), density);
        jpeg.AsSpan(2).CopyTo(labelled.AsSpan(2 + Length));
        return labelled;
    }
}

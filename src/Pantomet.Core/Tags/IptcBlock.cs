using System.Buffers.Binary;
using System.Text;

namespace Pantomet.Core.Tags;

/// <summary>
/// The lines that agencies write into a JPEG: IPTC-IIM 4.2 datasets, on their own or inside the resource block that starts with
/// <see cref="Identifier"/>.
/// </summary>
public static class IptcBlock
{
    /// <summary>What the resource block begins with, as the format demands it.</summary>
    public static ReadOnlySpan<byte> Identifier => "Photoshop 3.0\0"u8;

    private const byte DatasetMark = 0x1C;
    private const ushort IptcResource = 0x0404;

    // Record 2: sub-location, city, province, country code and name, content location code and name (IIM 4.2, chapter 6).
    private static readonly byte[] Places = [26, 27, 90, 92, 95, 100, 101];

    /// <summary>A text of record 2, such as 80 (by-line) or 116 (copyright notice); null when it is not there.</summary>
    public static string? Text(ReadOnlySpan<byte> block, byte dataset)
    {
        foreach (var (start, length) in Datasets(Iim(block)))
        {
            var one = Iim(block).Slice(start, length);
            if (one[1] == 2 && one[2] == dataset)
            {
                return Encoding.UTF8.GetString(one[5..]).TrimEnd('\0', ' ');
            }
        }

        return null;
    }

    /// <summary>
    /// The datasets without those that tell a place, in a resource block as a JPEG holds it; null when nothing is left or the block is
    /// damaged.
    /// </summary>
    public static byte[]? WithoutPlaces(ReadOnlySpan<byte> block)
    {
        var iim = Iim(block);
        var kept = new List<byte>();
        foreach (var (start, length) in Datasets(iim))
        {
            var one = iim.Slice(start, length);
            if (one[1] != 2 || !Places.Contains(one[2]))
            {
                kept.AddRange(one);
            }
        }

        return kept.Count == 0 ? null : Wrapped(kept);
    }

    private static byte[] Wrapped(List<byte> iim)
    {
        var head = new byte[6];
        BinaryPrimitives.WriteInt32BigEndian(head.AsSpan(2), iim.Count);
        // The resource's number, an empty name padded to two bytes, the length; the whole is padded to an even length.
        return [.. Identifier, .. "8BIM"u8, IptcResource >> 8, IptcResource & 0xFF, .. head, .. iim, .. new byte[iim.Count & 1]];
    }

    private static ReadOnlySpan<byte> Iim(ReadOnlySpan<byte> block)
    {
        var lead = Identifier;
        if (!block.StartsWith(lead))
        {
            return block.Length > 0 && block[0] == DatasetMark ? block : [];
        }

        var rest = block[lead.Length..];
        while (rest.Length >= 12 && rest.StartsWith("8BIM"u8))
        {
            var id = BinaryPrimitives.ReadUInt16BigEndian(rest[4..]);
            var name = (rest[6] + 2) & ~1;
            if (rest.Length < 6 + name + 4)
            {
                return [];
            }

            var size = BinaryPrimitives.ReadUInt32BigEndian(rest[(6 + name)..]);
            var body = rest[(10 + name)..];
            if (size > body.Length)
            {
                return [];
            }

            if (id == IptcResource)
            {
                return body[..(int)size];
            }

            rest = body[(int)Math.Min(body.Length, (size + 1) & ~1u)..];
        }

        return [];
    }

    private static List<(int Start, int Length)> Datasets(ReadOnlySpan<byte> iim)
    {
        var all = new List<(int, int)>();
        for (var at = 0; at + 5 <= iim.Length && iim[at] == DatasetMark; )
        {
            var size = BinaryPrimitives.ReadUInt16BigEndian(iim[(at + 3)..]);
            // The extended form is for data of over 32 kB; no line of text is so long.
            if (size > 32_767 || at + 5 + size > iim.Length)
            {
                break;
            }

            all.Add((at, 5 + size));
            at += 5 + size;
        }

        return all;
    }
}

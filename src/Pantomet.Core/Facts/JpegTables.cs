using System.Buffers.Binary;

namespace Pantomet.Core.Facts;

/// <summary>
/// Reads at which quality a JPEG was written from its quantisation tables: those of ITU-T T.81, Annex K, tables K.1 and K.2,
/// scaled as the reference encoder does (scale = 5000 / q below 50, 200 − 2 q above; entry = (base × scale + 50) / 100, 1 to 255).
/// </summary>
public static class JpegTables
{
    private const int Entries = 64;

    // K.1 and K.2 in zigzag order, as they stand in a file.
    private static readonly byte[] Luminance =
    [
        16,
        11,
        12,
        14,
        12,
        10,
        16,
        14,
        13,
        14,
        18,
        17,
        16,
        19,
        24,
        40,
        26,
        24,
        22,
        22,
        24,
        49,
        35,
        37,
        29,
        40,
        58,
        51,
        61,
        60,
        57,
        51,
        56,
        55,
        64,
        72,
        92,
        78,
        64,
        68,
        87,
        69,
        55,
        56,
        80,
        109,
        81,
        87,
        95,
        98,
        103,
        104,
        103,
        62,
        77,
        113,
        121,
        112,
        100,
        120,
        92,
        101,
        103,
        99,
    ];

    private static readonly byte[] Chrominance =
    [
        17,
        18,
        18,
        24,
        21,
        24,
        47,
        26,
        26,
        47,
        99,
        66,
        56,
        66,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
        99,
    ];

    /// <summary>The estimated quality, 1 to 100, or null when the file holds no table before its picture data.</summary>
    /// <param name="file">A seekable stream at the start of a JPEG; only its markers are read.</param>
    public static int? EstimateQuality(Stream file)
    {
        ArgumentNullException.ThrowIfNull(file);
        var tables = Read(file);
        if (tables[0] is not { } luminance)
        {
            return null;
        }

        var best = (Quality: 100, Distance: double.PositiveInfinity);
        for (var quality = 1; quality <= 100; quality++)
        {
            var distance =
                Distance(luminance, Luminance, quality) + (tables[1] is { } chrominance ? Distance(chrominance, Chrominance, quality) : 0);
            // Equal distances: the tables of the highest qualities are alike, the lower one is the safer word.
            if (distance < best.Distance)
            {
                best = (quality, distance);
            }
        }

        return best.Quality;
    }

    /// <summary>
    /// How coarse a file's tables are against those of Annex K unscaled, on the mean of the logarithms: 1 is alike, 0.5 twice as fine; null
    /// without tables.
    /// </summary>
    /// <param name="file">A seekable stream at the start of a JPEG.</param>
    public static double? Coarseness(Stream file)
    {
        ArgumentNullException.ThrowIfNull(file);
        var tables = Read(file);
        if (tables[0] is not { } luminance)
        {
            return null;
        }

        double sum = 0;
        for (var i = 0; i < Entries; i++)
        {
            sum +=
                Math.Log((double)Math.Max(1, luminance[i]) / Luminance[i])
                + Math.Log((double)Math.Max(1, (tables[1] ?? luminance)[i]) / (tables[1] is null ? Luminance : Chrominance)[i]);
        }

        return Math.Exp(sum / (2 * Entries));
    }

    private static double Distance(int[] table, byte[] standard, int quality)
    {
        var scale = quality < 50 ? 5000 / quality : 200 - (2 * quality);
        double sum = 0;
        for (var i = 0; i < Entries; i++)
        {
            var entry = Math.Clamp(((standard[i] * scale) + 50) / 100, 1, 255);
            sum += Math.Abs(Math.Log((double)Math.Max(1, table[i]) / entry));
        }

        return sum;
    }

    // Walks the marker segments up to the picture data (T.81, B.1.1.4 and B.2.4.1).
    private static int[]?[] Read(Stream file)
    {
        var tables = new int[4][];
        Span<byte> head = stackalloc byte[4];
        if (file.ReadAtLeast(head[..2], 2, throwOnEndOfStream: false) < 2 || head[0] != 0xFF || head[1] != 0xD8)
        {
            return tables;
        }

        const int mostSegments = 1000;
        for (var i = 0; i < mostSegments && file.ReadAtLeast(head, 4, throwOnEndOfStream: false) == 4; i++)
        {
            while (head[0] == 0xFF && head[1] == 0xFF)
            {
                // Any number of fill bytes may stand before a marker.
                head[1..].CopyTo(head);
                var next = file.ReadByte();
                if (next < 0)
                {
                    return tables;
                }

                head[3] = (byte)next;
            }

            const byte quantisation = 0xDB,
                scan = 0xDA,
                end = 0xD9;
            var length = BinaryPrimitives.ReadUInt16BigEndian(head[2..]) - 2;
            if (head[0] != 0xFF || head[1] is scan or end || length < 0)
            {
                return tables;
            }

            if (head[1] != quantisation)
            {
                file.Seek(length, SeekOrigin.Current);
                continue;
            }

            var segment = new byte[length];
            if (file.ReadAtLeast(segment, length, throwOnEndOfStream: false) < length)
            {
                return tables;
            }

            ReadTables(segment, tables);
        }

        return tables;
    }

    private static void ReadTables(ReadOnlySpan<byte> segment, int[]?[] tables)
    {
        while (segment.Length > 0)
        {
            var (wide, id) = (segment[0] >> 4 != 0, segment[0] & 3);
            var size = wide ? Entries * 2 : Entries;
            if (segment.Length < 1 + size)
            {
                return;
            }

            var table = new int[Entries];
            for (var i = 0; i < Entries; i++)
            {
                table[i] = wide ? BinaryPrimitives.ReadUInt16BigEndian(segment[(1 + (2 * i))..]) : segment[1 + i];
            }

            tables[id] ??= table;
            segment = segment[(1 + size)..];
        }
    }
}

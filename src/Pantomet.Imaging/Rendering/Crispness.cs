using System.Numerics;

namespace Pantomet.Imaging.Rendering;

/// <summary>
/// Sharpens 8-bit pixels: each value is pulled away from its eight neighbours of the same channel, out = ((w + 1) · middle − sum of all
/// nine) /
/// (w − 8). The outermost pixels stay as they are.
/// </summary>
internal static class Crispness
{
    /// <summary>Sharpens into a new buffer.</summary>
    /// <param name="pixels">Interleaved 8-bit pixels.</param>
    /// <param name="width">Pixels across.</param>
    /// <param name="height">Pixels down.</param>
    /// <param name="bands">Channels.</param>
    /// <param name="kept">How many of the last channels stay as they are.</param>
    /// <param name="weight">The middle's weight against 1 for each neighbour, more than 8: the less, the crisper.</param>
    public static byte[] Sharpen(byte[] pixels, int width, int height, int bands, int kept, int weight)
    {
        var result = (byte[])pixels.Clone();
        var row = width * bands;
        var sums = new ushort[row];
        for (var y = 1; y < height - 1; y++)
        {
            var middle = pixels.AsSpan(y * row, row);
            Columns(pixels.AsSpan((y - 1) * row, row), middle, pixels.AsSpan((y + 1) * row, row), sums);
            Row(middle, sums, result.AsSpan(y * row, row), bands, weight);
        }

        if (kept > 0)
        {
            Restore(pixels, result, bands, kept);
        }

        return result;
    }

    private static void Columns(ReadOnlySpan<byte> above, ReadOnlySpan<byte> middle, ReadOnlySpan<byte> below, Span<ushort> sums)
    {
        var lanes = Vector<byte>.Count;
        var x = 0;
        for (; x + lanes <= middle.Length; x += lanes)
        {
            Vector.Widen(new Vector<byte>(above[x..]), out var a1, out var a2);
            Vector.Widen(new Vector<byte>(middle[x..]), out var m1, out var m2);
            Vector.Widen(new Vector<byte>(below[x..]), out var b1, out var b2);
            (a1 + m1 + b1).CopyTo(sums[x..]);
            (a2 + m2 + b2).CopyTo(sums[(x + Vector<ushort>.Count)..]);
        }

        for (; x < middle.Length; x++)
        {
            sums[x] = (ushort)(above[x] + middle[x] + below[x]);
        }
    }

    private static void Row(ReadOnlySpan<byte> middle, ReadOnlySpan<ushort> sums, Span<byte> result, int bands, int weight)
    {
        var lanes = Vector<byte>.Count;
        var half = Vector<ushort>.Count;
        var x = bands;
        for (; x + lanes <= middle.Length - bands; x += lanes)
        {
            Vector.Widen(new Vector<byte>(middle[x..]), out var m1, out var m2);
            var low = Pulled(m1, sums, x, bands, weight);
            var high = Pulled(m2, sums, x + half, bands, weight);
            Vector.Narrow(low, high).CopyTo(result[x..]);
        }

        for (; x < middle.Length - bands; x++)
        {
            var value = ((weight + 1) * middle[x]) - sums[x - bands] - sums[x] - sums[x + bands];
            result[x] = (byte)Math.Clamp((int)MathF.Floor((value / (float)(weight - 8)) + 0.5f), 0, 255);
        }
    }

    private static Vector<ushort> Pulled(Vector<ushort> middle, ReadOnlySpan<ushort> sums, int x, int bands, int weight)
    {
        var nine = new Vector<ushort>(sums[(x - bands)..]) + new Vector<ushort>(sums[x..]) + new Vector<ushort>(sums[(x + bands)..]);
        var value = Vector.AsVectorInt16((middle * (ushort)(weight + 1)) - nine);
        Vector.Widen(value, out var low, out var high);
        return Vector.AsVectorUInt16(Vector.Narrow(Divided(low, weight - 8), Divided(high, weight - 8)));
    }

    private static Vector<int> Divided(Vector<int> value, int by)
    {
        var exact = (Vector.ConvertToSingle(value) * (1f / by)) + new Vector<float>(0.5f);
        return Vector.ConvertToInt32(Vector.Floor(Vector.Min(Vector.Max(exact, Vector<float>.Zero), new Vector<float>(255))));
    }

    private static void Restore(byte[] pixels, byte[] result, int bands, int kept)
    {
        for (var at = 0; at < pixels.Length; at += bands)
        {
            for (var band = bands - kept; band < bands; band++)
            {
                result[at + band] = pixels[at + band];
            }
        }
    }
}

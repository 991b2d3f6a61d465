using System.Buffers;
using System.Numerics;
using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;
using System.Runtime.Intrinsics;
using System.Runtime.Intrinsics.X86;

namespace Pantomet.Core.Pixels;

/// <summary>A rectangle in pixels whose edges may lie between pixels; 0 is the outer edge of the first pixel.</summary>
/// <param name="Left">The left edge.</param>
/// <param name="Top">The upper edge.</param>
/// <param name="Right">The right edge.</param>
/// <param name="Bottom">The lower edge.</param>
public readonly record struct PixelBox(double Left, double Top, double Right, double Bottom)
{
    /// <summary>How wide it is.</summary>
    public double Width => Right - Left;

    /// <summary>How high it is.</summary>
    public double Height => Bottom - Top;
}

/// <summary>8-bit pixels, their channels interleaved, row by row.</summary>
/// <param name="Values">The values.</param>
/// <param name="Width">Pixels across.</param>
/// <param name="Height">Pixels down.</param>
/// <param name="Bands">Channels, 1 to 4.</param>
public readonly record struct PixelRows(ReadOnlyMemory<byte> Values, int Width, int Height, int Bands);

/// <summary>
/// Reduces pixels with Lanczos' kernel of three lobes, stretched to the reduction (Duchon, "Lanczos filtering in one and two dimensions",
/// 1979; Turkowski, "Filters for common resampling tasks", 1990). Output pixel i has its centre exactly at (i + 1/2) · (frame / output) of the
/// frame, whose edges may lie between pixels; nothing outside the frame's pixels is mixed in.
/// </summary>
public static class Reduction
{
    private const int Lanes = Taps.Lanes;

    private const int RowsAtOnce = 16;

    private static readonly float[] Plain = [.. Enumerable.Range(0, 256).Select(value => (float)value)];

    /// <summary>Reduces, or enlarges where the frame is smaller than what is asked.</summary>
    /// <param name="source">The pixels.</param>
    /// <param name="frame">What of them is shown.</param>
    /// <param name="width">Pixels across of the result.</param>
    /// <param name="height">Pixels down of the result.</param>
    /// <param name="alpha">True when the last channel is coverage: what is transparent then colours nothing beside it.</param>
    /// <param name="threads">How many rows may be worked on at once, from 1.</param>
    /// <param name="light">True to mix light instead of stored values (<see cref="Light"/>).</param>
    /// <returns>The values of the result, interleaved.</returns>
    /// <exception cref="ArgumentException">The frame has no extent, or lies outside.</exception>
    public static byte[] Reduce(PixelRows source, PixelBox frame, int width, int height, bool alpha, int threads = 1, bool light = false)
    {
        if (!(frame.Width > 0) || !(frame.Height > 0) || frame.Left >= source.Width || frame.Top >= source.Height)
        {
            throw new ArgumentException("The frame lies outside of the pixels.", nameof(frame));
        }

        if (
            frame
            == new PixelBox(Math.Floor(frame.Left), Math.Floor(frame.Top), Math.Floor(frame.Left) + width, Math.Floor(frame.Top) + height)
        )
        {
            return Copied(source, (int)frame.Left, (int)frame.Top, width, height);
        }

        var across = Taps.For(frame.Left, frame.Right, source.Width, width);
        var down = Taps.For(frame.Top, frame.Bottom, source.Height, height);
        var result = new byte[width * height * source.Bands];
        Parallel.For(
            0,
            (height + RowsAtOnce - 1) / RowsAtOnce,
            new ParallelOptions { MaxDegreeOfParallelism = Math.Max(1, threads) },
            part =>
                ReduceRows(source, across, down, new(alpha, light), result, part * RowsAtOnce, Math.Min(height, (part + 1) * RowsAtOnce))
        );
        return result;
    }

    private static byte[] Copied(PixelRows source, int left, int top, int width, int height)
    {
        var (row, stride) = (width * source.Bands, source.Width * source.Bands);
        var result = new byte[row * height];
        for (var y = 0; y < height; y++)
        {
            source.Values.Span.Slice(((top + y) * stride) + (left * source.Bands), row).CopyTo(result.AsSpan(y * row));
        }

        return result;
    }

    private static void ReduceRows(PixelRows source, Taps across, Taps down, Mixing mixing, byte[] result, int from, int until)
    {
        var (first, last) = (across.First, across.Last);
        var row = ArrayPool<float>.Shared.Rent((last - first) * source.Bands);
        var pixels = ArrayPool<float>.Shared.Rent(last * Lanes);
        var length = result.Length / down.Size;
        for (var y = from; y < until; y++)
        {
            var sums = row.AsSpan(0, (last - first) * source.Bands);
            SumRows(source, down, y, first, mixing, sums);
            Spread(sums, source.Bands, pixels.AsSpan(first * Lanes, (last - first) * Lanes));
            ReduceRow(pixels.AsSpan(0, last * Lanes), across, source.Bands, mixing, result.AsSpan(y * length, length));
        }

        ArrayPool<float>.Shared.Return(row);
        ArrayPool<float>.Shared.Return(pixels);
    }

    // One row of the result's height, still as wide as the source: its rows, each by its weight.
    private static void SumRows(PixelRows source, Taps down, int y, int from, Mixing mixing, Span<float> sums)
    {
        var row = source.Width * source.Bands;
        var rows = source.Values.Span[((down.Start(y) * row) + (from * source.Bands))..];
        if (!mixing.Covered && !mixing.OfLight)
        {
            if (Avx2.IsSupported)
            {
                SumInPairs(rows, row, down.Fractions(y), sums);
            }
            else
            {
                Sum(rows, row, down.Weights(y), sums);
            }

            return;
        }

        sums.Clear();
        var weights = down.Weights(y);
        var values = mixing.OfLight ? Light.OfValues : Plain;
        for (var k = 0; k < weights.Length; k++)
        {
            var part = rows.Slice(k * row, sums.Length);
            if (mixing.Covered)
            {
                AddCovered(part, source.Bands, values, weights[k], sums);
            }
            else
            {
                Add(part, values, weights[k], sums);
            }
        }
    }

    // Two rows at a time in whole numbers: the processor multiplies and adds pairs of them in one step.
    private static void SumInPairs(ReadOnlySpan<byte> rows, int row, ReadOnlySpan<short> fractions, Span<float> sums)
    {
        var lanes = Vector256<byte>.Count;
        ref var first = ref MemoryMarshal.GetReference(rows);
        ref var to = ref MemoryMarshal.GetReference(sums);
        var one = Vector256.Create(1f / Taps.Whole);
        var x = 0;
        for (; x + lanes <= sums.Length; x += lanes)
        {
            var (a, b, c, d) = (Vector256<int>.Zero, Vector256<int>.Zero, Vector256<int>.Zero, Vector256<int>.Zero);
            for (var k = 0; k < fractions.Length; k += 2)
            {
                // An odd number of rows ends with one that counts nothing: the last one again.
                var next = k + 1 < fractions.Length ? k + 1 : k;
                var pair = k + 1 < fractions.Length ? fractions[next] : (short)0;
                var by = Vector256.Create((fractions[k] & 0xFFFF) | (pair << 16)).AsInt16();
                var upper = Vector256.LoadUnsafe(ref first, (nuint)(x + (k * row)));
                var lower = Vector256.LoadUnsafe(ref first, (nuint)(x + (next * row)));
                var low = Avx2.UnpackLow(upper, lower);
                var high = Avx2.UnpackHigh(upper, lower);
                a += Avx2.MultiplyAddAdjacent(Avx2.UnpackLow(low, Vector256<byte>.Zero).AsInt16(), by);
                b += Avx2.MultiplyAddAdjacent(Avx2.UnpackHigh(low, Vector256<byte>.Zero).AsInt16(), by);
                c += Avx2.MultiplyAddAdjacent(Avx2.UnpackLow(high, Vector256<byte>.Zero).AsInt16(), by);
                d += Avx2.MultiplyAddAdjacent(Avx2.UnpackHigh(high, Vector256<byte>.Zero).AsInt16(), by);
            }

            // Each half of the four holds four values of either half of the bytes.
            var (e, f) = (Vector256.ConvertToSingle(a) * one, Vector256.ConvertToSingle(b) * one);
            var (g, h) = (Vector256.ConvertToSingle(c) * one, Vector256.ConvertToSingle(d) * one);
            Vector256.Create(e.GetLower(), f.GetLower()).StoreUnsafe(ref to, (nuint)x);
            Vector256.Create(g.GetLower(), h.GetLower()).StoreUnsafe(ref to, (nuint)(x + 8));
            Vector256.Create(e.GetUpper(), f.GetUpper()).StoreUnsafe(ref to, (nuint)(x + 16));
            Vector256.Create(g.GetUpper(), h.GetUpper()).StoreUnsafe(ref to, (nuint)(x + 24));
        }

        for (; x < sums.Length; x++)
        {
            var sum = 0;
            for (int k = 0, at = x; k < fractions.Length; k++, at += row)
            {
                sum += rows[at] * fractions[k];
            }

            sums[x] = sum / (float)Taps.Whole;
        }
    }

    // A few values at a time through all rows: their sums stay where the processor adds.
    private static void Sum(ReadOnlySpan<byte> rows, int row, ReadOnlySpan<float> weights, Span<float> sums)
    {
        var lanes = Vector<byte>.Count;
        var quarter = Vector<float>.Count;
        var x = 0;
        for (; x + lanes <= sums.Length; x += lanes)
        {
            var (a, b, c, d) = (Vector<float>.Zero, Vector<float>.Zero, Vector<float>.Zero, Vector<float>.Zero);
            for (int k = 0, at = x; k < weights.Length; k++, at += row)
            {
                var by = new Vector<float>(weights[k]);
                Vector.Widen(Vector.LoadUnsafe(in rows[at]), out var low, out var high);
                Vector.Widen(low, out var first, out var second);
                Vector.Widen(high, out var third, out var fourth);
                a = Vector.FusedMultiplyAdd(Vector.ConvertToSingle(Vector.AsVectorInt32(first)), by, a);
                b = Vector.FusedMultiplyAdd(Vector.ConvertToSingle(Vector.AsVectorInt32(second)), by, b);
                c = Vector.FusedMultiplyAdd(Vector.ConvertToSingle(Vector.AsVectorInt32(third)), by, c);
                d = Vector.FusedMultiplyAdd(Vector.ConvertToSingle(Vector.AsVectorInt32(fourth)), by, d);
            }

            a.CopyTo(sums[x..]);
            b.CopyTo(sums[(x + quarter)..]);
            c.CopyTo(sums[(x + (2 * quarter))..]);
            d.CopyTo(sums[(x + (3 * quarter))..]);
        }

        for (; x < sums.Length; x++)
        {
            var sum = 0f;
            for (int k = 0, at = x; k < weights.Length; k++, at += row)
            {
                sum += rows[at] * weights[k];
            }

            sums[x] = sum;
        }
    }

    private static void Add(ReadOnlySpan<byte> stored, ReadOnlySpan<float> values, float weight, Span<float> sums)
    {
        for (var x = 0; x < stored.Length; x++)
        {
            sums[x] += values[stored[x]] * weight;
        }
    }

    // Each channel counts by how much of the pixel is covered.
    private static void AddCovered(ReadOnlySpan<byte> stored, int bands, ReadOnlySpan<float> values, float weight, Span<float> sums)
    {
        var colours = bands - 1;
        for (var x = 0; x < stored.Length; x += bands)
        {
            var covered = stored[x + colours] * weight;
            for (var band = 0; band < colours; band++)
            {
                sums[x + band] += values[stored[x + band]] * covered * (1f / 255);
            }

            sums[x + colours] += covered;
        }
    }

    private static void Spread(ReadOnlySpan<float> sums, int bands, Span<float> pixels)
    {
        if (bands == Lanes)
        {
            sums.CopyTo(pixels);
            return;
        }

        var from = 0;
        var to = 0;
        // Four values are taken where a pixel has fewer: nobody reads what lies in the lanes beyond.
        for (; from + Lanes <= sums.Length; from += bands, to += Lanes)
        {
            Vector128.LoadUnsafe(in sums[from]).StoreUnsafe(ref pixels[to]);
        }

        pixels[to..].Clear();
        for (; from < sums.Length; from += bands, to += Lanes)
        {
            for (var band = 0; band < bands; band++)
            {
                pixels[to + band] = sums[from + band];
            }
        }
    }

    private static void ReduceRow(ReadOnlySpan<float> pixels, Taps across, int bands, Mixing mixing, Span<byte> result)
    {
        ref var first = ref MemoryMarshal.GetReference(pixels);
        for (int x = 0, to = 0; to < result.Length; x++, to += bands)
        {
            var sum = Weighted(ref Unsafe.Add(ref first, across.Start(x) * Lanes), across.WeightsOfLanes(x));
            if (mixing.Covered)
            {
                var covered = sum[bands - 1];
                sum *= covered > 0.5f ? 255 / covered : 0;
                sum = sum.WithElement(bands - 1, covered);
            }

            if (mixing.OfLight)
            {
                for (var band = 0; band < bands; band++)
                {
                    result[to + band] = mixing.Covered && band == bands - 1 ? (byte)(Rounded(sum) >> (8 * band)) : Light.ToValue(sum[band]);
                }

                continue;
            }

            var values = Rounded(sum);
            for (var band = 0; band < bands; band++)
            {
                result[to + band] = (byte)values;
                values >>= 8;
            }
        }
    }

    // Whole numbers from 0 to 255, the first band in the lowest byte.
    private static uint Rounded(Vector128<float> sum)
    {
        var whole = Vector128.ConvertToInt32(sum + Vector128.Create(0.5f));
        var held = Vector128.Min(Vector128.Max(whole, Vector128<int>.Zero), Vector128.Create(255));
        return Vector128.Shuffle(held.AsByte(), LowBytes).AsUInt32().ToScalar();
    }

    private static Vector128<byte> LowBytes =>
        Vector128.Create((byte)0, 4, 8, 12, 255, 255, 255, 255, 255, 255, 255, 255, 255, 255, 255, 255);

    // Pixels that lie beside each other, each by its weight; two at a time, in two sums that do not wait for each other.
    private static Vector128<float> Weighted(ref float pixels, ReadOnlySpan<float> weights)
    {
        ref var by = ref MemoryMarshal.GetReference(weights);
        var two = 2 * Lanes;
        var (even, odd) = (Vector256<float>.Zero, Vector256<float>.Zero);
        var at = 0;
        for (; at + (2 * two) <= weights.Length; at += 2 * two)
        {
            even = Vector256.FusedMultiplyAdd(Vector256.LoadUnsafe(ref pixels, (nuint)at), Vector256.LoadUnsafe(ref by, (nuint)at), even);
            odd = Vector256.FusedMultiplyAdd(
                Vector256.LoadUnsafe(ref pixels, (nuint)(at + two)),
                Vector256.LoadUnsafe(ref by, (nuint)(at + two)),
                odd
            );
        }

        even += odd;
        var sum = even.GetLower() + even.GetUpper();
        for (; at < weights.Length; at += Lanes)
        {
            sum = Vector128.FusedMultiplyAdd(Vector128.LoadUnsafe(ref pixels, (nuint)at), Vector128.LoadUnsafe(ref by, (nuint)at), sum);
        }

        return sum;
    }

    /// <summary>How pixels are mixed.</summary>
    /// <param name="Covered">The last channel is coverage: the others count by it.</param>
    /// <param name="OfLight">Light is mixed, not what is stored.</param>
    private readonly record struct Mixing(bool Covered, bool OfLight);
}

using System.Numerics;
using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;

namespace Pantomet.Core.Likeness;

/// <summary>
/// Structural similarity of two planes: Z. Wang, A. Bovik, H. Sheikh, E. Simoncelli, "Image Quality Assessment: From Error
/// Visibility to Structural Similarity", IEEE Transactions on Image Processing 13 (4), 2004, equations 6, 9, 10 and 13, with the
/// paper's 11 × 11 Gaussian window of 1.5 and K1 = 0.01, K2 = 0.03. Only places where the whole window lies inside count.
/// </summary>
/// <remarks>
/// The four local moments are taken of the sum and of the difference of both planes: with a = x + y and b = x − y,
/// 4 μx μy = μa² − μb², 2 (μx² + μy²) = μa² + μb², and the same for the variances. The window is separable and symmetric.
/// </remarks>
public static class StructuralSimilarity
{
    /// <summary>The window's side.</summary>
    public const int Window = 11;

    private const int Reach = Window / 2;
    private const float C1 = 0.01f * 255 * 0.01f * 255;
    private const float C2 = 0.03f * 255 * 0.03f * 255;

    // From the middle outwards; together with their mirror images they add up to 1.
    private static readonly float[] Weights = Gaussian();

    /// <summary>Receives one row of results.</summary>
    /// <param name="y">The row of the plane that the windows are centred on.</param>
    /// <param name="first">The column of the plane that the first value is centred on.</param>
    /// <param name="luminance">The comparison of means, for each place.</param>
    /// <param name="structure">The comparison of contrast and structure, for each place.</param>
    public delegate void RowOfResults(int y, int first, ReadOnlySpan<float> luminance, ReadOnlySpan<float> structure);

    /// <summary>The mean over all windows; 1 exactly when the planes are equal.</summary>
    public static double Mean(Plane x, Plane y)
    {
        double sum = 0;
        long count = 0;
        Compare(
            x,
            y,
            (_, _, luminance, structure) =>
            {
                for (var i = 0; i < luminance.Length; i++)
                {
                    sum += luminance[i] * structure[i];
                }

                count += luminance.Length;
            }
        );
        return count == 0 ? 1 : sum / count;
    }

    /// <summary>Compares two planes of one size, row by row. Planes smaller than the window give no rows.</summary>
    /// <exception cref="ArgumentException">The sizes differ.</exception>
    public static void Compare(Plane x, Plane y, RowOfResults take)
    {
        ArgumentNullException.ThrowIfNull(take);
        if (x.Width != y.Width || x.Height != y.Height)
        {
            throw new ArgumentException($"{x.Width} x {x.Height} and {y.Width} x {y.Height} cannot be compared", nameof(y));
        }

        if (x.ShortSide < Window)
        {
            return;
        }

        var width = x.Width;
        var moments = new float[4][];
        for (var i = 0; i < moments.Length; i++)
        {
            moments[i] = new float[width];
        }

        var luminance = new float[width - (2 * Reach)];
        var structure = new float[luminance.Length];
        for (var row = Reach; row < x.Height - Reach; row++)
        {
            Down(x, y, row, moments);
            Across(moments, luminance, structure);
            take(row, Reach, luminance, structure);
        }
    }

    [MethodImpl(MethodImplOptions.AggressiveOptimization)]
    private static void Down(Plane x, Plane y, int row, float[][] moments)
    {
        var width = x.Width;
        var lanes = Vector<float>.Count;
        if (width < lanes)
        {
            DownOne(x, y, row, moments);
            return;
        }

        ref var px = ref Unsafe.Add(ref MemoryMarshal.GetArrayDataReference(x.Values), row * width);
        ref var py = ref Unsafe.Add(ref MemoryMarshal.GetArrayDataReference(y.Values), row * width);
        ref var weights = ref MemoryMarshal.GetArrayDataReference(Weights);
        for (var column = 0; column < width; column += lanes)
        {
            // The last step is taken back a little so that it ends with the row.
            var at = Math.Min(column, width - lanes);
            var vx = Load(ref px, at);
            var vy = Load(ref py, at);
            var (a, b) = (vx + vy, vx - vy);
            var weight = new Vector<float>(weights);
            var (ma, mb) = (weight * a, weight * b);
            var (saa, sbb) = (ma * a, mb * b);
            for (var k = 1; k <= Reach; k++)
            {
                var offset = k * width;
                weight = new Vector<float>(Unsafe.Add(ref weights, k));
                var (x1, y1) = (Load(ref px, at + offset), Load(ref py, at + offset));
                var (x2, y2) = (Load(ref px, at - offset), Load(ref py, at - offset));
                var (a1, b1) = (x1 + y1, x1 - y1);
                var (a2, b2) = (x2 + y2, x2 - y2);
                ma = Vector.FusedMultiplyAdd(weight, a1 + a2, ma);
                mb = Vector.FusedMultiplyAdd(weight, b1 + b2, mb);
                saa = Vector.FusedMultiplyAdd(weight, Vector.FusedMultiplyAdd(a1, a1, a2 * a2), saa);
                sbb = Vector.FusedMultiplyAdd(weight, Vector.FusedMultiplyAdd(b1, b1, b2 * b2), sbb);
            }

            Store(ma, moments[0], at);
            Store(mb, moments[1], at);
            Store(saa, moments[2], at);
            Store(sbb, moments[3], at);
        }
    }

    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    private static Vector<float> Load(ref float first, int at) => Vector.LoadUnsafe(ref Unsafe.Add(ref first, at));

    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    private static void Store(Vector<float> value, float[] row, int at) =>
        value.StoreUnsafe(ref Unsafe.Add(ref MemoryMarshal.GetArrayDataReference(row), at));

    private static void DownOne(Plane x, Plane y, int row, float[][] moments)
    {
        for (var column = 0; column < x.Width; column++)
        {
            float ma = 0,
                mb = 0,
                saa = 0,
                sbb = 0;
            for (var k = -Reach; k <= Reach; k++)
            {
                var (vx, vy) = (x.Row(row + k)[column], y.Row(row + k)[column]);
                var (a, b, weight) = (vx + vy, vx - vy, Weights[Math.Abs(k)]);
                ma += weight * a;
                mb += weight * b;
                saa += weight * a * a;
                sbb += weight * b * b;
            }

            (moments[0][column], moments[1][column], moments[2][column], moments[3][column]) = (ma, mb, saa, sbb);
        }
    }

    [MethodImpl(MethodImplOptions.AggressiveOptimization)]
    private static void Across(float[][] moments, float[] luminance, float[] structure)
    {
        var lanes = Vector<float>.Count;
        var count = luminance.Length;
        if (count < lanes)
        {
            for (var i = 0; i < count; i++)
            {
                (luminance[i], structure[i]) = One(moments, i);
            }

            return;
        }

        for (var column = 0; column < count; column += lanes)
        {
            var at = Math.Min(column, count - lanes);
            var ma = Filtered(moments[0], at);
            var mb = Filtered(moments[1], at);
            var (ma2, mb2) = (ma * ma, mb * mb);
            var va = Vector.Max(Filtered(moments[2], at) - ma2, Vector<float>.Zero);
            var vb = Vector.Max(Filtered(moments[3], at) - mb2, Vector<float>.Zero);
            var (c1, c2, half) = (new Vector<float>(C1), new Vector<float>(C2), new Vector<float>(0.5f));
            Store((((ma2 - mb2) * half) + c1) / (((ma2 + mb2) * half) + c1), luminance, at);
            Store((((va - vb) * half) + c2) / (((va + vb) * half) + c2), structure, at);
        }
    }

    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    private static Vector<float> Filtered(float[] row, int at)
    {
        ref var middle = ref Unsafe.Add(ref MemoryMarshal.GetArrayDataReference(row), at + Reach);
        ref var weights = ref MemoryMarshal.GetArrayDataReference(Weights);
        var sum = Load(ref middle, 0) * new Vector<float>(weights);
        sum = Vector.FusedMultiplyAdd(Load(ref middle, -1) + Load(ref middle, 1), new Vector<float>(Unsafe.Add(ref weights, 1)), sum);
        sum = Vector.FusedMultiplyAdd(Load(ref middle, -2) + Load(ref middle, 2), new Vector<float>(Unsafe.Add(ref weights, 2)), sum);
        sum = Vector.FusedMultiplyAdd(Load(ref middle, -3) + Load(ref middle, 3), new Vector<float>(Unsafe.Add(ref weights, 3)), sum);
        sum = Vector.FusedMultiplyAdd(Load(ref middle, -4) + Load(ref middle, 4), new Vector<float>(Unsafe.Add(ref weights, 4)), sum);
        return Vector.FusedMultiplyAdd(Load(ref middle, -5) + Load(ref middle, 5), new Vector<float>(Unsafe.Add(ref weights, 5)), sum);
    }

    private static (float Luminance, float Structure) One(float[][] moments, int at)
    {
        Span<float> filtered = stackalloc float[4];
        for (var m = 0; m < 4; m++)
        {
            for (var k = -Reach; k <= Reach; k++)
            {
                filtered[m] += Weights[Math.Abs(k)] * moments[m][at + Reach + k];
            }
        }

        var (ma2, mb2) = (filtered[0] * filtered[0], filtered[1] * filtered[1]);
        var (va, vb) = (Math.Max(filtered[2] - ma2, 0), Math.Max(filtered[3] - mb2, 0));
        return ((((ma2 - mb2) / 2) + C1) / (((ma2 + mb2) / 2) + C1), (((va - vb) / 2) + C2) / (((va + vb) / 2) + C2));
    }

    private static float[] Gaussian()
    {
        const double deviation = 1.5;
        var weights = Enumerable.Range(0, Reach + 1).Select(k => Math.Exp(-k * k / (2 * deviation * deviation))).ToArray();
        var sum = weights[0] + (2 * weights.Skip(1).Sum());
        return [.. weights.Select(weight => (float)(weight / sum))];
    }
}

using System.Numerics;
using System.Runtime.InteropServices;

namespace Pantomet.Core.Likeness;

/// <summary>Sums over stretches of a row, several values at a time.</summary>
internal static class Sums
{
    public static float Of(ReadOnlySpan<float> values)
    {
        var wide = MemoryMarshal.Cast<float, Vector<float>>(values);
        var sum = Vector<float>.Zero;
        foreach (var vector in wide)
        {
            sum += vector;
        }

        var total = Vector.Sum(sum);
        foreach (var value in values[(wide.Length * Vector<float>.Count)..])
        {
            total += value;
        }

        return total;
    }

    public static float OfProducts(ReadOnlySpan<float> a, ReadOnlySpan<float> b)
    {
        float total = 0;
        for (var i = 0; i < a.Length; i++)
        {
            total += a[i] * b[i];
        }

        return total;
    }
}

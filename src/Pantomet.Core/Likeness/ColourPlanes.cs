using System.Runtime.InteropServices;
using System.Runtime.Intrinsics;

namespace Pantomet.Core.Likeness;

/// <summary>A picture as luma at full size and two colour differences at half size.</summary>
/// <param name="Luma">Y, 0 to 255.</param>
/// <param name="Blue">Cb around 0, at half size; null for a grey picture.</param>
/// <param name="Red">Cr around 0, at half size; null for a grey picture.</param>
/// <remarks>The weights of ITU-R BT.601 as in JFIF (ITU-T T.871, 7), on the stored sRGB values.</remarks>
public sealed record ColourPlanes(Plane Luma, Plane? Blue, Plane? Red)
{
    private const float RedShare = 0.299f;
    private const float GreenShare = 0.587f;
    private const float BlueShare = 0.114f;

    /// <summary>Gives the memory back for the next picture; the planes must not be read any more.</summary>
    public void Return()
    {
        Luma.Return();
        Blue?.Return();
        Red?.Return();
    }

    /// <summary>Splits interleaved 8-bit pixels.</summary>
    /// <param name="pixels">Width × height × bands bytes: red, green, blue, or one grey channel.</param>
    /// <param name="width">Pixels across.</param>
    /// <param name="height">Pixels down.</param>
    /// <param name="bands">3 or 1.</param>
    /// <exception cref="ArgumentException">The number of bytes does not fit the size.</exception>
    public static ColourPlanes Of(ReadOnlySpan<byte> pixels, int width, int height, int bands)
    {
        if (bands is not (1 or 3) || pixels.Length != (long)width * height * bands)
        {
            throw new ArgumentException($"{pixels.Length} bytes are no {width} x {height} pixels of {bands} channels", nameof(pixels));
        }

        var luma = Plane.Rent(width, height);
        if (bands == 1)
        {
            for (var i = 0; i < pixels.Length; i++)
            {
                luma.Values[i] = pixels[i];
            }

            return new(luma, null, null);
        }

        var (halfWidth, halfHeight) = (width / 2, height / 2);
        if (halfWidth == 0 || halfHeight == 0)
        {
            FillLuma(pixels, luma.Values.AsSpan(0, width * height));
            return new(luma, null, null);
        }

        var blue = Plane.Rent(halfWidth, halfHeight);
        var red = Plane.Rent(halfWidth, halfHeight);
        var scratch = new Scratch(width);
        for (var y = 0; y < halfHeight; y++)
        {
            var upper = pixels.Slice(2 * y * width * 3, width * 3);
            var lower = pixels.Slice(((2 * y) + 1) * width * 3, width * 3);
            TwoRows(upper, lower, luma.Row(2 * y), luma.Row((2 * y) + 1), blue.Row(y), red.Row(y), scratch);
        }

        if ((height & 1) == 1)
        {
            FillLuma(pixels.Slice((height - 1) * width * 3, width * 3), luma.Row(height - 1));
        }

        return new(luma, blue, red);
    }

    private static void FillLuma(ReadOnlySpan<byte> pixels, Span<float> luma)
    {
        var x = SplitRow(pixels, luma, [], []);
        for (var i = 3 * x; x < luma.Length; x++, i += 3)
        {
            luma[x] = (RedShare * pixels[i]) + (GreenShare * pixels[i + 1]) + (BlueShare * pixels[i + 2]);
        }
    }

    private static void TwoRows(
        ReadOnlySpan<byte> upper,
        ReadOnlySpan<byte> lower,
        Span<float> lumaUp,
        Span<float> lumaLow,
        Span<float> blue,
        Span<float> red,
        Scratch scratch
    )
    {
        const float toBlue = 0.564f / 4; // 0.5 / (1 - 0.114), the mean of four
        const float toRed = 0.713f / 4; // 0.5 / (1 - 0.299)
        Differences(upper, lumaUp, scratch.BlueUp, scratch.RedUp);
        Differences(lower, lumaLow, scratch.BlueLow, scratch.RedLow);
        Halve(scratch.BlueUp, scratch.BlueLow, blue, toBlue);
        Halve(scratch.RedUp, scratch.RedLow, red, toRed);
    }

    private static void Differences(ReadOnlySpan<byte> pixels, Span<float> luma, Span<float> blue, Span<float> red)
    {
        var x = SplitRow(pixels, luma, blue, red);
        for (var i = 3 * x; x < luma.Length; x++, i += 3)
        {
            luma[x] = (RedShare * pixels[i]) + (GreenShare * pixels[i + 1]) + (BlueShare * pixels[i + 2]);
            blue[x] = pixels[i + 2] - luma[x];
            red[x] = pixels[i] - luma[x];
        }
    }

    private static void Halve(ReadOnlySpan<float> upper, ReadOnlySpan<float> lower, Span<float> half, float factor)
    {
        for (var x = 0; x < half.Length; x++)
        {
            half[x] = (upper[2 * x] + upper[(2 * x) + 1] + lower[2 * x] + lower[(2 * x) + 1]) * factor;
        }
    }

    // Four pixels at a time: a shuffle picks every third byte into four whole numbers. Returns how many pixels are done; the differences
    // are left out where there is no room for them.
    private static int SplitRow(ReadOnlySpan<byte> pixels, Span<float> luma, Span<float> blue, Span<float> red)
    {
        const int step = 4;
        var x = 0;
        ref var first = ref MemoryMarshal.GetReference(pixels);
        for (; x + step <= luma.Length && (3 * x) + Vector128<byte>.Count <= pixels.Length; x += step)
        {
            var bytes = Vector128.LoadUnsafe(ref first, (nuint)(3 * x));
            var r = Vector128.ConvertToSingle(Vector128.Shuffle(bytes, PickRed).AsInt32());
            var g = Vector128.ConvertToSingle(Vector128.Shuffle(bytes, PickGreen).AsInt32());
            var b = Vector128.ConvertToSingle(Vector128.Shuffle(bytes, PickBlue).AsInt32());
            var y = (r * RedShare) + (g * GreenShare) + (b * BlueShare);
            y.StoreUnsafe(ref MemoryMarshal.GetReference(luma), (nuint)x);
            if (!blue.IsEmpty)
            {
                (b - y).StoreUnsafe(ref MemoryMarshal.GetReference(blue), (nuint)x);
                (r - y).StoreUnsafe(ref MemoryMarshal.GetReference(red), (nuint)x);
            }
        }

        return x;
    }

    // A place beyond the vector picks a zero.
    private static Vector128<byte> PickRed =>
        Vector128.Create((byte)0, 255, 255, 255, 3, 255, 255, 255, 6, 255, 255, 255, 9, 255, 255, 255);

    private static Vector128<byte> PickGreen =>
        Vector128.Create((byte)1, 255, 255, 255, 4, 255, 255, 255, 7, 255, 255, 255, 10, 255, 255, 255);

    private static Vector128<byte> PickBlue =>
        Vector128.Create((byte)2, 255, 255, 255, 5, 255, 255, 255, 8, 255, 255, 255, 11, 255, 255, 255);

    private sealed class Scratch(int width)
    {
        public float[] BlueUp { get; } = new float[width];

        public float[] BlueLow { get; } = new float[width];

        public float[] RedUp { get; } = new float[width];

        public float[] RedLow { get; } = new float[width];
    }
}

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

        var luma = new Plane(GC.AllocateUninitializedArray<float>(width * height), width, height);
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
            FillLuma(pixels, luma.Values);
            return new(luma, null, null);
        }

        var blue = new Plane(GC.AllocateUninitializedArray<float>(halfWidth * halfHeight), halfWidth, halfHeight);
        var red = new Plane(GC.AllocateUninitializedArray<float>(halfWidth * halfHeight), halfWidth, halfHeight);
        for (var y = 0; y < halfHeight; y++)
        {
            var upper = pixels.Slice(2 * y * width * 3, width * 3);
            var lower = pixels.Slice(((2 * y) + 1) * width * 3, width * 3);
            TwoRows(upper, lower, luma.Row(2 * y), luma.Row((2 * y) + 1), blue.Row(y), red.Row(y));
        }

        if ((height & 1) == 1)
        {
            FillLuma(pixels.Slice((height - 1) * width * 3, width * 3), luma.Row(height - 1));
        }

        return new(luma, blue, red);
    }

    private static void FillLuma(ReadOnlySpan<byte> pixels, Span<float> luma)
    {
        for (var (i, x) = (0, 0); x < luma.Length; x++, i += 3)
        {
            luma[x] = (RedShare * pixels[i]) + (GreenShare * pixels[i + 1]) + (BlueShare * pixels[i + 2]);
        }
    }

    private static void TwoRows(ReadOnlySpan<byte> upper, ReadOnlySpan<byte> lower, Span<float> lumaUp, Span<float> lumaLow, Span<float> blue, Span<float> red)
    {
        const float toBlue = 0.564f / 4; // 0.5 / (1 - 0.114), the mean of four
        const float toRed = 0.713f / 4; // 0.5 / (1 - 0.299)
        FillLuma(upper, lumaUp);
        FillLuma(lower, lumaLow);
        for (var (i, x) = (0, 0); x < blue.Length; x++, i += 6)
        {
            var y = lumaUp[2 * x] + lumaUp[(2 * x) + 1] + lumaLow[2 * x] + lumaLow[(2 * x) + 1];
            blue[x] = (upper[i + 2] + upper[i + 5] + lower[i + 2] + lower[i + 5] - y) * toBlue;
            red[x] = (upper[i] + upper[i + 3] + lower[i] + lower[i + 3] - y) * toRed;
        }
    }
}

using System.Runtime.InteropServices;
using System.Runtime.Intrinsics;

namespace Pantomet.Core.Likeness;

/// <summary>Splits rows of 8-bit pixels into luma and two differences of colour.</summary>
/// <remarks>The weights of ITU-R BT.601 as in JFIF (ITU-T T.871, 7), on the stored sRGB values.</remarks>
internal static class ColourRow
{
    /// <summary>What red has in luma.</summary>
    public const float RedShare = 0.299f;

    /// <summary>What green has in luma.</summary>
    public const float GreenShare = 0.587f;

    /// <summary>What blue has in luma.</summary>
    public const float BlueShare = 0.114f;

    /// <summary>Splits one row.</summary>
    /// <param name="pixels">Red, green and blue, or one grey channel.</param>
    /// <param name="bands">3 or 1.</param>
    /// <param name="luma">Receives luma, 0 to 255; as long as the row.</param>
    /// <param name="blue">Receives how far blue lies above luma; empty where it is not wanted.</param>
    /// <param name="red">Receives how far red lies above luma; empty where it is not wanted.</param>
    public static void Split(ReadOnlySpan<byte> pixels, int bands, Span<float> luma, Span<float> blue, Span<float> red)
    {
        if (bands == 1)
        {
            for (var i = 0; i < luma.Length; i++)
            {
                luma[i] = pixels[i];
            }

            return;
        }

        for (var x = Four(pixels, luma, blue, red); x < luma.Length; x++)
        {
            var at = 3 * x;
            luma[x] = (RedShare * pixels[at]) + (GreenShare * pixels[at + 1]) + (BlueShare * pixels[at + 2]);
            if (!blue.IsEmpty)
            {
                blue[x] = pixels[at + 2] - luma[x];
                red[x] = pixels[at] - luma[x];
            }
        }
    }

    // Four pixels at a time: a shuffle picks every third byte into four whole numbers. Returns how many pixels are done; the differences
    // are left out where there is no room for them.
    private static int Four(ReadOnlySpan<byte> pixels, Span<float> luma, Span<float> blue, Span<float> red)
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
}

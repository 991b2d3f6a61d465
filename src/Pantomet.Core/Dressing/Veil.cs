using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Dressing;

/// <summary>Mixes pixels with a colour.</summary>
public static class Veil
{
    /// <summary>Lays it over pixels where they are; what is transparent stays as transparent as it was.</summary>
    /// <param name="values">8-bit sRGB, interleaved, row by row.</param>
    /// <param name="size">The size in pixels.</param>
    /// <param name="bands">Three channels, or four with coverage.</param>
    /// <param name="to">The colour.</param>
    /// <param name="level">The amount in 255ths.</param>
    /// <param name="shape">How much of it each column or row takes.</param>
    public static void Lay(Span<byte> values, PixelSize size, int bands, Rgb to, int level, FadeShape shape)
    {
        ArgumentNullException.ThrowIfNull(shape);
        ArgumentOutOfRangeException.ThrowIfLessThan(bands, 3);
        ReadOnlySpan<byte> channels = [to.Red, to.Green, to.Blue];
        var known = new byte[FadeSolver.Whole + 1][];
        var mixes = new byte[shape.Across ? size.Width : size.Height][];
        for (var place = 0; place < mixes.Length; place++)
        {
            var at = (int)Math.Round(level * shape.At(place));
            mixes[place] = known[at] ??= Mix(channels, at);
        }

        for (var y = 0; y < size.Height; y++)
        {
            var row = values.Slice(y * size.Width * bands, size.Width * bands);
            for (var x = 0; x < size.Width; x++)
            {
                var mix = mixes[shape.Across ? x : y];
                var pixel = row.Slice(x * bands, 3);
                (pixel[0], pixel[1], pixel[2]) = (mix[pixel[0]], mix[256 + pixel[1]], mix[512 + pixel[2]]);
            }
        }
    }

    // What becomes of each value of each channel.
    private static byte[] Mix(ReadOnlySpan<byte> channels, int level)
    {
        var mix = new byte[3 * 256];
        for (var i = 0; i < mix.Length; i++)
        {
            mix[i] = FadeSolver.Mixed(i & 255, channels[i >> 8], level);
        }

        return mix;
    }
}

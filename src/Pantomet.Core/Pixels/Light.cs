namespace Pantomet.Core.Pixels;

/// <summary>The transfer between stored sRGB values and light (IEC 61966-2-1), and how much a reduction of stored values loses of it.</summary>
public static class Light
{
    /// <summary>From this loss on (in 255ths, see <see cref="LossOf"/>) a photograph is reduced in light.</summary>
    /// <remarks>docs/reduction.md has what it is by butteraugli.</remarks>
    public const double Plain = 5;

    // A block of this many pixels becomes one.
    private const int Block = 4;

    private const int EnoughBlocks = 6000;

    private const int Steps = 65535;

    private static readonly float[] Stored = [.. Enumerable.Range(0, 256).Select(value => (float)(255 * OfStored(value / 255.0)))];
    private static readonly float[] Values =
    [
        .. Enumerable.Range(0, Steps + 1).Select(step => (float)(255 * ToStored(step / (double)Steps))),
    ];

    /// <summary>The light of each stored value from 0 to 255, itself from 0 to 255.</summary>
    public static ReadOnlySpan<float> OfValues => Stored;

    /// <summary>The stored value of a light from 0 to 255; what lies beyond is cut.</summary>
    public static byte ToValue(float light) => (byte)(Stored8(light) + 0.5f);

    /// <summary>
    /// How much darker fine bright detail becomes when stored values are averaged instead of light: the difference in 255ths over blocks of
    /// four by four pixels, weighted as luminance is (ITU-R BT.709), by the 3-norm, so that a few bright lamps count more than many faint
    /// differences.
    /// </summary>
    /// <param name="pixels">The picture in sRGB, about four hundred pixels on its longer side or more.</param>
    public static double LossOf(PixelRows pixels)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(pixels.Bands, 3);
        var (across, down) = (pixels.Width / Block, pixels.Height / Block);
        // So many blocks tell as much as all of them.
        var step = Math.Max(1, (int)Math.Sqrt(across * down / (double)EnoughBlocks));
        var (sum, count) = (0.0, 0);
        for (var y = 0; y < down; y += step)
        {
            for (var x = 0; x < across; x += step)
            {
                var loss = Math.Max(0, LossIn(pixels, x * Block, y * Block));
                sum += loss * loss * loss;
                count++;
            }
        }

        return count == 0 ? 0 : Math.Cbrt(sum / count);
    }

    private static double LossIn(PixelRows pixels, int left, int top)
    {
        ReadOnlySpan<double> weights = [0.2126, 0.7152, 0.0722];
        Span<float> light = stackalloc float[3];
        Span<int> stored = stackalloc int[3];
        for (var y = top; y < top + Block; y++)
        {
            var row = pixels.Values.Span.Slice(((y * pixels.Width) + left) * pixels.Bands, Block * pixels.Bands);
            for (var at = 0; at < row.Length; at += pixels.Bands)
            {
                for (var band = 0; band < 3; band++)
                {
                    light[band] += Stored[row[at + band]];
                    stored[band] += row[at + band];
                }
            }
        }

        var loss = 0.0;
        for (var band = 0; band < 3; band++)
        {
            loss += weights[band] * (Stored8(light[band] / (Block * Block)) - (stored[band] / (double)(Block * Block)));
        }

        return loss;
    }

    private static float Stored8(float light) => Values[(int)Math.Clamp((light * (Steps / 255f)) + 0.5f, 0, Steps)];

    /// <summary>The light of a stored value, both 0 to 1.</summary>
    internal static double OfStored(double value) => value <= 0.04045 ? value / 12.92 : Math.Pow((value + 0.055) / 1.055, 2.4);

    private static double ToStored(double light) => light <= 0.0031308 ? 12.92 * light : (1.055 * Math.Pow(light, 1 / 2.4)) - 0.055;
}

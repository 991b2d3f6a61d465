using System.Buffers;

namespace Pantomet.Core.Likeness;

/// <summary>One channel of a picture as single-precision values, row by row without gaps.</summary>
/// <param name="values">Width × height values, usually 0 to 255; there may be room behind them.</param>
/// <param name="width">Values across.</param>
/// <param name="height">Rows.</param>
public readonly struct Plane(float[] values, int width, int height)
{
    /// <summary>The values, row by row.</summary>
    public float[] Values { get; } = values;

    /// <summary>Values across.</summary>
    public int Width { get; } = width;

    /// <summary>Rows.</summary>
    public int Height { get; } = height;

    /// <summary>The shorter side.</summary>
    public int ShortSide => Math.Min(Width, Height);

    /// <summary>One row.</summary>
    public Span<float> Row(int y) => Values.AsSpan(y * Width, Width);

    /// <summary>The luma of interleaved 8-bit pixels, or of one grey channel.</summary>
    /// <param name="pixels">Width × height × bands bytes: red, green, blue, or one grey channel.</param>
    /// <param name="width">Pixels across.</param>
    /// <param name="height">Pixels down.</param>
    /// <param name="bands">3 or 1.</param>
    /// <exception cref="ArgumentException">The number of bytes does not fit the size.</exception>
    public static Plane LumaOf(ReadOnlySpan<byte> pixels, int width, int height, int bands)
    {
        if (bands is not (1 or 3) || pixels.Length != (long)width * height * bands)
        {
            throw new ArgumentException($"{pixels.Length} bytes are no {width} x {height} pixels of {bands} channels", nameof(pixels));
        }

        var luma = Rent(width, height);
        for (var y = 0; y < height; y++)
        {
            ColourRow.Split(pixels.Slice(y * width * bands, width * bands), bands, luma.Row(y), [], []);
        }

        return luma;
    }

    /// <summary>A plane whose memory was used before; its values are anything.</summary>
    internal static Plane Rent(int width, int height) => new(ArrayPool<float>.Shared.Rent(width * height), width, height);

    /// <summary>Gives the memory back for the next plane; the values must not be read any more.</summary>
    internal void Return() => ArrayPool<float>.Shared.Return(Values);

    /// <summary>Half as wide and half as high: the mean of each 2 × 2 block. An odd last row or column is left out.</summary>
    public Plane Halved()
    {
        var (width, height) = (Math.Max(1, Width / 2), Math.Max(1, Height / 2));
        var half = Rent(width, height);
        if (Width == 1 || Height == 1)
        {
            var last = (Width * Height) - 1;
            for (var i = 0; i < width * height; i++)
            {
                half.Values[i] = (Values[Math.Min(2 * i, last)] + Values[Math.Min((2 * i) + 1, last)]) / 2;
            }

            return half;
        }

        for (var y = 0; y < height; y++)
        {
            var row = half.Row(y);
            var upper = Row(2 * y)[..(2 * row.Length)];
            var lower = Row((2 * y) + 1)[..(2 * row.Length)];
            for (var x = 0; x < row.Length; x++)
            {
                row[x] = (upper[2 * x] + upper[(2 * x) + 1] + lower[2 * x] + lower[(2 * x) + 1]) * 0.25f;
            }
        }

        return half;
    }
}

namespace Pantomet.Core.Likeness;

/// <summary>One channel of a picture as single-precision values, row by row without gaps.</summary>
/// <param name="values">Width × height values, usually 0 to 255.</param>
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

    /// <summary>Half as wide and half as high: the mean of each 2 × 2 block. An odd last row or column is left out.</summary>
    public Plane Halved()
    {
        var (width, height) = (Math.Max(1, Width / 2), Math.Max(1, Height / 2));
        var half = new Plane(GC.AllocateUninitializedArray<float>(width * height), width, height);
        for (var y = 0; y < height; y++)
        {
            var upper = Row(Math.Min(2 * y, Height - 1));
            var lower = Row(Math.Min((2 * y) + 1, Height - 1));
            var row = half.Row(y);
            var step = Width > 1 ? 1 : 0;
            for (var x = 0; x < row.Length; x++)
            {
                var at = 2 * x * step;
                row[x] = (upper[at] + upper[at + step] + lower[at] + lower[at + step]) * 0.25f;
            }
        }

        return half;
    }
}

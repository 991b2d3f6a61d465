using System.Text.Json.Serialization;

namespace Pantomet.Core.Geometry;

/// <summary>A size in whole pixels, each side at least 1.</summary>
public readonly record struct PixelSize
{
    /// <summary>Makes a size.</summary>
    /// <exception cref="ArgumentOutOfRangeException">A side is below 1.</exception>
    [JsonConstructor]
    public PixelSize(int width, int height)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(width, 1);
        ArgumentOutOfRangeException.ThrowIfLessThan(height, 1);
        Width = width;
        Height = height;
    }

    /// <summary>Pixels across, at least 1.</summary>
    public int Width { get; }

    /// <summary>Pixels down, at least 1.</summary>
    public int Height { get; }

    /// <summary>All pixels.</summary>
    public long Area => (long)Width * Height;

    /// <summary>The longer side.</summary>
    public int LongSide => Math.Max(Width, Height);

    /// <summary>The shorter side.</summary>
    public int ShortSide => Math.Min(Width, Height);

    /// <summary>True when this size fits inside <paramref name="box"/> on both sides.</summary>
    public bool FitsIn(PixelSize box) => Width <= box.Width && Height <= box.Height;

    /// <inheritdoc/>
    public override string ToString() => $"{Width}x{Height}";
}

namespace Pantomet.Core.Framing;

/// <summary>
/// A small copy of a picture, from which a suggestion is made: interleaved 8-bit red, green, blue and, where there is one, alpha.
/// </summary>
/// <param name="Pixels">Width × height × bands bytes.</param>
/// <param name="Width">Pixels across; about a hundred is enough.</param>
/// <param name="Height">Pixels down.</param>
/// <param name="Bands">3 or 4.</param>
public sealed record Thumb(byte[] Pixels, int Width, int Height, int Bands)
{
    /// <summary>The longest side that a copy is made with.</summary>
    public const int LongSide = 128;

    /// <summary>True when there is an alpha channel.</summary>
    public bool HasAlpha => Bands == 4;

    /// <summary>A channel's value, 0 to 255.</summary>
    public byte At(int x, int y, int band) => Pixels[(((y * Width) + x) * Bands) + band];
}

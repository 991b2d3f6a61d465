namespace Pantomet.Core.Framing;

/// <summary>
/// A small copy of a picture, from which a suggestion is made: interleaved 8-bit red, green, blue and, where there is one, alpha.
/// </summary>
/// <param name="Pixels">Width × height × bands bytes.</param>
/// <param name="Width">Pixels across; about a hundred is enough for a backdrop, four times that for a network.</param>
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

    /// <summary>The means of blocks of whole pixels, so that the longest side is about as asked; what is left over at the ends falls away.</summary>
    /// <param name="longSide">1 or more.</param>
    public Thumb Reduced(int longSide)
    {
        var block = Math.Clamp((int)Math.Round(Math.Max(Width, Height) / (double)longSide), 1, Math.Min(Width, Height));
        var (width, height) = (Width / block, Height / block);
        var means = new byte[width * height * Bands];
        for (var i = 0; i < means.Length; i++)
        {
            var (x, y, band) = (i / Bands % width, i / Bands / width, i % Bands);
            var sum = 0;
            for (var at = 0; at < block * block; at++)
            {
                sum += At((x * block) + (at % block), (y * block) + (at / block), band);
            }

            means[i] = (byte)((sum + (block * block / 2)) / (block * block));
        }

        return new(means, width, height, Bands);
    }
}

using NetVips;
using Pantomet.Core.Rules;

namespace Pantomet.Imaging.Making;

/// <summary>What is shown of a file before it is there.</summary>
/// <param name="Data">The blurred picture, a few pixels large, as a data address of at most <see cref="Longest"/> characters.</param>
/// <param name="Edge">The colour that continues its edge; null where something shows through there.</param>
public sealed record Placeholder(string Data, Rgb? Edge)
{
    /// <summary>The longest data address.</summary>
    public const int Longest = 900;

    private const string Head = "data:image/webp;base64,";

    // As fine as the characters allow: the browser draws the few pixels smoothly over the whole place.
    private static readonly (int Side, int Quality)[] Finest =
    [
        (40, 45),
        (32, 45),
        (32, 25),
        (24, 25),
        (16, 25),
        (12, 20),
        (8, 10),
        (4, 1),
    ];

    private const int EdgeSide = 64;
    private const int CopySide = 240;

    /// <summary>The placeholder of a file.</summary>
    /// <param name="file">The file.</param>
    /// <exception cref="VipsException">It cannot be read.</exception>
    public static Placeholder Of(byte[] file)
    {
        using var lazy = Image.ThumbnailBuffer(file, CopySide, height: CopySide, size: Enums.Size.Down);
        using var copy = lazy.CopyMemory();
        return Of(copy);
    }

    /// <summary>The placeholder of a picture.</summary>
    /// <param name="copy">A small copy of it, held in memory.</param>
    internal static Placeholder Of(Image copy)
    {
        foreach (var (side, quality) in Finest)
        {
            using var small = copy.ThumbnailImage(side, height: side, size: Enums.Size.Down);
            using var blurred = small.Gaussblur(0.8);
            var data = Head + Convert.ToBase64String(blurred.WebpsaveBuffer(q: quality, effort: 4, keep: Enums.ForeignKeep.None));
            if (data.Length <= Longest)
            {
                return new(data, EdgeOf(copy));
            }
        }

        throw new VipsException("a placeholder of four pixels is longer than it may be");
    }

    // The mean of the pixels along the four sides of a small copy.
    private static Rgb? EdgeOf(Image copy)
    {
        using var small = copy.ThumbnailImage(EdgeSide, height: EdgeSide, size: Enums.Size.Down);
        using var colours = small.Colourspace(Enums.Interpretation.Srgb);
        using var bytes = colours.Cast(Enums.BandFormat.Uchar);
        var (width, height, bands) = (bytes.Width, bytes.Height, bytes.Bands);
        var pixels = bytes.WriteToMemory<byte>();
        Span<long> sums = stackalloc long[3];
        var count = 0;
        for (var y = 0; y < height; y++)
        {
            for (var x = 0; x < width; x += y == 0 || y == height - 1 ? 1 : Math.Max(1, width - 1))
            {
                var at = ((y * width) + x) * bands;
                if (bands == 4 && pixels[at + 3] < byte.MaxValue)
                {
                    return null;
                }

                for (var band = 0; band < 3; band++)
                {
                    sums[band] += pixels[at + band];
                }

                count++;
            }
        }

        return new(Mean(sums[0], count), Mean(sums[1], count), Mean(sums[2], count));
    }

    private static byte Mean(long sum, int count) => (byte)((sum + (count / 2)) / count);
}

using System.Globalization;
using NetVips;

namespace Pantomet.TestReceivers;

/// <summary>A picture as a test receiver reads it.</summary>
/// <param name="Type">jpeg, png, webp, gif, or what the imaging library calls it.</param>
/// <param name="Width">Pixels across, upright.</param>
/// <param name="Height">Pixels down, upright.</param>
/// <param name="HasAlpha">True where it has an alpha channel.</param>
/// <param name="IsPrint">True where its colours are for print.</param>
/// <param name="HasLocation">True where its tags tell where it was taken.</param>
internal sealed record ReceivedPicture(string Type, int Width, int Height, bool HasAlpha, bool IsPrint, bool HasLocation)
{
    public int Longest => Math.Max(Width, Height);

    public int Shortest => Math.Min(Width, Height);

    /// <summary>Reads a file; null where it is no picture.</summary>
    public static ReceivedPicture? At(byte[] file)
    {
        try
        {
            using var image = Image.NewFromBuffer(file);
            var lies = image.Contains("orientation") && Convert.ToInt32(image.Get("orientation"), CultureInfo.InvariantCulture) >= 5;
            var loader = (string)image.Get("vips-loader");
            return new(
                loader.Split("load")[0],
                lies ? image.Height : image.Width,
                lies ? image.Width : image.Height,
                image.HasAlpha(),
                image.Interpretation == Enums.Interpretation.Cmyk,
                image.GetFields().Any(field => field.Contains("GPSL", StringComparison.Ordinal))
            );
        }
        catch (VipsException)
        {
            return null;
        }
    }

    /// <summary>A smaller copy as JPEG, without tags.</summary>
    public static byte[] Reduced(byte[] file, int longest, int quality)
    {
        using var small = Image.ThumbnailBuffer(file, longest, height: longest, size: Enums.Size.Down);
        using var solid = small.HasAlpha() ? small.Flatten(background: [255]) : small.Copy();
        return solid.JpegsaveBuffer(q: quality, keep: Enums.ForeignKeep.None);
    }

    /// <summary>
    /// The quality that the luma table of a JPEG stands for, by the scaling that its common encoder uses (Independent JPEG Group,
    /// jcparam.c: the example table of ITU-T T.81, K.1, in per cent); null where there is no table.
    /// </summary>
    public static int? QualityOf(byte[] jpeg)
    {
        // The sum of table K.1, in whatever order.
        const double Whole = 3_688;
        for (var at = 2; at + 4 < jpeg.Length && jpeg[at] == 0xFF; )
        {
            var (marker, length) = (jpeg[at + 1], (jpeg[at + 2] << 8) | jpeg[at + 3]);
            if (marker == 0xDB && jpeg[at + 4] == 0 && at + 69 <= jpeg.Length)
            {
                var percent = jpeg[(at + 5)..(at + 69)].Sum(value => value) / Whole * 100;
                return (int)Math.Round(percent <= 100 ? (200 - percent) / 2 : 5000 / percent);
            }

            if (marker == 0xDA)
            {
                return null;
            }

            at += 2 + length;
        }

        return null;
    }
}

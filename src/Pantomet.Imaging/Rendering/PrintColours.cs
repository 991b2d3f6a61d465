using ImageMagick;
using NetVips;
using Pantomet.Core.Texts;
using Pantomet.Imaging.Reading;

namespace Pantomet.Imaging.Rendering;

/// <summary>
/// Printing colours on a screen: relative colorimetric, the black of the paper drawn down to the screen's. The colour engine takes a coarse
/// grid for that, which is off by up to 11/255 in the dark, or two steps that do not know of each other's black; the second reader's way to it
/// gives each colour exactly, at half a second for each million pixels.
/// </summary>
internal static class PrintColours
{
    private const string Profile = "icc-profile-data";

    // What is held beside the picture: four bytes for each.
    private const int PixelsAtOnce = 1_000_000;

    /// <summary>8-bit sRGB, in memory.</summary>
    /// <param name="image">CMYK; without a profile of its own it is read as common coated paper.</param>
    /// <exception cref="VipsException">The profile cannot be used.</exception>
    public static NetVips.Image ToScreen(NetVips.Image image)
    {
        SecondReader.Start();
        using var scope = new Scope();
        var ink = scope.Own(image.ExtractBand(0, n: 4));
        if (ink.Format == Enums.BandFormat.Ushort)
        {
            ink = scope.Own(ink >> 8);
        }

        ink = scope.Own(ink.Cast(Enums.BandFormat.Uchar));
        var profile = new ColorProfile(image.Contains(Profile) ? (byte[])image.Get(Profile) : CoatedPaper.Value);
        var pixels = new byte[3L * ink.Width * ink.Height];
        var rows = Math.Max(1, PixelsAtOnce / ink.Width);
        try
        {
            for (var top = 0; top < ink.Height; top += rows)
            {
                using var strip = ink.Crop(0, top, ink.Width, Math.Min(rows, ink.Height - top));
                Seen(strip, profile).CopyTo(pixels.AsSpan(3 * top * ink.Width));
            }
        }
        catch (MagickException fault)
        {
            throw new VipsException(fault.Message);
        }

        using var plain = NetVips.Image.NewFromMemory(pixels, ink.Width, ink.Height, 3, Enums.BandFormat.Uchar);
        return plain.Copy(interpretation: Enums.Interpretation.Srgb);
    }

    private static readonly Lazy<byte[]> CoatedPaper = new(() =>
    {
        using var black = NetVips.Image.Black(1, 1, bands: 3);
        using var pixel = black.Copy(interpretation: Enums.Interpretation.Srgb);
        using var ink = pixel.IccTransform("cmyk", inputProfile: "srgb");
        return (byte[])ink.Get(Profile);
    });

    private static byte[] Seen(NetVips.Image strip, ColorProfile profile)
    {
        using var image = new MagickImage();
        image.ReadPixels(
            strip.WriteToMemory<byte>(),
            new PixelReadSettings((uint)strip.Width, (uint)strip.Height, StorageType.Char, PixelMapping.CMYK)
        );
        image.ColorSpace = ColorSpace.CMYK;
        image.RenderingIntent = RenderingIntent.Relative;
        image.BlackPointCompensation = true;
        image.TransformColorSpace(profile, ColorProfiles.SRGB, ColorTransformMode.HighRes);
        using var seen = image.GetPixels();
        return seen.ToByteArray(PixelMapping.RGB) ?? throw new VipsException(ReasonTexts.TheColoursCouldNotBeConverted);
    }
}

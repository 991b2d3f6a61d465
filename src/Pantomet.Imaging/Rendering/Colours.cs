using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Rules;

namespace Pantomet.Imaging.Rendering;

/// <summary>Turns stored colours into those that are written.</summary>
internal static class Colours
{
    /// <summary>8-bit sRGB or grey, or with <see cref="ProfileRule.Keep"/> the stored values with their profile.</summary>
    /// <remarks>CMYK is converted in any case: no type for screens shows it rightly everywhere.</remarks>
    public static Image Convert(Image image, PictureFacts facts, ProfileRule profile)
    {
        if (image.Interpretation == Enums.Interpretation.Cmyk)
        {
            return PrintColours.ToScreen(image);
        }

        if (NeedsProfile(facts) && profile == ProfileRule.Srgb)
        {
            // From profile to profile in one step: by way of the space between them it takes fourteen times as long.
            return image.IccTransform(
                "srgb",
                embedded: true,
                inputProfile: "srgb",
                intent: Enums.Intent.Relative,
                blackPointCompensation: true,
                depth: 8
            );
        }

        if (profile == ProfileRule.Keep && facts.Profile is not null)
        {
            return image.Format == Enums.BandFormat.Ushort ? To8Bits(image) : image.Cast(Enums.BandFormat.Uchar);
        }

        var grey = image.Interpretation is Enums.Interpretation.Bw or Enums.Interpretation.Grey16;
        return image.Colourspace(grey ? Enums.Interpretation.Bw : Enums.Interpretation.Srgb);
    }

    /// <summary>True when the colours are not sRGB already.</summary>
    public static bool NeedsProfile(PictureFacts facts) =>
        facts.Profile is not null && !facts.Profile.StartsWith("sRGB", StringComparison.OrdinalIgnoreCase);

    private static Image To8Bits(Image image)
    {
        using var high = image >> 8;
        using var bytes = high.Cast(Enums.BandFormat.Uchar);
        return bytes.Copy(interpretation: image.Bands < 3 ? Enums.Interpretation.Bw : Enums.Interpretation.Srgb);
    }
}

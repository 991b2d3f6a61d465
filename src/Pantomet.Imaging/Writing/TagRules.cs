using System.Globalization;
using NetVips;
using Pantomet.Core.Rules;
using Pantomet.Core.Tags;

namespace Pantomet.Imaging.Writing;

/// <summary>Prepares an image so that just the tags a slot wants are written.</summary>
internal static class TagRules
{
    private const string Exif = "exif-data";
    private const string Xmp = "xmp-data";
    private const string Iptc = "iptc-data";
    private const string Icc = "icc-profile-data";

    /// <summary>The prepared image and what the writer is to keep of it.</summary>
    /// <param name="image">The rendered pixels with everything that was read beside them.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="keepsProfile">True when the pixels are still in the original's own colours.</param>
    /// <param name="ppi">The density label.</param>
    public static (Image Image, Enums.ForeignKeep Keep) Apply(Image image, Slot slot, bool keepsProfile, double ppi)
    {
        var label = ppi / VariantEncoder.MillimetresToInch;
        var keep = keepsProfile && image.Contains(Icc) ? Enums.ForeignKeep.Icc : Enums.ForeignKeep.None;
        using var labelled = image.Copy(xres: label, yres: label);
        var prepared = labelled.Mutate(tags =>
        {
            var (copyright, artist) = slot.Metadata == MetadataRule.Copyright ? Ownership(image) : (null, null);
            if (slot.Metadata == MetadataRule.Keep)
            {
                keep |= Kept(image, tags, slot.Location);
            }
            else
            {
                Clear(image, tags);
            }

            if (copyright is not null)
            {
                tags.Set(GValue.GStrType, "exif-ifd0-Copyright", copyright);
            }

            if (artist is not null)
            {
                tags.Set(GValue.GStrType, "exif-ifd0-Artist", artist);
            }

            if (copyright is not null || artist is not null || slot.Ppi is not null)
            {
                tags.Set(GValue.GStrType, "resolution-unit", "in");
                keep |= Enums.ForeignKeep.Exif;
            }
        });
        return (prepared, keep);
    }

    // Everything but the place, the small preview of the uncut picture, and what is no longer true.
    private static Enums.ForeignKeep Kept(Image image, MutableImage tags, bool location)
    {
        foreach (var field in image.GetFields())
        {
            if (field is "jpeg-thumbnail-data" or "orientation" or "exif-ifd0-Orientation" || field.StartsWith("exif-ifd1-", StringComparison.Ordinal)
                || (!location && (field.StartsWith("exif-ifd3-", StringComparison.Ordinal) || field == "exif-ifd0-GPSTag")))
            {
                tags.Remove(field);
            }
        }

        if (location)
        {
            return Enums.ForeignKeep.Exif | Enums.ForeignKeep.Xmp | Enums.ForeignKeep.Iptc;
        }

        if (image.Contains(Xmp))
        {
            Replace(tags, Xmp, XmpPacket.WithoutPlaces((byte[])image.Get(Xmp)));
        }

        if (image.Contains(Iptc))
        {
            Replace(tags, Iptc, IptcBlock.WithoutPlaces((byte[])image.Get(Iptc)));
        }

        return Enums.ForeignKeep.Exif | Enums.ForeignKeep.Xmp | Enums.ForeignKeep.Iptc;
    }

    private static void Replace(MutableImage tags, string field, byte[]? value)
    {
        if (value is null)
        {
            tags.Remove(field);
        }
        else
        {
            tags.Set(GValue.BlobType, field, value);
        }
    }

    private static void Clear(Image image, MutableImage tags)
    {
        foreach (var field in image.GetFields().Where(field =>
            field is Exif or Xmp or Iptc or "jpeg-thumbnail-data" or "orientation" or "png-comment" || field.StartsWith("exif-", StringComparison.Ordinal)))
        {
            tags.Remove(field);
        }
    }

    private static (string? Copyright, string? Artist) Ownership(Image image)
    {
        var (rights, creator) = image.Contains(Xmp) ? XmpPacket.Lines((byte[])image.Get(Xmp)) : (null, null);
        var agency = image.Contains(Iptc) ? (byte[])image.Get(Iptc) : [];
        return (
            ExifText(image, "exif-ifd0-Copyright") ?? rights ?? IptcBlock.Text(agency, 116),
            ExifText(image, "exif-ifd0-Artist") ?? creator ?? IptcBlock.Text(agency, 80));
    }

    // The library shows a tag as "text (text, ASCII, 5 components, 5 bytes)".
    private static string? ExifText(Image image, string field)
    {
        if (!image.Contains(field) || image.Get(field) is not string shown)
        {
            return null;
        }

        var tail = shown.LastIndexOf(", ASCII, ", StringComparison.Ordinal);
        var length = tail < 0 ? shown.Length : (tail - 2) / 2;
        var text = shown[..Math.Clamp(length, 0, shown.Length)].Trim();
        return text.Length == 0 ? null : text.ToString(CultureInfo.InvariantCulture);
    }
}

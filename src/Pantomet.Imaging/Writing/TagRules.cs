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
    /// <param name="ppi">The resolution tag.</param>
    public static (Image Image, Enums.ForeignKeep Keep) Apply(Image image, Slot slot, bool keepsProfile, double ppi)
    {
        var label = ppi / VariantEncoder.MillimetresToInch;
        var keep = keepsProfile && image.Contains(Icc) ? Enums.ForeignKeep.Icc : Enums.ForeignKeep.None;
        using var labelled = image.Copy(xres: label, yres: label);
        var prepared = labelled.Mutate(tags =>
        {
            keep |= slot.Metadata switch
            {
                MetadataRule.Keep => Kept(image, tags, slot.Location),
                MetadataRule.Copyright => Ownership(image, tags),
                _ => Cleared(image, tags),
            };
            tags.Set(GValue.GStrType, "resolution-unit", "in");
            if (!keepsProfile)
            {
                // sRGB (Exif 2.32, 4.6.5, tag 40961).
                tags.Set(GValue.GStrType, "exif-ifd2-ColorSpace", "1");
            }
        });
        return (prepared, keep);
    }

    // Everything but the place, the small preview of the uncut picture, and what is no longer true.
    private static Enums.ForeignKeep Kept(Image image, MutableImage tags, bool location)
    {
        foreach (var field in image.GetFields())
        {
            if (
                field is "jpeg-thumbnail-data" or "orientation" or "exif-ifd0-Orientation"
                || field.StartsWith("exif-ifd1-", StringComparison.Ordinal)
                || (!location && (field.StartsWith("exif-ifd3-", StringComparison.Ordinal) || field == "exif-ifd0-GPSTag"))
            )
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

    private static Enums.ForeignKeep Cleared(Image image, MutableImage tags, params string[] kept)
    {
        foreach (
            var field in image
                .GetFields()
                .Where(field =>
                    !kept.Contains(field)
                    && (
                        field is Exif or Xmp or Iptc or "jpeg-thumbnail-data" or "orientation" or "png-comment"
                        || field.StartsWith("exif-", StringComparison.Ordinal)
                    )
                )
        )
        {
            tags.Remove(field);
        }

        return Enums.ForeignKeep.None;
    }

    // Whose the picture is, from wherever it stands, written as EXIF: the one place that every type has. Lines that stand there already are
    // kept as they are; the others lose what ASCII cannot hold, as EXIF asks for.
    private static Enums.ForeignKeep Ownership(Image image, MutableImage tags)
    {
        const string copyright = "exif-ifd0-Copyright",
            artist = "exif-ifd0-Artist";
        var (rights, creator) = image.Contains(Xmp) ? XmpPacket.Lines((byte[])image.Get(Xmp)) : (null, null);
        var agency = image.Contains(Iptc) ? (byte[])image.Get(Iptc) : [];
        (string Field, string? Elsewhere)[] lines =
        [
            (copyright, rights ?? IptcBlock.Text(agency, 116)),
            (artist, creator ?? IptcBlock.Text(agency, 80)),
        ];
        var stands = lines.Where(line => image.Contains(line.Field)).Select(line => line.Field).ToArray();
        var missing = lines.Where(line => line.Elsewhere is not null && !image.Contains(line.Field)).ToList();
        Cleared(image, tags, stands.Length > 0 ? [Exif, .. stands] : []);
        missing.ForEach(line => tags.Set(GValue.GStrType, line.Field, line.Elsewhere!));
        return stands.Length + missing.Count > 0 ? Enums.ForeignKeep.Exif : Enums.ForeignKeep.None;
    }
}

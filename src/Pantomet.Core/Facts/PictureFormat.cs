namespace Pantomet.Core.Facts;

/// <summary>The file types that a picture may arrive as.</summary>
public enum PictureFormat
{
    /// <summary>JPEG (ITU-T T.81).</summary>
    Jpeg,

    /// <summary>PNG (W3C).</summary>
    Png,

    /// <summary>WebP.</summary>
    WebP,

    /// <summary>AVIF.</summary>
    Avif,

    /// <summary>GIF.</summary>
    Gif,

    /// <summary>TIFF.</summary>
    Tiff,

    /// <summary>SVG.</summary>
    Svg,
}

/// <summary>Names and endings of the file types.</summary>
public static class PictureFormats
{
    private static readonly Dictionary<PictureFormat, string[]> Endings = new()
    {
        [PictureFormat.Jpeg] = ["jpg", "jpeg", "jpe", "jfif"],
        [PictureFormat.Png] = ["png"],
        [PictureFormat.WebP] = ["webp"],
        [PictureFormat.Avif] = ["avif"],
        [PictureFormat.Gif] = ["gif"],
        [PictureFormat.Tiff] = ["tif", "tiff"],
        [PictureFormat.Svg] = ["svg"],
    };

    /// <summary>The types that files are made as.</summary>
    public static IReadOnlyList<PictureFormat> Written { get; } =
    [PictureFormat.Jpeg, PictureFormat.Png, PictureFormat.WebP, PictureFormat.Avif];

    /// <summary>The name people know: JPEG, PNG, WebP ...</summary>
    public static string Label(this PictureFormat format) => format == PictureFormat.WebP ? "WebP" : format.ToString().ToUpperInvariant();

    /// <summary>The word used in rules and reports: jpeg, png, webp ...</summary>
    public static string Word(this PictureFormat format) => format.ToString().ToLowerInvariant();

    /// <summary>The media type (IANA).</summary>
    public static string MediaType(this PictureFormat format) => format == PictureFormat.Svg ? "image/svg+xml" : "image/" + format.Word();

    /// <summary>The usual ending, without the dot.</summary>
    public static string Ending(this PictureFormat format) => Endings[format][0];

    /// <summary>True when a file name's ending says another type than <paramref name="format"/>.</summary>
    public static bool IsMisnamed(string fileName, PictureFormat format)
    {
        var ending = Path.GetExtension(fileName).TrimStart('.').ToLowerInvariant();
        return ending.Length > 0 && !Endings[format].Contains(ending) && Endings.Values.Any(known => known.Contains(ending));
    }
}

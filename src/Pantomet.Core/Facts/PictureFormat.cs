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

    /// <summary>HEIC and other pictures in HEIF files (ISO/IEC 23008-12): what phones make.</summary>
    Heic,

    /// <summary>BMP.</summary>
    Bmp,

    /// <summary>JPEG XL (ISO/IEC 18181).</summary>
    Jxl,
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
        [PictureFormat.Heic] = ["heic", "heif", "hif"],
        [PictureFormat.Bmp] = ["bmp", "dib"],
        [PictureFormat.Jxl] = ["jxl"],
    };

    /// <summary>The types that files are made as.</summary>
    public static IReadOnlyList<PictureFormat> Written { get; } =
    [PictureFormat.Jpeg, PictureFormat.Png, PictureFormat.WebP, PictureFormat.Avif];

    /// <summary>The name people know: JPEG, PNG, WebP ...</summary>
    public static string Label(this PictureFormat format) =>
        format switch
        {
            PictureFormat.WebP => "WebP",
            PictureFormat.Jxl => "JPEG XL",
            _ => format.ToString().ToUpperInvariant(),
        };

    /// <summary>True for a type that only the second reader knows.</summary>
    public static bool IsOther(this PictureFormat format) => format is PictureFormat.Heic or PictureFormat.Bmp or PictureFormat.Jxl;

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

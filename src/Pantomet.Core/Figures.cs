using System.Globalization;
using Pantomet.Core.Geometry;

namespace Pantomet.Core;

/// <summary>How figures are written for people: thin-spaced thousands, units always, decimal units for weights.</summary>
public static class Figures
{
    /// <summary>U+202F, a thin space that does not break a line.</summary>
    public const string ThinSpace = "\u202f";

    private static readonly NumberFormatInfo Format = new() { NumberGroupSeparator = ThinSpace, NumberDecimalSeparator = "." };

    /// <summary>A whole number with thin-spaced thousands.</summary>
    public static string Count(long value) => value.ToString("#,0", Format);

    /// <summary>A number with at most <paramref name="decimals"/> decimals and no trailing zeros.</summary>
    public static string Number(double value, int decimals = 2) => value.ToString("#,0." + new string('#', decimals), Format);

    /// <summary>A share in whole hundredths: <c>62 %</c>.</summary>
    public static string Percent(double share) => $"{Number(share * 100, 0)}{ThinSpace}%";

    /// <summary>A contrast ratio, cut to hundredths so that it never promises more than there is: <c>4.48 : 1</c>.</summary>
    public static string Contrast(double ratio) => $"{Number(Math.Floor(ratio * 100) / 100)} : 1";

    /// <summary>A pixel size: <c>1 600 × 1 200 px</c>.</summary>
    public static string Size(PixelSize size) => $"{Count(size.Width)} × {Count(size.Height)} px";

    /// <summary>A weight in decimal units, three figures: <c>612 kB</c>, <c>1.04 MB</c>. Below 1 kB in bytes.</summary>
    public static string Weight(long bytes) =>
        bytes switch
        {
            < 1000 => $"{bytes} B",
            < 9_995 => $"{Number(bytes / 1000.0, 2)} kB",
            < 99_950 => $"{Number(bytes / 1000.0, 1)} kB",
            < 999_500 => $"{Number(bytes / 1000.0, 0)} kB",
            < 9_995_000 => $"{Number(bytes / 1e6, 2)} MB",
            < 99_950_000 => $"{Number(bytes / 1e6, 1)} MB",
            _ => $"{Number(bytes / 1e6, 0)} MB",
        };
}

using Pantomet.Core.Facts;

namespace Pantomet.Core.Weight;

/// <summary>
/// What a quality number means in a type whose encoder counts otherwise, in the mean. A number is JPEG's (ITU-T T.81's tables); the setting
/// of another encoder that comes out as much alike differs from picture to picture by twenty and more, so this is only where to look first.
/// </summary>
public static class QualityScale
{
    // JPEG's number, and the settings that are as much alike in the mean of the 15 photographs of docs/measurements/likeness.csv; the ends
    // are the encoders' own.
    private static readonly (int Number, double WebP, double Avif)[] Means =
    [
        (1, 1, 1),
        (10, 2, 8),
        (42, 11, 19),
        (66, 34, 32),
        (76, 52, 40),
        (81, 63, 44),
        (86, 75, 50),
        (90, 84, 62),
        (95, 93, 81),
        (98, 99, 96),
        (100, 100, 100),
    ];

    /// <summary>
    /// By how much the logarithm of the loss of likeness falls for each step of a setting, in the mean of the photographs of
    /// docs/measurements/likeness.csv between the qualities 40 and 90.
    /// </summary>
    /// <param name="format">jpeg, webp or avif.</param>
    public static double Slope(PictureFormat format) =>
        format switch
        {
            PictureFormat.Avif => -0.052,
            PictureFormat.WebP => -0.03,
            _ => -0.027,
        };

    /// <summary>The setting of a number in the mean of photographs, 1 to 100.</summary>
    /// <param name="format">webp or avif; of any other type the number itself.</param>
    /// <param name="number">1 to 100.</param>
    public static int Usual(PictureFormat format, int number)
    {
        if (format is not (PictureFormat.WebP or PictureFormat.Avif))
        {
            return number;
        }

        var above = Math.Clamp(Array.FindIndex(Means, mean => mean.Number >= number), 1, Means.Length - 1);
        var (from, to) = (Means[above - 1], Means[above]);
        var setting = Of(from) + ((Of(to) - Of(from)) * (number - from.Number) / (to.Number - from.Number));
        return (int)Math.Clamp(Math.Round(setting), 1, 100);

        double Of((int Number, double WebP, double Avif) mean) => format == PictureFormat.Avif ? mean.Avif : mean.WebP;
    }

    /// <summary>The highest number whose usual setting is at most the given one; 1 where none is.</summary>
    /// <param name="format">webp or avif.</param>
    /// <param name="setting">1 to 100.</param>
    public static int UsualNumber(PictureFormat format, int setting) =>
        Math.Max(1, Enumerable.Range(1, 100).LastOrDefault(number => Usual(format, number) <= setting));
}

namespace Pantomet.Core.Facts;

/// <summary>What a picture is by content; it decides which file type suits it.</summary>
public enum PictureKind
{
    /// <summary>A photograph or something as finely graded.</summary>
    Photograph,

    /// <summary>A drawing, a chart, a mark, a screen: few colours in even areas.</summary>
    FlatGraphic,
}

/// <summary>Tells photographs from flat graphics by how much of the picture a few exact colours cover.</summary>
/// <remarks>
/// The most common colour and its close shades are left out of the count, as a photograph before a white backdrop has them too. Measured on
/// the open photographs of lomiri-wallpapers-16.04, the demo's pictures and drawings written as PNG and as JPEG at 75 and 95: photographs
/// lie at 0.43 and below, drawings at 0.53 and above, those without the damage of a JPEG above 0.95.
/// </remarks>
public static class PictureKinds
{
    private const int Commonest = 24;
    private const int CommonestGreys = 8;
    private const int Shades = 12;
    private const double Border = 0.5;

    /// <summary>The kind of a picture, from a sample of its pixels.</summary>
    /// <param name="pixels">Interleaved 8-bit pixels, taken from the picture without mixing neighbours.</param>
    /// <param name="bands">1 grey, 2 grey with alpha, 3 red, green, blue, 4 with alpha.</param>
    public static PictureKind Of(ReadOnlySpan<byte> pixels, int bands) =>
        CoveredByFew(pixels, bands) >= Border ? PictureKind.FlatGraphic : PictureKind.Photograph;

    /// <summary>
    /// The share of the picture, without its most common colour, that the next colours cover; 1 when there is nothing else.
    /// </summary>
    /// <param name="pixels">Interleaved 8-bit pixels.</param>
    /// <param name="bands">1 to 4.</param>
    public static double CoveredByFew(ReadOnlySpan<byte> pixels, int bands)
    {
        var counts = new Dictionary<(byte Red, byte Green, byte Blue), int>();
        var (colours, alpha) = (bands >= 3 ? 3 : 1, bands is 2 or 4);
        var (seen, greys) = (0, 0);
        for (var at = 0; at + bands <= pixels.Length; at += bands)
        {
            if (alpha && pixels[at + bands - 1] < 8)
            {
                continue;
            }

            var colour = (Red: pixels[at], Green: pixels[at + (colours / 2)], Blue: pixels[at + colours - 1]);
            counts[colour] = counts.GetValueOrDefault(colour) + 1;
            seen++;
            greys += Math.Abs(colour.Red - colour.Green) <= 2 && Math.Abs(colour.Green - colour.Blue) <= 2 ? 1 : 0;
        }

        if (seen == 0)
        {
            return 1;
        }

        var ground = counts.MaxBy(count => count.Value).Key;
        var others = counts.Where(count => Distance(count.Key, ground) > Shades).Select(count => count.Value).OrderDescending().ToList();
        var rest = others.Sum();
        // A few stray pixels around one even colour are no photograph; and a grey picture has few shades to choose from.
        return rest <= seen / 200 ? 1 : others.Take(greys >= seen * 0.99 ? CommonestGreys : Commonest).Sum() / (double)rest;
    }

    private static int Distance((byte Red, byte Green, byte Blue) a, (byte Red, byte Green, byte Blue) b) =>
        Math.Max(Math.Abs(a.Red - b.Red), Math.Max(Math.Abs(a.Green - b.Green), Math.Abs(a.Blue - b.Blue)));
}

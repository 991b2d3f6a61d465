using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Weight;

namespace Pantomet.Imaging.Writing;

/// <summary>
/// Quality numbers against the encoder's settings for JPEG. The tables that are written are the encoder's set 8 (H. Peterson, A. Ahumada,
/// A. Watson, "An improved detection model for DCT coefficient quantization", 1993): 5 % lighter than its set for photographs at equal
/// butteraugli, measured in docs/benchmarks.md. They are finer at the same setting, so a setting is translated into the quality that ITU-T
/// T.81's own
/// tables would have at the same coarseness: a quality means the same here as in an original.
/// </summary>
public static class JpegScale
{
    /// <summary>The set of quantisation tables that is written.</summary>
    internal const int Table = 8;

    private const int Settings = 100;

    private static readonly Lazy<int[]> Qualities = new(Measure);

    /// <summary>The quality, 1 to 100, of a setting.</summary>
    public static int QualityOf(int setting) => Qualities.Value[Plain(setting)];

    /// <summary>The same setting with colour at full size, for who asks for more weight than is seen otherwise.</summary>
    internal static int FullColour(int setting) => setting + Settings;

    /// <summary>True for a setting with colour at full size.</summary>
    internal static bool IsFullColour(int setting) => setting > Settings;

    /// <summary>The encoder's own number of a setting.</summary>
    internal static int Plain(int setting) => IsFullColour(setting) ? setting - Settings : setting;

    /// <summary>The highest setting whose quality is at most the given one; the lowest setting of all where none is.</summary>
    public static int SettingFor(int quality) =>
        Math.Max(1, Enumerable.Range(1, Settings).LastOrDefault(setting => Qualities.Value[setting] <= quality));

    /// <summary>The settings whose qualities lie in a range; where none does, the highest below it.</summary>
    public static QualityRange SettingsFor(QualityRange range)
    {
        var ceiling = SettingFor(range.Ceiling);
        var floor = Enumerable.Range(1, Settings).First(setting => setting == Settings || Qualities.Value[setting] >= range.Floor);
        return new(Math.Min(floor, ceiling), ceiling);
    }

    // How much finer the tables are than those of T.81, on the mean of the logarithms; a picture of one block is enough to read them off.
    private static int[] Measure()
    {
        ImagingEngine.Start();
        using var black = Image.Black(16, 16, bands: 3);
        using var pixel = black.Copy(interpretation: Enums.Interpretation.Srgb);
        using var plain = new MemoryStream(pixel.JpegsaveBuffer(q: 50, quantTable: Table, keep: Enums.ForeignKeep.None));
        var finer = JpegTables.Coarseness(plain) ?? throw new InvalidOperationException("The encoder wrote no quantisation tables.");
        var qualities = new int[Settings + 1];
        for (var setting = 1; setting <= Settings; setting++)
        {
            var scale = finer * (setting < 50 ? 5000.0 / setting : 200 - (2 * setting));
            qualities[setting] = (int)Math.Clamp(Math.Round(scale > 100 ? 5000 / scale : (200 - scale) / 2), 1, Settings);
        }

        return qualities;
    }
}

using NetVips;
using Pantomet.Core.Facts;

namespace Pantomet.Imaging.Writing;

/// <summary>
/// The JPEG encoder's quality number against that of ITU-T T.81's own tables: the tables we write (number 3 of the encoder's sets, made
/// for photographs) are finer or coarser at the same number.
/// </summary>
public static class JpegScale
{
    /// <summary>The set of quantisation tables that is written.</summary>
    internal const int Table = 3;

    private static readonly Lazy<int[]> Estimates = new(Measure);

    /// <summary>The highest number to write at that spends no more than a JPEG original of the given quality did.</summary>
    /// <param name="original">The original's estimated quality, 1 to 100.</param>
    public static int CapFor(int original)
    {
        var cap = 1;
        for (var quality = 1; quality <= original; quality++)
        {
            cap = Estimates.Value[quality] <= original ? quality : cap;
        }

        return cap;
    }

    // A picture of one block is enough to read the tables off.
    private static int[] Measure()
    {
        ImagingEngine.Start();
        using var black = Image.Black(16, 16, bands: 3);
        using var pixel = black.Copy(interpretation: Enums.Interpretation.Srgb);
        var estimates = new int[101];
        for (var quality = 1; quality <= 100; quality++)
        {
            using var file = new MemoryStream(pixel.JpegsaveBuffer(q: quality, quantTable: Table, keep: Enums.ForeignKeep.None));
            estimates[quality] = JpegTables.EstimateQuality(file) ?? quality;
        }

        return estimates;
    }
}

using System.Diagnostics;
using NetVips;
using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;
using Pantomet.Imaging;

namespace Pantomet.Bench;

/// <summary>How long the smallest fade takes to find once a slot's pixels are there.</summary>
internal static class Fades
{
    private static readonly PixelSize Slot = new(1500, 750);

    public static string Measure(IReadOnlyList<string> photographs)
    {
        FadeGoal[] goals =
        [
            new(Rgb.White, new(0x22, 0x22, 0x22), Contrast.OfText),
            new(new(0, 0, 0), new(0xf4, 0xf4, 0xf4), Contrast.OfText),
        ];
        var times = new List<double>();
        var levels = 0;
        foreach (var photograph in photographs)
        {
            using var image = Image.Thumbnail(
                photograph,
                Slot.Width,
                height: Slot.Height,
                crop: Enums.Interesting.Centre,
                size: Enums.Size.Force
            );
            using var coloured = image.Colourspace(Enums.Interpretation.Srgb);
            var rows = new PixelRows(coloured.WriteToMemory<byte>(), coloured.Width, coloured.Height, coloured.Bands);
            foreach (var goal in goals)
            {
                for (var run = 0; run < 12; run++)
                {
                    var clock = Stopwatch.StartNew();
                    var level = FadeSolver.Solve(rows, Crop.All(Slot), goal, ImagingEngine.Threads).Level;
                    // The first ones are still compiled.
                    if (run > 1)
                    {
                        times.Add(clock.Elapsed.TotalMilliseconds);
                        levels += level;
                    }
                }
            }
        }

        times.Sort();
        return FormattableString.Invariant(
            $"{photographs.Count} photographs x 2 inks at {Slot}: median {times[times.Count / 2]:0.00} ms, p95 {times[(int)(times.Count * 0.95)]:0.00} ms (checksum {levels})"
        );
    }
}

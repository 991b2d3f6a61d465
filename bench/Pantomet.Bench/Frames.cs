using System.Diagnostics;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;

namespace Pantomet.Bench;

/// <summary>How long the framing of a hundred slots takes once the facts of a picture are known.</summary>
internal static class Frames
{
    public static string Measure()
    {
        Frame.TryCreate(0.3, 0.2, 0.55, 0.8, out var keep, out _);
        Frame.TryCreate(0.05, 0, 0.95, 0.8, out var clear, out _);
        var subject = Subject.Of([keep], null, null);
        var shapes = Enumerable
            .Range(1, 100)
            .Select(n => Ratio.TryCreate(n, 30, null, out var ratio, out _) ? ratio : throw new InvalidOperationException())
            .ToArray();
        var times = new List<double>();
        double sum = 0;
        for (var run = 0; run < 200; run++)
        {
            var clock = Stopwatch.StartNew();
            foreach (var shape in shapes)
            {
                sum += FrameSolver.Solve(new(6000, 4000), shape, null, subject, clear, 0.8).Region.Width;
            }

            times.Add(clock.Elapsed.TotalMilliseconds);
        }

        times.Sort();
        return FormattableString.Invariant($"100 frames: {times[100]:0.000} ms, the first time {times[^1]:0.0} ms (checksum {sum:0})");
    }
}

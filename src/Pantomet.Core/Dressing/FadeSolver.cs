using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Dressing;

/// <summary>What a fade has to reach.</summary>
/// <param name="To">The colour that is mixed in.</param>
/// <param name="Ink">The colour of what is written over it.</param>
/// <param name="Ratio">The contrast that is wanted, 1 to 21.</param>
public sealed record FadeGoal(Rgb To, Rgb Ink, double Ratio);

/// <summary>What a fade comes to.</summary>
/// <param name="Level">The amount in 255ths: 0 leaves the picture, 255 is the colour alone.</param>
/// <param name="Ratio">The contrast of the worst hundredth of the pixels.</param>
/// <param name="Reached">True when that is what was wanted; false where no amount does, and this one comes nearest.</param>
/// <param name="Last">Where it is reached last: the part whose pixels need most; null where nothing has to be faded.</param>
public sealed record Faded(int Level, double Ratio, bool Reached, Crop? Last)
{
    /// <summary>The amount, 0 to 1.</summary>
    public double Amount => Level / 255.0;
}

/// <summary>
/// Finds the smallest fade at which an ink can be read: the least amount, in 255ths, at which all but the worst hundredth of the pixels
/// reach the contrast.
/// </summary>
/// <remarks>
/// A fade mixes stored sRGB values, so a pixel's luminance at an amount is the sum of three looked-up figures. A sample tells where to look, every
/// pixel tells what is so: the answer holds for all of them.
/// </remarks>
public static class FadeSolver
{
    /// <summary>The amount that is the colour alone.</summary>
    public const int Whole = 255;

    // The share of the pixels that may lie below what is stated.
    internal const int Hundredth = 100;

    private const int SampleOf = 8192;

    // How many steps a sample may be off without anything being counted twice.
    private const int Around = 4;

    private const int Stride = 8;

    /// <summary>The value that a channel has after a fade.</summary>
    /// <param name="value">Before it.</param>
    /// <param name="to">The colour's.</param>
    /// <param name="level">The amount in 255ths.</param>
    public static byte Mixed(int value, int to, int level) => (byte)(((value * (Whole - level)) + (to * level) + (Whole / 2)) / Whole);

    /// <summary>The smallest fade that reaches the goal, else the one that comes nearest.</summary>
    /// <param name="pixels">Three channels of sRGB, or four with coverage, which are taken as laid on white.</param>
    /// <param name="area">What is written on.</param>
    /// <param name="goal">What to reach.</param>
    /// <param name="threads">How many bands of rows may be looked at at once, from 1.</param>
    /// <exception cref="ArgumentException">The area is empty or lies outside, or the pixels have fewer than three channels.</exception>
    public static Faded Solve(PixelRows pixels, Crop area, FadeGoal goal, int threads = 1)
    {
        ArgumentNullException.ThrowIfNull(goal);
        Check(pixels, area);
        using var ground = new ContrastRegion(pixels, area, goal, threads);
        var (level, ratio) = Least(ground);
        if (level > Whole)
        {
            var nearest = ground.Sample(SampleOf).Nearest();
            return new(nearest, ground.WorstHundredth(nearest).Ratio, false, ground.Worst(nearest));
        }

        return new(level, ratio, true, level == 0 ? null : ground.Worst(level - 1));
    }

    // A sample is off by a few steps. From a little below it on only those pixels can fail that do so there: few are left to be counted at
    // each amount. On the way to a colour that is lighter in one channel and darker in another a pixel may fail again, so all are looked at once
    // more in the end.
    private static (int Level, double Ratio) Least(ContrastRegion ground)
    {
        var most = ground.Count / Hundredth;
        if (ground.Count <= SampleOf)
        {
            var first = ground.First(1);
            return (first, first > Whole ? 0 : ground.WorstHundredth(first).Ratio);
        }

        var below = Math.Max(0, Math.Min(ground.Sample(SampleOf).First(Stride), Whole) - Around);
        while (ground.Collect(below) <= most && below > 0)
        {
            below = Math.Max(0, below - (2 * Around));
        }

        var (low, high) = (below - 1, Whole + 1);
        // Those that were kept fail the less, the more is mixed in; the first amount at which few enough do is searched.
        for (var step = Around; high > Whole && low < Whole; step *= 2)
        {
            var next = Math.Min(Whole, low + step);
            (low, high) = ground.FailingOfCollected(next) <= most ? (low, next) : (next, high);
        }

        while (high - low > 1)
        {
            var middle = (low + high) / 2;
            (low, high) = ground.FailingOfCollected(middle) <= most ? (low, middle) : (middle, high);
        }

        for (var level = high; level <= Whole; level++)
        {
            if (
                ((ground.OnlyGains ? ground.WorstHundredthOfCollected(level) : null) ?? ground.WorstHundredth(level))
                    is var (ratio, failing)
                && failing <= most
            )
            {
                return (level, ratio);
            }
        }

        return (Whole + 1, 0);
    }

    /// <summary>The contrast of the worst hundredth of an area at an amount.</summary>
    public static double RatioAt(PixelRows pixels, Crop area, FadeGoal goal, int level, int threads = 1)
    {
        ArgumentNullException.ThrowIfNull(goal);
        Check(pixels, area);
        using var ground = new ContrastRegion(pixels, area, goal, threads);
        return ground.WorstHundredth(level).Ratio;
    }

    private static void Check(PixelRows pixels, Crop area)
    {
        if (pixels.Bands < 3)
        {
            throw new ArgumentException("The pixels have no colours.", nameof(pixels));
        }

        if (area.Width < 1 || area.Height < 1 || area.Left < 0 || area.Top < 0 || area.Right > pixels.Width || area.Bottom > pixels.Height)
        {
            throw new ArgumentException("The area lies outside of the pixels.", nameof(area));
        }
    }
}

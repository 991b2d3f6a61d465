using Pantomet.Core.Geometry;

namespace Pantomet.Core.Responsive;

/// <summary>
/// The widths in pixels that visitors need of a picture: how wide it is shown at their viewport times their density, rounded up, over whole
/// viewports. Kept as the stretches of viewports over which they grow evenly, so that a question takes as many steps as there are stretches.
/// </summary>
public sealed class Needs
{
    // Products of decimal figures are off by less; a need is never a pixel more for that.
    private const double Hair = 1e-6;

    private readonly Stretch[] _stretches;

    private Needs(Stretch[] stretches)
    {
        _stretches = stretches;
        Largest = stretches.Length == 0 ? 0 : stretches.Max(stretch => Math.Max(stretch.At(stretch.From), stretch.At(stretch.To)));
        Least = stretches.Length == 0 ? 0 : stretches.Min(stretch => Math.Min(stretch.At(stretch.From), stretch.At(stretch.To)));
    }

    /// <summary>The widest that anybody needs, in pixels; 0 when nobody sees the picture.</summary>
    public int Largest { get; }

    /// <summary>The narrowest that anybody needs, in pixels.</summary>
    public int Least { get; }

    /// <summary>What is needed at these viewports by these densities.</summary>
    /// <param name="sizes">How wide the picture is shown.</param>
    /// <param name="viewports">The viewports at which it is.</param>
    /// <param name="densities">The densities of the screens.</param>
    public static Needs Of(Sizes sizes, ViewportRanges viewports, IReadOnlyList<Density> densities)
    {
        ArgumentNullException.ThrowIfNull(sizes);
        ArgumentNullException.ThrowIfNull(densities);
        var stretches = new List<Stretch>();
        foreach (var part in sizes.Parts)
        {
            foreach (var (from, to) in part.Holds.And(viewports).Parts)
            {
                stretches.AddRange(
                    densities.Select(density =>
                    {
                        var factor = (double)density.Value;
                        return new Stretch(from, to, part.Width.Pixels * factor, part.Width.PerViewport * factor);
                    })
                );
            }
        }

        return new([.. stretches]);
    }

    /// <summary>What one visitor needs, in pixels.</summary>
    /// <param name="width">How wide the picture is shown, in CSS pixels.</param>
    /// <param name="density">The density of the screen.</param>
    public static int Of(double width, Density density) => RoundedUp(width * (double)density.Value);

    /// <summary>The widest need that is no wider than this; null when all are wider.</summary>
    /// <param name="width">In pixels.</param>
    public int? AtMost(int width)
    {
        var best = 0;
        foreach (var stretch in _stretches)
        {
            best = Math.Max(best, stretch.AtMost(width));
        }

        return best > 0 ? best : null;
    }

    /// <summary>The narrowest need that is no narrower than this; null when all are narrower.</summary>
    /// <param name="width">In pixels.</param>
    public int? AtLeast(int width)
    {
        var best = int.MaxValue;
        foreach (var stretch in _stretches)
        {
            best = Math.Min(best, stretch.AtLeast(width));
        }

        return best < int.MaxValue ? best : null;
    }

    private static int RoundedUp(double pixels) => (int)Math.Ceiling(pixels - Hair);

    // Viewports From to To; Pixels + Slope x viewport are needed.
    private readonly record struct Stretch(int From, int To, double Pixels, double Slope)
    {
        public int At(int viewport) => RoundedUp(Pixels + (Slope * viewport));

        // The widest need up to a width, or 0.
        public int AtMost(int width)
        {
            var (low, high) = Slope >= 0 ? (From, To) : (To, From);
            if (At(high) <= width)
            {
                return At(high);
            }

            if (At(low) > width)
            {
                return 0;
            }

            // It lies between: the last viewport that needs no more, found on the line and set right by a step.
            var at = Clamped((width + Hair - Pixels) / Slope);
            var step = Slope >= 0 ? 1 : -1;
            while (at != low && At(at) > width)
            {
                at -= step;
            }

            while (at != high && At(at + step) <= width)
            {
                at += step;
            }

            return At(at);
        }

        // The narrowest need from a width on, or the most there is.
        public int AtLeast(int width)
        {
            var (low, high) = Slope >= 0 ? (From, To) : (To, From);
            if (At(low) >= width)
            {
                return At(low);
            }

            if (At(high) < width)
            {
                return int.MaxValue;
            }

            var at = Clamped((width - 1 + Hair - Pixels) / Slope);
            var step = Slope >= 0 ? 1 : -1;
            while (at != high && At(at) < width)
            {
                at += step;
            }

            while (at != low && At(at - step) >= width)
            {
                at -= step;
            }

            return At(at);
        }

        private int Clamped(double viewport) => (int)Math.Clamp(Math.Floor(viewport), From, To);
    }
}

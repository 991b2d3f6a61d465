namespace Pantomet.Core.Framing;

/// <summary>One channel of a backdrop that may grow lighter towards a side: value = mean + across · x + down · y.</summary>
internal readonly record struct BackdropPlane(double Mean, double Across, double Down)
{
    public double At(int x, int y) => Mean + (Across * x) + (Down * y);

    /// <summary>
    /// Least squares over the border; after each round what lies far off is left out, so that a subject at the edge does not pull it.
    /// </summary>
    public static BackdropPlane Fit(Thumb thumb, IReadOnlyList<(int X, int Y)> border, int band)
    {
        const int rounds = 4;
        // Begin with the median: more than half of the border is backdrop, or there is none.
        var median = border.Select(at => (double)thumb.At(at.X, at.Y, band)).Order().ElementAt(border.Count / 2);
        var plane = new BackdropPlane(median, 0, 0);
        var slack = 48.0;
        for (var round = 0; round < rounds; round++)
        {
            var near = border.Where(at => Math.Abs(thumb.At(at.X, at.Y, band) - plane.At(at.X, at.Y)) <= slack).ToList();
            if (near.Count < border.Count / 3)
            {
                return plane;
            }

            plane = Solve(near, thumb, band) ?? plane;
            slack = Math.Max(16, slack / 1.5);
        }

        return plane;
    }

    // The normal equations of a plane, around the means so that they stay well conditioned.
    private static BackdropPlane? Solve(List<(int X, int Y)> places, Thumb thumb, int band)
    {
        var (mx, my, mv) = (
            places.Average(at => at.X),
            places.Average(at => at.Y),
            places.Average(at => (double)thumb.At(at.X, at.Y, band))
        );
        double xx = 0,
            xy = 0,
            yy = 0,
            xv = 0,
            yv = 0;
        foreach (var (px, py) in places)
        {
            var (x, y, v) = (px - mx, py - my, thumb.At(px, py, band) - mv);
            xx += x * x;
            xy += x * y;
            yy += y * y;
            xv += x * v;
            yv += y * v;
        }

        var determinant = (xx * yy) - (xy * xy);
        if (determinant < 1e-6)
        {
            return null;
        }

        var (across, down) = (((xv * yy) - (yv * xy)) / determinant, ((yv * xx) - (xv * xy)) / determinant);
        return new(mv - (across * mx) - (down * my), across, down);
    }
}

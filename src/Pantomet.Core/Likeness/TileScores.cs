namespace Pantomet.Core.Likeness;

/// <summary>Multi-scale structural similarity of two planes, tile by tile.</summary>
internal sealed class TileScores
{
    private readonly double[] _scores;

    private TileScores(int columns, int rows)
    {
        (Columns, Rows) = (columns, rows);
        _scores = new double[columns * rows];
        Array.Fill(_scores, 1);
    }

    public int Columns { get; }

    public int Rows { get; }

    public double this[int column, int row] => _scores[(row * Columns) + column];

    /// <summary>Measures over as many scales as there are exponents and the planes have room for.</summary>
    public static TileScores Measure(Plane x, Plane y, int tile, ReadOnlySpan<double> exponents)
    {
        var scores = new TileScores((x.Width + tile - 1) / tile, (x.Height + tile - 1) / tile);
        var scales = 1;
        while (scales < exponents.Length && (x.ShortSide >> scales) >= StructuralSimilarity.Window)
        {
            scales++;
        }

        if (x.ShortSide < StructuralSimilarity.Window)
        {
            scores.MeasureTiny(x, y);
            return scores;
        }

        // Fewer scales than exponents: those that are left share all of the weight.
        double total = 0;
        foreach (var exponent in exponents[..scales])
        {
            total += exponent;
        }

        for (var scale = 0; scale < scales; scale++)
        {
            if (scale > 0)
            {
                var (finerX, finerY) = (x, y);
                (x, y) = (x.Halved(), y.Halved());
                Discard(finerX, finerY, own: scale > 1);
            }

            scores.AddScale(x, y, tile >> scale, exponents[scale] / total, withLuminance: scale == scales - 1);
        }

        Discard(x, y, own: scales > 1);
        return scores;
    }

    // The planes that were handed in are the caller's; their halves are ours.
    private static void Discard(Plane x, Plane y, bool own)
    {
        if (own)
        {
            x.Return();
            y.Return();
        }
    }

    /// <summary>Weighs another channel's scores in.</summary>
    public void Multiply(TileScores other, double share)
    {
        for (var row = 0; row < Rows; row++)
        {
            for (var column = 0; column < Columns; column++)
            {
                // Half a picture of odd size may have a tile less.
                var theirs = other[Math.Min(column, other.Columns - 1), Math.Min(row, other.Rows - 1)];
                _scores[(row * Columns) + column] *= Math.Pow(theirs, share);
            }
        }
    }

    private void AddScale(Plane x, Plane y, int tile, double exponent, bool withLuminance)
    {
        var sums = new double[_scores.Length];
        var counts = new int[_scores.Length];
        StructuralSimilarity.Compare(
            x,
            y,
            (row, first, luminance, structure) =>
            {
                var line = Math.Min(Rows - 1, row / tile) * Columns;
                for (var at = 0; at < structure.Length; )
                {
                    var column = Math.Min(Columns - 1, (first + at) / tile);
                    var end = column == Columns - 1 ? structure.Length : Math.Min(structure.Length, ((column + 1) * tile) - first);
                    sums[line + column] += withLuminance
                        ? Sums.OfProducts(structure[at..end], luminance[at..end])
                        : Sums.Of(structure[at..end]);
                    counts[line + column] += end - at;
                    at = end;
                }
            }
        );
        for (var i = 0; i < sums.Length; i++)
        {
            // A tile at the edge that holds no whole window says nothing at this scale.
            _scores[i] *= counts[i] == 0 ? 1 : Math.Pow(Math.Clamp(sums[i] / counts[i], 0, 1), exponent);
        }
    }

    // Smaller than one window: the plain difference, on the scale of a contrast of one standard step.
    private void MeasureTiny(Plane x, Plane y)
    {
        double sum = 0;
        var count = x.Width * x.Height;
        for (var i = 0; i < count; i++)
        {
            sum += Math.Pow(x.Values[i] - y.Values[i], 2);
        }

        Array.Fill(_scores, 1 / (1 + (sum / count / 255)));
    }
}

namespace Pantomet.Core.Likeness;

/// <summary>
/// A picture in 32 x 32 mean colours, whatever its shape: enough to tell whether two pictures show the same thing in the same place, as shots
/// of one series and copies in other sizes do.
/// </summary>
public sealed class PictureSketch
{
    /// <summary>Cells across and down.</summary>
    public const int Side = 32;

    /// <summary>The length of a sketch in bytes: red, green and blue for each cell.</summary>
    public const int Length = Side * Side * 3;

    // A hand moves a camera, or a thing on the table, by so many cells between two shots: 6 % of the picture.
    private const int Shift = 2;

    // Two exposures of one thing differ by so much in lightness, and in each of both colours, at most.
    private const double Exposure = 12;

    // Where colours vary by less, a sketch says nothing: noise and compression move the cells of an even picture by about so much.
    private const double Grain = 1.5;

    private readonly CieLab[] _cells;

    private PictureSketch(double ratio, CieLab[] cells) => (Ratio, _cells) = (ratio, cells);

    /// <summary>Width divided by height of the picture.</summary>
    public double Ratio { get; }

    /// <summary>Of the mean colours of a picture's cells.</summary>
    /// <param name="ratio">Width divided by height of the picture; greater than 0.</param>
    /// <param name="colours">Red, green and blue of each cell, row by row: <see cref="Length"/> bytes of sRGB.</param>
    public static PictureSketch Of(double ratio, ReadOnlySpan<byte> colours)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(ratio);
        if (colours.Length != Length)
        {
            throw new ArgumentException($"A sketch has {Length} bytes.", nameof(colours));
        }

        var cells = new CieLab[Side * Side];
        for (var i = 0; i < cells.Length; i++)
        {
            cells[i] = CieLab.Of(colours[3 * i], colours[(3 * i) + 1], colours[(3 * i) + 2]);
        }

        return new(ratio, cells);
    }

    /// <summary>
    /// How far two pictures are from each other: the mean difference of their colours, one laid over the other where both fit best, as a share
    /// of what their colours vary within. What stands out from the picture's mean colour counts more: a backdrop is the same under many things.
    /// 0 for the same picture, about 1 and more for pictures that have nothing to do with each other; infinite where one is so even that there is
    /// nothing to compare.
    /// </summary>
    /// <param name="other">The other picture.</param>
    public double To(PictureSketch other)
    {
        ArgumentNullException.ThrowIfNull(other);
        var (mean, others) = (Mean(_cells), Mean(other._cells));
        var exposed = new CieLab(Held(others.L - mean.L), Held(others.A - mean.A), Held(others.B - mean.B));
        var best = double.PositiveInfinity;
        for (var dy = -Shift; dy <= Shift; dy++)
        {
            for (var dx = -Shift; dx <= Shift; dx++)
            {
                best = Math.Min(best, At(other, dx, dy, mean, others, exposed));
            }
        }

        return best;
    }

    private double At(PictureSketch other, int dx, int dy, CieLab mean, CieLab others, CieLab exposed)
    {
        var (apart, spread, weights) = (0.0, 0.0, 0.0);
        for (var y = Math.Max(0, -dy); y < Side - Math.Max(0, dy); y++)
        {
            for (var x = Math.Max(0, -dx); x < Side - Math.Max(0, dx); x++)
            {
                var one = _cells[(y * Side) + x];
                var two = other._cells[((y + dy) * Side) + x + dx];
                var stands = Math.Max(Far(one, mean), Far(two, others));
                var weight = 1 + (stands / 10);
                apart += weight * Far(new(one.L + exposed.L, one.A + exposed.A, one.B + exposed.B), two);
                spread += weight * stands;
                weights += weight;
            }
        }

        return spread < Grain * weights ? double.PositiveInfinity : apart / spread;
    }

    private static double Held(double difference) => Math.Clamp(difference, -Exposure, Exposure);

    private static CieLab Mean(CieLab[] cells) =>
        new(cells.Average(cell => cell.L), cells.Average(cell => cell.A), cells.Average(cell => cell.B));

    // In CIELAB itself (CIE76): far apart is all that is asked.
    private static double Far(CieLab one, CieLab two)
    {
        var (l, a, b) = (one.L - two.L, one.A - two.A, one.B - two.B);
        return Math.Sqrt((l * l) + (a * a) + (b * b));
    }
}

using System.Text.Json.Serialization;

namespace Pantomet.Core.Geometry;

/// <summary>
/// How a picture is turned before anything is framed: whole quarters, then a small angle, then cut to the largest upright rectangle that
/// stays inside.
/// </summary>
/// <param name="Quarters">Quarter turns clockwise, 0 to 3.</param>
/// <param name="Degrees">The small angle clockwise, from -15 to 15.</param>
public readonly record struct Turn(int Quarters, double Degrees)
{
    /// <summary>The largest small angle in degrees; more is another picture, not a straightening.</summary>
    public const double MostDegrees = 15;

    /// <summary>No turn.</summary>
    public static readonly Turn None;

    /// <summary>True when nothing is turned.</summary>
    [JsonIgnore]
    public bool IsNone => Quarters == 0 && Degrees == 0;

    /// <summary>True when both figures are within their ranges.</summary>
    [JsonIgnore]
    public bool IsPossible => Quarters is >= 0 and <= 3 && Math.Abs(Degrees) <= MostDegrees;

    /// <summary>The size after the quarter turns alone.</summary>
    public PixelSize Upright(PixelSize picture) => Quarters % 2 == 0 ? picture : new(picture.Height, picture.Width);

    /// <summary>The size that is left: the largest upright rectangle inside the turned picture.</summary>
    /// <remarks>
    /// For sides long ≥ short and an angle a with s = |sin a|, c = |cos a|: while short > 2 s c long all four corners touch and the sides
    /// are
    /// (w c − h s) / cos 2a and (h c − w s) / cos 2a; else two corners touch the long sides' middle line and the sides are short / 2s and
    /// short / 2c.
    /// Elementary geometry, derived here; checked by brute force in the tests.
    /// </remarks>
    public PixelSize SizeOf(PixelSize picture)
    {
        var upright = Upright(picture);
        if (Degrees == 0)
        {
            return upright;
        }

        double w = upright.Width,
            h = upright.Height;
        var (sin, cos) = (Math.Abs(Math.Sin(Radians)), Math.Cos(Radians));
        double width,
            height;
        if (Math.Min(w, h) <= 2 * sin * cos * Math.Max(w, h))
        {
            var half = Math.Min(w, h) / 2;
            (width, height) = w >= h ? (half / sin, half / cos) : (half / cos, half / sin);
        }
        else
        {
            var twice = (cos * cos) - (sin * sin);
            (width, height) = (((w * cos) - (h * sin)) / twice, ((h * cos) - (w * sin)) / twice);
        }

        return new(Math.Max(1, (int)Math.Floor(width + 1e-9)), Math.Max(1, (int)Math.Floor(height + 1e-9)));
    }

    /// <summary>
    /// Where a box of the picture lies after the turn: the smallest upright box around it, cut at the edges; null when nothing of it is
    /// left.
    /// </summary>
    /// <param name="box">As fractions of the picture as displayed.</param>
    /// <param name="picture">Its size.</param>
    public Frame? Of(Frame box, PixelSize picture)
    {
        if (IsNone)
        {
            return box;
        }

        (double X, double Y)[] corners =
        [
            At(box.Left, box.Top, picture),
            At(box.Right, box.Top, picture),
            At(box.Left, box.Bottom, picture),
            At(box.Right, box.Bottom, picture),
        ];
        var (left, right) = (Math.Clamp(corners.Min(corner => corner.X), 0, 1), Math.Clamp(corners.Max(corner => corner.X), 0, 1));
        var (top, bottom) = (Math.Clamp(corners.Min(corner => corner.Y), 0, 1), Math.Clamp(corners.Max(corner => corner.Y), 0, 1));
        return Frame.TryCreate(left, top, right, bottom, out var turned, out _) ? turned : null;
    }

    /// <summary>Writes the turn for a key: two turns with the same text give the same pixels.</summary>
    public override string ToString() => string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{Quarters}q{Degrees:0.###}");

    /// <summary>Reads what <see cref="ToString"/> wrote.</summary>
    public static bool TryParse(string? text, out Turn turn)
    {
        turn = None;
        var parts = text?.Split('q');
        if (
            parts is not [var quarters, var degrees]
            || !int.TryParse(
                quarters,
                System.Globalization.NumberStyles.None,
                System.Globalization.CultureInfo.InvariantCulture,
                out var whole
            )
            || !double.TryParse(degrees, System.Globalization.CultureInfo.InvariantCulture, out var small)
        )
        {
            return false;
        }

        turn = new(whole, small);
        return turn.IsPossible;
    }

    /// <summary>
    /// Where a point of the turned picture lies in the picture as displayed, both as fractions: the way back of <see cref="At"/>.
    /// </summary>
    public (double X, double Y) Back(double x, double y, PixelSize picture)
    {
        var (upright, left) = (Upright(picture), SizeOf(picture));
        var (dx, dy) = ((x - 0.5) * left.Width, (y - 0.5) * left.Height);
        var (sin, cos) = (Math.Sin(Radians), Math.Cos(Radians));
        (x, y) = ((((dx * cos) + (dy * sin)) / upright.Width) + 0.5, (((-dx * sin) + (dy * cos)) / upright.Height) + 0.5);
        return Quarters switch
        {
            1 => (y, 1 - x),
            2 => (1 - x, 1 - y),
            3 => (1 - y, x),
            _ => (x, y),
        };
    }

    /// <summary>
    /// Where a point of the picture as displayed lies after the turn, both as fractions; outside of 0 to 1 for what was cut away.
    /// </summary>
    public (double X, double Y) At(double x, double y, PixelSize picture)
    {
        (x, y) = Quarters switch
        {
            1 => (1 - y, x),
            2 => (1 - x, 1 - y),
            3 => (y, 1 - x),
            _ => (x, y),
        };
        var (upright, left) = (Upright(picture), SizeOf(picture));
        var (dx, dy) = ((x - 0.5) * upright.Width, (y - 0.5) * upright.Height);
        var (sin, cos) = (Math.Sin(Radians), Math.Cos(Radians));
        return ((((dx * cos) - (dy * sin)) / left.Width) + 0.5, (((dx * sin) + (dy * cos)) / left.Height) + 0.5);
    }

    private double Radians => Degrees * Math.PI / 180;
}

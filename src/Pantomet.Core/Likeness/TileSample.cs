namespace Pantomet.Core.Likeness;

/// <summary>
/// Some rows of tiles of a picture that stand for all: trials on them tell what the whole would lose. They are whole rows, each encoded alone:
/// where tiles from elsewhere meet, unlike colours meet, and what is lost there is not the picture's. They are spread evenly, because an
/// encoder looks at what it is given as a whole: of the worst tiles alone it would make something else.
/// </summary>
/// <param name="Rows">Their places from above, in tiles.</param>
public sealed record TileSample(IReadOnlyList<int> Rows)
{
    /// <summary>As many tiles as two megapixels hold: how well they stand for the whole depends on their number, not on their share.</summary>
    public const int Most = 480;

    /// <summary>Every other row of tiles; of a large picture fewer, spread as evenly.</summary>
    /// <param name="columns">Whole tiles across; at least 1.</param>
    /// <param name="rows">Whole tiles down; at least 1.</param>
    /// <param name="most">About how many tiles they hold at most, if one row does not hold more.</param>
    /// <exception cref="ArgumentOutOfRangeException">There is no tile.</exception>
    public static TileSample Spread(int columns, int rows, int most = Most)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(columns, 1);
        ArgumentOutOfRangeException.ThrowIfLessThan(rows, 1);
        ArgumentOutOfRangeException.ThrowIfLessThan(most, 1);
        var step = Math.Max(2, (double)columns * rows / most);
        var count = Math.Max(1, (int)Math.Ceiling((rows - ((step - 1) / 2)) / step));
        return new([
            .. Enumerable.Range(0, count).Select(row => (int)(((step - 1) / 2) + (row * step))).Where(row => row < rows).DefaultIfEmpty(0),
        ]);
    }
}

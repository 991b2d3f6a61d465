namespace Pantomet.Core.Likeness;

/// <summary>
/// Some tiles of a picture that stand for all: trials on them tell what the whole would lose. They are spread evenly, because an encoder
/// looks at what it is given as a whole: of the worst tiles alone it would make something else.
/// </summary>
/// <param name="Tiles">Their places, tiles across and down.</param>
public sealed record TileSample(IReadOnlyList<(int Column, int Row)> Tiles)
{
    /// <summary>Every other tile, as on a chessboard.</summary>
    /// <param name="columns">Whole tiles across.</param>
    /// <param name="rows">Whole tiles down.</param>
    public static TileSample Half(int columns, int rows)
    {
        List<(int, int)> tiles =
        [
            .. Enumerable.Range(0, rows).SelectMany(row => Enumerable.Range(0, columns / 2).Select(half => ((half * 2) + (row % 2), row))),
        ];
        return new(tiles);
    }
}

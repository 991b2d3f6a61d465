using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;

namespace Pantomet.Imaging.Objects;

/// <summary>The network that finds things by their centres (docs/licences). What it calls them is not read: its boxes are good where its names are wrong.</summary>
internal static class ThingNetwork
{
    // Pixels of the square for each cell of its answer.
    private const int Cell = 4;

    // Below this nothing is looked at further.
    private const float Least = 0.1f;

    // Two boxes that lie so much on each other are one thing, whatever it is called.
    private const double Same = 0.6;

    private static readonly Lazy<SquareNetwork> Shared = new(() => new("things.onnx"));

    /// <summary>What may be things, best first.</summary>
    /// <param name="picture">The picture, upright and opaque.</param>
    public static IReadOnlyList<Detection> Find(Thumb picture)
    {
        var answer = Shared.Value.Of(picture);
        var (columns, rows) = (answer.Width / Cell, answer.Height / Cell);
        var (heat, reach) = (Strongest(answer.Outputs[0], columns * rows), answer.Outputs[1]);
        var found = new List<Detection>();
        for (var cell = 0; cell < heat.Length; cell++)
        {
            if (heat[cell] >= Least && IsPeak(heat, columns, cell) && Box(reach, columns, cell, answer) is { } box)
            {
                found.Add(new(box, heat[cell]));
            }
        }

        return Detection.Apart(found, Same);
    }

    private static float[] Strongest(float[] classes, int cells)
    {
        var strongest = classes[..cells];
        for (var i = strongest.Length; i < classes.Length; i++)
        {
            strongest[i % strongest.Length] = Math.Max(strongest[i % strongest.Length], classes[i]);
        }

        return strongest;
    }

    private static bool IsPeak(float[] heat, int columns, int cell)
    {
        var (column, row, rows) = (cell % columns, cell / columns, heat.Length / columns);
        for (var y = Math.Max(0, row - 1); y <= Math.Min(rows - 1, row + 1); y++)
        {
            for (var x = Math.Max(0, column - 1); x <= Math.Min(columns - 1, column + 1); x++)
            {
                if (heat[(y * columns) + x] > heat[cell])
                {
                    return false;
                }
            }
        }

        return true;
    }

    // How far it reaches left, up, right and down of the cell's corner, in pixels of the square.
    private static Frame? Box(float[] reach, int columns, int cell, SquareAnswer answer)
    {
        var (x, y) = (cell % columns * Cell, cell / columns * Cell);
        var (across, down) = (answer.Across * SquareNetwork.Side, answer.Down * SquareNetwork.Side);
        return Frame.TryCreate(
            Math.Clamp((x - Of(0)) / across, 0, 1),
            Math.Clamp((y - Of(1)) / down, 0, 1),
            Math.Clamp((x + Of(2)) / across, 0, 1),
            Math.Clamp((y + Of(3)) / down, 0, 1),
            out var frame,
            out _
        )
            ? frame
            : null;

        double Of(int side) => reach[(side * (reach.Length / 4)) + cell];
    }
}

using Microsoft.ML.OnnxRuntime;
using Pantomet.Core.Framing;

namespace Pantomet.Imaging.Objects;

/// <summary>
/// A network that was trained on a square of pixels. The picture lies in its upper left corner, as large as it fits; of what is left only so much
/// is looked at, in black, as makes the sides multiples of a cell.
/// </summary>
internal sealed class SquareNetwork : IDisposable
{
    /// <summary>The square's side in pixels.</summary>
    public const int Side = 512;

    // Its coarsest layer that is kept apart from the next has one cell for so many pixels.
    private const int Cell = 32;

    private readonly InferenceSession _session;
    private readonly RunOptions _run = new();

    /// <summary>Reads it.</summary>
    /// <param name="name">The file's name beside the program.</param>
    public SquareNetwork(string name) => _session = NetworkSession.Open(name);

    /// <summary>Its outputs in the order of the file, and how much of the square the picture covers.</summary>
    /// <param name="picture">The picture, upright and opaque.</param>
    public SquareAnswer Of(Thumb picture)
    {
        var scale = (double)Side / Math.Max(picture.Width, picture.Height);
        var (width, height) = (Whole(picture.Width * scale), Whole(picture.Height * scale));
        var (pixels, bands) = NetworkSession.Resized(picture, width, height);
        var (across, down) = (Filled(width), Filled(height));
        var values = new float[3 * across * down];
        for (var y = 0; y < height; y++)
        {
            for (var x = 0; x < width; x++)
            {
                for (var channel = 0; channel < 3; channel++)
                {
                    values[(((channel * down) + y) * across) + x] = pixels[(((y * width) + x) * bands) + channel];
                }
            }
        }

        using var input = OrtValue.CreateTensorValueFromMemory(values, [1, 3, down, across]);
        using var outputs = _session.Run(_run, [_session.InputNames[0]], [input], _session.OutputNames);
        return new(
            [.. outputs.Select(output => output.GetTensorDataAsSpan<float>().ToArray())],
            (double)width / Side,
            (double)height / Side,
            across,
            down
        );
    }

    /// <summary>Frees it.</summary>
    public void Dispose()
    {
        _run.Dispose();
        _session.Dispose();
    }

    private static int Filled(int side) => (side + Cell - 1) / Cell * Cell;

    private static int Whole(double pixels) => Math.Clamp((int)Math.Round(pixels), 1, Side);
}

/// <summary>What a network says of a square.</summary>
/// <param name="Outputs">Its outputs in the order of the file.</param>
/// <param name="Across">The share of the square's width that the picture covers.</param>
/// <param name="Down">The share of its height.</param>
/// <param name="Width">How many pixels of it were looked at across.</param>
/// <param name="Height">How many down.</param>
internal sealed record SquareAnswer(IReadOnlyList<float[]> Outputs, double Across, double Down, int Width, int Height);

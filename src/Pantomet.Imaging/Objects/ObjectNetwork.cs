using Microsoft.ML.OnnxRuntime;
using Pantomet.Core.Framing;

namespace Pantomet.Imaging.Objects;

/// <summary>
/// The network trained on objects that ships with the program. It is read from its file when it is needed first (64 MB, about a third of
/// a second) and shared by all threads of a process.
/// </summary>
public sealed class ObjectNetwork : IObjectMaps, IDisposable
{
    // The longest side it sees, in pixels (docs/subjects.md has what others find).
    private const int Side = 544;

    // Its coarsest layer has one cell for so many pixels.
    private const int Cell = 32;

    // It was trained on blue, green and red less this.
    private const float Middle = 115;

    private static readonly Lazy<ObjectNetwork> Shared = new(() => new());

    private readonly InferenceSession _session;
    private readonly RunOptions _run = new();
    private readonly string _input;

    private ObjectNetwork()
    {
        _session = NetworkSession.Open("objects.onnx");
        _input = _session.InputNames[0];
    }

    /// <summary>The one of this process.</summary>
    public static ObjectNetwork Instance => Shared.Value;

    /// <inheritdoc/>
    public IReadOnlyList<ObjectMap> Of(Thumb picture)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var scale = (double)Side / Math.Max(picture.Width, picture.Height);
        var (width, height) = (Whole(picture.Width * scale), Whole(picture.Height * scale));
        var (pixels, bands) = NetworkSession.Resized(picture, width, height);
        var values = new float[3 * width * height];
        for (var i = 0; i < width * height; i++)
        {
            for (var channel = 0; channel < 3; channel++)
            {
                values[(channel * width * height) + i] = pixels[(i * bands) + 2 - channel] - Middle;
            }
        }

        using var input = OrtValue.CreateTensorValueFromMemory(values, [1, 3, height, width]);
        using var layers = _session.Run(_run, [_input], [input], _session.OutputNames);
        return [.. layers.Select(MapOf)];
    }

    /// <summary>Frees it.</summary>
    public void Dispose()
    {
        _run.Dispose();
        _session.Dispose();
    }

    private static ObjectMap MapOf(OrtValue layer)
    {
        var shape = layer.GetTensorTypeAndShape().Shape;
        return new(layer.GetTensorDataAsSpan<float>().ToArray(), (int)shape[1], (int)shape[3], (int)shape[2]);
    }

    private static int Whole(double pixels) => Math.Max(2, (int)Math.Round(pixels / Cell)) * Cell;
}

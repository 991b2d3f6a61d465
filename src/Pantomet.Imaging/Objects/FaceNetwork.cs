using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;

namespace Pantomet.Imaging.Objects;

/// <summary>The single-shot network that finds faces (docs/licences). Its answers are boxes from forehead to chin.</summary>
internal static class FaceNetwork
{
    // Below this nothing is looked at further.
    private const double Least = 0.2;

    // Two boxes that lie so much on each other are one face (the package's own figure).
    private const double Same = 0.5;

    private static readonly Lazy<SquareNetwork> Shared = new(() => new("faces.onnx"));

    /// <summary>What may be faces, best first.</summary>
    /// <param name="picture">The picture, upright and opaque.</param>
    public static IReadOnlyList<Detection> Find(Thumb picture)
    {
        var answer = Shared.Value.Of(picture);
        var (scores, boxes) = (answer.Outputs[0], answer.Outputs[1]);
        return Detection.Apart(
            Enumerable
                .Range(0, scores.Length)
                .Where(i => scores[i] >= Least)
                .Select(i => (Box: Within(boxes.AsSpan(i * 4, 4), answer), Score: (double)scores[i]))
                .Where(one => one.Box is not null)
                .Select(one => new Detection(one.Box!.Value, one.Score)),
            Same
        );
    }

    // Top, left, bottom, right as shares of the square.
    private static Frame? Within(ReadOnlySpan<float> box, SquareAnswer answer) =>
        Frame.TryCreate(
            Math.Clamp(box[1] / answer.Across, 0, 1),
            Math.Clamp(box[0] / answer.Down, 0, 1),
            Math.Clamp(box[3] / answer.Across, 0, 1),
            Math.Clamp(box[2] / answer.Down, 0, 1),
            out var frame,
            out _
        )
            ? frame
            : null;
}

using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>How people are framed (common practice): heads whole, with a little air above, the eyes at about a third from above.</summary>
public static class Portrait
{
    /// <summary>How far below the top of a frame the eyes lie where nothing else is in the way, as a share of its height.</summary>
    public const double EyeLine = 1.0 / 3;

    // What a face network calls a face reaches from forehead to chin; the eyes lie a little above its middle.
    private const double EyesInFace = 0.4;

    // A head is wider than its face, has hair above it and a neck below (shares of the face's width and height).
    private const double Beside = 0.3;
    private const double Above = 0.45;
    private const double Below = 0.25;

    /// <summary>A head with the room that is left around it.</summary>
    /// <param name="face">From forehead to chin.</param>
    public static Frame Head(Frame face)
    {
        var (width, height) = (face.Right - face.Left, face.Bottom - face.Top);
        return Frame.Within(
            face.Left - (Beside * width),
            face.Top - (Above * height),
            face.Right + (Beside * width),
            face.Bottom + (Below * height)
        );
    }

    /// <summary>What a frame should hold, in this order: whoever the faces belong to, all heads, the largest head.</summary>
    /// <param name="all">The box of whoever they belong to.</param>
    /// <param name="faces">One or more.</param>
    public static IReadOnlyList<SuggestedPart> Parts(Frame all, IReadOnlyList<Frame> faces)
    {
        ArgumentNullException.ThrowIfNull(faces);
        var heads = faces.Select(Head).ToList();
        var largest = faces.MaxBy(face => face.Area);
        var eyes = faces.Average(Eyes);
        List<SuggestedPart> parts = [new(all, eyes), new(heads.Aggregate((one, other) => one.With(other)), eyes)];
        if (faces.Count > 1)
        {
            parts.Add(new(Head(largest), Eyes(largest)));
        }

        return parts;
    }

    private static double Eyes(Frame face) => face.Top + (EyesInFace * (face.Bottom - face.Top));
}

using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>
/// Weighs what several networks say of one picture into one suggestion: faces before anything else, then things, whose boxes are the best
/// drawn, then where objects are. Its figures were chosen on the photographs of docs/subjects.md.
/// </summary>
public static class SubjectChoice
{
    /// <summary>From this score on a face is believed by itself; a cloud was scored 0.83 as one, true faces mostly 0.85 and more.</summary>
    public const double SureFace = 0.85;

    // With somebody seen around it, from this score on.
    private const double FaceOfSomebody = 0.6;

    // A small one must be as sure whatever is around it: windows and ornaments look like faces from afar.
    private const double SmallFace = 0.05;

    // Beside a face that is believed, others may be turned away or small.
    private const double FurtherFace = 0.45;

    // A face much smaller than the largest belongs to somebody in the background.
    private const double Background = 0.08;

    // A thing around a face is whoever it belongs to, where the network sees it at least so well and it is no larger than people are.
    private const double LeastPerson = 0.2;
    private const double WidestPerson = 9;

    // From this score on a thing is believed by itself; where the other network sees something in the same place, from that one on.
    private const double SureThing = 0.45;
    private const double AgreedThing = 0.15;
    private const double Agreement = 0.4;

    // From this score on a thing needs nobody to agree.
    private const double SettledThing = 0.6;

    // Another thing is a subject of its own with this share of the best one's score and area; smaller than that is nothing.
    private const double FurtherScore = 0.6;
    private const double FurtherArea = 0.2;
    private const double SmallestThing = 0.004;

    // What fills the whole picture is no thing in it: cloth, wood, a pattern.
    private const double LargestThing = 0.92;

    // One that is not believed by itself must be seen half well and be no larger than others, or lie where the other network sees something.
    private const double LeastFurther = 0.3;
    private const double LargestFurther = 3;
    private const double FurtherInside = 0.6;

    // So sure of an object, the other network needs nobody; else something must lie inside that is no speck of it.
    private const double SureAlone = 0.72;
    private const double LeastInside = 0.1;
    private const double MostlyInside = 0.8;
    private const double NoSpeck = 0.02;

    /// <summary>The suggestion; null when one place is like the other.</summary>
    /// <param name="objects">Where the network that was trained to name objects sees one, or most of the content.</param>
    /// <param name="faces">What may be faces.</param>
    /// <param name="things">What may be things.</param>
    public static Suggestion? Of(Suggestion? objects, IReadOnlyList<Detection> faces, IReadOnlyList<Detection> things)
    {
        ArgumentNullException.ThrowIfNull(faces);
        ArgumentNullException.ThrowIfNull(things);
        return OfFaces(faces, things) ?? WithoutFaces(objects, things);
    }

    /// <summary>The same where nobody's face is believed.</summary>
    /// <param name="objects">Where the network that was trained to name objects sees one, or most of the content.</param>
    /// <param name="things">What may be things.</param>
    public static Suggestion? WithoutFaces(Suggestion? objects, IReadOnlyList<Detection> things)
    {
        ArgumentNullException.ThrowIfNull(things);
        return OfThings(objects, things) ?? Supported(objects, things);
    }

    /// <summary>What is kept of a suggestion that trims a nearly plain backdrop, after faces and things were looked for.</summary>
    /// <param name="backdrop">What stands before the backdrop; null where it is not plain.</param>
    /// <param name="found">What the networks suggest.</param>
    /// <param name="things">What may be things.</param>
    /// <remarks>A wall or a row of boards is nearly plain as well, so that somebody else must have drawn about the same box.</remarks>
    public static Suggestion? Beside(Suggestion? backdrop, Suggestion? found, IReadOnlyList<Detection> things)
    {
        ArgumentNullException.ThrowIfNull(things);
        var isSeen = found is { Kind: SuggestionKind.Object or SuggestionKind.Faces, Confidence: >= Suggestion.Sure };
        return backdrop is { Box: var box } && !isSeen && things.Any(thing => Detection.Overlap(thing.Box, box) >= Agreement)
            ? backdrop
            : found;
    }

    /// <summary>What faces and things say where nobody else needs to be asked: somebody is seen, or a thing without any doubt; else null.</summary>
    /// <param name="faces">What may be faces.</param>
    /// <param name="things">What may be things.</param>
    public static Suggestion? Settled(IReadOnlyList<Detection> faces, IReadOnlyList<Detection> things)
    {
        ArgumentNullException.ThrowIfNull(things);
        return OfFaces(faces, things)
            ?? (things.Any(thing => thing.Score >= SettledThing && thing.Box.Area <= LargestThing) ? OfThings(null, things) : null);
    }

    /// <summary>The faces that are believed, and whoever they belong to; null where there are none.</summary>
    /// <param name="faces">What may be faces.</param>
    /// <param name="things">What may be things.</param>
    public static Suggestion? OfFaces(IReadOnlyList<Detection> faces, IReadOnlyList<Detection> things)
    {
        ArgumentNullException.ThrowIfNull(faces);
        ArgumentNullException.ThrowIfNull(things);
        if (!faces.Any(face => face.Score >= LeastScore(face.Box, things)))
        {
            return null;
        }

        var likely = faces.Where(face => face.Score >= FurtherFace).ToList();
        var largest = likely.Max(face => face.Box.Area);
        var kept = likely.Where(face => face.Box.Area >= Background * largest).OrderByDescending(face => face.Score).ToList();
        var all = kept.Select(face => Portrait.Head(face.Box).With(Person(face.Box, things))).Aggregate((one, other) => one.With(other));
        return new(all, SuggestionKind.Faces)
        {
            Confidence = Math.Round(Math.Min(1, kept[0].Score), 3),
            Faces = [.. kept.Select(face => face.Box)],
        };
    }

    private static double LeastScore(Frame face, IReadOnlyList<Detection> things) =>
        face.Right - face.Left < SmallFace || Somebody(face, things) is null ? SureFace : FaceOfSomebody;

    // The best seen thing around a face; else head and shoulders.
    private static Frame Person(Frame face, IReadOnlyList<Detection> things)
    {
        var (width, height) = (face.Right - face.Left, face.Bottom - face.Top);
        return Somebody(face, things)
            ?? Frame.Within(face.Left - width, face.Top - (height / 2), face.Right + width, face.Bottom + (1.2 * height));
    }

    private static Frame? Somebody(Frame face, IReadOnlyList<Detection> things)
    {
        var (x, y) = ((face.Left + face.Right) / 2, (face.Top + face.Bottom) / 2);
        var around = things.Where(thing =>
            thing.Score >= LeastPerson
            && thing.Box.Holds(x, y)
            && thing.Box.Area > face.Area
            && thing.Box.Right - thing.Box.Left <= WidestPerson * (face.Right - face.Left)
        );
        return around.Select(thing => (Frame?)thing.Box).FirstOrDefault();
    }

    private static Suggestion? OfThings(Suggestion? objects, IReadOnlyList<Detection> things)
    {
        var seen = objects is { Kind: SuggestionKind.Object } at ? at.Box : (Frame?)null;
        bool IsBelieved(Detection thing) =>
            thing.Box.Area is >= SmallestThing and <= LargestThing
            && (
                thing.Score >= SureThing
                || (thing.Score >= AgreedThing && seen is { } box && Detection.Overlap(thing.Box, box) >= Agreement)
            );
        var believed = things.Where(IsBelieved).OrderByDescending(thing => thing.Score * Math.Sqrt(thing.Box.Area)).ToList();
        if (believed.Count == 0)
        {
            return null;
        }

        var best = believed[0];
        bool Belongs(Detection thing) =>
            thing.Score >= FurtherScore * best.Score
            && thing.Box.Area >= FurtherArea * best.Box.Area
            && (
                IsBelieved(thing)
                || (thing.Score >= LeastFurther && thing.Box.Area <= LargestFurther * best.Box.Area)
                || (seen is { } box && thing.Box.Shared(box) >= FurtherInside * thing.Box.Area)
            );
        var kept = things.Where(Belongs).Select(thing => thing.Box).ToList();
        var all = kept.Aggregate(best.Box, (one, other) => one.With(other));
        // Two that were drawn by different eyes: the middle between them is nearer than either.
        var drawn = seen is { } other && Detection.Overlap(all, other) >= Agreement ? Between(all, other) : all;
        return new(drawn, SuggestionKind.Object)
        {
            Confidence = Math.Round(Math.Clamp(Math.Max(best.Score, objects?.Confidence ?? 0), Suggestion.Sure, 1), 3),
            Strongest =
                kept.Count > 1 ? best.Box
                : objects is { Strongest: { } core } && best.Box.Shared(core) >= core.Area / 2 ? core
                : null,
        };
    }

    private static Frame Between(Frame one, Frame other) =>
        Frame.Within(
            (one.Left + other.Left) / 2,
            (one.Top + other.Top) / 2,
            (one.Right + other.Right) / 2,
            (one.Bottom + other.Bottom) / 2
        );

    // What one network sees alone is mostly texture, unless it is very sure or the other sees at least something there.
    private static Suggestion? Supported(Suggestion? objects, IReadOnlyList<Detection> things)
    {
        if (objects is not { Kind: SuggestionKind.Object, Confidence: < SureAlone } found)
        {
            return objects;
        }

        var isSupported = things.Any(thing =>
            thing.Score >= LeastInside
            && thing.Box.Area >= NoSpeck * found.Box.Area
            && thing.Box.Shared(found.Box) >= MostlyInside * thing.Box.Area
        );
        if (isSupported)
        {
            return objects;
        }

        // Frames lie around it all the same, as around the content of any picture without a subject.
        return new(found.Box, SuggestionKind.Content);
    }
}

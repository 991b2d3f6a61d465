using System.Text.Json.Serialization;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>How a suggested keep box was found.</summary>
public enum SuggestionKind
{
    /// <summary>The picture has a plain backdrop; what is left after trimming it is the subject.</summary>
    PlainBackdrop,

    /// <summary>The box holds the most eye-catching region: what was found before there was a network.</summary>
    EyeCatching,

    /// <summary>A network trained on objects sees something there.</summary>
    Object,

    /// <summary>The picture has no subject; the box is where most of its content lies, and frames are placed around its centre.</summary>
    Content,

    /// <summary>A network found faces there; they are kept whole before anything else.</summary>
    Faces,
}

/// <summary>What a frame should hold of a suggestion.</summary>
/// <param name="Box">As fractions of the picture as displayed.</param>
/// <param name="Eyes">Where the eyes lie in it, from above, as a fraction of the picture's height; null where there are none.</param>
public sealed record SuggestedPart(Frame Box, double? Eyes);

/// <summary>A keep box that nobody has confirmed yet.</summary>
/// <param name="Box">As fractions of the picture as displayed.</param>
/// <param name="Kind">How it was found.</param>
public readonly record struct Suggestion(Frame Box, SuggestionKind Kind)
{
    /// <summary>How sure that is, 0 to 1; what was found before there were confidences counts as unsure.</summary>
    public double Confidence { get; init; }

    /// <summary>
    /// The strongest of several subjects, or the heart of a single one, for frames that cannot hold <see cref="Box"/>; null where it is
    /// not known.
    /// </summary>
    public Frame? Strongest { get; init; }

    /// <summary>The faces, from forehead to chin, best first; null or empty where there are none.</summary>
    public IReadOnlyList<Frame>? Faces { get; init; }

    /// <summary>
    /// What a frame should hold: all of it, else what it can hold of it, in this order. With faces these are whoever they belong to, all
    /// heads, and the largest head.
    /// </summary>
    [JsonIgnore]
    public IReadOnlyList<SuggestedPart> Parts =>
        Faces is { Count: > 0 } faces ? Portrait.Parts(Box, faces)
        : Strongest is { } strongest ? [new(Box, null), new(strongest, null)]
        : [new(Box, null)];

    /// <summary>
    /// By how much a box may overhang its frame and is still framed as a whole: its edges are not known better. A face is cut by nothing.
    /// </summary>
    [JsonIgnore]
    public double Tolerated => Faces is { Count: > 0 } ? 1 : KnownNoBetter;

    // Measured (docs/subjects.md).
    private const double KnownNoBetter = 1.12;

    /// <inheritdoc/>
    public bool Equals(Suggestion other) =>
        (Box, Kind, Confidence, Strongest) == (other.Box, other.Kind, other.Confidence, other.Strongest)
        && (Faces ?? []).SequenceEqual(other.Faces ?? []);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Box, Kind, Confidence, Strongest, Faces?.Count ?? 0);

    // By judgement: a frame that shows nearly all of the picture shows the subject whatever it is.
    private const double ShowsEnough = 0.6;

    /// <summary>True when it is sure enough, and shown whole enough in a frame, that nobody needs to look at it.</summary>
    /// <param name="frame">The frame, of the same picture.</param>
    public bool NeedsNoReview(Frame frame) =>
        Kind switch
        {
            SuggestionKind.PlainBackdrop or SuggestionKind.Content => true,
            SuggestionKind.EyeCatching => frame.Area >= ShowsEnough,
            SuggestionKind.Faces => FacesIn(frame) == (Faces?.Count ?? 0),
            _ => frame.Shared(Box) / Box.Area >= (Confidence >= Sure ? MostlyShown : WhollyShown),
        };

    /// <summary>How many of the faces are whole in a frame.</summary>
    /// <param name="frame">The frame, of the same picture.</param>
    public int FacesIn(Frame frame) => Faces?.Count(face => frame.Shared(face) / face.Area >= WhollyShown) ?? 0;

    /// <summary>The confidence from which a suggestion is taken for right.</summary>
    public const double Sure = 0.6;

    // How much of the box a frame must show; measured (docs/subjects.md).
    private const double MostlyShown = 0.64;
    private const double WhollyShown = 0.97;
}

/// <summary>What a frame is there to show: keep boxes, else a focus point, else a suggestion, else nothing in particular.</summary>
public readonly record struct Subject
{
    /// <summary>Nothing is known.</summary>
    public static readonly Subject None;

    private Subject(Frame? keep, FocusPoint? focus, Suggestion? suggestion)
    {
        Keep = keep;
        Focus = focus;
        Suggestion = suggestion;
    }

    /// <summary>The union of the keep boxes, or the suggested one.</summary>
    public Frame? Keep { get; }

    /// <summary>The focus point.</summary>
    public FocusPoint? Focus { get; }

    /// <summary>The suggestion that <see cref="Keep"/> comes from when nobody set it.</summary>
    public Suggestion? Suggestion { get; }

    /// <summary>Puts together what is known, in order of its rank.</summary>
    /// <param name="keep">The keep boxes set by a person.</param>
    /// <param name="focus">The focus point set by a person.</param>
    /// <param name="suggestion">What the picture itself suggests.</param>
    public static Subject Of(IReadOnlyList<Frame> keep, FocusPoint? focus, Suggestion? suggestion)
    {
        ArgumentNullException.ThrowIfNull(keep);
        if (keep.Count > 0)
        {
            var union = keep[0];
            for (var i = 1; i < keep.Count; i++)
            {
                union = union.With(keep[i]);
            }

            return new(union, focus, null);
        }

        return focus is not null || suggestion is not { } suggested ? new(null, focus, null)
            : suggested.Kind == SuggestionKind.Content ? new(null, null, suggested)
            : new(suggested.Box, null, suggested);
    }
}

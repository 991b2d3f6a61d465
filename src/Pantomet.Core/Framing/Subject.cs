using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>How a suggested keep box was found.</summary>
public enum SuggestionKind
{
    /// <summary>The picture has a plain backdrop; what is left after trimming it is the subject.</summary>
    PlainBackdrop,

    /// <summary>The scene is busy; the box holds the most eye-catching region.</summary>
    EyeCatching,
}

/// <summary>A keep box that nobody has confirmed yet.</summary>
/// <param name="Box">As fractions of the picture as displayed.</param>
/// <param name="Kind">How it was found.</param>
public readonly record struct Suggestion(Frame Box, SuggestionKind Kind);

/// <summary>What a frame is there to show: keep boxes, else a focus point, else a suggestion, else nothing in particular.</summary>
public readonly record struct Subject
{
    /// <summary>Nothing is known.</summary>
    public static readonly Subject None;

    private Subject(Frame? keep, FocusPoint? focus, SuggestionKind? suggested)
    {
        Keep = keep;
        Focus = focus;
        Suggested = suggested;
    }

    /// <summary>The union of the keep boxes, or the suggested one.</summary>
    public Frame? Keep { get; }

    /// <summary>The focus point.</summary>
    public FocusPoint? Focus { get; }

    /// <summary>How <see cref="Keep"/> was found when nobody set it.</summary>
    public SuggestionKind? Suggested { get; }

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

        return focus is not null || suggestion is not { } suggested ? new(null, focus, null) : new(suggested.Box, null, suggested.Kind);
    }
}

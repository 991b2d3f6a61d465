using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Imaging.Reading;
using Pantomet.Platform;

namespace Pantomet.Imaging.Objects;

/// <summary>Looks at pictures without a plain backdrop for their subject.</summary>
internal static class SubjectDetector
{
    /// <summary>The longest side of the copy that is looked at, in pixels: that of the small copies for the screen.</summary>
    public const int LongSide = 480;

    /// <summary>A picture with a shorter side than this has no subject to speak of.</summary>
    public const int LeastSide = 24;

    /// <summary>The facts with what was found.</summary>
    /// <param name="path">The original, or a small copy of it that lies upright.</param>
    /// <param name="facts">Its facts.</param>
    /// <exception cref="VipsException">It cannot be decoded.</exception>
    public static PictureFacts Sought(string path, PictureFacts facts) =>
        facts.SubjectSought ? facts : facts with { Suggestion = At(path, facts.Suggestion), SubjectSought = true };

    /// <summary>What the networks suggest.</summary>
    /// <param name="path">The original, or a small copy of it that lies upright.</param>
    /// <param name="backdrop">What stands before a backdrop that is nearly plain; null where there is none.</param>
    /// <exception cref="VipsException">It cannot be decoded.</exception>
    private static Suggestion? At(string path, Suggestion? backdrop)
    {
        var picture = ThumbOf(path);
        var (faces, things) = (FaceNetwork.Find(picture), ThingNetwork.Find(picture));
        // The dearest of the three is only asked where the others leave something open.
        var found =
            SubjectChoice.Settled(faces, things) ?? SubjectChoice.WithoutFaces(ObjectFinder.Find(picture, ObjectNetwork.Instance), things);
        NativeHeap.GiveBack();
        return SubjectChoice.Beside(backdrop, found, things);
    }

    /// <summary>The copy that is looked at: upright, opaque, red, green and blue.</summary>
    /// <param name="path">The original, or a small copy of it that lies upright.</param>
    /// <exception cref="VipsException">It cannot be decoded.</exception>
    internal static Thumb ThumbOf(string path)
    {
        using var scope = new Scope();
        var small = scope.Own(PictureReader.Small(path, LongSide));
        var opaque = small.HasAlpha() ? scope.Own(small.Flatten(background: [255.0])) : small;
        var shown = scope.Own(scope.Own(opaque.Colourspace(Enums.Interpretation.Srgb)).Cast(Enums.BandFormat.Uchar));
        return new(shown.WriteToMemory<byte>(), shown.Width, shown.Height, shown.Bands);
    }
}

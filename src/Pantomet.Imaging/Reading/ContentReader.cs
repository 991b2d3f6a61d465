using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Imaging.Objects;

namespace Pantomet.Imaging.Reading;

/// <summary>Looks at a picture's content: what kind of picture it is and what its subject may be.</summary>
internal static class ContentReader
{
    /// <summary>The most pixels that are held while a file is looked at: 24 million.</summary>
    private const double MostHeld = 24e6;

    /// <summary>
    /// Decodes a whole file once, at an eighth where the type allows it: to learn whether all of it is there, and to look at the content
    /// on the way.
    /// </summary>
    /// <exception cref="VipsException">Data is missing or damaged.</exception>
    public static PictureFacts Read(string path, PictureFacts facts)
    {
        // A picture of a few pixels has no eighth.
        var shrink = facts.Format == PictureFormat.Jpeg && facts.Size.ShortSide >= 64 ? 8 : 1;
        using var opened = PictureReader.Open(path, facts.Format, shrink, Enums.Access.Sequential);
        // A picture too large to be held is averaged on the way; its means tell as much.
        var block = (int)Math.Ceiling(Math.Sqrt((double)opened.Width * opened.Height / MostHeld));
        using var scope = new Scope();
        using var held = (block > 1 ? scope.Own(opened.Shrink(block, block, ceil: true)) : opened).CopyMemory();
        return Look(held, facts, facts.Orientation);
    }

    /// <summary>The facts with what the content says added.</summary>
    /// <param name="pixels">The whole picture at any scale, in memory.</param>
    /// <param name="facts">The facts from the header.</param>
    /// <param name="orientation">The orientation tag that is still to be applied.</param>
    public static PictureFacts Look(Image pixels, PictureFacts facts, int orientation)
    {
        using var scope = new Scope();
        var step = Math.Max(1, (int)Math.Round(Math.Max(pixels.Width, pixels.Height) / (double)Thumb.LongSide));
        // Single pixels as they are, for the kind; means of blocks, for the subject.
        var (across, down) = (Math.Min(step, pixels.Width), Math.Min(step, pixels.Height));
        using var picked = Shown(scope.Own(pixels.Subsample(across, down)), scope).CopyMemory();
        using var mixed = Shown(scope.Own(pixels.Shrink(across, down, ceil: true)), scope).CopyMemory();
        var suggestion = Suggester.Suggest(Upright(mixed, orientation));
        return facts with
        {
            Kind = PictureKinds.Of(picked.WriteToMemory<byte>(), picked.Bands),
            Suggestion = suggestion,
            SubjectSought = suggestion is { Confidence: >= Suggester.Clean } || facts.Size.ShortSide < SubjectLook.LeastSide,
        };
    }

    private static Image Shown(Image image, Scope scope) =>
        scope.Own(scope.Own(image.Colourspace(Enums.Interpretation.Srgb)).Cast(Enums.BandFormat.Uchar));

    private static Thumb Upright(Image image, int orientation)
    {
        using var tagged = image.Mutate(tags => tags.Set(GValue.GIntType, "orientation", orientation));
        using var upright = tagged.Autorot();
        return new(upright.WriteToMemory<byte>(), upright.Width, upright.Height, upright.Bands);
    }
}

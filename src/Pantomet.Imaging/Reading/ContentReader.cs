using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Pixels;
using Pantomet.Imaging.Objects;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Reading;

/// <summary>Looks at a picture's content: what kind of picture it is and what its subject may be.</summary>
internal static class ContentReader
{
    // What a file is looked at by, at least, on its longer side: finer detail than that is in few files of a page.
    private const int LookedAt = 400;

    /// <summary>The most pixels that are held while a file is looked at: 24 million.</summary>
    private const double MostHeld = 24e6;

    /// <summary>
    /// Decodes a whole file once, smaller where the type allows it: to learn whether all of it is there, and to look at the content on the
    /// way.
    /// </summary>
    /// <exception cref="VipsException">Data is missing or damaged.</exception>
    public static PictureFacts Read(string path, PictureFacts facts)
    {
        var step = 1;
        while (step < 8 && facts.Size.LongSide / (step * 2) >= LookedAt)
        {
            step *= 2;
        }

        var load = facts.Format == PictureFormat.Jpeg ? step : 1;
        using var opened = PictureReader.Open(path, facts.Format, load, Enums.Access.Sequential);
        // A picture too large to be held is averaged on the way; its means tell as much.
        var block = (int)Math.Ceiling(Math.Sqrt((double)opened.Width * opened.Height / MostHeld));
        using var scope = new Scope();
        using var held = (block > 1 ? scope.Own(opened.Shrink(block, block, ceil: true)) : opened).CopyMemory();
        // The content is looked at on an eighth of a JPEG, which a picture of a few pixels has not.
        var rest = facts.Format == PictureFormat.Jpeg && facts.Size.ShortSide >= 64 ? 8 / load : 1;
        using var small = rest > 1 ? scope.Own(held.Shrink(rest, rest, ceil: true)).CopyMemory() : held.Copy();
        return Look(small, facts, facts.Orientation) with { LightLoss = LossOf(held, step / (load * block)) };
    }

    private static double LossOf(Image held, int step)
    {
        using var scope = new Scope();
        var seen = Shown(step > 1 ? scope.Own(held.Shrink(step, step, ceil: true)) : held, scope);
        using var pixels = new HeldPixels(seen);
        return Light.LossOf(pixels.Rows);
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
            SubjectSought = suggestion is { Confidence: >= Suggester.Clean } || facts.Size.ShortSide < SubjectDetector.LeastSide,
        };
    }

    /// <summary>What kind of picture some pixels are.</summary>
    public static PictureKind KindOf(Image pixels)
    {
        using var scope = new Scope();
        var step = Math.Max(1, (int)Math.Round(Math.Max(pixels.Width, pixels.Height) / (double)Thumb.LongSide));
        using var picked = Shown(scope.Own(pixels.Subsample(Math.Min(step, pixels.Width), Math.Min(step, pixels.Height))), scope)
            .CopyMemory();
        return PictureKinds.Of(picked.WriteToMemory<byte>(), picked.Bands);
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

using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;

namespace Pantomet.Imaging.Reading;

/// <summary>Looks at a picture's content: what kind of picture it is and what its subject may be.</summary>
internal static class ContentReader
{
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
        return Look(opened, facts, facts.Orientation);
    }

    /// <summary>The facts with what the content says added.</summary>
    /// <param name="pixels">The whole picture at any scale; it is read once from top to bottom.</param>
    /// <param name="facts">The facts from the header.</param>
    /// <param name="orientation">The orientation tag that is still to be applied.</param>
    public static PictureFacts Look(Image pixels, PictureFacts facts, int orientation)
    {
        using var scope = new Scope();
        var image = scope.Own(pixels.Colourspace(Enums.Interpretation.Srgb));
        image = scope.Own(image.Cast(Enums.BandFormat.Uchar));
        var step = Math.Max(1, (int)Math.Round(Math.Max(image.Width, image.Height) / (double)Thumb.LongSide));
        var (columns, rows) = ((image.Width + step - 1) / step, (image.Height + step - 1) / step);
        var padded = scope.Own(image.Embed(0, 0, columns * step, rows * step, extend: Enums.Extend.Copy));
        // Side by side, so that both are drawn from one pass over the rows: single pixels as they are, and means of blocks.
        var picked = scope.Own(padded.Subsample(step, step));
        var mixed = scope.Own(padded.Shrink(step, step));
        using var both = scope.Own(picked.Bandjoin(scope.Own(mixed.Cast(Enums.BandFormat.Uchar)))).CopyMemory();
        return facts with
        {
            Kind = PictureKinds.Of(Picked(both, image.Bands), image.Bands),
            Suggestion = Suggester.Suggest(Upright(both, image.Bands, orientation)),
        };
    }

    private static byte[] Picked(Image both, int bands)
    {
        using var part = both.ExtractBand(0, n: bands);
        return part.WriteToMemory<byte>();
    }

    private static Thumb Upright(Image both, int bands, int orientation)
    {
        using var part = both.ExtractBand(bands, n: bands);
        using var tagged = part.Mutate(image => image.Set(GValue.GIntType, "orientation", orientation));
        using var upright = tagged.Autorot();
        return new(upright.WriteToMemory<byte>(), upright.Width, upright.Height, bands);
    }
}

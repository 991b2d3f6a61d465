using NetVips;
using Pantomet.Core.Likeness;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Making;

/// <summary>Decodes encoded files and compares them with the pixels they were made from, some rows at a time.</summary>
internal sealed class LikenessGauge(Image reference)
{
    // Rows that are compared at a time: neither picture is held as a whole for it.
    private const int Strip = 4 * LikenessMeter.Tile;

    /// <summary>What shows through is compared on a middle grey, on which light and dark drawings are both seen.</summary>
    private static readonly double[] Background = [128];

    /// <summary>The likeness of a file to the reference.</summary>
    public Likeness Measure(byte[] file) => Compared(file).Together();

    /// <summary>What each tile of a file lacks, row by row.</summary>
    public double[] Losses(byte[] file) => Compared(file).Each();

    /// <summary>The likeness of a file that somebody else made to pixels without loss; null where their sizes differ.</summary>
    /// <param name="path">The file.</param>
    /// <param name="reference">The pixels.</param>
    public static Likeness? Compare(string path, string reference)
    {
        using var scope = new Scope();
        // Read as bytes: the library remembers what a path held.
        var pixels = scope.Own(Image.NewFromBuffer(File.ReadAllBytes(reference)));
        var file = scope.Own(scope.Own(Image.NewFromBuffer(File.ReadAllBytes(path))).Autorot());
        return file.Width == pixels.Width && file.Height == pixels.Height ? Compared(pixels, file).Together() : null;
    }

    /// <summary>What each tile of one image lacks that another of its size has.</summary>
    internal static TileLosses Compared(Image reference, Image file)
    {
        using var scope = new Scope();
        var (before, after) = (Shown(reference, scope), Shown(file, scope));
        var bands = Math.Max(before.Bands, after.Bands);
        (before, after) = (Filled(before, bands, scope), Filled(after, bands, scope));
        var losses = new TileLosses(new(before.Width, before.Height), bands);
        for (var top = 0; top < before.Height; top += Strip)
        {
            using var one = Rows(before, top);
            using var other = Rows(after, top);
            losses.Add(one.GetSpan(), other.GetSpan());
        }

        return losses;
    }

    private TileLosses Compared(byte[] file)
    {
        using var decoded = Image.NewFromBuffer(file, access: Enums.Access.Sequential);
        return Compared(reference, decoded);
    }

    private static HeldPixels Rows(Image image, int top)
    {
        using var part = image.Crop(0, top, image.Width, Math.Min(Strip, image.Height - top));
        return new(part);
    }

    // As a browser would show its stored values: opaque, in 8 bits, grey or red, green and blue.
    private static Image Shown(Image image, Scope scope)
    {
        var plain = image.Interpretation == Enums.Interpretation.Cmyk ? scope.Own(image.Colourspace(Enums.Interpretation.Srgb)) : image;
        if (plain.HasAlpha())
        {
            plain = scope.Own(plain.Flatten(background: Background));
        }

        if (plain.Format != Enums.BandFormat.Uchar)
        {
            plain = scope.Own(plain.Cast(Enums.BandFormat.Uchar));
        }

        return plain.Bands is 1 or 3 ? plain : scope.Own(plain.ExtractBand(0, n: plain.Bands == 2 ? 1 : 3));
    }

    // One is grey and the other is not: the grey one has its value in each channel.
    private static Image Filled(Image image, int bands, Scope scope) =>
        image.Bands == bands ? image : scope.Own(image.Bandjoin([.. Enumerable.Repeat(image, bands - 1)]));
}

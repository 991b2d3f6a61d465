using NetVips;
using Pantomet.Core.Likeness;

namespace Pantomet.Imaging.Making;

/// <summary>Decodes encoded files and compares them with the pixels they were made from.</summary>
internal sealed class LikenessGauge(Image reference)
{
    /// <summary>What shows through is compared on a middle grey, on which light and dark drawings are both seen.</summary>
    private static readonly double[] Background = [128];

    private readonly Lazy<ColourPlanes> _reference = new(() => Planes(reference));

    /// <summary>The likeness of a file to the reference.</summary>
    public Likeness Measure(byte[] file) => Compared(file, LikenessMeter.Measure);

    /// <summary>What each tile of a file lacks, row by row.</summary>
    public double[] Losses(byte[] file) => Compared(file, LikenessMeter.Losses);

    private T Compared<T>(byte[] file, Func<ColourPlanes, ColourPlanes, T> compare)
    {
        using var decoded = Image.NewFromBuffer(file, access: Enums.Access.Sequential);
        var planes = Planes(decoded);
        var found = compare(_reference.Value, planes);
        planes.Return();
        return found;
    }

    /// <summary>The likeness of a file that somebody else made to pixels without loss; null where their sizes differ.</summary>
    /// <param name="path">The file.</param>
    /// <param name="reference">The pixels.</param>
    public static Likeness? Compare(string path, string reference)
    {
        using var scope = new Scope();
        // Read as bytes: the library remembers what a path held.
        var pixels = scope.Own(Image.NewFromBuffer(File.ReadAllBytes(reference)));
        var file = scope.Own(scope.Own(Image.NewFromBuffer(File.ReadAllBytes(path))).Autorot());
        if (file.Width != pixels.Width || file.Height != pixels.Height)
        {
            return null;
        }

        var shown = file.Interpretation == Enums.Interpretation.Cmyk ? scope.Own(file.Colourspace(Enums.Interpretation.Srgb)) : file;
        return LikenessMeter.Measure(Planes(pixels), Planes(shown));
    }

    /// <summary>The planes of an image as a browser would show its stored values.</summary>
    internal static ColourPlanes Planes(Image image)
    {
        using var scope = new Scope();
        var plain = image;
        if (plain.HasAlpha())
        {
            plain = scope.Own(plain.Flatten(background: Background));
        }

        if (plain.Format != Enums.BandFormat.Uchar)
        {
            plain = scope.Own(plain.Cast(Enums.BandFormat.Uchar));
        }

        if (plain.Bands == 2 || plain.Bands > 3)
        {
            plain = scope.Own(plain.ExtractBand(0, n: plain.Bands == 2 ? 1 : 3));
        }

        return ColourPlanes.Of(plain.WriteToMemory<byte>(), plain.Width, plain.Height, plain.Bands);
    }
}

using NetVips;
using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;
using Pantomet.Imaging.Reading;

namespace Pantomet.Imaging.Dressing;

/// <summary>Lays a mark over pixels.</summary>
internal static class MarkDrawer
{
    // Black and white stand out alike from this luminance: (1.05 / (L + 0.05) = (L + 0.05) / 0.05).
    private const double Middle = 0.179;

    /// <summary>Lays it; what is told of the dress says where.</summary>
    /// <param name="sheet">The pixels.</param>
    /// <param name="mark">The rule, with files by the names of their content.</param>
    /// <param name="kept">What must stay whole.</param>
    /// <param name="before">What became of the dress so far.</param>
    public static Dressed Lay(Sheet sheet, MakersMark mark, IReadOnlyList<KeptBox> kept, Dressed before)
    {
        if (mark.Fault is { } fault)
        {
            return before with { MarkFault = fault };
        }

        if (SideFiles.Find(mark.File) is not { } dark || (mark.OnDark is { } light && SideFiles.Find(light) is null))
        {
            return before with { MarkFault = OverlayTexts.TheFileOfTheLogoNo };
        }

        List<Crop> taken = [.. kept.Select(one => one.Box), .. before.TitleBox is { } words ? [words] : Array.Empty<Crop>()];
        using var watch = DrawingTime.Watch(dark.EndsWith(".svg", StringComparison.OrdinalIgnoreCase) ? PictureFormat.Svg : null);
        var path = dark;
        var place = MarkPlace.Of(mark, SizeOf(path), sheet.Size, taken);
        if (mark.OnDark is { } onDark && sheet.MeanLuminance(place.Box) < Middle)
        {
            path = SideFiles.Find(onDark)!;
            place = MarkPlace.Of(mark, SizeOf(path), sheet.Size, taken);
        }

        using var scope = new Scope();
        sheet.Lay(Drawn(path, place.Box.Size, scope), place.Box, mark.Opacity);
        var covers = kept.Where(one => !one.Suggested).Select(one => place.ShareOf(one.Box)).DefaultIfEmpty().Max();
        return before with { MarkBox = place.Box, MarkAt = place.At, MarkCovers = covers > 0 ? covers : null };
    }

    private static PixelSize SizeOf(string path)
    {
        using var image = Image.NewFromFile(path, access: Enums.Access.Sequential);
        return new(image.Width, image.Height);
    }

    // Straight red, green, blue and coverage.
    private static byte[] Drawn(string path, PixelSize size, Scope scope)
    {
        var image = scope.Own(Image.Thumbnail(path, size.Width, height: size.Height, size: Enums.Size.Force, outputProfile: "srgb"));
        if (image.Interpretation != Enums.Interpretation.Srgb || image.Bands < 3)
        {
            image = scope.Own(image.Colourspace(Enums.Interpretation.Srgb));
        }

        if (!image.HasAlpha())
        {
            image = scope.Own(image.Bandjoin(255));
        }

        return scope.Own(image.Cast(Enums.BandFormat.Uchar)).WriteToMemory<byte>();
    }
}

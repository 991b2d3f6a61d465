using NetVips;
using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;

namespace Pantomet.Imaging.Rendering;

/// <summary>Turns a plan into pixels: cropped, reduced, sharpened, on its margins.</summary>
public static class VariantRenderer
{
    // The middle's weight against 1 for each neighbour: 32 restores what a Lanczos reduction softens, 18 is visibly crisp (chosen by eye).
    private const int MildWeight = 32;
    private const int FirmWeight = 18;

    /// <summary>Renders.</summary>
    /// <param name="master">The picture, decoded for this plan among others.</param>
    /// <param name="plan">What to make.</param>
    /// <param name="background">The slot's background; null keeps transparency in margins, white where there is none.</param>
    /// <param name="sharpen">Sharpening, where the picture is reduced.</param>
    /// <exception cref="VipsException">The pixels cannot be drawn.</exception>
    public static RenderedPixels Render(PictureMaster master, VariantPlan plan, Background? background, Sharpening sharpen)
    {
        ArgumentNullException.ThrowIfNull(master);
        ArgumentNullException.ThrowIfNull(plan);
        using var scope = new Scope();
        var image = Reduced(master, plan, sharpen, scope);
        IReadOnlyList<ExtendedSide> extended = [];
        if (plan.Place is { } place)
        {
            (image, extended) = Extended(image, place, plan.Size, scope);
        }
        else if (plan.HasMargins)
        {
            image = OnMat(image, plan, background, scope);
        }

        return new(WithoutIdleAlpha(image.CopyMemory()), extended: extended);
    }

    private static Image Reduced(PictureMaster master, VariantPlan plan, Sharpening sharpen, Scope scope)
    {
        var (content, alpha) = (plan.Content, master.HasAlpha);
        var (rows, frame) = master.Cut(plan);
        var values = Reduction.Reduce(rows, frame, content.Width, content.Height, alpha, ImagingEngine.Threads, master.InLight);
        // Whether pixels were merged is told by the plan: the copy at hand may have been reduced before.
        if (sharpen != Sharpening.Off && plan.Content.Width < plan.Crop.Width * 0.9)
        {
            var weight = sharpen == Sharpening.Mild ? MildWeight : FirmWeight;
            // The alpha channel keeps its own edges.
            values = Crispness.Sharpen(values, content.Width, content.Height, rows.Bands, alpha ? 1 : 0, weight);
        }

        return WithValues(master.Fields, values, content, scope);
    }

    // Profile, tags and the meaning of the channels ride on the image the values came from.
    private static Image WithValues(Image from, byte[] values, PixelSize size, Scope scope)
    {
        using var bare = Image.NewFromMemoryCopy(values, size.Width, size.Height, from.Bands, Enums.BandFormat.Uchar);
        return scope.Own(WithFieldsOf(from, bare));
    }

    internal static Image WithFieldsOf(Image from, Image values) =>
        values
            .Copy(interpretation: from.Interpretation, xres: from.Xres, yres: from.Yres)
            .Mutate(fields =>
            {
                foreach (
                    var field in from.GetFields()
                        .Where(field => from.GetTypeOf(field) == GValue.BlobType || field.StartsWith("exif-", StringComparison.Ordinal))
                )
                {
                    fields.Set(from.GetTypeOf(field), field, from.Get(field));
                }
            });

    private static (Image Image, IReadOnlyList<ExtendedSide> Sides) Extended(Image image, Crop place, PixelSize size, Scope scope)
    {
        var rows = new PixelRows(image.WriteToMemory<byte>(), image.Width, image.Height, image.Bands);
        var (values, sides) = CanvasExtension.Extend(rows, place, size);
        return (WithValues(image, values, size, scope), sides);
    }

    private static Image OnMat(Image image, VariantPlan plan, Background? background, Scope scope)
    {
        var alpha = image.HasAlpha();
        if (image.Bands < 3)
        {
            // Coloured ground needs coloured pixels.
            image = scope.Own(image.Colourspace(Enums.Interpretation.Srgb));
        }

        var keepsAlpha = alpha && background is null;
        double[] fill;
        if (keepsAlpha)
        {
            fill = [255, 255, 255, 0];
        }
        else
        {
            var colour = background is null ? Rgb.White : background.Colour ?? EdgeColour(image, scope);
            fill = [colour.Red, colour.Green, colour.Blue];
            image = alpha ? scope.Own(image.Flatten(background: fill)) : image;
        }

        var (left, top) = ((plan.Size.Width - image.Width) / 2, (plan.Size.Height - image.Height) / 2);
        return scope.Own(image.Embed(left, top, plan.Size.Width, plan.Size.Height, extend: Enums.Extend.Background, background: fill));
    }

    // An alpha channel that hides nothing would only weigh, and keep a JPEG from being chosen.
    private static Image WithoutIdleAlpha(Image image)
    {
        if (!image.HasAlpha())
        {
            return image;
        }

        using var alpha = image.ExtractBand(image.Bands - 1);
        if (alpha.Min() < 255)
        {
            return image;
        }

        using (image)
        {
            using var opaque = image.ExtractBand(0, n: image.Bands - 1);
            return opaque.CopyMemory();
        }
    }

    /// <summary>The mean colour of a picture's outermost pixels, as laid on white where they are transparent.</summary>
    internal static Rgb EdgeColour(RenderedPixels pixels)
    {
        using var scope = new Scope();
        return EdgeColour(pixels.Image, scope);
    }

    private static Rgb EdgeColour(Image image, Scope scope)
    {
        if (image.HasAlpha())
        {
            image = scope.Own(image.Flatten(background: [255, 255, 255]));
        }

        var (width, height) = (image.Width, image.Height);
        Image[] strips =
        [
            scope.Own(image.Crop(0, 0, width, 1)),
            scope.Own(image.Crop(0, height - 1, width, 1)),
            scope.Own(image.Crop(0, 0, 1, height)),
            scope.Own(image.Crop(width - 1, 0, 1, height)),
        ];
        byte Mean(int band)
        {
            var sum = strips.Sum(strip => scope.Own(strip.ExtractBand(Math.Min(band, strip.Bands - 1))).Avg() * strip.Width * strip.Height);
            return (byte)Math.Clamp(Math.Round(sum / strips.Sum(strip => (double)strip.Width * strip.Height)), 0, 255);
        }

        return new(Mean(0), Mean(1), Mean(2));
    }
}

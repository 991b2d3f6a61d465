using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Reading;

namespace Pantomet.Imaging.Rendering;

/// <summary>Turns a plan into pixels: upright, in sRGB, cropped, reduced, sharpened, on its margins.</summary>
public static class VariantRenderer
{
    // A pixel's neighbours pull this much against it: 1/24 in all restores what a Lanczos reduction softens (chosen by eye).
    private static readonly Image MildKernel = Kernel(-1, 32);
    private static readonly Image FirmKernel = Kernel(-1, 18);

    /// <summary>Renders.</summary>
    /// <param name="path">The original.</param>
    /// <param name="facts">Its facts.</param>
    /// <param name="plan">What to make.</param>
    /// <param name="background">The slot's background; null keeps transparency in margins, white where there is none.</param>
    /// <param name="sharpen">Sharpening, where the picture is reduced.</param>
    /// <exception cref="VipsException">The file cannot be decoded.</exception>
    public static RenderedPixels Render(string path, PictureFacts facts, VariantPlan plan, Background? background, Sharpening sharpen)
    {
        using var scope = new Scope();
        var image = scope.Own(Cut(path, facts, plan, scope));
        image = scope.Own(ToSrgb(image, facts, mayStayGrey: !plan.HasMargins && !image.HasAlpha()));
        image = Reduce(image, plan.Content, sharpen, scope);
        if (plan.HasMargins)
        {
            image = OnMat(image, plan, background, scope);
        }

        return new(image.CopyMemory());
    }

    /// <summary>
    /// Opens at the coarsest scale that still leaves the reduction a factor of two to work with, turns it upright and crops.
    /// </summary>
    private static Image Cut(string path, PictureFacts facts, VariantPlan plan, Scope scope)
    {
        var scale = Math.Min((double)plan.Crop.Width / plan.Content.Width, (double)plan.Crop.Height / plan.Content.Height);
        var shrink = facts.Format != PictureFormat.Jpeg ? 1 : scale >= 16 ? 8 : scale >= 8 ? 4 : scale >= 4 ? 2 : 1;
        var opened = scope.Own(PictureReader.Open(path, facts.Format, shrink, Enums.Access.Random));
        var upright = scope.Own(opened.Autorot());
        var (fx, fy) = ((double)upright.Width / facts.Size.Width, (double)upright.Height / facts.Size.Height);
        var left = Math.Clamp((int)Math.Round(plan.Crop.Left * fx), 0, upright.Width - 1);
        var top = Math.Clamp((int)Math.Round(plan.Crop.Top * fy), 0, upright.Height - 1);
        var width = Math.Clamp((int)Math.Round(plan.Crop.Width * fx), 1, upright.Width - left);
        var height = Math.Clamp((int)Math.Round(plan.Crop.Height * fy), 1, upright.Height - top);
        return upright.Crop(left, top, width, height);
    }

    private static Image ToSrgb(Image image, PictureFacts facts, bool mayStayGrey)
    {
        var alreadySrgb = facts.Profile is null || facts.Profile.StartsWith("sRGB", StringComparison.OrdinalIgnoreCase);
        if (image.Interpretation == Enums.Interpretation.Cmyk || !alreadySrgb)
        {
            // The profile is applied before it is dropped; CMYK without one is read as common coated paper.
            return image.IccTransform(
                "srgb", embedded: true, inputProfile: image.Interpretation == Enums.Interpretation.Cmyk ? "cmyk" : "srgb",
                intent: Enums.Intent.Relative, blackPointCompensation: true, depth: 8);
        }

        // A grey picture stays one channel where nothing coloured is laid under or around it: three would only weigh more.
        var grey = mayStayGrey && image.Interpretation is (Enums.Interpretation.Bw or Enums.Interpretation.Grey16);
        return image.Colourspace(grey ? Enums.Interpretation.Bw : Enums.Interpretation.Srgb);
    }

    private static Image Reduce(Image image, PixelSize content, Sharpening sharpen, Scope scope)
    {
        var (across, down) = ((double)content.Width / image.Width, (double)content.Height / image.Height);
        if (image.Width == content.Width && image.Height == content.Height)
        {
            return image;
        }

        var alpha = image.HasAlpha();
        var flat = alpha ? scope.Own(image.Premultiply()) : image;
        var reduced = scope.Own(flat.Resize(across, kernel: Enums.Kernel.Lanczos3, vscale: down));
        if (sharpen != Sharpening.Off && across < 0.9)
        {
            // Sharpening moves edges against their neighbours; the alpha channel keeps its own.
            var kernel = sharpen == Sharpening.Mild ? MildKernel : FirmKernel;
            var colour = alpha ? scope.Own(reduced.ExtractBand(0, n: reduced.Bands - 1)) : reduced;
            var crisp = scope.Own(colour.Conv(kernel, precision: Enums.Precision.Integer));
            reduced = alpha ? scope.Own(crisp.Bandjoin(scope.Own(reduced.ExtractBand(reduced.Bands - 1)))) : crisp;
        }

        var straight = alpha ? scope.Own(reduced.Unpremultiply()) : reduced;
        return scope.Own(straight.Cast(Enums.BandFormat.Uchar));
    }

    private static Image OnMat(Image image, VariantPlan plan, Background? background, Scope scope)
    {
        var alpha = image.HasAlpha();
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
            scope.Own(image.Crop(0, 0, width, 1)), scope.Own(image.Crop(0, height - 1, width, 1)),
            scope.Own(image.Crop(0, 0, 1, height)), scope.Own(image.Crop(width - 1, 0, 1, height)),
        ];
        byte Mean(int band)
        {
            var sum = strips.Sum(strip => scope.Own(strip.ExtractBand(Math.Min(band, strip.Bands - 1))).Avg() * strip.Width * strip.Height);
            return (byte)Math.Clamp(Math.Round(sum / strips.Sum(strip => (double)strip.Width * strip.Height)), 0, 255);
        }

        return new(Mean(0), Mean(1), Mean(2));
    }

    private static Image Kernel(int around, int middle)
    {
        ImagingEngine.Start();
        return Image.NewFromArray(
            new[,] { { around, around, around }, { around, middle, around }, { around, around, around } }, scale: middle + (8 * around));
    }

    // Every step of a pipeline holds native memory; this frees the steps when the pixels are out.
    private sealed class Scope : IDisposable
    {
        private readonly List<Image> _owned = [];

        public Image Own(Image image)
        {
            _owned.Add(image);
            return image;
        }

        public void Dispose()
        {
            foreach (var image in _owned)
            {
                image.Dispose();
            }
        }
    }
}

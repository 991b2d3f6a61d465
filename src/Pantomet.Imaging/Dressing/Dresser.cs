using NetVips;
using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Hosting;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Dressing;

/// <summary>Puts a slot's dress over pixels that are cut, reduced and sharpened: what comes of it is what is weighed and compared.</summary>
public static class Dresser
{
    private static readonly Rgb Black = new(0, 0, 0);

    /// <summary>The same pixels, dressed; those that were given are freed then.</summary>
    /// <param name="pixels">The pixels.</param>
    /// <param name="slot">The slot, with the words of the picture (<see cref="Slot.For"/>).</param>
    /// <param name="kept">What a mark is to leave free.</param>
    /// <exception cref="VipsException">The title cannot be drawn.</exception>
    public static RenderedPixels Apply(RenderedPixels pixels, Slot slot, IReadOnlyList<KeptBox> kept)
    {
        ArgumentNullException.ThrowIfNull(pixels);
        ArgumentNullException.ThrowIfNull(slot);
        if (slot.Dress == Dress.None)
        {
            return pixels;
        }

        using (pixels)
        {
            using var scope = new Scope();
            // Coloured veils and inks need coloured pixels.
            var image = pixels.Image.Bands < 3 ? scope.Own(pixels.Image.Colourspace(Enums.Interpretation.Srgb)) : pixels.Image;
            var sheet = new Sheet(image.WriteToMemory<byte>(), pixels.Size, image.Bands, pixels.Frames);
            var dressed = new Dressed();
            if (slot.Dress.Fade is { } fade)
            {
                dressed = Faded(sheet, fade);
            }

            if (slot.Dress.Title is { } title && slot.SetWidth is { } width)
            {
                dressed = Titled(sheet, title, slot.Dress.Fade, (double)pixels.Size.Width / width, dressed);
            }

            if (slot.Dress.Mark is { } mark)
            {
                dressed = MarkDrawer.Lay(sheet, mark, kept, dressed);
            }

            using var bare = Image.NewFromMemoryCopy(sheet.Values, image.Width, image.Height, image.Bands, Enums.BandFormat.Uchar);
            return new(VariantRenderer.WithFieldsOf(image, bare), pixels.Frames, dressed, pixels.Extended);
        }
    }

    /// <summary>The colours of pixels, and inks for what a dress writes over them: where its title stands, else where its fade must serve.</summary>
    /// <param name="plain">The pixels before anything was drawn over.</param>
    /// <param name="dress">The dress.</param>
    /// <param name="dressed">What became of it.</param>
    /// <param name="clear">What is not covered in the slot.</param>
    /// <param name="keep">What must be seen, as fractions of the file.</param>
    public static DressColours Colours(RenderedPixels plain, Dress dress, Dressed? dressed, Frame clear, IReadOnlyList<Frame> keep)
    {
        ArgumentNullException.ThrowIfNull(plain);
        ArgumentNullException.ThrowIfNull(dress);
        using var scope = new Scope();
        var image = plain.Image.Bands < 3 ? scope.Own(plain.Image.Colourspace(Enums.Interpretation.Srgb)) : plain.Image;
        var rows = new Sheet(image.WriteToMemory<byte>(), plain.Size, image.Bands, plain.Frames).Rows(0);
        var area = dressed?.TitleBox ?? AreaIn(dress.Title?.Area ?? dress.Fade?.Area ?? Frame.Whole, plain.Size);
        var inside = new Crop(
            Math.Clamp(area.Left, 0, plain.Size.Width - 1),
            Math.Clamp(area.Top, 0, plain.Size.Height - 1),
            Math.Clamp(area.Right, 1, plain.Size.Width),
            Math.Clamp(area.Bottom, 1, plain.Size.Height)
        );
        var wanted = dress.Title?.Wanted ?? dress.Fade?.Contrast ?? Contrast.OfText;
        return new(
            LeadingColours.InPicture(rows),
            EdgeColours.Of(rows),
            Inks.Offered(rows, inside, wanted, dress.Fade?.To),
            CalmArea.Find(rows, clear, keep)
        );
    }

    // An area of a slot in pixels of its file.
    private static Crop AreaIn(Frame area, PixelSize size)
    {
        var (left, top) = ((int)Math.Floor(area.Left * size.Width), (int)Math.Floor(area.Top * size.Height));
        return new(
            Math.Min(left, size.Width - 1),
            Math.Min(top, size.Height - 1),
            Math.Clamp((int)Math.Ceiling(area.Right * size.Width), left + 1, size.Width),
            Math.Clamp((int)Math.Ceiling(area.Bottom * size.Height), top + 1, size.Height)
        );
    }

    private static Dressed Faded(Sheet sheet, Fade fade)
    {
        var area = AreaIn(fade.Area, sheet.Size);
        if (fade.Goal is not { } goal)
        {
            var set = (int)Math.Round(fade.Amount!.Value * FadeSolver.Whole);
            sheet.Veil(fade.To, set, fade.Reach, area);
            return new() { Fade = set / (double)FadeSolver.Whole };
        }

        var (level, last) = sheet.Needed(area, goal);
        sheet.Veil(fade.To, level, fade.Reach, area);
        return new()
        {
            Fade = level / (double)FadeSolver.Whole,
            Ink = goal.Ink,
            Contrast = sheet.Ratio(area, goal),
            Wanted = goal.Ratio,
            Last = last,
        };
    }

    // What the fade of the slot left is the ground; where the title may, it is faded further for the title alone.
    private static Dressed Titled(Sheet sheet, Title title, Fade? fade, double scale, Dressed before)
    {
        var set = TitleSetter.Set(title, sheet.Size, scale);
        var told = before with
        {
            Lacking = set.Lacking,
            MissingFont = set.MissingFont,
            Fits = set.Size < title.Size ? set.Size : null,
            AskedSize = set.Size < title.Size ? title.Size : null,
        };
        if (set.Text is not { } text)
        {
            return told;
        }

        var ground = set.GroundIn(scale, sheet.Size);
        var ink = title.Ink ?? Chosen(sheet, ground, title, fade);
        var to = fade?.To ?? (Contrast.LuminanceOf(ink) > 0.18 ? Black : Rgb.White);
        var goal = new FadeGoal(to, ink, title.Wanted);
        var (level, last) = title.Fade ? sheet.Needed(ground, goal) : (0, null);
        sheet.Veil(to, level, fade?.Reach ?? FadeReach.All, ground);
        var contrast = sheet.Ratio(ground, goal);
        sheet.Write(text, set.Left, set.Top, ink);
        var (first, second) = (before.Fade ?? 0, level / (double)FadeSolver.Whole);
        return told with
        {
            Fade = before.Fade is null && !title.Fade ? null : 1 - ((1 - first) * (1 - second)),
            Ink = ink,
            Contrast = contrast,
            Wanted = title.Wanted,
            TitleBox = set.Box,
            Last = last ?? before.Last,
        };
    }

    private static Rgb Chosen(Sheet sheet, Crop ground, Title title, Fade? fade)
    {
        var offers = Inks.Offered(sheet.Rows(0), ground, title.Wanted, fade?.To);
        return (title.Fade || offers[0].Fade.Level == 0 ? offers[0] : offers.MaxBy(offer => offer.Ratio)!).Ink;
    }
}

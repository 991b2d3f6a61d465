using System.Globalization;
using System.Text;
using NetVips;
using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Texts;

namespace Pantomet.Imaging.Dressing;

/// <summary>A title as it stands in a file.</summary>
/// <param name="Text">The drawn words; null where there is nothing to see.</param>
/// <param name="Left">Where its first column lies in the file.</param>
/// <param name="Top">Where its first row lies in the file.</param>
/// <param name="Size">The size of its letters in CSS px: as asked, or the largest that fits.</param>
/// <param name="Lacking">Characters that the font does not have.</param>
/// <param name="MissingFont">Why the font that was asked for is not taken, as a sentence.</param>
internal sealed record SetTitle(DrawnText? Text, int Left, int Top, double Size, string? Lacking, string? MissingFont)
{
    /// <summary>Where it stands, in pixels of the file.</summary>
    public Crop? Box => Text is null ? null : new(Left, Top, Left + Text.Size.Width, Top + Text.Size.Height);

    /// <summary>What lies under it and a stroke's width beside it.</summary>
    /// <param name="scale">Pixels of the file for one CSS px.</param>
    /// <param name="file">The file's size.</param>
    public Crop GroundIn(double scale, PixelSize file)
    {
        var box = Box!.Value;
        var stroke = (int)Math.Ceiling(Size * scale / 10);
        return new(
            Math.Clamp(box.Left - stroke, 0, file.Width - 1),
            Math.Clamp(box.Top - stroke, 0, file.Height - 1),
            Math.Clamp(box.Right + stroke, 1, file.Width),
            Math.Clamp(box.Bottom + stroke, 1, file.Height)
        );
    }
}

/// <summary>Sets a title into its area: across as it is aligned, down in the middle; smaller where it does not fit.</summary>
internal static class TitleSetter
{
    private const double Smallest = 4;

    private const double Step = 0.5;

    public static SetTitle Set(Title title, PixelSize file, double scale)
    {
        var font = FontStore.Find(title.Font, title.Weight);
        var taken = font ?? FontStore.Find(FontStore.Usual, title.Weight)!;
        var area = new PixelBox(
            title.Area.Left * file.Width,
            title.Area.Top * file.Height,
            title.Area.Right * file.Width,
            title.Area.Bottom * file.Height
        );
        var lacking = title.Text.EnumerateRunes().Where(character => IsSeen(character) && !taken.Has(character)).Distinct().ToList();
        var others = lacking
            .Select(character => (Character: character, Font: FontStore.With(character, title.Weight)))
            .Where(one => one.Font is not null)
            .ToDictionary(one => one.Character, one => one.Font!);

        // What is too wide to be drawn at all does not fit either.
        (DrawnText? Text, bool Fits) At(double size)
        {
            try
            {
                var text = TextDrawer.Draw(taken, title.Text, size * scale, area.Width, title.Align, others);
                return (text, text is null || (text.Size.Width <= area.Width + 1 && text.Height <= area.Height + 1));
            }
            catch (VipsException fault)
            {
                ImagingFault.Tell(fault);
                return (null, false);
            }
        }

        var (size, (text, fits)) = (title.Size, At(title.Size));
        if (!fits)
        {
            // Half pixels are fine enough to choose by: the largest that fits lies between one that does and one that does not.
            var (low, high) = ((int)(Smallest / Step), (int)Math.Ceiling(title.Size / Step));
            while (high - low > 1)
            {
                var middle = (low + high) / 2;
                (low, high) = At(middle * Step).Fits ? (middle, high) : (low, middle);
            }

            size = low * Step;
            (text, fits) = At(size);
            // Nothing is better than words that run out of the picture.
            (text, size) = fits ? (text, size) : (null, 0);
        }

        return new(
            text,
            (int)Math.Round(area.Left) + (text?.Left ?? 0),
            (int)Math.Round(area.Top + ((area.Height - (text?.Height ?? 0)) / 2)) + (text?.Top ?? 0),
            size,
            lacking.Count > 0 ? string.Concat(lacking) : null,
            font is null ? title.FontFault ?? OverlayTexts.ThereIsNoFont(title.Font) : null
        );
    }

    // What only joins or turns its neighbours needs no character of its own.
    private static bool IsSeen(Rune character) =>
        !Rune.IsWhiteSpace(character) && !Rune.IsControl(character) && Rune.GetUnicodeCategory(character) is not UnicodeCategory.Format;
}

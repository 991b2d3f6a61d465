using System.Collections.Concurrent;
using System.Text;
using NetVips;
using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;

namespace Pantomet.Imaging.Dressing;

/// <summary>Drawn words: how much of each pixel they cover.</summary>
/// <param name="Cover">0 to 255 for each pixel, row by row.</param>
/// <param name="Size">The size in pixels.</param>
/// <param name="Left">Where its first column lies from the left of the block.</param>
/// <param name="Top">Where its first row lies from the top of the block.</param>
/// <param name="Height">How high the block is: all its lines, in pixels.</param>
public sealed record DrawnText(byte[] Cover, PixelSize Size, int Left, int Top, double Height);

/// <summary>
/// Draws words: shaped, put in order from both directions and broken into lines by the imaging library (Pango, HarfBuzz, FriBidi), several times
/// larger than they are wanted and averaged, so that letters stand where they belong to a fraction of a pixel.
/// </summary>
public static class TextDrawer
{
    private const int Finest = 8;

    // Larger than this nothing is drawn before it is averaged.
    private const int LargestDrawn = 1200;

    // Nor wider: the drawing library counts pixels in 16 bits.
    private const int WidestDrawn = 30_000;

    private static readonly string[] Weights =
    [
        "Thin",
        "Ultra-Light",
        "Light",
        "Regular",
        "Medium",
        "Semi-Bold",
        "Bold",
        "Ultra-Bold",
        "Heavy",
    ];

    /// <summary>Draws; null where there is nothing to see.</summary>
    /// <param name="font">The font.</param>
    /// <param name="text">The words; line breaks break.</param>
    /// <param name="size">The height of the letters' square in pixels.</param>
    /// <param name="width">Where lines are broken, in pixels.</param>
    /// <param name="align">Where lines begin or end.</param>
    /// <param name="others">Fonts for characters that the font does not have.</param>
    /// <exception cref="VipsException">The font cannot be drawn with.</exception>
    public static DrawnText? Draw(
        FontFile font,
        string text,
        double size,
        double width,
        TextAlign align,
        IReadOnlyDictionary<Rune, FontFile>? others = null
    )
    {
        ArgumentNullException.ThrowIfNull(font);
        // A word is drawn in one piece: a long one less finely.
        var longest = text.Split(' ', '\n').Max(word => word.Length);
        var finer = Math.Clamp((int)Math.Min(LargestDrawn / size, WidestDrawn / (size * Math.Max(1, longest))), 1, Finest);
        var weight = Weights[Math.Clamp((int)Math.Round(font.Weight / 100.0), 1, 9) - 1];
        using var scope = new Scope();
        Image ink;
        try
        {
            // At 72 to the inch a point is a pixel.
            ink = scope.Own(
                Image.Text(
                    others is { Count: > 0 } ? Mixed(text, others) : System.Security.SecurityElement.Escape(text),
                    font: string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{font.Family} {weight} {size:0.###}"),
                    fontfile: font.Path,
                    width: Math.Max(1, (int)Math.Round(width * finer)),
                    align: align switch
                    {
                        TextAlign.Centre => Enums.Align.Centre,
                        TextAlign.Right => Enums.Align.High,
                        _ => Enums.Align.Low,
                    },
                    wrap: Enums.TextWrap.Word,
                    dpi: 72 * finer
                )
            );
        }
        catch (VipsException fault) when (fault.Message.Contains("no text to render", StringComparison.OrdinalIgnoreCase))
        {
            return null;
        }

        var (left, top) = ((int)ink.Get("xoffset"), (int)ink.Get("yoffset"));
        // Whole pixels of the file begin where the finer ones do.
        var (across, down) = (Below(left, finer), Below(top, finer));
        var (width1, height1) = (
            ((left - (across * finer) + ink.Width - 1) / finer) + 1,
            ((top - (down * finer) + ink.Height - 1) / finer) + 1
        );
        var placed = scope.Own(ink.Embed(left - (across * finer), top - (down * finer), width1 * finer, height1 * finer));
        var cover = finer == 1 ? placed : scope.Own(placed.Shrink(finer, finer));
        var line = font.LineHeight * size;
        var lines = Math.Max(1, Math.Ceiling(((top + ink.Height) / (double)finer / line) - 0.15));
        return new(cover.WriteToMemory<byte>(), new(width1, height1), across, down, lines * line);
    }

    /// <summary>True when the font's own characters, some of all it has, leave anything to see.</summary>
    internal static bool Draws(FontFile font)
    {
        const int tried = 200;
        var own = font.Characters()
            .Where(character => Rune.IsLetterOrDigit(character) || Rune.IsSymbol(character) || Rune.IsPunctuation(character))
            .ToList();
        var step = Math.Max(1, own.Count / tried);
        var text = string.Concat(own.Where((_, i) => i % step == 0).Take(tried));
        try
        {
            return text.Length > 0 && Draw(font, text, 40, 2000, TextAlign.Left)?.Cover.AsSpan().ContainsAnyExcept((byte)0) == true;
        }
        catch (VipsException fault)
        {
            ImagingFault.Tell(fault);
            return false;
        }
    }

    // The words with each character that the font lacks in the font that stands in for it.
    private static string Mixed(string text, IReadOnlyDictionary<Rune, FontFile> others)
    {
        foreach (var font in others.Values.Distinct())
        {
            Known.GetOrAdd(font.Path, Load, font);
        }

        var markup = new StringBuilder();
        FontFile? open = null;
        foreach (var character in text.EnumerateRunes())
        {
            // What is neutral goes on in the font of its neighbours, so that a word stays in one piece.
            var font =
                others.TryGetValue(character, out var other) ? other
                : open is not null && open.Has(character) && !Rune.IsLetterOrDigit(character) ? open
                : null;
            if (font != open)
            {
                markup.Append(open is null ? "" : "</span>").Append(font is null ? "" : $"<span face=\"{font.Family}\">");
                open = font;
            }

            markup.Append(System.Security.SecurityElement.Escape(character.ToString()));
        }

        return markup.Append(open is null ? "" : "</span>").ToString();
    }

    // A font's file is known to the drawing library from the first text on that is drawn with it.
    private static readonly ConcurrentDictionary<string, bool> Known = new();

    private static bool Load(string path, FontFile font)
    {
        using var drawn = Image.Text("x", font: $"{font.Family} 8", fontfile: path);
        return true;
    }

    private static int Below(int value, int step) => (int)Math.Floor(value / (double)step);
}

using Pantomet.Core.Css;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.PageChecks;

/// <summary>How a picture lies in its place on a page.</summary>
/// <param name="Shown">
/// The shown size: the content box of an image, the painted area of a background after <c>background-size</c>; in CSS pixels.
/// </param>
/// <param name="Drawn">How large the whole picture is drawn, what is cut off included; in CSS pixels.</param>
/// <param name="Part">The part of the picture that is seen.</param>
public sealed record Placing(CssSize Shown, CssSize Drawn, Frame Part)
{
    // Layout rounds to 1/64 of a CSS pixel: less than this is no cut.
    private const double Hair = 1.0 / 64;

    /// <summary>What takes no place: loaded, and not shown.</summary>
    public static readonly Placing Nowhere = new(default, default, Frame.Whole);

    /// <summary>The place of an image in its content box (CSS Images Level 3, 5.5: <c>object-fit</c> and <c>object-position</c>).</summary>
    /// <param name="box">The content box.</param>
    /// <param name="natural">The picture's natural size in CSS pixels: its pixels by the density it was chosen for.</param>
    /// <param name="fit">The computed <c>object-fit</c>.</param>
    /// <param name="position">The computed <c>object-position</c>.</param>
    public static Placing OfImage(CssSize box, CssSize natural, string? fit, string? position)
    {
        if (box.IsEmpty || natural.IsEmpty)
        {
            return Nowhere with { Shown = box, Drawn = box };
        }

        var contain = natural.Times(Math.Min(box.Width / natural.Width, box.Height / natural.Height));
        var drawn = fit switch
        {
            "contain" => contain,
            "cover" => natural.Times(Math.Max(box.Width / natural.Width, box.Height / natural.Height)),
            "none" => natural,
            "scale-down" => contain.Width < natural.Width ? contain : natural,
            _ => box,
        };
        return new(box, drawn, Seen(box, drawn, position));
    }

    /// <summary>The place of a background (CSS Backgrounds and Borders Level 3, 3.6 and 3.9: position and size).</summary>
    /// <param name="area">The positioning area.</param>
    /// <param name="natural">The picture's natural size in CSS pixels.</param>
    /// <param name="size">The computed <c>background-size</c> of the layer.</param>
    /// <param name="position">The computed <c>background-position</c> of the layer.</param>
    public static Placing OfBackground(CssSize area, CssSize natural, string? size, string? position)
    {
        if (area.IsEmpty || natural.IsEmpty)
        {
            return Nowhere;
        }

        var drawn = size?.Trim() switch
        {
            "contain" => natural.Times(Math.Min(area.Width / natural.Width, area.Height / natural.Height)),
            "cover" => natural.Times(Math.Max(area.Width / natural.Width, area.Height / natural.Height)),
            _ => Sized(area, natural, size ?? "auto"),
        };
        return drawn.IsEmpty ? Nowhere : new(drawn.Within(area), drawn, Seen(area, drawn, position));
    }

    /// <summary>The same, stretched by a transform or zoom.</summary>
    public Placing Stretched(CssSize by) =>
        this with
        {
            Shown = new(Shown.Width * by.Width, Shown.Height * by.Height),
            Drawn = new(Drawn.Width * by.Width, Drawn.Height * by.Height),
        };

    /// <summary>The factors from the picture's pixels to CSS pixels, across and down.</summary>
    public (double Across, double Down) Scales(PixelSize natural) => (Drawn.Width / natural.Width, Drawn.Height / natural.Height);

    private static CssSize Sized(CssSize area, CssSize natural, string size)
    {
        var (across, down) = CssOffset.Words(size);
        double? width = CssOffset.TryParse(across, out var w) ? w.Of(area.Width) : null;
        double? height = CssOffset.TryParse(down, out var h) ? h.Of(area.Height) : null;
        return (width, height) switch
        {
            ({ } both, { } sides) => new(both, sides),
            ({ } alone, null) => natural.Times(alone / natural.Width),
            (null, { } alone) => natural.Times(alone / natural.Height),
            _ => natural,
        };
    }

    // What of the drawn picture lies inside the box: an offset's share is of what is free, which is below 0 where the picture is larger.
    private static Frame Seen(CssSize box, CssSize drawn, string? position)
    {
        var (across, down) = CssOffset.Pair(position);
        var (left, right) = Side(box.Width, drawn.Width, across);
        var (top, bottom) = Side(box.Height, drawn.Height, down);
        return Frame.TryCreate(left, top, right, bottom, out var part, out _) ? part : Frame.Whole;
    }

    private static (double From, double To) Side(double box, double drawn, CssOffset offset)
    {
        // A picture that is smaller than its box is seen whole; where it is moved out of it, what remains is not worth a cut.
        if (drawn <= box + Hair)
        {
            return (0, 1);
        }

        var at = offset.Of(box - drawn);
        return (Math.Clamp(-at / drawn, 0, 1), Math.Clamp((box - at) / drawn, 0, 1));
    }
}

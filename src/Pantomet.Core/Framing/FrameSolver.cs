using Pantomet.Core.Geometry;

namespace Pantomet.Core.Framing;

/// <summary>Where a frame came from.</summary>
public enum FrameOrigin
{
    /// <summary>The whole picture.</summary>
    Whole,

    /// <summary>The widest frame of the slot's shape, centred.</summary>
    Centred,

    /// <summary>The widest frame of the slot's shape, as near the focus point as the edges allow.</summary>
    Focus,

    /// <summary>Set by hand.</summary>
    Hand,
}

/// <summary>A frame that has been found for a slot.</summary>
/// <param name="Region">The rectangle in picture pixels, of the slot's exact shape where it has one.</param>
/// <param name="Origin">Where it came from.</param>
/// <param name="Reshaped">True when a frame set by hand had another shape than the slot and was narrowed to it by more than a pixel.</param>
public readonly record struct SolvedFrame(Region Region, FrameOrigin Origin, bool Reshaped);

/// <summary>Finds the frame of a picture for a shape. Closed form, no search.</summary>
public static class FrameSolver
{
    /// <summary>
    /// The frame for a shape. With a frame by hand that one, narrowed to the shape if it has another; else the widest:
    /// for ratio r and picture W × H it is Wc = min(W, H r) by Hc = Wc / r, as near the focus as the edges allow.
    /// </summary>
    /// <param name="picture">The picture as displayed.</param>
    /// <param name="shape">The slot's shape; null keeps the picture's own.</param>
    /// <param name="hand">A frame set by hand.</param>
    /// <param name="focus">A focus point.</param>
    public static SolvedFrame Solve(PixelSize picture, Ratio? shape, Frame? hand = null, FocusPoint? focus = null)
    {
        if (hand is { } set)
        {
            var region = set.In(picture);
            if (shape is not { } wanted)
            {
                return new(region, FrameOrigin.Hand, false);
            }

            var shaped = region.Shaped(wanted);
            var narrowed = region.Width - shaped.Width > 1 || region.Height - shaped.Height > 1;
            return new(shaped, FrameOrigin.Hand, narrowed);
        }

        var all = new Region(0, 0, picture.Width, picture.Height);
        if (shape is not { } ratio)
        {
            return new(all, FrameOrigin.Whole, false);
        }

        var widest = all.Shaped(ratio);
        if (focus is not { } point)
        {
            return new(widest, FrameOrigin.Centred, false);
        }

        var x = Math.Clamp((point.X * picture.Width) - (widest.Width / 2), 0, picture.Width - widest.Width);
        var y = Math.Clamp((point.Y * picture.Height) - (widest.Height / 2), 0, picture.Height - widest.Height);
        return new(widest with { X = x, Y = y }, FrameOrigin.Focus, false);
    }
}

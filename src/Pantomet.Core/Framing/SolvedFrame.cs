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

    /// <summary>Made to hold the keep boxes.</summary>
    Kept,

    /// <summary>Made to hold a keep box that was suggested and not confirmed.</summary>
    Suggested,

    /// <summary>Set by hand.</summary>
    Hand,
}

/// <summary>By how much the subject reaches over an edge on each side, in picture pixels; 0 where it does not.</summary>
/// <param name="Left">Over the left edge.</param>
/// <param name="Top">Over the top edge.</param>
/// <param name="Right">Over the right edge.</param>
/// <param name="Bottom">Over the bottom edge.</param>
public readonly record struct Overhang(double Left, double Top, double Right, double Bottom)
{
    /// <summary>Half a pixel is rounding, not a cut.</summary>
    private const double Hair = 0.5;

    /// <summary>True when nothing reaches over.</summary>
    public bool IsNone => Math.Max(Math.Max(Left, Right), Math.Max(Top, Bottom)) <= Hair;

    /// <summary>The sides that are reached over, with their pixels.</summary>
    public IEnumerable<(string Side, double Pixels)> Sides()
    {
        (string, double)[] all = [("left", Left), ("top", Top), ("right", Right), ("bottom", Bottom)];
        return all.Where(side => side.Item2 > Hair);
    }

    /// <summary>How far <paramref name="box"/> reaches over <paramref name="around"/>.</summary>
    public static Overhang Of(Region box, Region around) =>
        new(
            Math.Max(0, around.X - box.X),
            Math.Max(0, around.Y - box.Y),
            Math.Max(0, box.Right - around.Right),
            Math.Max(0, box.Bottom - around.Bottom)
        );
}

/// <summary>A frame that has been found for a slot, and what it gave up.</summary>
/// <param name="Region">The rectangle in picture pixels, of the slot's exact shape where it has one.</param>
/// <param name="Origin">Where it came from.</param>
public readonly record struct SolvedFrame(Region Region, FrameOrigin Origin)
{
    /// <summary>True when a frame set by hand had another shape than the slot and was narrowed to it by more than a pixel.</summary>
    public bool Reshaped { get; init; }

    /// <summary>What the frame itself cuts off the keep boxes.</summary>
    public Overhang Cut { get; init; }

    /// <summary>What of the keep boxes lies in the frame but outside the slot's clear area.</summary>
    public Overhang Covered { get; init; }

    /// <summary>True when the frame reaches out of the picture, whose canvas is extended there.</summary>
    public bool Extended { get; init; }

    /// <summary>What the frame itself honestly offers, in whole pixels: that of it which is picture, and its extensions as fine.</summary>
    /// <param name="picture">The picture as displayed.</param>
    public PixelSize Native(PixelSize picture) =>
        Extended ? new(Rounding.ToPixels(Region.Width), Rounding.ToPixels(Region.Height)) : Region.Native(picture);

    /// <summary>
    /// The share of the clear area's tighter side that the subject takes, where the slot asks for one and it was missed by more than a
    /// hundredth.
    /// </summary>
    public double? ShareMissed { get; init; }
}

using System.Text.Json.Serialization;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Geometry;

/// <summary>
/// A rectangle of a picture as fractions of the picture as displayed: left, top, right, bottom, each 0 to 1,
/// with a positive width and height. It survives a new revision of the same shape.
/// </summary>
public readonly record struct Frame
{
    /// <summary>The whole picture.</summary>
    public static readonly Frame Whole = new(0, 0, 1, 1);

    [JsonConstructor]
    private Frame(double left, double top, double right, double bottom)
    {
        Left = left;
        Top = top;
        Right = right;
        Bottom = bottom;
    }

    /// <summary>Left edge, 0 to 1.</summary>
    public double Left { get; }

    /// <summary>Top edge, 0 to 1.</summary>
    public double Top { get; }

    /// <summary>Right edge, greater than <see cref="Left"/>, at most 1.</summary>
    public double Right { get; }

    /// <summary>Bottom edge, greater than <see cref="Top"/>, at most 1.</summary>
    public double Bottom { get; }

    /// <summary>Makes a frame, or says in a sentence why the numbers are none.</summary>
    public static bool TryCreate(double left, double top, double right, double bottom, out Frame frame, out string? error)
    {
        frame = default;
        ReadOnlySpan<double> all = [left, top, right, bottom];
        foreach (var value in all)
        {
            if (!double.IsFinite(value) || value < 0 || value > 1)
            {
                error = PictureTexts.TheEdgesOfAFrameMust;
                return false;
            }
        }

        if (right <= left || bottom <= top)
        {
            error = PictureTexts.AFrameNeedsAWidthAnd;
            return false;
        }

        frame = new(left, top, right, bottom);
        error = null;
        return true;
    }

    /// <summary>The rectangle in pixels of a picture of the given size, not rounded.</summary>
    public Region In(PixelSize picture) =>
        new(Left * picture.Width, Top * picture.Height, (Right - Left) * picture.Width, (Bottom - Top) * picture.Height);

    /// <summary>Its share of the picture, 0 to 1.</summary>
    [JsonIgnore]
    public double Area => (Right - Left) * (Bottom - Top);

    /// <summary>The share of the picture that two frames have in common, 0 to 1.</summary>
    public double Shared(Frame other) =>
        Math.Max(0, Math.Min(Right, other.Right) - Math.Max(Left, other.Left))
        * Math.Max(0, Math.Min(Bottom, other.Bottom) - Math.Max(Top, other.Top));

    /// <summary>True for a point inside, given as fractions of the picture.</summary>
    public bool Holds(double x, double y) => x > Left && x < Right && y > Top && y < Bottom;

    /// <summary>The part of a rectangle that lies in the picture; there must be one.</summary>
    public static Frame Within(double left, double top, double right, double bottom) =>
        new(Math.Max(0, left), Math.Max(0, top), Math.Min(1, right), Math.Min(1, bottom));

    /// <summary>The smallest frame that holds this one and another.</summary>
    public Frame With(Frame other) =>
        new(Math.Min(Left, other.Left), Math.Min(Top, other.Top), Math.Max(Right, other.Right), Math.Max(Bottom, other.Bottom));
}

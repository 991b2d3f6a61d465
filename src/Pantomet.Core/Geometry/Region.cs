namespace Pantomet.Core.Geometry;

/// <summary>A rectangle in pixels of a picture as displayed, not rounded: only a step between a framing and a crop.</summary>
/// <param name="X">Left edge, in pixels.</param>
/// <param name="Y">Top edge, in pixels.</param>
/// <param name="Width">Width, in pixels, greater than 0.</param>
/// <param name="Height">Height, in pixels, greater than 0.</param>
public readonly record struct Region(double X, double Y, double Width, double Height)
{
    /// <summary>The centre across.</summary>
    public double CentreX => X + (Width / 2);

    /// <summary>The centre down.</summary>
    public double CentreY => Y + (Height / 2);

    /// <summary>Right edge.</summary>
    public double Right => X + Width;

    /// <summary>Bottom edge.</summary>
    public double Bottom => Y + Height;

    /// <summary>The part of this region that fractions of it name.</summary>
    public Region Part(Frame part) =>
        new(X + (part.Left * Width), Y + (part.Top * Height), (part.Right - part.Left) * Width, (part.Bottom - part.Top) * Height);

    /// <summary>The size to the nearest whole pixel, no larger than <paramref name="picture"/>: what this region honestly offers.</summary>
    public PixelSize Native(PixelSize picture) =>
        new(Math.Min(picture.Width, Rounding.ToPixels(Width)), Math.Min(picture.Height, Rounding.ToPixels(Height)));

    /// <summary>The same as fractions of a picture; what lies outside of it is left away, and all of it where nothing is left.</summary>
    public Frame On(PixelSize picture) =>
        Frame.TryCreate(
            Math.Clamp(X / picture.Width, 0, 1),
            Math.Clamp(Y / picture.Height, 0, 1),
            Math.Clamp(Right / picture.Width, 0, 1),
            Math.Clamp(Bottom / picture.Height, 0, 1),
            out var frame,
            out _
        )
            ? frame
            : Frame.Whole;

    /// <summary>The largest region of the given shape inside this one, centred.</summary>
    public Region Shaped(Ratio shape)
    {
        var width = Math.Min(Width, Height * shape.Value);
        var height = width / shape.Value;
        return new(CentreX - (width / 2), CentreY - (height / 2), width, height);
    }

    /// <summary>
    /// The whole-pixel crop that serves an output of the given size with the least squash: the shorter side is rounded,
    /// the longer follows from the output's own shape, so the two scales differ by less than one output pixel.
    /// </summary>
    public Crop CropFor(PixelSize output, PixelSize picture)
    {
        var wide = output.Width >= output.Height;
        var (longOut, shortOut) = wide ? (output.Width, output.Height) : (output.Height, output.Width);
        var (longMost, shortMost) = wide ? (picture.Width, picture.Height) : (picture.Height, picture.Width);
        var shortSide = Math.Min(Rounding.ToPixels(wide ? Height : Width), shortMost);
        var longSide = Rounding.Proportion(shortSide, longOut, shortOut);
        if (longSide > longMost)
        {
            // The rounded side wants more than the picture has: a row or two less keeps the shape.
            shortSide = Math.Max(1, (int)((long)longMost * shortOut / longOut));
            longSide = Math.Min(longMost, Rounding.Proportion(shortSide, longOut, shortOut));
        }

        var (width, height) = wide ? (longSide, shortSide) : (shortSide, longSide);
        var left = Math.Clamp((int)Math.Round(CentreX - (width / 2.0), MidpointRounding.AwayFromZero), 0, picture.Width - width);
        var top = Math.Clamp((int)Math.Round(CentreY - (height / 2.0), MidpointRounding.AwayFromZero), 0, picture.Height - height);
        return new(left, top, left + width, top + height);
    }
}

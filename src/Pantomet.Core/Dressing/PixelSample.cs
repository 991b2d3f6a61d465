using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;

namespace Pantomet.Core.Dressing;

/// <summary>A few pixels that stand for many.</summary>
internal static class PixelSample
{
    /// <summary>An even choice of about so many pixels of an area, in one row.</summary>
    public static PixelRows Of(PixelRows pixels, Crop area, int of)
    {
        // A step that shares no factor with the width visits every column.
        var count = area.Width * area.Height;
        var step = Math.Max(1, count / of);
        while (step > 1 && Shared(step, area.Width) > 1)
        {
            step++;
        }

        var (chosen, bands, width) = (new byte[count / step * pixels.Bands], pixels.Bands, count / step);
        var all = pixels.Values.Span;
        for (var i = 0; i < width; i++)
        {
            var (y, x) = Math.DivRem(i * step, area.Width);
            all.Slice((((area.Top + y) * pixels.Width) + area.Left + x) * bands, bands).CopyTo(chosen.AsSpan(i * bands));
        }

        return new(chosen, width, 1, bands);
    }

    private static int Shared(int one, int other) => other == 0 ? one : Shared(other, one % other);
}

using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Planning;

namespace Pantomet.Core.Dressing;

/// <summary>
/// A first place for words over a picture: where the picture is calm and nothing stands that must be seen. Places are the thirds and halves that words
/// stand in on pages; each is judged by how much the light changes in it, and how much of it lies over keep boxes.
/// </summary>
public static class CalmArea
{
    // Cells across and down in which the light is looked at.
    private const int Cells = 48;

    // So many pixels of each cell are looked at across and down; more tell nothing new.
    private const int Looks = 6;

    // From the edge of what may be written on, as a share of it.
    private const double Margin = 0.05;

    // Words over a thing that must be seen are worse than words over the busiest picture.
    private const double Covered = 400;

    // Widths and heights of places, as shares of what may be written on.
    private static readonly (double Width, double Height)[] Sizes = [(1, 0.3), (0.62, 0.3), (0.5, 0.45), (0.4, 0.45)];

    // Where the eye expects words, all else being equal: below, then above, then beside, in steps of light of 255.
    private static readonly double[] DownCosts = [1, 3, 0];
    private static readonly double[] AcrossCosts = [0, 2, 1];

    /// <summary>The place, as fractions of the file.</summary>
    /// <param name="pixels">The file's pixels before anything is written.</param>
    /// <param name="clear">What is not covered in the slot, as fractions of the file.</param>
    /// <param name="keep">What must be seen, as fractions of the file; none where nothing is known.</param>
    public static Frame Find(PixelRows pixels, Frame clear, IReadOnlyList<Frame> keep)
    {
        ArgumentNullException.ThrowIfNull(keep);
        var busy = Busy(pixels);
        var (best, least) = (clear, double.MaxValue);
        var (across, down) = ((1 - (2 * Margin)) * (clear.Right - clear.Left), (1 - (2 * Margin)) * (clear.Bottom - clear.Top));
        foreach (var (width, height) in Sizes)
        {
            for (var row = 0; row < 3; row++)
            {
                for (var column = 0; column < 3; column++)
                {
                    var left = clear.Left + (Margin * (clear.Right - clear.Left)) + (column / 2.0 * (1 - width) * across);
                    var top = clear.Top + (Margin * (clear.Bottom - clear.Top)) + (row / 2.0 * (1 - height) * down);
                    var place = Frame.Within(left, top, left + (width * across), top + (height * down));
                    var cost =
                        Change(busy, place)
                        + (Covered * keep.Sum(place.Shared) / place.Area)
                        + DownCosts[row]
                        + (width < 1 ? AcrossCosts[column] : 0);
                    if (cost < least)
                    {
                        (best, least) = (place, cost);
                    }
                }
            }
        }

        return best;
    }

    /// <summary>Where boxes of a picture lie in a file; those that it does not show are left out.</summary>
    /// <param name="boxes">Boxes, as fractions of the picture.</param>
    /// <param name="picture">The picture's size, as displayed.</param>
    /// <param name="plan">What the file shows of it.</param>
    public static IReadOnlyList<Frame> InFile(IEnumerable<Frame> boxes, PixelSize picture, VariantPlan plan)
    {
        ArgumentNullException.ThrowIfNull(boxes);
        ArgumentNullException.ThrowIfNull(plan);
        var (crop, content, size) = (plan.Crop, plan.Content, plan.Size);
        var left = plan.Place?.Left ?? (size.Width - content.Width) / 2.0;
        var top = plan.Place?.Top ?? (size.Height - content.Height) / 2.0;
        double Across(double share) => (left + (((share * picture.Width) - crop.Left) / crop.Width * content.Width)) / size.Width;
        double Down(double share) => (top + (((share * picture.Height) - crop.Top) / crop.Height * content.Height)) / size.Height;
        return
        [
            .. boxes
                .Select(box => (Left: Across(box.Left), Top: Down(box.Top), Right: Across(box.Right), Bottom: Down(box.Bottom)))
                .Where(box => box.Left < 1 && box.Top < 1 && box.Right > 0 && box.Bottom > 0)
                .Select(box => Frame.Within(box.Left, box.Top, box.Right, box.Bottom)),
        ];
    }

    // The root of the mean square: one edge under the words is worse than a little grain everywhere.
    private static double Change(double[] busy, Frame place)
    {
        var (left, right) = ((int)(place.Left * Cells), Math.Min(Cells, (int)Math.Ceiling(place.Right * Cells)));
        var (top, bottom) = ((int)(place.Top * Cells), Math.Min(Cells, (int)Math.Ceiling(place.Bottom * Cells)));
        var (sum, count) = (0.0, 0);
        for (var y = top; y < bottom; y++)
        {
            for (var x = left; x < right; x++)
            {
                sum += busy[(y * Cells) + x] * busy[(y * Cells) + x];
                count++;
            }
        }

        return count == 0 ? double.MaxValue : Math.Sqrt(sum / count);
    }

    // How much the light changes in each cell and to the next ones, in steps of 255.
    private static double[] Busy(PixelRows pixels)
    {
        var (mean, spread) = (new double[Cells * Cells], new double[Cells * Cells]);
        for (var y = 0; y < Cells; y++)
        {
            for (var x = 0; x < Cells; x++)
            {
                (mean[(y * Cells) + x], spread[(y * Cells) + x]) = Light(pixels, x, y);
            }
        }

        var busy = new double[Cells * Cells];
        for (var y = 0; y < Cells; y++)
        {
            for (var x = 0; x < Cells; x++)
            {
                var at = (y * Cells) + x;
                var across = Math.Abs(mean[(y * Cells) + Math.Min(Cells - 1, x + 1)] - mean[at]);
                var down = Math.Abs(mean[(Math.Min(Cells - 1, y + 1) * Cells) + x] - mean[at]);
                busy[at] = spread[at] + across + down;
            }
        }

        return busy;
    }

    private static (double Mean, double Spread) Light(PixelRows pixels, int column, int row)
    {
        var (sum, squares) = (0.0, 0.0);
        for (var i = 0; i < Looks; i++)
        {
            var y = (int)((row + ((i + 0.5) / Looks)) / Cells * pixels.Height);
            for (var n = 0; n < Looks; n++)
            {
                var x = (int)((column + ((n + 0.5) / Looks)) / Cells * pixels.Width);
                var light = LightAt(pixels, x, y);
                sum += light;
                squares += light * light;
            }
        }

        const int count = Looks * Looks;
        var mean = sum / count;
        return (mean, Math.Sqrt(Math.Max(0, (squares / count) - (mean * mean))));
    }

    // Luma of Rec. 709 in stored values: how busy a place looks, not how much light it gives. What shows through is white.
    private static double LightAt(PixelRows pixels, int x, int y)
    {
        var pixel = pixels.Values.Span.Slice(((y * pixels.Width) + x) * pixels.Bands, pixels.Bands);
        var luma = (0.2126 * pixel[0]) + (0.7152 * pixel[1]) + (0.0722 * pixel[2]);
        return pixel.Length < 4 ? luma : ((luma * pixel[3]) + (255.0 * (255 - pixel[3]))) / 255;
    }
}

using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Dressing;

/// <summary>A side of a picture.</summary>
public enum EdgePlace
{
    /// <summary>Left.</summary>
    Left,

    /// <summary>Above.</summary>
    Top,

    /// <summary>Right.</summary>
    Right,

    /// <summary>Below.</summary>
    Bottom,
}

/// <summary>One side on which a canvas was extended.</summary>
/// <param name="Side">The side.</param>
/// <param name="Pixels">By how many pixels of the file.</param>
/// <param name="Colour">The colour that continues an even edge; null where the edge is not even and was continued blurred.</param>
public readonly record struct ExtendedSide(EdgePlace Side, int Pixels, Rgb? Colour);

/// <summary>
/// Continues a picture beyond its edges: an even edge in its colour, into which the edge's own runs out softly; any other by the edge's colours,
/// blurred along it.
/// </summary>
public static class CanvasExtension
{
    // How much of the picture an edge's colours are taken from, and how far they run out into one: parts of the picture's side.
    private const int Strip = 50;

    private const int RunsOut = 25;

    // How far colours are blurred along an edge: beside the picture, and far from it, where lines would only be streaks.
    private const int NearBlur = 60;

    private const int FarBlur = 6;

    /// <summary>Extends.</summary>
    /// <param name="picture">The picture, with any number of channels of 8 bits.</param>
    /// <param name="place">Where it lies in the file.</param>
    /// <param name="file">The file's size.</param>
    /// <returns>The file's values, and what was done on each side.</returns>
    public static (byte[] Values, IReadOnlyList<ExtendedSide> Sides) Extend(PixelRows picture, Crop place, PixelSize file)
    {
        var bands = picture.Bands;
        var values = new byte[(long)file.Width * file.Height * bands];
        for (var row = 0; row < picture.Height; row++)
        {
            picture
                .Values.Span.Slice(row * picture.Width * bands, picture.Width * bands)
                .CopyTo(values.AsSpan((((place.Top + row) * file.Width) + place.Left) * bands));
        }

        var canvas = new Canvas(values, file.Width, bands);
        var sides = new List<ExtendedSide>();
        var edges = bands >= 3 ? EdgeColours.Of(picture) : null;
        // Sideways first; above and below then go on from the whole width.
        Continue(canvas, EdgePlace.Left, place.Left, place.Left, place.Top, place.Bottom, picture.Width, edges?.Left, sides);
        Continue(
            canvas,
            EdgePlace.Right,
            file.Width - place.Right,
            place.Right - 1,
            place.Top,
            place.Bottom,
            picture.Width,
            edges?.Right,
            sides
        );
        Continue(canvas, EdgePlace.Top, place.Top, place.Top, 0, file.Width, picture.Height, edges?.Top, sides);
        Continue(
            canvas,
            EdgePlace.Bottom,
            file.Height - place.Bottom,
            place.Bottom - 1,
            0,
            file.Width,
            picture.Height,
            edges?.Bottom,
            sides
        );
        return (values, sides);
    }

    private static void Continue(
        Canvas canvas,
        EdgePlace side,
        int pixels,
        int edge,
        int from,
        int to,
        int depth,
        EdgeSide? known,
        List<ExtendedSide> sides
    )
    {
        if (pixels == 0)
        {
            return;
        }

        var outward = side is EdgePlace.Left or EdgePlace.Top ? -1 : 1;
        var upright = side is EdgePlace.Left or EdgePlace.Right;
        var even = known is { IsEven: true } measured ? measured.Colour : (Rgb?)null;
        var length = to - from;
        var colours = Along(canvas, edge, -outward, Math.Max(1, depth / Strip), from, length, upright);
        Blur(colours, canvas.Bands, length, Math.Max(1, length / NearBlur));
        var far = colours.ToArray();
        if (even is null)
        {
            Blur(far, canvas.Bands, length, Math.Max(1, length / FarBlur));
        }

        // An even edge is soon its one colour; the colours of another run into each other on the way out.
        var ramp = Math.Min(pixels, even is null ? Math.Max(8, Math.Max(depth, length) / 3) : Math.Max(8, depth / RunsOut));
        for (var step = 1; step <= pixels; step++)
        {
            var share = Smooth(Math.Min(1, (double)step / ramp));
            for (var along = 0; along < length; along++)
            {
                var pixel = canvas.At(edge + (outward * step), from + along, upright);
                for (var band = 0; band < canvas.Bands; band++)
                {
                    var own = colours[(along * canvas.Bands) + band];
                    var goal = even is { } colour && band < 3 ? Channel(colour, band) : far[(along * canvas.Bands) + band];
                    var mixed = own + (share * (goal - own));
                    pixel[band] = (byte)Math.Clamp(Math.Round(mixed), 0, 255);
                }
            }
        }

        sides.Add(new(side, pixels, even));
    }

    // The edge's colours along it, each the mean of a few pixels inwards.
    private static double[] Along(Canvas canvas, int edge, int inward, int strip, int from, int length, bool upright)
    {
        var colours = new double[length * canvas.Bands];
        for (var step = 0; step < strip; step++)
        {
            for (var along = 0; along < length; along++)
            {
                var pixel = canvas.At(edge + (inward * step), from + along, upright);
                for (var band = 0; band < canvas.Bands; band++)
                {
                    colours[(along * canvas.Bands) + band] += pixel[band] / (double)strip;
                }
            }
        }

        return colours;
    }

    // Three means in a row come near to a bell.
    private static void Blur(double[] colours, int bands, int length, int radius)
    {
        var line = new double[length];
        for (var band = 0; band < bands; band++)
        {
            for (var pass = 0; pass < 3; pass++)
            {
                for (var i = 0; i < length; i++)
                {
                    line[i] = colours[(i * bands) + band];
                }

                double sum = 0;
                for (var i = -radius; i <= radius; i++)
                {
                    sum += line[Math.Clamp(i, 0, length - 1)];
                }

                for (var i = 0; i < length; i++)
                {
                    colours[(i * bands) + band] = sum / ((2 * radius) + 1);
                    sum += line[Math.Min(length - 1, i + radius + 1)] - line[Math.Max(0, i - radius)];
                }
            }
        }
    }

    private static double Smooth(double share) => share * share * (3 - (2 * share));

    private static byte Channel(Rgb colour, int band) =>
        band switch
        {
            0 => colour.Red,
            1 => colour.Green,
            _ => colour.Blue,
        };

    private sealed class Canvas(byte[] values, int width, int bands)
    {
        public int Bands => bands;

        // Across is the place counted from left or top towards the other side; along runs beside the edge.
        public Span<byte> At(int across, int along, bool upright)
        {
            var (x, y) = upright ? (across, along) : (along, across);
            return values.AsSpan(((y * width) + x) * bands, bands);
        }
    }
}

using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;

namespace Pantomet.Imaging.Dressing;

/// <summary>The pixels of a file while it is dressed: all frames of it, below each other.</summary>
/// <param name="values">8-bit sRGB, interleaved; they are changed where they are.</param>
/// <param name="size">The size of one frame.</param>
/// <param name="bands">Three channels, or four with coverage.</param>
/// <param name="frames">How many frames there are.</param>
internal sealed class Sheet(byte[] values, PixelSize size, int bands, int frames)
{
    // What writing to a type with loss moves a pixel by: one step more than is needed keeps the contrast.
    private const int Reserve = 1;

    private readonly int _frame = size.Width * size.Height * bands;

    public byte[] Values => values;

    public PixelSize Size => size;

    public PixelRows Rows(int frame) => new(values.AsMemory(frame * _frame, _frame), size.Width, size.Height, bands);

    /// <summary>The fade that an ink needs: of a moving picture what the most difficult frame needs.</summary>
    public (int Level, Crop? Last) Needed(Crop area, FadeGoal goal)
    {
        var most = Enumerable
            .Range(0, frames)
            .Select(frame => FadeSolver.Solve(Rows(frame), area, goal, ImagingEngine.Threads))
            .MaxBy(found => found.Level)!;
        return (most.Level == 0 || !most.Reached ? most.Level : Math.Min(FadeSolver.Whole, most.Level + Reserve), most.Last);
    }

    /// <summary>The contrast of the worst hundredth, in the worst frame.</summary>
    public double Ratio(Crop area, FadeGoal goal) =>
        Enumerable.Range(0, frames).Min(frame => FadeSolver.RatioAt(Rows(frame), area, goal, 0, ImagingEngine.Threads));

    public void Veil(Rgb to, int level, FadeReach reach, Crop area)
    {
        if (level == 0)
        {
            return;
        }

        var shape = reach == FadeReach.Side ? FadeShape.Least(size, area) : FadeShape.All(size);
        for (var frame = 0; frame < frames; frame++)
        {
            Core.Dressing.Veil.Lay(values.AsSpan(frame * _frame, _frame), size, bands, to, level, shape);
        }
    }

    /// <summary>The mean relative luminance of a part, 0 to 1 (WCAG 2.2); of the first frame.</summary>
    public double MeanLuminance(Crop part)
    {
        double sum = 0;
        for (var row = part.Top; row < part.Bottom; row++)
        {
            for (var column = part.Left; column < part.Right; column++)
            {
                var pixel = values.AsSpan(((row * size.Width) + column) * bands, 3);
                sum += Contrast.LuminanceOf(new(pixel[0], pixel[1], pixel[2]));
            }
        }

        return sum / part.Size.Area;
    }

    /// <summary>Lays coloured pixels over a part, each as far as it covers.</summary>
    /// <param name="over">Straight red, green, blue and coverage, as many as the part has.</param>
    /// <param name="part">Where they go.</param>
    /// <param name="opacity">How much of them is seen, 0 to 1.</param>
    public void Lay(byte[] over, Crop part, double opacity)
    {
        for (var row = 0; row < part.Height; row++)
        {
            for (var column = 0; column < part.Width; column++)
            {
                var from = over.AsSpan(((row * part.Width) + column) * 4, 4);
                Mix(part.Left + column, part.Top + row, new(from[0], from[1], from[2]), (int)Math.Round(from[3] * opacity));
            }
        }
    }

    // What was transparent is opaque where it is covered, and has nothing of its own colour there.
    private void Mix(int column, int row, Rgb colour, int cover)
    {
        if (cover == 0)
        {
            return;
        }

        for (var frame = 0; frame < frames; frame++)
        {
            var pixel = values.AsSpan((frame * _frame) + (((row * size.Width) + column) * bands), bands);
            var share = cover;
            if (bands == 4)
            {
                var all = FadeSolver.Mixed(pixel[3], FadeSolver.Whole, cover);
                share = all == 0 ? 0 : (int)Math.Round((double)cover * FadeSolver.Whole / all);
                pixel[3] = all;
            }

            pixel[0] = FadeSolver.Mixed(pixel[0], colour.Red, share);
            pixel[1] = FadeSolver.Mixed(pixel[1], colour.Green, share);
            pixel[2] = FadeSolver.Mixed(pixel[2], colour.Blue, share);
        }
    }

    /// <summary>Lays ink over the pixels as far as each is covered; what was transparent is opaque there.</summary>
    public void Write(DrawnText text, int left, int top, Rgb ink)
    {
        for (var row = Math.Max(0, -top); row < Math.Min(text.Size.Height, size.Height - top); row++)
        {
            for (var column = Math.Max(0, -left); column < Math.Min(text.Size.Width, size.Width - left); column++)
            {
                Mix(left + column, top + row, ink, text.Cover[(row * text.Size.Width) + column]);
            }
        }
    }
}

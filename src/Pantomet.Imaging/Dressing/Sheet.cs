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

    /// <summary>Lays ink over the pixels as far as each is covered; what was transparent is opaque there.</summary>
    public void Write(DrawnText text, int left, int top, Rgb ink)
    {
        for (var row = Math.Max(0, -top); row < Math.Min(text.Size.Height, size.Height - top); row++)
        {
            for (var column = Math.Max(0, -left); column < Math.Min(text.Size.Width, size.Width - left); column++)
            {
                var cover = text.Cover[(row * text.Size.Width) + column];
                if (cover == 0)
                {
                    continue;
                }

                for (var frame = 0; frame < frames; frame++)
                {
                    var pixel = values.AsSpan((frame * _frame) + ((((top + row) * size.Width) + left + column) * bands), bands);
                    pixel[0] = FadeSolver.Mixed(pixel[0], ink.Red, cover);
                    pixel[1] = FadeSolver.Mixed(pixel[1], ink.Green, cover);
                    pixel[2] = FadeSolver.Mixed(pixel[2], ink.Blue, cover);
                    if (bands == 4)
                    {
                        pixel[3] = FadeSolver.Mixed(pixel[3], 255, cover);
                    }
                }
            }
        }
    }
}

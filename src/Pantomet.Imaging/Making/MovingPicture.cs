using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Making;

/// <summary>The frames of a moving picture: each cut and reduced like a still picture, with its own delay.</summary>
internal static class MovingPicture
{
    // What browsers take for a frame that names no delay, in milliseconds (common practice).
    private const int UsualDelay = 100;

    /// <summary>True when there are frames to keep, the slot keeps them, and the type can hold them.</summary>
    /// <param name="facts">The picture's facts.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="type">The type.</param>
    public static bool Applies(PictureFacts facts, Slot slot, PictureFormat type) =>
        slot.AllFrames && facts.Frames > 1 && facts.Format is PictureFormat.Gif or PictureFormat.WebP && type == PictureFormat.WebP;

    /// <summary>The same where the slot's types tell it: its first, or any that the content may choose.</summary>
    /// <param name="facts">The picture's facts.</param>
    /// <param name="slot">The slot.</param>
    public static bool Applies(PictureFacts facts, Slot slot) =>
        TypeChooser.Resolve(slot, transparent: false) is var types
        && (slot.ByContent ? types : types.Take(1)).Any(type => Applies(facts, slot, type));

    /// <summary>Renders all frames.</summary>
    /// <exception cref="VipsException">They cannot be decoded.</exception>
    public static RenderedPixels Render(
        string path,
        PictureFacts facts,
        Turn turn,
        Slot slot,
        VariantPlan plan,
        CancellationToken cancel = default
    )
    {
        var frames = new List<Image>();
        IReadOnlyList<Core.Dressing.ExtendedSide> extended = [];
        try
        {
            for (var i = 0; i < facts.Frames; i++)
            {
                cancel.ThrowIfCancellationRequested();
                using var master = PictureMaster.Decode(path, facts, [plan], slot.Profile, frame: i, turn: turn);
                using var pixels = VariantRenderer.Render(master, plan, slot.Background, slot.Sharpen);
                extended = pixels.Extended;
                // Frames of one strip have the same channels, whether or not something shows through in each.
                frames.Add(pixels.HasAlpha || !facts.HasAlpha ? pixels.Image.Copy() : pixels.Image.BandjoinConst([255]));
            }

            using var all = Image.Arrayjoin([.. frames], across: 1);
            using var flat = all.CopyMemory();
            var delays = Delays(path, facts);
            var strip = flat.Mutate(image =>
            {
                image.Set(GValue.GIntType, "page-height", plan.Size.Height);
                image.Set(GValue.GIntType, "n-pages", facts.Frames);
                image.Set(GValue.ArrayIntType, "delay", delays);
                image.Set(GValue.GIntType, "loop", 0);
            });
            return new(strip, facts.Frames, extended: extended);
        }
        finally
        {
            frames.ForEach(frame => frame.Dispose());
        }
    }

    private static int[] Delays(string path, PictureFacts facts)
    {
        using var image = Image.NewFromFile(path);
        return image.Contains("delay") && image.Get("delay") is int[] delays && delays.Length == facts.Frames
            ? delays
            : [.. Enumerable.Repeat(UsualDelay, facts.Frames)];
    }
}

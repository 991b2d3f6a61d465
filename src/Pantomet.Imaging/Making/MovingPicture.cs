using NetVips;
using Pantomet.Core;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Core.Weight;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Making;

/// <summary>
/// Makes a moving WebP where a slot keeps all frames: each frame cut and reduced like a still picture, with its own delay.
/// </summary>
internal static class MovingPicture
{
    private const int UsualDelay = 100;

    /// <summary>True when there are frames to keep, the slot keeps them, and its first type can hold them.</summary>
    public static bool Applies(PictureFacts facts, Slot slot) =>
        slot.AllFrames
        && facts.Frames > 1
        && facts.Format is PictureFormat.Gif or PictureFormat.WebP
        && slot.Types[0].Format is null or PictureFormat.WebP;

    /// <summary>Makes it: the highest quality within floor and ceiling whose weight fits.</summary>
    public static MadeVariant Make(
        string path,
        PictureFacts facts,
        Slot slot,
        VariantPlan plan,
        CancellationToken cancel,
        Turn turn = default
    )
    {
        using var strip = Strip(path, facts, slot, plan, turn, cancel);
        var range = slot.Aims.Quality ?? QualityRange.Comfortable(PictureFormat.WebP);
        var limit = Math.Min(slot.Limits.MaxBytes?.Bytes ?? long.MaxValue, slot.Aims.Band?.Most.Bytes ?? long.MaxValue);
        var probes = new Probes(strip, cancel);
        var found = QualitySearch.HighestWithin(range, limit, probes);
        if (!found.Fits && slot.Aims.Quality is null && range.Below is { } below)
        {
            found = QualitySearch.HighestWithin(below, limit, probes);
        }

        var file = probes.File(found.Quality);
        var reasons = new List<Reason>(plan.Reasons);
        var verdict = plan.Verdict;
        if (found.Fits && found.Quality < range.Floor)
        {
            verdict = Verdict.Concedes;
            reasons.Add(
                new(
                    ReasonCodes.LowQuality,
                    $"Quality {found.Quality}, below {range.Floor}, to stay within {slot.Limits.MaxBytes}: "
                        + $"{Figures.Weight(file.LongLength)}. Look at it moving."
                )
            );
        }

        if (file.LongLength > slot.Limits.MaxBytes?.Bytes)
        {
            verdict = Verdict.Breaks;
            reasons.Add(
                new(
                    ReasonCodes.OverWeight,
                    $"The moving picture weighs {Figures.Weight(file.LongLength)} at quality {found.Quality}, over the limit of "
                        + $"{slot.Limits.MaxBytes}. Fewer frames or a still picture would fit."
                )
            );
        }

        // The first frame stands for all: their pixels are alike in kind.
        using var first = strip.Crop(0, 0, plan.Size.Width, plan.Size.Height);
        using var decoded = Image.NewFromBuffer(file);
        var likeness = Core.Likeness.LikenessMeter.Measure(LikenessGauge.Planes(first), LikenessGauge.Planes(decoded));
        return new()
        {
            Plan = plan,
            File = file,
            Format = PictureFormat.WebP,
            Quality = found.Quality,
            Likeness = likeness,
            Encodes = probes.Encodes,
            Verdict = verdict,
            Reasons = reasons,
        };
    }

    private static Image Strip(string path, PictureFacts facts, Slot slot, VariantPlan plan, Turn turn, CancellationToken cancel)
    {
        var frames = new List<Image>();
        try
        {
            for (var i = 0; i < facts.Frames; i++)
            {
                cancel.ThrowIfCancellationRequested();
                using var master = PictureMaster.Decode(path, facts, [plan], ProfileRule.Srgb, frame: i, turn: turn);
                using var pixels = VariantRenderer.Render(master, plan, slot.Background, slot.Sharpen);
                // Frames of one strip have the same channels, whether or not something shows through in each.
                frames.Add(pixels.HasAlpha || !facts.HasAlpha ? pixels.Image.Copy() : pixels.Image.BandjoinConst([255]));
            }

            using var all = Image.Arrayjoin([.. frames], across: 1);
            using var flat = all.CopyMemory();
            var delays = Delays(path, facts);
            return flat.Mutate(image =>
            {
                image.Set(GValue.GIntType, "page-height", plan.Size.Height);
                image.Set(GValue.GIntType, "n-pages", facts.Frames);
                image.Set(GValue.ArrayIntType, "delay", delays);
                image.Set(GValue.GIntType, "loop", 0);
            });
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

    private sealed class Probes(Image strip, CancellationToken cancel) : IQualityProbes
    {
        private readonly Dictionary<int, byte[]> _files = [];
        private readonly Dictionary<int, long> _cheap = [];

        public int Encodes => _files.Count + _cheap.Count;

        public double Ratio => 0.8;

        public double Cheap(int quality)
        {
            cancel.ThrowIfCancellationRequested();
            return _cheap.TryGetValue(quality, out var weight)
                ? weight
                : _cheap[quality] = strip.WebpsaveBuffer(q: quality, effort: 0, keep: Enums.ForeignKeep.None).LongLength;
        }

        public double Dear(int quality) => File(quality).LongLength;

        public byte[] File(int quality)
        {
            cancel.ThrowIfCancellationRequested();
            return _files.TryGetValue(quality, out var file)
                ? file
                : _files[quality] = strip.WebpsaveBuffer(q: quality, effort: 4, keep: Enums.ForeignKeep.None);
        }
    }
}

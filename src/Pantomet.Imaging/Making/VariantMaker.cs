using Pantomet.Core;
using Pantomet.Core.Facts;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Core.Weight;
using Pantomet.Imaging.Rendering;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Making;

/// <summary>
/// Makes one variant: renders the plan, finds the file within the weight limit, and names every concession, in this order:
/// the next allowed type, a quality below comfort, fewer pixels where the size rule allows it. Then the limit is broken.
/// </summary>
public static class VariantMaker
{
    /// <summary>How often a ceiling rule may be shrunk to meet a weight.</summary>
    private const int MostShrinks = 12;

    /// <summary>Makes a variant with the quality found automatically.</summary>
    /// <param name="path">The original.</param>
    /// <param name="facts">Its facts.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="plan">What to make of it.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public static MadeVariant Make(string path, PictureFacts facts, Slot slot, VariantPlan plan, CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(plan);
        if (!plan.IsMade)
        {
            return new() { Plan = plan, Verdict = plan.Verdict, Reasons = plan.Reasons };
        }

        using var pixels = VariantRenderer.Render(path, facts, plan, slot.Background, slot.Sharpen);
        return Find(pixels, slot, plan, smaller => VariantRenderer.Render(path, facts, smaller, slot.Background, slot.Sharpen), FirstFrame(facts), cancel);
    }

    /// <summary>Finds the file within the limit for pixels that are rendered already.</summary>
    /// <param name="pixels">The pixels of <paramref name="plan"/>.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="plan">What they are.</param>
    /// <param name="render">Renders the plan anew with fewer pixels.</param>
    /// <param name="notes">Reasons known beforehand that change no verdict.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public static MadeVariant Find(
        RenderedPixels pixels, Slot slot, VariantPlan plan, Func<VariantPlan, RenderedPixels> render, IReadOnlyList<Reason> notes, CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(plan);
        ArgumentNullException.ThrowIfNull(render);
        var encodes = 0;
        var attempt = BestOf(pixels, slot, cancel, ref encodes);
        for (var i = 0; !attempt.Fits && plan.MayShrink && i < MostShrinks && plan.Size.ShortSide > 16; i++)
        {
            var factor = Math.Clamp(Math.Sqrt((double)slot.Limits.MaxBytes!.Value.Bytes / attempt.File.LongLength) * 0.97, 0.5, 0.95);
            plan = plan.Shrunk(factor);
            using var smaller = render(plan);
            attempt = BestOf(smaller, slot, cancel, ref encodes);
            attempt.Reasons.Add(new(ReasonCodes.FewerPixels, $"Made at {Figures.Size(plan.Size)} to stay within {slot.Limits.MaxBytes}."));
        }

        return Judge(plan, slot, attempt, encodes, notes, pixels.HasAlpha);
    }

    /// <summary>Makes the file at a type and quality chosen by hand. It is made even over the limit, so that it can be looked at; the verdict says so.</summary>
    /// <param name="pixels">The pixels of <paramref name="plan"/>.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="plan">What they are.</param>
    /// <param name="format">The type.</param>
    /// <param name="quality">1 to 100; nothing to a PNG.</param>
    /// <param name="notes">Reasons known beforehand that change no verdict.</param>
    public static MadeVariant ByHand(RenderedPixels pixels, Slot slot, VariantPlan plan, PictureFormat format, int quality, IReadOnlyList<Reason> notes)
    {
        ArgumentNullException.ThrowIfNull(pixels);
        ArgumentNullException.ThrowIfNull(slot);
        using var encoder = new VariantEncoder(pixels, slot.Background, slot.Ppi);
        var jpeg = format == PictureFormat.Jpeg;
        var file = jpeg ? encoder.Jpeg(quality) : encoder.Png();
        var attempt = new Attempt(file, format, jpeg ? quality : null, !(file.LongLength > slot.Limits.MaxBytes?.Bytes), []);
        return Judge(plan, slot, attempt, 1, notes, pixels.HasAlpha);
    }

    /// <summary>A note where only the first of several frames is used.</summary>
    public static IReadOnlyList<Reason> FirstFrame(PictureFacts facts) => facts is { Frames: > 1 }
        ? [new(ReasonCodes.FirstFrame, $"The original has {facts.Frames} frames; only the first is used.")]
        : [];

    private static MadeVariant Judge(VariantPlan plan, Slot slot, Attempt attempt, int encodes, IReadOnlyList<Reason> notes, bool hasAlpha)
    {
        var reasons = new List<Reason>([.. plan.Reasons, .. attempt.Reasons]);
        var verdict = attempt.Reasons.Count > 0 ? Verdict.Concedes : plan.Verdict;
        if (!attempt.Fits)
        {
            verdict = Verdict.Breaks;
            reasons.Add(new(ReasonCodes.OverWeight, $"The file weighs {Figures.Weight(attempt.File.LongLength)}{AtQuality(attempt)}, {Figures.Count(attempt.File.LongLength - slot.Limits.MaxBytes!.Value.Bytes)} bytes over the limit of {slot.Limits.MaxBytes}."));
        }

        if (hasAlpha && attempt.Format == PictureFormat.Jpeg)
        {
            reasons.Add(new(ReasonCodes.Flattened, $"JPEG has no transparency: it is laid on {Ground(slot)}."));
        }

        reasons.AddRange(notes);
        return new()
        {
            Plan = plan, File = attempt.File, Format = attempt.Format, Quality = attempt.Quality, Encodes = encodes, Verdict = verdict, Reasons = reasons,
        };
    }

    private static string Ground(Slot slot) => slot.Background is null ? "white" : slot.Background.Colour is { } colour ? colour.ToString() : "the edge's colour";

    private static string AtQuality(Attempt attempt) => attempt.Quality is { } quality ? $" at quality {quality}" : "";

    // The first of the slot's types that fits in comfort; else the first that fits at all; else the lightest.
    private static Attempt BestOf(RenderedPixels pixels, Slot slot, CancellationToken cancel, ref int encodes)
    {
        using var encoder = new VariantEncoder(pixels, slot.Background, slot.Ppi);
        var whole = slot.Quality ?? QualityRange.Usual;
        var comfort = slot.Quality ?? new(QualityRange.Comfortable, QualityRange.Usual.Ceiling);
        Attempt? lightest = null;
        foreach (var range in whole == comfort ? [whole] : new[] { comfort, whole with { Ceiling = comfort.Floor - 1 } })
        {
            foreach (var type in slot.Types)
            {
                if (type != PictureFormat.Jpeg && range != comfort)
                {
                    continue;
                }

                var attempt = type == PictureFormat.Jpeg ? AsJpeg(encoder, range, slot, cancel, ref encodes) : AsPng(encoder, slot, cancel, ref encodes);
                if (attempt.Fits)
                {
                    Explain(attempt, slot, range == comfort);
                    return attempt;
                }

                lightest = lightest is null || attempt.File.LongLength < lightest.File.LongLength ? attempt : lightest;
            }
        }

        lightest!.Reasons.Clear();
        return lightest;
    }

    private static void Explain(Attempt attempt, Slot slot, bool comfortable)
    {
        if (attempt.Format != slot.Types[0])
        {
            attempt.Reasons.Add(new(ReasonCodes.NextType, $"{attempt.Format.Label()} instead of {slot.Types[0].Label()}, to stay within {slot.Limits.MaxBytes}."));
        }

        if (!comfortable)
        {
            attempt.Reasons.Add(new(ReasonCodes.LowQuality, $"Quality {attempt.Quality}, below {QualityRange.Comfortable}, to stay within {slot.Limits.MaxBytes}: {Figures.Weight(attempt.File.LongLength)}. Look at it at 100 %."));
        }
    }

    private static Attempt AsJpeg(VariantEncoder encoder, QualityRange range, Slot slot, CancellationToken cancel, ref int encodes)
    {
        var found = QualitySearch.Find(range, slot.Limits.MaxBytes?.Bytes, encoder.CheapJpegWeight, encoder.Jpeg, file => file.LongLength, cancel);
        encodes += found.Encodes;
        return new(found.File, PictureFormat.Jpeg, found.Quality, found.Fits, []);
    }

    private static Attempt AsPng(VariantEncoder encoder, Slot slot, CancellationToken cancel, ref int encodes)
    {
        var limit = slot.Limits.MaxBytes?.Bytes;
        encodes++;
        var lossless = encoder.Png();
        if (limit is null || lossless.LongLength <= limit)
        {
            return new(lossless, PictureFormat.Png, null, true, []);
        }

        cancel.ThrowIfCancellationRequested();
        encodes++;
        var palette = encoder.PalettePng();
        return new(palette, PictureFormat.Png, null, palette.LongLength <= limit,
            [new(ReasonCodes.Palette, $"Reduced to at most 256 colours: lossless it would weigh {Figures.Weight(lossless.LongLength)} of {slot.Limits.MaxBytes}.")]);
    }

    private sealed record Attempt(byte[] File, PictureFormat Format, int? Quality, bool Fits, List<Reason> Reasons);
}

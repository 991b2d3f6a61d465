using Pantomet.Core;
using Pantomet.Core.Facts;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Making;

/// <summary>
/// Makes the files of one plan: renders it, finds the file within the limits, and names every concession, in this order: below the likeness
/// aim, the next allowed type, a quality below the floor where the slot allows it, fewer pixels where the size rule allows it. Then it
/// breaks.
/// </summary>
public static class VariantMaker
{
    /// <summary>How often a ceiling rule may be shrunk to meet a weight.</summary>
    private const int MostShrinks = 12;

    /// <summary>Makes the first type that does, or with <see cref="Slot.Each"/> one file of each type.</summary>
    /// <param name="master">The picture, decoded for this plan among others.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="plan">What to make of it.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public static IReadOnlyList<MadeVariant> Make(PictureMaster master, Slot slot, VariantPlan plan, CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(master);
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(plan);
        if (!plan.IsMade)
        {
            return [NotMade(plan)];
        }

        using var pixels = VariantRenderer.Render(master, plan, slot.Background, slot.Sharpen);
        return Find(
            pixels,
            slot,
            plan,
            master.Facts,
            smaller => VariantRenderer.Render(master, smaller, slot.Background, slot.Sharpen),
            cancel: cancel
        );
    }

    /// <summary>A variant that its plan ruled out.</summary>
    public static MadeVariant NotMade(VariantPlan plan)
    {
        ArgumentNullException.ThrowIfNull(plan);
        return new()
        {
            Plan = plan,
            Verdict = plan.Verdict,
            Reasons = plan.Reasons,
        };
    }

    /// <summary>Finds the files for pixels that are rendered already.</summary>
    /// <param name="pixels">The pixels of <paramref name="plan"/>.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="plan">What they are.</param>
    /// <param name="facts">The picture's facts.</param>
    /// <param name="render">Renders the plan anew with fewer pixels.</param>
    /// <param name="weighed">Told of a file that is found, before its likeness is measured.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public static IReadOnlyList<MadeVariant> Find(
        RenderedPixels pixels,
        Slot slot,
        VariantPlan plan,
        PictureFacts facts,
        Func<VariantPlan, RenderedPixels> render,
        Action<WeighedFile>? weighed = null,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(pixels);
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(plan);
        ArgumentNullException.ThrowIfNull(facts);
        ArgumentNullException.ThrowIfNull(render);
        var types = TypeChooser.Resolve(slot.Types, facts.Kind ?? PictureKind.Photograph, pixels.HasAlpha);
        var groups = slot.Each ? types.Select(type => (IReadOnlyList<PictureFormat>)[type]) : [types];
        return [.. groups.Select(group => First(pixels, slot, plan, facts, group, render, weighed, cancel))];
    }

    /// <summary>
    /// Makes the file at a type and quality chosen by hand. It is made even over the limit, so that it can be looked at; the verdict says
    /// so.
    /// </summary>
    /// <param name="pixels">The pixels of <paramref name="plan"/>.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="plan">What they are.</param>
    /// <param name="facts">The picture's facts.</param>
    /// <param name="format">The type; null takes the slot's first.</param>
    /// <param name="quality">1 to 100; nothing to a PNG.</param>
    /// <param name="weighed">Told of the file before its likeness is measured.</param>
    public static MadeVariant ByHand(
        RenderedPixels pixels,
        Slot slot,
        VariantPlan plan,
        PictureFacts facts,
        PictureFormat? format,
        int quality,
        Action<WeighedFile>? weighed = null
    )
    {
        ArgumentNullException.ThrowIfNull(pixels);
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(plan);
        ArgumentNullException.ThrowIfNull(facts);
        var type = format ?? TypeChooser.Resolve(slot.Types, facts.Kind ?? PictureKind.Photograph, pixels.HasAlpha)[0];
        using var search = new TypeSearch(pixels, slot, facts, CancellationToken.None);
        var attempt = search.ByHand(type, quality);
        weighed?.Invoke(WeighedFile.Of(attempt, plan.Size));
        return Judge(plan, slot, facts, attempt, 1, pixels.HasAlpha);
    }

    private static MadeVariant First(
        RenderedPixels pixels,
        Slot slot,
        VariantPlan plan,
        PictureFacts facts,
        IReadOnlyList<PictureFormat> types,
        Func<VariantPlan, RenderedPixels> render,
        Action<WeighedFile>? weighed,
        CancellationToken cancel
    )
    {
        var encodes = 0;
        var attempt = BestOf(pixels, slot, facts, types, found => weighed?.Invoke(WeighedFile.Of(found, plan.Size)), cancel, ref encodes);
        for (var i = 0; !attempt.Fits && plan.MayShrink && i < MostShrinks && plan.Size.ShortSide > 16; i++)
        {
            var factor = Math.Clamp(Math.Sqrt((double)slot.Limits.MaxBytes!.Value.Bytes / attempt.Bytes) * 0.97, 0.5, 0.95);
            plan = plan.Shrunk(factor);
            using var smaller = render(plan);
            attempt = BestOf(smaller, slot, facts, types, found => weighed?.Invoke(WeighedFile.Of(found, plan.Size)), cancel, ref encodes);
            attempt.Concessions.Add(
                new(ReasonCodes.FewerPixels, $"Made at {Figures.Size(plan.Size)} to stay within {slot.Limits.MaxBytes}.")
            );
        }

        return Judge(plan, slot, facts, attempt, encodes, pixels.HasAlpha);
    }

    // The first type that fits within floor and ceiling; else the first that fits below the floor; else the lightest.
    private static Attempt BestOf(
        RenderedPixels pixels,
        Slot slot,
        PictureFacts facts,
        IReadOnlyList<PictureFormat> types,
        Action<Attempt> found,
        CancellationToken cancel,
        ref int encodes
    )
    {
        using var search = new TypeSearch(pixels, slot, facts, cancel);
        Attempt? lightest = null;
        foreach (var find in (Func<PictureFormat, Attempt?>[])[search.Comfortable, search.BelowFloor])
        {
            foreach (var type in types)
            {
                var attempt = find(type);
                encodes = search.Encodes;
                if (attempt is { Fits: true })
                {
                    if (type != types[0])
                    {
                        attempt.Concessions.Add(
                            new(
                                ReasonCodes.NextType,
                                $"{type.Label()} instead of {types[0].Label()}, to stay within {slot.Limits.MaxBytes}."
                            )
                        );
                    }

                    found(attempt);
                    return attempt.Settled();
                }

                lightest = attempt is not null && (lightest is null || attempt.Bytes < lightest.Bytes) ? attempt : lightest;
            }
        }

        lightest!.Concessions.Clear();
        return lightest.Settled();
    }

    private static MadeVariant Judge(VariantPlan plan, Slot slot, PictureFacts facts, Attempt attempt, int encodes, bool hasAlpha)
    {
        var reasons = new List<Reason>([.. plan.Reasons, .. attempt.Concessions]);
        var verdict = attempt.Concessions.Count > 0 ? Verdict.Concedes : plan.Verdict;
        if (!attempt.Fits)
        {
            verdict = Verdict.Breaks;
            reasons.Add(
                new(
                    ReasonCodes.OverWeight,
                    $"The file weighs {Figures.Weight(attempt.Bytes)}{AtQuality(attempt)}, "
                        + $"{Figures.Count(attempt.Bytes - slot.Limits.MaxBytes!.Value.Bytes)} bytes over the limit of "
                        + $"{slot.Limits.MaxBytes}."
                )
            );
        }

        reasons.AddRange(attempt.Notes);
        if (hasAlpha && attempt.Format == PictureFormat.Jpeg)
        {
            reasons.Add(new(ReasonCodes.Flattened, $"JPEG has no transparency: it is laid on {Ground(slot)}."));
        }

        if (facts.Frames > 1)
        {
            reasons.Add(new(ReasonCodes.FirstFrame, $"The original has {facts.Frames} frames; only the first is used."));
        }

        if (slot.Profile == ProfileRule.Keep && facts.Colours == "CMYK")
        {
            reasons.Add(
                new(ReasonCodes.Profile, "The original is in printing colours (CMYK), which screens show wrongly: converted to sRGB.")
            );
        }

        return new()
        {
            Plan = plan,
            File = attempt.File,
            Format = attempt.Format,
            Quality = attempt.Quality,
            Likeness = attempt.Likeness,
            Encodes = encodes,
            Verdict = verdict,
            Reasons = ReasonCodes.InOrder(reasons),
        };
    }

    private static string Ground(Slot slot) =>
        slot.Background is null ? "white"
        : slot.Background.Colour is { } colour ? colour.ToString()
        : "the edge's colour";

    private static string AtQuality(Attempt attempt) => attempt.Quality is { } quality ? $" at quality {quality}" : "";
}

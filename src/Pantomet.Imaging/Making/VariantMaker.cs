using Pantomet.Core;
using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Making;

/// <summary>
/// Makes the files of one plan: renders it, finds the file within the limits, and names every concession, in this order: below the likeness
/// aim, the next allowed type, a quality below the floor where the slot allows it, fewer pixels where the size rule allows it. Then it
/// breaks. Still and moving pictures go the same way.
/// </summary>
public static class VariantMaker
{
    /// <summary>How often a ceiling rule may be shrunk to meet a weight.</summary>
    private const int MostShrinks = 12;

    /// <summary>Makes the first type that does, or with <see cref="Slot.Each"/> one file of each type.</summary>
    /// <param name="source">Where the pixels come from.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="plan">What to make of it.</param>
    /// <param name="weighed">Told of a file that is found, before its likeness is measured.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public static IReadOnlyList<MadeVariant> Make(
        IPixelSource source,
        Slot slot,
        VariantPlan plan,
        Action<WeighedFile>? weighed = null,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(source);
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(plan);
        if (!plan.IsMade)
        {
            return [NotMade(plan)];
        }

        var call = new Call(source, slot, weighed ?? (_ => { }), cancel);
        if (!slot.Each && MovingPicture.Applies(source.Facts, slot))
        {
            return [First(call, plan, [PictureFormat.WebP], source.Moving)];
        }

        using var still = source.Still(plan);
        var types = TypeChooser.Resolve(slot, still.HasAlpha);
        RenderedPixels Still(VariantPlan wanted) => ReferenceEquals(wanted, plan) ? still.Shared() : source.Still(wanted);
        if (!slot.Each || slot.ByContent)
        {
            return [First(call, plan, types, Still)];
        }

        // What one type was found to look like tells the others what a quality number stands for.
        using var search = new TypeSearch(still, slot, FactsOf(still, source.Facts), plan.Reduction, cancel);
        return
        [
            .. types.Select(type =>
                MovingPicture.Applies(source.Facts, slot, type)
                    ? First(call, plan, [type], source.Moving)
                    : First(call, plan, [type], Still, search)
            ),
        ];
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

    /// <summary>A variant that the imaging library failed at.</summary>
    /// <param name="plan">What it was to be.</param>
    /// <param name="sentence">What is said of it.</param>
    public static MadeVariant Unreadable(VariantPlan plan, string sentence) =>
        new()
        {
            Plan = plan,
            Verdict = Verdict.Breaks,
            Reasons = [new(ReasonCodes.Unreadable, sentence)],
        };

    /// <summary>
    /// Makes the file at a type and quality chosen by hand. It is made even over the limit, so that it can be looked at; the verdict says
    /// so.
    /// </summary>
    /// <param name="source">Where the pixels come from.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="plan">What to make of it.</param>
    /// <param name="format">The type; null takes the slot's first.</param>
    /// <param name="quality">1 to 100; nothing to a PNG.</param>
    /// <param name="weighed">Told of the file before its likeness is measured.</param>
    public static MadeVariant ByHand(
        IPixelSource source,
        Slot slot,
        VariantPlan plan,
        PictureFormat? format,
        int quality,
        Action<WeighedFile>? weighed = null
    )
    {
        ArgumentNullException.ThrowIfNull(source);
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(plan);
        using var pixels =
            (format is { } asked ? MovingPicture.Applies(source.Facts, slot, asked) : MovingPicture.Applies(source.Facts, slot))
                ? source.Moving(plan)
                : source.Still(plan);
        var facts = FactsOf(pixels, source.Facts);
        using var search = new TypeSearch(pixels, slot, facts, plan.Reduction, CancellationToken.None);
        var types = TypeChooser.Resolve(slot, pixels.HasAlpha);
        var lossy = types.Where(one => one != PictureFormat.Png).ToList();
        // A quality is asked for: of what the content may choose, the lightest type that has one.
        var type =
            format
            ?? (
                pixels.Moves ? PictureFormat.WebP
                : slot.ByContent && lossy.Count > 0 ? lossy.MinBy(one => search.ExpectedAt(one, quality))
                : types[0]
            );
        var attempt = search.ByHand(type, quality);
        weighed?.Invoke(WeighedFile.Of(attempt, plan.Size));
        return Judge(plan, slot, source.Facts, attempt, new() { Encodes = search.Encodes, Samples = search.Samples }, pixels);
    }

    // One file: rendered, weighed, made smaller where it may be and must, judged.
    private static MadeVariant First(
        Call call,
        VariantPlan plan,
        IReadOnlyList<PictureFormat> types,
        Func<VariantPlan, RenderedPixels> render,
        TypeSearch? known = null
    )
    {
        var limit = call.Slot.Limits.MaxBytes;
        var tries = new Tries();
        for (var shrinks = 0; ; shrinks++)
        {
            using var pixels = render(plan);
            var size = plan.Size;
            var weighed = (Attempt found) => call.Weighed(WeighedFile.Of(found, size));
            Attempt attempt;
            if (known is not null && shrinks == 0)
            {
                attempt = BestOf(call, known, pixels, types, weighed, tries);
            }
            else
            {
                using var search = new TypeSearch(pixels, call.Slot, FactsOf(pixels, call.Source.Facts), plan.Reduction, call.Cancel);
                attempt = BestOf(call, search, pixels, types, weighed, tries);
            }

            if (shrinks > 0)
            {
                attempt.Concessions.Add(new(ReasonCodes.FewerPixels, ReasonTexts.MadeAtToStayWithin(Figures.Size(plan.Size), limit)));
            }

            if (attempt.Fits || !plan.MayShrink || shrinks == MostShrinks || plan.Size.ShortSide <= 16)
            {
                return Judge(plan, call.Slot, call.Source.Facts, attempt, tries, pixels);
            }

            plan = plan.Shrunk(Math.Clamp(Math.Sqrt((double)limit!.Value.Bytes / attempt.Bytes) * 0.97, 0.5, 0.95));
        }
    }

    // What is drawn over is not of the original: it may leave a few colours of a photograph, and letters have no damage to keep.
    private static PictureFacts FactsOf(RenderedPixels pixels, PictureFacts facts) =>
        pixels.Dressed is not { } dressed
            ? facts
            : facts with
            {
                Kind = ContentReader.KindOf(pixels.Image),
                JpegQuality = dressed.TitleBox is null && dressed.MarkBox is null ? facts.JpegQuality : null,
            };

    private static Attempt BestOf(
        Call call,
        TypeSearch search,
        RenderedPixels pixels,
        IReadOnlyList<PictureFormat> types,
        Action<Attempt> found,
        Tries tries
    )
    {
        var (encodes, samples) = (search.Encodes, search.Samples);
        var contest = new TypeContest(search, call.Slot, FactsOf(pixels, call.Source.Facts).Kind ?? PictureKind.Photograph);
        var attempt = call.Slot.ByContent && types.Count > 1 ? contest.Lightest(types) : contest.InOrder(types);
        if (attempt.Fits)
        {
            found(attempt);
        }

        tries.Encodes += search.Encodes - encodes;
        tries.Samples += search.Samples - samples;
        return attempt.Settled();
    }

    private static MadeVariant Judge(VariantPlan plan, Slot slot, PictureFacts facts, Attempt attempt, Tries tries, RenderedPixels pixels)
    {
        var reasons = new List<Reason>(attempt.Concessions);
        var own = attempt.Concessions.Count > 0 ? Verdict.Concedes : Verdict.Meets;
        if (!attempt.Fits)
        {
            own = Verdict.Breaks;
            reasons.Add(
                new(
                    ReasonCodes.OverWeight,
                    ReasonTexts.TheWeighsBytesOverTheLimit(
                        (pixels.Moves ? ReasonTexts.Animation : "file"),
                        Figures.Weight(attempt.Bytes),
                        AtQuality(attempt),
                        Figures.Count(attempt.Bytes - slot.Limits.MaxBytes!.Value.Bytes),
                        slot.Limits.MaxBytes,
                        (pixels.Moves ? ReasonTexts.FewerFramesOrAStillPicture : "")
                    )
                )
            );
        }

        if (pixels.Dressed is { } dressed && Dressings.Reasons(slot, dressed) is { Count: > 0 } conceded)
        {
            own = own == Verdict.Meets ? Verdict.Concedes : own;
            reasons.AddRange(conceded);
        }

        // An even edge goes on unseen; a blurred one is something to look at.
        if (pixels.Extended.Count > 0)
        {
            own = own == Verdict.Meets && pixels.Extended.Any(side => side.Colour is null) ? Verdict.Concedes : own;
            reasons.Add(Dressings.Reason(pixels.Extended));
        }

        reasons.AddRange(attempt.Notes);
        if (pixels.HasAlpha && attempt.Format == PictureFormat.Jpeg)
        {
            reasons.Add(new(ReasonCodes.Flattened, ReasonTexts.JPEGHasNoTransparencyItsBackground(BackgroundOf(slot))));
        }

        if (facts.Frames > 1 && !pixels.Moves)
        {
            reasons.Add(new(ReasonCodes.FirstFrame, ReasonTexts.TheOriginalHasFramesOnlyThe(facts.Frames)));
        }

        if (slot.Profile == ProfileRule.Keep && facts.Colours == "CMYK")
        {
            reasons.Add(new(ReasonCodes.Profile, ReasonTexts.TheOriginalHasCMYKColoursWhich));
        }

        var (verdict, all) = Judgement.Of(plan, own, reasons);
        return new()
        {
            Plan = plan,
            File = attempt.File,
            Format = attempt.Format,
            Quality = attempt.Quality,
            Likeness = attempt.Likeness,
            Encodes = tries.Encodes,
            Trials = tries.Samples,
            Dressed = pixels.Dressed,
            Verdict = verdict,
            Reasons = all,
        };
    }

    private static string BackgroundOf(Slot slot) =>
        slot.Background is null ? "white"
        : slot.Background.Colour is { } colour ? colour.ToString()
        : ReasonTexts.TheEdgesColour;

    private static string AtQuality(Attempt attempt) => attempt.Quality is { } quality ? ReasonTexts.AtQuality(quality) : "";

    private sealed class Tries
    {
        public int Encodes { get; set; }

        public int Samples { get; set; }
    }

    private sealed record Call(IPixelSource Source, Slot Slot, Action<WeighedFile> Weighed, CancellationToken Cancel);
}

using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Objects;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Making;

/// <summary>A slot that a picture is to fill, with all its densities or widths.</summary>
/// <param name="Slot">The slot.</param>
/// <param name="Hand">The frame set by hand, if there is one.</param>
public sealed record Wanted(Slot Slot, Frame? Hand);

/// <summary>What came of one picture.</summary>
/// <param name="Facts">Its facts; null when it cannot be read.</param>
/// <param name="Refusal">Why it cannot be read.</param>
/// <param name="Made">The files, in the order of what was wanted; for one slot several, by density or width and type.</param>
public sealed record MadePicture(PictureFacts? Facts, string? Refusal, IReadOnlyList<IReadOnlyList<MadeVariant>> Made);

/// <summary>
/// Makes many variants of one picture from one decode: at the smallest scale that serves them all, each derived from that, the
/// encodes spread over the workers of a room.
/// </summary>
public static class PictureMaker
{
    /// <summary>Reads a picture and makes everything that is wanted of it.</summary>
    /// <param name="path">The original.</param>
    /// <param name="keep">Boxes that must stay whole.</param>
    /// <param name="focus">A focus point.</param>
    /// <param name="wanted">What to make.</param>
    /// <param name="room">Where the work is done.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public static async Task<MadePicture> MakeAsync(
        string path,
        IReadOnlyList<Frame> keep,
        FocusPoint? focus,
        IReadOnlyList<Wanted> wanted,
        WorkRoom room,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(room);
        ArgumentNullException.ThrowIfNull(wanted);
        var read = await room.RunAsync(() => PictureReader.ReadFacts(path), cancel);
        if (read.Facts is not { } facts)
        {
            return new(null, read.Refusal, []);
        }

        // Before anything is decoded, the widest frames tell how fine the decode must be.
        List<VariantPlan> provisional = [.. Plans(facts, wanted, Subject.Of(keep, focus, null)).Select(one => one.Plan)];
        using var hold = await room.HoldAsync(PictureMaster.BytesFor(facts, provisional), cancel);
        // Looked at as it is when it is read into a library, whatever is wanted of it: its subject must not depend on that.
        var framed =
            keep.Count == 0 && focus is null && wanted.Any(one => one.Hand is null && VariantPlanner.NeedsSubject(facts.Size, one.Slot));
        var looking = room.RunAsync(
            () =>
            {
                var content = ContentReader.Read(path, facts);
                return framed ? SubjectDetector.Sought(path, content) : content;
            },
            cancel
        );
        var colours = FirstColours(wanted, facts);
        var decoding = room.RunAsync(() => PictureMaster.Decode(path, facts, provisional, colours, whole: true), cancel);
        try
        {
            await Task.WhenAll(looking, decoding);
        }
        catch (VipsException fault)
        {
            return new(null, ImagingFault.Sentence(fault, PictureReader.Damaged(facts.Format).Refusal!), []);
        }
        finally
        {
            if (!looking.IsCompletedSuccessfully && decoding.IsCompletedSuccessfully)
            {
                decoding.Result.Dispose();
            }
        }

        using var whole = await decoding;
        if (PictureReader.IsCutShort(path, facts))
        {
            return new(null, PictureReader.Damaged(facts.Format).Refusal, []);
        }

        facts = await looking;
        whole.Know(facts);
        var plans = Plans(facts, wanted, Subject.Of(keep, focus, facts.Suggestion));
        var made = await MakeAllAsync(path, facts, plans, whole, colours, room, cancel);
        var byPlace = plans.Zip(made).ToLookup(pair => pair.First.Place, pair => pair.Second);
        return new(facts, null, [.. wanted.Select((_, place) => byPlace[place].SelectMany(files => files).ToList())]);
    }

    private static Planned[] Plans(PictureFacts facts, IReadOnlyList<Wanted> wanted, Subject subject) =>
        [
            .. wanted.SelectMany(
                (one, place) =>
                    VariantPlanner.PlanAll(facts.Size, one.Slot, one.Hand, subject).Select(plan => new Planned(place, one.Slot, plan))
            ),
        ];

    private static async Task<IReadOnlyList<IReadOnlyList<MadeVariant>>> MakeAllAsync(
        string path,
        PictureFacts facts,
        Planned[] plans,
        PictureMaster whole,
        ProfileRule colours,
        WorkRoom room,
        CancellationToken cancel
    )
    {
        var made = new IReadOnlyList<MadeVariant>[plans.Length];
        foreach (var group in Enumerable.Range(0, plans.Length).GroupBy(i => ColoursOf(plans[i].Slot, facts)))
        {
            var mine = group.ToList();
            var theirs = mine.Select(i => plans[i].Plan).Where(plan => plan.IsMade).ToList();
            using var own =
                theirs.Count > 0 && (group.Key != colours || !whole.Serves(theirs))
                    ? await room.RunAsync(() => PictureMaster.Decode(path, facts, theirs, group.Key), cancel)
                    : null;
            // The largest first: what is left at the end is short.
            await Task.WhenAll(
                mine.OrderByDescending(i => plans[i].Plan.Size.Area)
                    .Select(async i =>
                        made[i] = await room.RunAsync(() => MakeSafely(own ?? whole, plans[i].Slot, plans[i].Plan, cancel), cancel)
                    )
            );
        }

        return made;
    }

    private readonly record struct Planned(int Place, Slot Slot, VariantPlan Plan);

    // What most slots want; where all keep the profile, nothing is decoded in other colours first.
    private static ProfileRule FirstColours(IReadOnlyList<Wanted> wanted, PictureFacts facts) =>
        wanted.Count > 0 && wanted.All(one => ColoursOf(one.Slot, facts) == ProfileRule.Keep) ? ProfileRule.Keep : ProfileRule.Srgb;

    // A picture without a profile is sRGB either way.
    private static ProfileRule ColoursOf(Slot slot, PictureFacts facts) => facts.Profile is null ? ProfileRule.Srgb : slot.Profile;

    // What the decoder or encoder cannot do for one slot must not stop the others.
    private static IReadOnlyList<MadeVariant> MakeSafely(PictureMaster master, Slot slot, VariantPlan plan, CancellationToken cancel)
    {
        try
        {
            return VariantMaker.Make(new MasterPixels(master, slot, cancel), slot, plan, cancel: cancel);
        }
        catch (VipsException fault)
        {
            return [VariantMaker.Unreadable(plan, ImagingFault.Sentence(fault, ReasonTexts.ThePictureCouldNotBeDecoded))];
        }
    }
}

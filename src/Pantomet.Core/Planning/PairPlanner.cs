using System.Text.Json.Serialization;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Planning;

/// <summary>One picture of a pair.</summary>
/// <param name="Size">The picture as displayed.</param>
/// <param name="Subject">What its frame is to show.</param>
/// <param name="Hand">Its frame set by hand; null where there is none.</param>
public sealed record PairPart(PixelSize Size, Subject Subject, Frame? Hand = null);

/// <summary>Where one picture of a pair comes to lie.</summary>
/// <param name="Crop">What is cut out of it.</param>
/// <param name="Place">Where that lies in the file.</param>
public readonly record struct PlacedPart(Crop Crop, Crop Place)
{
    /// <summary>Pixels of the picture for one of the file, along the side that is reduced less.</summary>
    [JsonIgnore]
    public double Reduction => Math.Min((double)Crop.Width / Place.Width, (double)Crop.Height / Place.Height);
}

/// <summary>
/// Sets two to four pictures side by side at one height, an exact gap between them. They share the slot's width alike, unless one needs
/// more to hold its keep box.
/// </summary>
/// <remarks>
/// A part of ratio r holds a keep box of k × l of a picture of W × H whole exactly when k / H ≤ r ≤ W / l. The widths are cut to these
/// ranges, what is left over is shared among those that have room. Without a shape of its own the slot takes the pictures whole: at width
/// w and with gaps g the height is (w − g) / Σ(W / H).
/// </remarks>
public static class PairPlanner
{
    /// <summary>The size of pictures laid side by side whole, without a gap, at the height of the lowest.</summary>
    /// <param name="pictures">Their sizes as displayed.</param>
    public static PixelSize Beside(IReadOnlyList<PixelSize> pictures)
    {
        ArgumentNullException.ThrowIfNull(pictures);
        var height = pictures.Min(one => one.Height);
        return new(pictures.Sum(one => Rounding.ToPixels((double)one.Width * height / one.Height)), height);
    }

    /// <summary>Plans every file of the slot: one for each density, or for each width of its ladder.</summary>
    /// <param name="parts">The pictures, as many as the slot takes.</param>
    /// <param name="slot">The slot, which has a pair and a set width.</param>
    public static IReadOnlyList<VariantPlan> PlanAll(IReadOnlyList<PairPart> parts, Slot slot)
    {
        ArgumentNullException.ThrowIfNull(parts);
        ArgumentNullException.ThrowIfNull(slot);
        // A ladder ends where its pictures do.
        return
        [
            .. slot
                .Descriptors.Select(descriptor => Plan(parts, slot, descriptor))
                .DistinctBy(plan => slot.Responsive is null ? (object)plan.Descriptor : plan.Size),
        ];
    }

    private static VariantPlan Plan(IReadOnlyList<PairPart> parts, Slot slot, Descriptor descriptor)
    {
        var (rule, shown) = (slot.Pair!, slot.SetWidth!.Value);
        var width = descriptor.Width ?? Rounding.ToPixels(shown * descriptor.Density!.Value.Value);
        var asked = At(parts, slot, rule, width, shown);
        // Never enlarged: what the least fine part offers, all of it offers.
        var honest = asked.Parts.Min(part => part.Reduction);
        var made = asked;
        var reasons = new List<Reason>();
        var verdict = Verdict.Meets;
        if (honest < 1)
        {
            verdict = slot.WhenTooSmall switch
            {
                WhenTooSmall.Skip => Verdict.Skipped,
                WhenTooSmall.Break => Verdict.Breaks,
                _ => Verdict.Concedes,
            };
            while (honest < 1)
            {
                // Rounding may ask for a pixel less than the quotient says.
                width = Math.Max(1, Math.Min((int)Math.Floor(width * honest), width - 1));
                made = At(parts, slot, rule, width, shown);
                honest = made.Parts.Min(part => part.Reduction);
                if (width == 1)
                {
                    break;
                }
            }
        }

        for (var i = 0; i < parts.Count; i++)
        {
            var told = new List<Reason>();
            var own = FramingReasons.Judge(parts[i].Size, made.Solved[i], slot, parts[i].Subject.Suggestion, told);
            verdict = own == Verdict.Concedes && verdict == Verdict.Meets ? Verdict.Concedes : verdict;
            reasons.AddRange(told.Select(reason => reason with { Message = ReasonTexts.Picture(i + 1, reason.Message) }));
        }

        if (made.Size != asked.Size)
        {
            reasons.Add(
                new(
                    ReasonCodes.TooSmall,
                    ReasonTexts.ThePicturesHaveThisSlotNeeds(Figures.Size(made.Size), Figures.Size(asked.Size))
                        + verdict switch
                        {
                            Verdict.Skipped => ReasonTexts.Skipped,
                            Verdict.Breaks => ReasonTexts.NotMade,
                            _ => ReasonTexts.MadeInTheLargestTrueSize,
                        }
                )
            );
        }

        return new()
        {
            Descriptor = descriptor,
            Crop = made.Parts[0].Crop,
            Parts = made.Parts,
            Kept = slot.Dress.Mark is null
                ? []
                :
                [
                    .. parts.SelectMany(
                        (part, i) =>
                            VariantPlanner.KeptIn(
                                part.Size,
                                made.Parts[i].Crop,
                                made.Size,
                                made.Parts[i].Place.Size,
                                made.Parts[i].Place,
                                part.Subject
                            )
                    ),
                ],
            Size = made.Size,
            Content = made.Size,
            Asked = asked.Size,
            Offered = (double)made.Size.Width / shown,
            Verdict = verdict,
            Reasons = ReasonCodes.InOrder(reasons),
            MayShrink = false,
        };
    }

    private static (PixelSize Size, IReadOnlyList<PlacedPart> Parts, IReadOnlyList<SolvedFrame> Solved) At(
        IReadOnlyList<PairPart> parts,
        Slot slot,
        PairRule rule,
        int width,
        int shown
    )
    {
        var gaps = parts.Count - 1;
        // Where gaps leave no room, they give way.
        var gap = Math.Min(
            (int)Math.Round(rule.Gap * width / shown, MidpointRounding.AwayFromZero),
            Math.Max(0, (width - parts.Count) / gaps)
        );
        var room = Math.Max(parts.Count, width - (gap * gaps));
        var height = slot.FrameShape is { } shape
            ? shape.HeightFor(width)
            : Math.Max(1, Rounding.ToPixels(room / parts.Sum(part => (double)part.Size.Width / part.Size.Height)));
        var widths = WholeWidths(
            slot.FrameShape is null
                ? [.. parts.Select(part => (double)part.Size.Width / part.Size.Height * height)]
                : Shared(parts, room, height),
            room
        );
        var (placed, solved) = (new List<PlacedPart>(), new List<SolvedFrame>());
        var left = 0;
        for (var i = 0; i < parts.Count; i++)
        {
            var (part, place) = (parts[i], new Crop(left, 0, left + widths[i], height));
            var frame = FrameSolver.Solve(part.Size, Ratio.Of(place.Size), part.Hand, part.Subject);
            var crop = frame.Region.CropFor(place.Size, part.Size);
            placed.Add(
                new(
                    frame.Cut.IsNone && part.Subject.Keep is { } keep && part.Hand is null
                        ? crop.Holding(keep.In(part.Size), part.Size)
                        : crop,
                    place
                )
            );
            solved.Add(frame);
            left += widths[i] + gap;
        }

        return (new(width, height), placed, solved);
    }

    // Alike, as far as each can hold its keep box at such a width; what that frees or asks for is shared by the others.
    private static double[] Shared(IReadOnlyList<PairPart> parts, int room, int height)
    {
        var ranges = parts.Select(part => WidthsHolding(part, height)).ToArray();
        if (ranges.Sum(range => range.Least) > room || ranges.Sum(range => range.Most) < room)
        {
            return [.. Enumerable.Repeat((double)room / parts.Count, parts.Count)];
        }

        // Between the level at which all take their least and that at which all take their most lies one at which they fill the room.
        var (low, high) = (0.0, (double)room);
        for (var i = 0; i < 60; i++)
        {
            var level = (low + high) / 2;
            (low, high) = ranges.Sum(range => Math.Clamp(level, range.Least, range.Most)) > room ? (low, level) : (level, high);
        }

        return [.. ranges.Select(range => Math.Clamp(low, range.Least, range.Most))];
    }

    private static (double Least, double Most) WidthsHolding(PairPart part, int height)
    {
        // A frame by hand is as it is, and a suggestion nobody confirmed asks for nothing.
        if (part.Hand is not null || part.Subject is not { Keep: { } keep, Suggestion: null })
        {
            return (1, double.MaxValue);
        }

        var box = keep.In(part.Size);
        // A pixel more, as widths become whole.
        return ((box.Width / part.Size.Height * height) + 1, Math.Max(1, (part.Size.Width / box.Height * height) - 1));
    }

    // Whole pixels that fill the room: the largest remainders get the pixels that are left.
    private static int[] WholeWidths(double[] exact, int room)
    {
        var scale = room / exact.Sum();
        var whole = exact.Select(one => Math.Max(1, (int)Math.Floor((one * scale) + 1e-6))).ToArray();
        foreach (
            var i in Enumerable
                .Range(0, exact.Length)
                .OrderByDescending(i => (exact[i] * scale) - whole[i])
                .Take(Math.Max(0, room - whole.Sum()))
        )
        {
            whole[i]++;
        }

        return whole;
    }
}

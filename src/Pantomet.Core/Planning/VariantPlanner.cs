using Pantomet.Core.Dressing;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Planning;

/// <summary>Decides what a variant will be: which part of the picture, at which pixel size, and what is missing for it.</summary>
public static class VariantPlanner
{
    /// <summary>Plans every variant of a slot: one for each density, or for each width of its ladder, from the smallest up.</summary>
    /// <param name="picture">The picture as displayed.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="hand">A frame set by hand.</param>
    /// <param name="subject">What the frame is to show.</param>
    public static IReadOnlyList<VariantPlan> PlanAll(PixelSize picture, Slot slot, Frame? hand = null, Subject subject = default)
    {
        ArgumentNullException.ThrowIfNull(slot);
        var solved = Framed(picture, slot, hand, subject);
        var honest = HonestOf(slot, solved.Native(picture));
        var descriptors = slot.Responsive is { } responsive
            ? responsive.Widths(honest ?? Rounding.LongestSide).Select(Descriptor.Wide)
            : slot.Densities.Select(density => Descriptor.Of(density));
        return [.. descriptors.Select(descriptor => Plan(picture, slot, descriptor, solved, honest, subject))];
    }

    /// <summary>Plans one variant.</summary>
    /// <param name="picture">The picture as displayed.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="descriptor">One of the slot's densities, or a width of its ladder.</param>
    /// <param name="hand">A frame set by hand.</param>
    /// <param name="subject">What the frame is to show.</param>
    public static VariantPlan Plan(PixelSize picture, Slot slot, Descriptor descriptor, Frame? hand = null, Subject subject = default)
    {
        ArgumentNullException.ThrowIfNull(slot);
        var solved = Framed(picture, slot, hand, subject);
        return Plan(picture, slot, descriptor, solved, HonestOf(slot, solved.Native(picture)), subject);
    }

    /// <summary>
    /// True where what the picture shows could change what is cut out of it: the frame could lie elsewhere, or close in on a product.
    /// </summary>
    /// <param name="picture">The picture as displayed.</param>
    /// <param name="slot">The slot, for which no frame is set by hand.</param>
    public static bool NeedsSubject(PixelSize picture, Slot slot)
    {
        ArgumentNullException.ThrowIfNull(slot);
        return slot.FrameShape is not null
            && (
                slot.SubjectShare is not null
                || PlanAll(picture, slot)
                    .Any(plan =>
                        picture.Width - plan.Crop.Width > picture.Width * HardlyAny
                        || picture.Height - plan.Crop.Height > picture.Height * HardlyAny
                    )
            );
    }

    // What a frame of nearly the picture's own shape leaves out is less than anybody would choose by.
    private const double HardlyAny = 0.01;

    private static VariantPlan Plan(PixelSize picture, Slot slot, Descriptor descriptor, SolvedFrame solved, int? honest, Subject subject)
    {
        var native = solved.Native(picture);
        var density = descriptor.Density ?? Density.One;
        var wanted = descriptor.Width is { } width ? OnLadder(slot, native, width) : Wanted(slot, native, density);
        var reasons = new List<Reason>();
        var verdict = FramingReasons.Judge(picture, solved, slot, subject.Suggestion, reasons);
        var content = wanted.Content;
        var offered = (double)density.Value;
        if (!content.FitsIn(native))
        {
            offered *= Math.Min((double)native.Width / content.Width, (double)native.Height / content.Height);
            verdict = slot.WhenTooSmall switch
            {
                WhenTooSmall.Skip => Verdict.Skipped,
                WhenTooSmall.Break => Verdict.Breaks,
                _ => Verdict.Concedes,
            };
            content = Honest.Largest(slot.FrameShape ?? Ratio.Of(native), native);
        }

        var size = wanted.HasMargins ? wanted.Canvas : content;
        (size, content, verdict) = Limited(slot, size, content, verdict, reasons);
        if (!wanted.Content.FitsIn(native))
        {
            // Said once it is known whether the largest honest size is one that the slot takes.
            var instead = verdict switch
            {
                Verdict.Skipped => ReasonTexts.Skipped,
                Verdict.Breaks => ReasonTexts.NotMade,
                _ => ReasonTexts.MadeInTheLargestTrueSize,
            };
            reasons.Add(
                new(
                    ReasonCodes.TooSmall,
                    descriptor.Width is null
                        ? $"{Short(native, wanted.Content, offered, density)} {instead}"
                        : ReasonTexts.TheCropHasThisSlotNeeds(Figures.Size(native), Figures.Size(wanted.Content), instead)
                )
            );
        }
        else if (CutShort(slot, native, descriptor.Width, honest) is { } fewer)
        {
            verdict = verdict == Verdict.Meets ? Verdict.Concedes : verdict;
            reasons.Add(fewer);
        }

        var place = solved.Extended ? PlaceOf(solved.Region, size, picture) : (Crop?)null;
        content = place?.Size ?? content;
        var crop = place is not null
            ? InPicture(solved.Region, picture).CropFor(content, picture).Holding(subject.Keep!.Value.In(picture), picture)
            : Cut(solved, slot, native, size, picture, subject);
        return new()
        {
            Descriptor = descriptor,
            Crop = crop,
            Kept = slot.Dress.Mark is null ? [] : KeptIn(picture, crop, size, content, place, subject),
            Place = place,
            Size = size,
            Content = content,
            Asked = wanted.Canvas,
            Offered = descriptor.Width is null ? offered : 1,
            Verdict = slot.Pair is null ? verdict : Verdict.Skipped,
            Reasons = slot.Pair is { } pair ? [Single(pair)] : ReasonCodes.InOrder(reasons),
            MayShrink = descriptor.Width is null && slot.Size.IsCeiling,
        };
    }

    /// <summary>The frame that a slot shows of a picture, before any pixel size is known.</summary>
    /// <param name="picture">The picture as displayed.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="hand">A frame set by hand.</param>
    /// <param name="subject">What the frame is to show.</param>
    public static SolvedFrame Framed(PixelSize picture, Slot slot, Frame? hand = null, Subject subject = default)
    {
        ArgumentNullException.ThrowIfNull(slot);
        // Where the whole picture is shown, nothing of it can be cut by the shape; only a frame by hand is checked.
        return slot.Fit == Fit.Crop
            ? FrameSolver.Solve(picture, slot.FrameShape, hand, subject, slot.Uncovered, slot.SubjectShare, slot.Toward, slot.Extend)
            : FrameSolver.Solve(picture, null, hand, subject);
    }

    private static Region InPicture(Region frame, PixelSize picture)
    {
        var (left, top) = (Math.Max(0, frame.X), Math.Max(0, frame.Y));
        return new(left, top, Math.Min(picture.Width, frame.Right) - left, Math.Min(picture.Height, frame.Bottom) - top);
    }

    // Where the picture lies in a file whose frame leaves it, in whole pixels.
    private static Crop PlaceOf(Region frame, PixelSize size, PixelSize picture)
    {
        var (across, down) = (size.Width / frame.Width, size.Height / frame.Height);
        var (left, top) = (Whole(-frame.X * across), Whole(-frame.Y * down));
        return new(
            Math.Min(left, size.Width - 1),
            Math.Min(top, size.Height - 1),
            Math.Max(left + 1, size.Width - Whole((frame.Right - picture.Width) * across)),
            Math.Max(top + 1, size.Height - Whole((frame.Bottom - picture.Height) * down))
        );

        static int Whole(double beyond) => (int)Math.Round(Math.Max(0, beyond), MidpointRounding.AwayFromZero);
    }

    private static Reason Single(PairRule pair) => new(ReasonCodes.Pair, ReasonTexts.ThisSlotCombinesPicturesSideBy(pair.Count));

    // Where in the file the keep box comes to lie, in whole pixels around it; nothing where none of it is shown.
    internal static IReadOnlyList<KeptBox> KeptIn(
        PixelSize picture,
        Crop crop,
        PixelSize size,
        PixelSize content,
        Crop? place,
        Subject subject
    )
    {
        if (subject.Keep?.In(picture) is not { } keep)
        {
            return [];
        }

        var (across, down) = ((double)content.Width / crop.Width, (double)content.Height / crop.Height);
        var (left, top) = place is { } at ? (at.Left, at.Top) : ((size.Width - content.Width) / 2, (size.Height - content.Height) / 2);
        var box = new Crop(
            Math.Max(left, left + (int)Math.Floor((keep.X - crop.Left) * across)),
            Math.Max(top, top + (int)Math.Floor((keep.Y - crop.Top) * down)),
            Math.Min(left + content.Width, left + (int)Math.Ceiling((keep.Right - crop.Left) * across)),
            Math.Min(top + content.Height, top + (int)Math.Ceiling((keep.Bottom - crop.Top) * down))
        );
        return box.Width > 0 && box.Height > 0 ? [new(box, subject.Suggestion is not null)] : [];
    }

    private static Crop Cut(SolvedFrame solved, Slot slot, PixelSize native, PixelSize size, PixelSize picture, Subject subject)
    {
        if (slot.FrameShape is null)
        {
            return AsFramed(solved.Region, native, picture);
        }

        var crop = solved.Region.CropFor(size, picture);
        return solved.Origin == FrameOrigin.Kept && solved.Cut.IsNone && subject.Keep is { } keep
            ? crop.Holding(keep.In(picture), picture)
            : crop;
    }

    // What the slot asks of a framing for one width of its ladder; the size rule gives the shape alone.
    private static (PixelSize Canvas, PixelSize Content, bool HasMargins) OnLadder(Slot slot, PixelSize native, int width)
    {
        var shape = Ratio.Of(native);
        var canvas = new PixelSize(width, (LadderShape(slot) ?? shape).HeightFor(width));
        return slot.Fit == Fit.Mat ? (canvas, Honest.Largest(shape, canvas), true) : (canvas, canvas, false);
    }

    // A mat has the shape of its box; what is shown whole has the picture's own.
    private static Ratio? LadderShape(Slot slot) =>
        slot.Fit switch
        {
            Fit.Crop => slot.FrameShape,
            Fit.Mat => slot.Size.Shape ?? (slot.Size is SizeRule.Within within ? Ratio.Of(within.Box) : null),
            _ => null,
        };

    // Where a ladder ends when its picture has too few pixels; null where it does not end before what is needed.
    private static int? HonestOf(Slot slot, PixelSize native) =>
        slot is { Responsive: not null, WhenTooSmall: WhenTooSmall.Cap } ? WidestHonest(slot, native) : null;

    // The widest file for which the frame has pixels and which the slot's largest sides allow.
    private static int WidestHonest(Slot slot, PixelSize native)
    {
        var shape = LadderShape(slot) ?? Ratio.Of(native);
        var most = new PixelSize(slot.Limits.MaxWidth ?? Rounding.LongestSide, slot.Limits.MaxHeight ?? Rounding.LongestSide);
        var width = Math.Min(Honest.Largest(shape, most).Width, slot.Responsive!.Needs.Largest);
        if (!Fits(width))
        {
            var (low, high) = (1, width);
            while (low < high)
            {
                var middle = (low + high + 1) / 2;
                (low, high) = Fits(middle) ? (middle, high) : (low, middle - 1);
            }

            width = low;
        }

        return width;

        bool Fits(int across) =>
            OnLadder(slot, native, across) is var wanted && wanted.Content.FitsIn(native) && wanted.Canvas.FitsIn(most);
    }

    // The widest file of a ladder that ends before the widest need.
    private static Reason? CutShort(Slot slot, PixelSize native, int? width, int? honest)
    {
        if (slot.Responsive is not { Needs.Largest: var needed } || width is null || width >= needed || width != honest)
        {
            return null;
        }

        var ends = ReasonTexts.PxAreNeededAtTheWidest(Figures.Count(needed), Figures.Count(width.Value));
        return OnLadder(slot, native, width.Value + 1).Content.FitsIn(native)
            ? new(ReasonCodes.LargestSide, ReasonTexts.TheSlotAllowsNoMore(ends))
            : new(ReasonCodes.TooSmall, ReasonTexts.TheCropHasFewerFilesAre(ends, Figures.Size(native)));
    }

    private static string Short(PixelSize native, PixelSize asked, double offered, Density density) =>
        density == Density.One
            ? ReasonTexts.TheCropHasTheSlotAsks(Figures.Size(native), Figures.Size(asked), Times(offered))
            : ReasonTexts.TheCropHasTheSlotAsks2(Figures.Size(native), Figures.Size(asked), Times(offered), density);

    // Rounded down, so that 1.996 never reads as the 2 that was asked.
    private static string Times(double offered) => Figures.Number(Math.Floor(offered * 100) / 100) + "x";

    // What the slot asks of a framing: the file's size and, where margins are laid, the picture's size within it.
    private static (PixelSize Canvas, PixelSize Content, bool HasMargins) Wanted(Slot slot, PixelSize native, Density density)
    {
        var shape = Ratio.Of(native);
        if (slot.Fit == Fit.Crop || (slot.Size.Shape is null && slot.Size is not SizeRule.Within))
        {
            var asked = slot.Size.Asked(native, density);
            return (asked, asked, false);
        }

        if (slot.Size is SizeRule.ShapeAlone alone)
        {
            // No pixels are given: the picture keeps its own, and a mat grows around it to the shape.
            if (slot.Fit == Fit.Whole)
            {
                var asked = Times(native, density);
                return (asked, asked, false);
            }

            var box =
                shape.Value > alone.Ratio.Value
                    ? new PixelSize(native.Width, Math.Max(native.Height, alone.Ratio.HeightFor(native.Width)))
                    : new PixelSize(Math.Max(native.Width, alone.Ratio.WidthFor(native.Height)), native.Height);
            return (box, Times(native, density), true);
        }

        var room =
            slot.Size is SizeRule.Within within && slot.Fit == Fit.Mat ? Times(within.Box, density) : slot.Size.Asked(native, density);
        if (slot.Fit == Fit.Whole)
        {
            var asked = slot.Size is SizeRule.Within ? room : Honest.Largest(shape, room);
            return (asked, asked, false);
        }

        var inside = Honest.Largest(shape, room);
        return (room, slot.Size.IsCeiling && native.FitsIn(inside) && density <= Density.One ? native : inside, true);
    }

    private static PixelSize Times(PixelSize size, Density density) =>
        new(Rounding.ToPixels(size.Width * density.Value), Rounding.ToPixels(size.Height * density.Value));

    // Keeps the size within the slot's hard sides.
    private static (PixelSize Size, PixelSize Content, Verdict Verdict) Limited(
        Slot slot,
        PixelSize size,
        PixelSize content,
        Verdict verdict,
        List<Reason> reasons
    )
    {
        var limits = slot.Limits;
        var most = new PixelSize(limits.MaxWidth ?? Rounding.LongestSide, limits.MaxHeight ?? Rounding.LongestSide);
        if (!size.FitsIn(most))
        {
            var shape = slot.Fit == Fit.Crop && slot.Size.Shape is { } fixedShape ? fixedShape : Ratio.Of(size);
            var smaller = Honest.Largest(shape, most);
            if (!slot.Size.IsCeiling)
            {
                verdict = verdict == Verdict.Meets ? Verdict.Concedes : verdict;
                reasons.Add(
                    new(
                        ReasonCodes.LargestSide,
                        ReasonTexts.IsLargerThanTheSlotsMaximum(
                            Figures.Size(size),
                            SideWords(limits.MaxWidth, limits.MaxHeight),
                            Figures.Size(smaller)
                        )
                    )
                );
            }

            content =
                content == size
                    ? smaller
                    : Honest.Largest(
                        Ratio.Of(content),
                        new(Math.Min(content.Width, smaller.Width), Math.Min(content.Height, smaller.Height))
                    );
            size = smaller;
        }

        if (verdict != Verdict.Skipped && (size.Width < (limits.MinWidth ?? 1) || size.Height < (limits.MinHeight ?? 1)))
        {
            verdict = Verdict.Breaks;
            reasons.Add(
                new(
                    ReasonCodes.SmallestSide,
                    ReasonTexts.IsSmallerThanTheSlotsMinimum(Figures.Size(size), SideWords(limits.MinWidth, limits.MinHeight))
                )
            );
        }

        return (size, content, verdict);
    }

    private static string SideWords(int? width, int? height) =>
        (width, height) switch
        {
            ({ } w, { } h) => Figures.Size(new(w, h)),
            ({ } w, _) => ReasonTexts.PxWide(Figures.Count(w)),
            (_, { } h) => ReasonTexts.PxHigh(Figures.Count(h)),
            _ => ReasonTexts.PxOnASide(Figures.Count(Rounding.LongestSide)),
        };

    // Without a fixed shape nothing can be squashed: the crop is the framing itself, in whole pixels.
    private static Crop AsFramed(Region region, PixelSize native, PixelSize picture)
    {
        var left = Math.Clamp((int)Math.Round(region.X, MidpointRounding.AwayFromZero), 0, picture.Width - native.Width);
        var top = Math.Clamp((int)Math.Round(region.Y, MidpointRounding.AwayFromZero), 0, picture.Height - native.Height);
        return new(left, top, left + native.Width, top + native.Height);
    }
}

using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Rules;

/// <summary>A file that was handed over, as far as a rule can be held against it.</summary>
/// <param name="Frame">The pixel size of the part of the picture that it shows.</param>
/// <param name="Density">The density it was made for; null on a ladder.</param>
/// <param name="Size">Its pixel size.</param>
/// <param name="Format">Its type.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Quality">Its quality; null where it has none.</param>
/// <param name="Likeness">Its likeness.</param>
public sealed record DeliveredFile(
    PixelSize Frame,
    decimal? Density,
    PixelSize Size,
    PictureFormat Format,
    long Bytes,
    int? Quality,
    double? Likeness
);

/// <summary>Holds a changed rule against files that were made under an older one.</summary>
public static class DeliveredCheck
{
    private const double ShapeSlack = 0.02;

    /// <summary>Why a file no longer meets a slot's rule; empty when it still does.</summary>
    public static IReadOnlyList<Reason> Against(Slot slot, DeliveredFile file)
    {
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(file);
        var reasons = new List<Reason>();
        if (file.Density is null != slot.Responsive is not null)
        {
            reasons.Add(
                new(
                    ReasonCodes.OtherDensity,
                    file.Density is null ? RuleTexts.TheSlotNoLongerAsksFor : RuleTexts.TheSlotNowAsksForResponsive
                )
            );
        }
        else if (file.Density is not null && slot.Densities.All(density => density.Value != file.Density))
        {
            reasons.Add(new(ReasonCodes.OtherDensity, RuleTexts.TheSlotNoLongerAsksFor2(file.Density)));
        }

        if (slot.Formats.Count > 0 && !slot.Formats.Contains(file.Format))
        {
            reasons.Add(new(ReasonCodes.OtherType, RuleTexts.IsNoLongerAmongTheSlots(file.Format.Label())));
        }

        var asked = file.Density is { } asks ? slot.Size.Asked(file.Frame, new(asks)) : file.Size;
        if (
            slot.Fit == Fit.Crop
            && slot.FrameShape is { } shape
            && Math.Abs(((double)file.Size.Width / file.Size.Height / shape.Value) - 1) > ShapeSlack
        )
        {
            reasons.Add(new(ReasonCodes.OtherSize, RuleTexts.IsNot(Figures.Size(file.Size), shape)));
        }
        else if (
            slot.Fit == Fit.Crop
            && asked.FitsIn(file.Frame)
            && asked != file.Size
            && !(slot.Size.IsCeiling && file.Size.FitsIn(asked))
        )
        {
            reasons.Add(new(ReasonCodes.OtherSize, RuleTexts.InsteadOf(Figures.Size(file.Size), Figures.Size(asked))));
        }

        AddLimits(slot.Limits, file, reasons);
        AddAims(slot.Aims, file, reasons);
        return reasons;
    }

    private static void AddLimits(Limits limits, DeliveredFile file, List<Reason> reasons)
    {
        if (file.Bytes > limits.MaxBytes?.Bytes)
        {
            reasons.Add(new(ReasonCodes.OverWeight, RuleTexts.OverTheLimitOf(Figures.Weight(file.Bytes), limits.MaxBytes)));
        }

        if (file.Size.Width > limits.MaxWidth || file.Size.Height > limits.MaxHeight)
        {
            reasons.Add(new(ReasonCodes.LargestSide, RuleTexts.IsLargerThanTheSlotsMaximum(Figures.Size(file.Size))));
        }

        if (file.Size.Width < limits.MinWidth || file.Size.Height < limits.MinHeight)
        {
            reasons.Add(new(ReasonCodes.SmallestSide, RuleTexts.IsSmallerThanTheSlotsMinimum(Figures.Size(file.Size))));
        }
    }

    private static void AddAims(Aims aims, DeliveredFile file, List<Reason> reasons)
    {
        if (aims.Likeness is { } aim && file.Likeness < aim)
        {
            reasons.Add(
                new(ReasonCodes.Likeness, RuleTexts.LikenessInsteadOf(Figures.Number(file.Likeness.Value, 3), Figures.Number(aim, 3)))
            );
        }

        if (aims.Quality is { } quality && file.Quality < quality.Floor)
        {
            reasons.Add(new(ReasonCodes.LowQuality, RuleTexts.QualityBelow(file.Quality, quality.Floor)));
        }

        if (aims.Band is { } band && file.Bytes > band.Most.Bytes)
        {
            reasons.Add(new(ReasonCodes.OverBand, RuleTexts.OverTheWanted(Figures.Weight(file.Bytes), band.Most)));
        }
    }
}

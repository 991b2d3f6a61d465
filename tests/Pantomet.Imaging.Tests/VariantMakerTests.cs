using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Core.Weight;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>The order in which things are given up to meet a weight, on open photographs.</summary>
public sealed class VariantMakerTests
{
    private static readonly string Photograph = Workplace.Photographs[0];
    private static readonly PictureFacts Facts = PictureReader.ReadWhole(Photograph).Facts!;

    [Fact]
    public void Without_a_limit_the_usual_quality_is_taken_at_one_encode()
    {
        var made = Make(new SizeRule.SideAlone(Side.Width, 600), null);
        Assert.Equal((Verdict.Meets, (int?)80, 1), (made.Verdict, made.Quality, made.Encodes));
        Assert.Empty(made.Reasons);
    }

    [Fact]
    public void A_limit_that_comfort_can_meet_is_no_concession()
    {
        var free = Make(new SizeRule.SideAlone(Side.Width, 600), null);
        var made = Make(new SizeRule.SideAlone(Side.Width, 600), (long)(free.File!.LongLength * 0.8));
        Assert.Equal(Verdict.Meets, made.Verdict);
        Assert.InRange(made.Quality!.Value, 60, 79);
        Assert.True(made.File!.LongLength <= free.File.LongLength * 0.8);
    }

    [Fact]
    public void A_quality_below_comfort_concedes_with_figures()
    {
        var free = Make(new SizeRule.SideAlone(Side.Width, 600), null);
        var made = Make(new SizeRule.SideAlone(Side.Width, 600), (long)(free.File!.LongLength * 0.4));
        Assert.Equal(Verdict.Concedes, made.Verdict);
        Assert.Equal(ReasonCodes.LowQuality, made.Reasons.Single().Code);
        Assert.Contains($"Quality {made.Quality}", made.Reasons.Single().Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_floor_that_the_slot_sets_is_never_crossed()
    {
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 600), 8000) with { Quality = new(70, 90) };
        var made = Make(slot);
        Assert.Equal(Verdict.Breaks, made.Verdict);
        Assert.Equal(ReasonCodes.OverWeight, made.Reasons.Single().Code);
        Assert.Equal(70, made.Quality);
    }

    [Fact]
    public void A_png_over_the_limit_becomes_a_palette_before_anything_else()
    {
        var free = Make(SlotOf(new SizeRule.SideAlone(Side.Width, 300), null) with { Types = [PictureFormat.Png] });
        var made = Make(SlotOf(new SizeRule.SideAlone(Side.Width, 300), (long)(free.File!.LongLength * 0.9)) with { Types = [PictureFormat.Png] });
        Assert.Equal((Verdict.Concedes, PictureFormat.Png), (made.Verdict, made.Format!.Value));
        Assert.Equal(ReasonCodes.Palette, made.Reasons.Single().Code);
    }

    [Fact]
    public void The_next_type_is_taken_before_the_limit_is_broken()
    {
        var made = Make(SlotOf(new SizeRule.SideAlone(Side.Width, 600), 40_000) with { Types = [PictureFormat.Png, PictureFormat.Jpeg] });
        Assert.Equal((Verdict.Concedes, PictureFormat.Jpeg), (made.Verdict, made.Format!.Value));
        Assert.Contains(made.Reasons, reason => reason.Code == ReasonCodes.NextType);
    }

    [Fact]
    public void Fewer_pixels_are_made_only_where_the_rule_names_a_most()
    {
        var ceiling = Make(new SizeRule.Within(new(1500, 1500)), 4000);
        Assert.Equal(Verdict.Concedes, ceiling.Verdict);
        Assert.Contains(ceiling.Reasons, reason => reason.Code == ReasonCodes.FewerPixels);
        Assert.True(ceiling.File!.LongLength <= 4000);
        Assert.True(ceiling.Size.LongSide < 1500);
        Assert.Equal(Verdict.Breaks, Make(new SizeRule.SideAlone(Side.Width, 1500), 4000).Verdict);
    }

    [Fact]
    public void The_label_makes_every_jpeg_eighteen_bytes_heavier_and_is_counted()
    {
        var bytes = Make(new SizeRule.SideAlone(Side.Width, 200), null).File!;
        Assert.Equal([0xFF, 0xD8, 0xFF, 0xE0, 0x00, 0x10], bytes[..6]);
        Assert.Equal("JFIF"u8.ToArray(), bytes[6..10]);
        Assert.Equal([1, 0, 72, 0, 72], bytes[13..18]);
    }

    [Fact]
    public void A_plan_that_makes_nothing_touches_no_pixel()
    {
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 9000), null) with { WhenTooSmall = WhenTooSmall.Skip };
        var plan = VariantPlanner.Plan(Facts.Size, slot, Density.One);
        var made = VariantMaker.Make("/nowhere/at/all.jpg", Facts, slot, plan);
        Assert.Equal((Verdict.Skipped, 0), (made.Verdict, made.Encodes));
        Assert.Null(made.File);
    }

    private static MadeVariant Make(SizeRule rule, long? limit) => Make(SlotOf(rule, limit));

    private static MadeVariant Make(Slot slot) => VariantMaker.Make(Photograph, Facts, slot, VariantPlanner.Plan(Facts.Size, slot, Density.One));

    private static Slot SlotOf(SizeRule rule, long? limit) => new()
    {
        Key = "a", Name = "A", Size = rule, Limits = new() { MaxBytes = limit is { } most ? new ByteCount(most) : null },
    };
}

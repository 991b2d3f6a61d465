using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Core.Weight;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Rendering;
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
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 600), 8000) with { Aims = new() { Quality = new(70, 90) } };
        var made = Make(slot);
        Assert.Equal(Verdict.Breaks, made.Verdict);
        Assert.Equal(ReasonCodes.OverWeight, made.Reasons.Single().Code);
        Assert.Equal(70, made.Quality);
    }

    [Fact]
    public void A_png_over_the_limit_becomes_a_palette_before_anything_else()
    {
        var free = Make(SlotOf(new SizeRule.SideAlone(Side.Width, 300), null) with { Types = [new(PictureFormat.Png)] });
        var made = Make(
            SlotOf(new SizeRule.SideAlone(Side.Width, 300), (long)(free.File!.LongLength * 0.9)) with
            {
                Types = [new(PictureFormat.Png)],
            }
        );
        Assert.Equal((Verdict.Concedes, PictureFormat.Png), (made.Verdict, made.Format!.Value));
        Assert.Equal(ReasonCodes.Palette, made.Reasons.Single().Code);
    }

    [Fact]
    public void The_next_type_is_taken_before_the_limit_is_broken()
    {
        var made = Make(
            SlotOf(new SizeRule.SideAlone(Side.Width, 600), 40_000) with
            {
                Types = [new(PictureFormat.Png), new(PictureFormat.Jpeg)],
            }
        );
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
    public void Of_two_files_that_reach_the_likeness_aim_the_smaller_is_delivered()
    {
        var free = Make(new SizeRule.SideAlone(Side.Width, 600), null);
        var aimed = Make(SlotOf(new SizeRule.SideAlone(Side.Width, 600), null) with { Aims = new() { Likeness = 0.985 } });
        Assert.Equal(Verdict.Meets, aimed.Verdict);
        Assert.True(aimed.Likeness!.Value.Score >= 0.985);
        Assert.True(aimed.File!.LongLength < free.File!.LongLength);
        // One step less would miss the aim, or the floor of comfort is reached.
        Assert.True(aimed.Quality == 60 || ByHand(aimed.Quality!.Value - 1).Likeness!.Value.Score < 0.985);
    }

    [Fact]
    public void Where_likeness_and_weight_disagree_weight_wins_and_the_loss_is_named()
    {
        var made = Make(
            SlotOf(new SizeRule.SideAlone(Side.Width, 600), 20_000) with
            {
                Aims = new() { Likeness = 0.999, Quality = new(20, 95) },
            }
        );
        Assert.Equal(Verdict.Concedes, made.Verdict);
        Assert.True(made.File!.LongLength <= 20_000);
        Assert.Contains(
            made.Reasons,
            reason => reason.Code == ReasonCodes.Likeness && reason.Message.Contains("0.999", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void A_weight_band_is_aimed_at_and_a_file_too_light_for_it_says_so()
    {
        var free = Make(new SizeRule.SideAlone(Side.Width, 600), null).File!.LongLength;
        var aims = new Aims { Band = new(new((long)(free * 0.6)), new((long)(free * 0.8))) };
        var made = Make(SlotOf(new SizeRule.SideAlone(Side.Width, 600), null) with { Aims = aims });
        Assert.InRange(made.File!.LongLength, aims.Band.Value.Least.Bytes, aims.Band.Value.Most.Bytes);
        Assert.Equal(Verdict.Meets, made.Verdict);
        var light = Make(
            SlotOf(new SizeRule.SideAlone(Side.Width, 600), null) with
            {
                Aims = new() { Band = new(new(free * 8), new(free * 9)) },
            }
        );
        Assert.Equal((Verdict.Concedes, ReasonCodes.UnderBand), (light.Verdict, light.Reasons.Single().Code));
    }

    [Theory]
    [InlineData(PictureFormat.Jpeg)]
    [InlineData(PictureFormat.WebP)]
    public void A_band_is_asking_for_weight_its_lower_edge_lifts_the_ceiling(PictureFormat format)
    {
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 300), null) with { Types = [new(format)] };
        var free = Make(slot);
        Assert.Equal(80, free.Quality);
        var bytes = free.File!.LongLength;
        var lifted = Make(slot with { Aims = new() { Band = new(new((long)(bytes * 1.3)), new((long)(bytes * 1.6))) } });
        Assert.InRange(lifted.File!.LongLength, bytes * 1.3, bytes * 1.6);
        Assert.InRange(lifted.Quality!.Value, 81, 95);
        Assert.Equal(Verdict.Meets, lifted.Verdict);
        // As far as it goes: the ceiling, or the type's own end where that lies below it, or nothing more to be seen; the sentence says which.
        var most = Make(slot with { Aims = new() { Band = new(new(bytes * 20), new(bytes * 30)) } });
        var ceiling = format == PictureFormat.Jpeg ? 95 : most.Quality;
        Assert.True(
            (most.Quality == ceiling && ceiling >= 90) || most.Likeness!.Value.Score >= 0.9995,
            $"{most.Quality}, {most.Likeness!.Value.Score}"
        );
        var reason = Assert.Single(most.Reasons, one => one.Code == ReasonCodes.UnderBand);
        Assert.Contains(
            most.Likeness!.Value.Score >= 0.9995 ? "a higher quality shows no difference" : $"{ceiling} is the highest",
            reason.Message,
            StringComparison.Ordinal
        );
        // Not beyond what was written down.
        var written = Make(
            slot with
            {
                Aims = new() { Quality = new(60, 82), Band = new(new(bytes * 20), new(bytes * 30)) },
            }
        );
        Assert.InRange(written.Quality!.Value, 80, 82);
    }

    [Fact]
    public void A_likeness_aim_that_a_limit_forbids_costs_no_whole_encode_more_than_the_limit_alone()
    {
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 1200), 60_000);
        var plain = Make(slot);
        var aimed = Make(slot with { Aims = new() { Likeness = 1 } });
        Assert.Equal((plain.Quality, plain.Encodes), (aimed.Quality, aimed.Encodes));
        Assert.Contains(aimed.Reasons, reason => reason.Code == ReasonCodes.Likeness);
        Assert.InRange(plain.Encodes, 1, 4);
        Assert.True(plain.Trials > 0);
    }

    [Fact]
    public void A_likeness_reached_below_the_band_is_raised_into_it()
    {
        var free = Make(new SizeRule.SideAlone(Side.Width, 600), null).File!.LongLength;
        var made = Make(
            SlotOf(new SizeRule.SideAlone(Side.Width, 600), null) with
            {
                Aims = new() { Likeness = 0.9, Band = new(new((long)(free * 0.8)), new(free)) },
            }
        );
        Assert.InRange(made.File!.LongLength, free * 0.8, free);
    }

    [Theory]
    [InlineData(400, 80)]
    [InlineData(1100, 80)]
    [InlineData(400, 50)]
    public void A_quality_number_means_the_same_likeness_in_every_type(int width, int quality)
    {
        var made = MakeEach(
            SlotOf(new SizeRule.SideAlone(Side.Width, width), null) with
            {
                Each = true,
                Types = [new(PictureFormat.Jpeg), new(PictureFormat.WebP), new(PictureFormat.Avif)],
                Aims = new() { Quality = new(quality, quality) },
            }
        );
        Assert.All(made, one => Assert.Equal(quality, one.Quality));
        var jpeg = made[0].Likeness!.Value.Score;
        // Within what one step of an encoder's scale and a tenth of the loss make.
        Assert.All(made, one => Assert.Equal(jpeg, one.Likeness!.Value.Score, Math.Max(0.002, (1 - jpeg) * 0.12)));
        Assert.Equal(3, made.Select(one => one.File!.Length).Distinct().Count());
    }

    [Fact]
    public void By_content_the_lightest_that_looks_the_same_is_taken()
    {
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 500), null);
        var taken = Make(slot with { Types = [SlotType.Auto] });
        Assert.InRange(taken.Likeness!.Value.Score, 0.995, 1);
        Assert.Equal(Verdict.Meets, taken.Verdict);
        var each = MakeEach(
            slot with
            {
                Each = true,
                Types = [new(PictureFormat.Jpeg), new(PictureFormat.Png), new(PictureFormat.WebP), new(PictureFormat.Avif)],
                Aims = new() { Likeness = 0.995, Quality = new(1, 95) },
            }
        );
        var alike = each.Where(one => one.Likeness!.Value.Score >= 0.995).ToList();
        Assert.NotEmpty(alike);
        Assert.InRange(taken.File!.LongLength, 1, alike.Min(one => one.File!.LongLength) * 1.05);
    }

    [Fact]
    public void By_content_only_named_types_are_taken_and_limits_hold()
    {
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 500), 15_000) with
        {
            Types = [SlotType.Auto, new(PictureFormat.Jpeg), new(PictureFormat.WebP)],
        };
        var taken = Make(slot);
        Assert.True(taken.Format is PictureFormat.Jpeg or PictureFormat.WebP);
        Assert.InRange(taken.File!.LongLength, 1, 15_000);
        var other = Make(slot with { Types = [new(taken.Format == PictureFormat.Jpeg ? PictureFormat.WebP : PictureFormat.Jpeg)] });
        Assert.True(taken.Likeness!.Value.Score >= other.Likeness!.Value.Score - 0.001);
    }

    [Fact]
    public void A_later_type_that_is_lighter_and_as_much_alike_is_taken_and_said()
    {
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 500), null);
        var jpeg = Make(slot);
        var listed = Make(slot with { Types = [new(PictureFormat.Jpeg), new(PictureFormat.Avif)] });
        Assert.Equal((PictureFormat.Avif, Verdict.Meets), (listed.Format, listed.Verdict));
        Assert.True(listed.File!.Length < jpeg.File!.Length);
        Assert.Equal(jpeg.Likeness!.Value.Score, listed.Likeness!.Value.Score, 0.002);
        Assert.Contains("AVIF instead of JPEG", Assert.Single(listed.Reasons, one => one.Code == ReasonCodes.LighterType).Message);
        var turned = Make(slot with { Types = [new(PictureFormat.Avif), new(PictureFormat.Jpeg)] });
        Assert.Equal(PictureFormat.Avif, turned.Format);
        Assert.DoesNotContain(turned.Reasons, one => one.Code == ReasonCodes.LighterType);
    }

    [Fact]
    public void Each_type_gets_a_file_of_its_own()
    {
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 300), null) with
        {
            Each = true,
            Types = [new(PictureFormat.WebP), new(PictureFormat.Jpeg), new(PictureFormat.Png), new(PictureFormat.Avif)],
        };
        var made = MakeEach(slot);
        Assert.Equal(
            [PictureFormat.WebP, PictureFormat.Jpeg, PictureFormat.Png, PictureFormat.Avif],
            made.Select(one => one.Format!.Value)
        );
        Assert.All(made, one => Assert.True(one is { Verdict: Verdict.Meets, Likeness.Score: > 0.95 }));
    }

    [Fact]
    public void No_quality_is_invented_that_the_original_lacks()
    {
        using var place = new Workplace();
        Programs.Checked("convert", Photograph, "-resize", "800x", "-quality", "48", place.At("poor.jpg"));
        var facts = PictureReader.ReadWhole(place.At("poor.jpg")).Facts!;
        Assert.Equal(48, facts.JpegQuality);
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 800), null);
        var plan = VariantPlanner.Plan(facts.Size, slot, Density.One);
        using var master = PictureMaster.Decode(place.At("poor.jpg"), facts, [plan], slot.Profile);
        var made = VariantMaker.Make(new MasterPixels(master, slot), slot, plan)[0];
        Assert.True(made.Quality <= 48);
        using (var file = new MemoryStream(made.File!))
        {
            Assert.True(JpegTables.EstimateQuality(file) <= 48, "the tables of the variant are finer than the original's");
        }

        Assert.Contains(made.Reasons, reason => reason.Code == ReasonCodes.OriginalQuality);
        var asked = slot with { Aims = new() { Quality = new(70, 90) } };
        // Who writes a range down, asks.
        Assert.Equal(90, VariantMaker.Make(new MasterPixels(master, asked), asked, plan)[0].Quality);
        // Reduced to a half, nothing of the damage is left that would be kept.
        var half = SlotOf(new SizeRule.SideAlone(Side.Width, 400), null);
        var reduced = VariantMaker.Make(new MasterPixels(master, half), half, VariantPlanner.Plan(facts.Size, half, Density.One))[0];
        Assert.Equal(80, reduced.Quality);
        Assert.DoesNotContain(reduced.Reasons, reason => reason.Code == ReasonCodes.OriginalQuality);
    }

    [Fact]
    public void A_plan_that_makes_nothing_touches_no_pixel()
    {
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 9000), null) with { WhenTooSmall = WhenTooSmall.Skip };
        var made = VariantMaker.NotMade(VariantPlanner.Plan(Facts.Size, slot, Density.One));
        Assert.Equal((Verdict.Skipped, 0), (made.Verdict, made.Encodes));
        Assert.Null(made.File);
    }

    private static MadeVariant ByHand(int quality)
    {
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 600), null);
        var plan = VariantPlanner.Plan(Facts.Size, slot, Density.One);
        using var master = PictureMaster.Decode(Photograph, Facts, [plan], slot.Profile);
        return VariantMaker.ByHand(new MasterPixels(master, slot), slot, plan, null, quality);
    }

    private static MadeVariant Make(SizeRule rule, long? limit) => Make(SlotOf(rule, limit));

    private static MadeVariant Make(Slot slot) => MakeEach(slot)[0];

    private static IReadOnlyList<MadeVariant> MakeEach(Slot slot)
    {
        var plan = VariantPlanner.Plan(Facts.Size, slot, Density.One);
        using var master = PictureMaster.Decode(Photograph, Facts, [plan], slot.Profile);
        return VariantMaker.Make(new MasterPixels(master, slot), slot, plan);
    }

    private static Slot SlotOf(SizeRule rule, long? limit) =>
        new()
        {
            Key = "a",
            Name = "A",
            Size = rule,
            Limits = new() { MaxBytes = limit is { } most ? new ByteCount(most) : null },
        };
}

using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Tests.Responsive;

public class ResponsiveSlotTests
{
    private const string Column = """{ "key": "column", "size": { "ratio": "3:2" }, "responsive": { "sizes": "100vw", "waste": 0.5 } }""";

    [Fact]
    public void A_ladder_has_the_shape_and_its_own_widths()
    {
        var slot = SlotsOf(
            """
            { "key": "column", "size": { "ratio": "3:2", "width": 10 },
              "responsive": { "sizes": "(min-width: 60em) 655px, 100vw", "viewports": [320, 1920], "densities": [1, 2], "files": 3 } }
            """
        )[0];
        var plans = VariantPlanner.PlanAll(new(6000, 4000), slot);
        Assert.Equal(3, plans.Count);
        Assert.Equal(new PixelSize(1918, 1279), plans[^1].Size);
        Assert.All(plans, plan => Assert.Equal((plan.Descriptor.Width!.Value, Verdict.Meets), (plan.Size.Width, plan.Verdict)));
        Assert.Equal(slot.AtDensityOne, Descriptor.Wide(959));
    }

    [Fact]
    public void A_picture_without_the_pixels_gets_fewer_files_and_says_so()
    {
        var slot = SlotsOf(Column)[0];
        var full = VariantPlanner.PlanAll(new(6000, 4000), slot);
        var small = VariantPlanner.PlanAll(new(1500, 2000), slot);
        Assert.True(small.Count < full.Count);
        Assert.Equal(new PixelSize(1500, 1000), small[^1].Size);
        Assert.Equal(Verdict.Concedes, small[^1].Verdict);
        Assert.Equal(
            $"{Figures.Count(5760)} px are needed at the widest; the responsive widths end at {Figures.Count(1500)} px: "
                + $"the crop has {Figures.Size(new(1500, 1000))}. Fewer files are made.",
            Assert.Single(small[^1].Reasons).Message
        );
        Assert.All(small.SkipLast(1), plan => Assert.Equal(Verdict.Meets, plan.Verdict));
    }

    [Fact]
    public void The_largest_width_of_a_slot_ends_its_ladder()
    {
        var slot = SlotsOf(
            """{ "key": "column", "size": { "ratio": "3:2" }, "limits": { "maxWidth": 2000 }, "responsive": { "sizes": "100vw" } }"""
        )[0];
        var widest = VariantPlanner.PlanAll(new(6000, 4000), slot)[^1];
        Assert.Equal((2000, ReasonCodes.LargestSide), (widest.Size.Width, Assert.Single(widest.Reasons).Code));
    }

    [Theory]
    [InlineData("skip", Verdict.Skipped)]
    [InlineData("break", Verdict.Breaks)]
    public void Where_too_small_is_left_out_or_breaks_the_rungs_beyond_do_so(string word, Verdict verdict)
    {
        var slot = SlotsOf(Column.Replace("\"key\"", $"\"whenTooSmall\": \"{word}\", \"key\"", StringComparison.Ordinal))[0];
        var plans = VariantPlanner.PlanAll(new(1500, 1000), slot);
        Assert.Equal(VariantPlanner.PlanAll(new(6000, 4000), slot).Count, plans.Count);
        Assert.All(plans, plan => Assert.Equal(plan.Descriptor.Width > 1500 ? verdict : Verdict.Meets, plan.Verdict));
    }

    [Fact]
    public void A_mat_ends_where_the_picture_in_it_has_no_more_pixels()
    {
        var slot = SlotsOf(
            """{ "key": "mat", "size": { "ratio": "1:1" }, "fit": "mat", "responsive": { "sizes": "500px", "densities": [1, 2, 3], "waste": 0 } }"""
        )[0];
        var plans = VariantPlanner.PlanAll(new(600, 800), slot);
        Assert.Equal([500, 800], plans.Select(plan => plan.Size.Width));
        Assert.Equal((new(800, 800), new PixelSize(600, 800)), (plans[1].Size, plans[1].Content));
    }

    [Fact]
    public void Slots_of_a_group_are_needed_where_they_are_shown()
    {
        var slots = SlotsOf(
            """
            { "key": "wide", "size": { "ratio": "2:1" }, "group": "opening", "media": "(min-width: 60em)", "responsive": { "sizes": "100vw", "densities": [1] } },
            { "key": "middle", "size": { "ratio": "3:2" }, "group": "opening", "media": "(min-width: 600px)", "responsive": { "sizes": "100vw", "densities": [1] } },
            { "key": "narrow", "size": { "ratio": "1:1" }, "group": "opening", "responsive": { "sizes": "100vw", "densities": [1] } }
            """
        );
        Assert.Equal(
            [(960, 1920), (600, 959), (320, 599)],
            slots.Select(slot => (slot.Responsive!.Needs.Least, slot.Responsive.Needs.Largest))
        );
        Assert.True(slots[1].ShownAt.Contains(959) && !slots[1].ShownAt.Contains(960));
    }

    [Theory]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "group": "g", "media": "(min-width: 9px)" }""",
        "$.destinations[0].slots[0]: the last slot of the group \"g\" must have no media condition"
    )]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "group": "g" }, { "key": "b", "size": { "width": 9 }, "group": "g" }""",
        "$.destinations[0].slots[0]: each slot of the group \"g\" except the last"
    )]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "group": "g", "media": "(min-width: 1px)" }, { "key": "b", "size": { "width": 9 }, "group": "g", "media": "(min-width: 9px)" }, { "key": "c", "size": { "width": 9 }, "group": "g" }""",
        "slots[1]: this slot is never shown"
    )]
    [InlineData("""{ "key": "a", "size": { "width": 9 }, "group": "a" }""", "has the key of a slot")]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "media": "(min-width: 9px)" }""",
        "slots[0].media: a media condition needs a group"
    )]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "group": "g", "media": "(min-width: 9px) and (max-width: 3px)" }""",
        "slots[0].media: the condition is never true"
    )]
    [InlineData("""{ "key": "a", "size": { "ratio": 1 }, "responsive": { "sizes": "50%" } }""", "slots[0].responsive.sizes: percentages")]
    [InlineData(
        """{ "key": "a", "size": { "ratio": 1 }, "responsive": { "sizes": "1px", "viewports": [0, 9] } }""",
        "slots[0].responsive.viewports[0]: a viewport must be a whole number from 1"
    )]
    [InlineData(
        """{ "key": "a", "size": { "ratio": 1 }, "responsive": { "sizes": "1px", "viewports": [320, 1000000] } }""",
        "responsive.viewports[1]: a viewport must be a whole number from 1 to 20000"
    )]
    [InlineData(
        """{ "key": "a", "size": { "ratio": 1 }, "responsive": { "sizes": "0px" } }""",
        "responsive.sizes: at a viewport of 320 px the picture would be 0 px wide"
    )]
    [InlineData(
        """{ "key": "a", "size": { "ratio": 1 }, "responsive": { "sizes": "calc(100vw - 400px)" } }""",
        "the picture would be -80 px wide"
    )]
    [InlineData("""{ "key": "a", "size": { "ratio": 1 }, "responsive": { "sizes": "1000000px" } }""", "a file can have at most 65 535")]
    [InlineData("""{ "key": "a", "size": { "ratio": 1 }, "responsive": { "sizes": "100vw", "waste": 0 } }""", "a slot can have at most 60")]
    [InlineData(
        """{ "key": "a", "size": { "ratio": 1 }, "responsive": { "sizes": "100vw", "waste": 1 } }""",
        "responsive.waste: waste is a share"
    )]
    [InlineData(
        """{ "key": "a", "size": { "ratio": 1 }, "responsive": { "sizes": "100vw", "waste": 0.5, "files": 3 } }""",
        "responsive.files: give \"waste\" or \"files\", not both"
    )]
    [InlineData(
        """{ "key": "a", "size": { "ratio": 1 }, "responsive": { "sizes": "100vw" }, "densities": [1] }""",
        "slots[0].densities: a responsive slot has its densities"
    )]
    [InlineData("""{ "key": "a", "size": { "ratio": 1 }, "toward": [1] }""", "slots[0].toward: \"toward\" is a list of two")]
    [InlineData("""{ "key": "a", "size": { "ratio": 1 }, "inline": "4 kilos" }""", "slots[0].inline")]
    public void What_cannot_be_is_said_with_its_place(string slots, string says)
    {
        Assert.False(RulesReader.TryRead(Book(slots), out _, out var fault));
        Assert.Contains(says.Replace(" 535", "\u202f535", StringComparison.Ordinal), fault!.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void What_is_read_is_written_again()
    {
        var text = """
            { "key": "wide", "size": { "ratio": "2:1" }, "group": "opening", "media": "(min-width: 60em)", "inline": "2 kB", "toward": [1, 0],
              "responsive": { "sizes": "(min-width: 60em) 655px, 100vw", "viewports": [960, 1600], "densities": [1, 2], "files": 4 } },
            { "key": "narrow", "size": { "ratio": "1:1" }, "group": "opening", "responsive": { "sizes": "100vw", "waste": 0.25 } }
            """;
        Assert.True(RulesReader.TryRead(Book(text), out var book, out _));
        var written = RulesWriter.Write(book!);
        Assert.True(RulesReader.TryRead(written, out var again, out _));
        Assert.Equal(written, RulesWriter.Write(again!));
        var (before, after) = (book!.Destinations[0].Slots, again!.Destinations[0].Slots);
        Assert.Equal(before.Select(slot => slot.Responsive!.Widths()), after.Select(slot => slot.Responsive!.Widths()));
        Assert.Equal((before[0].Media!.Text, before[0].Inline, before[0].Toward), (after[0].Media!.Text, after[0].Inline, after[0].Toward));
        // None of it changes the bytes of a file whose plan stands.
        Assert.Equal(RulesWriter.BytesKey(before[0] with { Size = before[1].Size }), RulesWriter.BytesKey(before[1]));
    }

    [Fact]
    public void A_frame_goes_toward_a_side_only_where_nothing_else_is_said()
    {
        var slot = SlotsOf("""{ "key": "a", "size": { "ratio": "1:1" }, "toward": [1, 0] }""")[0];
        Assert.Equal(500, VariantPlanner.Plan(new(1500, 1000), slot, Density.One).Crop.Left);
        var kept = Core.Framing.Subject.Of([], new(0, 0), null);
        Assert.Equal(0, VariantPlanner.Plan(new(1500, 1000), slot, Density.One, null, kept).Crop.Left);
    }

    private static string Book(string slots) =>
        $$"""{ "schema": "pantomet-rules/1", "destinations": [ { "key": "site", "slots": [ {{slots}} ] } ] }""";

    private static IReadOnlyList<Slot> SlotsOf(string slots) =>
        RulesReader.TryRead(Book(slots), out var book, out var fault)
            ? book!.Destinations[0].Slots
            : throw new ArgumentException(fault!.ToString());
}

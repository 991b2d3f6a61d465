using Pantomet.Core.Dressing;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Recipes;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Tests.Planning;

/// <summary>Pictures side by side.</summary>
public sealed class PairPlannerTests
{
    [Fact]
    public void Parts_fill_the_slot_with_exact_gaps_between_them_and_are_not_squashed()
    {
        var random = new Random(31);
        for (var i = 0; i < 800; i++)
        {
            var count = random.Next(2, 5);
            var gap = random.Next(0, 20);
            var size = new PixelSize(random.Next(300, 1200), random.Next(100, 800));
            var slot = SlotOf(new SizeRule.Exact(size), count, gap);
            var parts = Enumerable.Range(0, count).Select(_ => Part(random)).ToList();
            foreach (var plan in PairPlanner.PlanAll(parts, slot))
            {
                Assert.Equal(count, plan.Parts!.Count);
                Assert.Equal(0, plan.Parts[0].Place.Left);
                Assert.Equal(plan.Size.Width, plan.Parts[^1].Place.Right);
                var between = (int)Math.Round((double)gap * plan.Size.Width / size.Width, MidpointRounding.AwayFromZero);
                Assert.All(
                    plan.Parts.Zip(plan.Parts.Skip(1)),
                    pair => Assert.Equal(between, pair.Second.Place.Left - pair.First.Place.Right)
                );
                for (var j = 0; j < count; j++)
                {
                    var (crop, place) = (plan.Parts[j].Crop, plan.Parts[j].Place);
                    Assert.Equal((0, plan.Size.Height), (place.Top, place.Bottom));
                    Assert.True(
                        crop.Left >= 0 && crop.Top >= 0 && crop.Right <= parts[j].Size.Width && crop.Bottom <= parts[j].Size.Height
                    );
                    Assert.True(crop.Width >= place.Width && crop.Height >= place.Height, $"{crop} enlarged to {place}");
                    var (across, down) = ((double)crop.Width / place.Width, (double)crop.Height / place.Height);
                    Assert.True(
                        Math.Abs((place.Width * across / down) - place.Width) < 1.01
                            || Math.Abs((place.Height * down / across) - place.Height) < 1.01
                    );
                }
            }
        }
    }

    [Fact]
    public void Alike_unless_one_needs_more_to_hold_its_keep_box()
    {
        var slot = SlotOf(new SizeRule.Exact(new(1005, 500)), 2, 5);
        var plain = PairPlanner.PlanAll([Of(3000, 2000), Of(3000, 2000)], slot)[0];
        Assert.Equal([500, 500], plain.Parts!.Select(part => part.Place.Width));
        Assert.Equal((Verdict.Meets, 0), (plain.Verdict, plain.Reasons.Count));
        var wide = PairPlanner.PlanAll([Of(3000, 2000, (0.05, 0.2, 0.95, 0.8)), Of(3000, 2000)], slot)[0];
        Assert.True(wide.Parts![0].Place.Width > 670);
        Assert.True(wide.Parts[0].Crop.Left <= 150 && wide.Parts[0].Crop.Right >= 2850);
        Assert.Equal(Verdict.Meets, wide.Verdict);
        // Both cannot have it: they share alike again, and each says what it cuts.
        var both = PairPlanner.PlanAll([Of(3000, 2000, (0, 0, 1, 1)), Of(3000, 2000, (0, 0, 1, 1))], slot)[0];
        Assert.Equal([500, 500], both.Parts!.Select(part => part.Place.Width));
        Assert.Equal([ReasonCodes.KeepCut, ReasonCodes.KeepCut], both.Reasons.Select(reason => reason.Code));
        Assert.StartsWith("Picture 2:", both.Reasons[1].Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Without_a_shape_the_pictures_are_whole_at_one_height()
    {
        var plan = PairPlanner.PlanAll([Of(3000, 2000), Of(1000, 2000)], SlotOf(new SizeRule.SideAlone(Side.Width, 810), 2, 10))[0];
        // 800 px of pictures whose widths are 1.5 and 0.5 of their height.
        Assert.Equal((new PixelSize(810, 400), 600, 200), (plan.Size, plan.Parts![0].Place.Width, plan.Parts[1].Place.Width));
    }

    [Fact]
    public void Too_few_pixels_are_told_and_a_single_picture_is_not_made()
    {
        var plan = PairPlanner.PlanAll([Of(300, 200), Of(3000, 2000)], SlotOf(new SizeRule.Exact(new(1000, 500)), 2, 10))[0];
        Assert.Equal(Verdict.Concedes, plan.Verdict);
        Assert.Contains(plan.Reasons, reason => reason.Code == ReasonCodes.TooSmall);
        Assert.Equal(200, plan.Size.Height);
        var single = VariantPlanner.Plan(new(3000, 2000), SlotOf(new SizeRule.Exact(new(1000, 500)), 3, 0), Density.One);
        Assert.Equal((Verdict.Skipped, ReasonCodes.Pair), (single.Verdict, single.Reasons[0].Code));
        Assert.Contains("3 pictures", single.Reasons[0].Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_mark_leaves_the_keep_box_of_every_part_free_where_it_lies_in_the_file()
    {
        var mark = new MakersMark { File = "m.svg" };
        var slot = SlotOf(new SizeRule.Exact(new(1010, 500)), 2, 10) with { Dress = new Dress { Mark = mark } };
        var plan = PairPlanner.PlanAll([Of(2000, 2000, (0, 0.5, 0.5, 1)), Of(2000, 2000, (0.5, 0.5, 1, 1))], slot)[0];
        Assert.Equal([new(0, 250, 250, 500), new(760, 250, 1010, 500)], plan.Kept.Select(kept => kept.Box));
        Assert.All(plan.Kept, kept => Assert.False(kept.Suggested));
        // Below, both corners are taken.
        var place = MarkPlace.Of(mark, new(100, 100), plan.Size, [.. plan.Kept.Select(kept => kept.Box)]);
        Assert.Equal(Corner.TopRight, place.At);
        Assert.Empty(PairPlanner.PlanAll([Of(2000, 2000, (0, 0.5, 0.5, 1)), Of(2000, 2000)], slot with { Dress = Dress.None })[0].Kept);
        // The file's recipe knows the parts and what is left free.
        var turn = new Turn(1, 0);
        var recipe = Recipe.Parse(Recipe.OfPair([("aa", turn), ("bb", Turn.None)], plan, "{}", null, null).ToJson());
        Assert.Equal(plan.Kept, recipe.Kept);
        Assert.Equal(plan.Parts!.Select(part => part.Place), recipe.Parts.Select(part => part.Place!.Value));
        Assert.Equal([("aa", turn), ("bb", Turn.None)], recipe.Parts.Select(part => (part.Content, part.Turn)));
        Assert.True(recipe.IsPair);
    }

    private static Slot SlotOf(SizeRule size, int count, double gap) =>
        new()
        {
            Key = "a",
            Name = "a",
            Size = size,
            Densities = [Density.One, new Density(2)],
            Pair = new(count, gap, Rgb.White),
        };

    private static PairPart Of(int width, int height, (double Left, double Top, double Right, double Bottom)? keep = null)
    {
        Frame box = default;
        Assert.True(keep is not { } edges || Frame.TryCreate(edges.Left, edges.Top, edges.Right, edges.Bottom, out box, out _));
        return new(new(width, height), keep is null ? Subject.None : Subject.Of([box], null, null));
    }

    private static PairPart Part(Random random)
    {
        var (left, top) = (random.NextDouble() * 0.5, random.NextDouble() * 0.5);
        return Of(
            random.Next(200, 3000),
            random.Next(200, 3000),
            random.Next(2) == 0 ? null : (left, top, left + 0.1 + (random.NextDouble() * 0.4), top + 0.1 + (random.NextDouble() * 0.4))
        );
    }
}

using CsCheck;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Tests.Planning;

public class VariantPlannerTests
{
    private static readonly Gen<PixelSize> Pictures = Gen.Select(
        Gen.Int[1, 9000],
        Gen.Int[1, 9000],
        (width, height) => new PixelSize(width, height)
    );

    private static readonly Gen<Ratio> Shapes = Gen.Select(
        Gen.Int[1, 40],
        Gen.Int[1, 40],
        (across, down) => Ratio.TryCreate(across, down, null, out var ratio, out _) ? ratio : throw new InvalidOperationException()
    );

    private static readonly Gen<SizeRule> Rules = Gen.OneOf(
        Gen.Select(
            Shapes,
            Gen.Enum<Side>(),
            Gen.Int[1, 4000],
            (shape, side, pixels) => (SizeRule)new SizeRule.ShapeWithSide(shape, side, pixels)
        ),
        Gen.Select(Gen.Int[1, 3000], Gen.Int[1, 3000], (width, height) => (SizeRule)new SizeRule.Exact(new(width, height))),
        Shapes.Select(shape => (SizeRule)new SizeRule.ShapeAlone(shape)),
        Gen.Select(Gen.Enum<Side>(), Gen.Int[1, 4000], (side, pixels) => (SizeRule)new SizeRule.SideAlone(side, pixels)),
        Gen.Select(Gen.Int[1, 3000], Gen.Int[1, 3000], (width, height) => (SizeRule)new SizeRule.Within(new(width, height))),
        Gen.Int[1, 100].Select(percent => (SizeRule)new SizeRule.Share(percent / 100m)),
        Gen.Long[1, 9_000_000].Select(most => (SizeRule)new SizeRule.MaxPixels(most))
    );

    private static readonly Gen<Frame?> Hands = Gen.Select(
        Gen.Double[0, 0.9],
        Gen.Double[0, 0.9],
        Gen.Double[0.01, 1],
        Gen.Double[0.01, 1],
        Gen.Bool,
        (left, top, width, height, whole) =>
            whole || !Frame.TryCreate(left, top, Math.Min(1, left + width), Math.Min(1, top + height), out var frame, out _)
                ? (Frame?)null
                : frame
    );

    private static readonly Gen<Density> Densities = Gen.OneOfConst(new Density(1), new Density(1.5m), new Density(2), new Density(3));

    [Fact]
    public void A_crop_lies_inside_the_picture_and_is_never_enlarged() =>
        Gen.Select(Pictures, Rules, Hands, Densities)
            .Sample(
                (picture, rule, hand, density) =>
                {
                    var plan = VariantPlanner.Plan(picture, SlotOf(rule), density, hand);
                    Assert.True(
                        plan.Crop.Left >= 0 && plan.Crop.Top >= 0 && plan.Crop.Right <= picture.Width && plan.Crop.Bottom <= picture.Height,
                        $"{plan.Crop} leaves {picture}"
                    );
                    Assert.True(plan.Crop.Width >= 1 && plan.Crop.Height >= 1);
                    Assert.True(plan.Size.FitsIn(plan.Crop.Size), $"{plan.Size} is enlarged from {plan.Crop}");
                }
            );

    [Fact]
    public void The_two_scales_differ_by_less_than_one_output_pixel() =>
        Gen.Select(Pictures, Rules, Hands)
            .Where((picture, _, _) => picture.ShortSide >= 64)
            .Sample(
                (picture, rule, hand) =>
                {
                    var plan = VariantPlanner.Plan(picture, SlotOf(rule), Density.One, hand);
                    if (plan.Crop.Size.ShortSide < 64)
                    {
                        return;
                    }

                    var width = (double)plan.Crop.Width * plan.Size.Height / plan.Crop.Height;
                    var height = (double)plan.Crop.Height * plan.Size.Width / plan.Crop.Width;
                    var (across, down) = (Math.Abs(width - plan.Size.Width) < 1.0001, Math.Abs(height - plan.Size.Height) < 1.0001);
                    // A whole picture is cut nowhere: there only the side that was rounded can tell, by half a pixel at most.
                    Assert.True(
                        plan.Crop == Crop.All(picture) || rule.Shape is null ? across || down : across && down,
                        $"{plan.Crop} to {plan.Size}"
                    );
                },
                iter: 2000
            );

    [Fact]
    public void What_is_missing_is_always_said() =>
        Gen.Select(Pictures, Rules, Densities)
            .Sample(
                (picture, rule, density) =>
                {
                    var plan = VariantPlanner.Plan(picture, SlotOf(rule), density);
                    if (plan.Size != plan.Asked)
                    {
                        Assert.NotEqual(Verdict.Meets, plan.Verdict);
                        Assert.NotEmpty(plan.Reasons);
                    }
                }
            );

    [Fact]
    public void A_mat_is_the_exact_box_and_holds_the_whole_picture() =>
        Gen.Select(Pictures, Gen.Int[1, 2000], Gen.Int[1, 2000])
            .Sample(
                (picture, width, height) =>
                {
                    var plan = VariantPlanner.Plan(
                        picture,
                        SlotOf(new SizeRule.Exact(new(width, height))) with
                        {
                            Fit = Fit.Mat,
                        },
                        Density.One
                    );
                    Assert.Equal(new(width, height), plan.Size);
                    Assert.Equal(Crop.All(picture), plan.Crop);
                    Assert.True(plan.Content.FitsIn(plan.Size) && plan.Content.FitsIn(picture));
                }
            );

    [Fact]
    public void Whole_stays_inside_the_box_without_margins() =>
        Gen.Select(Pictures, Gen.Int[1, 2000], Gen.Int[1, 2000])
            .Sample(
                (picture, width, height) =>
                {
                    var plan = VariantPlanner.Plan(
                        picture,
                        SlotOf(new SizeRule.Exact(new(width, height))) with
                        {
                            Fit = Fit.Whole,
                        },
                        Density.One
                    );
                    Assert.True(plan.Size.FitsIn(new(width, height)));
                    Assert.False(plan.HasMargins);
                }
            );

    [Fact]
    public void A_frame_too_small_for_2x_says_what_it_offers()
    {
        var slot = SlotOf(new SizeRule.ShapeWithSide(Shape("3:2"), Side.Width, 800));
        var plan = VariantPlanner.Plan(new(1240, 900), slot, new Density(2));
        Assert.Equal(Verdict.Concedes, plan.Verdict);
        Assert.Equal(1.55, plan.Offered, 10);
        Assert.Equal(new(1240, 827), plan.Size);
        Assert.Contains("1.55x of the 2x asked", plan.Reasons.Single().Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(WhenTooSmall.Cap, Verdict.Concedes)]
    [InlineData(WhenTooSmall.Skip, Verdict.Skipped)]
    [InlineData(WhenTooSmall.Break, Verdict.Breaks)]
    public void The_slot_chooses_what_happens_to_a_small_picture(WhenTooSmall choice, Verdict verdict)
    {
        var slot = SlotOf(new SizeRule.SideAlone(Side.Width, 2000)) with { WhenTooSmall = choice };
        Assert.Equal(verdict, VariantPlanner.Plan(new(900, 600), slot, Density.One).Verdict);
    }

    [Fact]
    public void The_largest_side_of_a_store_caps_a_shape_alone_without_a_concession()
    {
        var slot = SlotOf(new SizeRule.ShapeAlone(Shape("1:1"))) with
        {
            Limits = new() { MaxWidth = 4472, MaxHeight = 4472 },
        };
        var plan = VariantPlanner.Plan(new(9000, 6000), slot, Density.One);
        Assert.Equal((new PixelSize(4472, 4472), Verdict.Meets), (plan.Size, plan.Verdict));
    }

    [Fact]
    public void A_picture_under_the_smallest_side_breaks()
    {
        var slot = SlotOf(new SizeRule.ShapeWithSide(Shape("5:4"), Side.LongSide, 2500)) with
        {
            Limits = new() { MinWidth = 1000, MinHeight = 800 },
        };
        var plan = VariantPlanner.Plan(new(900, 600), slot, Density.One);
        Assert.Equal(Verdict.Breaks, plan.Verdict);
        Assert.Contains(plan.Reasons, reason => reason.Code == ReasonCodes.SmallestSide);
        Assert.DoesNotContain(plan.Reasons, reason => reason.Message.Contains("Made at", StringComparison.Ordinal));
    }

    [Fact]
    public void Without_a_frame_the_widest_is_centred()
    {
        var solved = FrameSolver.Solve(new(4000, 3000), Shape("1:1"));
        Assert.Equal((new Region(500, 0, 3000, 3000), FrameOrigin.Centred), (solved.Region, solved.Origin));
    }

    [Fact]
    public void A_focus_near_the_edge_pushes_the_frame_to_the_edge_and_no_further()
    {
        var solved = FrameSolver.Solve(new(4000, 3000), Shape("1:1"), subject: Subject.Of([], new(0.95, 0.5), null));
        Assert.Equal(new Region(1000, 0, 3000, 3000), solved.Region);
    }

    [Fact]
    public void A_frame_by_hand_of_another_shape_is_narrowed_and_named()
    {
        Assert.True(Frame.TryCreate(0.1, 0.1, 0.9, 0.9, out var hand, out _));
        var plan = VariantPlanner.Plan(
            new(1000, 1000),
            SlotOf(new SizeRule.ShapeWithSide(Shape("2:1"), Side.Width, 400)),
            Density.One,
            hand
        );
        Assert.Contains(plan.Reasons, reason => reason.Code == ReasonCodes.Reshaped);
        Assert.Equal(new Crop(100, 300, 900, 700), plan.Crop);
    }

    [Theory]
    [InlineData("3:2", 3000, 2000, false)]
    // Rounded to whole pixels a shape is never quite the picture's.
    [InlineData("3:2", 3000, 2001, false)]
    [InlineData("1.5003", 5472, 3648, false)]
    [InlineData("3:2", 3000, 2100, true)]
    [InlineData("1:1", 3000, 2000, true)]
    public void What_a_picture_shows_counts_only_where_its_frame_could_lie_elsewhere(string shape, int width, int height, bool counts)
    {
        var slot = SlotOf(new SizeRule.ShapeWithSide(Shape(shape), Side.Width, 100));
        var picture = new PixelSize(width, height);
        Assert.Equal(counts, VariantPlanner.NeedsSubject(picture, slot));
        Assert.True(VariantPlanner.NeedsSubject(picture, slot with { SubjectShare = 0.8 }));
        Assert.False(VariantPlanner.NeedsSubject(picture, slot with { Fit = Fit.Whole }));
    }

    private static Slot SlotOf(SizeRule rule) =>
        new()
        {
            Key = "slot",
            Name = "Slot",
            Size = rule,
        };

    private static Ratio Shape(string text) =>
        Ratio.TryParse(text, out var ratio, out var error) ? ratio : throw new ArgumentException(error);
}

using CsCheck;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Tests.Framing;

public class FrameSolverTests
{
    private const double Hair = 1e-6;

    private static readonly Gen<PixelSize> Pictures = Gen.Select(
        Gen.Int[200, 8000],
        Gen.Int[200, 8000],
        (width, height) => new PixelSize(width, height)
    );

    private static readonly Gen<Ratio> Shapes = Gen.Select(
        Gen.Int[1, 12],
        Gen.Int[1, 12],
        (across, down) => Ratio.TryCreate(across, down, null, out var ratio, out _) ? ratio : throw new InvalidOperationException()
    );

    private static readonly Gen<Frame> Boxes = Gen.Select(
        Gen.Double[0, 0.9],
        Gen.Double[0, 0.9],
        Gen.Double[0.02, 0.6],
        Gen.Double[0.02, 0.6],
        (left, top, width, height) => Box(left, top, Math.Min(1, left + width), Math.Min(1, top + height))
    );

    private static readonly Gen<Frame> ClearAreas = Gen.Select(
        Gen.Double[0, 0.4],
        Gen.Double[0, 0.4],
        Gen.Double[0, 0.4],
        Gen.Double[0, 0.4],
        Gen.Bool,
        (left, top, right, bottom, all) => all ? Frame.Whole : Box(left, top, 1 - right, 1 - bottom)
    );

    [Fact]
    public void A_frame_lies_in_the_picture_and_has_the_exact_shape() =>
        Gen.Select(Pictures, Shapes, Boxes, ClearAreas, Gen.Double[0.1, 1])
            .Sample(
                (picture, shape, keep, clear, share) =>
                {
                    foreach (var wanted in new double?[] { null, share })
                    {
                        var frame = FrameSolver.Solve(picture, shape, null, Kept(keep), clear, wanted).Region;
                        Assert.True(
                            frame.X >= -Hair
                                && frame.Y >= -Hair
                                && frame.Right <= picture.Width + Hair
                                && frame.Bottom <= picture.Height + Hair,
                            $"{frame} leaves {picture}"
                        );
                        Assert.Equal(shape.Value, frame.Width / frame.Height, 1e-6);
                    }
                }
            );

    [Fact]
    public void The_keep_box_lies_in_the_clear_area_or_the_loss_is_told() =>
        Gen.Select(Pictures, Shapes, Boxes, ClearAreas)
            .Sample(
                (picture, shape, keep, clear) =>
                {
                    var solved = FrameSolver.Solve(picture, shape, null, Kept(keep), clear);
                    var box = keep.In(picture);
                    var inside = Overhang.Of(box, solved.Region.Part(clear)).IsNone;
                    Assert.Equal(inside, solved.Cut.IsNone && solved.Covered.IsNone);
                }
            );

    [Fact]
    public void No_wider_frame_holds_the_keep_box() =>
        Gen.Select(Pictures, Shapes, Boxes, ClearAreas)
            .Sample(
                (picture, shape, keep, clear) =>
                {
                    var solved = FrameSolver.Solve(picture, shape, null, Kept(keep), clear);
                    var box = keep.In(picture);
                    var widest = Math.Min(picture.Width, picture.Height * shape.Value);
                    // Tried by brute force on a grid of wider frames and places: what the closed form rules out must not exist.
                    for (var width = solved.Region.Width * 1.01; width <= widest; width += Math.Max(1, widest / 25))
                    {
                        var height = width / shape.Value;
                        var x = Place(box.X, box.Right, clear.Left, clear.Right, width, picture.Width);
                        var y = Place(box.Y, box.Bottom, clear.Top, clear.Bottom, height, picture.Height);
                        Assert.False(
                            x && y && !Losses(solved),
                            $"a frame {width} wide would hold {box} in {picture} where {solved.Region} was found"
                        );
                    }
                }
            );

    [Fact]
    public void A_subject_takes_the_share_that_is_asked_wherever_the_edges_allow() =>
        Gen.Select(Pictures, Shapes, Boxes, ClearAreas, Gen.Double[0.1, 1])
            .Sample(
                (picture, shape, keep, clear, share) =>
                {
                    var solved = FrameSolver.Solve(picture, shape, null, Kept(keep), clear, share);
                    if (Losses(solved))
                    {
                        return;
                    }

                    var (box, area) = (keep.In(picture), solved.Region.Part(clear));
                    var taken = Math.Max(box.Width / area.Width, box.Height / area.Height);
                    Assert.True(solved.ShareMissed is not null || Math.Abs(taken - share) <= 0.01 + Hair);
                    Assert.True(solved.ShareMissed is not { } missed || Math.Abs(taken - missed) < 1e-6);
                }
            );

    [Fact]
    public void Every_product_of_a_grid_is_equally_large()
    {
        // A small and a large product, each in the middle of its picture: both fill 80 % of the square's tighter side.
        foreach (var (left, right) in new[] { (0.4, 0.6), (0.2, 0.8) })
        {
            var keep = Box(left, left, right, right);
            var solved = FrameSolver.Solve(new(3000, 3000), Shape("1:1"), null, Kept(keep), null, 0.8);
            var box = keep.In(new(3000, 3000));
            Assert.Equal(Math.Max(box.Width, box.Height) / 0.8, solved.Region.Width, 6);
            Assert.Equal((1500, 1500), (Math.Round(solved.Region.CentreX, 6), Math.Round(solved.Region.CentreY, 6)));
        }
    }

    [Fact]
    public void Several_keep_boxes_are_held_together()
    {
        var solved = FrameSolver.Solve(
            new(4000, 2000),
            Shape("1:1"),
            null,
            Subject.Of([Box(0.6, 0.1, 0.7, 0.3), Box(0.8, 0.5, 0.9, 0.9)], null, null)
        );
        Assert.Equal((2000.0, 2000.0), (solved.Region.X, solved.Region.Width));
        Assert.Equal(FrameOrigin.Kept, solved.Origin);
    }

    [Fact]
    public void A_keep_box_wider_than_any_frame_is_cut_evenly_and_told_in_pixels()
    {
        var solved = FrameSolver.Solve(new(3000, 1000), Shape("1:1"), null, Kept(Box(0.2, 0.1, 0.8, 0.9)));
        Assert.Equal((400, 400), (Math.Round(solved.Cut.Left, 6), Math.Round(solved.Cut.Right, 6)));
        var reason = Assert.Single(
            VariantPlanner.Plan(new(3000, 1000), SlotOf("1:1"), Density.One, null, Kept(Box(0.2, 0.1, 0.8, 0.9))).Reasons
        );
        Assert.Equal(ReasonCodes.KeepCut, reason.Code);
        Assert.Contains("400 px at the left and by 400 px at the right", reason.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_box_that_fits_the_frame_but_not_the_clear_area_is_covered_and_not_cut()
    {
        var solved = FrameSolver.Solve(new(1000, 1000), Shape("1:1"), null, Kept(Box(0, 0.3, 0.9, 0.7)), Box(0.2, 0, 1, 1));
        Assert.True(solved.Cut.IsNone);
        Assert.Equal(200, solved.Covered.Left, 6);
    }

    [Fact]
    public void A_focus_lies_at_the_clear_areas_centre_as_far_as_the_edges_allow()
    {
        var clear = Box(0.5, 0, 1, 1);
        var solved = FrameSolver.Solve(new(4000, 1000), Shape("2:1"), null, Subject.Of([], new(0.6, 0.5), null), clear);
        Assert.Equal(2400, solved.Region.X + (0.75 * solved.Region.Width), 6);
        Assert.Equal(0, FrameSolver.Solve(new(4000, 1000), Shape("2:1"), null, Subject.Of([], new(0.1, 0.5), null), clear).Region.X);
    }

    [Fact]
    public void A_frame_by_hand_is_warned_about_and_not_moved()
    {
        var hand = Box(0, 0, 0.5, 0.5);
        var plan = VariantPlanner.Plan(new(2000, 2000), SlotOf("1:1"), Density.One, hand, Kept(Box(0.4, 0.1, 0.6, 0.2)));
        Assert.Equal(new(0, 0, 1000, 1000), plan.Crop);
        Assert.Equal((Verdict.Concedes, ReasonCodes.KeepCut), (plan.Verdict, plan.Reasons.Single().Code));
        Assert.Contains("set by hand cuts the keep box by 200 px at the right", plan.Reasons[0].Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_suggestion_frames_but_concedes_nothing()
    {
        var subject = Subject.Of([], null, new(Box(0.1, 0.1, 0.9, 0.9), SuggestionKind.EyeCatching));
        var plan = VariantPlanner.Plan(new(3000, 1000), SlotOf("1:1"), Density.One, null, subject);
        Assert.Equal((Verdict.Meets, ReasonCodes.Suggested), (plan.Verdict, plan.Reasons.Single().Code));
        Assert.Equal(
            FrameOrigin.Focus,
            FrameSolver
                .Solve(new(30, 10), Shape("1:1"), null, Subject.Of([], new(0.5, 0.5), new(Frame.Whole, SuggestionKind.EyeCatching)))
                .Origin
        );
    }

    [Fact]
    public void What_is_shown_again_in_other_shapes_holds_its_subject_in_what_is_common_to_them_all()
    {
        var slot = SlotOf("2:1") with { ShownAs = [Shape("1:1"), Shape("4:3")], Clear = Box(0, 0.1, 1, 1) };
        // A square in the middle of 2:1 is half as wide; 4:3 is two thirds as wide, and holds it.
        Assert.Equal(Box(0.25, 0.1, 0.75, 1), slot.Uncovered);
        var keep = Box(0.1, 0.4, 0.2, 0.6);
        var picture = new PixelSize(4000, 2000);
        var frame = VariantPlanner.Framed(picture, slot, null, Subject.Of([keep], null, null)).Region;
        Assert.InRange((400 - frame.X) / frame.Width, 0.25 - 1e-9, 0.75);
        Assert.InRange((800 - frame.X) / frame.Width, 0.25, 0.75 + 1e-9);
    }

    [Fact]
    public void Two_suggested_subjects_are_both_shown_where_a_frame_holds_both_else_the_stronger_one()
    {
        var both = new Suggestion(Box(0.1, 0.2, 0.9, 0.8), SuggestionKind.Object) { Strongest = Box(0.7, 0.2, 0.9, 0.8) };
        var picture = new PixelSize(3000, 1000);
        var wide = FrameSolver.Solve(picture, Shape("5:2"), null, Subject.Of([], null, both)).Region;
        Assert.True(wide.X <= 300 && wide.Right >= 2700);
        var square = FrameSolver.Solve(picture, Shape("1:1"), null, Subject.Of([], null, both)).Region;
        Assert.Equal(1900, square.X, 6);
        Assert.True(square.Right >= 2700);
    }

    [Fact]
    public void The_whole_pixels_that_are_cut_out_still_hold_the_box() =>
        Gen.Select(Pictures, Shapes, Boxes)
            .Sample(
                (picture, shape, keep) =>
                {
                    var slot = SlotOf(shape.Text);
                    var solved = VariantPlanner.Framed(picture, slot, null, Kept(keep));
                    var crop = VariantPlanner.Plan(picture, slot, Density.One, null, Kept(keep)).Crop;
                    var box = keep.In(picture);
                    Assert.True(
                        Losses(solved)
                            || (
                                crop.Left <= box.X + 1
                                && crop.Top <= box.Y + 1
                                && crop.Right >= box.Right - 1
                                && crop.Bottom >= box.Bottom - 1
                            ),
                        $"{crop} cuts {box}"
                    );
                }
            );

    private static bool Losses(SolvedFrame solved) => !solved.Cut.IsNone || !solved.Covered.IsNone;

    // True when somewhere along one side a frame of this length holds the box in its clear part and stays in the picture.
    private static bool Place(double from, double to, double clearFrom, double clearTo, double length, double most)
    {
        var low = Math.Max(0, to - (clearTo * length));
        var high = Math.Min(most - length, from - (clearFrom * length));
        return low <= high;
    }

    private static Subject Kept(Frame box) => Subject.Of([box], null, null);

    private static Slot SlotOf(string shape) =>
        new()
        {
            Key = "a",
            Name = "A",
            Size = new SizeRule.ShapeAlone(Shape(shape)),
        };

    private static Ratio Shape(string text) =>
        Ratio.TryParse(text, out var ratio, out var error) ? ratio : throw new InvalidOperationException(error);

    private static Frame Box(double left, double top, double right, double bottom) =>
        Frame.TryCreate(left, top, right, bottom, out var frame, out var error) ? frame : throw new InvalidOperationException(error);
}

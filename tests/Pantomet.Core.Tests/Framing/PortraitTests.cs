using CsCheck;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Tests.Framing;

public sealed class PortraitTests
{
    private static readonly PixelSize Wide = new(3000, 2000);

    [Fact]
    public void A_face_is_whole_in_every_frame_that_can_hold_it()
    {
        Gen.Select(Gen.Double[0, 0.8], Gen.Double[0, 0.8], Gen.Double[0.03, 0.2], Gen.Double[0.4, 2.5])
            .Sample(
                (left, top, side, shape) =>
                {
                    var face = Frame.Within(left, top, left + side, top + side);
                    var frame = FrameOf(Of(face), shape);
                    var couldHold =
                        face.Right - face.Left <= frame.Right - frame.Left && face.Bottom - face.Top <= frame.Bottom - frame.Top;
                    Assert.True(!couldHold || frame.Shared(face) >= face.Area * 0.999, $"{face} in {frame}");
                }
            );
    }

    [Fact]
    public void The_eyes_lie_at_a_third_from_above_where_nothing_is_in_the_way()
    {
        var face = Frame.Within(0.45, 0.4, 0.55, 0.55);
        var frame = FrameOf(Of(face), 3);
        var eyes = face.Top + (0.4 * (face.Bottom - face.Top));
        Assert.Equal(Portrait.EyeLine, (eyes - frame.Top) / (frame.Bottom - frame.Top), 3);
    }

    [Fact]
    public void A_head_at_the_upper_edge_keeps_its_hair_and_not_the_rule_of_the_eyes()
    {
        var face = Frame.Within(0.45, 0.05, 0.55, 0.2);
        Assert.Equal(0, FrameOf(Of(face), 3).Top, 6);
    }

    [Fact]
    public void Two_people_stay_together_where_a_frame_holds_both()
    {
        var (one, other) = (Frame.Within(0.3, 0.2, 0.4, 0.35), Frame.Within(0.55, 0.2, 0.65, 0.35));
        var frame = FrameOf(Of(one, other), 1);
        Assert.Equal(2, Of(one, other).FacesIn(frame));
    }

    [Fact]
    public void A_crop_too_narrow_for_two_keeps_the_larger_face_and_says_so()
    {
        var (small, large) = (Frame.Within(0.05, 0.2, 0.13, 0.33), Frame.Within(0.8, 0.2, 0.92, 0.4));
        var both = Of(small, large);
        var frame = FrameOf(both, 0.5);
        Assert.Equal(1, frame.Shared(large) / large.Area, 3);
        Assert.Equal(0, frame.Shared(small), 6);
        Assert.False(both.NeedsNoReview(frame));
        Assert.StartsWith("1 of 2 faces kept whole: the crop is too narrow", Said(both, 400, 800), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(1, "Face kept whole.")]
    [InlineData(2, "Two faces kept whole.")]
    [InlineData(3, "3 faces kept whole.")]
    public void What_was_kept_is_said(int faces, string begins)
    {
        var all = Enumerable.Range(0, faces).Select(i => Frame.Within(0.3 + (i * 0.12), 0.3, 0.38 + (i * 0.12), 0.42)).ToArray();
        Assert.StartsWith(begins, Said(Of(all), 900, 600), StringComparison.Ordinal);
    }

    [Fact]
    public void Faces_turn_with_the_picture()
    {
        var facts = Facts(Of(Frame.Within(0.1, 0.2, 0.2, 0.4)));
        var turned = CellPlan.SuggestionOf(facts, new Turn(1, 0))!.Value;
        Assert.Equal([Frame.Within(0.6, 0.1, 0.8, 0.2)], turned.Faces!.Select(Rounded));
    }

    private static Frame Rounded(Frame face) =>
        Frame.Within(Math.Round(face.Left, 9), Math.Round(face.Top, 9), Math.Round(face.Right, 9), Math.Round(face.Bottom, 9));

    private static Suggestion Of(params Frame[] faces) =>
        new(faces.Select(Portrait.Head).Aggregate((one, other) => one.With(other)), SuggestionKind.Faces)
        {
            Confidence = 0.9,
            Faces = faces,
        };

    private static Frame FrameOf(Suggestion suggestion, double shape)
    {
        Assert.True(Ratio.TryParse(shape.ToString("R", System.Globalization.CultureInfo.InvariantCulture), out var ratio, out _));
        return FrameSolver.Solve(Wide, ratio, null, Subject.Of([], null, suggestion)).Region.On(Wide);
    }

    private static string Said(Suggestion suggestion, int width, int height)
    {
        var slot = new Slot
        {
            Key = "a",
            Name = "A",
            Size = new SizeRule.Exact(new(width, height)),
        };
        var plan = VariantPlanner.Plan(Wide, slot, Density.One, null, Subject.Of([], null, suggestion));
        return plan.Reasons.Single(reason => reason.Code == ReasonCodes.Suggested).Message;
    }

    private static Core.Facts.PictureFacts Facts(Suggestion suggestion) =>
        new()
        {
            Size = Wide,
            Format = Core.Facts.PictureFormat.Jpeg,
            Bytes = 1,
            HasAlpha = false,
            Frames = 1,
            Orientation = 1,
            Colours = "RGB",
            Bits = 8,
            HasLocation = false,
            Suggestion = suggestion,
        };
}

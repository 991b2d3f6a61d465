using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Tests.Jobs;

public class CellPlanTests
{
    private static readonly JobSlot Place = new("site", "square");

    private static readonly PictureFacts Facts = new()
    {
        Size = new(3000, 2000),
        Format = PictureFormat.Jpeg,
        Bytes = 1_000_000,
        Suggestion = new(Box(0.7, 0.2, 0.9, 0.6), SuggestionKind.EyeCatching),
    };

    private static Frame Box(double left, double top, double right, double bottom) =>
        Frame.TryCreate(left, top, right, bottom, out var frame, out var error) ? frame : throw new ArgumentException(error);

    private static Slot SlotOf(string rule) =>
        RulesReader.TryRead(
            $$"""{"schema":"pantomet-rules/1","destinations":[{"key":"site","slots":[{"key":"square",{{rule}}}]}]}""",
            out var book,
            out var fault
        )
            ? book!.Destinations[0].Slots[0]
            : throw new ArgumentException(fault!.ToString());

    private static readonly Slot Square = SlotOf("""  "size":{"width":300,"height":300},"densities":[1,2] """);

    [Fact]
    public void A_suggestion_frames_until_it_is_turned_down()
    {
        Assert.Equal(FrameOrigin.Suggested, CellPlan.Of(Facts, Decisions.None, Square, Place).Solved.Origin);
        Assert.Equal(
            FrameOrigin.Centred,
            CellPlan.Of(Facts, Decisions.None with { SuggestionRejected = true }, Square, Place).Solved.Origin
        );
    }

    [Fact]
    public void A_shared_frame_holds_for_every_slot_of_its_shape_until_one_is_let_loose()
    {
        var shared = Box(0.1, 0.1, 0.4, 0.55);
        var decisions = Decisions.None with { Framings = new Dictionary<string, Frame> { ["1"] = shared } };
        var other = SlotOf("""  "size":{"ratio":"1:1","width":1200} """);
        Assert.Equal(shared.Left, CellPlan.Of(Facts, decisions, Square, Place).Frame.Left, 9);
        Assert.Equal(shared.Left, CellPlan.Of(Facts, decisions, other, new("shop", "large")).Frame.Left, 9);
        var own = Box(0.5, 0.5, 0.8, 0.95);
        var loose = decisions.With(Place.Address, new() { Unlinked = true, Frame = own });
        Assert.Equal(own.Left, CellPlan.Of(Facts, loose, Square, Place).Frame.Left, 9);
        Assert.Equal(shared.Left, CellPlan.Of(Facts, loose, other, new("shop", "large")).Frame.Left, 9);
    }

    [Fact]
    public void A_loose_slot_without_a_frame_follows_the_marks() =>
        Assert.Equal(
            FrameOrigin.Focus,
            CellPlan
                .Of(
                    Facts,
                    (
                        Decisions.None with
                        {
                            Focus = new(0.2, 0.2),
                            Framings = new Dictionary<string, Frame> { ["1"] = Box(0.1, 0.1, 0.4, 0.55) },
                        }
                    ).With(Place.Address, new() { Unlinked = true }),
                    Square,
                    Place
                )
                .Solved.Origin
        );

    [Fact]
    public void A_skipped_cell_wants_no_file() =>
        Assert.Empty(CellPlan.Of(Facts, Decisions.None.With(Place.Address, new() { Skip = true }), Square, Place).Requests);

    [Fact]
    public void Each_density_and_each_type_is_a_file()
    {
        var each = SlotOf("""  "size":{"width":300,"height":300},"densities":[1,2],"types":["webp","jpeg"],"each":true """);
        Assert.Equal(4, CellPlan.Of(Facts, Decisions.None, each, Place).Requests.Count);
        Assert.Equal(2, CellPlan.Of(Facts, Decisions.None, Square, Place).Requests.Count);
    }

    [Fact]
    public void The_choice_for_one_cell_outranks_the_choice_for_the_slot()
    {
        var place = Place with { Choice = new(null, 70) };
        Assert.All(CellPlan.Of(Facts, Decisions.None, Square, place).Requests, request => Assert.Equal(70, request.Quality));
        var own = Decisions.None.With(Place.Address, new() { Choice = new("webp", 40) });
        Assert.All(
            CellPlan.Of(Facts, own, Square, place).Requests,
            request => Assert.Equal((PictureFormat.WebP, 40), (request.Format, request.Quality))
        );
    }

    [Fact]
    public void A_turned_picture_is_planned_in_its_turned_size()
    {
        var plan = CellPlan.Of(Facts, Decisions.None with { Turn = new(1, 0) }, SlotOf("""  "size":{"width":1000} """), Place);
        Assert.Equal(new PixelSize(1000, 1500), plan.Asked);
    }

    [Theory]
    [InlineData("""  "size":{"width":1500,"height":1000} """, """  "size":{"ratio":"3:2","longSide":2048} """, true)]
    [InlineData("""  "size":{"width":2048,"height":1365} """, """  "size":{"ratio":1.5} """, true)]
    [InlineData("""  "size":{"ratio":"1.91:1","width":1200} """, """  "size":{"ratio":"2:1","width":1200} """, false)]
    [InlineData("""  "size":{"width":800} """, """  "size":{"longSide":2048} """, true)]
    [InlineData("""  "size":{"width":800,"height":800},"fit":"mat" """, """  "size":{"width":800,"height":800} """, false)]
    public void Slots_of_one_shape_are_kin(string one, string other, bool kin) =>
        Assert.Equal(kin, Shapes.KeyOf(SlotOf(one)) == Shapes.KeyOf(SlotOf(other)));

    [Fact]
    public void A_suggestion_wants_a_look_only_where_it_decides_what_is_cut_away()
    {
        Reason[] reasons = [new(ReasonCodes.Suggested, ""), new(ReasonCodes.OriginalQuality, "")];
        bool Asks(Suggestion? suggestion, Frame frame, params string[] accepted) =>
            Judgement.ToReview(reasons, suggestion, frame, accepted).Contains(ReasonCodes.Suggested);
        var old = new Suggestion(Box(0, 0.4, 0.2, 0.6), SuggestionKind.EyeCatching);
        Assert.True(Asks(old, Box(0, 0, 0.5, 1)));
        Assert.False(Asks(old, Box(0, 0, 0.9, 1)));
        Assert.False(Asks(old, Box(0, 0, 0.5, 1), ReasonCodes.Suggested));
        Assert.False(Asks(old with { Kind = SuggestionKind.PlainBackdrop }, Box(0, 0, 0.5, 1)));
        Assert.False(Asks(null, Box(0, 0, 0.5, 1)));
    }

    [Fact]
    public void A_sure_suggestion_goes_without_a_look_unless_much_of_it_is_cut_and_an_unsure_one_only_where_all_of_it_is_shown()
    {
        var sure = new Suggestion(Box(0, 0, 0.5, 1), SuggestionKind.Object) { Confidence = 0.8 };
        Assert.True(sure.NeedsNoReview(Box(0, 0, 0.4, 1)));
        Assert.False(sure.NeedsNoReview(Box(0, 0, 0.3, 1)));
        var unsure = sure with { Confidence = 0.45 };
        Assert.True(unsure.NeedsNoReview(Box(0, 0, 0.5, 1)));
        Assert.False(unsure.NeedsNoReview(Box(0, 0, 0.4, 1)));
    }

    [Fact]
    public void The_gravest_verdict_counts()
    {
        Assert.Equal(Verdict.Breaks, Judgement.Graver(Verdict.Concedes, Verdict.Breaks));
        Assert.Equal(Verdict.Concedes, Judgement.Graver(Verdict.Concedes, Verdict.Meets));
    }

    [Fact]
    public void Pictures_side_by_side_follow_the_turn_and_marks_of_each_and_go_only_where_as_many_are_taken()
    {
        var beside = SlotOf(""" "size":{"width":600,"height":300},"pair":{"count":2,"gap":10} """);
        (PictureFacts, Decisions)[] Two(Decisions first) => [(Facts with { Suggestion = null }, first), (Facts, Decisions.None)];
        var plain = CellPlan.OfPair(Two(Decisions.None), Decisions.None, beside, Place);
        var parts = Assert.Single(plain.Requests).Plan.Parts!;
        Assert.Equal([295, 295], parts.Select(part => part.Place.Width));
        // The suggestion of the second frames it.
        Assert.True(parts[1].Crop.Left > parts[0].Crop.Left);
        var turned = CellPlan.OfPair(Two(Decisions.None with { Turn = new(1, 0) }), Decisions.None, beside, Place).Requests[0].Plan.Parts!;
        Assert.True(turned[0].Crop.Bottom <= 3000 && turned[0].Crop.Right <= 2000);
        Assert.NotEqual(parts[0].Crop, turned[0].Crop);
        var hand = Box(0, 0, 0.3, 0.45);
        var held = Decisions.None.With(Place.Address, new() { Unlinked = true, Frame = hand });
        // Cut to the part's shape, about its middle.
        Assert.Equal((8, 0), (Held().Left, Held().Top));
        Crop Held() => CellPlan.OfPair(Two(held), Decisions.None, beside, Place).Requests[0].Plan.Parts![0].Crop;

        var alone = CellPlan.OfPair(Two(Decisions.None), Decisions.None, Square, Place);
        Assert.True(alone.Skipped);
        Assert.Equal(ReasonCodes.Pair, alone.Requests[0].Plan.Reasons[0].Code);
        Assert.True(CellPlan.Of(Facts, Decisions.None, beside, Place).Skipped);
        var lacking = CellPlan.OfBrokenPair(new(900, 300), Decisions.None, beside, Place, "\"a.jpg\" is gone.");
        Assert.False(lacking.Skipped);
        var only = Assert.Single(lacking.Requests).Plan;
        Assert.Equal((Verdict.Breaks, ReasonCodes.PairPart), (only.Verdict, only.Reasons[0].Code));
        Assert.False(only.IsMade);
    }
}

using CsCheck;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.Tests.Framing;

public sealed class SubjectChoiceTests
{
    private static readonly Frame Somewhere = Frame.Within(0.2, 0.2, 0.6, 0.7);

    [Fact]
    public void A_face_comes_before_any_thing()
    {
        var face = new Detection(Frame.Within(0.7, 0.2, 0.8, 0.35), 0.9);
        var found = SubjectChoice.Of(Objects(Somewhere, 0.9), [face], [new(Somewhere, 0.95)])!.Value;
        Assert.Equal((SuggestionKind.Faces, 0.9), (found.Kind, found.Confidence));
        Assert.Equal([face.Box], found.Faces!);
        Assert.Equal(face.Box.Area, found.Box.Shared(face.Box), 6);
    }

    [Fact]
    public void Whoever_a_face_belongs_to_is_the_thing_around_it()
    {
        var person = Frame.Within(0.3, 0.1, 0.6, 1);
        var found = SubjectChoice.Of(null, [new(Frame.Within(0.4, 0.15, 0.5, 0.3), 0.9)], [new(person, 0.5)])!.Value;
        Assert.Equal(person.Area, found.Box.Shared(person), 6);
    }

    [Theory]
    [InlineData(0.1, 0.84, false, false)]
    [InlineData(0.1, 0.86, false, true)]
    [InlineData(0.1, 0.59, true, false)]
    [InlineData(0.1, 0.61, true, true)]
    [InlineData(0.04, 0.8, true, false)]
    [InlineData(0.04, 0.86, true, true)]
    public void A_face_is_believed_by_its_score_and_sooner_where_somebody_is_around_it_unless_it_is_small(
        double side,
        double score,
        bool somebody,
        bool believed
    )
    {
        var face = new Detection(Frame.Within(0.4, 0.4, 0.4 + side, 0.4 + side), score);
        Detection[] things = somebody ? [new(Frame.Within(0.3, 0.35, 0.6, 1), 0.3)] : [];
        Assert.Equal(believed, SubjectChoice.OfFaces([face], things) is not null);
    }

    [Fact]
    public void What_fills_the_whole_picture_is_no_thing_in_it()
    {
        var everything = new Detection(Frame.Within(0.01, 0, 0.99, 0.98), 0.8);
        Assert.Null(SubjectChoice.Settled([], [everything]));
        Assert.Null(SubjectChoice.Of(null, [], [everything]));
    }

    [Fact]
    public void What_stands_before_a_nearly_plain_backdrop_counts_where_somebody_else_drew_about_the_same_box()
    {
        Suggestion backdrop = new(Somewhere, SuggestionKind.PlainBackdrop) { Confidence = 0.9 };
        var content = new Suggestion(Frame.Within(0.4, 0.4, 0.5, 0.5), SuggestionKind.Content);
        Assert.Equal(content, SubjectChoice.Beside(backdrop, content, []));
        Assert.Equal(backdrop, SubjectChoice.Beside(backdrop, content, [new(Frame.Within(0.2, 0.25, 0.65, 0.7), 0.1)]));
        // A thing that is surely seen is drawn better than by trimming.
        var thing = new Suggestion(Frame.Within(0.3, 0.2, 0.6, 0.6), SuggestionKind.Object) { Confidence = Suggestion.Sure };
        Assert.Equal(thing, SubjectChoice.Beside(backdrop, thing, [new(thing.Box, 0.7)]));
        Assert.Null(SubjectChoice.Beside(null, null, []));
    }

    [Fact]
    public void Faces_in_the_background_are_nobodys_subject()
    {
        var (near, far) = (new Detection(Frame.Within(0.3, 0.2, 0.5, 0.5), 0.95), new Detection(Frame.Within(0.8, 0.2, 0.83, 0.24), 0.9));
        Assert.Equal([near.Box], SubjectChoice.OfFaces([near, far], [])!.Value.Faces!);
    }

    [Fact]
    public void Where_both_networks_agree_the_box_lies_between_theirs()
    {
        var thing = Frame.Within(0.25, 0.25, 0.6, 0.7);
        var found = SubjectChoice.Of(Objects(Somewhere, 0.7), [], [new(thing, 0.5)])!.Value;
        Assert.Equal((0.225, 0.225, 0.6, 0.7), (found.Box.Left, found.Box.Top, found.Box.Right, found.Box.Bottom));
    }

    [Fact]
    public void A_thing_that_is_sure_needs_nobody_and_others_nearly_as_sure_belong_to_it()
    {
        var (one, other) = (Frame.Within(0.1, 0.4, 0.3, 0.8), Frame.Within(0.6, 0.4, 0.8, 0.8));
        var found = SubjectChoice.Of(null, [], [new(one, 0.7), new(other, 0.6)])!.Value;
        Assert.Equal(Frame.Within(0.1, 0.4, 0.8, 0.8), found.Box);
        Assert.Equal(one, found.Strongest);
    }

    [Fact]
    public void Nobody_else_is_asked_where_somebody_or_a_thing_is_seen_without_doubt()
    {
        var face = new Detection(Frame.Within(0.7, 0.2, 0.8, 0.35), 0.9);
        Assert.Equal(SuggestionKind.Faces, SubjectChoice.Settled([face], [])!.Value.Kind);
        Assert.Equal(SuggestionKind.Object, SubjectChoice.Settled([], [new(Somewhere, 0.6)])!.Value.Kind);
        // Sure enough to be believed, but another network may still draw the box better.
        Assert.Null(SubjectChoice.Settled([], [new(Somewhere, 0.59)]));
        Assert.Null(SubjectChoice.Settled([], []));
    }

    [Fact]
    public void What_one_network_half_sees_alone_is_texture_and_only_where_the_content_lies()
    {
        Assert.Equal(SuggestionKind.Content, SubjectChoice.Of(Objects(Somewhere, 0.71), [], [])!.Value.Kind);
        Assert.Equal(SuggestionKind.Object, SubjectChoice.Of(Objects(Somewhere, 0.73), [], [])!.Value.Kind);
        var inside = new Detection(Frame.Within(0.3, 0.3, 0.4, 0.4), 0.12);
        Assert.Equal(SuggestionKind.Object, SubjectChoice.Of(Objects(Somewhere, 0.6), [], [inside])!.Value.Kind);
    }

    [Fact]
    public void Nothing_seen_is_nothing_suggested() => Assert.Null(SubjectChoice.Of(null, [new(Somewhere, 0.3)], [new(Somewhere, 0.2)]));

    [Fact]
    public void The_best_of_boxes_that_lie_on_each_other_is_kept() =>
        Gen.Select(Gen.Double[0, 0.7], Gen.Double[0, 0.7], Gen.Double[0.05, 0.3], Gen.Double[0, 1])
            .Select((left, top, side, score) => new Detection(Frame.Within(left, top, left + side, top + side), score))
            .List[1, 12]
            .Sample(found =>
            {
                var kept = Detection.Apart(found, 0.5);
                Assert.Equal(found.Max(one => one.Score), kept[0].Score);
                Assert.All(kept, one => Assert.DoesNotContain(kept, other => other != one && Detection.Overlap(one.Box, other.Box) > 0.5));
                Assert.All(found, one => Assert.Contains(kept, better => better == one || Detection.Overlap(better.Box, one.Box) > 0.5));
            });

    private static Suggestion Objects(Frame box, double confidence) => new(box, SuggestionKind.Object) { Confidence = confidence };
}

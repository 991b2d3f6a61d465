using Pantomet.Core.PageChecks;

namespace Pantomet.Core.Tests.PageChecks;

/// <summary>Which pictures of a mended page must be held otherwise.</summary>
public sealed class RewrittenPageTests
{
    [Fact]
    public void What_moved_or_shows_something_else_is_held_otherwise() =>
        Assert.Equal([1, 2], Changed([Seen(0.99), Seen(0.99, stayed: false), Seen(0.5), Seen(0.97)], Taken(0.995)).Order());

    [Fact]
    public void What_was_squashed_or_blurred_need_not_look_the_same_but_must_stay()
    {
        Assert.Empty(Changed([Seen(0.2, altered: true), Seen(0.7, blurred: true)], Taken(0.97)));
        Assert.Equal([0], Changed([Seen(0.2, altered: true, stayed: false)], Taken(0.999)));
    }

    [Fact]
    public void Where_the_page_looks_other_the_picture_least_alike_goes_first()
    {
        Assert.Equal([1], Changed([Seen(0.95), Seen(0.9), Seen(0.1, altered: true)], Taken(0.97)));
        // A small one does less of it than a large one.
        Assert.Equal([0], Changed([Seen(0.95, area: 9000), Seen(0.9)], Taken(0.97)));
        // What is left already is no cause, and neither is what is the same.
        Assert.Empty(Changed([Seen(0.9) with { Left = "It was left." }, Seen(1)], Taken(0.97)));
    }

    [Fact]
    public void One_change_is_tried_before_the_next() => Assert.Equal([0], Changed([Seen(0.5), Seen(0.9)], Taken(0.9)));

    private static IReadOnlySet<int> Changed(IReadOnlyList<RewrittenImage> images, RewrittenScreen screen) =>
        RewrittenPage.ToChange(images, [screen]);

    private static RewrittenImage Seen(
        double similarity,
        bool stayed = true,
        bool altered = false,
        bool blurred = false,
        double area = 1000
    ) => new("img", ImageKind.Img, "a.jpg", null, altered, [new(360, similarity, blurred, stayed) { Area = area }]);

    private static RewrittenScreen Taken(double similarity) => new(360, 1, 100, 50, 800, 800, similarity, similarity);
}

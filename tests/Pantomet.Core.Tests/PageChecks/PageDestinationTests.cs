using Pantomet.Core.PageChecks;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.PageChecks;

/// <summary>The destination that is made of a measured page.</summary>
public sealed class PageDestinationTests
{
    [Fact]
    public void Places_of_one_shape_at_the_same_widths_are_one_slot()
    {
        var made = Made(
            Image("a", [800, 600], Shown(360, 180, 135), Shown(1280, 400, 300)),
            Image("b", [400, 300], Shown(360, 180, 135), Shown(1280, 400, 300))
        );
        var slot = Assert.Single(made.Slots);
        Assert.Equal(4.0 / 3, slot.FrameShape!.Value.Value, 3);
        Assert.Equal(400, slot.Responsive!.Sizes.WidthAt(1280), 0);
        Assert.Equal([(0, null), (1, null)], made.Placed.Select(one => (one.Image, one.Frame)));
    }

    [Fact]
    public void Another_width_or_shape_is_another_slot()
    {
        var made = Made(
            Image("a", [800, 600], Shown(360, 180, 135)),
            Image("b", [800, 600], Shown(360, 90, 67.5)),
            Image("c", [600, 600], Shown(360, 180, 180))
        );
        Assert.Equal(["place-1", "place-2", "place-3"], made.Slots.Select(slot => slot.Key));
    }

    [Fact]
    public void A_shape_that_changes_with_the_window_becomes_a_group()
    {
        var made = Made(Image("a", [2000, 1500], Shown(360, 360, 360, [0.125, 0, 0.875, 1]), Shown(1280, 1280, 320, [0, 0.3, 1, 0.63333])));
        Assert.Equal(["place-1-from-1280", "place-1-from-360"], made.Slots.Select(slot => slot.Key));
        Assert.All(made.Slots, slot => Assert.Equal("place-1", slot.Group));
        Assert.True(made.Slots[0].ShownAt.Contains(1280) && !made.Slots[0].ShownAt.Contains(1279));
        Assert.Equal(0.125, made.Placed[1].Frame!.Value.Left);
        Assert.Equal(0.3, made.Placed[0].Frame!.Value.Top);
    }

    [Fact]
    public void What_was_squashed_is_cut_to_its_place_and_framed_anew()
    {
        var made = Made(Image("a", [800, 600], Shown(360, 300, 100)));
        Assert.Equal(3, made.Slots[0].FrameShape!.Value.Value, 3);
        Assert.Null(made.Placed[0].Frame);
    }

    [Fact]
    public void Of_a_page_without_pictures_there_is_none() =>
        Assert.Null(PageDestination.Of(Report(Image("a", null, Shown(360, 10, 10))), "page", "A page"));

    private static (IReadOnlyList<Slot> Slots, IReadOnlyList<PlacedImage> Placed) Made(params ReportedImage[] images)
    {
        var made = PageDestination.Of(Report(images), "page", "A page");
        Assert.True(RulesReader.TryRead(made!.Json, out var book, out var fault), fault?.ToString());
        return (Assert.Single(book!.Destinations).Slots, made.Placed);
    }

    private static PageReport Report(params ReportedImage[] images) =>
        new(
            "page",
            images,
            new(images.Length, 0, 0, 0, 0, 10, 0, 0, [new(360, 1, 0, 0, 0, 0, 0, 800, null), new(1280, 2, 0, 0, 0, 0, 0, 800, null)]),
            []
        );

    private static ReportedImage Image(string where, IReadOnlyList<int>? natural, params ReportedPlace[] shown) =>
        new()
        {
            Address = where + ".jpg",
            Where = where,
            Kind = ImageKind.Img,
            Natural = natural,
            Bytes = 1,
            Format = "jpeg",
            Shown = shown,
            Files = [],
            Gain = 0,
            Path = "loaded/0",
            Faults = [],
        };

    private static ReportedPlace Shown(int viewport, double width, double height, IReadOnlyList<double>? part = null) =>
        new(viewport, 1, [width, height], [(int)width, (int)height], 0, [0, 0, width, height], part ?? [0, 0, 1, 1]);
}

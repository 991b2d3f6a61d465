using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.PageChecks;
using static Pantomet.Core.PageChecks.PageFaultCode;

namespace Pantomet.Core.Tests.PageChecks;

/// <summary>What is wrong with a picture of a page, and what is not.</summary>
public sealed class PageFaultsTests
{
    private static readonly Screen Phone = new(360, 1);
    private static readonly Screen Dense = new(360, 2);
    private static readonly Screen Large = new(1280, 1);

    [Fact]
    public void A_picture_of_the_size_of_its_place_with_words_and_room_has_no_fault() =>
        Assert.Empty(Codes(Image(new(400, 300), Shown(Phone, 400, 300))));

    [Fact]
    public void Too_large_is_what_no_screen_needs_so_large()
    {
        Assert.Equal([TooLarge], Codes(Image(new(800, 600), Shown(Phone, 400, 300))));
        // Two densities need two sizes, and the larger one is needed.
        Assert.Equal([OneSize], Codes(Image(new(800, 600), Shown(Phone, 400, 300), Shown(Dense, 400, 300))));
        // A tenth of the pixels is nothing.
        Assert.Empty(Codes(Image(new(420, 315), Shown(Phone, 400, 300))));
    }

    [Fact]
    public void What_is_loaded_and_never_shown_is_too_large() => Assert.Equal([TooLarge], Codes(Image(new(800, 600), Shown(Phone, 0, 0))));

    [Fact]
    public void Enlarged_is_what_has_too_few_pixels_for_some_screen()
    {
        Assert.Equal([Enlarged], Codes(Image(new(300, 225), Shown(Phone, 400, 300))));
        Assert.Empty(Codes(Image(new(390, 293), Shown(Phone, 400, 300))));
        // Cut to its place it is drawn larger than the place is.
        Assert.Equal([Enlarged], Codes(Image(new(400, 300), Shown(Phone, 300, 400) with { Fit = "cover" })));
    }

    [Theory]
    [InlineData(400, 300, "fill", false)]
    [InlineData(400, 250, "fill", true)]
    [InlineData(400, 296, "fill", true)]
    [InlineData(400, 298, "fill", false)]
    [InlineData(400, 250, "cover", false)]
    [InlineData(400, 250, "contain", false)]
    public void Squashed_is_what_has_two_scales(double width, double height, string fit, bool squashed)
    {
        var codes = Codes(Image(new(400, 300), Shown(Phone, width, height) with { Fit = fit }));
        Assert.Equal(squashed, codes.Contains(Squashed));
    }

    [Fact]
    public void Half_a_pixel_of_rounding_squashes_nothing() => Assert.Empty(Codes(Image(new(32, 21), Shown(Phone, 32, 21.5))));

    [Fact]
    public void One_size_for_all_is_told_where_the_page_gives_no_choice_and_of_no_icon()
    {
        var choice = Shown(Phone, 400, 300) with { Choice = true };
        Assert.Empty(Codes(Image(new(800, 600), choice, Shown(Large, 800, 600) with { Choice = true })));
        Assert.Equal([OneSize], Codes(Image(new(800, 600), Shown(Phone, 400, 300), Shown(Large, 800, 600))));
        Assert.Empty(Codes(Image(new(48, 48), Shown(Phone, 24, 24), Shown(Dense, 24, 24))));
    }

    [Fact]
    public void Heavy_and_old_types_are_held_against_files_that_were_made()
    {
        var image = Image(new(400, 300), Shown(Phone, 400, 300));
        PossibleFile Made(long same, long lightest) =>
            new(
                PossiblePlace.Of(image)[0],
                new(PictureFormat.Jpeg, new(400, 300), same, 0.996),
                new(PictureFormat.WebP, new(400, 300), lightest, 0.996)
            );
        Assert.Empty(PageFaults.Of(image, [Made(90_000, 89_000)], false));
        Assert.Equal([OldType], PageFaults.Of(image, [Made(90_000, 70_000)], false).Select(fault => fault.Code));
        Assert.Equal([Heavy, OldType], PageFaults.Of(image, [Made(40_000, 30_000)], false).Select(fault => fault.Code));
        Assert.Contains(
            "WebP looks the same and weighs 30 kB, 40 kB as JPEG.",
            PageFaults.Of(image, [Made(40_000, 30_000)], false)[1].Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void No_room_no_words_and_when_it_is_loaded_are_told_of_images()
    {
        var shown = Shown(Phone, 400, 300);
        Assert.Equal([NoSize], Codes(Image(new(400, 300), shown with { Reserved = false })));
        Assert.Equal([NoAlt], Codes(Image(new(400, 300), shown with { HasWords = false })));
        Assert.Equal([LazyFirst], Codes(Image(new(400, 300), shown with { Lazy = true })));
        var below = shown with { Place = new(0, 900, 400, 300) };
        Assert.Equal([EagerBelow], Codes(Image(new(400, 300), below)));
        Assert.Empty(Codes(Image(new(400, 300), below with { Lazy = true })));
        // Seen at once on one screen is not below.
        Assert.DoesNotContain(EagerBelow, Codes(Image(new(400, 300), below, Shown(Dense, 200, 150))));
        Assert.Empty(Codes(Image(new(400, 300), below with { Kind = ImageKind.Background }) with { Kind = ImageKind.Background }));
    }

    [Fact]
    public void What_cannot_be_loaded_is_missing_and_has_no_size_to_speak_of()
    {
        var image = Image(new(400, 300), Shown(Phone, 400, 300)) with { File = new(0, null, null, "\"a.jpg\" does not exist.") };
        Assert.Equal([Missing], Codes(image));
        Assert.Equal([Missing], Codes(Image(new(400, 300), Shown(Phone, 400, 300) with { Broken = true })));
    }

    [Fact]
    public void Places_that_need_nearly_the_same_share_a_file_and_nothing_is_enlarged()
    {
        var image = Image(
            new(1000, 750),
            Shown(Phone, 360, 270),
            Shown(Dense, 360, 270),
            Shown(new(768, 1), 700, 525),
            Shown(Large, 1200, 900)
        );
        var places = PossiblePlace.Of(image);
        Assert.Equal([new(1000, 750), new(720, 540), new(360, 270)], places.Select(place => place.Size));
        Assert.Equal([new(768, 1), Dense], places[1].Screens.OrderBy(screen => screen.Density));
    }

    [Fact]
    public void The_waste_is_the_share_of_pixels_that_nobody_needs()
    {
        var image = Image(new(800, 600), Shown(Phone, 400, 300));
        Assert.Equal(0.75, image.Shown[0].Waste(new(800, 600)), 9);
        Assert.Equal(0, image.Shown[0].Waste(new(200, 150)));
    }

    private static SeenImage Shown(Screen screen, double width, double height) =>
        new()
        {
            // The screen travels in the selector's stead until it is put together.
            Where = FormattableString.Invariant($"{screen.Viewport} {screen.Density}"),
            Kind = ImageKind.Img,
            Address = "a.jpg",
            Box = new(width, height),
            Place = new(0, 0, width, height),
            Fit = "fill",
        };

    private static PageImage Image(PixelSize size, params SeenImage[] seen)
    {
        var screens = seen.Select(one =>
        {
            var words = one.Where.Split(' ');
            var screen = new Screen(int.Parse(words[0]), double.Parse(words[1]));
            return (screen, (IReadOnlyList<SeenImage>)[one with { Where = "img" }]);
        });
        var files = new Dictionary<string, LoadedFile> { ["a.jpg"] = new(100_000, PictureFormat.Jpeg, size, null) };
        return Assert.Single(PageImage.Of([.. screens], files));
    }

    private static List<PageFaultCode> Codes(PageImage image) => [.. PageFaults.Of(image, [], false).Select(fault => fault.Code)];
}

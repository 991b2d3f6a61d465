using System.Text.Json;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.PageChecks;

namespace Pantomet.Core.Tests.PageChecks;

/// <summary>What a page weighs on its screens, and what it could.</summary>
public sealed class PageReportTests
{
    private static readonly Screen Phone = new(360, 1);
    private static readonly Screen Large = new(1280, 1);

    [Fact]
    public void A_file_in_two_places_is_loaded_once_and_as_large_as_the_larger_one_needs_it()
    {
        var report = Report(
            [Image("a.jpg", "#first", (Phone, 300, 200), (Large, 600, 400)), Image("a.jpg", "#second", (Phone, 100, 67), (Large, 100, 67))],
            [Possible(([Large], 40_000), ([Phone], 20_000)), Possible(([Large, Phone], 5_000))]
        );
        Assert.Equal([(100_000, 20_000), (100_000, 40_000)], report.Totals.Screens.Select(screen => (screen.Bytes, screen.Possible)));
        Assert.Equal(
            (100_000, 100_000, 30_000, 70_000),
            (report.Totals.Bytes, report.Totals.Mean, report.Totals.Possible, report.Totals.Waste)
        );
        Assert.Equal(2, report.Totals.Images);
    }

    [Fact]
    public void What_a_screen_does_not_load_does_not_count_there()
    {
        var report = Report(
            [Image("a.jpg", "#wide", (Large, 600, 400)), Image("b.jpg", "#narrow", (Phone, 300, 200))],
            [
                [],
                [],
            ]
        );
        Assert.Equal([100_000, 100_000], report.Totals.Screens.Select(screen => screen.Bytes));
        Assert.Equal(200_000, report.Totals.Bytes);
    }

    [Fact]
    public void What_is_loaded_and_never_shown_could_weigh_nothing_and_a_file_that_is_not_lighter_changes_nothing()
    {
        var report = Report(
            [Image("a.jpg", "#hidden", (Phone, 0, 0), (Large, 0, 0)), Image("b.jpg", "#light", (Phone, 300, 200), (Large, 300, 200))],
            [
                [],
                Possible(([Large, Phone], 130_000)),
            ]
        );
        Assert.All(report.Totals.Screens, screen => Assert.Equal((200_000, 100_000), (screen.Bytes, screen.Possible)));
        Assert.Equal(["#hidden", "#light"], report.Images.Select(image => image.Where));
        Assert.Equal([100_000, 0], report.Images.Select(image => image.Gain));
        Assert.Equal(100_000, report.Images[1].Possible);
    }

    [Fact]
    public void Times_are_those_of_all_bytes_at_the_rate()
    {
        var report = Report([Image("a.jpg", "#a", (Phone, 300, 200), (Large, 300, 200))], [Possible(([Large, Phone], 25_000))]);
        // 100 000 and 25 000 bytes with 400 000 others at 10 megabits a second.
        Assert.Equal((0.4, 0.34), (report.Totals.Screens[0].Seconds, report.Totals.Screens[0].SecondsPossible));
    }

    [Fact]
    public void The_picture_that_counts_first_is_the_one_that_takes_most_of_the_first_view()
    {
        var small = Image("a.jpg", "#small", (Phone, 300, 200));
        var large = Image("b.jpg", "#large", (Phone, 360, 500));
        var below = Image("c.jpg", "#below", (Phone, 360, 3000));
        below = below with { Shown = [below.Shown[0] with { Image = below.Shown[0].Image with { Place = new(0, 790, 360, 3000) } }] };
        Assert.Equal(
            "#large",
            Report(
                [small, large, below],
                [
                    [],
                    [],
                    [],
                ]
            )
                .Totals.Screens[0]
                .First
        );
        Assert.Null(
            Report(
                [below with { Shown = [] }],
                [
                    [],
                ]
            )
                .Totals.Screens[0]
                .First
        );
    }

    [Fact]
    public void It_comes_back_from_its_json_and_has_the_keys_of_the_format()
    {
        var report = Report([Image("a.jpg", "#a", (Phone, 300, 200))], [Possible(([Phone], 25_000))]);
        var json = report.ToJson();
        Assert.Equal(json, PageReport.FromJson(json).ToJson());
        var image = JsonDocument.Parse(json).RootElement.GetProperty("images")[0];
        Assert.Equal("pantomet-page/1", JsonDocument.Parse(json).RootElement.GetProperty("schema").GetString());
        Assert.Equal(
            ["a.jpg", "#a", "img", "jpeg"],
            new[] { "address", "where", "kind", "format" }.Select(key => image.GetProperty(key).GetString())
        );
        Assert.Equal(
            "[300,200]",
            image
                .GetProperty("shown")[0]
                .GetProperty("css")
                .GetRawText()
                .Replace("\n", "", StringComparison.Ordinal)
                .Replace(" ", "", StringComparison.Ordinal)
        );
    }

    private static PageReport Report(IReadOnlyList<PageImage> images, IReadOnlyList<IReadOnlyList<PossibleFile>> possible) =>
        PageReport.Of(
            new("page", "http://page.test/", [new(Phone, 2000, 400_000), new(Large, 2000, 400_000)], images, [], TimeSpan.FromSeconds(1)),
            possible,
            10,
            TimeSpan.FromSeconds(2)
        );

    private static List<PossibleFile> Possible(params (Screen[] Screens, long Bytes)[] files) =>
        [
            .. files.Select(file => new PossibleFile(
                new(Frame.Whole, new(600, 400), file.Screens),
                null,
                new(PictureFormat.WebP, new(600, 400), file.Bytes, 0.996)
            )),
        ];

    private static PageImage Image(string address, string where, params (Screen Screen, double Width, double Height)[] shown) =>
        new(
            where,
            ImageKind.Img,
            "http://page.test/" + address,
            new(100_000, PictureFormat.Jpeg, new(1200, 800), null),
            [
                .. shown.Select(one => new ShownImage(
                    one.Screen,
                    new()
                    {
                        Where = where,
                        Kind = ImageKind.Img,
                        Address = "http://page.test/" + address,
                        Place = new(0, 0, one.Width, one.Height),
                    },
                    Placing.OfImage(new(one.Width, one.Height), new(1200, 800), "fill", null)
                )),
            ]
        );
}

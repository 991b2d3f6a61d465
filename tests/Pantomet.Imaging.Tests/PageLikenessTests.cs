using NetVips;
using Pantomet.Core.PageChecks;
using Pantomet.Imaging.Tests.Support;
using Pantomet.PageChecks.Rewriting;

namespace Pantomet.Imaging.Tests;

/// <summary>Two pictures of a page held against each other.</summary>
public sealed class PageLikenessTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("likeness-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Fact]
    public void The_same_page_is_the_same_and_its_difference_shows_nothing()
    {
        var page = Page("a", 600, 2300);
        var (whole, rest, places) = Compare(page, page, [new(10, 10, 200, 100), new(0, 0, 4, 4)], []);
        Assert.Equal((1, 1, 1), (whole!.Value, rest!.Value, places[0].Similarity!.Value));
        // No window fits into it.
        Assert.Null(places[1].Similarity);
        using var difference = Image.NewFromFile(Path.Combine(_folder, "difference.png"));
        Assert.Equal((600, 2300, 3), (difference.Width, difference.Height, difference.Bands));
        Assert.Equal(0, (difference.ExtractBand(0) - difference.ExtractBand(1)).Abs().Max());
    }

    [Fact]
    public void What_is_left_out_does_not_count_for_the_whole()
    {
        var (before, after) = (Page("a", 600, 2300), Page("b", 600, 2300, new PageBox(100, 1000, 300, 200)));
        PageBox[] boxes = [new(100, 1000, 300, 200), new(0, 0, 90, 90)];
        var (whole, _, places) = Compare(before, after, boxes, []);
        Assert.True(whole < 0.99, $"{whole}");
        Assert.True(places[0] is { Similarity: < 0.5, WasBlurred: false }, $"{places[0]}");
        Assert.Equal(1, places[1].Similarity!.Value);
        // Windows at its edge still reach into it.
        Assert.InRange(Compare(before, after, boxes, [0]).Others!.Value, 0.99, 1);
        using var difference = Image.NewFromFile(Path.Combine(_folder, "difference.png"));
        using var red = difference.ExtractBand(0) - difference.ExtractBand(1);
        Assert.True(red.Crop(110, 1010, 280, 180).Avg() > 50);
        Assert.Equal(0, red.Crop(0, 0, 600, 990).Max());
    }

    [Fact]
    public void What_only_gains_its_finest_detail_was_blurred_and_what_moved_was_not()
    {
        PageBox[] boxes = [new(100, 100, 400, 300)];
        var sharp = Page("a", 600, 500);
        using var page = Image.NewFromFile(sharp);
        using var soft = page.Gaussblur(1.2);
        var scene = Path.Combine(_folder, "scene.png");
        soft.Pngsave(scene);
        using var softer = soft.Gaussblur(0.9);
        var before = Path.Combine(_folder, "softer.png");
        softer.Pngsave(before);
        Assert.True(Compare(before, scene, boxes, []).Places[0] is { Similarity: < 0.98, WasBlurred: true });
        // The other way round it lost something.
        Assert.False(Compare(scene, before, boxes, []).Places[0].WasBlurred);
        var moved = Path.Combine(_folder, "moved.png");
        soft.Wrap(2, 2).Pngsave(moved);
        Assert.True(Compare(scene, moved, boxes, []).Places[0] is { Similarity: < 0.98, WasBlurred: false });
    }

    [Fact]
    public void A_file_that_was_written_anew_is_read_anew()
    {
        PageBox[] boxes = [new(0, 0, 300, 200)];
        var page = Page("a", 300, 200);
        Page("b", 300, 200, boxes[0]);
        Assert.True(Compare(page, Path.Combine(_folder, "b.png"), boxes, []).Whole < 0.5);
        Assert.Equal(1, Compare(page, Page("b", 300, 200), boxes, []).Whole!.Value);
    }

    private (double? Whole, double? Others, IReadOnlyList<PlaceLikeness> Places) Compare(
        string before,
        string after,
        PageBox[] places,
        HashSet<int> left
    ) => PageLikeness.Compare(before, after, places, left, Path.Combine(_folder, "difference.png"));

    // A page full of texture; one that is longer than a strip.
    private string Page(string name, int width, int height, PageBox? other = null)
    {
        using var noise = Image.Gaussnoise(width, height, mean: 128, sigma: 40, seed: 4).Cast(Enums.BandFormat.Uchar);
        var page = noise.Bandjoin(noise, noise).Copy(interpretation: Enums.Interpretation.Srgb);
        if (other is { } box)
        {
            using var changed = Image
                .Gaussnoise((int)box.Width, (int)box.Height, mean: 128, sigma: 40, seed: 5)
                .Cast(Enums.BandFormat.Uchar);
            page = page.Insert(changed.Bandjoin(changed, changed), (int)box.X, (int)box.Y);
        }

        var path = Path.Combine(_folder, $"{name}.png");
        page.Pngsave(path);
        page.Dispose();
        return path;
    }
}

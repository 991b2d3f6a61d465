using CsCheck;
using Pantomet.Core.Deliveries;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Core.Weight;

namespace Pantomet.Core.Tests.Deliveries;

public sealed class SurvivalSearchTests
{
    private static readonly PixelSize Own = new(2048, 1536);

    /// <summary>
    /// A receiver that leaves alone what is small enough and of a quality up to its own: the search finds both, whatever they are.
    /// </summary>
    [Fact]
    public void The_largest_size_and_the_highest_quality_that_are_left_alone_are_found() =>
        Gen.Select(Gen.Int[300, 2047], Gen.Int[SurvivalSearch.Lowest, SurvivalSearch.Highest])
            .Sample(
                (side, quality) =>
                {
                    var tried = Search(side, quality);
                    var best = tried[SurvivalSearch.Best(tried)!.Value];
                    Assert.Equal((side, quality), (best.Size.Width, best.Quality!.Value));
                    Assert.True(best.Shown!.IsSame);
                    Assert.InRange(tried.Count, 2, 9);
                },
                iter: 200
            );

    [Fact]
    public void A_receiver_that_leaves_the_file_alone_is_asked_once()
    {
        var tried = Search(4000, 100);
        Assert.Single(tried);
        Assert.Equal(0, SurvivalSearch.Best(tried));
    }

    [Fact]
    public void Where_everything_is_made_anew_the_best_is_what_looks_best()
    {
        var tried = Search(1440, 0);
        var best = tried[SurvivalSearch.Best(tried)!.Value];
        Assert.False(best.Shown!.IsSame);
        Assert.Equal((1440, SurvivalSearch.Highest), (best.Size.Width, best.Quality!.Value));
    }

    [Fact]
    public void A_receiver_that_shows_nothing_or_another_shape_ends_the_search()
    {
        Assert.Null(SurvivalSearch.Next(Own, [new(Own, null, 1, null)]));
        Assert.Null(SurvivalSearch.Next(Own, [new(Own, null, 1, new("a", Width: 400, Height: 400, Trouble: "It cut it."))]));
        Assert.Null(SurvivalSearch.Best([new(Own, null, 1, null)]));
    }

    [Fact]
    public void A_receiver_that_reduces_everything_again_is_not_followed_for_ever()
    {
        List<SurvivalTry> tried = [];
        while (SurvivalSearch.Next(Own, tried) is { } step)
        {
            var smaller = new PixelSize(step.Size.Width * 3 / 4, step.Size.Height * 3 / 4);
            tried.Add(new(step.Size, step.Quality, 1, new("a", Width: smaller.Width, Height: smaller.Height, Likeness: 0.9)));
            Assert.InRange(tried.Count, 1, 20);
        }
    }

    [Theory]
    [InlineData("""{ "longSide": 2048 }""", """{ "longSide": 1440 }""")]
    [InlineData("""{ "ratio": "4:3", "width": 2048 }""", """{ "ratio": "4:3", "width": 1440 }""")]
    [InlineData("""{ "width": 2048, "height": 1536 }""", """{ "width": 1440, "height": 1080 }""")]
    [InlineData("""{ "within": { "width": 2048, "height": 2048 } }""", """{ "within": { "width": 1440, "height": 1440 } }""")]
    public void The_rule_asks_for_what_survives(string before, string after)
    {
        var rule = SurvivalSearch.Rule(Slot(before), Own, new(1440, 1080), 82)!;
        Assert.Equal(Slot(after).Size, rule.Size);
        Assert.Equal(new QualityRange(60, 82), rule.Aims.Quality);
    }

    [Fact]
    public void A_rule_of_several_densities_is_left_to_the_hand() =>
        Assert.Null(SurvivalSearch.Rule(Slot("""{ "width": 655 }""", """, "densities": [1, 2]"""), Own, new(1440, 1080), 82));

    private static List<SurvivalTry> Search(int side, int quality)
    {
        List<SurvivalTry> tried = [];
        while (SurvivalSearch.Next(Own, tried) is { } step)
        {
            // The file as it is has a quality of 90.
            var given = step.Quality ?? 90;
            var left = step.Size.Width <= side && given <= quality;
            var shown = step.Size.Width <= side ? step.Size : new PixelSize(side, ((side * 3) + 2) / 4);
            tried.Add(
                new(
                    step.Size,
                    step.Quality,
                    given * 1000,
                    new(
                        "a",
                        Width: shown.Width,
                        Height: shown.Height,
                        IsSame: left,
                        Likeness: (left ? 0.9 : 0.8) + (given * 0.001) - (shown == step.Size ? 0 : 0.01)
                    )
                )
            );
        }

        return tried;
    }

    private static Slot Slot(string size, string more = "")
    {
        Assert.True(
            RulesReader.TryReadSlot($$"""{ "key": "post", "name": "Post", "size": {{size}}{{more}} }""", out var slot, out var fault),
            fault?.ToString()
        );
        return slot!;
    }
}

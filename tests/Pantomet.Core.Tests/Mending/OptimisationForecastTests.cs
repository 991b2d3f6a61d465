using Pantomet.Core.Mending;

namespace Pantomet.Core.Tests.Mending;

/// <summary>What a folder would come to, told from a part of it.</summary>
public sealed class OptimisationForecastTests
{
    [Fact]
    public void Few_pictures_are_all_tried_and_nothing_is_estimated()
    {
        Assert.Equal([0, 1, 2], OptimisationForecast.Drawn([5, 1, 9]));
        var told = OptimisationForecast.Of([new(100, 40, 2), new(50, 50, 1), new(10, 9, 3)], 160, all: true, jobs: 2);
        Assert.Equal(new(3, true, 2, 61, 0, 3), told);
    }

    [Fact]
    public void Of_many_each_is_drawn_once_and_heavy_ones_come_as_often_as_they_weigh()
    {
        var random = new Random(5);
        for (var round = 0; round < 50; round++)
        {
            List<long> weights = [.. Enumerable.Range(0, random.Next(25, 2_000)).Select(_ => random.NextInt64(1, 9_000_000))];
            var drawn = OptimisationForecast.Drawn(weights);
            Assert.InRange(drawn.Count, 1, OptimisationForecast.MostTried);
            Assert.Equal(drawn.Order().Distinct(), drawn);
            Assert.All(drawn, i => Assert.InRange(i, 0, weights.Count - 1));
        }

        // One that is half of everything is there.
        Assert.Contains(700, OptimisationForecast.Drawn([.. Enumerable.Range(0, 1_000).Select(i => i == 700 ? 999L : 1L)]));
    }

    // Where every second picture halves and the others stay, whatever they weigh, the whole is told to within what it says.
    [Fact]
    public void The_whole_lies_within_what_is_given_or_taken()
    {
        var random = new Random(7);
        var (within, rounds) = (0, 200);
        for (var round = 0; round < rounds; round++)
        {
            List<(long Before, long After)> all =
            [
                .. Enumerable
                    .Range(0, 1_500)
                    .Select(_ => random.NextInt64(10_000, 9_000_000))
                    .Select(bytes => (bytes, (long)(bytes * (random.Next(2) == 0 ? 1 : random.NextDouble() * 0.5)))),
            ];
            var drawn = OptimisationForecast.Drawn([.. all.Select(one => one.Before)]);
            var told = OptimisationForecast.Of(
                [.. drawn.Select(i => new TriedPicture(all[i].Before, all[i].After, 1))],
                all.Sum(one => one.Before),
                all: false,
                jobs: 1
            );
            var really = all.Sum(one => one.Before - one.After);
            within += Math.Abs(told.Saved - really) <= told.GiveOrTake ? 1 : 0;
        }

        // Two standard errors hold 95 of 100 by the normal law.
        Assert.InRange(within, 0.9 * rounds, rounds);
    }

    // Two dozen that all stay tell much, but not that all others do.
    [Fact]
    public void What_is_told_from_a_part_never_passes_for_the_whole() =>
        Assert.False(OptimisationForecast.Of([.. Enumerable.Repeat(new TriedPicture(10, 10, 1), 24)], 1_000_000, all: false, jobs: 1).All);

    [Fact]
    public void Of_a_handful_nobody_can_tell_how_far_the_rest_is() =>
        Assert.Null(OptimisationForecast.Of([new(10, 5, 1), new(10, 5, 1)], 1_000, all: false, jobs: 1).GiveOrTake);
}

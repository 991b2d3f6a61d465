using System.Globalization;
using CsCheck;
using Pantomet.Core.Geometry;
using Pantomet.Core.Responsive;

namespace Pantomet.Core.Tests.Responsive;

public class LadderTests
{
    private static readonly Gen<string> Lengths = Gen.OneOf(
        Gen.Int[1, 900].Select(px => $"{px}px"),
        Gen.Int[1, 60].Select(em => $"{em}em"),
        Gen.Int[10, 1000].Select(tenths => string.Create(CultureInfo.InvariantCulture, $"{tenths / 10.0}vw")),
        Gen.Select(Gen.Int[20, 100], Gen.Int[1, 30], (vw, px) => $"calc({vw}vw - {px}px)"),
        Gen.Select(Gen.Int[1, 40], Gen.Int[900, 2000], (vw, px) => $"calc({px}px - {vw}vw)")
    );

    private static readonly Gen<string> SizesTexts = Gen.Select(
        Gen.Select(Gen.Int[300, 1500], Lengths, (px, length) => (px, length)).Array[0, 3],
        Lengths,
        (parts, last) =>
            string.Join(
                ", ",
                parts
                    .DistinctBy(part => part.px)
                    .OrderByDescending(part => part.px)
                    .Select(part => $"(min-width: {part.px}px) {part.length}")
                    .Append(last)
            )
    );

    private static readonly Gen<Density[]> Screens = Gen.OneOfConst<Density[]>(
        [new(1)],
        [new(1), new(2)],
        [new(1), new(1.5m), new(2), new(3)],
        [new(1.25m), new(2.625m)]
    );

    private static readonly Gen<(Needs Needs, int[] All)> Some = Gen.Select(
        SizesTexts,
        Gen.Int[320, 700],
        Gen.Int[0, 400],
        Screens,
        (text, from, more, densities) =>
        {
            var sizes = SizesOf(text);
            return (
                Needs.Of(sizes, ViewportRanges.Between(from, from + more), densities),
                // Counted one viewport after the other, with exact figures.
                Enumerable
                    .Range(from, more + 1)
                    .SelectMany(viewport =>
                        densities.Select(density => (int)Math.Ceiling((decimal)Math.Round(sizes.WidthAt(viewport), 9) * density.Value))
                    )
                    .Distinct()
                    .Order()
                    .ToArray()
            );
        }
    );

    [Fact]
    public void What_is_needed_is_what_counting_every_viewport_finds() =>
        Gen.Select(Some, Gen.Int[1, 6000])
            .Sample(
                (some, width) =>
                {
                    Assert.Equal(some.All[0], some.Needs.Least);
                    Assert.Equal(some.All[^1], some.Needs.Largest);
                    Assert.Equal(some.All.LastOrDefault(need => need <= width), some.Needs.AtMost(width) ?? 0);
                    Assert.Equal(some.All.FirstOrDefault(need => need >= width), some.Needs.AtLeast(width) ?? 0);
                },
                iter: 3000
            );

    [Fact]
    public void No_ladder_within_the_waste_has_fewer_files() =>
        Gen.Select(Some, Gen.Int[0, 95], Gen.Int[50, 7000])
            .Sample(
                (some, percent, honest) =>
                {
                    var waste = Math.Max(percent, 5) / 100m;
                    var widths = Ladder.Within(some.Needs, waste, honest);
                    var needs = Cut(some.All, honest);
                    Assert.Equal(FewestFor(needs, waste), widths.Count);
                    Assert.All(widths, width => Assert.Contains(width, needs));
                    Assert.All(needs, need => Assert.True(Wasted(Ladder.Taken(widths, need), need) <= waste));
                },
                iter: 2000
            );

    [Fact]
    public void No_ladder_of_so_many_files_wastes_less_at_its_worst() =>
        Gen.Select(Some, Gen.Int[1, 6], Gen.Int[50, 7000])
            .Sample(
                (some, files, honest) =>
                {
                    var widths = Ladder.OfCount(some.Needs, files, honest);
                    var needs = Cut(some.All, honest);
                    Assert.InRange(widths.Count, 1, files);
                    Assert.Equal(widths.Distinct().Order(), widths);
                    var worst = needs.Max(need => Wasted(Ladder.Taken(widths, need), need));
                    // A difference, not decimal places: two figures on either side of a half would be rounded apart.
                    Assert.InRange(worst - LeastWorst(needs, files), -1e-12m, 1e-12m);
                    Assert.Equal((double)worst, Ladder.WorstWaste(some.Needs, widths), 1e-9);
                },
                iter: 600
            );

    [Fact]
    public void Over_a_stretch_of_viewports_the_same_width_is_taken_and_beyond_it_another() =>
        Gen.Select(SizesTexts, Gen.Int[300, 700], Gen.Int[0, 900], Gen.Int[1, 3], Gen.Int[20, 3000].Array[1, 6])
            .Sample(
                (text, from, more, density, some) =>
                {
                    var sizes = SizesOf(text);
                    int[] widths = [.. some.Distinct().Order()];
                    int TakenAt(int viewport) => Ladder.Taken(widths, Needs.Of(sizes.WidthAt(viewport), new Density(density)));
                    var stretches = Ladder.Stretches(sizes, ViewportRanges.Between(from, from + more), new Density(density), widths);
                    Assert.Equal(
                        Enumerable.Range(from, more + 1),
                        stretches.SelectMany(one => Enumerable.Range(one.From, one.To - one.From + 1)).Order()
                    );
                    Assert.All(
                        stretches,
                        one => Assert.Single(Enumerable.Range(one.From, one.To - one.From + 1).Select(TakenAt).Distinct())
                    );
                },
                iter: 500
            );

    [Fact]
    public void The_widest_need_comes_first_and_the_waste_is_reached_exactly()
    {
        // 1000 px keeps 0.64 of its pixels down to 800 px exactly: 800 is still served, and 799 is the next.
        var needs = Needs.Of(SizesOf("100vw"), ViewportRanges.Between(500, 1000), [Density.One]);
        Assert.Equal([511, 639, 799, 1000], Ladder.Within(needs, 0.36m, 9999));
    }

    [Fact]
    public void A_column_with_a_set_width_gets_its_densities_exactly()
    {
        var needs = Needs.Of(SizesOf("655px"), ViewportRanges.Between(320, 1920), [new(1), new(1.5m), new(2)]);
        Assert.Equal([655, 983, 1310], Ladder.Within(needs, 0, 9999));
        Assert.Equal([655, 983, 1200], Ladder.Within(needs, 0, 1200));
    }

    [Theory]
    [InlineData(320, 400)]
    [InlineData(400, 400)]
    [InlineData(401, 800)]
    [InlineData(1200, 1200)]
    [InlineData(3000, 1200)]
    public void A_visitor_takes_the_narrowest_that_is_wide_enough_else_the_widest(int need, int taken) =>
        Assert.Equal(taken, Ladder.Taken([400, 800, 1200], need));

    [Fact]
    public void A_file_of_800_wastes_three_quarters_on_who_needs_400()
    {
        Assert.Equal(0.75, Ladder.Waste(800, 400));
        Assert.Equal(0, Ladder.Waste(800, 900));
    }

    private static Sizes SizesOf(string text) =>
        Sizes.TryParse(text, out var sizes, out var error) ? sizes! : throw new ArgumentException($"{text}: {error}");

    private static decimal Wasted(int taken, int need) => need >= taken ? 0 : 1 - ((decimal)need * need / ((decimal)taken * taken));

    private static int[] Cut(int[] needs, int honest) => [.. needs.Select(need => Math.Min(need, honest)).Distinct().Order()];

    // Over all ladders: the fewest files for the needs up to each, the last of which is always a need itself.
    private static int FewestFor(int[] needs, decimal waste)
    {
        var fewest = new int[needs.Length + 1];
        for (var to = 1; to <= needs.Length; to++)
        {
            fewest[to] = int.MaxValue;
            for (var from = to - 1; from >= 0 && Wasted(needs[to - 1], needs[from]) <= waste; from--)
            {
                fewest[to] = Math.Min(fewest[to], fewest[from] + 1);
            }
        }

        return fewest[^1];
    }

    private static decimal LeastWorst(int[] needs, int files)
    {
        // worst[k][to]: the least worst waste for the first needs with k files.
        var worst = new decimal[files + 1, needs.Length + 1];
        for (var k = 0; k <= files; k++)
        {
            for (var to = 0; to <= needs.Length; to++)
            {
                worst[k, to] =
                    to == 0 ? 0
                    : k == 0 ? 2
                    : Enumerable.Range(0, to).Min(from => Math.Max(worst[k - 1, from], Wasted(needs[to - 1], needs[from])));
            }
        }

        return worst[files, needs.Length];
    }
}

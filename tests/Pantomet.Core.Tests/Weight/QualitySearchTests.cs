using CsCheck;
using Pantomet.Core.Weight;

namespace Pantomet.Core.Tests.Weight;

public class QualitySearchTests
{
    // A made-up encoder: weight grows exponentially with quality, with noise; the cheap one is heavier by a drifting factor.
    private static readonly Gen<(double Start, double Growth, double Noise, int Seed)> Encoders = Gen.Select(
        Gen.Double[500, 50_000],
        Gen.Double[0.01, 0.06],
        Gen.Double[0, 0.002],
        Gen.Int[0, 1000],
        (start, growth, noise, seed) => (start, growth, noise, seed)
    );

    [Fact]
    public void The_limit_is_never_exceeded_and_the_highest_quality_that_fits_is_found() =>
        Gen.Select(Encoders, Gen.Double[0.05, 1.5])
            .Sample(
                (encoder, share) =>
                {
                    var limit = Math.Floor(Dear(encoder, 80) * share);
                    var probes = new Probes(q => Cheap(encoder, q), q => Dear(encoder, q));
                    var found = QualitySearch.HighestWithin(new(10, 80), limit, probes);
                    if (!found.Fits)
                    {
                        Assert.True(Dear(encoder, 10) > limit);
                        return;
                    }

                    Assert.True(Dear(encoder, found.Quality) <= limit);
                    if (found.Quality < 80)
                    {
                        // One more step would be over, but for what the prediction may wrongly believe to be clearly over.
                        Assert.True(
                            Dear(encoder, found.Quality + 1) > limit * 0.98 || Dear(encoder, found.Quality) >= limit * 0.985,
                            $"quality {found.Quality} leaves room"
                        );
                    }
                }
            );

    [Fact]
    public void The_lowest_quality_that_loses_little_enough_is_found() =>
        Gen.Select(Encoders, Gen.Double[0.05, 1.5])
            .Sample(
                (encoder, share) =>
                {
                    // Loss falls with quality as weight grows.
                    double Loss(int quality) => 1000.0 / Dear(encoder, quality);
                    var most = Loss(20) * share;
                    var found = QualitySearch.LowestWithin(new(10, 80), most, new Probes(q => 1100.0 / Cheap(encoder, q), Loss));
                    Assert.Equal(Loss(80) <= most, found.Fits);
                    if (found.Fits)
                    {
                        Assert.True(Loss(found.Quality) <= most);
                        Assert.True(found.Quality == 10 || Loss(found.Quality - 1) > most * 0.98 || Loss(found.Quality) >= most * 0.985);
                    }
                }
            );

    [Fact]
    public void Without_a_limit_the_ceiling_is_taken_unseen()
    {
        var probes = new Probes(_ => throw new InvalidOperationException(), _ => throw new InvalidOperationException());
        Assert.Equal(new(80, true), QualitySearch.HighestWithin(new(10, 80), double.PositiveInfinity, probes));
    }

    [Fact]
    public void The_dear_encoder_is_asked_a_few_times_only()
    {
        var probes = new Probes(q => 9000 * Math.Exp(q * 0.04), q => 7000 * Math.Exp(q * 0.0405));
        QualitySearch.HighestWithin(new(10, 80), 150_000, probes);
        Assert.InRange(probes.DearEncodes, 1, 3);
    }

    [Theory]
    [InlineData(92, false, 60, 80)]
    [InlineData(70, false, 60, 70)]
    [InlineData(40, false, 40, 40)]
    [InlineData(70, true, 60, 70)]
    [InlineData(40, true, 60, 60)]
    public void The_quality_of_an_original_lowers_the_ceiling_but_not_a_floor_that_was_asked_for(
        int original,
        bool asked,
        int floor,
        int ceiling
    ) => Assert.Equal(new(floor, ceiling), new QualityRange(60, 80).CappedAt(original, asked));

    [Theory]
    [InlineData("500 kB", 500_000)]
    [InlineData("1 MB", 1_000_000)]
    [InlineData("300 KiB", 307_200)]
    [InlineData("1 MiB", 1_048_576)]
    [InlineData("1.5 MB", 1_500_000)]
    [InlineData("150000", 150_000)]
    public void Weights_are_read_with_decimal_units_unless_binary_ones_are_named(string text, long bytes)
    {
        Assert.True(ByteCount.TryParse(text, out var count, out _));
        Assert.Equal(bytes, count.Bytes);
    }

    [Theory]
    [InlineData("kB")]
    [InlineData("-5 kB")]
    [InlineData("0 kB")]
    [InlineData("5 GB!")]
    [InlineData("five")]
    public void Nonsense_is_no_weight(string text) => Assert.False(ByteCount.TryParse(text, out _, out _));

    private sealed class Probes(Func<int, double> cheap, Func<int, double> dear) : IQualityProbes
    {
        public int DearEncodes { get; private set; }

        public double Ratio => 0.8;

        public double Cheap(int quality) => cheap(quality);

        public double Dear(int quality)
        {
            DearEncodes++;
            return dear(quality);
        }
    }

    private static long Dear((double Start, double Growth, double Noise, int Seed) encoder, int quality) =>
        (long)(encoder.Start * Math.Exp(encoder.Growth * quality) * (1 + (encoder.Noise * Math.Sin((quality * 12.9898) + encoder.Seed))));

    private static long Cheap((double Start, double Growth, double Noise, int Seed) encoder, int quality) =>
        (long)(encoder.Start * 1.25 * Math.Exp(encoder.Growth * 0.98 * quality));
}

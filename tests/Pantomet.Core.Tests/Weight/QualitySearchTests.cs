using CsCheck;
using Pantomet.Core.Facts;
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

    // Losses fall with the setting, evenly in the logarithm but for the picture's own slope and some noise.
    private static readonly Gen<(double Loss, double Slope, double Noise, int Seed)> Losses = Gen.Select(
        Gen.Double[0.05, 0.3],
        Gen.Double[0.015, 0.045],
        Gen.Double[0, 0.01],
        Gen.Int[0, 1000],
        (loss, slope, noise, seed) => (loss, slope, noise, seed)
    );

    [Fact]
    public void The_lowest_setting_that_loses_little_enough_is_found_within_a_few_encodes() =>
        Gen.Select(Losses, Gen.Int[10, 95], Gen.Int[5, 95], Gen.Double[0.7, 1.4])
            .Sample(
                (losses, guess, at, off) =>
                {
                    var most = LossAt(losses, at);
                    var probes = LossProbes(losses, off);
                    var found = QualitySearch.LowestReaching(guess, most, probes, -0.027);
                    Assert.InRange(probes.DearEncodes, 1, 3);
                    Assert.True(LossAt(losses, found) <= most, $"{found} for {at} from {guess}");
                    Assert.InRange(found, at - 2, at + 6);
                }
            );

    [Fact]
    public void Where_trials_tell_the_truth_one_encode_is_enough_however_wrong_the_guess() =>
        Gen.Select(Losses, Gen.Int[1, 100], Gen.Int[5, 95])
            .Sample(
                (losses, guess, at) =>
                {
                    var probes = LossProbes(losses, 1);
                    QualitySearch.LowestReaching(guess, LossAt(losses, at), probes, -0.027);
                    Assert.Equal(1, probes.DearEncodes);
                }
            );

    [Fact]
    public void Losses_in_steps_cost_no_encode_for_each_setting()
    {
        // Like a table of whole numbers: five settings give the same file, the next much better.
        static double Steps(int setting) => Math.Exp(-0.2 * (setting / 5));
        var probes = new Probes(setting => Steps(setting) / 0.8, Steps);
        Assert.Equal(50, QualitySearch.LowestReaching(20, 1.05 * Steps(50), probes, -0.027));
        Assert.Equal(1, probes.DearEncodes);
    }

    [Fact]
    public void The_setting_that_comes_nearest_to_a_loss_is_estimated_from_as_far_off_as_pictures_differ() =>
        Gen.Select(Losses, Gen.Int[-25, 25], Gen.Int[10, 90])
            .Sample(
                (losses, off, at) =>
                {
                    var (wanted, looks) = (LossAt(losses, at), 0);
                    var found = QualitySearch.Estimate(at + off, wanted, setting => LossAt(losses, setting, ref looks), -0.027);
                    Assert.InRange(looks, 1, 3);
                    Assert.InRange(found, at - 5, at + 5);
                }
            );

    [Fact]
    public void A_likeness_beyond_the_encoder_ends_at_its_highest_setting()
    {
        Assert.Equal(100, QualitySearch.LowestReaching(80, 0.0001, new Probes(_ => 0.01, _ => 0.01), -0.027));
        Assert.Equal(100, QualitySearch.Estimate(80, 0.0001, _ => 0.01, -0.03));
    }

    [Fact]
    public void A_guess_that_was_right_takes_one_look_and_a_slope_that_rises_is_refused()
    {
        var looks = 0;
        Assert.Equal(
            70,
            QualitySearch.Estimate(
                70,
                0.01,
                _ =>
                {
                    looks++;
                    return 0.01;
                },
                -0.03
            )
        );
        Assert.Equal(1, looks);
        Assert.Throws<ArgumentOutOfRangeException>(() => QualitySearch.Estimate(70, 0.01, _ => 0.01, 0));
    }

    [Theory]
    [InlineData(PictureFormat.WebP)]
    [InlineData(PictureFormat.Avif)]
    public void Usual_settings_grow_with_the_number_and_lead_back_to_it(PictureFormat format)
    {
        var settings = Enumerable.Range(1, 100).Select(number => QualityScale.Usual(format, number)).ToList();
        Assert.Equal(settings.Order(), settings);
        Assert.Equal((1, 100), (settings[0], settings[^1]));
        Assert.All(
            Enumerable.Range(1, 100),
            number =>
                Assert.Equal(
                    QualityScale.Usual(format, number),
                    QualityScale.Usual(format, QualityScale.UsualNumber(format, QualityScale.Usual(format, number)))
                )
        );
    }

    private static double LossAt((double Loss, double Slope, double Noise, int Seed) losses, int setting, ref int looks)
    {
        looks++;
        return LossAt(losses, setting);
    }

    private static double LossAt((double Loss, double Slope, double Noise, int Seed) losses, int setting) =>
        losses.Loss * Math.Exp(-losses.Slope * setting) * (1 + (losses.Noise * Math.Sin((setting * 7.3) + losses.Seed)));

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
    [InlineData(92, 60, 80)]
    [InlineData(70, 60, 70)]
    [InlineData(40, 40, 40)]
    public void The_quality_of_an_original_lowers_the_ceiling(int original, int floor, int ceiling) =>
        Assert.Equal(new(floor, ceiling), new QualityRange(60, 80).CappedAt(original));

    [Theory]
    [InlineData(40, 1, 40)]
    [InlineData(40, 1.5, 70)]
    [InlineData(40, 1.99, 99)]
    [InlineData(40, 2, null)]
    [InlineData(90, 1.2, 92)]
    [InlineData(100, 1, 100)]
    public void Reduction_averages_an_originals_damage_away_until_it_caps_nothing(int original, double reduction, int? cap) =>
        Assert.Equal(cap, QualityRange.Cap(original, reduction));

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

    [Fact]
    public void A_setting_moves_by_what_is_wanted_and_never_beyond_its_ends() =>
        Gen.Select(Gen.Int[1, 100], Gen.Double[0.2, 5], Gen.Double[-0.09, -0.02])
            .Sample(
                (setting, times, slope) =>
                {
                    var moved = QualitySearch.Moved(setting, times, slope);
                    Assert.InRange(moved, 1, 100);
                    // Less loss needs a higher setting.
                    Assert.True(times > 1 ? moved <= setting : moved >= setting);
                    var exact = setting + (Math.Log(times) / slope);
                    Assert.True(Math.Abs(moved - exact) <= 0.5 || moved is 1 or 100 || Math.Abs(moved - setting) == 15);
                }
            );

    [Fact]
    public void The_next_look_lies_between_those_around_what_is_wanted()
    {
        Assert.InRange(QualitySearch.Next([(40, 0.03), (60, 0.015)], 0.02, -0.03), 41, 59);
        // With one look the usual slope leads on.
        Assert.Equal(QualitySearch.Moved(40, 0.5, -0.03), QualitySearch.Next([(40, 0.03)], 0.015, -0.03));
        // More loss at a higher setting is chance.
        Assert.Equal(QualitySearch.Moved(40, 0.5, -0.03), QualitySearch.Next([(40, 0.03), (44, 0.031)], 0.015, -0.03));
    }

    [Fact]
    public void Looks_come_to_the_wanted_loss_on_any_line() =>
        Gen.Select(Gen.Int[10, 90], Gen.Int[10, 90], Gen.Double[-0.08, -0.015])
            .Sample(
                (start, end, slope) =>
                {
                    double LossAt(int setting) => 0.02 * Math.Exp(slope * (setting - end));
                    var looks = new List<(int, double)> { (start, LossAt(start)) };
                    for (var i = 0; i < 8; i++)
                    {
                        var next = QualitySearch.Next(looks, 0.02, -0.03);
                        looks.Add((next, LossAt(next)));
                    }

                    Assert.InRange(looks[^1].Item1, end - 1, end + 1);
                }
            );

    // Trials that are off by a factor, and have their own noise.
    private static Probes LossProbes((double Loss, double Slope, double Noise, int Seed) losses, double off) =>
        new(setting => LossAt(losses, setting) * off / 0.8, setting => LossAt(losses, setting));

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

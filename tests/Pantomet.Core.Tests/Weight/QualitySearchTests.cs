using CsCheck;
using Pantomet.Core.Weight;

namespace Pantomet.Core.Tests.Weight;

public class QualitySearchTests
{
    // A made-up encoder: weight grows exponentially with quality, with noise; the cheap one is heavier by a drifting factor.
    private static readonly Gen<(double Start, double Growth, double Noise, int Seed)> Encoders =
        Gen.Select(Gen.Double[500, 50_000], Gen.Double[0.01, 0.06], Gen.Double[0, 0.002], Gen.Int[0, 1000], (start, growth, noise, seed) => (start, growth, noise, seed));

    [Fact]
    public void The_limit_is_never_exceeded_and_the_highest_quality_that_fits_is_found() =>
        Gen.Select(Encoders, Gen.Double[0.05, 1.5]).Sample((encoder, share) =>
        {
            var limit = (long)(Dear(encoder, 80) * share);
            var found = QualitySearch.Find(new(10, 80), limit, q => Cheap(encoder, q), q => Dear(encoder, q), size => size);
            if (!found.Fits)
            {
                Assert.True(Dear(encoder, 10) > limit);
                return;
            }

            Assert.True(found.File <= limit);
            Assert.Equal(Dear(encoder, found.Quality), found.File);
            if (found.Quality < 80)
            {
                // One more step would be over, but for what the prediction may wrongly believe to be clearly over.
                Assert.True(Dear(encoder, found.Quality + 1) > limit * 0.98, $"quality {found.Quality} leaves room");
            }
        });

    [Fact]
    public void Without_a_limit_one_encode_at_the_ceiling_is_enough()
    {
        var found = QualitySearch.Find(QualityRange.Usual, null, _ => throw new InvalidOperationException(), q => (long)q, size => size);
        Assert.Equal((80, 1), (found.Quality, found.Encodes));
    }

    [Fact]
    public void The_dear_encoder_is_asked_a_few_times_only()
    {
        var dear = 0;
        QualitySearch.Find(new(10, 80), 150_000, q => (long)(9000 * Math.Exp(q * 0.04)), q =>
        {
            dear++;
            return (long)(7000 * Math.Exp(q * 0.0405));
        }, size => size);
        Assert.InRange(dear, 1, 4);
    }

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

    private static long Dear((double Start, double Growth, double Noise, int Seed) encoder, int quality) =>
        (long)(encoder.Start * Math.Exp(encoder.Growth * quality) * (1 + (encoder.Noise * Math.Sin((quality * 12.9898) + encoder.Seed))));

    private static long Cheap((double Start, double Growth, double Noise, int Seed) encoder, int quality) =>
        (long)(encoder.Start * 1.25 * Math.Exp(encoder.Growth * 0.98 * quality));
}

using CsCheck;
using Pantomet.Core.Likeness;

namespace Pantomet.Core.Tests.Likeness;

public sealed class CieLabTests
{
    // Sharma, Wu, Dalal 2005, table 1: pairs 1, 4, 7, 10, 13, 16, 17, 20, 25, 28, 31 and 34.
    [Theory]
    [InlineData(50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425)]
    [InlineData(50, -1.3802, -84.2814, 50, 0, -82.7485, 1.0000)]
    [InlineData(50, 0, 0, 50, -1, 2, 2.3669)]
    [InlineData(50, 2.4900, -0.0010, 50, -2.4900, 0.0010, 7.1792)]
    [InlineData(50, -0.0010, 2.4900, 50, 0.0009, -2.4900, 4.8045)]
    [InlineData(50, 2.5, 0, 50, 0, -2.5, 4.3065)]
    [InlineData(50, 2.5, 0, 73, 25, -18, 27.1492)]
    [InlineData(50, 2.5, 0, 58, 24, 15, 19.4535)]
    [InlineData(60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644)]
    [InlineData(35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645)]
    [InlineData(90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381)]
    [InlineData(2.0776, 0.0795, -1.1350, 0.9033, -0.0636, -0.5514, 0.9082)]
    public void The_difference_is_that_of_the_published_pairs(double l, double a, double b, double l2, double a2, double b2, double far)
    {
        Assert.Equal(far, new CieLab(l, a, b).To(new(l2, a2, b2)), 4);
        Assert.Equal(far, new CieLab(l2, a2, b2).To(new(l, a, b)), 4);
    }

    [Fact]
    public void White_is_at_the_top_and_greys_have_no_colour() =>
        Gen.Double[0, 255]
            .Sample(grey =>
            {
                var lab = CieLab.Of(grey, grey, grey);
                Assert.InRange(lab.A, -0.02, 0.02);
                Assert.InRange(lab.B, -0.02, 0.02);
                Assert.InRange(lab.L, 0, 100.001);
                Assert.Equal(100, CieLab.Of(255, 255, 255).L, 3);
            });
}

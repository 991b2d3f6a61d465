using CsCheck;
using Pantomet.Core.PageChecks;
using Pantomet.Core.Responsive;

namespace Pantomet.Core.Tests.PageChecks;

/// <summary>What <c>sizes</c> says of widths that were measured.</summary>
public sealed class MeasuredSizesTests
{
    [Theory]
    [InlineData("360:360,768:768,1280:1280", "100vw")]
    [InlineData("360:34,768:34,1920:34", "34px")]
    [InlineData("360:328,768:736,1280:1248", "calc(100vw - 32px)")]
    [InlineData("360:328,768:655,1280:655,1920:655", "(max-width: 687px) calc(100vw - 32px), 655px")]
    [InlineData("360:120,768:256,1280:426.667", "33.333vw")]
    [InlineData("360:164,768:368,1280:624", "calc(50vw - 16px)")]
    [InlineData("360:360,1280:400", "(max-width: 400px) 100vw, 400px")]
    [InlineData("800:300", "300px")]
    public void Lines_are_found_in_what_was_measured(string measured, string sizes) =>
        Assert.Equal(sizes, MeasuredSizes.Of(Points(measured)));

    [Fact]
    public void At_every_viewport_that_was_measured_it_says_the_width_that_was()
    {
        Gen.Select(Gen.Int[200, 3000], Gen.Double[20, 2000], (viewport, width) => (viewport, Math.Round(Math.Min(width, viewport), 2)))
            .Array[1, 8]
            .Sample(points =>
            {
                var measured = points.DistinctBy(point => point.viewport).ToList();
                Assert.True(Sizes.TryParse(MeasuredSizes.Of(measured), out var sizes, out var error), error);
                foreach (var (viewport, width) in measured)
                {
                    Assert.InRange(sizes!.WidthAt(viewport), width - 1, width + 1);
                }
            });
    }

    private static IEnumerable<(int, double)> Points(string measured) =>
        measured.Split(',').Select(point => point.Split(':')).Select(pair => (int.Parse(pair[0]), double.Parse(pair[1])));
}

using Pantomet.Core.Dressing;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Dressing;

public class ContrastTests
{
    // WCAG 2.2, "contrast ratio", note 1: from 1:1 to 21:1. The others are examples of W3C's ACT rule afw4f7, "Text has minimum contrast":
    // "this dark gray text has a contrast ratio of 12.6:1 on the white background", "this light gray text ... 2.3:1".
    [Theory]
    [InlineData("#000000", "#ffffff", 21)]
    [InlineData("#808080", "#808080", 1)]
    [InlineData("#333333", "#ffffff", 12.6)]
    [InlineData("#aaaaaa", "#ffffff", 2.3)]
    public void The_recommendations_examples_come_out(string ink, string ground, double ratio)
    {
        Assert.Equal(ratio, Contrast.Between(Colour(ink), Colour(ground)), 0.05);
        Assert.Equal(Contrast.Between(Colour(ink), Colour(ground)), Contrast.Between(Colour(ground), Colour(ink)));
    }

    [Theory]
    [InlineData(16, 400, 4.5)]
    [InlineData(23.9, 600, 4.5)]
    [InlineData(24, 400, 3)]
    [InlineData(18.7, 700, 3)]
    [InlineData(18.6, 700, 4.5)]
    public void Large_text_needs_less(double size, int weight, double ratio) => Assert.Equal(ratio, Contrast.NeededAt(size, weight));

    // CSS Color Module Level 4 (W3C), example colours: red, lime and blue in oklab().
    [Theory]
    [InlineData("#ff0000", 0.62796, 0.22486, 0.12585)]
    [InlineData("#00ff00", 0.86644, -0.23389, 0.1795)]
    [InlineData("#0000ff", 0.45201, -0.03246, -0.31153)]
    [InlineData("#ffffff", 1, 0, 0)]
    public void Oklab_is_that_of_the_standard(string colour, double l, double a, double b)
    {
        var lab = OkLab.Of(Colour(colour));
        Assert.Equal(l, lab.L, 1e-4);
        Assert.Equal(a, lab.A, 1e-4);
        Assert.Equal(b, lab.B, 1e-4);
        Assert.Equal(Colour(colour), lab.ToRgb());
    }

    internal static Rgb Colour(string text) => Rgb.TryParse(text, out var colour) ? colour : throw new ArgumentException(text);
}

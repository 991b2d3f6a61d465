using CsCheck;
using Pantomet.Core.Geometry;
using Pantomet.Core.Naming;

namespace Pantomet.Core.Tests.Naming;

public class NamingTests
{
    [Theory]
    [InlineData("Storm vane, brass", "storm-vane-brass")]
    [InlineData("Møller's Blåbær – 2ª", "mollers-blabaer-2")]
    [InlineData("Straße nach Žilina", "strasse-nach-zilina")]
    [InlineData("DSC_0412", "dsc-0412")]
    [InlineData("../../etc/passwd", "etc-passwd")]
    [InlineData("CON", "con-file")]
    [InlineData("風向計", "picture")]
    [InlineData("", "picture")]
    public void Words_become_names_that_are_safe_everywhere(string words, string slug) => Assert.Equal(slug, Slug.From(words));

    [Fact]
    public void A_slug_holds_lower_case_letters_digits_and_single_hyphens() =>
        Gen.String.Sample(text => Assert.Matches("^[a-z0-9]+(-[a-z0-9]+)*$", Slug.From(text)));

    [Fact]
    public void Every_token_is_filled()
    {
        Assert.True(NamePattern.TryParse("{destination}-{slot}-{picture}{density}-{width}x{height}-{ratio}", out var pattern, out _));
        Assert.True(Ratio.TryParse("5:4", out var shape, out _));
        Assert.Equal(
            "market-listing-storm-vane@2x-2500x2000-5x4",
            pattern.Fill(new("Storm Vane", "market", "listing", new Density(2), new(2500, 2000), shape))
        );
    }

    [Theory]
    [InlineData(1, "")]
    [InlineData(2, "@2x")]
    [InlineData(1.5, "@1.5x")]
    public void Only_a_density_other_than_one_is_named(decimal density, string suffix) => Assert.Equal(suffix, new Density(density).Suffix);

    [Fact]
    public void Two_of_one_name_differ_whatever_their_case()
    {
        var names = new UniqueNames();
        Assert.Equal("a/vane.jpg", names.Take("a", "vane", "jpg"));
        Assert.Equal("a/Vane-2.jpg", names.Take("a", "Vane", "jpg"));
        Assert.Equal("b/vane.jpg", names.Take("b", "vane", "jpg"));
    }

    [Theory]
    [InlineData(999, "999 B")]
    [InlineData(1000, "1 kB")]
    [InlineData(49_867, "49.9 kB")]
    [InlineData(612_345, "612 kB")]
    [InlineData(1_040_000, "1.04 MB")]
    public void Weights_are_written_with_three_figures(long bytes, string text) => Assert.Equal(text, Figures.Weight(bytes));
}

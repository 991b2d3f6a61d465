using NetVips;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Tests.Support;

namespace Pantomet.Imaging.Tests;

/// <summary>What is shown of a file before it is there.</summary>
public sealed class PlaceholderTests : IDisposable
{
    private readonly Workplace _place = new();

    public void Dispose() => _place.Dispose();

    [Fact]
    public void A_photograph_fits_in_the_characters_and_is_a_picture_of_its_shape()
    {
        foreach (var path in Workplace.Photographs.Take(4))
        {
            var placeholder = Placeholder.Of(File.ReadAllBytes(path));
            Assert.InRange(placeholder.Data.Length, 60, Placeholder.Longest);
            const string head = "data:image/webp;base64,";
            Assert.StartsWith(head, placeholder.Data, StringComparison.Ordinal);
            using var tiny = Image.NewFromBuffer(Convert.FromBase64String(placeholder.Data[head.Length..]));
            using var whole = Image.NewFromFile(path);
            Assert.InRange((double)tiny.Width / tiny.Height / ((double)whole.Width / whole.Height), 0.9, 1.1);
        }
    }

    [Fact]
    public void The_colour_is_the_mean_of_the_four_sides()
    {
        // Half of the edge of four flat quarters belongs to each of two sides: the mean of all four colours.
        var colour = Placeholder.Of(File.ReadAllBytes(_place.Quarters("quarters.png", 640, 640))).Edge!.Value;
        Assert.InRange(colour.Red, (220 + 20 + 20 + 250) / 4 - 4, (220 + 20 + 20 + 250) / 4 + 4);
        Assert.InRange(colour.Green, (20 + 200 + 20 + 250) / 4 - 4, (20 + 200 + 20 + 250) / 4 + 4);
    }

    [Fact]
    public void Where_something_shows_through_no_colour_continues_the_edge() =>
        Assert.Null(Placeholder.Of(File.ReadAllBytes(_place.Quarters("clear.png", 640, 640, alpha: true))).Edge);
}

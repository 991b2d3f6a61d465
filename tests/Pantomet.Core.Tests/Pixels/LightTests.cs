using Pantomet.Core.Facts;
using Pantomet.Core.Pixels;

namespace Pantomet.Core.Tests.Pixels;

public sealed class LightTests
{
    // Black and white in turn: from afar half of the light.
    private static readonly PixelRows Checked = Rows(48, 48, (x, y) => (x + y) % 2 == 0 ? (byte)255 : (byte)0);

    [Fact]
    public void Every_stored_value_comes_back_from_its_light()
    {
        for (var value = 0; value <= 255; value++)
        {
            Assert.Equal(value, Light.ToValue(Light.OfValues[value]));
        }

        // IEC 61966-2-1: 0.5 stored is 0.2140 of the light; the straight part ends at 0.04045.
        Assert.Equal(0.2140, (Light.OfValues[127] + Light.OfValues[128]) / 2 / 255, 0.0002);
        Assert.Equal(10 / 12.92, Light.OfValues[10], 0.0001);
        Assert.Equal((0, 255), (Light.ToValue(-3), Light.ToValue(300)));
    }

    [Fact]
    public void Half_of_the_light_is_kept_where_stored_values_would_darken()
    {
        var box = new PixelBox(0, 0, 48, 48);
        Assert.All(Reduction.Reduce(Checked, box, 4, 4, alpha: false, light: true), value => Assert.InRange(value, 187, 189));
        Assert.All(Reduction.Reduce(Checked, box, 4, 4, alpha: false), value => Assert.InRange(value, 127, 129));
    }

    [Fact]
    public void An_even_colour_stays_what_it_is_in_light()
    {
        for (var value = 0; value <= 255; value++)
        {
            var even = Rows(19, 13, (_, _) => (byte)value);
            Assert.All(
                Reduction.Reduce(even, new(0.3, 0, 18.1, 12.7), 7, 5, alpha: false, light: true),
                result => Assert.Equal(value, result)
            );
        }
    }

    [Fact]
    public void Coverage_is_no_light_and_what_is_transparent_colours_nothing()
    {
        var values = Enumerable.Range(0, 40 * 8).SelectMany(i => i % 40 < 20 ? new byte[] { 200, 0, 0, 255 } : [0, 200, 0, 0]).ToArray();
        var result = Reduction.Reduce(new(values, 40, 8, 4), new(0, 0, 40, 8), 5, 2, alpha: true, light: true);
        // The middle one is half covered, and its colour is that of the half that is seen.
        Assert.InRange(result[(2 * 4) + 3], 126, 129);
        Assert.InRange(result[2 * 4], 198, 202);
        Assert.Equal(0, result[(2 * 4) + 1]);
    }

    [Fact]
    public void What_is_lost_is_counted_in_255ths()
    {
        // Stored values come to 127.5, half of the light is 187.5.
        Assert.Equal(60.0, Light.LossOf(Checked), 0.1);
        Assert.Equal(0, Light.LossOf(Rows(48, 48, (_, _) => 120)), 0.001);
        Assert.Equal(0, Light.LossOf(Rows(3, 3, (x, _) => (byte)(x * 90))));
    }

    [Theory]
    [InlineData(PictureKind.Photograph, "RGB", 5.0, true)]
    [InlineData(PictureKind.Photograph, "grey", 5.0, true)]
    [InlineData(PictureKind.Photograph, "RGB", 4.9, false)]
    [InlineData(PictureKind.FlatGraphic, "RGB", 30.0, false)]
    [InlineData(PictureKind.Photograph, "CMYK", 30.0, false)]
    [InlineData(PictureKind.Photograph, "RGB", null, false)]
    public void Only_a_photograph_that_loses_much_needs_light(PictureKind kind, string colours, double? loss, bool needs) =>
        Assert.Equal(
            needs,
            new PictureFacts
            {
                Size = new(40, 40),
                Format = PictureFormat.Jpeg,
                Bytes = 1,
                Kind = kind,
                Colours = colours,
                LightLoss = loss,
            }.NeedsLight
        );

    private static PixelRows Rows(int width, int height, Func<int, int, byte> value) =>
        new(
            Enumerable.Range(0, width * height).SelectMany(i => Enumerable.Repeat(value(i % width, i / width), 3)).ToArray(),
            width,
            height,
            3
        );
}

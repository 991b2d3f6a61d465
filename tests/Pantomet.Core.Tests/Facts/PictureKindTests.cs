using Pantomet.Core.Facts;

namespace Pantomet.Core.Tests.Facts;

public class PictureKindTests
{
    [Fact]
    public void Few_even_colours_are_a_flat_graphic() =>
        Assert.Equal(
            PictureKind.FlatGraphic,
            PictureKinds.Of(
                Pixels(i =>
                    (i / 400 % 5) switch
                    {
                        0 => (255, 255, 255),
                        1 => (20, 40, 90),
                        2 => (220, 140, 30),
                        3 => (200, 30, 30),
                        _ => (0, 0, 0),
                    }
                ),
                3
            )
        );

    [Fact]
    public void Grain_and_gradients_are_a_photograph()
    {
        var random = new Random(2);
        Assert.Equal(
            PictureKind.Photograph,
            PictureKinds.Of(Pixels(i => (80 + (i / 200) + random.Next(12), 90 + random.Next(12), 60 + (i % 97))), 3)
        );
    }

    [Fact]
    public void A_product_before_white_is_a_photograph()
    {
        var random = new Random(3);
        Assert.Equal(
            PictureKind.Photograph,
            PictureKinds.Of(
                Pixels(i => i % 10 < 7 ? (255, 255, 255) : (120 + random.Next(80), 80 + random.Next(60), 40 + random.Next(50))),
                3
            )
        );
    }

    [Fact]
    public void A_grey_photograph_is_one_though_it_has_few_shades()
    {
        var random = new Random(4);
        Assert.Equal(PictureKind.Photograph, PictureKinds.Of([.. Enumerable.Range(0, 9000).Select(_ => (byte)(60 + random.Next(120)))], 1));
    }

    [Fact]
    public void What_nobody_sees_does_not_count()
    {
        // All of the noise is transparent; what shows is one colour.
        var random = new Random(6);
        var pixels = new byte[8000];
        for (var i = 0; i < pixels.Length; i += 4)
        {
            var shows = i % 16 == 0;
            (pixels[i], pixels[i + 1], pixels[i + 2], pixels[i + 3]) = shows
                ? ((byte)9, (byte)9, (byte)9, (byte)255)
                : ((byte)random.Next(256), (byte)random.Next(256), (byte)random.Next(256), (byte)0);
        }

        Assert.Equal(PictureKind.FlatGraphic, PictureKinds.Of(pixels, 4));
    }

    private static byte[] Pixels(Func<int, (int Red, int Green, int Blue)> colour) =>
        [
            .. Enumerable
                .Range(0, 6000)
                .SelectMany(i =>
                {
                    var (red, green, blue) = colour(i);
                    return new[] { (byte)red, (byte)green, (byte)blue };
                }),
        ];
}

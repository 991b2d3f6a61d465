using Pantomet.Core.Css;
using Pantomet.Core.Markup;

namespace Pantomet.Core.Tests.Css;

/// <summary>Pictures that styles name, as the standard's own grammar has them (CSS Syntax Module Level 3, 4.3.4 to 4.3.7).</summary>
public sealed class CssAddressesTests
{
    [Theory]
    [InlineData("a{background:url(b.jpg)}", "b.jpg")]
    [InlineData("a{background:URL( 'b c.jpg' )}", "b c.jpg")]
    [InlineData("a{background:url(\"b).jpg\") no-repeat}", "b).jpg")]
    [InlineData("""a{background:url(b\29 .jpg)}""", "b).jpg")]
    [InlineData("a{background:url(\"b\\\nc.jpg\")}", "bc.jpg")]
    [InlineData("""a{background:url(b\ c.jpg)}""", "b c.jpg")]
    [InlineData("a{background:image-set(url(b.webp) type('image/webp') 1x, 'b.jpg' 2x)}", "b.webp,b.jpg")]
    [InlineData("a{background:-webkit-image-set(url(b.jpg) 1x, url(c.jpg) 2x), url(d.png)}", "b.jpg,c.jpg|d.png")]
    [InlineData("a{background:linear-gradient(rgb(0 0 0 / .5), #000), url(b.jpg)}", "b.jpg")]
    [InlineData("a{background-image:url(data:image/png;base64,AAAA)}", "data:image/png;base64,AAAA")]
    [InlineData("/* url(a.jpg) */ b{content:\"url(c.jpg)\"} d{x:my-url(e.jpg)}", "")]
    [InlineData("a{background:url(b.jpg", "")]
    [InlineData("a{background:url(b c.jpg)}", "")]
    public void Each_picture_is_found_as_it_is_meant(string css, string expected) =>
        Assert.Equal(expected, string.Join('|', CssAddresses.Of(css).Select(image => string.Join(',', image.Addresses))));

    [Fact]
    public void What_is_not_replaced_stays_as_it_is_written()
    {
        const string Css =
            "a{ background : url( 'x.jpg' )  left/cover } /* url(x.jpg) */\nb{background:image-set(url(x.jpg) 1x,url(y.jpg) 2x)}";
        Assert.Equal(Css, CssAddresses.With(Css, _ => null));
        Assert.Equal(
            "a{ background : var(--p)  left/cover } /* url(x.jpg) */\nb{background:var(--p)}",
            CssAddresses.With(Css, image => image.Addresses.Contains("x.jpg") ? "var(--p)" : null)
        );
    }

    // Whatever a style holds, every bit of it is either a picture or stays, and nothing is found twice.
    [Fact]
    public void Torn_styles_are_read_to_their_end()
    {
        var random = new Random(11);
        string[] bits = ["url(", "image-set(", "\"", "'", "\\", "/*", "*/", ")", "(", "a.jpg", " ", "\n", "{", "}", "type(", ","];
        for (var round = 0; round < 2_000; round++)
        {
            var css = string.Concat(Enumerable.Range(0, 12).Select(_ => bits[random.Next(bits.Length)]));
            var found = CssAddresses.Of(css);
            Assert.Equal(css, CssAddresses.With(css, image => css[image.Start..image.End]));
            Assert.All(found.Zip(found.Skip(1)), pair => Assert.True(pair.First.End <= pair.Second.Start));
            Assert.All(found, image => Assert.InRange(image.End, image.Start + 1, css.Length));
        }
    }
}

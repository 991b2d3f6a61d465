using System.Text;
using Pantomet.Core.PageChecks;
using Pantomet.PageChecks.Rewriting;

namespace Pantomet.Imaging.Tests;

/// <summary>Pictures of a page found in its text, so that everything else stays as it was.</summary>
public sealed class PageTextTests
{
    private static readonly Uri Address = new("http://page.test/shop/index.html");

    [Theory]
    [InlineData("<img src=a.jpg>", "html > body > img", "<img src=a.jpg>")]
    [InlineData("<p>ü</p><IMG SRC='a.jpg' alt='>'>", "html > body > img", "<IMG SRC='a.jpg' alt='>'>")]
    [InlineData("<img src=b.jpg srcset='b.jpg 1x, a.jpg 2x'>", "html > body > img", "<img src=b.jpg srcset='b.jpg 1x, a.jpg 2x'>")]
    [InlineData(
        "<picture><source srcset='a.jpg 9w,c.jpg'><img src=b.jpg></picture>!",
        "html > body > picture > img",
        "<picture><source srcset='a.jpg 9w,c.jpg'><img src=b.jpg></picture>"
    )]
    // A script moved it; one element alone names it.
    [InlineData("<div><img src=a.jpg></div>", "html > body > p > img", "<img src=a.jpg>")]
    [InlineData("<!-- <img src=a.jpg> --><script>'<img src=a.jpg>'</script>", "html > body > img", null)]
    [InlineData("<img src=a.jpg><img src=a.jpg>", "html > body > p > img", null)]
    [InlineData("<img src=b.jpg>", "html > body > img", null)]
    public void An_image_is_found_by_its_selector_and_its_address(string body, string where, string? expected)
    {
        var bytes = Encoding.UTF8.GetBytes($"<!doctype html><title>x</title>{body}");
        var tag = PageText.Read(bytes, Address).Find(where, ImageKind.Img, new HashSet<string> { "http://page.test/shop/a.jpg" });
        Assert.Equal(expected, tag is null ? null : Encoding.UTF8.GetString(bytes[tag.Start..tag.End]));
    }

    [Fact]
    public void What_stands_in_a_style_is_found_and_what_is_not_written_anew_stays_byte_for_byte()
    {
        // A page of an older encoding: bytes that are no UTF-8.
        byte[] bytes = [.. "<style>a{b:url(c.jpg)}</style><p style=\"x: url('d.jpg')\">"u8, 0xE9, 0xFF, .. "<base href=/other/>"u8];
        var page = PageText.Read(bytes, Address);
        Assert.Equal(["a{b:url(c.jpg)}", "x: url('d.jpg')"], page.Styles().Select(style => style.Css));
        Assert.Equal("http://page.test/other/", page.Base.AbsoluteUri);
        Assert.Equal(bytes, page.With([]));
        var first = page.Styles().First();
        Assert.Equal(bytes[first.End..], page.With([new(first.Start, first.End, "")])[first.Start..]);
    }
}

using System.Text;
using Pantomet.Core.Dressing;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.Tests.Dressing;

public sealed class MarkTests
{
    private static readonly PixelSize File = new(1500, 750);

    private static readonly PixelSize Form = new(200, 80);

    private static readonly MakersMark Usual = new() { File = "mark.svg" };

    [Theory]
    [InlineData(Corner.BottomRight, 1275, 633)]
    [InlineData(Corner.BottomLeft, 45, 633)]
    [InlineData(Corner.TopRight, 1275, 45)]
    [InlineData(Corner.TopLeft, 45, 45)]
    public void A_mark_has_its_share_of_the_width_and_its_margin_in_every_corner(Corner at, int left, int top)
    {
        var place = MarkPlace.Of(Usual with { At = at }, Form, File, []);
        Assert.Equal((new Crop(left, top, left + 180, top + 72), at, 0.0), (place.Box, place.At, place.Covers));
    }

    [Fact]
    public void A_margin_of_nothing_is_nothing() =>
        Assert.Equal(new Crop(1320, 678, 1500, 750), MarkPlace.Of(Usual with { Margin = 0 }, Form, File, []).Box);

    [Fact]
    public void A_mark_goes_to_a_corner_where_it_covers_nothing_that_must_stay_whole()
    {
        var keep = new Crop(700, 300, 1500, 750);
        Assert.Equal(Corner.BottomLeft, MarkPlace.Of(Usual, Form, File, [keep]).At);
        // The whole lower half: then above it, on the side that was asked for.
        Assert.Equal(Corner.TopRight, MarkPlace.Of(Usual, Form, File, [new(0, 300, 1500, 750)]).At);
        Assert.Equal(Corner.TopLeft, MarkPlace.Of(Usual, Form, File, [new(0, 300, 1500, 750), new(900, 0, 1500, 200)]).At);
    }

    [Fact]
    public void Where_no_corner_is_free_it_stays_and_says_how_much_it_covers()
    {
        var place = MarkPlace.Of(Usual, Form, File, [Crop.All(File)]);
        Assert.Equal(Corner.BottomRight, place.At);
        Assert.Equal(180.0 * 72 / (1500 * 750), place.Covers, 12);
        // What is less important gives way before what must stay whole.
        Assert.Equal(Corner.BottomLeft, MarkPlace.Of(Usual, Form, File, [new(300, 0, 1500, 750), Crop.All(File)]).At);
    }

    [Fact]
    public void In_every_file_a_mark_stays_inside_and_keeps_its_shape()
    {
        var random = new Random(11);
        for (var i = 0; i < 2000; i++)
        {
            var file = new PixelSize(random.Next(1, 3000), random.Next(1, 3000));
            var form = new PixelSize(random.Next(1, 900), random.Next(1, 900));
            var mark = Usual with
            {
                Share = 0.01 + (random.NextDouble() * 0.99),
                Margin = random.NextDouble() * 0.5,
                At = (Corner)random.Next(4),
            };
            var box = MarkPlace.Of(mark, form, file, []).Box;
            Assert.True(
                box.Left >= 0 && box.Top >= 0 && box.Right <= file.Width && box.Bottom <= file.Height && box.Width > 0 && box.Height > 0
            );
            // Each side is rounded to whole pixels, so one may be half a pixel off for the other.
            var (across, down) = ((double)box.Width / form.Width, (double)box.Height / form.Height);
            var rounding = Math.Max(1.0 / form.Width, 1.0 / form.Height);
            Assert.True(Math.Abs(across - down) <= rounding || box.Width == 1 || box.Height == 1, $"{form} in {file}: {box}");
        }
    }

    [Theory]
    [InlineData("<script>alert(1)</script>", "<script>")]
    [InlineData("<rect onload='alert(1)' width='1' height='1'/>", "onload")]
    [InlineData("<image href='https://elsewhere.example/a.png' width='1' height='1'/>", "https://elsewhere.example/a.png")]
    [InlineData("<image xlink:href='file:///etc/passwd' width='1' height='1'/>", "file:///etc/passwd")]
    [InlineData("<rect style='fill:url(https://elsewhere.example/p.svg#a)' width='1' height='1'/>", "https://elsewhere.example/p.svg#a")]
    [InlineData("<style>@import 'https://elsewhere.example/a.css';</style>", "@import")]
    [InlineData("<foreignObject/>", "<foreignObject>")]
    public void A_drawing_that_runs_or_fetches_something_is_no_mark(string inside, string named) =>
        Assert.Contains(named, Refusal(inside), StringComparison.Ordinal);

    [Fact]
    public void A_drawing_that_brings_everything_with_it_is_one() =>
        Assert.Null(
            Refusal(
                "<style>.a{fill:url(#g)}</style><linearGradient id='g'/><a href='https://skerry.example/'><rect class='a' width='9' height='9'/></a>"
                    + "<image href='data:image/png;base64,AA==' width='1' height='1'/><use href='#g'/>"
            )
        );

    [Fact]
    public void A_drawing_that_multiplies_itself_is_too_much()
    {
        var doubled = new StringBuilder("<g id='a0'><rect width='1' height='1'/></g>");
        for (var i = 1; i < 40; i++)
        {
            doubled.Append(
                System.Globalization.CultureInfo.InvariantCulture,
                $"<g id='a{i}'><use href='#a{i - 1}'/><use href='#a{i - 1}'/></g>"
            );
        }

        Assert.Contains("parts", Refusal(doubled.ToString()), StringComparison.Ordinal);
        Assert.Contains("parts", Refusal(string.Concat(Enumerable.Repeat("<g/>", MarkCheck.MostParts))), StringComparison.Ordinal);
        // Round and round is drawn once.
        Assert.Null(Refusal("<g id='a'><use href='#a'/></g>"));
    }

    private static string? Refusal(string inside)
    {
        using var drawing = new MemoryStream(
            Encoding.UTF8.GetBytes(
                $"<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' width='20' height='8'>{inside}</svg>"
            )
        );
        return MarkCheck.Refusal(drawing);
    }
}

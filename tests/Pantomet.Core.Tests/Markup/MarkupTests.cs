using System.Globalization;
using System.Text.Json;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Markup;
using Pantomet.Core.Responsive;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Markup;

public class MarkupTests
{
    [Fact]
    public void One_file_is_an_img_with_width_and_height_without_units()
    {
        var picture = Of("""{ "key": "square", "size": { "width": 300, "height": 200 } }""", Files(PictureFormat.Jpeg, 300));
        Assert.Equal(
            """<img src="/p/300.jpg" width="300" height="200" alt="A &quot;vane&quot; &amp; &lt;sky&gt;" loading="lazy" decoding="async">""",
            HtmlWriter.Page(picture)
        );
    }

    [Fact]
    public void Densities_are_candidates_and_the_plain_one_is_the_first()
    {
        var picture = Of(
            """{ "key": "square", "size": { "width": 300, "height": 200 }, "densities": [1, 1.5, 2], "first": true }""",
            Files(PictureFormat.Jpeg, 300, 450, 600)
        );
        Assert.Equal(
            """<img src="/p/300.jpg" srcset="/p/300.jpg 1x, /p/450.jpg 1.5x, /p/600.jpg 2x" width="300" height="200" alt="A &quot;vane&quot; &amp; &lt;sky&gt;" fetchpriority="high">""",
            HtmlWriter.Page(picture)
        );
    }

    [Fact]
    public void A_file_with_fewer_pixels_than_asked_says_the_density_it_really_has()
    {
        var picture = Of(
            """{ "key": "square", "size": { "width": 800, "height": 600 }, "densities": [1, 2] }""",
            Files(PictureFormat.Jpeg, 800, 1240)
        );
        Assert.Contains("/p/800.jpg 1x, /p/1240.jpg 1.55x", HtmlWriter.Page(picture), StringComparison.Ordinal);
        var small = Of(
            """{ "key": "square", "size": { "width": 800, "height": 600 }, "densities": [1, 2] }""",
            Files(PictureFormat.Jpeg, 640, 640)
        );
        Assert.Equal(
            """<img src="/p/640.jpg" width="640" height="427" alt="A &quot;vane&quot; &amp; &lt;sky&gt;" loading="lazy" decoding="async">""",
            HtmlWriter.Page(small)
        );
    }

    [Fact]
    public void Types_stand_in_their_order_and_the_last_is_the_one_that_all_know()
    {
        var slot = """{ "key": "square", "size": { "width": 300, "height": 200 }, "types": ["avif", "jpeg", "webp"], "each": true }""";
        var picture = Of(slot, [.. Files(PictureFormat.Avif, 300), .. Files(PictureFormat.Jpeg, 300), .. Files(PictureFormat.WebP, 300)]);
        Assert.Equal(
            """
            <picture>
              <source type="image/avif" srcset="/p/300.avif 1x" width="300" height="200">
              <source type="image/webp" srcset="/p/300.webp 1x" width="300" height="200">
              <img src="/p/300.jpg" width="300" height="200" alt="A &quot;vane&quot; &amp; &lt;sky&gt;" loading="lazy" decoding="async">
            </picture>
            """,
            HtmlWriter.Page(picture)
        );
        Assert.DoesNotContain('\n', HtmlWriter.Page(picture, inOneLine: true));
    }

    [Fact]
    public void A_type_that_was_not_made_for_every_width_does_not_stand_alone()
    {
        var slot = """{ "key": "column", "size": { "ratio": "3:2" }, "types": ["webp", "jpeg"], "responsive": { "sizes": "100vw" } }""";
        var picture = Of(slot, [.. Files(PictureFormat.WebP, 400, 800), .. Files(PictureFormat.Jpeg, 1200)]);
        Assert.Contains(
            "srcset=\"/p/400.webp 400w, /p/800.webp 800w, /p/1200.jpg 1200w\"",
            HtmlWriter.Page(picture),
            StringComparison.Ordinal
        );
        Assert.DoesNotContain("<source", HtmlWriter.Page(picture), StringComparison.Ordinal);
    }

    [Fact]
    public void A_group_is_one_picture_with_a_source_for_each_slot_but_the_last()
    {
        var html = HtmlWriter.Page(Group());
        Assert.Equal(
            """
            <picture>
              <source media="(min-width: 60em)" type="image/webp" srcset="/p/1000.webp 1000w, /p/2000.webp 2000w" sizes="(min-width: 80em) 1000px, 100vw" width="1279" height="853">
              <source media="(min-width: 60em)" type="image/jpeg" srcset="/p/1000.jpg 1000w, /p/2000.jpg 2000w" sizes="(min-width: 80em) 1000px, 100vw" width="1279" height="853">
              <img src="/p/600.jpg" srcset="/p/600.jpg 1x, /p/1200.jpg 2x" width="600" height="400" alt="A &quot;vane&quot; &amp; &lt;sky&gt;" loading="lazy" decoding="async">
            </picture>
            """,
            html
        );
    }

    [Fact]
    public void What_the_page_said_already_stands()
    {
        var picture = Of("""{ "key": "square", "size": { "width": 300, "height": 200 } }""", Files(PictureFormat.Jpeg, 300));
        Assert.Equal(
            """<img src="/p/300.jpg" width="300" height="200" decoding="async" class=big alt='A "vane"' loading=eager>""",
            HtmlWriter.Page(picture, [new("class", "class=big"), new("alt", "alt='A \"vane\"'"), new("loading", "loading=eager")])
        );
    }

    [Fact]
    public void A_background_chooses_by_condition_width_density_and_type()
    {
        var css = CssWriter.Background(Group() with { Edge = new Rgb(1, 2, 255) });
        Assert.StartsWith(".vane-opening {\n  background-color: #0102ff;\n", css, StringComparison.Ordinal);
        Assert.Contains(
            "background-image: image-set(\n    url(\"/p/600.jpg\") 1x,\n    url(\"/p/1200.jpg\") 2x\n  );",
            css,
            StringComparison.Ordinal
        );
        Assert.Contains("@media (min-width: 60em) {\n  .vane-opening {", css, StringComparison.Ordinal);
        Assert.Contains("url(\"/p/2000.webp\") 2x type(\"image/webp\")", css, StringComparison.Ordinal);
        Assert.Contains("  @media (max-width: 1279px) {", css, StringComparison.Ordinal);
        Assert.Equal(css.Count(letter => letter == '{'), css.Count(letter => letter == '}'));
    }

    // Of a custom property a browser takes the last value, whether it knows it or not; so what not all know stands behind a question.
    [Fact]
    public void A_background_as_a_property_is_one_file_where_no_choice_is_known()
    {
        var css = CssWriter.Property(Group(), ":where(:root)", "--picture");
        var (plain, rest) = (
            css[..css.IndexOf("@supports", StringComparison.Ordinal)],
            css[css.IndexOf("@supports", StringComparison.Ordinal)..]
        );
        Assert.Matches("^:where\\(:root\\) \\{\n  --picture: url\\(\"/p/[0-9]+\\.jpg\"\\);\n\\}\n$", plain);
        Assert.StartsWith("@supports (background-image: image-set(", rest, StringComparison.Ordinal);
        Assert.Contains(
            "--picture: image-set(\n    url(\"/p/600.jpg\") 1x,\n    url(\"/p/1200.jpg\") 2x\n  );",
            rest,
            StringComparison.Ordinal
        );
        Assert.Contains("@media (min-width: 60em) {\n  :where(:root) {", rest, StringComparison.Ordinal);
        Assert.DoesNotContain("background-size", css, StringComparison.Ordinal);
        Assert.Equal(css.Count(letter => letter == '{'), css.Count(letter => letter == '}'));
    }

    [Fact]
    public void A_mail_gets_one_file_with_twice_the_pixels_and_its_width_in_the_attribute()
    {
        Assert.StartsWith("<img src=\"/p/1200.jpg\" width=\"600\" height=\"400\" alt=", HtmlWriter.Mail(Group()), StringComparison.Ordinal);
        var picture = Of(
            """{ "key": "square", "size": { "width": 300, "height": 200 }, "types": ["webp"] }""",
            Files(PictureFormat.WebP, 300)
        );
        Assert.Null(HtmlWriter.Mail(picture));
    }

    [Fact]
    public void The_colour_and_the_stand_in_are_there_before_the_file()
    {
        var picture = Of("""{ "key": "square", "size": { "width": 300, "height": 200 } }""", Files(PictureFormat.Jpeg, 300)) with
        {
            Edge = new Rgb(16, 32, 48),
            Placeholder = "data:image/webp;base64,AAAA",
        };
        Assert.Contains(
            "style=\"background: #102030 url('data:image/webp;base64,AAAA') center / cover no-repeat\"",
            HtmlWriter.Page(picture, withPlaceholder: true),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void The_page_of_all_pictures_takes_at_every_window_what_was_foretold()
    {
        var page = PreviewPage.Write("A <job>", [new("vane", "site: opening", Group())]);
        Assert.Contains("<title>A &lt;job&gt;</title>", page, StringComparison.Ordinal);
        var from = page.IndexOf("const data = ", StringComparison.Ordinal) + "const data = ".Length;
        var data = JsonDocument.Parse(page[from..page.IndexOf(";\n", from, StringComparison.Ordinal)]).RootElement[0];
        foreach (var density in data.EnumerateObject())
        {
            var steps = density.Value.EnumerateArray().ToList();
            // Nothing stands there that changes nothing.
            Assert.True(steps.Count < 12);
            for (var viewport = 200; viewport <= 2600; viewport++)
            {
                var step = steps.Last(one => one[0].GetInt32() <= viewport);
                var foretold = Foretold.Of(Group(), viewport, new(decimal.Parse(density.Name, CultureInfo.InvariantCulture)));
                Assert.Equal(foretold.File.Address, step[1].GetString());
                var shown = step[5].GetDouble() + (step[6].GetDouble() * viewport);
                Assert.Equal(foretold.Needed, Needs.Of(shown, new(decimal.Parse(density.Name, CultureInfo.InvariantCulture))));
            }
        }
    }

    [Theory]
    [InlineData(360, 3, "/p/1200.jpg", 1800)]
    [InlineData(959, 1, "/p/600.jpg", 600)]
    [InlineData(960, 1, "/p/1000.webp", 960)]
    [InlineData(1000, 1, "/p/1000.webp", 1000)]
    [InlineData(1001, 1, "/p/2000.webp", 1001)]
    [InlineData(1280, 1, "/p/1000.webp", 1000)]
    [InlineData(1280, 3, "/p/2000.webp", 3000)]
    public void What_a_browser_takes_is_foretold(int viewport, int density, string file, int need)
    {
        var foretold = Foretold.Of(Group(), viewport, new Density(density));
        Assert.Equal((file, need), (foretold.File.Address, foretold.Needed));
    }

    [Theory]
    [InlineData("", "")]
    [InlineData("https://skerry.example/pictures", "https://skerry.example/pictures/")]
    [InlineData("/pictures/", "/pictures/")]
    [InlineData("../pictures", "../pictures/")]
    [InlineData("//files.example", "//files.example/")]
    [InlineData("javascript:alert(1)", null)]
    [InlineData("ftp://files.example", null)]
    [InlineData("https://", null)]
    [InlineData("not an address", null)]
    [InlineData("/a?b", null)]
    [InlineData("/a\"onload=", null)]
    public void A_base_address_is_one_or_is_refused(string text, string? address)
    {
        var read = BaseAddress.TryParse(text, out var got, out var error);
        Assert.Equal(address is not null, read);
        Assert.Equal(address, read ? got : null);
        Assert.Equal(read, error is null);
    }

    private static MarkupPicture Group()
    {
        var slots = SlotsOf(
            """
            { "key": "wide", "size": { "ratio": "3:2" }, "group": "opening", "media": "(min-width: 60em)", "types": ["webp", "jpeg"], "each": true,
              "responsive": { "sizes": "(min-width: 80em) 1000px, 100vw", "densities": [1, 2] } },
            { "key": "narrow", "size": { "ratio": "3:2", "width": 600 }, "group": "opening", "densities": [1, 2] }
            """
        );
        return new(
            "vane-opening",
            [
                new(slots[0], new(1279, 853), [.. Files(PictureFormat.WebP, 1000, 2000), .. Files(PictureFormat.Jpeg, 1000, 2000)]),
                new(slots[1], new(600, 400), Files(PictureFormat.Jpeg, 600, 1200)),
            ],
            "A \"vane\" & <sky>"
        );
    }

    private static MarkupPicture Of(string slot, IReadOnlyList<MarkupFile> files)
    {
        var read = SlotsOf(slot)[0];
        return new($"vane-{read.Key}", [new(read, read.Size.Asked(new(4000, 3000), Density.One), files)], "A \"vane\" & <sky>");
    }

    private static IReadOnlyList<MarkupFile> Files(PictureFormat format, params int[] widths) =>
        [
            .. widths.Select(
                (width, i) =>
                    new MarkupFile(
                        new Density(1 + (widths.Length == 2 ? i : i * 0.5m)),
                        new(width, (width * 2 + 2) / 3),
                        format,
                        1000,
                        $"/p/{width}.{format.Ending()}"
                    )
            ),
        ];

    private static IReadOnlyList<Slot> SlotsOf(string slots) =>
        RulesReader.TryRead(
            $$"""{ "schema": "pantomet-rules/1", "destinations": [ { "key": "site", "slots": [ {{slots}} ] } ] }""",
            out var book,
            out var fault
        )
            ? book!.Destinations[0].Slots
            : throw new ArgumentException(fault!.ToString());
}

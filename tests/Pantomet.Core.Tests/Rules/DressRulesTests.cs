using Pantomet.Core.Dressing;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Rules;

/// <summary>What a slot puts over its pictures, as it stands in a rules file.</summary>
public class DressRulesTests
{
    [Theory]
    [InlineData("""{"fade":{"to":"#ffffff","amount":0.6}}""")]
    [InlineData("""{"fade":{"to":"#ffffff","ink":"#222222","contrast":4.5}}""")]
    [InlineData("""{"fade":{"to":"#102030","ink":"#eeeeee","contrast":7,"area":[0.1,0.2,0.9,0.5],"reach":"side"}}""")]
    [InlineData(
        """{"title":{"text":"{title}","font":"ZillaSlab","weight":700,"size":31.5,"ink":"auto","area":[0.1,0.2,0.9,0.5],"align":"centre","contrast":4.5,"fade":true}}"""
    )]
    [InlineData("""{"mark":{"file":"mark.svg","onDark":"light.png","at":"top-left","share":0.2,"margin":0.05,"opacity":0.7}}""")]
    [InlineData("""{"title":{"text":"Brass","font":"Archivo","weight":600,"size":48,"ink":"#112233"}}""")]
    public void A_dress_is_written_as_it_was_read(string dress)
    {
        var slot = Read(dress);
        var text = RulesWriter.Write(slot);
        Assert.Contains(
            $"\"dress\":{dress}",
            new string([.. text.Where(character => !char.IsWhiteSpace(character))]),
            StringComparison.Ordinal
        );
        Assert.NotEqual(RulesWriter.BytesKey(slot), RulesWriter.BytesKey(slot with { Dress = Dress.None }));
    }

    [Fact]
    public void Text_needs_four_and_a_half_unless_something_else_is_said()
    {
        Assert.Equal(4.5, Read("""{ "fade": { "to": "#ffffff", "ink": "#000000" } }""").Dress.Fade!.Goal!.Ratio);
        Assert.Null(Read("""{ "fade": { "to": "#ffffff", "amount": 1 } }""").Dress.Fade!.Goal);
    }

    [Theory]
    [InlineData("""{ "mark": { "file": "../mark.svg" } }""", "$.dress.mark.file", "no folder")]
    [InlineData("""{ "mark": { "file": "mark.exe" } }""", "$.dress.mark.file", "must end with .svg or .png")]
    [InlineData("""{ "mark": { "file": "mark.svg", "share": 0 } }""", "$.dress.mark.share", "greater than 0")]
    [InlineData("""{ "mark": { "file": "mark.svg", "margin": 0.6 } }""", "$.dress.mark.margin", "at most half")]
    [InlineData("""{ "mark": { "file": "mark.svg", "at": "middle" } }""", "$.dress.mark.at", "bottom-right")]
    [InlineData("""{ "title": { "size": 20, "font": "a/b.ttf" } }""", "$.dress.title.font", "no folder")]
    [InlineData("""{ "fade": {} }""", "$.dress.fade", "\"to\" is missing")]
    [InlineData("""{ "fade": { "to": "white", "amount": 1 } }""", "$.dress.fade.to", "write it like #ffffff")]
    [InlineData("""{ "fade": { "to": "#ffffff" } }""", "$.dress.fade", "an \"amount\", or an \"ink\"")]
    [InlineData("""{ "fade": { "to": "#ffffff", "amount": 1.2 } }""", "$.dress.fade.amount", "a fraction from 0 to 1")]
    [InlineData("""{ "fade": { "to": "#ffffff", "amount": 1, "ink": "#000000" } }""", "$.dress.fade", "cannot have")]
    [InlineData("""{ "fade": { "to": "#ffffff", "ink": "#000000", "contrast": 22 } }""", "$.dress.fade.contrast", "from 1 to 21")]
    [InlineData("""{ "fade": { "to": "#ffffff", "ink": "#000000", "area": [0, 0, 2, 1] } }""", "$.dress.fade.area[2]", "a fraction")]
    [InlineData(
        """{ "fade": { "to": "#ffffff", "ink": "#000000", "area": [0.5, 0, 0.5, 1] } }""",
        "$.dress.fade.area",
        "left before right"
    )]
    [InlineData("""{ "fade": { "to": "#ffffff", "amount": 1, "reach": "left" } }""", "$.dress.fade.reach", "not one of all, side")]
    [InlineData("""{ "title": {} }""", "$.dress.title", "\"size\" is missing")]
    [InlineData("""{ "title": { "size": 2 } }""", "$.dress.title.size", "from 4 to 2000")]
    [InlineData("""{ "title": { "size": 40, "text": " " } }""", "$.dress.title.text", "1 to 300 characters")]
    [InlineData("""{ "title": { "size": 40, "text": "a\u0007b" } }""", "$.dress.title.text", "cannot have control characters")]
    [InlineData("""{ "title": { "size": 40, "font": "../x" } }""", "$.dress.title.font", "the name of a font")]
    [InlineData("""{ "title": { "size": 40, "ink": "red" } }""", "$.dress.title.ink", "write it like #ffffff")]
    [InlineData("""{ "title": { "size": 40, "align": "justify" } }""", "$.dress.title.align", "not one of left")]
    [InlineData("""{ "title": { "size": 40, "weight": 50 } }""", "$.dress.title.weight", "from 100 to 900")]
    [InlineData("""{ "glow": 1 }""", "$.dress.glow", "unknown key")]
    public void What_cannot_be_worn_is_named_with_its_place(string dress, string path, string says)
    {
        Assert.False(RulesReader.TryReadSlot(Slot(dress), out _, out var fault));
        Assert.Equal(path, fault!.Path);
        Assert.Contains(says, fault.Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("""{ "within": { "width": 400, "height": 160 } }""")]
    [InlineData("""{ "share": 0.5 }""")]
    [InlineData("""{ "ratio": "2:1" }""")]
    [InlineData("""{ "height": 100 }""")]
    public void A_title_needs_a_slot_of_a_set_width(string size)
    {
        var json = $$"""{ "key": "a", "size": {{size}}, "dress": { "title": { "size": 40 } } }""";
        Assert.False(RulesReader.TryReadSlot(json, out _, out var fault));
        Assert.Equal("$.dress.title", fault!.Path);
    }

    [Fact]
    public void A_slot_for_a_picture_has_that_pictures_words_or_none()
    {
        var slot = Read("""{ "title": { "size": 40, "text": "New: {title}" } }""");
        Assert.Equal("New: Barometer", slot.For("Barometer").Dress.Title!.Text);
        Assert.Equal("New:", slot.For(null).Dress.Title!.Text);
        Assert.Null(Read("""{ "title": { "size": 40 } }""").For(" ").Dress.Title);
        Assert.NotEqual(RulesWriter.BytesKey(slot.For("a")), RulesWriter.BytesKey(slot.For("b")));
    }

    private static string Slot(string dress) => $$"""{ "key": "a", "size": { "width": 900 }, "dress": {{dress}} }""";

    [Fact]
    public void A_pair_is_written_as_it_was_read_and_needs_a_width()
    {
        static bool Reads(string slot, out RuleBook? book, out string? fault)
        {
            var read = RulesReader.TryRead(
                $$"""{ "schema": "pantomet-rules/1", "destinations": [ { "key": "d", "slots": [ { "key": "a", {{slot}} } ] } ] }""",
                out book,
                out var wrong
            );
            fault = wrong?.ToString();
            return read;
        }

        Assert.True(
            Reads(
                """
                "size": { "width": 800 }, "pair": { "count": 3, "gap": 4.5, "background": "#102030" }
                """,
                out var book,
                out _
            )
        );
        Assert.Equal(new(3, 4.5, new(16, 32, 48)), book!.Destinations[0].Slots[0].Pair);
        Assert.True(RulesReader.TryRead(RulesWriter.Write(book), out var again, out _));
        Assert.Equal(book.Destinations[0].Slots[0].Pair, again!.Destinations[0].Slots[0].Pair);
        Assert.False(
            Reads(
                """
                "size": { "height": 800 }, "pair": { "count": 2 }
                """,
                out _,
                out var fault
            )
        );
        Assert.Contains("a fixed width", fault, StringComparison.Ordinal);
        Assert.False(
            Reads(
                """
                "size": { "width": 800 }, "pair": { "count": 5 }
                """,
                out _,
                out fault
            )
        );
        Assert.Contains("$.destinations[0].slots[0].pair.count", fault, StringComparison.Ordinal);
    }

    [Fact]
    public void Dressings_with_names_are_kept_with_the_book()
    {
        const string file = """
            { "schema": "pantomet-rules/1", "destinations": [ { "key": "d", "slots": [ { "key": "a", "size": { "width": 100 } } ] } ],
              "dressings": { "Pale for print": { "fade": { "to": "#ffffff", "amount": 0.4 } }, "Signed": { "mark": { "file": "mark.svg" } } } }
            """;
        Assert.True(RulesReader.TryRead(file, out var book, out _));
        Assert.Equal(["Pale for print", "Signed"], book!.Dressings.Select(one => one.Name));
        Assert.True(RulesReader.TryRead(RulesWriter.Write(book), out var again, out _));
        Assert.Equal(book.Dressings, again!.Dressings);
        Assert.False(RulesReader.TryRead(file.Replace("0.4", "4", StringComparison.Ordinal), out _, out var fault));
        Assert.Contains("$.dressings", fault!.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void A_ladder_with_a_title_is_still_read_when_bytes_alone_count()
    {
        var json = """
            { "schema": "pantomet-rules/1", "destinations": [ { "key": "d", "slots": [ { "key": "a", "size": { "ratio": "2:1" },
              "responsive": { "sizes": "400px", "files": 3 }, "dress": { "title": { "text": "Brass", "size": 30 } } } ] } ] }
            """;
        Assert.True(RulesReader.TryRead(json, out var book, out var fault), fault?.ToString());
        var slot = book!.Destinations[0].Slots[0];
        Assert.Equal(400, slot.SetWidth);
        var key = RulesWriter.BytesKey(slot);
        Assert.True(
            RulesReader.TryRead(
                $$"""{ "schema": "pantomet-rules/1", "destinations": [ { "key": "d", "slots": [ {{key}} ] } ] }""",
                out var read,
                out fault
            ),
            fault?.ToString()
        );
        Assert.Equal(400, read!.Destinations[0].Slots[0].SetWidth);
    }

    private static Slot Read(string dress) =>
        RulesReader.TryReadSlot(Slot(dress), out var slot, out var fault) ? slot! : throw new ArgumentException(fault!.ToString());
}

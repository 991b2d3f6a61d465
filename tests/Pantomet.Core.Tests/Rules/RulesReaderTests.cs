using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Marks;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Rules;

public class RulesReaderTests
{
    [Fact]
    public void A_slot_with_a_key_and_a_size_is_enough()
    {
        var slot = ReadSlot("""{ "key": "column", "size": { "width": 800 } }""");
        Assert.Equal(new SizeRule.SideAlone(Side.Width, 800), slot.Size);
        Assert.Equal((Fit.Crop, WhenTooSmall.Cap, PictureFormat.Jpeg), (slot.Fit, slot.WhenTooSmall, slot.Types.Single().Format!.Value));
        Assert.Equal(Density.One, slot.Densities.Single());
    }

    [Fact]
    public void A_slot_may_carry_a_name_for_people_and_a_pattern_under_the_same_key()
    {
        var slot = ReadSlot(
            """{ "key": "listing", "name": "Listing photo", "size": { "ratio": "5:4", "longSide": 2500 }, "name": "{picture}-{width}" }"""
        );
        Assert.Equal(("Listing photo", "{picture}-{width}"), (slot.Name, slot.NamePattern.Text));
    }

    [Fact]
    public void Every_key_of_a_slot_is_read()
    {
        var slot = ReadSlot(
            """
            { "key": "listing", "name": "Listing photo", "size": { "ratio": "5:4", "longSide": 2500 }, "fit": "crop",
            "densities": [1], "types": ["jpeg", "webp", "auto"],
              "each": true, "limits": { "maxBytes": "1 MB" }, "aims": { "bytes": ["500 kB", "700 kB"], "quality": [60, 90],
              "likeness": 0.98, "belowFloor": true },
              "clear": [0.05, 0.1, 0.95, 0.9], "subjectShare": 0.8, "whenTooSmall": "cap", "background": "#ffffff", "sharpen":
              "mild", "profile": "keep",
              "metadata": "copyright", "location": true, "ppi": 72, "frames": "all" }
            """
        );
        Assert.Equal([new(PictureFormat.Jpeg), new(PictureFormat.WebP), SlotType.Auto], slot.Types);
        Assert.Equal(
            new Aims
            {
                Band = new(new(500_000), new(700_000)),
                Quality = new(60, 90),
                Likeness = 0.98,
                BelowFloor = true,
            },
            slot.Aims
        );
        Assert.Equal((0.05, 0.1, 0.95, 0.9), (slot.Clear.Left, slot.Clear.Top, slot.Clear.Right, slot.Clear.Bottom));
        Assert.Equal(
            (0.8, true, ProfileRule.Keep, MetadataRule.Copyright, true, true),
            (slot.SubjectShare!.Value, slot.Each, slot.Profile, slot.Metadata, slot.Location, slot.AllFrames)
        );
    }

    [Fact]
    public void Every_size_rule_is_read()
    {
        string[] sizes =
        [
            """{"width":1,"height":2}""",
            """{"ratio":"5:4","width":9}""",
            """{"ratio":"5:4","height":9}""",
            """{"ratio":"5:4","longSide":9}""",
            """{"ratio":"5:4","shortSide":9}""",
            """{"ratio":1.5}""",
            """{"width":9}""",
            """{"height":9}""",
            """{"longSide":9}""",
            """{"shortSide":9}""",
            """{"within":{"width":9,"height":9}}""",
            """{"share":0.5}""",
            """{"maxPixels":9}""",
        ];
        Assert.All(sizes, size => Assert.NotNull(ReadSlot($$"""{ "key": "a", "size": {{size}} }""").Size));
    }

    [Theory]
    [InlineData("""{ "size": { "width": 1 } }""", "$.destinations[0].slots[0]", "\"key\" is missing")]
    [InlineData("""{ "key": "a" }""", "$.destinations[0].slots[0]", "\"size\" is missing")]
    [InlineData("""{ "key": "a", "size": {} }""", "$.destinations[0].slots[0].size", "a size is missing")]
    [InlineData("""{ "key": "a", "size": { "ratio": "0:4", "width": 9 } }""", "$.destinations[0].slots[0].size.ratio", "greater than 0")]
    [InlineData("""{ "key": "a", "size": { "ratio": 0 } }""", "$.destinations[0].slots[0].size.ratio", "greater than 0")]
    [InlineData("""{ "key": "a", "size": { "width": 0 } }""", "$.destinations[0].slots[0].size.width", "whole number")]
    [InlineData("""{ "key": "a", "size": { "width": 1.5 } }""", "$.destinations[0].slots[0].size.width", "whole number")]
    [InlineData("""{ "key": "a", "size": { "width": "9" } }""", "$.destinations[0].slots[0].size.width", "a number is needed")]
    [InlineData("""{ "key": "a", "size": { "width": 9, "longSide": 9 } }""", "$.destinations[0].slots[0].size", "is not a size")]
    [InlineData("""{ "key": "a", "size": { "share": 2 } }""", "$.destinations[0].slots[0].size.share", "at most 1")]
    [InlineData("""{ "key": "a", "size": { "width": 9 }, "colour": 1 }""", "$.destinations[0].slots[0].colour", "unknown key")]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "densities": [0] }""",
        "$.destinations[0].slots[0].densities[0]",
        "greater than 0"
    )]
    [InlineData("""{ "key": "a", "size": { "width": 9 }, "types": ["bmp"] }""", "$.destinations[0].slots[0].types[0]", "not one of")]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "types": ["avif", "avif"] }""",
        "$.destinations[0].slots[0].types[1]",
        "is listed twice"
    )]
    [InlineData("""{ "key": "a", "size": { "width": 9 }, "clear": [0,0,1] }""", "$.destinations[0].slots[0].clear", "four fractions")]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "clear": [0.6,0,0.5,1] }""",
        "$.destinations[0].slots[0].clear",
        "left before right"
    )]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "shownAs": ["1:1"] }""",
        "$.destinations[0].slots[0].shownAs",
        "this slot has none"
    )]
    [InlineData(
        """{ "key": "a", "size": { "ratio": "4:1", "width": 9 }, "clear": [0, 0, 0.3, 1], "shownAs": ["1:1"] }""",
        "$.destinations[0].slots[0].shownAs",
        "no part of the clear area"
    )]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "subjectShare": 0 }""",
        "$.destinations[0].slots[0].subjectShare",
        "greater than 0"
    )]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "aims": { "likeness": 1.9 } }""",
        "$.destinations[0].slots[0].aims.likeness",
        "fraction"
    )]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "aims": { "bytes": ["700 kB", "500 kB"] } }""",
        "$.destinations[0].slots[0].aims.bytes",
        "greater than the highest"
    )]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "aims": { "quality": [90, 60] } }""",
        "$.destinations[0].slots[0].aims.quality",
        "greater than the highest"
    )]
    [InlineData("""{ "key": "a", "size": { "width": 9 }, "profile": "wide" }""", "$.destinations[0].slots[0].profile", "not one of")]
    [InlineData("""{ "key": "a", "size": { "width": 9 }, "metadata": "some" }""", "$.destinations[0].slots[0].metadata", "not one of")]
    [InlineData("""{ "key": "a", "size": { "width": 9 }, "each": 1 }""", "$.destinations[0].slots[0].each", "true or false")]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "limits": { "maxBytes": "big" } }""",
        "$.destinations[0].slots[0].limits.maxBytes",
        "weight"
    )]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "limits": { "minWidth": 5, "maxWidth": 4 } }""",
        "$.destinations[0].slots[0].limits.minWidth",
        "greater than maxWidth"
    )]
    [InlineData("""{ "key": "a", "size": { "width": 9 }, "background": "red" }""", "$.destinations[0].slots[0].background", "#ffffff")]
    [InlineData("""{ "key": "a", "size": { "width": 9 }, "name": "../{picture}" }""", "$.destinations[0].slots[0].name", "path")]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "name": "{picture}-{colour}" }""",
        "$.destinations[0].slots[0].name",
        "not a token"
    )]
    [InlineData("""{ "key": "../a", "size": { "width": 9 } }""", "$.destinations[0].slots[0].key", "a key has")]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 } }, { "key": "A", "size": { "width": 9 } }""",
        "$.destinations[0].slots[1].key",
        "is used twice"
    )]
    [InlineData(
        """{ "key": "a", "size": { "width": 9 }, "fit": "crop", "fit": "mat" }""",
        "$.destinations[0].slots[0].fit",
        "is given twice"
    )]
    public void A_fault_names_its_place_and_what_is_wrong(string slots, string path, string says)
    {
        Assert.False(RulesReader.TryRead(Book(slots), out _, out var fault));
        Assert.Equal(path, fault!.Path);
        Assert.Contains(says, fault.Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("")]
    [InlineData("{")]
    [InlineData("[]")]
    [InlineData("""{ "schema": "pantomet-rules/2", "destinations": [] }""")]
    [InlineData("""{ "schema": "pantomet-rules/1" }""")]
    [InlineData("""{ "schema": "pantomet-rules/1", "destinations": [] }""")]
    public void What_is_no_rules_file_is_refused(string json) => Assert.False(RulesReader.TryRead(json, out _, out _));

    [Fact]
    public void Marks_are_read_and_tied_to_the_rules()
    {
        Assert.True(RulesReader.TryRead(Book("""{ "key": "a", "size": { "width": 9 } }"""), out var book, out _));
        const string json = """
            { "schema": "pantomet-marks/1", "pictures": { "vane.jpg": { "focus": [0.4, 0.3], "keep": [[0.2, 0.1, 0.5,
            0.9], [0.1, 0.2, 0.3, 0.4]], "name": "storm vane", "framings": { "d/a": [0.1, 0, 0.9, 0.8] } } } }
            """;
        Assert.True(MarksReader.TryRead(json, book!, out var marks, out var fault), fault?.ToString());
        Assert.Equal(0.1, marks!["vane.jpg"].FramingFor("d", "a")!.Value.Left);
        Assert.Equal([0.2, 0.1], marks["vane.jpg"].Keep.Select(box => box.Left));
        Assert.False(MarksReader.TryRead(json.Replace("d/a", "d/b", StringComparison.Ordinal), book!, out _, out fault));
        Assert.Contains("no slot", fault!.Message, StringComparison.Ordinal);
        Assert.False(MarksReader.TryRead(json.Replace("0.9, 0.8", "0.1, 0.8", StringComparison.Ordinal), book!, out _, out fault));
    }

    private static Slot ReadSlot(string slot) =>
        RulesReader.TryRead(Book(slot), out var book, out var fault)
            ? book!.Destinations[0].Slots[0]
            : throw new InvalidDataException(fault!.ToString());

    private static string Book(string slots) =>
        $$"""{ "schema": "pantomet-rules/1", "destinations": [ { "key": "d", "slots": [ {{slots}} ] } ] }""";
}

using Pantomet.Core.Geometry;
using Pantomet.Core.Marks;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Marks;

/// <summary>What people said about pictures, as a marks file has it: read whole, or refused with its place.</summary>
public sealed class MarksReaderTests
{
    private static readonly RuleBook Book = new([
        new("site", "Site", [SlotOf("wide"), SlotOf("square")]),
        new("shop", "Shop", [SlotOf("wide")]),
    ]);

    [Fact]
    public void What_is_written_is_read_as_it_was()
    {
        var marks = new Dictionary<string, PictureMarks>
        {
            ["vane.jpg"] = new()
            {
                Focus = new(1d / 3, 0.5),
                Keep = [Box(0.1, 0.2, 2d / 3, 0.9)],
                Name = "storm vane",
                Alternative = "A \"brass\" vane",
                Title = "Storm vane\nof brass",
                Framings = new Dictionary<string, Frame> { ["site/wide"] = Box(0, 1d / 7, 1, 0.6) },
            },
            ["decorative.png"] = new() { Alternative = "" },
            ["plain.png"] = PictureMarks.None,
        };
        Assert.True(MarksReader.TryRead(MarksWriter.Write(marks), Book, out var read, out var fault), $"{fault}");
        Assert.Equal(marks.Keys, read!.Keys);
        var (was, vane) = (marks["vane.jpg"], read["vane.jpg"]);
        Assert.Equal((was.Focus, was.Name, was.Alternative, was.Title), (vane.Focus, vane.Name, vane.Alternative, vane.Title));
        Assert.Equal(was.Keep, vane.Keep);
        Assert.Equal(was.Framings, vane.Framings);
        Assert.Equal("", read["decorative.png"].Alternative);
        Assert.Null(read["plain.png"].Alternative);
    }

    [Fact]
    public void Everything_that_can_be_said_about_a_picture_is_read()
    {
        var marks = Read(
            """
            "vane.jpg": {
              "focus": [0.25, 0.5], "keep": [[0.1, 0.2, 0.6, 0.9], [0.7, 0, 1, 1]], "name": "  storm vane  ",
              "alt": "A brass vane", "title": "Storm vane\nof brass",
              "framings": { "site/wide": [0, 0.1, 1, 0.6] }
            },
            "plain.png": {}
            """
        );
        Assert.Equal(["plain.png", "vane.jpg"], marks.Keys.Order());
        var vane = marks["vane.jpg"];
        Assert.Equal((0.25, 0.5), (vane.Focus!.Value.X, vane.Focus.Value.Y));
        Assert.Equal([Box(0.1, 0.2, 0.6, 0.9), Box(0.7, 0, 1, 1)], vane.Keep);
        Assert.Equal(("storm vane", "A brass vane", "Storm vane\nof brass"), (vane.Name, vane.Alternative, vane.Title));
        Assert.Equal(Box(0, 0.1, 1, 0.6), vane.FramingFor("site", "wide"));
        // A slot of the same key elsewhere is another one.
        Assert.Null(vane.FramingFor("shop", "wide"));
        Assert.Equal(PictureMarks.None.Keep, marks["plain.png"].Keep);
        Assert.Null(marks["plain.png"].Alternative);
    }

    [Fact]
    public void An_empty_text_says_that_there_is_nothing_to_tell()
    {
        Assert.Equal("", Read("""  "a.jpg": { "alt": "" }  """)["a.jpg"].Alternative);
    }

    [Theory]
    [InlineData("""{ "focus": [0.5] }""", "$.pictures[\"a.jpg\"].focus")]
    [InlineData("""{ "focus": [0.5, 1.5] }""", "$.pictures[\"a.jpg\"].focus[1]")]
    [InlineData("""{ "keep": [[0, 0, 1]] }""", "$.pictures[\"a.jpg\"].keep[0]")]
    [InlineData("""{ "keep": [[0.5, 0, 0.5, 1]] }""", "$.pictures[\"a.jpg\"].keep[0]")]
    [InlineData("""{ "keep": {} }""", "$.pictures[\"a.jpg\"].keep")]
    [InlineData("""{ "name": " " }""", "$.pictures[\"a.jpg\"].name")]
    [InlineData("""{ "alt": "a\u0007b" }""", "$.pictures[\"a.jpg\"].alt")]
    [InlineData("""{ "title": 7 }""", "$.pictures[\"a.jpg\"].title")]
    [InlineData("""{ "framings": { "site/none": [0, 0, 1, 1] } }""", "$.pictures[\"a.jpg\"].framings[\"site/none\"]")]
    [InlineData("""{ "framings": { "site/wide": [0, 0, 1, 2] } }""", "$.pictures[\"a.jpg\"].framings[\"site/wide\"][3]")]
    [InlineData("""{ "colour": "red" }""", "$.pictures[\"a.jpg\"].colour")]
    [InlineData("""{ "alt": "a", "alt": "b" }""", "$.pictures[\"a.jpg\"].alt")]
    [InlineData("[]", "$.pictures[\"a.jpg\"]")]
    public void What_is_wrong_is_refused_with_its_place(string picture, string place) =>
        Assert.Equal(place, FaultOf($$"""{ "schema": "pantomet-marks/1", "pictures": { "a.jpg": {{picture}} } }""").Path);

    [Theory]
    [InlineData("""{ "schema": "pantomet-marks/1", "pictures": { "a.jpg": {}, "a.jpg": {} } }""", "$.pictures[\"a.jpg\"]")]
    [InlineData("""{ "schema": "pantomet-marks/2", "pictures": {} }""", "$.schema")]
    [InlineData("""{ "schema": "pantomet-rules/1", "pictures": {} }""", "$.schema")]
    [InlineData("""{ "pictures": {} }""", "$")]
    [InlineData("""{ "schema": "pantomet-marks/1" }""", "$")]
    [InlineData("""{ "schema": "pantomet-marks/1", "pictures": {}, "more": 1 }""", "$.more")]
    [InlineData("no JSON", "$")]
    public void A_file_that_is_none_is_refused(string json, string place) => Assert.Equal(place, FaultOf(json).Path);

    [Fact]
    public void A_text_has_at_most_a_thousand_characters()
    {
        Assert.Equal(1000, Read($$"""  "a.jpg": { "alt": "{{new string('a', 1000)}}" }  """)["a.jpg"].Alternative!.Length);
        var json = $$"""{ "schema": "pantomet-marks/1", "pictures": { "a.jpg": { "alt": "{{new string('a', 1001)}}" } } }""";
        Assert.Contains("1", FaultOf(json).Message, StringComparison.Ordinal);
    }

    private static IReadOnlyDictionary<string, PictureMarks> Read(string pictures)
    {
        var json = $$"""{ "schema": "pantomet-marks/1", "pictures": { {{pictures}} } }""";
        Assert.True(MarksReader.TryRead(json, Book, out var marks, out var fault), fault?.ToString());
        return marks!;
    }

    private static JsonFault FaultOf(string json)
    {
        Assert.False(MarksReader.TryRead(json, Book, out var marks, out var fault));
        Assert.Null(marks);
        Assert.NotEmpty(fault!.Message);
        return fault;
    }

    private static Frame Box(double left, double top, double right, double bottom) =>
        Frame.TryCreate(left, top, right, bottom, out var frame, out var error) ? frame : throw new ArgumentException(error);

    private static Slot SlotOf(string key) =>
        new()
        {
            Key = key,
            Name = key,
            Size = new SizeRule.Exact(new(300, 300)),
        };
}

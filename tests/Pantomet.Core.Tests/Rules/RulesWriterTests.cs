using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Rules;

public class RulesWriterTests
{
    private const string Full = """
        {"schema":"pantomet-rules/1","destinations":[{"key":"harbour-market","name":"Harbour Market","slots":[
        {"key":"listing","name":"Listing photo","size":{"ratio":"5:4","longSide":2500},"fit":"crop","densities":[1,1.5,2],
        "types":["webp","jpeg"],"each":true,
        "limits":{"maxBytes":"1 MB","maxWidth":4000,"maxHeight":4000,"minWidth":1000,"minHeight":800},
        "aims":{"bytes":["500 kB","700 kB"],"quality":[60,90],"likeness":0.98,"belowFloor":true},"clear":[0.05,0.05,0.95,0.95],
        "shownAs":["1:1","4:3"],"subjectShare":0.8,
        "whenTooSmall":"break","background":"#ffeedd","sharpen":"firm","profile":"keep","metadata":"copyright","location":true,
        "ppi":72,"frames":"all",
        "name":"{picture}-{slot}{density}-x"},
        {"key":"b","size":{"within":{"width":400,"height":160}},"fit":"whole","background":"edge"},{"key":"c",
        "size":{"share":0.5}},{"key":"d","size":{"maxPixels":2000000}},
        {"key":"e","size":{"ratio":1.5}},{"key":"f","size":{"width":10,"height":20}},{"key":"g","size":{"shortSide":7}},
        {"key":"h","size":{"ratio":"1.91:1","height":9}}]}]}
        """;

    [Fact]
    public void What_is_written_says_the_same_as_what_was_read()
    {
        Assert.True(RulesReader.TryRead(Full, out var book, out var fault), fault?.ToString());
        var text = RulesWriter.Write(book!);
        Assert.True(RulesReader.TryRead(text, out var again, out fault), fault?.ToString());
        // The same text once more: every key survived, in one order.
        Assert.Equal(text, RulesWriter.Write(again!));
        foreach (
            var word in (string[])
                [
                    "1.5",
                    "webp",
                    "each",
                    "maxBytes",
                    "minHeight",
                    "belowFloor",
                    "0.98",
                    "0.05",
                    "0.8",
                    "break",
                    "#ffeedd",
                    "firm",
                    "keep",
                    "copyright",
                    "location",
                    "72",
                    "all",
                    "{density}-x",
                    "within",
                    "edge",
                    "share",
                    "maxPixels",
                    "shortSide",
                    "1.91:1",
                ]
        )
        {
            Assert.Contains(word, text, StringComparison.Ordinal);
        }
    }

    [Fact]
    public void Only_what_decides_about_bytes_is_in_the_key_of_bytes()
    {
        Assert.True(RulesReader.TryRead(Full, out var book, out _));
        var slot = book!.Destinations[0].Slots[0];
        Assert.Equal(
            RulesWriter.BytesKey(slot),
            RulesWriter.BytesKey(slot with { Name = "Other", Key = "other", SubjectShare = null, WhenTooSmall = WhenTooSmall.Cap })
        );
        Assert.NotEqual(RulesWriter.BytesKey(slot), RulesWriter.BytesKey(slot with { Sharpen = Sharpening.Off }));
    }
}

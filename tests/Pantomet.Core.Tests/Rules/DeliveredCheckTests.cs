using Pantomet.Core.Facts;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Rules;

public class DeliveredCheckTests
{
    private static readonly DeliveredFile File = new(new(2400, 1600), 1, new(1200, 800), PictureFormat.Jpeg, 200_000, 75, 0.985);

    [Theory]
    [InlineData("""  "size":{"ratio":"3:2","width":1200} """)]
    [InlineData("""  "size":{"ratio":"3:2","width":1200},"limits":{"maxBytes":"200 kB"} """)]
    [InlineData("""  "size":{"ratio":"3:2"} """)]
    [InlineData("""  "size":{"width":1200},"types":["auto"] """)]
    public void A_file_that_still_meets_the_rule_is_not_named(string rule) => Assert.Empty(Check(rule));

    [Theory]
    [InlineData("""  "size":{"ratio":"3:2","width":1000} """, "other-size")]
    [InlineData("""  "size":{"ratio":"2:1","width":1200} """, "other-size")]
    [InlineData("""  "size":{"ratio":"3:2","width":1200},"densities":[2] """, "other-density")]
    [InlineData("""  "size":{"ratio":"3:2","width":1200},"types":["webp"] """, "other-type")]
    [InlineData("""  "size":{"ratio":"3:2","width":1200},"limits":{"maxBytes":199999} """, "over-weight")]
    [InlineData("""  "size":{"ratio":"3:2","width":1200},"limits":{"minWidth":1300} """, "smallest-side")]
    [InlineData("""  "size":{"ratio":"3:2","width":1200},"limits":{"maxHeight":700} """, "largest-side")]
    [InlineData("""  "size":{"ratio":"3:2","width":1200},"aims":{"likeness":0.99} """, "likeness")]
    [InlineData("""  "size":{"ratio":"3:2","width":1200},"aims":{"quality":[80,90]} """, "low-quality")]
    [InlineData("""  "size":{"ratio":"3:2","width":1200},"aims":{"bytes":[1000,150000]} """, "over-band")]
    public void A_file_that_no_longer_meets_it_says_why(string rule, string code) => Assert.Equal(code, Assert.Single(Check(rule)));

    private static IEnumerable<string> Check(string rule)
    {
        Assert.True(
            RulesReader.TryRead(
                $$"""{"schema":"pantomet-rules/1","destinations":[{"key":"d","slots":[{"key":"a",{{rule}}}]}]}""",
                out var book,
                out var fault
            ),
            fault?.ToString()
        );
        return DeliveredCheck.Against(book!.Destinations[0].Slots[0], File).Select(reason => reason.Code);
    }
}

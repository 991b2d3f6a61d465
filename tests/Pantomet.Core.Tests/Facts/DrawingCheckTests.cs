using System.Text;
using Pantomet.Core.Facts;

namespace Pantomet.Core.Tests.Facts;

public class DrawingCheckTests
{
    private const string Start = "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'>";

    [Theory]
    [InlineData(Start + "<text>Skerry Weatherworks</text></svg>")]
    [InlineData("<!DOCTYPE svg [<!ENTITY brass '#b08030'>]>" + Start + "<rect fill='&brass;'/></svg>")]
    [InlineData("<svg and then nothing that closes")]
    public void A_usual_drawing_and_a_broken_one_are_left_to_the_drawing_library(string drawing) => Assert.Null(Refusal(drawing));

    [Fact]
    public void Text_that_takes_minutes_is_refused() =>
        Assert.Contains("too much text", Refusal($"{Start}<text>{new string('a', 15_000)}</text></svg>"), StringComparison.Ordinal);

    [Fact]
    public void Entities_that_multiply_are_refused()
    {
        var entities = string.Concat(
            Enumerable.Range(1, 9).Select(n => $"<!ENTITY e{n} '{string.Concat(Enumerable.Repeat($"&e{n - 1};", 9))}'>")
        );
        Assert.Contains(
            "entities",
            Refusal($"<!DOCTYPE svg [<!ENTITY e0 'aaaaaaaaaa'>{entities}]>{Start}<text>&e9;</text></svg>"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Nesting_without_end_is_refused() =>
        Assert.Contains(
            "levels of nested parts",
            Refusal($"{Start}{string.Concat(Enumerable.Repeat("<g>", 5000))}"),
            StringComparison.Ordinal
        );

    private static string? Refusal(string drawing) => DrawingCheck.Refusal(new MemoryStream(Encoding.UTF8.GetBytes(drawing)));
}

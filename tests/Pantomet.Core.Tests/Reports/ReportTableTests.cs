using Pantomet.Core.Reports;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Tests.Reports;

public class ReportTableTests
{
    [Fact]
    public void A_line_for_each_variant_with_what_was_saved_and_why()
    {
        var table = ReportTable.Of(
            new(
                [
                    new()
                    {
                        File = "=vane.jpg",
                        Bytes = 1000,
                        Alternative = "A vane, \"fish\"",
                    },
                ],
                [
                    new()
                    {
                        Source = "=vane.jpg",
                        Destination = "shop",
                        Slot = "a",
                        Density = 2,
                        File = "shop/a.jpg",
                        Width = 3,
                        Height = 2,
                        Format = "jpeg",
                        Bytes = 400,
                        Quality = 80,
                        Likeness = 0.98765,
                        Verdict = Verdict.Concedes,
                        Reasons = [new("x", "Too small.")],
                    },
                    new()
                    {
                        Source = "=vane.jpg",
                        Destination = "shop",
                        Slot = "b",
                        Density = 1,
                        Verdict = Verdict.Breaks,
                        Reasons = [],
                    },
                ],
                new(1000, 400, 1, 0)
            )
        );
        var lines = table.Split("\r\n");
        Assert.Equal(4, lines.Length);
        Assert.Equal(
            "'=vane.jpg,shop,a,2,shop/a.jpg,3,2,jpeg,400,80,0.988,1000,2.5,concedes,Too small.,\"A vane, \"\"fish\"\"\"",
            lines[1]
        );
        Assert.StartsWith("'=vane.jpg,shop,b,1,,,,,,,,1000,,breaks,,", lines[2], StringComparison.Ordinal);
    }
}

using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Reports;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Core.Tests.Planning;

/// <summary>Places that show a picture whole: a logo in a header, a product on white.</summary>
public class WholeAndMatTests
{
    private static readonly PixelSize Landscape = new(3000, 2000);

    [Fact]
    public void A_logo_fits_a_box_without_being_cropped()
    {
        var plan = Plan(new(1200, 1200), new SizeRule.Within(new(400, 160)), Fit.Whole);
        Assert.Equal((new PixelSize(160, 160), Crop.All(new(1200, 1200)), Verdict.Meets), (plan.Size, plan.Crop, plan.Verdict));
    }

    [Fact]
    public void A_square_mat_holds_a_landscape_between_margins()
    {
        var plan = Plan(Landscape, Square(1200), Fit.Mat);
        Assert.Equal((new PixelSize(1200, 1200), new PixelSize(1200, 800)), (plan.Size, plan.Content));
        Assert.True(plan.HasMargins);
    }

    [Fact]
    public void A_mat_keeps_its_exact_box_when_the_picture_is_too_small()
    {
        var plan = Plan(new(500, 300), Square(1200), Fit.Mat);
        Assert.Equal((new PixelSize(1200, 1200), new PixelSize(500, 300), Verdict.Concedes), (plan.Size, plan.Content, plan.Verdict));
        Assert.Equal(ReasonCodes.TooSmall, plan.Reasons.Single().Code);
    }

    [Fact]
    public void A_mat_with_a_shape_alone_grows_around_the_picture()
    {
        var plan = Plan(Landscape, new SizeRule.ShapeAlone(Shape("1:1")), Fit.Mat);
        Assert.Equal((new PixelSize(3000, 3000), Landscape, Verdict.Meets), (plan.Size, plan.Content, plan.Verdict));
    }

    [Fact]
    public void A_mat_within_a_box_is_that_box()
    {
        var plan = Plan(Landscape, new SizeRule.Within(new(800, 800)), Fit.Mat);
        Assert.Equal((new PixelSize(800, 800), new PixelSize(800, 533)), (plan.Size, plan.Content));
    }

    [Fact]
    public void A_mat_of_one_side_alone_needs_no_margins()
    {
        var plan = Plan(Landscape, new SizeRule.SideAlone(Side.Width, 600), Fit.Mat);
        Assert.Equal(new PixelSize(600, 400), plan.Size);
        Assert.False(plan.HasMargins);
    }

    [Fact]
    public void A_frame_by_hand_is_shown_whole()
    {
        Assert.True(Frame.TryCreate(0.5, 0, 1, 1, out var half, out _));
        var slot = new Slot
        {
            Key = "a",
            Name = "A",
            Size = Square(1000),
            Fit = Fit.Mat,
        };
        var plan = VariantPlanner.Plan(Landscape, slot, Density.One, half);
        Assert.Equal(new Crop(1500, 0, 3000, 2000), plan.Crop);
        Assert.Equal(new PixelSize(750, 1000), plan.Content);
    }

    [Fact]
    public void At_2x_a_picture_within_the_box_concedes_what_it_has_not()
    {
        var slot = new Slot
        {
            Key = "a",
            Name = "A",
            Size = new SizeRule.Within(new(1024, 1024)),
        };
        Assert.Equal(Verdict.Meets, VariantPlanner.Plan(new(640, 480), slot, Density.One).Verdict);
        var dense = VariantPlanner.Plan(new(640, 480), slot, new Density(2));
        Assert.Equal((Verdict.Concedes, new PixelSize(640, 480), 1.0), (dense.Verdict, dense.Size, dense.Offered));
    }

    [Theory]
    [InlineData(1200, 900, 0.5, 600, 450)]
    [InlineData(1200, 900, 0.333, 400, 300)]
    public void A_plan_shrinks_in_its_own_shape(int width, int height, double factor, int expectedWidth, int expectedHeight)
    {
        var plan = Plan(new(width, height), new SizeRule.Within(new(2000, 2000)), Fit.Crop).Shrunk(factor);
        Assert.InRange(plan.Size.Width, expectedWidth - 1, expectedWidth);
        Assert.InRange(plan.Size.Height, expectedHeight - 1, expectedHeight);
    }

    [Fact]
    public void The_report_says_null_where_there_is_no_quality_and_leaves_out_a_file_that_was_not_made()
    {
        var report = new RenderReport(
            [new() { File = "a.jpg", Error = "The file is empty." }],
            [
                new()
                {
                    Source = "b.jpg",
                    Destination = "d",
                    Slot = "s",
                    Density = 1.5m,
                    Verdict = Verdict.Skipped,
                    Reasons = [new("too-small", "Too small.")],
                },
            ],
            new(1, 2, 3, 0.5)
        );
        var json = System.Text.Json.JsonDocument.Parse(report.ToJson()).RootElement;
        Assert.Equal("pantomet-report/1", json.GetProperty("schema").GetString());
        Assert.Equal(["file", "error"], json.GetProperty("sources")[0].EnumerateObject().Select(member => member.Name));
        var variant = json.GetProperty("variants")[0];
        Assert.Equal("skipped", variant.GetProperty("verdict").GetString());
        Assert.Equal(System.Text.Json.JsonValueKind.Null, variant.GetProperty("quality").ValueKind);
        Assert.False(variant.TryGetProperty("file", out _));
        Assert.Equal("too-small", variant.GetProperty("reasons")[0].GetProperty("code").GetString());
        Assert.Equal(3, json.GetProperty("totals").GetProperty("files").GetInt32());
    }

    private static VariantPlan Plan(PixelSize picture, SizeRule rule, Fit fit) =>
        VariantPlanner.Plan(
            picture,
            new Slot
            {
                Key = "a",
                Name = "A",
                Size = rule,
                Fit = fit,
            },
            Density.One
        );

    private static SizeRule.ShapeWithSide Square(int side) => new(Shape("1:1"), Side.Width, side);

    private static Ratio Shape(string text) =>
        Ratio.TryParse(text, out var ratio, out var error) ? ratio : throw new ArgumentException(error);
}
